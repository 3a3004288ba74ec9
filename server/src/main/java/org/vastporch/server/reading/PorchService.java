package org.vastporch.server.reading;

import java.time.Clock;
import java.time.Instant;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogSettings;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.text.Folding;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Cursor;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reading.PorchStore.Entry;
import org.vastporch.server.reading.PorchStore.Filter;

/** The Porch of a class: what readers find, and by what; a blog's shelf, the rail, feeds. */
@Service
public class PorchService {

    static final int PAGE = 50;
    private static final int LARGEST_PAGE = 100;
    private static final int MOST_PINNED = 10;

    /**
     * What to show.
     *
     * @param term index into the terms of the class, 0-based; left out for the present one, if weeks are given
     * @param fromWeek index into the weeks of the term, 0-based; left out for the whole term
     * @param month such as 2026-11; left out for all
     * @param span the days around now; left out for all
     * @param place the number of a person's place in the class
     * @param source the number of an outside blog
     * @param announcements whether announcements are shown instead of posts
     */
    public record Wish(
            @Nullable Integer term,
            @Nullable Integer fromWeek,
            @Nullable Integer toWeek,
            @Nullable YearMonth month,
            Term.@Nullable Span span,
            @Nullable Long place,
            @Nullable Long group,
            @Nullable Long prompt,
            @Nullable String tag,
            @Nullable Long category,
            @Nullable Long source,
            boolean announcements,
            boolean unanswered,
            @Nullable Long blog,
            boolean oldestFirst,
            int most,
            @Nullable String after) {

        /** The newest posts of one week of the term, or of all of it. */
        public static Wish ofWeek(@Nullable Integer week) {
            return new Wish(
                    null, week, null, null, null, null, null, null, null, null, null, false, false, null, false, PAGE,
                    null);
        }
    }

    /** @param place the number of its author's place in the class; 0 for nobody there */
    public record EntryView(
            long id,
            String title,
            String firstLines,
            @Optionally String picture,
            List<String> tags,
            long place,
            String author,
            @Optionally String group,
            String blog,
            String blogAddress,
            @Optionally String prompt,
            @Optionally String source,
            Instant publishedAt,
            int comments,
            @Optionally String lastCommenter,
            boolean answered,
            boolean unread) {

        EntryView opened() {
            return new EntryView(
                    id,
                    title,
                    firstLines,
                    picture,
                    tags,
                    place,
                    author,
                    group,
                    blog,
                    blogAddress,
                    prompt,
                    source,
                    publishedAt,
                    comments,
                    lastCommenter,
                    answered,
                    false);
        }
    }

    public record Facet(String key, String label, int count) {}

    /**
     * @param next the cursor of the next page; left out on the last
     * @param answerFirst the prompts whose answers the reader sees only after an own one
     */
    public record Porch(
            List<EntryView> entries,
            @Optionally String next,
            int total,
            int unread,
            List<Facet> people,
            List<Facet> prompts,
            List<Facet> tags,
            List<Facet> categories,
            List<Facet> sources,
            int announcements,
            int unanswered,
            List<String> answerFirst) {

        Porch opened(Set<Long> posts, int unread) {
            return new Porch(
                    entries.stream()
                            .map(e -> posts.contains(e.id()) ? e.opened() : e)
                            .toList(),
                    next,
                    total,
                    unread,
                    people,
                    prompts,
                    tags,
                    categories,
                    sources,
                    announcements,
                    unanswered,
                    answerFirst);
        }
    }

    /** @param counts posts published in each week of the term, in order */
    public record Rail(List<Integer> counts, List<Instant> due, List<Month> months) {}

    /** A month in which something was published, such as 2026-11. */
    public record Month(String month, int count) {}

    /** What lies on top of a blog's stream: what is pinned, and its series. */
    public record Shelf(List<EntryView> pinned, List<Series> series) {}

    /**
     * A blog in the directory of a class.
     *
     * @param newest when the newest post in it went up; left out while there is none
     * @param readers how many can read it
     */
    public record DirectoryLine(
            long id,
            BlogKind kind,
            String title,
            String address,
            BlogSettings.Look look,
            @Optionally String owner,
            int posts,
            int comments,
            @Optionally Instant newest,
            int readers,
            boolean strangers) {}

    /** A blog in which something stands that anyone may read, with how much of that. */
    public record OpenBlog(String title, String address, int posts, Instant newest) {}

    public record Series(String name, List<SeriesPart> parts) {}

    public record SeriesPart(int part, long postId, String title) {}

    /**
     * A page of a feed.
     *
     * @param next the cursor of the next page; null on the last
     * @param months in which something in it was published, the newest first
     */
    public record FeedPage(
            List<FeedEntry> entries, @Nullable String next, List<YearMonth> months) {}

    /** A post as a feed carries it. */
    public record FeedEntry(
            long id,
            String title,
            String firstLines,
            String html,
            String author,
            @Nullable String group,
            String blog,
            @Nullable String prompt,
            List<String> tags,
            Instant publishedAt,
            Instant changedAt) {}

    /**
     * A page as it is for a reader who has opened nothing, which is the same until something happens in the class.
     *
     * @param unread the posts that are new to the reader as long as they are not opened
     */
    private record Unopened(Porch page, List<Long> unread) {

        Porch without(Set<Long> opened) {
            return page.opened(opened, unread.size() - opened.size());
        }

        int bytes() {
            return 2_000 * page.entries().size() + 24 * unread.size() + 10_000;
        }
    }

    private final PorchStore porch;
    private final KeptReading<Unopened> kept;
    private final BlogService blogs;
    private final PromptService prompts;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final Clock clock;

    PorchService(
            PorchStore porch,
            ClassChanges changes,
            BlogService blogs,
            PromptService prompts,
            ClassService classes,
            PeopleService people,
            AccessService access,
            Clock clock) {
        this.porch = porch;
        this.kept = new KeptReading<>(changes, porch::nextTurn, Unopened::bytes);
        this.blogs = blogs;
        this.prompts = prompts;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.clock = clock;
    }

    public Porch porch(Viewer viewer, long classId, Wish wish) {
        requireReading(viewer, classId, wish.blog());
        ScopeSql scope = access.scope(viewer);
        Unopened unopened = kept.get(
                classId,
                List.of(
                        viewer,
                        scope.clauses(),
                        wish,
                        wish.span() == null && wish.fromWeek() == null ? Filter.ALL : range(classId, wish)),
                scope.now(),
                () -> unopened(viewer, scope, classId, wish));
        return unopened.without(porch.seen(viewer.personId(), unopened.unread()));
    }

    /** What anyone may read of an open class, whoever asks. */
    public Porch frontPage(long classId, Wish wish) {
        access.requireFrontPage(classId);
        ScopeSql scope = access.scope(Viewer.STRANGER);
        return kept.get(
                        classId,
                        List.of(Viewer.STRANGER, scope.clauses(), wish),
                        scope.now(),
                        () -> unopened(Viewer.STRANGER, scope, classId, wish))
                .page();
    }

    /** The months in which something was published that anyone may read, the newest first. */
    public List<Month> frontPageMonths(long classId, @Nullable Long blog) {
        access.requireFrontPage(classId);
        return months(
                classes.get(classId).term(),
                porch.moments(access.scope(Viewer.STRANGER), classId, Filter.ALL.ofBlog(blog)));
    }

    /** The blogs in which something stands that anyone may read, the one written in last first. */
    public List<OpenBlog> frontPageBlogs(long classId) {
        access.requireFrontPage(classId);
        return porch.byBlog(access.scope(Viewer.STRANGER), classId).stream()
                .sorted(Comparator.comparing(PorchStore.InBlog::newest).reversed())
                .map(b -> new OpenBlog(b.title(), b.address(), b.posts(), b.newest()))
                .toList();
    }

    private Unopened unopened(Viewer viewer, ScopeSql scope, long classId, Wish wish) {
        // What one can narrow by is counted within the weeks, the blog and the person that the page is about.
        Filter range = range(classId, wish);
        Long person = person(classId, wish.place());
        PorchCounts counts = porch.counts(scope, classId, viewer.personId(), range);
        Filter filter = filter(wish, range, person);
        PorchStore.Page start = start(wish);
        int size = Math.max(1, Math.min(wish.most(), LARGEST_PAGE));
        List<Long> found =
                counts.page(filter, new PorchStore.Page(start.at(), start.id(), wish.oldestFirst(), size + 1));
        List<Entry> page = porch.entries(scope, classId, found.subList(0, Math.min(size, found.size())));
        Names names = people.names(viewer, classId);
        Entry last = page.isEmpty() ? null : page.get(page.size() - 1);
        String next = found.size() > size && last != null ? Cursor.of(last.publishedAt(), last.id()) : null;
        List<Long> unread = counts.unread(filter);
        return new Unopened(
                new Porch(
                        page.stream()
                                .map(e -> view(e, names, counts.around(), viewer))
                                .toList(),
                        next,
                        counts.total(filter),
                        unread.size(),
                        people(
                                counts.byPerson(),
                                access.allows(viewer, Act.READ_CLASS, classId) ? person : null,
                                names),
                        facets(counts.byPrompt(person)),
                        facets(counts.byTag(person)),
                        facets(counts.byCategory(person)),
                        facets(counts.bySource(person)),
                        porch.count(scope, classId, Filter.ALL.of(PorchStore.Kind.ANNOUNCEMENTS)),
                        counts.unanswered(person),
                        answerFirst(viewer, classId)),
                unread);
    }

    private static Filter filter(Wish wish, Filter range, @Nullable Long person) {
        return new Filter(
                range.from(),
                range.to(),
                person,
                wish.group(),
                wish.prompt(),
                wish.tag(),
                wish.category(),
                wish.source(),
                wish.unanswered(),
                range.blog(),
                false,
                range.kind());
    }

    private static PorchStore.Page start(Wish wish) {
        return Cursor.read(
                        wish.after(),
                        parts -> new PorchStore.Page(
                                moment(parts.get(0)), Long.parseLong(parts.get(1)), wish.oldestFirst(), 0))
                .orElse(new PorchStore.Page(null, 0, wish.oldestFirst(), 0));
    }

    /** A moment of a cursor; only those that the database knows. */
    private static Instant moment(String text) {
        Instant at = Instant.parse(text);
        if (at.isBefore(Instant.EPOCH) || at.isAfter(Instant.parse("9000-01-01T00:00:00Z")))
            throw new IllegalArgumentException("No post is from then: " + text);
        return at;
    }

    private List<String> answerFirst(Viewer viewer, long classId) {
        if (viewer.in(classId, clock.instant())
                .filter(m -> m.role() == Role.STUDENT)
                .isEmpty()) return List.of();
        return prompts.answerFirst(classId).stream()
                .filter(p -> !viewer.answered().contains(p.id()))
                .map(PromptService.Named::title)
                .toList();
    }

    /** A blog for anyone can be read by strangers; the Porch as a whole is for members. */
    private void requireReading(Viewer viewer, long classId, @Nullable Long blog) {
        if (blog == null) access.require(viewer, Act.READ_CLASS, classId);
        else if (access.requireBlog(viewer, blog).classId() != classId) throw Problem.missing();
    }

    /** The person at a place; nobody for a number that is none. */
    private @Nullable Long person(long classId, @Nullable Long place) {
        return place == null ? null : people.personAt(classId, place).orElse(-1L);
    }

    /**
     * The term rail, which is also the archive: how much was published each week and month, for this reader, and what
     * is due when.
     */
    public Rail rail(Viewer viewer, long classId, @Nullable Integer chosen, @Nullable Long place, @Nullable Long blog) {
        requireReading(viewer, classId, blog);
        ClassService.ClassRecord of = classes.get(classId);
        Term term = chosen == null ? of.term() : of.terms().get(chosen);
        List<Term.Week> weeks = term.weeks();
        int[] counts = new int[weeks.size()];
        List<PorchStore.Moment> moments = porch.moments(
                access.scope(viewer),
                classId,
                Filter.ALL.ofPerson(person(classId, place)).ofBlog(blog));
        for (PorchStore.Moment moment : moments)
            for (int i = 0; i < counts.length; i++) if (weeks.get(i).contains(moment.at())) counts[i] += moment.count();
        List<Instant> due =
                access.allows(viewer, Act.READ_CLASS, classId) ? prompts.dueTimes(viewer, classId) : List.of();
        return new Rail(Arrays.stream(counts).boxed().toList(), due, months(term, moments));
    }

    private static List<Month> months(Term term, List<PorchStore.Moment> moments) {
        Map<YearMonth, Integer> months = new TreeMap<>(Comparator.reverseOrder());
        for (PorchStore.Moment moment : moments)
            months.merge(YearMonth.from(term.dayOf(moment.at())), moment.count(), Integer::sum);
        return months.entrySet().stream()
                .map(m -> new Month(m.getKey().toString(), m.getValue()))
                .toList();
    }

    /**
     * The blogs of a class that a reader may open, with what is in them for this reader; the one written in last comes
     * first.
     */
    public List<DirectoryLine> directory(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        Map<Long, PorchStore.InBlog> counts = new HashMap<>();
        for (PorchStore.InBlog in : porch.byBlog(access.scope(viewer), classId)) counts.put(in.blogId(), in);
        List<DirectoryLine> lines = new ArrayList<>();
        for (BlogService.BlogHead head : blogs.heads(viewer, classId)) {
            PorchStore.InBlog in = counts.get(head.id());
            lines.add(new DirectoryLine(
                    head.id(),
                    head.kind(),
                    head.title(),
                    head.address(),
                    head.look(),
                    head.owner(),
                    in == null ? 0 : in.posts(),
                    in == null ? 0 : in.comments(),
                    in == null ? null : in.newest(),
                    head.readers(),
                    head.strangers()));
        }
        lines.sort(Comparator.comparing(DirectoryLine::newest, Comparator.nullsLast(Comparator.reverseOrder()))
                .thenComparing(DirectoryLine::title));
        return lines;
    }

    /** What is pinned in a blog, and its series, as far as this reader may read them. */
    public Shelf shelf(Viewer viewer, long blogId) {
        long classId = access.requireBlog(viewer, blogId).classId();
        ScopeSql scope = access.scope(viewer);
        Names names = people.names(viewer, classId);
        Filter pinned = Filter.ALL.ofBlog(blogId).onlyPinned();
        Map<String, List<SeriesPart>> series = new LinkedHashMap<>();
        for (PorchStore.Part part : porch.parts(scope, classId, blogId))
            series.computeIfAbsent(part.series(), name -> new ArrayList<>())
                    .add(new SeriesPart(part.part(), part.postId(), part.title()));
        List<Entry> found = porch.newest(scope, classId, pinned, MOST_PINNED);
        Around around =
                porch.around(viewer.personId(), found.stream().map(Entry::id).toList());
        return new Shelf(
                found.stream().map(e -> view(e, names, around, viewer)).toList(),
                series.entrySet().stream()
                        .map(s -> new Series(s.getKey(), s.getValue()))
                        .toList());
    }

    /**
     * The newest posts of a class, or of what of it is wished for, as this reader's feed carries them; a stranger's
     * carries what is for anyone.
     */
    public FeedPage feed(Viewer viewer, long classId, Wish wish) {
        Names names = people.names(viewer, classId);
        ScopeSql scope = access.scope(viewer);
        Filter filter = filter(wish, range(classId, wish), person(classId, wish.place()));
        PorchStore.Page start = start(wish);
        List<PorchStore.Text> found = porch.newestTexts(
                scope, classId, filter, new PorchStore.Page(start.at(), start.id(), false, wish.most() + 1));
        List<PorchStore.Text> page = found.subList(0, Math.min(wish.most(), found.size()));
        Entry last = page.isEmpty() ? null : page.get(page.size() - 1).entry();
        String next = found.size() > wish.most() ? Cursor.of(last.publishedAt(), last.id()) : null;
        Term term = classes.get(classId).term();
        return new FeedPage(
                page.stream()
                        .map(t -> feedEntry(t.entry(), t.html(), by(t.entry(), names, viewer)))
                        .toList(),
                next,
                porch.moments(scope, classId, filter.always()).stream()
                        .map(m -> YearMonth.from(term.dayOf(m.at())))
                        .distinct()
                        .sorted(Comparator.reverseOrder())
                        .toList());
    }

    /** When the clock next opens or closes a blog of a class, opens a prompt or puts a post up; null if it does not. */
    public @Nullable Instant nextTurn(long classId, Instant now) {
        return porch.nextTurn(classId, now).orElse(null);
    }

    /** The names by which the author of an entry is told. */
    private static Names by(Entry e, Names names, Viewer viewer) {
        return e.isNamed() ? names : names.keptFrom(viewer.personId());
    }

    private static FeedEntry feedEntry(Entry e, String html, Names names) {
        return new FeedEntry(
                e.id(),
                e.title(),
                e.firstLines(),
                Sanitiser.post(html),
                names.of(e.authorId()),
                names.groupOf(e.authorId()),
                e.blogTitle(),
                e.promptTitle(),
                tags(e),
                e.publishedAt(),
                e.changedAt());
    }

    /** How many posts in the viewer's scope nobody has answered, among those of one week of the term. */
    public int unanswered(Viewer viewer, long classId, Instant from, Instant to) {
        return porch.unanswered(access.scope(viewer), classId, Filter.between(from, to));
    }

    private Filter range(long classId, Wish wish) {
        Filter range = time(classes.get(classId), wish).ofBlog(wish.blog());
        return wish.announcements() ? range.of(PorchStore.Kind.ANNOUNCEMENTS) : range;
    }

    private Filter time(ClassService.ClassRecord of, Wish wish) {
        Term term = wish.term() == null ? of.term() : of.terms().get(wish.term());
        if (wish.month() != null)
            return Filter.between(
                    term.startOf(wish.month().atDay(1)),
                    term.startOf(wish.month().plusMonths(1).atDay(1)));
        if (wish.span() != null) {
            Term.Between days = term.around(wish.span(), clock.instant());
            return Filter.between(days.start(), days.end());
        }
        List<Term.Week> weeks = term.weeks();
        if (wish.fromWeek() == null)
            return wish.term() == null
                    ? Filter.ALL
                    : Filter.between(
                            weeks.get(0).start(), weeks.get(weeks.size() - 1).end());
        int from = Math.max(0, Math.min(wish.fromWeek(), weeks.size() - 1));
        int to = wish.toWeek() == null ? from : Math.max(from, Math.min(wish.toWeek(), weeks.size() - 1));
        return Filter.between(weeks.get(from).start(), weeks.get(to).end());
    }

    static EntryView view(Entry e, Names all, Around around, Viewer viewer) {
        Names names = by(e, all, viewer);
        Names commenters = e.keepsNames() ? all.keptFrom(viewer.personId()) : all;
        Long last = around.lastCommenter(e.id());
        return new EntryView(
                e.id(),
                e.title(),
                e.firstLines(),
                e.picture().isEmpty() ? null : e.picture(),
                tags(e),
                names.placeOf(e.authorId()),
                names.of(e.authorId()),
                names.groupOf(e.authorId()),
                e.blogTitle(),
                e.blogAddress(),
                e.promptTitle(),
                e.sourceTitle(),
                e.publishedAt(),
                around.comments(e.id()),
                last == null ? null : commenters.of(last),
                around.isAnswered(e.id(), e.authorId()),
                around.isUnread(e.id(), e.authorId()));
    }

    private static List<String> tags(Entry e) {
        return e.tags().lines().filter(t -> !t.isBlank()).toList();
    }

    /**
     * Each of them by the place in the class, the one who was asked for also with nothing; who has left stands in none.
     */
    private static List<Facet> people(Map<Long, Integer> counts, @Nullable Long chosen, Names names) {
        Map<Long, Integer> posts = new HashMap<>();
        if (chosen != null) posts.put(chosen, 0);
        posts.putAll(counts);
        return posts.entrySet().stream()
                .filter(p -> names.placeOf(p.getKey()) > 0)
                .map(p -> new Facet(String.valueOf(names.placeOf(p.getKey())), names.of(p.getKey()), p.getValue()))
                .sorted(Comparator.comparing(f -> Folding.fold(f.label())))
                .toList();
    }

    private static List<Facet> facets(List<PorchStore.Count> counts) {
        return counts.stream()
                .map(c -> new Facet(c.key(), c.label(), c.count()))
                .toList();
    }
}
