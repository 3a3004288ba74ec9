package org.vastporch.server.peers;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.peers.GivingOut;
import org.vastporch.core.peers.GivingOut.Review;
import org.vastporch.core.peers.PeerMarks;
import org.vastporch.core.peers.PeerReading;
import org.vastporch.core.peers.PeerRound;
import org.vastporch.core.prompts.Peers;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.peers.PeerReviewStore.Row;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reviews.PaperReviews;

/**
 * Rounds of peer review, for those who look after them: giving papers out, who has done theirs, and what is missing.
 */
@Service
public class PeerRoundService {

    /** Somebody who takes part. */
    public record InRound(long id, String name, @Optionally String group) {}

    /**
     * One review of a round.
     *
     * @param stage how far it has come
     * @param late whether it was sent after the time, or is missing since then
     * @param far whether it lies far from what all others gave for the paper
     * @param helped what its author says it helped with; left out if they said nothing
     */
    public record RoundLine(
            long id,
            long reviewerId,
            String reviewer,
            long authorId,
            String author,
            PeerReading.Stage stage,
            boolean late,
            @Optionally Instant sentAt,
            boolean far,
            @Optionally String helped) {}

    /**
     * @param givenAt when papers were given out; left out before
     * @param without who has handed in nothing yet
     * @param shut whose papers no classmate may read, so that they take no part
     */
    public record RoundView(
            long promptId,
            String title,
            Peers rules,
            @Optionally Instant givenAt,
            List<InRound> people,
            List<String> without,
            List<String> shut,
            List<RoundLine> lines) {}

    /** Who reads whom. */
    public record Pair(long reviewer, long author) {}

    /**
     * A plan that was not carried out.
     *
     * @param unreadable what can never be chosen by hand
     */
    public record PlanView(List<InRound> people, List<Pair> pairs, List<Pair> unreadable, GivingOut.GaveWay gaveWay) {}

    /**
     * @param week of the term in which reviews are due; left out for none
     * @param done how many reviews were sent, of those given out
     */
    public record RoundInClass(
            long promptId,
            String title,
            Instant due,
            @Optionally Integer week,
            @Optionally Instant givenAt,
            int given,
            int done,
            int late) {}

    private static final SecureRandom RANDOM = new SecureRandom();

    private final PeerReviewStore store;
    private final PeerRounds rounds;
    private final PaperReviews reviews;
    private final PromptService prompts;
    private final PeopleService people;
    private final AccessService access;
    private final ClassChanges changes;
    private final EventStore events;
    private final Clock clock;

    PeerRoundService(
            PeerReviewStore store,
            PeerRounds rounds,
            PaperReviews reviews,
            PromptService prompts,
            PeopleService people,
            AccessService access,
            ClassChanges changes,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.rounds = rounds;
        this.reviews = reviews;
        this.prompts = prompts;
        this.people = people;
        this.access = access;
        this.changes = changes;
        this.events = events;
        this.clock = clock;
    }

    /** The round of a prompt; for those who mark there. */
    @Transactional(readOnly = true)
    public RoundView round(Viewer viewer, long promptId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        return view(viewer, required(prompt));
    }

    /** A plan for giving papers out; nothing is kept of it. */
    @Transactional(readOnly = true)
    public PlanView plan(Viewer viewer, long promptId, long seed, List<Pair> kept) {
        Prompt prompt = managed(viewer, promptId);
        PeerRounds.Loaded loaded = rounds.of(prompt);
        List<Review> chosen = kept.stream().map(PeerRoundService::review).toList();
        if (!loaded.round().allows(chosen)) throw notToBeGiven();
        GivingOut.Plan plan = loaded.round().plan(prompt.reviews().peers().each(), Set.copyOf(chosen), seed);
        return new PlanView(
                people(viewer, prompt, loaded),
                plan.reviews().stream().map(PeerRoundService::pair).toList(),
                loaded.round().unreadable().stream()
                        .map(PeerRoundService::pair)
                        .sorted(Comparator.comparing(Pair::reviewer).thenComparing(Pair::author))
                        .toList(),
                plan.gaveWay());
    }

    /** Gives papers out as they were seen in a plan. */
    @Transactional
    public RoundView giveOut(Viewer viewer, long promptId, List<Pair> pairs) {
        managed(viewer, promptId);
        Prompt prompt = required(prompts.lock(promptId));
        if (store.round(promptId).givenAt() != null)
            throw Problem.stale("given-out", "Papers have been given out already, by somebody else or by the clock.");
        if (pairs.isEmpty())
            throw Problem.invalid(
                    "reviews", "nobody-yet", "There are no two papers yet that classmates can read of each other.");
        List<Review> wanted = pairs.stream().map(PeerRoundService::review).toList();
        if (!rounds.of(prompt).round().allows(wanted)) throw notToBeGiven();
        give(prompt, wanted, viewer.personId());
        return view(viewer, prompt);
    }

    private static Problem notToBeGiven() {
        return Problem.stale(
                "round-changed",
                "A paper was taken back or shown to fewer since, or somebody would get one paper twice or the own one."
                        + " Nothing was given out: look at the plan again.");
    }

    private void give(Prompt prompt, List<Review> wanted, @Nullable Long by) {
        Instant now = clock.instant();
        giveAll(prompt.id(), wanted, now);
        store.setGiven(prompt.id(), by, now);
        changes.note(prompt.classId());
        events.add(prompt.classId(), "papers-given-out", prompt.id(), by);
    }

    /** In no order: authors read the numbers of their reviews, which would tell whose they are. */
    private void giveAll(long promptId, List<Review> reviews, Instant now) {
        List<Review> shuffled = new ArrayList<>(reviews);
        Collections.shuffle(shuffled, RANDOM);
        for (Review review : shuffled) store.give(promptId, review, now);
    }

    /** Gives one more paper to somebody, or one that was taken from them. */
    @Transactional
    public RoundView add(Viewer viewer, long promptId, Pair pair) {
        managed(viewer, promptId);
        Prompt prompt = required(prompts.lock(promptId));
        if (store.round(promptId).givenAt() == null) throw Problem.missing();
        List<Review> standing = standing(promptId).stream()
                .map(r -> new Review(r.readerId(), r.studentId()))
                .toList();
        PeerRound round = rounds.of(prompt).round();
        Review wanted = review(pair);
        List<Review> both = new ArrayList<>(standing.stream()
                .filter(r -> r.reviewer() == wanted.reviewer())
                .filter(round::allows)
                .toList());
        both.add(wanted);
        if (!round.allows(both)) throw notToBeGiven();
        store.give(promptId, wanted, clock.instant());
        noted(viewer, prompt, "review-given");
        return view(viewer, prompt);
    }

    /** Takes a review from its reader before it was sent. */
    @Transactional
    public RoundView takeBack(Viewer viewer, long id) {
        Row row = lockedOpen(viewer, id);
        Prompt prompt = required(prompts.get(row.promptId()));
        store.end(List.of(id), viewer.personId(), clock.instant());
        noted(viewer, prompt, "review-taken-back");
        return view(viewer, prompt);
    }

    /** Gives a review that was not sent to somebody who has time. */
    @Transactional
    public RoundView passOn(Viewer viewer, long id) {
        long promptId = store.find(id).orElseThrow(Problem::missing).promptId();
        managed(viewer, promptId);
        Prompt prompt = required(prompts.lock(promptId));
        Row row = lockedOpen(viewer, id);
        List<PeerRound.Given> standing =
                standing(prompt.id()).stream().map(PeerRounds::given).toList();
        long to = rounds.of(prompt)
                .round()
                .whoHasTime(standing, PeerRounds.given(row))
                .orElseThrow(() ->
                        Problem.stale("nobody-has-time", "Everybody else has this paper already, or may not read it."));
        Instant now = clock.instant();
        store.end(List.of(id), viewer.personId(), now);
        store.give(prompt.id(), new Review(to, row.studentId()), now);
        noted(viewer, prompt, "review-passed-on");
        return view(viewer, prompt);
    }

    private Row lockedOpen(Viewer viewer, long id) {
        Row row = store.lock(id).orElseThrow(Problem::missing);
        managed(viewer, row.promptId());
        if (!row.isOpen() || row.isSent())
            throw Problem.stale("review-sent", "This review was sent since, or was taken back already.");
        return row;
    }

    /** The rounds of a class; for those who mark there. */
    public List<RoundInClass> ofClass(Viewer viewer, long classId) {
        access.require(viewer, Act.MARK, classId);
        List<Prompt> asking = prompts.all(classId).stream()
                .filter(p -> p.reviews().peers() != null)
                .sorted(Comparator.comparing((Prompt p) -> p.reviews().peers().due())
                        .reversed())
                .toList();
        List<Long> ids = asking.stream().map(Prompt::id).toList();
        Map<Long, Instant> givenAt = store.givenAt(ids);
        Map<Long, List<Row>> rows =
                store.ofPrompts(ids).stream().filter(r -> r.isOpen()).collect(Collectors.groupingBy(Row::promptId));
        return asking.stream()
                .map(p -> {
                    List<Row> of = rows.getOrDefault(p.id(), List.of());
                    return new RoundInClass(
                            p.id(),
                            p.title(),
                            p.reviews().peers().due(),
                            prompts.weekIn(classId, p.reviews().peers().due()),
                            givenAt.get(p.id()),
                            of.size(),
                            (int) of.stream().filter(Row::isSent).count(),
                            (int) of.stream().filter(r -> isLate(p, r)).count());
                })
                .toList();
    }

    /**
     * What the clock does in one round: gives papers out when it is time, fits in who came late and replaces who left,
     * reminds once.
     */
    @Transactional
    public void tick(long promptId) {
        Prompt prompt = prompts.lock(promptId);
        Peers peers = prompt.reviews().peers();
        if (peers == null || prompt.rubric() == null) return;
        Instant now = clock.instant();
        PeerReviewStore.Round round = store.round(promptId);
        if (round.givenAt() == null) {
            if (peers.areGivenOut(now, peers.when() == Peers.When.ALL_IN && rounds.areAllIn(prompt)))
                giveOutAlone(prompt);
            return;
        }
        if (!now.isBefore(peers.due())) return;
        fitIn(prompt, now);
        if (round.remindedAt() == null && peers.isTimeToRemind(now)) store.setReminded(promptId, now);
    }

    private void giveOutAlone(Prompt prompt) {
        List<Review> planned = rounds.of(prompt)
                .round()
                .plan(prompt.reviews().peers().each(), Set.of(), prompt.id())
                .reviews();
        // With one paper there is nobody to read it yet; it is tried again.
        if (!planned.isEmpty()) give(prompt, planned, null);
    }

    private void fitIn(Prompt prompt, Instant now) {
        List<Row> all = store.ofPrompts(List.of(prompt.id()));
        PeerRound.Change change = rounds.of(prompt)
                .round()
                .fitted(
                        prompt.reviews().peers().each(),
                        all.stream().filter(Row::isOpen).map(PeerRounds::given).toList(),
                        all.stream()
                                .filter(r -> r.endedBy() != null)
                                .map(r -> new Review(r.readerId(), r.studentId()))
                                .collect(Collectors.toSet()),
                        prompt.id());
        if (change.ended().isEmpty() && change.begun().isEmpty()) return;
        store.end(change.ended(), null, now);
        giveAll(prompt.id(), change.begun(), now);
        changes.note(prompt.classId());
        events.add(prompt.classId(), "papers-fitted-in", prompt.id(), null);
    }

    private List<Row> standing(long promptId) {
        return store.ofPrompts(List.of(promptId)).stream().filter(Row::isOpen).toList();
    }

    private RoundView view(Viewer viewer, Prompt prompt) {
        PeerRounds.Loaded loaded = rounds.of(prompt);
        Names names = people.names(viewer, prompt.classId());
        List<Row> rows = standing(prompt.id());
        Map<Long, Marks> marks = reviews.marks(List.of(prompt.id()), ReviewKind.PEER);
        Rubric asked = prompt.reviews().peers().asked(prompt.rubric());
        Map<List<Long>, List<Row>> byPaper = new HashMap<>();
        Map<Long, List<Long>> together =
                loaded.papers().stream().collect(Collectors.toMap(p -> p.studentId(), p -> p.together()));
        for (Row row : rows)
            byPaper.computeIfAbsent(
                            together.getOrDefault(row.studentId(), List.of(row.studentId())), t -> new ArrayList<>())
                    .add(row);
        List<RoundLine> lines = new ArrayList<>();
        byPaper.values()
                .forEach(of -> of.forEach(row -> lines.add(new RoundLine(
                        row.id(),
                        row.readerId(),
                        names.of(row.readerId()),
                        row.studentId(),
                        names.of(row.studentId()),
                        PeerReading.stage(row.state(), row.isBegun()),
                        isLate(prompt, row),
                        row.sentAt(),
                        isFar(asked, row, of, marks),
                        row.helped()))));
        lines.sort(Comparator.comparing(RoundLine::reviewer, String.CASE_INSENSITIVE_ORDER)
                .thenComparing(RoundLine::reviewerId)
                .thenComparing(RoundLine::author)
                .thenComparing(RoundLine::id));
        return new RoundView(
                prompt.id(),
                prompt.title(),
                prompt.reviews().peers(),
                store.round(prompt.id()).givenAt(),
                people(viewer, prompt, loaded),
                loaded.papers().stream()
                        .filter(p -> !p.letOff() && p.posts().isEmpty())
                        .map(p -> names.of(p.studentId()))
                        .sorted()
                        .toList(),
                loaded.shut().stream().map(names::of).sorted().toList(),
                lines);
    }

    private static boolean isFar(Rubric asked, Row row, List<Row> ofPaper, Map<Long, Marks> marks) {
        if (!PeerReading.counts(row.state())) return false;
        List<Marks> others = ofPaper.stream()
                .filter(r -> r.id() != row.id() && PeerReading.counts(r.state()))
                .map(r -> marks.getOrDefault(r.id(), Marks.NONE))
                .toList();
        return PeerMarks.isFar(asked, marks.getOrDefault(row.id(), Marks.NONE), others);
    }

    private boolean isLate(Prompt prompt, Row row) {
        Instant by = row.sentAt() != null ? row.sentAt() : clock.instant();
        return by.isAfter(prompt.reviews().peers().due());
    }

    private List<InRound> people(Viewer viewer, Prompt prompt, PeerRounds.Loaded loaded) {
        Names names = people.names(viewer, prompt.classId());
        return loaded.round().participants().stream()
                .map(p -> new InRound(p.id(), names.of(p.id()), names.groupOf(p.id())))
                .sorted(Comparator.comparing(InRound::name, String.CASE_INSENSITIVE_ORDER)
                        .thenComparing(InRound::id))
                .toList();
    }

    private void noted(Viewer viewer, Prompt prompt, String event) {
        changes.note(prompt.classId());
        events.add(prompt.classId(), event, prompt.id(), viewer.personId());
    }

    private Prompt managed(Viewer viewer, long promptId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        Problem.unlessAllowed(AccessEngine.own(viewer));
        return required(prompt);
    }

    private static Prompt required(Prompt prompt) {
        if (prompt.reviews().peers() == null || prompt.rubric() == null) throw Problem.missing();
        return prompt;
    }

    private static Review review(Pair pair) {
        return new Review(pair.reviewer(), pair.author());
    }

    private static Pair pair(Review review) {
        return new Pair(review.reviewer(), review.author());
    }
}
