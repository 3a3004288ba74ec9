package org.vastporch.server.frontpage;

import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.web.util.UriComponentsBuilder;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogSettings.Grouping;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.frontpage.FrontPageStore.Front;
import org.vastporch.server.frontpage.FrontView.Feed;
import org.vastporch.server.frontpage.FrontView.Frame;
import org.vastporch.server.frontpage.FrontView.Line;
import org.vastporch.server.frontpage.FrontView.Link;
import org.vastporch.server.frontpage.FrontView.Stream;
import org.vastporch.server.frontpage.FrontView.Year;
import org.vastporch.server.http.Problem;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.reading.PorchService;
import org.vastporch.server.reading.ReadingService;
import org.vastporch.server.search.SearchService;
import org.vastporch.server.search.Words;

/** Reads what anyone may read, as a stranger whoever asks, and says it in words and addresses. */
@Service
class FrontPageReader {

    /**
     * By what a page is narrowed; at most one of them, and words win.
     *
     * @param person the number of a person's place in the class
     * @param after where the page begins
     */
    record Narrowing(
            @Nullable String q,
            @Nullable YearMonth month,
            @Nullable String tag,
            @Nullable Long person,
            @Nullable String after) {

        boolean isNone() {
            return words().isEmpty() && month == null && tag == null && person == null && after == null;
        }

        String words() {
            return q == null ? "" : q.strip();
        }
    }

    private static final int POSTS = 20;
    private static final int LONGEST_DESCRIPTION = 200;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.UK);
    private static final DateTimeFormatter MONTH = DateTimeFormatter.ofPattern("MMMM yyyy", Locale.UK);

    private final FrontPageStore store;
    private final ClassService classes;
    private final BlogService blogs;
    private final PorchService porch;
    private final ReadingService reading;
    private final CommentService comments;
    private final SearchService search;
    private final SchoolAddress school;
    private final MediaInPlace media;

    FrontPageReader(
            FrontPageStore store,
            ClassService classes,
            BlogService blogs,
            PorchService porch,
            ReadingService reading,
            CommentService comments,
            SearchService search,
            SchoolAddress school,
            MediaInPlace media) {
        this.store = store;
        this.classes = classes;
        this.blogs = blogs;
        this.porch = porch;
        this.reading = reading;
        this.comments = comments;
        this.search = search;
        this.school = school;
        this.media = media;
    }

    /**
     * The class whose front page has, or had, an address.
     *
     * @throws Problem if there is none that is open: a class that is shut is as good as none
     */
    Front at(String address) {
        return open(store.at(address).orElseThrow(Problem::missing));
    }

    Front of(long classId) {
        return open(store.of(classId).orElseThrow(Problem::missing));
    }

    private static Front open(Front front) {
        if (!front.open()) throw Problem.missing();
        return front;
    }

    FrontView.OfClass ofClass(Front front, Narrowing by) {
        ClassService.ClassRecord of = classes.get(front.classId());
        String here = "/" + front.address();
        if (by.person() != null && !front.peoplePages()) throw Problem.missing();
        PorchService.Porch page = porch.frontPage(front.classId(), wish(by, null, false, POSTS));
        if (by.person() != null && page.entries().isEmpty()) throw Problem.missing();
        Stream stream = stream(front, of.term(), here, by, page, Grouping.NONE, null);
        return new FrontView.OfClass(
                frame(front, of, of.name(), "", here, "/classes/" + front.classId() + "/porch", classFeeds(of)),
                stream,
                porch.frontPageBlogs(front.classId()).stream()
                        .map(b -> new Link(b.title(), here + "/" + b.address(), b.posts()))
                        .toList(),
                years(here, porch.frontPageMonths(front.classId(), null)),
                tags(here, page.tags()));
    }

    /** The present address of a blog that has, or had, another. */
    String blogAddress(Front front, String address) {
        return blogs.page(Viewer.STRANGER, front.classId(), address).address();
    }

    FrontView.OfBlog ofBlog(Front front, String address, Narrowing by) {
        BlogService.BlogPage blog = blogs.page(Viewer.STRANGER, front.classId(), address);
        ClassService.ClassRecord of = classes.get(front.classId());
        String here = "/" + front.address() + "/" + blog.address();
        PorchService.Porch page =
                porch.frontPage(front.classId(), wish(by, blog.id(), !blog.newestFirst(), blog.perPage()));
        PorchService.Shelf shelf = porch.shelf(Viewer.STRANGER, blog.id());
        String inside = "/classes/" + front.classId() + "/blog/" + blog.address();
        return new FrontView.OfBlog(
                frame(front, of, blog.title(), blog.intro(), here, inside, blogFeeds(of, blog)),
                blog.look().name(),
                blog.header(),
                blog.title(),
                blog.intro(),
                blog.owner(),
                by(front, blog.ownerPlace()),
                by.isNone(),
                shelf.pinned().stream()
                        .map(e -> line(front, of.term(), e, null, true))
                        .toList(),
                shelf.series().stream()
                        .map(s -> new FrontView.Series(
                                s.name(),
                                s.parts().stream()
                                        .map(p -> new Link(p.title(), here + "/" + p.postId(), p.part()))
                                        .toList()))
                        .toList(),
                stream(front, of.term(), here, by, page, blog.grouping(), blog.id()),
                years(here, porch.frontPageMonths(front.classId(), blog.id())),
                tags(here, page.tags()));
    }

    /**
     * A post at its place.
     *
     * @param member whether whoever asks is signed in
     * @param form what stands in the form of a visitor
     */
    FrontView.OfPost ofPost(Front front, long postId, boolean member, boolean said, FrontView.Form form) {
        ReadingService.PostView post = reading.post(Viewer.STRANGER, postId);
        if (post.classId() != front.classId()) throw Problem.missing();
        ClassService.ClassRecord of = classes.get(front.classId());
        List<CommentService.CommentView> under = comments.ofPost(Viewer.STRANGER, postId);
        String blogHref = "/" + front.address() + "/" + post.blogAddress();
        ReadingService.Arranged arranged = post.arranged();
        return new FrontView.OfPost(
                frame(
                        front,
                        of,
                        post.title(),
                        TextFacts.of(post.html()).firstLines(LONGEST_DESCRIPTION),
                        blogHref + "/" + postId,
                        "/posts/" + postId,
                        feeds(
                                "/feeds/classes/" + of.id() + "/comments",
                                "?post=" + postId,
                                "Comments: " + post.title())),
                post.title(),
                post.author(),
                by(front, post.place()),
                post.publishedAt() == null ? "" : day(of.term(), post.publishedAt()),
                post.blog(),
                blogHref,
                media.ofPost(postId, post.html()),
                excerpt(post.excerpt()),
                post.tags().stream()
                        .map(t -> new Link(t, query(blogHref, "tag", t), 0))
                        .toList(),
                post.references(),
                post.outsideLink(),
                part(blogHref, arranged.before()),
                part(blogHref, arranged.after()),
                arranged.series(),
                under.stream()
                        .map(c -> new FrontView.Comment(
                                c.id(),
                                c.author(),
                                day(of.term(), c.at()),
                                media.of(c.html()),
                                c.parentId() != null,
                                "?answer=" + c.id() + "#answer"))
                        .toList(),
                !under.isEmpty()
                        ? count(under.size(), "comment", "comments")
                        : post.commentsShut() == null ? "Nobody has answered yet" : "",
                post.mayComment(),
                member,
                said,
                form,
                under.stream()
                        .filter(c -> Long.valueOf(c.id()).equals(form.answering()))
                        .map(CommentService.CommentView::author)
                        .findFirst()
                        .orElse(null),
                post.commentsShut());
    }

    private static String excerpt(@Nullable Excerpt excerpt) {
        if (excerpt == null) return "";
        return excerpt == Excerpt.BEGINNING
                ? "Only its beginning came here; the rest stands on its own page."
                : "Its feed carries only the beginning; the text was taken from its own page.";
    }

    /** Where a post stands among the front pages, if anyone may read it. */
    String addressOf(long postId) {
        ReadingService.PostView post = reading.post(Viewer.STRANGER, postId);
        return "/" + of(post.classId()).address() + "/" + post.blogAddress() + "/" + postId;
    }

    FrontView.Nothing nothing() {
        return new FrontView.Nothing(
                new Frame("Nothing to read here", "", "", false, "Vast Porch", "/", "/", List.of()));
    }

    private static PorchService.Wish wish(Narrowing by, @Nullable Long blog, boolean oldestFirst, int most) {
        return new PorchService.Wish(
                null,
                null,
                null,
                by.month(),
                null,
                by.person(),
                null,
                null,
                by.tag(),
                null,
                null,
                false,
                false,
                blog,
                oldestFirst,
                most,
                by.after());
    }

    private Stream stream(
            Front front,
            Term term,
            String here,
            Narrowing by,
            PorchService.Porch page,
            Grouping grouping,
            @Nullable Long blogId) {
        if (!by.words().isEmpty()) return sought(front, term, here, by, blogId);
        List<Line> lines = new ArrayList<>();
        String before = "";
        for (PorchService.EntryView entry : page.entries()) {
            String group = group(term, grouping, entry.publishedAt());
            lines.add(line(front, term, entry, group.equals(before) ? null : group, blogId != null));
            before = group;
        }
        String older = page.next() == null ? null : query(narrowed(here, by), "after", page.next());
        return new Stream(lines, inWords(by, page), here, older, "", null);
    }

    private Stream sought(Front front, Term term, String here, Narrowing by, @Nullable Long blogId) {
        SearchService.SearchResult found = search.searchFrontPage(
                front.classId(), blogId, by.words(), by.after() == null ? "" : by.after(), POSTS);
        List<Line> lines = found.hits().stream()
                .map(hit -> new Line(
                        null,
                        hit.title(),
                        "/posts/" + hit.postId(),
                        hit.author(),
                        null,
                        day(term, hit.at()),
                        "",
                        "",
                        String.join(
                                "",
                                hit.snippet().stream().map(Words.Marked::text).toList()),
                        null,
                        ""))
                .toList();
        return new Stream(
                lines,
                "“" + by.words() + "”",
                here,
                found.next() == null ? null : query(query(here, "q", by.words()), "after", found.next()),
                by.words(),
                blogId == null ? null : query("/" + front.address(), "q", by.words()));
    }

    private static @Nullable String inWords(Narrowing by, PorchService.Porch page) {
        if (by.month() != null) return MONTH.format(by.month());
        if (by.tag() != null) return "tagged " + by.tag();
        if (by.person() != null) return "by " + page.entries().get(0).author();
        return null;
    }

    private static String narrowed(String here, Narrowing by) {
        if (by.month() != null) return query(here, "month", by.month().toString());
        if (by.tag() != null) return query(here, "tag", by.tag());
        return by.person() == null ? here : query(here, "person", by.person().toString());
    }

    private Line line(Front front, Term term, PorchService.EntryView e, @Nullable String heading, boolean inBlog) {
        String blogHref = "/" + front.address() + "/" + e.blogAddress();
        return new Line(
                heading,
                e.title(),
                blogHref + "/" + e.id(),
                e.author(),
                by(front, e.place()),
                day(term, e.publishedAt()),
                inBlog ? "" : e.blog(),
                blogHref,
                e.firstLines(),
                e.picture(),
                e.comments() == 0 ? "" : count(e.comments(), "comment", "comments"));
    }

    /** The page of all that a person wrote for anyone; null if the class has none. */
    private static @Nullable String by(Front front, @Nullable Long place) {
        return front.peoplePages() && place != null && place > 0
                ? query("/" + front.address(), "person", place.toString())
                : null;
    }

    private static @Nullable Link part(String blogHref, PorchService.@Nullable SeriesPart part) {
        return part == null ? null : new Link(part.title(), blogHref + "/" + part.postId(), part.part());
    }

    private static String group(Term term, Grouping grouping, Instant at) {
        LocalDate day = term.dayOf(at);
        return switch (grouping) {
            case NONE -> "";
            case MONTH -> MONTH.format(day);
            case WEEK ->
                term.weeks().stream()
                        .filter(w -> w.contains(at))
                        .findFirst()
                        .map(w -> w.isBreak() ? "Break" : "Week " + w.number())
                        .orElseGet(() -> MONTH.format(day));
        };
    }

    private static List<Year> years(String here, List<PorchService.Month> months) {
        Map<Integer, List<Link>> years = new TreeMap<>((a, b) -> b - a);
        for (PorchService.Month month : months) {
            YearMonth of = YearMonth.parse(month.month());
            years.computeIfAbsent(of.getYear(), y -> new ArrayList<>())
                    .add(new Link(
                            of.getMonth().getDisplayName(TextStyle.FULL, Locale.UK),
                            query(here, "month", month.month()),
                            month.count()));
        }
        return years.entrySet().stream()
                .map(y -> new Year(y.getKey(), y.getValue()))
                .toList();
    }

    private static List<Link> tags(String here, List<PorchService.Facet> tags) {
        return tags.stream()
                .map(t -> new Link(t.label(), query(here, "tag", t.label()), t.count()))
                .toList();
    }

    private Frame frame(
            Front front,
            ClassService.ClassRecord of,
            String title,
            String description,
            String here,
            String inside,
            List<Feed> feeds) {
        String plain = TextFacts.of(description).firstLines(LONGEST_DESCRIPTION);
        return new Frame(
                title.equals(of.name()) ? title : title + " · " + of.name(),
                plain,
                school.base() + here,
                front.findable() && store.isSchoolFindable(),
                of.name(),
                "/" + front.address(),
                inside,
                feeds);
    }

    private static List<Feed> classFeeds(ClassService.ClassRecord of) {
        List<Feed> feeds = new ArrayList<>(feeds("/feeds/classes/" + of.id(), "", of.name()));
        feeds.addAll(feeds("/feeds/classes/" + of.id() + "/comments", "", "Comments: " + of.name()));
        return feeds;
    }

    private static List<Feed> blogFeeds(ClassService.ClassRecord of, BlogService.BlogPage blog) {
        List<Feed> feeds = new ArrayList<>(feeds("/feeds/blogs/" + blog.id(), "", blog.title()));
        feeds.addAll(
                feeds("/feeds/classes/" + of.id() + "/comments", "?blog=" + blog.id(), "Comments: " + blog.title()));
        return feeds;
    }

    private static List<Feed> feeds(String path, String query, String title) {
        return List.of(
                new Feed("application/rss+xml", title, path + ".rss" + query),
                new Feed("application/atom+xml", title, path + ".atom" + query),
                new Feed("application/feed+json", title, path + ".json" + query));
    }

    private static String query(String path, String name, String value) {
        return UriComponentsBuilder.fromUriString(path)
                .queryParam(name, "{value}")
                .encode()
                .buildAndExpand(value)
                .toUriString();
    }

    private static String day(Term term, Instant at) {
        return DAY.format(term.dayOf(at));
    }

    private static String count(int n, String one, String many) {
        return n + " " + (n == 1 ? one : many);
    }
}
