package org.vastporch.server.moderation;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Revision;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Allowance;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.PeopleService;

/** The pile: all that waits in a person's classes, and the decisions about it. */
@Service
public class PileService {

    /** One text to decide about, as it was seen. */
    public record Seen(String subject, long id, int version, int rev) {}

    /** @param note what the author is told; needed to return, else empty */
    public record Deciding(Step step, String note, List<Seen> items) {}

    /**
     * What became of one text. {@code problem} says why nothing did; {@code changes} what is new since the version that
     * was seen.
     */
    public record Decided(
            String subject,
            long id,
            @Optionally Long decision,
            @Optionally State state,
            @Optionally String code,
            @Optionally String problem,
            @Optionally Revision changes) {}

    private static final List<Step> STEPS = List.of(Step.APPROVE, Step.RETURN, Step.HIDE, Step.BIN);
    private static final String NEWER = "newer-version";
    private static final int LONGEST_NOTE = 4000;
    private static final int LONGEST_REASON = 500;

    private final Allowance reported = new Allowance(20);

    private final Map<String, Moderated> kinds = new HashMap<>();
    private final DecisionStore store;
    private final ReportStore reports;
    private final PileDesks desks;
    private final AccessService access;
    private final ClassService classes;
    private final PeopleService people;
    private final EventStore events;
    private final TransactionTemplate transaction;
    private final Clock clock;

    PileService(
            List<Moderated> kinds,
            DecisionStore store,
            ReportStore reports,
            PileDesks desks,
            AccessService access,
            ClassService classes,
            PeopleService people,
            EventStore events,
            TransactionTemplate transaction,
            Clock clock) {
        kinds.forEach(kind -> this.kinds.put(kind.subject(), kind));
        this.store = store;
        this.reports = reports;
        this.desks = desks;
        this.access = access;
        this.classes = classes;
        this.people = people;
        this.events = events;
        this.transaction = transaction;
        this.clock = clock;
    }

    /**
     * What waits where the viewer approves.
     *
     * @param items the ones that wait longest, as many as were asked for
     * @param total how many there are with them
     * @param counts how many there are of each class and sort, whatever was asked for
     */
    public record Pile(List<PileItem> items, int total, List<PileCount> counts) {}

    /** How many texts of a class wait; a text can be of several sorts. */
    public record PileCount(
            long classId,
            String className,
            int all,
            int posts,
            int comments,
            int reviews,
            int outside,
            int held,
            int reported,
            int up) {

        int of(String sort) {
            return switch (sort) {
                case "posts" -> posts;
                case "comments" -> comments;
                case "reviews" -> reviews;
                case "outside" -> outside;
                case "held" -> held;
                case "reported" -> reported;
                case "up" -> up;
                default -> all;
            };
        }

        int ofKind(String subject) {
            return switch (subject) {
                case "post" -> posts + outside;
                case "comment" -> comments;
                case "review" -> reviews;
                default -> all - posts - outside - comments - reviews;
            };
        }
    }

    private static final int MOST_AT_ONCE = 500;
    static final List<String> SORTS = List.of("", "posts", "comments", "reviews", "outside", "held", "reported", "up");

    /** All that waits where the viewer approves, the longest wait first. */
    public Pile pile(Viewer viewer, PileFilter wish) {
        if (!SORTS.contains(wish.sort()))
            throw Problem.invalid("sort", "sort-unknown", "There is no such part of the pile.");
        List<Long> classes = approvesIn(viewer);
        PileFilter filter =
                new PileFilter(wish.classId(), wish.sort(), Math.max(1, Math.min(wish.most(), MOST_AT_ONCE)));
        List<PileCount> counts = store.counts(classes);
        List<Long> asked = filter.classId() == null
                ? classes
                : classes.stream().filter(c -> c.equals(filter.classId())).toList();
        List<Moderated.Batch> batches = kinds.values().stream()
                .filter(kind -> counts.stream().anyMatch(c -> c.ofKind(kind.subject()) > 0))
                .map(kind -> kind.waiting(asked, filter))
                .toList();
        PileDesk desk = desks.of(
                viewer,
                batches.stream().flatMap(batch -> batch.texts().stream()).toList());
        List<PileItem> items = batches.stream()
                .flatMap(batch -> batch.items().apply(desk).stream())
                .sorted(Comparator.comparing(PileItem::since))
                .toList();
        int total = counts.stream()
                .filter(c -> asked.contains(c.classId()))
                .mapToInt(c -> c.of(filter.sort()))
                .sum();
        return new Pile(items.subList(0, Math.min(items.size(), filter.most())), total, counts);
    }

    List<Long> approvesIn(Viewer viewer) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        return viewer.memberships().stream()
                .map(Membership::classId)
                .filter(id -> access.allows(viewer, Act.APPROVE, id))
                .distinct()
                .toList();
    }

    /** Decides about texts, each in a transaction of its own: one that cannot be decided holds up no other. */
    public List<Decided> decide(Viewer viewer, Deciding wish) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        if (!STEPS.contains(wish.step()))
            throw Problem.invalid("step", "step-unknown", "Here one approves, returns, hides or bins.");
        if (wish.step() == Step.RETURN && wish.note().isBlank())
            throw Problem.invalid("note", "note-missing", "Say in a note what should be changed.");
        if (wish.note().length() > LONGEST_NOTE)
            throw Problem.invalid("note", "note-too-long", "A note has at most " + LONGEST_NOTE + " characters.");
        List<Decided> results = new ArrayList<>();
        for (Seen item : wish.items()) {
            try {
                results.add(transaction.execute(status ->
                        decideOne(viewer, item, wish.step(), wish.note().strip())));
            } catch (Problem e) {
                Revision changes = e.code().equals(NEWER) ? changesFor(viewer, item) : null;
                results.add(new Decided(item.subject(), item.id(), null, null, e.code(), e.getMessage(), changes));
            }
        }
        return results;
    }

    /**
     * What is new since the version that somebody names as seen. A moderator gets what is new from the pile alone: the
     * number could be that of any version.
     */
    private @Nullable Revision changesFor(Viewer viewer, Seen item) {
        return transaction.execute(status -> {
            Moderated kind = kind(item.subject());
            Moderated.Text text = kind.lock(item.id()).orElseThrow(Problem::missing);
            return access.allows(viewer, Act.MANAGE_CLASS, text.classId())
                    ? kind.changesSince(item.id(), item.version()).orElse(null)
                    : null;
        });
    }

    private Decided decideOne(Viewer viewer, Seen seen, Step step, String note) {
        Moderated kind = kind(seen.subject());
        Moderated.Text text = kind.lock(seen.id()).orElseThrow(PileService::notWaiting);
        // Of what one may not decide on one hears as of what is not there.
        if (!access.mayJudge(viewer, text.classId(), text.course().inPile())) throw notWaiting();
        refuseOutdated(viewer, seen, text);
        Instant now = clock.instant();
        Course after = text.course()
                .decided(step, new Course.Circumstances(now, Policy.BEFORE, false, false, text.fromOutside()))
                .orElseThrow(() -> Problem.stale(
                        "not-possible",
                        "This cannot be done with a text that is "
                                + text.standing().state().name().toLowerCase() + "."));
        long decision = store.add(text, seen.subject(), step, note, viewer.personId(), now);
        kind.settle(text, after, viewer.personId());
        reports.answer(seen.subject(), seen.id(), decision);
        State state = after.standing().state();
        events.add(text.classId(), seen.subject() + "-" + state.name().toLowerCase(), text.id(), viewer.personId());
        return new Decided(seen.subject(), seen.id(), decision, state, null, null, null);
    }

    private static Problem notWaiting() {
        return Problem.stale(
                "not-waiting",
                "This does not wait any more: its author took it back, or somebody has decided about it.");
    }

    private void refuseOutdated(Viewer viewer, Seen seen, Moderated.Text text) {
        if (text.rev() == seen.rev() && text.standing().judged() == seen.version()) return;
        List<DecisionStore.Decision> past = store.about(seen.subject(), seen.id());
        if (text.standing().judged() == seen.version()
                && !past.isEmpty()
                && past.get(0).afterRev() == text.rev())
            throw Problem.stale(
                    "already-decided",
                    people.names(viewer, text.classId()).of(past.get(0).by()) + " has decided about this already.");
        throw Problem.stale(
                NEWER, "The author has changed this since you opened it. Look at what changed, then decide.");
    }

    /** Takes a decision back, while nothing newer happened to the text. */
    public Decided undo(Viewer viewer, long decisionId) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        return transaction.execute(status -> {
            DecisionStore.Decision decision = store.find(decisionId).orElseThrow(Problem::missing);
            if (!access.mayUndo(viewer, decision.classId(), decision.by())) throw Problem.missing();
            Moderated kind = kind(decision.subject());
            Moderated.Text text = kind.lock(decision.subjectId()).orElseThrow(Problem::missing);
            if (store.find(decisionId).orElseThrow(Problem::missing).undone() || text.rev() != decision.afterRev())
                throw Problem.stale(
                        "too-late-to-undo",
                        "This cannot be taken back any more: the text was changed or decided on since.");
            store.undo(decisionId, clock.instant());
            reports.reopen(decisionId);
            kind.settle(
                    text,
                    text.course().backTo(decision.before(), decision.waitingBefore(), decision.publishedBefore()),
                    viewer.personId());
            events.add(text.classId(), decision.subject() + "-decision-undone", text.id(), viewer.personId());
            return new Decided(
                    decision.subject(),
                    decision.subjectId(),
                    null,
                    decision.before().state(),
                    null,
                    null,
                    null);
        });
    }

    /**
     * Takes in what a reader says is wrong with a text. It waits for somebody to look at it then; whether it stays up
     * meanwhile is the class's rule.
     *
     * @param reason in the reader's words; may be empty
     */
    @Transactional
    public void report(Viewer viewer, String subject, long id, String reason) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        if (reason.strip().length() > LONGEST_REASON)
            throw Problem.invalid("reason", "reason-too-long", "Say it in at most " + LONGEST_REASON + " characters.");
        Moderated kind = kind(subject);
        Moderated.Text text = kind.lock(id).orElseThrow(Problem::missing);
        kind.requireReading(viewer, id);
        if (text.authorId() != null && text.authorId() == viewer.personId())
            throw Problem.invalid(
                    "reason", "own-text", "This is your own. You can change it or take it away yourself.");
        List<ReportStore.ReportRow> open = reports.open(subject, id);
        if (open.stream().anyMatch(r -> r.reporterId() == viewer.personId())) return;
        if (!reported.take(String.valueOf(viewer.personId())))
            throw Problem.tooMany("You have reported very much. Talk to your teacher, please.");
        Instant now = clock.instant();
        reports.add(text.classId(), subject, id, viewer.personId(), reason.strip(), now);
        events.add(text.classId(), subject + "-reported", id, null);
        if (open.isEmpty()) store.addHold(subject, id, Hold.ofWhole(Hold.Rule.REPORT, ""));
        if (text.standing().state().waits() || !open.isEmpty()) return;
        boolean comesDown = classes.get(text.classId()).rules().reportsHide();
        kind.settle(text, text.course().reported(comesDown, now), viewer.personId());
        if (comesDown) events.add(text.classId(), subject + "-hidden", id, null);
    }

    private Moderated kind(String subject) {
        Moderated kind = kinds.get(subject);
        if (kind == null) throw Problem.missing();
        return kind;
    }
}
