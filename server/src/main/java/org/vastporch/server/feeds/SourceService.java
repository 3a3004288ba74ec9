package org.vastporch.server.feeds;

import com.rometools.rome.io.FeedException;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.feeds.EntryIdentity;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.feeds.Health;
import org.vastporch.core.feeds.Pace;
import org.vastporch.core.feeds.PromptMatch;
import org.vastporch.core.writing.Tags;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.feeds.SafeFetcher.FetchException;
import org.vastporch.server.feeds.SafeFetcher.Fetched;
import org.vastporch.server.feeds.SourceStore.Source;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.rows.Durability;
import org.vastporch.server.writing.PostService;

/** Outside blogs: added once, then looked at by themselves at the pace that the core works out. */
@Service
public class SourceService {

    private static final int LONGEST_ADDRESS = 2_000;

    /** @param personId the student whose blog it is; left out for news of the class */
    public record WantedSource(
            String feedAddress,
            String siteAddress,
            String title,
            String description,
            @Optionally Long personId) {}

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
            @Optionally Instant lastEntry,
            @Optionally Instant lastCheck,
            Instant nextCheck,
            @Optionally String lastError) {}

    private static final Logger log = LoggerFactory.getLogger(SourceService.class);

    private final SourceStore store;
    private final SafeFetcher fetcher;
    private final SourceFinder finder;
    private final PostService posts;
    private final BlogService blogs;
    private final PromptService prompts;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Durability durability;
    private final TransactionTemplate transaction;
    private final Clock clock;
    private final RandomGenerator random = RandomGenerator.getDefault();
    private final Set<Long> checking = ConcurrentHashMap.newKeySet();

    SourceService(
            SourceStore store,
            SafeFetcher fetcher,
            SourceFinder finder,
            PostService posts,
            BlogService blogs,
            PromptService prompts,
            PeopleService people,
            AccessService access,
            EventStore events,
            Durability durability,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.fetcher = fetcher;
        this.finder = finder;
        this.posts = posts;
        this.blogs = blogs;
        this.prompts = prompts;
        this.people = people;
        this.access = access;
        this.events = events;
        this.durability = durability;
        this.transaction = transaction;
        this.clock = clock;
    }

    SourceFinder.Found look(Viewer viewer, long classId, String address) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return finder.look(address, clock.instant());
    }

    /** Adds a source and fetches its entries at once. */
    public long add(Viewer viewer, long classId, WantedSource wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        requireAddress("feedAddress", wanted.feedAddress());
        if (!wanted.siteAddress().isEmpty()) requireAddress("siteAddress", wanted.siteAddress());
        if (store.isKnown(classId, wanted.feedAddress()))
            throw Problem.invalid("address", "source-known", "This outside blog is gathered in this class already.");
        Long blog = null;
        if (wanted.personId() != null) {
            if (!people.students(classId).contains(wanted.personId()))
                throw Problem.invalid("personId", "not-a-student", "Choose a student of this class.");
            blog = blogs.homeOf(classId, wanted.personId())
                    .orElseThrow(() -> Problem.invalid(
                            "personId",
                            "no-blog",
                            "This student has no blog yet in which the outside posts could "
                                    + "stand. Make the blogs first."));
        }
        String title =
                wanted.title().isBlank() ? wanted.feedAddress() : wanted.title().strip();
        Long home = blog;
        long id = transaction.execute(status -> {
            long added = store.add(
                    classId,
                    wanted.personId(),
                    home,
                    wanted.feedAddress(),
                    wanted.siteAddress(),
                    cut(title, 300),
                    cut(wanted.description(), 4000),
                    clock.instant());
            events.add(classId, "source-added", added, viewer.personId());
            return added;
        });
        check(store.find(id).orElseThrow());
        return id;
    }

    /** Looks at a source now. */
    public void refresh(Viewer viewer, long sourceId) {
        Source source = store.find(sourceId).orElseThrow(Problem::missing);
        access.require(viewer, Act.MANAGE_CLASS, source.classId());
        check(source);
    }

    public List<SourceView> ofClass(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        Names names = people.names(viewer, classId);
        return store.ofClass(classId).stream().map(s -> view(s, names)).toList();
    }

    /** The newest entries of the class's news sources. */
    List<SourceStore.News> news(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        return store.news(classId, 6);
    }

    @Scheduled(
            fixedDelayString = "${vastporch.feeds.check-every}",
            initialDelayString = "${vastporch.feeds.check-every}")
    void checkThoseDue() {
        for (Source source : store.due(clock.instant(), 50)) {
            try {
                check(source);
            } catch (RuntimeException e) {
                log.error("Source {} could not be checked", source.id(), e);
            }
        }
    }

    /** One check: fetch, take in what is new or changed, note how it went and when to come back. */
    private void check(Source source) {
        // Somebody may ask for a refresh just while the clock does: the one that runs will do for both.
        if (!checking.add(source.id())) return;
        try {
            Instant now = clock.instant();
            Outcome outcome = fetch(source);
            Intake intake = outcome.feed() == null ? null : intake(source);
            transaction.executeWithoutResult(status -> {
                if (intake != null) for (Entry entry : outcome.feed().entries()) takeIn(source, entry, intake, now);
                store.checked(after(source, outcome, now));
            });
            durability.sync();
        } finally {
            checking.remove(source.id());
        }
    }

    /** What holds for all entries of one check. */
    private record Intake(boolean asPosts, List<PromptMatch.Candidate> prompts) {}

    private Intake intake(Source source) {
        boolean asPosts = source.personId() != null
                && source.blogId() != null
                && people.students(source.classId()).contains(source.personId());
        return new Intake(
                asPosts,
                prompts.all(source.classId()).stream()
                        .map(p -> new PromptMatch.Candidate(p.id(), p.title(), p.tag(), p.opens(), null))
                        .toList());
    }

    private record Outcome(
            @Nullable Fetched answer,
            FeedParser.@Nullable Feed feed,
            @Nullable String error) {}

    private Outcome fetch(Source source) {
        try {
            Fetched answer = fetcher.get(source.feedAddress(), source.etag(), source.lastModified());
            if (answer.status() == 304) return new Outcome(answer, null, null);
            if (answer.status() != 200) return new Outcome(answer, null, SourceFinder.sentenceFor(answer.status()));
            if (!FeedParser.looksLikeFeed(answer.body()))
                return new Outcome(answer, null, "It answers with a page instead of a feed.");
            return new Outcome(answer, FeedParser.parse(answer.body(), answer.contentType()), null);
        } catch (FeedException e) {
            return new Outcome(null, null, "Its feed is broken and could not be read.");
        } catch (FetchException e) {
            return new Outcome(null, null, e.getMessage());
        }
    }

    private void takeIn(Source source, Entry entry, Intake intake, Instant now) {
        String key = EntryIdentity.keyOf(entry);
        String hash = EntryIdentity.contentHash(entry);
        Optional<SourceStore.KnownEntry> known = store.entry(source.id(), key);
        if (known.isPresent() && known.get().contentHash().equals(hash)) return;
        String link = entry.link() == null ? "" : cut(entry.link(), 1900);
        String cleanLink = link.isEmpty() ? "" : EntryIdentity.cleanLink(link);
        Instant date = EntryIdentity.dateOf(entry, now);
        Long post = known.map(SourceStore.KnownEntry::postId).orElse(null);
        if (intake.asPosts()) {
            Optional<Long> twin = known.isPresent()
                    ? Optional.empty()
                    : store.postOfLink(source.classId(), source.personId(), cleanLink)
                            .or(() -> posts.broughtIn(source.classId(), source.personId(), cleanLink));
            post = twin.isPresent() ? twin.get() : takeInPost(source, entry, intake, link, date, post);
        }
        store.putEntry(source.id(), key, hash, link, cleanLink, entry.title(), date, now, post);
    }

    private long takeInPost(
            Source source, Entry entry, Intake intake, String link, Instant date, @Nullable Long known) {
        Long prompt = PromptMatch.find(entry.tags(), date, intake.prompts())
                .map(PromptMatch.Candidate::id)
                .orElse(null);
        return posts.takeIn(
                source.classId(),
                source.blogId(),
                source.personId(),
                prompt,
                source.id(),
                link,
                Audience.MY_CLASS,
                entry.title(),
                entry.html(),
                Tags.tidy(entry.tags()),
                date,
                known);
    }

    private Source after(Source s, Outcome outcome, Instant now) {
        Fetched answer = outcome.answer();
        boolean failed = outcome.error() != null;
        boolean absent = answer != null && answer.status() == 404;
        int notFound = absent ? s.notFound() + 1 : 0;
        Instant since = absent ? (s.notFoundSince() == null ? now : s.notFoundSince()) : null;
        boolean stopped = answer != null
                && Pace.isStopped(
                        answer.status(), notFound, since == null ? Duration.ZERO : Duration.between(since, now));
        String moved = answer == null ? null : answer.permanent();
        int movedSeen = moved == null ? 0 : moved.equals(s.movedTo()) ? s.movedSeen() + 1 : 1;
        boolean takeOver = movedSeen >= Pace.MOVED_LIMIT && !store.isKnown(s.classId(), moved);
        Duration asked = answer == null
                ? s.asked()
                : FeedParser.asked(
                        answer.cacheControl(),
                        answer.retryAfter(),
                        outcome.feed() == null ? Duration.ZERO : outcome.feed().asked());
        int failures = failed ? s.failures() + 1 : 0;
        Instant next = now.plus(Pace.next(store.lastDates(s.id()), asked, failures, random));
        boolean fresh = answer != null && !failed && answer.status() == 200;
        return new Source(
                s.id(),
                s.classId(),
                s.personId(),
                s.blogId(),
                takeOver ? moved : s.feedAddress(),
                s.siteAddress(),
                s.title(),
                s.description(),
                fresh ? answer.etag() : s.etag(),
                fresh ? answer.lastModified() : s.lastModified(),
                asked,
                failures,
                notFound,
                since,
                takeOver ? null : moved,
                takeOver ? 0 : movedSeen,
                stopped,
                failed ? outcome.error() : null,
                now,
                next);
    }

    private SourceView view(Source s, Names names) {
        List<Instant> dates = store.lastDates(s.id());
        Instant last = dates.isEmpty() ? null : dates.get(0);
        return new SourceView(
                s.id(),
                s.title(),
                s.description(),
                s.feedAddress(),
                s.siteAddress(),
                s.personId(),
                s.personId() == null ? null : names.of(s.personId()),
                Health.of(s.stopped(), s.failures(), last, clock.instant()).name(),
                store.countEntries(s.id()),
                last,
                s.lastCheck(),
                s.nextCheck(),
                s.lastError());
    }

    private static void requireAddress(String field, String address) {
        if (address.length() > LONGEST_ADDRESS)
            throw Problem.invalid(
                    field, "address-too-long", "An address has at most " + LONGEST_ADDRESS + " characters.");
        if (!isWeb(address))
            throw Problem.invalid(
                    field, "address-unknown", "This is not the address of a page. It begins with http:// or https://.");
    }

    private static boolean isWeb(String address) {
        try {
            URI uri = new URI(address);
            return uri.getHost() != null
                    && (uri.getScheme().equals("http") || uri.getScheme().equals("https"));
        } catch (URISyntaxException e) {
            return false;
        }
    }

    private static String cut(String text, int most) {
        return text.length() <= most ? text : text.substring(0, most);
    }
}
