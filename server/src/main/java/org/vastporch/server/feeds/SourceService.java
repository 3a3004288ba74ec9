package org.vastporch.server.feeds;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.feeds.EntryWeeks;
import org.vastporch.core.feeds.FeedReader;
import org.vastporch.core.feeds.Health;
import org.vastporch.core.feeds.OwnSources;
import org.vastporch.core.feeds.Pace;
import org.vastporch.core.feeds.SourceChecks;
import org.vastporch.core.feeds.WebLink;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.feeds.SourceStore.KnownEntry;
import org.vastporch.server.feeds.SourceStore.Source;
import org.vastporch.server.http.Allowance;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.writing.PostService;

/** Outside blogs: added once, then looked at by themselves at the pace that the core works out. */
@Service
public class SourceService {

    private static final int LONGEST_ADDRESS = 2_000;
    private static final int LONGEST_KEY = 440;
    private static final int MOST_LINES = 100;
    /** Each refresh of all asks many servers. */
    private static final int REFRESHES = 12;

    /**
     * @param personId the student whose blog it is; left out for news of the class
     * @param from entries before this day of the class are left out; left out for all
     * @param without the keys of entries that are left out, as looking at it named them; left out for none
     * @param keepTrying whether it is added even if it cannot be read now; left out for no
     */
    public record WantedSource(
            String feedAddress,
            String siteAddress,
            String title,
            String description,
            @Optionally Long personId,
            @Optionally @Nullable LocalDate from,
            @Optionally @Nullable List<String> without,
            @Optionally @Nullable Boolean keepTrying) {

        /** All that a feed carries, if it can be read. */
        public static WantedSource of(
                String feed, String site, String title, String description, @Nullable Long personId) {
            return new WantedSource(feed, site, title, description, personId, null, null, null);
        }
    }

    /**
     * @param weeks entries of each of the last weeks, the present one last
     * @param pace why it is looked at as often as it is
     * @param due whether its turn to be looked at has come, or it is being looked at
     * @param asked whether it waits for a yes of staff
     */
    public record SourceView(
            long id,
            String title,
            String description,
            String feedAddress,
            String siteAddress,
            @Optionally Long personId,
            @Optionally String person,
            String health,
            int entries,
            List<Integer> weeks,
            @Optionally Instant lastEntry,
            @Optionally Instant lastCheck,
            Instant nextCheck,
            Pace.Why pace,
            boolean due,
            @Optionally String lastError,
            boolean paused,
            boolean asked,
            boolean untidy,
            @Optionally LocalDate from) {}

    private final SourceStore store;
    private final SourceChecker checker;
    private final SourceFinder finder;
    private final PostService posts;
    private final BlogService blogs;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final TransactionTemplate transaction;
    private final Clock clock;
    private final Allowance refreshes = new Allowance(REFRESHES);

    SourceService(
            SourceStore store,
            SourceChecker checker,
            SourceFinder finder,
            PostService posts,
            BlogService blogs,
            ClassService classes,
            PeopleService people,
            AccessService access,
            EventStore events,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.checker = checker;
        this.finder = finder;
        this.posts = posts;
        this.blogs = blogs;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.events = events;
        this.transaction = transaction;
        this.clock = clock;
    }

    SourceFinder.Found look(Viewer viewer, long classId, String address) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return finder.look(address, clock.instant());
    }

    /**
     * Adds a source with its entries. Of one that cannot be read nothing is kept, unless whoever adds it wants it to be
     * tried again and again.
     */
    public long add(Viewer viewer, long classId, WantedSource wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return gather(viewer, classId, wanted, () -> {
            access.require(access.viewer(viewer.personId()), Act.MANAGE_CLASS, classId);
            return false;
        });
    }

    /**
     * Adds a source for somebody who may.
     *
     * @param asksFirst whether nothing comes in before staff have said yes. It is asked once the entries are here, with
     *     the class's row locked, and refuses who may no longer: an outside server takes its time
     */
    long gather(Viewer viewer, long classId, WantedSource wanted, BooleanSupplier asksFirst) {
        String feed = address("feedAddress", wanted.feedAddress());
        String site = wanted.siteAddress().isEmpty() ? "" : address("siteAddress", wanted.siteAddress());
        if (store.isKnown(classId, feed)) throw alreadyThere();
        if (wanted.personId() != null) home(classId, wanted.personId());
        SourceChecker.Outcome outcome =
                checker.fetch(SourceChecks.begin(feed, clock.instant()), wanted.personId() != null);
        if (outcome.answer().error() != null && !Boolean.TRUE.equals(wanted.keepTrying()))
            throw Problem.invalid(
                    "feedAddress", "source-unread", outcome.answer().error() + " It was not added.");
        boolean own = wanted.personId() != null && wanted.personId() == viewer.personId();
        Source added = transaction.execute(status -> {
            store.lockClass(classId);
            boolean asks = asksFirst.getAsBoolean();
            if (own && store.countOf(classId, viewer.personId()) >= OwnSources.MOST)
                throw Problem.invalid(
                        "address",
                        "too-many-sources",
                        "You have " + OwnSources.MOST + " outside blogs here already. Ask a teacher to take one out.");
            if (store.isKnown(classId, feed)) throw alreadyThere();
            Long home = wanted.personId() == null ? null : home(classId, wanted.personId());
            long id = store.add(
                    classId,
                    wanted.personId(),
                    home,
                    feed,
                    site,
                    cut(wanted.title().isBlank() ? feed : wanted.title().strip(), 300),
                    cut(wanted.description(), 4000),
                    wanted.from(),
                    asks,
                    clock.instant());
            store.leaveOut(id, without(wanted), clock.instant());
            events.add(classId, asks ? "source-asked" : "source-added", id, viewer.personId());
            return store.find(id).orElseThrow();
        });
        if (!added.asked()) checker.keep(added, outcome);
        return added.id();
    }

    private static Problem alreadyThere() {
        return Problem.invalid("address", "source-known", "This outside blog is gathered in this class already.");
    }

    /** The blog in which the outside posts of a student stand. */
    private long home(long classId, long personId) {
        if (!people.students(classId).contains(personId))
            throw Problem.invalid("personId", "not-a-student", "Choose a student of this class.");
        return blogs.homeOf(classId, personId)
                .orElseThrow(() -> Problem.invalid(
                        "personId",
                        "no-blog",
                        "This student has no blog yet in which the outside posts could stand. Make the blogs first."));
    }

    /** Looks at a source now. */
    public void refresh(Viewer viewer, long sourceId) {
        Source source = store.find(sourceId).orElseThrow(Problem::missing);
        access.require(viewer, Act.MANAGE_CLASS, source.classId());
        if (source.asked())
            throw Problem.stale("source-asked", "Let it in first: nothing comes from it before somebody has said yes.");
        checker.check(source);
    }

    /** Has all sources of a class looked at now, one after the other where they share a host; tells how many. */
    public int refreshAll(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (!refreshes.take("class " + classId))
            throw Problem.tooMany(
                    "All of them were looked at again and again within this hour. They come by themselves.");
        int asked = store.setAllDue(classId, clock.instant());
        checker.checkThoseDue();
        return asked;
    }

    /** The outside blogs of somebody who writes in a class. */
    public List<SourceView> ofAuthor(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        return views(
                viewer,
                classId,
                store.ofClass(classId).stream()
                        .filter(s -> s.personId() != null && s.personId() == viewer.personId())
                        .toList());
    }

    /** Its author says to have just published: the own outside blogs are looked at, and are done when this returns. */
    public List<SourceView> justPublished(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        if (!refreshes.take("person " + viewer.personId()))
            throw Problem.tooMany(
                    "Your blog was looked at again and again within this hour. It is looked at by itself too.");
        store.ofClass(classId).stream()
                .filter(s -> s.personId() != null && s.personId() == viewer.personId() && !s.paused())
                .forEach(checker::check);
        return ofAuthor(viewer, classId);
    }

    /**
     * What can be changed of a source.
     *
     * @param personId the student whose blog it is; left out for news of the class
     * @param from entries before this day of the class are left out; left out for all
     */
    public record SourceEdit(
            String title,
            @Optionally Long personId,
            @Optionally @Nullable LocalDate from) {}

    /** Changes a source. What came already stays as and whose it is; what comes from now on goes where this says. */
    public void edit(Viewer viewer, long sourceId, SourceEdit edit) {
        long classId = classOf(sourceId);
        access.require(viewer, Act.MANAGE_CLASS, classId);
        String title = edit.title().strip();
        if (title.isEmpty()) throw Problem.invalid("title", "title-missing", "An outside blog needs a name here.");
        Long home = edit.personId() == null ? null : home(classId, edit.personId());
        transaction.executeWithoutResult(status -> {
            store.lock(sourceId).orElseThrow(Problem::missing);
            store.edit(sourceId, cut(title, 300), edit.personId(), home, edit.from());
            events.add(classId, "source-changed", sourceId, viewer.personId());
        });
    }

    /**
     * An entry that came from a source.
     *
     * @param key by which it is known in its source
     * @param postId the post that was made of it; left out for news and for what was left out
     * @param prompt the title of the prompt that it answers; left out for none
     */
    public record EntryLine(
            String key,
            String title,
            String link,
            Instant at,
            boolean leftOut,
            @Optionally Long postId,
            @Optionally String prompt) {}

    public List<EntryLine> entries(Viewer viewer, long sourceId) {
        access.require(viewer, Act.SEE_REAL_NAME, classOf(sourceId));
        return store.newestEntries(sourceId, MOST_LINES);
    }

    /** Leaves an entry out, or lets it come with the next look. What is a post already is dealt with as one. */
    public void setLeftOut(Viewer viewer, long sourceId, String key, boolean leftOut) {
        access.require(viewer, Act.MANAGE_CLASS, classOf(sourceId));
        transaction.executeWithoutResult(status -> {
            Source source = store.lock(sourceId).orElseThrow(Problem::missing);
            KnownEntry entry = Optional.ofNullable(
                            store.entries(sourceId, List.of(key)).get(key))
                    .orElseThrow(() -> Problem.invalid("key", "entry-unknown", "This entry is not one of this blog."));
            if (entry.postId() != null)
                throw Problem.invalid(
                        "key",
                        "entry-is-post",
                        "This entry is a post here already. Hide the post, or put it into the bin.");
            store.setLeftOut(sourceId, key, leftOut);
            events.add(source.classId(), "source-changed", sourceId, viewer.personId());
        });
    }

    /** Lets a source rest, or go on at once. */
    public void setPaused(Viewer viewer, long sourceId, boolean paused) {
        access.require(viewer, Act.MANAGE_CLASS, classOf(sourceId));
        transaction.executeWithoutResult(status -> {
            Source source = store.lock(sourceId).orElseThrow(Problem::missing);
            if (source.paused() == paused || source.asked() && paused) return;
            store.setPaused(sourceId, paused, clock.instant());
            String what = source.asked() ? "source-added" : paused ? "source-paused" : "source-resumed";
            events.add(source.classId(), what, sourceId, viewer.personId());
        });
    }

    /**
     * Takes a source out of the class: nothing comes from it any more.
     *
     * @param withPosts whether the posts that came from it go into the bin; else they stay
     */
    public void remove(Viewer viewer, long sourceId, boolean withPosts) {
        access.require(viewer, Act.MANAGE_CLASS, classOf(sourceId));
        transaction.executeWithoutResult(status -> {
            Source source = store.lock(sourceId).orElseThrow(Problem::missing);
            store.remove(sourceId, clock.instant());
            events.add(source.classId(), "source-removed", sourceId, viewer.personId());
            if (withPosts) store.posts(sourceId).forEach(post -> posts.bin(viewer, post));
        });
    }

    private static List<String> without(WantedSource wanted) {
        List<String> keys = wanted.without() == null ? List.of() : wanted.without();
        if (keys.size() > FeedReader.MOST_ENTRIES || keys.stream().anyMatch(k -> k.length() > LONGEST_KEY))
            throw Problem.invalid("without", "entries-unknown", "These entries are not those of a feed.");
        return keys.stream().distinct().toList();
    }

    private long classOf(long sourceId) {
        return store.find(sourceId).map(Source::classId).orElseThrow(Problem::missing);
    }

    public List<SourceView> ofClass(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        return views(viewer, classId, store.ofClass(classId));
    }

    /** The newest entries of the class's news sources. */
    List<SourceStore.News> news(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        return store.news(classId, 6);
    }

    private List<SourceView> views(Viewer viewer, long classId, List<Source> of) {
        Names names = people.names(viewer, classId);
        Term term = classes.get(classId).term();
        Instant now = clock.instant();
        Map<Long, Integer> counts = store.countEntries(classId);
        Map<Long, List<Instant>> dates = store.dates(classId, EntryWeeks.since(term, now));
        List<Pace.Rush> rushes = checker.rushes(classId);
        return of.stream()
                .map(s -> view(
                        s,
                        names,
                        counts.getOrDefault(s.id(), 0),
                        dates.getOrDefault(s.id(), List.of()),
                        term,
                        s.personId() == null ? List.of() : rushes))
                .toList();
    }

    private SourceView view(
            Source s, Names names, int entries, List<Instant> dates, Term term, List<Pace.Rush> rushes) {
        Instant now = clock.instant();
        Instant last = dates.isEmpty() ? null : dates.get(0);
        return new SourceView(
                s.id(),
                s.title(),
                s.description(),
                s.checks().feedAddress(),
                s.siteAddress(),
                s.personId(),
                s.personId() == null ? null : names.of(s.personId()),
                Health.of(s.checks().stopped(), s.checks().failures(), last, now)
                        .name(),
                entries,
                EntryWeeks.of(dates, term, now),
                last,
                s.checks().lastCheck(),
                s.checks().nextCheck(),
                Pace.why(dates, s.checks().asked(), s.checks().failures(), rushes, now),
                !s.paused()
                        && !s.asked()
                        && !s.checks().stopped()
                        && !s.checks().nextCheck().isAfter(now),
                s.checks().lastError(),
                s.paused(),
                s.asked(),
                s.checks().untidy(),
                s.beginsOn());
    }

    private static String address(String field, String typed) {
        if (typed.length() > LONGEST_ADDRESS)
            throw Problem.invalid(
                    field, "address-too-long", "An address has at most " + LONGEST_ADDRESS + " characters.");
        String address = WebLink.of(typed);
        if (address.isEmpty() || address.length() > LONGEST_ADDRESS)
            throw Problem.invalid(
                    field, "address-unknown", "This is not the address of a page. It begins with http:// or https://.");
        return address;
    }

    private static String cut(String text, int most) {
        return text.length() <= most ? text : text.substring(0, most);
    }
}
