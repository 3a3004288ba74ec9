package org.vastporch.server.feeds;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.util.DigestUtils;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.feeds.Feed;
import org.vastporch.core.feeds.Pace;
import org.vastporch.core.feeds.Pace.Rush;
import org.vastporch.core.feeds.SourceChecks;
import org.vastporch.core.feeds.SourceChecks.Answer;
import org.vastporch.server.feeds.SafeFetcher.FetchException;
import org.vastporch.server.feeds.SafeFetcher.Fetched;
import org.vastporch.server.feeds.SourceStore.Source;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.rows.Durability;

/**
 * Looks at sources when they are due, or when somebody asks: fetches, takes in what is new or changed, notes how it
 * went and when to come back. The rows hold when each is due, so that a stop or a kill loses nothing.
 */
@Component
class SourceChecker {

    private static final Logger log = LoggerFactory.getLogger(SourceChecker.class);
    private static final int MOST_DUE = 200;
    private static final int HOSTS_AT_ONCE = 8;
    /** Nobody waits longer than this for a host's turn. */
    private static final Duration LONGEST_TURN = Duration.ofSeconds(10);

    private final SourceStore store;
    private final SafeFetcher fetcher;
    private final SourceIntake intake;
    private final ExcerptPages pages;
    private final GonePostService gone;
    private final PromptService prompts;
    private final EventStore events;
    private final Durability durability;
    private final TransactionTemplate transaction;
    private final Clock clock;
    private final Duration between;
    private final RandomGenerator random = RandomGenerator.getDefault();
    private final Set<Long> checking = ConcurrentHashMap.newKeySet();
    private final Set<String> busy = ConcurrentHashMap.newKeySet();
    /** When each host may be asked next; the oldest make room. */
    private final Map<String, Long> turns = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Long> eldest) {
            return size() > 5_000;
        }
    };

    private final ExecutorService workers = Executors.newFixedThreadPool(HOSTS_AT_ONCE, task -> {
        Thread thread = new Thread(task, "feeds");
        thread.setDaemon(true);
        return thread;
    });

    /** @param between how long a host is left alone between two requests */
    SourceChecker(
            SourceStore store,
            SafeFetcher fetcher,
            SourceIntake intake,
            ExcerptPages pages,
            GonePostService gone,
            PromptService prompts,
            EventStore events,
            Durability durability,
            TransactionTemplate transaction,
            Clock clock,
            @Value("${vastporch.feeds.between:PT1S}") Duration between) {
        this.store = store;
        this.fetcher = fetcher;
        this.intake = intake;
        this.pages = pages;
        this.gone = gone;
        this.prompts = prompts;
        this.events = events;
        this.durability = durability;
        this.transaction = transaction;
        this.clock = clock;
        this.between = between;
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
            for (Source source : sources) {
                if (Thread.currentThread().isInterrupted()) return;
                try {
                    // It may rest or be gone by now.
                    store.find(source.id()).filter(s -> !s.paused()).ifPresent(this::check);
                } catch (RuntimeException e) {
                    log.error("Source {} could not be checked", source.id(), e);
                }
            }
        } finally {
            busy.remove(host);
        }
    }

    private static String hostOf(Source source) {
        return hostOf(source.checks().feedAddress());
    }

    private static String hostOf(String address) {
        return address.replaceFirst("^https?://([^/?#]*).*$", "$1");
    }

    /** Waits until a host may be asked again, whoever asked it last; false if that would take too long. */
    private boolean takeTurn(String host) {
        long wait;
        synchronized (turns) {
            long now = System.nanoTime();
            long at = Math.max(now, turns.getOrDefault(host, now));
            wait = at - now;
            if (wait > LONGEST_TURN.toNanos()) return false;
            turns.put(host, at + between.toNanos());
        }
        try {
            TimeUnit.NANOSECONDS.sleep(wait);
            return true;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    @PreDestroy
    void stop() {
        workers.shutdownNow();
    }

    /**
     * One check: fetch, take in what is new or changed, note how it went and when to come back. Others who gather the
     * same address are given what came too, so that its server is asked once.
     */
    void check(Source source) {
        // Somebody may ask for a refresh just while the clock does: the one that runs will do for both.
        if (!checking.add(source.id())) return;
        List<Source> all = new ArrayList<>(List.of(source));
        try {
            // Nothing is known of it: its turn comes when fewer ask.
            if (!takeTurn(hostOf(source))) {
                store.setDue(source.id(), clock.instant());
                return;
            }
            store.sharing(source).stream().filter(s -> checking.add(s.id())).forEach(all::add);
            try (Budget budget = Budget.ofPage()) {
                checkTogether(all, budget);
            }
        } finally {
            all.forEach(s -> checking.remove(s.id()));
        }
    }

    private void checkTogether(List<Source> all, Budget budget) {
        SourceChecks first = all.get(0).checks();
        boolean alike = all.stream()
                .allMatch(s -> Objects.equals(s.checks().etag(), first.etag())
                        && Objects.equals(s.checks().lastModified(), first.lastModified()));
        Asked asked =
                ask(first.feedAddress(), alike ? first.etag() : null, alike ? first.lastModified() : null, budget);
        Map<Source, Outcome> outcomes = new LinkedHashMap<>();
        for (Source source : all) outcomes.put(source, read(source.checks(), asked));
        Set<Entry> fresh = new LinkedHashSet<>();
        outcomes.forEach((source, outcome) -> {
            if (outcome.feed() != null) fresh.addAll(intake.changed(source, outcome.feed()));
        });
        Map<String, String> whole = whole(List.copyOf(fresh), budget);
        outcomes.forEach((source, outcome) -> {
            keep(source, outcome.with(whole));
            // A server that cannot be asked for its feed says nothing of its pages either.
            if (outcome.answer().error() == null) gone.look(source, budget, address -> takeTurn(hostOf(address)));
        });
    }

    /** Takes in what was fetched, whole or not at all; what cannot be taken in is a failed check like any other. */
    void keep(Source source, Outcome outcome) {
        try {
            inPlace(source, now -> {
                if (outcome.feed() != null) intake.take(now, outcome.feed(), outcome.whole());
                note(now, outcome.answer());
            });
        } catch (RuntimeException e) {
            log.warn("What source {} carries could not be taken in", source.id(), e);
            inPlace(source, now -> note(now, outcome.answer().failed("What its feed carries could not be taken in.")));
        }
        durability.sync();
    }

    /**
     * On the locked row: the source may have been taken out while its server was asked, then nothing is kept, or given
     * to somebody else.
     */
    private void inPlace(Source source, Consumer<Source> work) {
        transaction.executeWithoutResult(status -> store.lock(source.id()).ifPresent(work));
    }

    private void note(Source source, Answer answer) {
        SourceChecks after = source.checks()
                .after(
                        answer,
                        store.lastDates(source.id()),
                        address -> store.isKnown(source.classId(), address),
                        source.personId() == null ? List.of() : rushes(source.classId()),
                        clock.instant(),
                        random);
        store.checked(source.id(), after);
        if (after.isToTell(source.checks())) events.add(source.classId(), "source-faltering", source.id(), null);
    }

    /** Around the times when something of its author is due nobody should wait an hour for it. */
    List<Rush> rushes(long classId) {
        return prompts.all(classId).stream()
                .map(p -> Rush.around(p.due(), p.grace()))
                .toList();
    }

    /**
     * @param feed what was read; null if nothing was, or nothing has changed
     * @param whole texts of entries of which it carries only the beginnings, by their links
     */
    record Outcome(Answer answer, @Nullable Feed feed, Map<String, String> whole) {

        Outcome(Answer answer, @Nullable Feed feed) {
            this(answer, feed, Map.of());
        }

        private Outcome with(Map<String, String> whole) {
            return new Outcome(answer, feed, whole);
        }
    }

    /**
     * What comes of asking for a feed that is no source yet.
     *
     * @param posts whether its entries become posts, so that their texts should be whole
     */
    Outcome fetch(SourceChecks wanted, boolean posts) {
        if (!takeTurn(hostOf(wanted.feedAddress())))
            return new Outcome(Answer.none("Many ask its server just now. Try again in a minute."), null);
        try (Budget budget = Budget.ofPage()) {
            Outcome outcome = read(wanted, ask(wanted.feedAddress(), null, null, budget));
            return posts && outcome.feed() != null
                    ? outcome.with(whole(outcome.feed().wholeEntries(), budget))
                    : outcome;
        }
    }

    private Map<String, String> whole(List<Entry> entries, Budget budget) {
        return pages.whole(entries, clock.instant(), budget, address -> takeTurn(hostOf(address)));
    }

    /** @param error why nothing came; null if something did */
    private record Asked(@Nullable Fetched answer, @Nullable String error) {}

    /**
     * Whatever happens is an answer: a source that cannot be fetched is one that failed, and is left in peace for a
     * while.
     */
    private Asked ask(String address, @Nullable String etag, @Nullable String lastModified, Budget budget) {
        try {
            return new Asked(fetcher.get(address, etag, lastModified, budget), null);
        } catch (FetchException e) {
            return new Asked(null, e.getMessage());
        } catch (RuntimeException e) {
            log.warn("Source {} could not be asked", address, e);
            return new Asked(null, "What it answers could not be read.");
        }
    }

    private Outcome read(SourceChecks source, Asked asked) {
        Fetched answer = asked.answer();
        if (answer == null) return new Outcome(Answer.none(asked.error()), null);
        if (answer.status() == 304) return new Outcome(answer(answer, null, null), null);
        if (answer.status() != 200)
            return new Outcome(answer(answer, null, SourceFinder.sentenceFor(answer.status())), null);
        // The same bytes once more say nothing new, whatever their server thinks of it.
        if (hash(answer).equals(source.bodyHash())) return new Outcome(same(source, answer), null);
        try {
            Feed feed = SourceFinder.feed(answer).orElse(null);
            return new Outcome(
                    answer(answer, feed, feed == null ? "It answers with a page instead of a feed." : null), feed);
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
}
