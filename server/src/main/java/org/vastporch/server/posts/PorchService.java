package org.vastporch.server.posts;

import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.ClassService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.SightlineView;
import org.vastporch.server.posts.PorchStore.Entry;
import org.vastporch.server.posts.PorchStore.Filter;
import org.vastporch.server.posts.PostStore.PostRow;
import org.vastporch.server.posts.PostStore.Version;
import org.vastporch.server.prompts.PromptService;

/** Reading: the Porch of a class, one post, a person's page. */
@Service
public class PorchService {

    private static final int PAGE = 50;

    /** What to show. Weeks are indexes into the weeks of the term, 0-based; left out for the whole term. */
    public record Wish(@Nullable Integer fromWeek, @Nullable Integer toWeek, @Nullable Long person, @Nullable Long group, @Nullable Long prompt,
                       @Nullable String tag, boolean unanswered, @Nullable String after) {}

    public record EntryView(long id, String title, String firstLines, @Optionally String picture, List<String> tags, long authorId, String author, @Optionally String group,
                            String blog, @Optionally String prompt, @Optionally String source, Instant publishedAt, int comments, @Optionally String lastCommenter,
                            boolean answered, boolean unread) {}

    public record Facet(String key, String label, int count) {}

    /** @param next the cursor of the next page; left out on the last */
    public record Porch(List<EntryView> entries, @Optionally String next, int total, int unread, List<Facet> prompts, List<Facet> tags, int unanswered) {}

    /** @param counts posts published in each week of the term, in order */
    public record Rail(List<Integer> counts, List<Instant> due) {}

    public record PostView(long id, long classId, String title, String html, List<String> tags, long authorId, String author, @Optionally String group, String blog,
                           @Optionally Long promptId, @Optionally String prompt, @Optionally String outsideLink, @Optionally String source, String state, boolean isUp,
                           @Optionally Instant publishedAt, @Optionally Instant handedInAt, boolean mayEdit, boolean mayComment, SightlineView sightline,
                           List<PileItem.Past> history) {}

    /** One of a student's own posts, wherever it stands. */
    public record OwnPost(long id, String title, String state, boolean isUp, String blog, @Optionally String prompt, @Optionally String note, @Optionally String noteBy, Instant at) {}

    /** A post as a feed carries it. */
    public record FeedEntry(long id, String title, String html, String author, List<String> tags, Instant publishedAt, Instant changedAt) {}

    private final PorchStore porch;
    private final PostStore posts;
    private final BlogService blogs;
    private final PromptService prompts;
    private final ClassService classes;
    private final PeopleService people;
    private final ReviewService reviews;
    private final AccessService access;
    private final Clock clock;

    PorchService(PorchStore porch, PostStore posts, BlogService blogs, PromptService prompts, ClassService classes, PeopleService people, ReviewService reviews,
                 AccessService access, Clock clock) {
        this.porch = porch;
        this.posts = posts;
        this.blogs = blogs;
        this.prompts = prompts;
        this.classes = classes;
        this.people = people;
        this.reviews = reviews;
        this.access = access;
        this.clock = clock;
    }

    public Porch porch(Viewer viewer, long classId, Wish wish) {
        access.require(viewer, Act.ENTER_CLASS, classId);
        ScopeSql scope = access.scope(viewer);
        Filter range = range(classId, wish);
        Filter filter = new Filter(range.from(), range.to(), wish.person(), wish.group(), wish.prompt(), wish.tag(), wish.unanswered());
        Cursor cursor = Cursor.parse(wish.after());
        List<Entry> found = porch.entries(scope, classId, viewer.personId(), filter, cursor.at(), cursor.id(), PAGE + 1);
        List<Entry> page = found.subList(0, Math.min(PAGE, found.size()));
        Names names = people.names(viewer, classId);
        String next = found.size() > PAGE ? Cursor.of(page.get(PAGE - 1)).text() : null;
        return new Porch(page.stream().map(e -> view(e, names)).toList(), next, porch.moments(scope, classId, filter).size(),
            porch.unread(scope, classId, viewer.personId(), filter), facets(porch.byPrompt(scope, classId, range)), facets(porch.byTag(scope, classId, range)),
            porch.unanswered(scope, classId, range));
    }

    /** The term rail: how much was published each week, for this reader, and what is due when. */
    public Rail rail(Viewer viewer, long classId, @Nullable Long person) {
        access.require(viewer, Act.ENTER_CLASS, classId);
        List<Term.Week> weeks = classes.get(classId).term().weeks();
        int[] counts = new int[weeks.size()];
        Filter filter = new Filter(null, null, person, null, null, null, false);
        for (Instant moment : porch.moments(access.scope(viewer), classId, filter))
            for (int i = 0; i < counts.length; i++) if (weeks.get(i).contains(moment)) counts[i]++;
        List<Instant> due = prompts.ofClass(viewer, classId).stream().map(PromptService.PromptRecord::due).toList();
        return new Rail(Arrays.stream(counts).boxed().toList(), due);
    }

    /** One post as the viewer may read it: the approved version; whoever may see it gets the one that waits instead if none is up. */
    @Transactional
    public PostView post(Viewer viewer, long id) {
        PostFacts facts = access.requirePost(viewer, Act.READ, id);
        PostRow row = posts.find(id).orElseThrow(Problem::missing);
        boolean working = access.allows(viewer, Act.READ_WORKING, facts);
        int no = facts.isUp() && row.standing().live() != null ? row.standing().live() : row.standing().newest();
        Version version = posts.version(id, no).orElseThrow();
        Names names = people.names(viewer, row.classId());
        if (!viewer.isStranger() && facts.isUp()) porch.markSeen(viewer.personId(), id, clock.instant());
        return new PostView(id, row.classId(), version.title(), Sanitiser.post(version.html()), version.tags(), facts.authorId(), names.of(facts.authorId()),
            names.groupOf(facts.authorId()), blogs.view(viewer, row.blogId()).title(), row.promptId(), row.promptId() == null ? null : prompts.get(row.promptId()).title(),
            row.outsideLink(), row.sourceId() == null ? null : porch.sourceTitle(row.sourceId()).orElse(null),
            working ? row.standing().state().name() : State.PUBLISHED.name(), facts.isUp(), row.publishedAt(), row.handedInAt(),
            row.sourceId() == null && access.allows(viewer, Act.EDIT, facts), access.allows(viewer, Act.COMMENT, facts),
            SightlineView.of(access.sightline(facts), names), working ? reviews.history("post", id, names) : List.of());
    }

    /** All that the viewer wrote in a class, with where each piece stands. */
    public List<OwnPost> own(Viewer viewer, long classId) {
        access.require(viewer, Act.ENTER_CLASS, classId);
        Names names = people.names(viewer, classId);
        return posts.ofAuthor(viewer.personId(), classId).stream().map(row -> {
            Version version = posts.version(row.id(), row.standing().newest()).orElseThrow();
            List<PileItem.Past> history = row.standing().state() == State.RETURNED ? reviews.history("post", row.id(), names) : List.of();
            boolean up = row.standing().live() != null && row.standing().state() != State.HIDDEN && row.standing().state() != State.BINNED;
            return new OwnPost(row.id(), version.title(), row.standing().state().name(), up, blogs.view(viewer, row.blogId()).title(),
                row.promptId() == null ? null : prompts.get(row.promptId()).title(), history.isEmpty() ? null : history.get(0).note(),
                history.isEmpty() ? null : history.get(0).by(), row.publishedAt() != null ? row.publishedAt() : version.savedAt());
        }).toList();
    }

    /** The newest posts of a class as this reader's feed carries them; a stranger's carries what is for anyone. */
    public List<FeedEntry> feed(Viewer viewer, long classId, int most) {
        Names names = people.names(viewer, classId);
        return porch.entries(access.scope(viewer), classId, viewer.personId(), Filter.ALL, null, 0, most).stream()
            .map(e -> new FeedEntry(e.id(), e.title(), Sanitiser.post(e.html()), names.of(e.authorId()), tags(e), e.publishedAt(), e.changedAt())).toList();
    }

    /** How many posts in the viewer's scope nobody has answered, among those of one week of the term. */
    public int unanswered(Viewer viewer, long classId, Instant from, Instant to) {
        return porch.unanswered(access.scope(viewer), classId, new Filter(from, to, null, null, null, null, false));
    }

    private Filter range(long classId, Wish wish) {
        if (wish.fromWeek() == null) return Filter.ALL;
        List<Term.Week> weeks = classes.get(classId).term().weeks();
        int from = Math.max(0, Math.min(wish.fromWeek(), weeks.size() - 1));
        int to = wish.toWeek() == null ? from : Math.max(from, Math.min(wish.toWeek(), weeks.size() - 1));
        return new Filter(weeks.get(from).start(), weeks.get(to).end(), null, null, null, null, false);
    }

    private static EntryView view(Entry e, Names names) {
        return new EntryView(e.id(), e.title(), e.firstLines(), e.picture().isEmpty() ? null : e.picture(), tags(e), e.authorId(), names.of(e.authorId()),
            names.groupOf(e.authorId()), e.blogTitle(), e.promptTitle(), e.sourceTitle(), e.publishedAt(), e.comments(),
            e.lastCommenter() == null ? null : names.of(e.lastCommenter()), e.answers() > 0, e.unread());
    }

    private static List<String> tags(Entry e) {
        return e.tags().lines().filter(t -> !t.isBlank()).toList();
    }

    private static List<Facet> facets(List<PorchStore.Count> counts) {
        return counts.stream().map(c -> new Facet(c.key(), c.label(), c.count())).toList();
    }

    /** Where the next page begins: after a moment and an id. */
    private record Cursor(@Nullable Instant at, long id) {
        static Cursor of(Entry entry) {
            return new Cursor(entry.publishedAt(), entry.id());
        }

        static Cursor parse(@Nullable String text) {
            if (text == null || text.isEmpty()) return new Cursor(null, 0);
            int bar = text.indexOf('_');
            try {
                return new Cursor(Instant.parse(text.substring(0, bar)), Long.parseLong(text.substring(bar + 1)));
            } catch (RuntimeException e) {
                throw Problem.invalid("after", "cursor-unknown", "This page address is broken. Go back to the first page.");
            }
        }

        String text() {
            return at + "_" + id;
        }
    }
}
