package org.vastporch.server.moderation;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.ModerationTable;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.server.access.AccessService;
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

    /** What became of one text. {@code problem} says why nothing did. */
    public record Decided(String subject, long id, @Optionally Long decision, @Optionally String state, @Optionally String code, @Optionally String problem) {}

    private static final List<Step> STEPS = List.of(Step.APPROVE, Step.RETURN, Step.HIDE);
    private static final int LONGEST_NOTE = 4000;

    private final Map<String, Moderated> kinds = new HashMap<>();
    private final DecisionStore store;
    private final AccessService access;
    private final PeopleService people;
    private final EventStore events;
    private final TransactionTemplate transaction;
    private final Clock clock;

    PileService(List<Moderated> kinds, DecisionStore store, AccessService access, PeopleService people, EventStore events,
                TransactionTemplate transaction, Clock clock) {
        kinds.forEach(kind -> this.kinds.put(kind.subject(), kind));
        this.store = store;
        this.access = access;
        this.people = people;
        this.events = events;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** All that waits where the viewer approves, the longest wait first. */
    public List<PileItem> waiting(Viewer viewer) {
        List<Long> classes = approvesIn(viewer);
        List<PileItem> items = new ArrayList<>();
        for (Moderated kind : kinds.values()) items.addAll(kind.waiting(viewer, classes));
        items.sort(Comparator.comparing(PileItem::since));
        return items;
    }

    List<Long> approvesIn(Viewer viewer) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        return viewer.memberships().stream().map(Membership::classId).filter(id -> access.allows(viewer, Act.APPROVE, id)).distinct().toList();
    }

    /** Decides about texts, each in a transaction of its own: one that cannot be decided holds up no other. */
    public List<Decided> decide(Viewer viewer, Deciding wish) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        if (!STEPS.contains(wish.step())) throw Problem.invalid("step", "step-unknown", "Here one approves, returns or hides.");
        if (wish.step() == Step.RETURN && wish.note().isBlank())
            throw Problem.invalid("note", "note-missing", "Say in a note what should be changed.");
        if (wish.note().length() > LONGEST_NOTE)
            throw Problem.invalid("note", "note-too-long", "A note has at most " + LONGEST_NOTE + " characters.");
        List<Decided> results = new ArrayList<>();
        for (Seen item : wish.items()) {
            try {
                results.add(transaction.execute(status -> decideOne(viewer, item, wish.step(), wish.note().strip())));
            } catch (Problem e) {
                results.add(new Decided(item.subject(), item.id(), null, null, e.code(), e.getMessage()));
            }
        }
        return results;
    }

    private Decided decideOne(Viewer viewer, Seen seen, Step step, String note) {
        Moderated kind = kind(seen.subject());
        Moderated.Text text = kind.lock(seen.id()).orElseThrow(Problem::missing);
        access.require(viewer, Act.APPROVE, text.classId());
        refuseOutdated(viewer, seen, text);
        Standing after = ModerationTable.after(text.standing(), step, Policy.BEFORE, false)
            .orElseThrow(() -> Problem.stale("not-possible", "This cannot be done with a text that is " + text.standing().state().name().toLowerCase() + "."));
        Instant now = clock.instant();
        // Approved before its time: it goes up by itself when that comes.
        if (after.state() == State.PUBLISHED && text.standing().state() == State.WAITING && text.publishAt() != null && text.publishAt().isAfter(now))
            after = ModerationTable.after(text.standing(), Step.SCHEDULE, Policy.NONE, false).orElseThrow();
        long decision = store.add(text, seen.subject(), step, note, viewer.personId(), now);
        Instant published = after.state() == State.PUBLISHED && text.publishedAt() == null ? now : text.publishedAt();
        kind.settle(text, after, after.state().waits() ? text.waitingSince() : null, published);
        events.add(text.classId(), seen.subject() + "-" + after.state().name().toLowerCase(), text.id(), viewer.personId());
        return new Decided(seen.subject(), seen.id(), decision, after.state().name(), null, null);
    }

    private void refuseOutdated(Viewer viewer, Seen seen, Moderated.Text text) {
        if (text.rev() == seen.rev() && text.standing().newest() == seen.version()) return;
        List<DecisionStore.Decision> past = store.about(seen.subject(), seen.id());
        if (text.standing().newest() == seen.version() && !past.isEmpty() && past.get(0).afterRev() == text.rev())
            throw Problem.stale("already-decided", people.names(viewer, text.classId()).of(past.get(0).by()) + " has decided about this already.");
        throw Problem.stale("newer-version", "The author has changed this since you opened it. Look at what changed, then decide.");
    }

    /** Takes a decision back, while nothing newer happened to the text. */
    public Decided undo(Viewer viewer, long decisionId) {
        return transaction.execute(status -> {
            DecisionStore.Decision decision = store.find(decisionId).orElseThrow(Problem::missing);
            access.require(viewer, Act.APPROVE, decision.classId());
            Moderated kind = kind(decision.subject());
            Moderated.Text text = kind.lock(decision.subjectId()).orElseThrow(Problem::missing);
            if (decision.undone() || text.rev() != decision.afterRev())
                throw Problem.stale("too-late-to-undo", "This cannot be taken back any more: the text was changed or decided on since.");
            store.undo(decisionId, clock.instant());
            kind.settle(text, decision.before(), decision.waitingBefore(), decision.publishedBefore());
            events.add(text.classId(), decision.subject() + "-decision-undone", text.id(), viewer.personId());
            return new Decided(decision.subject(), decision.subjectId(), null, decision.before().state().name(), null, null);
        });
    }

    private Moderated kind(String subject) {
        Moderated kind = kinds.get(subject);
        if (kind == null) throw Problem.missing();
        return kind;
    }
}
