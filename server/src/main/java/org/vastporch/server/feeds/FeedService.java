package org.vastporch.server.feeds;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Service;
import org.springframework.util.DigestUtils;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.feeds.FeedDocument.Item;
import org.vastporch.server.feeds.FeedDocument.Link;
import org.vastporch.server.feeds.FeedKeyStore.FeedKey;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.reading.PorchService;

/**
 * The feeds that a class gives out, each as one reader may read it. What was made once is given out again until
 * something happens in the class, or a door of one of its blogs opens or closes.
 */
@Service
class FeedService {

    /**
     * A feed ready to be sent.
     *
     * @param updated when anything in it changed last
     */
    record Ready(byte[] body, MediaType type, String etag, Instant updated) {}

    private record Kept(Ready ready, long classId, long changes, Instant until) {}

    private static final int ENTRIES = 50;
    private static final Duration LONGEST_KEPT = Duration.ofMinutes(5);
    /** What happens in a class that takes something out of its feeds, or lets it be read in another way. */
    private static final Set<String> CHANGING = Set.of(
            "post-hidden",
            "post-binned",
            "post-decision-undone",
            "comment-hidden",
            "comment-binned",
            "comment-decision-undone",
            "announced",
            "announcement-taken-back",
            "blog-changed",
            "class-changed",
            "rules-changed",
            "categories-changed",
            "groups-changed",
            "shown-name-changed",
            "shown-names-changed",
            "enrolment-ended",
            "enrolment-taken-back");

    private static final Pattern OWN_FILE = Pattern.compile("(src|href)=\"/media/([^\"]+)\"");

    private final PorchService porch;
    private final CommentService comments;
    private final ClassService classes;
    private final AccessService access;
    private final EventStore events;
    private final FeedWriter writer;
    private final SchoolName name;
    private final SchoolAddress school;
    private final ClassChanges changes;
    private final Clock clock;
    private final Cache<String, Kept> kept = Caffeine.newBuilder()
            .maximumWeight(16 * 1024 * 1024)
            .weigher((String key, Kept value) -> key.length() + value.ready().body().length + 200)
            .build();

    FeedService(
            PorchService porch,
            CommentService comments,
            ClassService classes,
            AccessService access,
            EventStore events,
            FeedWriter writer,
            SchoolName name,
            SchoolAddress school,
            ClassChanges changes,
            Clock clock) {
        this.porch = porch;
        this.comments = comments;
        this.classes = classes;
        this.access = access;
        this.events = events;
        this.writer = writer;
        this.name = name;
        this.school = school;
        this.changes = changes;
        this.clock = clock;
    }

    /** What was made for an address before, if it is what would be made of it now; null if it has to be made. */
    @Nullable
    Ready ready(String address) {
        Kept found = kept.getIfPresent(address);
        return found != null
                        && changes.of(found.classId()) == found.changes()
                        && clock.instant().isBefore(found.until())
                ? found.ready()
                : null;
    }

    /**
     * Makes a feed and keeps it.
     *
     * @param address at which it was asked for, the path with what follows it
     */
    Ready make(String address, long classId, String format, Supplier<FeedDocument> document) {
        // Read first: what changes while it is made makes it be made again.
        long seen = changes.of(classId);
        Instant now = clock.instant();
        FeedDocument feed = document.get();
        byte[] body = writer.write(feed, format);
        Ready ready = new Ready(body, type(format), "\"" + DigestUtils.md5DigestAsHex(body) + "\"", feed.updated());
        Instant turn = porch.nextTurn(classId, now);
        Instant until = now.plus(LONGEST_KEPT);
        kept.put(address, new Kept(ready, classId, seen, turn != null && turn.isBefore(until) ? turn : until));
        return ready;
    }

    private static MediaType type(String format) {
        return MediaType.parseMediaType(
                format.equals("json") ? "application/feed+json" : "application/" + format + "+xml;charset=UTF-8");
    }

    /** @param key the secret address at which it is read; null for the public one */
    FeedDocument posts(
            Viewer viewer, @Nullable FeedKey key, long classId, FeedFilter filter, String path, String query) {
        requireOfClass(viewer, classId, filter.blog());
        PorchService.FeedPage page = porch.feed(viewer, classId, filter.wish(ENTRIES));
        UnaryOperator<String> whole = files(key);
        List<Item> items = page.entries().stream().map(e -> item(e, whole)).toList();
        String base = school.base();
        String self = base + path + (query.isEmpty() ? "" : "?" + query);
        List<Link> links = new ArrayList<>();
        if (filter.after() != null) links.add(new Link("first", base + path + without(query, "after")));
        if (page.next() != null)
            links.add(new Link("next", base + path + with(without(query, "after"), "after=" + page.next())));
        boolean archive = filter.month() != null
                && classes.get(classId)
                        .term()
                        .dayOf(clock.instant())
                        .isAfter(filter.month().atEndOfMonth());
        archives(links, page.months(), filter, base + path, query);
        return new FeedDocument(
                name.urn("feed", classId, viewer.personId(), query),
                title(classId, viewer, filter, page.entries()),
                "Posts of " + classTitle(classId, viewer),
                base + "/classes/" + classId + "/porch",
                self,
                updated(viewer, classId, items),
                links,
                archive,
                items);
    }

    FeedDocument comments(
            Viewer viewer,
            @Nullable FeedKey key,
            long classId,
            @Nullable Long blog,
            @Nullable Long post,
            String path,
            String query) {
        requireOfClass(viewer, classId, blog);
        UnaryOperator<String> whole = files(key);
        List<Item> items = comments.feed(viewer, classId, blog, post, ENTRIES).stream()
                .map(c -> new Item(
                        name.urn("comment", c.id()),
                        school.base() + "/posts/" + c.postId() + "#comment-" + c.id(),
                        "On “" + c.postTitle() + "”",
                        whole.apply(c.html()),
                        null,
                        c.author(),
                        List.of(),
                        c.at(),
                        c.editedAt() == null || c.editedAt().isBefore(c.at()) ? c.at() : c.editedAt()))
                .toList();
        return new FeedDocument(
                name.urn("comments", classId, viewer.personId(), query),
                "Comments: " + classTitle(classId, viewer),
                "Comments in " + classTitle(classId, viewer),
                school.base() + (post == null ? "/classes/" + classId + "/porch" : "/posts/" + post),
                school.base() + path + (query.isEmpty() ? "" : "?" + query),
                updated(viewer, classId, items),
                List.of(),
                false,
                items);
    }

    /** A member asks for a blog by name and is told if it is none of theirs; a stranger's feed is merely empty. */
    private void requireOfClass(Viewer viewer, long classId, @Nullable Long blog) {
        if (viewer.isStranger() || blog == null) return;
        if (access.requireBlog(viewer, blog).classId() != classId) throw Problem.missing();
    }

    private Item item(PorchService.FeedEntry e, UnaryOperator<String> whole) {
        return new Item(
                name.urn("post", e.id()),
                school.base() + "/posts/" + e.id(),
                e.title(),
                whole.apply(e.html()),
                e.firstLines(),
                e.author(),
                e.tags(),
                e.publishedAt(),
                e.changedAt().isBefore(e.publishedAt()) ? e.publishedAt() : e.changedAt());
    }

    /**
     * What is taken back leaves no entry behind, but it happened in the class. What happens there besides is nobody's
     * business who reads its feed, and of a class that is not open a stranger learns nothing.
     */
    private Instant updated(Viewer viewer, long classId, List<Item> items) {
        boolean shut = viewer.isStranger() && !classes.get(classId).rules().open();
        Instant before = shut ? Instant.EPOCH : events.last(classId, CHANGING);
        return items.stream().map(Item::updated).reduce(before, (a, b) -> a.isBefore(b) ? b : a);
    }

    /** Months in which something was published, each a document that leads to the one before (RFC 5005, 4). */
    private static void archives(
            List<Link> links, List<YearMonth> months, FeedFilter filter, String path, String query) {
        String bare = without(without(query, "after"), "month");
        YearMonth at = filter.month();
        if (at != null) links.add(new Link("current", path + bare));
        // Newest first.
        months.stream()
                .filter(m -> at == null || m.isBefore(at))
                .skip(at == null ? 1 : 0)
                .findFirst()
                .ifPresent(m -> links.add(new Link("prev-archive", path + with(bare, "month=" + m))));
        if (at != null)
            months.stream()
                    .filter(m -> m.isAfter(at))
                    .reduce((a, b) -> b)
                    .ifPresent(m -> links.add(new Link("next-archive", path + with(bare, "month=" + m))));
    }

    private static String without(String query, String name) {
        String bare = query.replaceFirst("^\\?", "");
        String left = String.join(
                "&",
                Arrays.stream(bare.split("&"))
                        .filter(p -> !p.isEmpty() && !p.startsWith(name + "="))
                        .toList());
        return left.isEmpty() ? "" : "?" + left;
    }

    private static String with(String query, String parameter) {
        return query.isEmpty() ? "?" + parameter : query + "&" + parameter;
    }

    /**
     * Own files get whole addresses; in a secret feed such that carry a token of their own, since a reader's program is
     * not signed in.
     */
    private UnaryOperator<String> files(@Nullable FeedKey key) {
        String base = school.base();
        return html -> OWN_FILE.matcher(html)
                .replaceAll(m -> Matcher.quoteReplacement(m.group(1) + "=\"" + base
                        + (key == null
                                ? "/media/" + m.group(2)
                                : "/feeds/files/" + key.id() + "/" + FeedKeyService.signature(key, file(m.group(2)))
                                        + "/" + m.group(2))
                        + "\""));
    }

    /** The id of a file in its address, which is what is signed: "17-ab", or "files/17-ab" with its name after it. */
    static String file(String rest) {
        String[] parts = rest.split("[/?#]");
        return parts[0].equals("files") && parts.length > 1 ? "files/" + parts[1] : parts[0];
    }

    /**
     * What the filter is about is said in the words of what came of it: what is not in the feed cannot be learnt from
     * its title.
     */
    private String title(long classId, Viewer viewer, FeedFilter filter, List<PorchService.FeedEntry> entries) {
        String title = classTitle(classId, viewer);
        if (entries.isEmpty()) return title;
        PorchService.FeedEntry first = entries.get(0);
        List<String> about = new ArrayList<>();
        if (filter.blog() != null) about.add(first.blog());
        if (filter.place() != null) about.add(first.author());
        if (filter.group() != null && first.group() != null) about.add(first.group());
        if (filter.prompt() != null && first.prompt() != null) about.add(first.prompt());
        if (filter.tag() != null) about.add(filter.tag());
        return about.isEmpty() ? title : String.join(", ", about) + " · " + title;
    }

    private String classTitle(long classId, Viewer viewer) {
        ClassService.ClassRecord of = classes.get(classId);
        boolean knows = !viewer.isStranger() || of.rules().open();
        return knows ? of.name() : "A class on Vast Porch";
    }
}
