package org.vastporch.server.feeds;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.EntryIdentity;
import org.vastporch.core.feeds.Feed;
import org.vastporch.core.feeds.PastedAddress;
import org.vastporch.core.feeds.PastedAddress.Kind;
import org.vastporch.core.feeds.WebPage;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.core.writing.Tags;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.feeds.SafeFetcher.Fetched;
import org.vastporch.server.http.Allowance;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.writing.PostService;

/** One post that its author keeps elsewhere, found by any address of it and brought in as a draft. */
@Service
class ElsewhereService {

    /** A post that was found. {@code at} is left out where its page does not say when it was written. */
    record ElsewherePost(
            String address,
            String title,
            String firstLines,
            @Optionally Instant at) {}

    /**
     * What a pasted address turned out to be.
     *
     * @param sentence the same in words
     * @param exact the very post that it leads to
     * @param posts others that were found there, to choose from
     */
    record Elsewhere(
            String kind, String sentence, @Optionally ElsewherePost exact, List<ElsewherePost> posts) {}

    private record Post(
            String address,
            String title,
            String html,
            List<String> tags,
            @Nullable Instant at) {}

    private record Finding(Kind kind, @Nullable Post exact, List<Post> posts) {}

    private static final int MOST_OFFERED = 12;

    private final SourceFinder finder;
    private final PostService posts;
    private final AccessService access;
    private final Clock clock;
    /** Each look goes out to somebody else's server. */
    private final Allowance looks = new Allowance(40);

    ElsewhereService(SourceFinder finder, PostService posts, AccessService access, Clock clock) {
        this.finder = finder;
        this.posts = posts;
        this.access = access;
        this.clock = clock;
    }

    /** Says what is at an address, for somebody who may write in a blog. */
    Elsewhere look(Viewer viewer, long blogId, String pasted) {
        Finding finding = find(viewer, blogId, pasted);
        return new Elsewhere(
                finding.kind().name(),
                sentence(finding),
                finding.exact() == null ? null : view(finding.exact()),
                finding.posts().stream()
                        .filter(p -> finding.exact() == null
                                || !p.address().equals(finding.exact().address()))
                        .limit(MOST_OFFERED)
                        .map(ElsewhereService::view)
                        .toList());
    }

    /** Brings the post at an address in as a draft, to be looked through and handed in. */
    long bring(Viewer viewer, long blogId, @Nullable Long promptId, String pasted) {
        Finding finding = find(viewer, blogId, pasted);
        if (finding.exact() == null) throw Problem.invalid("address", "no-post-there", sentence(finding));
        Post post = finding.exact();
        return posts.bringIn(viewer, blogId, promptId, post.address(), post.title(), post.html(), post.tags());
    }

    private Finding find(Viewer viewer, long blogId, String pasted) {
        access.requireWriting(viewer, blogId);
        if (!looks.take(String.valueOf(viewer.personId())))
            throw Problem.tooMany("You have looked at very many addresses. Wait a few minutes, then go on.");
        try (Budget budget = Budget.ofPage()) {
            return find(pasted, budget);
        }
    }

    private Finding find(String pasted, Budget budget) {
        Fetched page = finder.open(pasted, budget);
        if (SourceFinder.asksToSignIn(page)) return new Finding(Kind.SIGN_IN_PAGE, null, List.of());
        if (SourceFinder.feed(page).isPresent()) return new Finding(Kind.FEED, null, postsOf(List.of(page)));
        WebPage html = SourceFinder.page(page);
        Kind kind = html.kind();
        if (kind == Kind.SIGN_IN_PAGE) return new Finding(kind, null, List.of());
        List<Post> found = postsOf(finder.feedsOf(html, page.address(), budget));
        String lasting = EntryIdentity.cleanLink(html.lasting());
        List<String> addresses = List.of(
                EntryIdentity.cleanLink(PastedAddress.normalise(pasted)),
                EntryIdentity.cleanLink(page.address()),
                lasting);
        Post exact = found.stream()
                .filter(p -> addresses.contains(p.address()))
                .findFirst()
                .or(() -> html.article().map(a -> new Post(lasting, a.title(), a.html(), List.of(), null)))
                .orElse(null);
        return new Finding(kind, exact, found);
    }

    private List<Post> postsOf(List<Fetched> feeds) {
        Instant now = clock.instant();
        List<Post> found = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        for (Fetched fetched : feeds)
            for (EntryIdentity.Entry entry :
                    SourceFinder.feed(fetched).map(Feed::entries).orElse(List.of())) {
                if (entry.link() == null || entry.link().isBlank()) continue;
                String address = EntryIdentity.cleanLink(entry.link());
                if (seen.add(address))
                    found.add(new Post(
                            address,
                            entry.title(),
                            entry.html(),
                            Tags.tidy(entry.tags()),
                            EntryIdentity.dateOf(entry, now)));
            }
        return found;
    }

    private static ElsewherePost view(Post post) {
        return new ElsewherePost(
                post.address(),
                post.title().isBlank() ? "Without a title" : post.title(),
                TextFacts.of(Sanitiser.post(post.html())).firstLines(160),
                post.at());
    }

    private static String sentence(Finding finding) {
        if (finding.exact() != null) return "This is the post:";
        boolean some = !finding.posts().isEmpty();
        String which = some
                ? " Which of these is the post you mean?"
                : " No posts were found there. Open the post itself as a reader would, and copy that address.";
        return switch (finding.kind()) {
            case SIGN_IN_PAGE ->
                "One has to sign in to read this page, so nothing can be brought in from it. Make the"
                        + " post public there, or copy its text.";
            case EDITING_ADDRESS -> "At this address its author edits; readers have another one." + which;
            case FEED -> "This is the feed of a blog, not one post." + which;
            case SITE_WITH_FEEDS -> "This is the front page of a blog, not one post." + which;
            default -> "There is no single post on this page." + which;
        };
    }
}
