package org.vastporch.server.feeds;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Service;
import org.vastporch.core.feeds.EntryIdentity;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.feeds.Feed;
import org.vastporch.core.feeds.FeedReader;
import org.vastporch.core.feeds.PastedAddress;
import org.vastporch.core.feeds.WebPage;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.feeds.SafeFetcher.FetchException;
import org.vastporch.server.feeds.SafeFetcher.Fetched;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;

/** Finds out what a pasted address is, and which feeds belong to it, before anything is saved. */
@Service
class SourceFinder {

    /** One entry of a feed, as it would come in. */
    record EntryPreview(
            String key,
            String title,
            String firstLines,
            @Optionally String link,
            Instant at) {}

    record Candidate(
            String feedAddress,
            String title,
            String description,
            String site,
            int entries,
            List<EntryPreview> preview) {}

    /** @param sentence what the address turned out to be, in words */
    record Found(String kind, String sentence, List<Candidate> candidates) {}

    private static final int MOST_FEEDS = 4;
    private static final int MOST_SHOWN = 40;

    private final SafeFetcher fetcher;

    SourceFinder(SafeFetcher fetcher) {
        this.fetcher = fetcher;
    }

    Found look(String pasted, Instant now) {
        try (Budget budget = Budget.ofPage()) {
            return look(pasted, now, budget);
        }
    }

    private Found look(String pasted, Instant now, Budget budget) {
        Fetched page = open(pasted, budget);
        if (asksToSignIn(page))
            return new Found(
                    PastedAddress.Kind.SIGN_IN_PAGE.name(),
                    "One has to sign in to read this page, so it cannot be gathered.",
                    List.of());
        Optional<Candidate> feed = candidate(page, now);
        if (feed.isPresent()) return new Found(PastedAddress.Kind.FEED.name(), "This is a feed.", List.of(feed.get()));
        WebPage html = page(page);
        List<Candidate> candidates = feedsOf(html, page.address(), budget).stream()
                .map(fetched -> candidate(fetched, now))
                .flatMap(Optional::stream)
                .toList();
        return new Found(html.kind().name(), sentence(html.kind(), candidates.size()), candidates);
    }

    static WebPage page(Fetched page) {
        return WebPage.read(page.body(), page.contentType(), page.address());
    }

    /** What stands at a pasted address; refused in words where nothing does. */
    Fetched open(String pasted, Budget budget) {
        String address = PastedAddress.normalise(pasted);
        if (address.isEmpty() || address.length() > 1900)
            throw Problem.invalid(
                    "address",
                    "not-an-address",
                    "This is not the address of a page. It looks like rowlock.example or "
                            + "https://rowlock.example/feed.xml.");
        try {
            Fetched page = fetcher.get(address, null, null, budget);
            if (page.status() != 200 && !asksToSignIn(page) && !PastedAddress.isEditing(address))
                throw Problem.invalid("address", "not-found", sentenceFor(page.status()));
            return page;
        } catch (FetchException e) {
            throw Problem.invalid("address", e.code, e.getMessage());
        }
    }

    static boolean asksToSignIn(Fetched page) {
        return page.status() == 401 || page.status() == 403;
    }

    /**
     * The feeds that a page announces; else those behind links that look like it; else those in the usual places. At
     * most four of the announced ones, one of the others.
     */
    List<Fetched> feedsOf(WebPage page, String address, Budget budget) {
        if (page.kind() == PastedAddress.Kind.SIGN_IN_PAGE) return List.of();
        List<Fetched> feeds = feedsAt(page.announced(), MOST_FEEDS, budget);
        if (feeds.isEmpty()) feeds = feedsAt(page.likely(), 1, budget);
        return feeds.isEmpty() ? feedsAt(PastedAddress.guesses(address), 1, budget) : feeds;
    }

    private List<Fetched> feedsAt(List<String> places, int most, Budget budget) {
        List<Fetched> feeds = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        for (String place : places) {
            if (feeds.size() == most || budget.isSpent()) break;
            try {
                Fetched fetched = fetcher.get(place, null, null, budget);
                if (fetched.status() == 200 && feed(fetched).isPresent() && seen.add(fetched.address()))
                    feeds.add(fetched);
            } catch (FetchException e) {
                // Nothing can be had there.
            }
        }
        return feeds;
    }

    /** The feed that was fetched; empty if it is none. */
    static Optional<Feed> feed(Fetched fetched) {
        return FeedReader.read(fetched.body(), fetched.contentType(), fetched.address());
    }

    private static Optional<Candidate> candidate(Fetched fetched, Instant now) {
        return feed(fetched).map(feed -> candidate(fetched, feed, now));
    }

    private static Candidate candidate(Fetched fetched, Feed feed, Instant now) {
        List<Entry> entries = feed.wholeEntries();
        List<String> keys = EntryIdentity.keysOf(entries, key -> Optional.empty());
        List<EntryPreview> preview = new ArrayList<>();
        for (int i = 0; i < Math.min(MOST_SHOWN, entries.size()); i++) {
            Entry e = entries.get(i);
            preview.add(new EntryPreview(
                    keys.get(i),
                    e.title().isBlank() ? "Without a title" : e.title(),
                    TextFacts.of(Sanitiser.post(e.html())).firstLines(140),
                    e.link(),
                    EntryIdentity.dateOf(e, now)));
        }
        return new Candidate(
                fetched.address(),
                feed.title(),
                feed.description(),
                feed.site(),
                feed.entries().size(),
                preview);
    }

    private static String sentence(PastedAddress.Kind kind, int found) {
        String feeds = found == 0
                ? " No feed was found there."
                : found == 1 ? " This feed was found there:" : " These feeds were found there:";
        return switch (kind) {
            case SIGN_IN_PAGE -> "One has to sign in to read this page, so it cannot be gathered.";
            case EDITING_ADDRESS ->
                "This is the address at which its author edits, not the one that readers use." + feeds;
            case SINGLE_POST -> "This is one post of a site." + feeds;
            case NO_FEED ->
                found == 0
                        ? "This page says nothing of a feed, and none was found in the usual places."
                        : "This page says nothing of a feed, but one was found in a usual place:";
            default -> "This is the home page of a site." + feeds;
        };
    }

    static String sentenceFor(int status) {
        return switch (status) {
            case 404 -> "There is no page at this address (404).";
            case 410 -> "This page was taken away for good (410).";
            default ->
                status >= 500
                        ? "The server of this page is out of order (" + status + "). Try again later."
                        : "The server answered with " + status + " instead of a page.";
        };
    }
}
