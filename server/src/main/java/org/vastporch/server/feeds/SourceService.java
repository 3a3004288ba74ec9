package org.vastporch.server.feeds;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.util.DigestUtils;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.Feed;
import org.vastporch.core.feeds.Health;
import org.vastporch.core.feeds.Pace;
import org.vastporch.core.feeds.SourceChecks;
import org.vastporch.core.feeds.SourceChecks.Answer;
import org.vastporch.core.feeds.WebLink;
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
import org.vastporch.server.rows.Durability;

/** Outside blogs: added once, then looked at by themselves at the pace that the core works out. */
@Service
public class SourceService {

    private static final int LONGEST_ADDRESS = 2_000;
    private static final int MOST_DUE = 200;
    private static final int HOSTS_AT_ONCE = 8;
    /** Between two requests to one host. */
    private static final Duration BETWEEN = Duration.ofSeconds(1);

    /**
     * @param personId the student whose blog it is; left out for news of the class
     * @param keepTrying whether it is added even if it cannot be read now; left out for no
     */
    public record WantedSource(
            String feedAddress,
            String siteAddress,
            String title,
            String description,
            @Optionally Long personId,
            @Optionally @Nullable Boolean keepTrying) {}

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
            @Optionally String lastError,
            boolean paused,
            boolean untidy) {}

    private static final Logger log = LoggerFactory.getLogger(SourceService.class);

    private final SourceStore store;
    private final SafeFetcher fetcher;
    private final SourceFinder finder;
    private final SourceIntake intake;
    private final BlogService blogs;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Durability durability;
    private final TransactionTemplate transaction;
    private final Clock clock;
    private final RandomGenerator random = RandomGenerator.getDefault();
    private final Set<Long> checking = ConcurrentHashMap.newKeySet();
    private final Set<String> busy = ConcurrentHashMap.newKeySet();
    private final ExecutorService workers = Executors.newFixedThreadPool(HOSTS_AT_ONCE, task -> {
        Thread thread = new Thread(task, "feeds");
        thread.setDaemon(true);
        return thread;
    });

    SourceService(
            SourceStore store,
            SafeFetcher fetcher,
            SourceFinder finder,
            SourceIntake intake,
            BlogService blogs,
            PeopleService people,
            AccessService access,
            EventStore events,
            Durability durability,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.fetcher = fetcher;
        this.finder = finder;
        this.intake = intake;
        this.blogs = blogs;
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

    /**
     * Adds a source with its entries. Of one that cannot be read nothing is kept, unless whoever adds it wants it to be
     * tried again and again.
     */
    public long add(Viewer viewer, long classId, WantedSource wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        String feed = address("feedAddress", wanted.feedAddress());
        String site = wanted.siteAddress().isEmpty() ? "" : address("siteAddress", wanted.siteAddress());
        if (store.isKnown(classId, feed)) throw alreadyThere();
        Long home = wanted.personId() == null ? null : home(classId, wanted.personId());
        Outcome outcome = fetch(SourceChecks.begin(feed, clock.instant()));
        if (outcome.answer().error() != null && !Boolean.TRUE.equals(wanted.keepTrying()))
            throw Problem.invalid(
                    "feedAddress", "source-unread", outcome.answer().error() + " It was not added.");
        long id = transaction.execute(status -> {
            if (store.isKnown(classId, feed)) throw alreadyThere();
            long added = store.add(
                    classId,
                    wanted.personId(),
                    home,
                    feed,
                    site,
                    cut(wanted.title().isBlank() ? feed : wanted.title().strip(), 300),
                    cut(wanted.description(), 4000),
                    clock.instant());
            events.add(classId, "source-added", added, viewer.personId());
            return added;
        });
        keep(store.find(id).orElseThrow(), outcome);
        return id;
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
        check(source);
    }

    /** Lets a source rest, or go on at once. */
    public void setPaused(Viewer viewer, long sourceId, boolean paused) {
        access.require(viewer, Act.MANAGE_CLASS, classOf(sourceId));
        transaction.executeWithoutResult(status -> {
            Source source = store.lock(sourceId).orElseThrow(Problem::missing);
            if (source.paused() == paused) return;
            store.setPaused(sourceId, paused, clock.instant());
            events.add(source.classId(), paused ? "source-paused" : "source-resumed", sourceId, viewer.personId());
        });
    }

    /** Takes a source out of the class: nothing comes from it any more, and the posts that came from it stay. */
    public void remove(Viewer viewer, long sourceId) {
        access.require(viewer, Act.MANAGE_CLASS, classOf(sourceId));
        transaction.executeWithoutResult(status -> {
            Source source = store.lock(sourceId).orElseThrow(Problem::missing);
            store.remove(sourceId, clock.instant());
            events.add(source.classId(), "source-removed", sourceId, viewer.personId());
        });
    }

    private long classOf(long sourceId) {
        return store.find(sourceId).map(Source::classId).orElseThrow(Problem::missing);
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

    /**
     * Starts the checks that are due: several hosts at once, so that a slow one delays nobody else, and the sources of
     * one host one after the other.
     */
    @Scheduled(
            fixedDelayString = "${vastporch.feeds.check-every}",
            initialDelayString = "${vastporch.feeds.check-every}")
    void checkThoseDue() {
        Map<String, List<Source>> byHost = new LinkedHashMap<>();
        for (Source source : store.due(clock.instant(), MOST_DUE))
            byHost.computeIfAbsent(hostOf(source), host -> new ArrayList<>()).add(source);
        byHost.forEach((host, sources) -> {
            if (busy.add(host)) workers.execute(() -> checkOneHost(host, sources));
        });
    }

    private void checkOneHost(String host, List<Source> sources) {
        try {
            for (int i = 0; i < sources.size(); i++) {
                if (i > 0) Thread.sleep(BETWEEN.toMillis());
                try {
                    // It may rest or be gone by now.
                    store.find(sources.get(i).id()).filter(s -> !s.paused()).ifPresent(this::check);
                } catch (RuntimeException e) {
                    log.error("Source {} could not be checked", sources.get(i).id(), e);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } finally {
            busy.remove(host);
        }
    }

    private static String hostOf(Source source) {
        return source.checks().feedAddress().replaceFirst("^https?://([^/?#]*).*$", "$1");
    }

    @PreDestroy
    void stop() {
        workers.shutdownNow();
    }

    /** One check: fetch, take in what is new or changed, note how it went and when to come back. */
    private void check(Source source) {
        // Somebody may ask for a refresh just while the clock does: the one that runs will do for both.
        if (!checking.add(source.id())) return;
        try {
            keep(source, fetch(source.checks()));
        } finally {
            checking.remove(source.id());
        }
    }

    /** Takes in what was fetched, whole or not at all; what cannot be taken in is a failed check like any other. */
    private void keep(Source source, Outcome outcome) {
        try {
            inPlace(source, () -> {
                if (outcome.feed() != null) intake.take(source, outcome.feed());
                note(source, outcome.answer());
            });
        } catch (RuntimeException e) {
            log.warn("What source {} carries could not be taken in", source.id(), e);
            inPlace(
                    source,
                    () -> note(source, outcome.answer().failed("What its feed carries could not be taken in.")));
        }
        durability.sync();
    }

    /** It may have been taken out while its server was asked: then nothing is kept. */
    private void inPlace(Source source, Runnable work) {
        transaction.executeWithoutResult(status -> {
            if (store.lock(source.id()).isPresent()) work.run();
        });
    }

    private void note(Source source, Answer answer) {
        store.checked(
                source.id(),
                source.checks()
                        .after(
                                answer,
                                store.lastDates(source.id()),
                                address -> store.isKnown(source.classId(), address),
                                clock.instant(),
                                random));
    }

    /** @param feed what was read; null if nothing was, or nothing has changed */
    private record Outcome(Answer answer, @Nullable Feed feed) {}

    /**
     * Whatever happens is an outcome: a source that cannot be fetched is one that failed, and is left in peace for a
     * while.
     */
    private Outcome fetch(SourceChecks source) {
        try {
            Fetched answer = fetcher.get(source.feedAddress(), source.etag(), source.lastModified(), Budget.ofOne());
            if (answer.status() == 304) return new Outcome(answer(answer, null, null), null);
            if (answer.status() != 200)
                return new Outcome(answer(answer, null, SourceFinder.sentenceFor(answer.status())), null);
            // The same bytes once more say nothing new, whatever their server thinks of it.
            if (hash(answer).equals(source.bodyHash())) return new Outcome(same(source, answer), null);
            Feed feed = SourceFinder.feed(answer).orElse(null);
            return new Outcome(
                    answer(answer, feed, feed == null ? "It answers with a page instead of a feed." : null), feed);
        } catch (FetchException e) {
            return new Outcome(Answer.none(e.getMessage()), null);
        } catch (RuntimeException e) {
            log.warn("What source {} answered could not be read", source.feedAddress(), e);
            return new Outcome(Answer.none("What it answers could not be read."), null);
        }
    }

    private Answer answer(Fetched answer, @Nullable Feed feed, @Nullable String error) {
        return new Answer(
                answer.status(),
                shortOrNone(answer.etag(), 400),
                shortOrNone(answer.lastModified(), 80),
                feed == null ? null : hash(answer),
                feed != null && feed.untidy(),
                answer.permanent(),
                Pace.asked(
                        answer.cacheControl(),
                        answer.retryAfter(),
                        feed == null ? null : feed.asked(),
                        clock.instant()),
                error);
    }

    private Answer same(SourceChecks source, Fetched answer) {
        Answer same = answer(answer, null, null);
        return new Answer(
                same.status(),
                same.etag(),
                same.lastModified(),
                source.bodyHash(),
                source.untidy(),
                same.permanent(),
                same.asked(),
                null);
    }

    /** Marks of versions that are longer than any server writes are not worth keeping. */
    private static @Nullable String shortOrNone(@Nullable String text, int most) {
        return text == null || text.length() > most ? null : text;
    }

    private static String hash(Fetched answer) {
        return DigestUtils.md5DigestAsHex(answer.body());
    }

    private SourceView view(Source s, Names names) {
        List<Instant> dates = store.lastDates(s.id());
        Instant last = dates.isEmpty() ? null : dates.get(0);
        return new SourceView(
                s.id(),
                s.title(),
                s.description(),
                s.checks().feedAddress(),
                s.siteAddress(),
                s.personId(),
                s.personId() == null ? null : names.of(s.personId()),
                Health.of(s.checks().stopped(), s.checks().failures(), last, clock.instant())
                        .name(),
                store.countEntries(s.id()),
                last,
                s.checks().lastCheck(),
                s.checks().nextCheck(),
                s.checks().lastError(),
                s.paused(),
                s.checks().untidy());
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
