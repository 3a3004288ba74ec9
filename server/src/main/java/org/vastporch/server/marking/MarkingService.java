package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.MarkingStore.Mark;
import org.vastporch.server.marking.MarkingStore.Marking;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.writing.Posts;

/** Marking papers against a rubric, step by step. All sums come from the core. */
@Service
public class MarkingService {

    /** @param reason why a score that its student has seen changes; empty before */
    public record Given(@Nullable BigDecimal points, boolean notCounted, String remark, String reason) {}

    private static final int LONGEST_REASON = 1_000;

    private final MarkingStore store;
    private final ScoreWatch scores;
    private final PhraseService phrases;
    private final MarkingDesk desk;
    private final PaperService papers;
    private final ClassChanges changes;
    private final ClassService classes;
    private final AccessService access;
    private final Posts posts;
    private final PeopleService people;
    private final EventStore events;
    private final Clock clock;

    MarkingService(
            MarkingStore store,
            ScoreWatch scores,
            PhraseService phrases,
            MarkingDesk desk,
            PaperService papers,
            ClassChanges changes,
            ClassService classes,
            AccessService access,
            Posts posts,
            PeopleService people,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.scores = scores;
        this.phrases = phrases;
        this.desk = desk;
        this.papers = papers;
        this.changes = changes;
        this.classes = classes;
        this.access = access;
        this.posts = posts;
        this.people = people;
        this.events = events;
        this.clock = clock;
    }

    /**
     * Takes what was handed in again after the time: that is marked then, and late. Or leaves it again.
     *
     * @param seen the paper as the marker had it before them
     */
    @Transactional
    public PaperService.Paper take(
            Viewer viewer,
            long promptId,
            long studentId,
            PaperService.Seen seen,
            long post,
            int version,
            boolean taken) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        papers.requireStudent(prompt, studentId);
        MarkingDesk.Paper paper = desk.lock(prompt, studentId).paper();
        if (!seen.equals(paper.seen())) throw papers.outdated(viewer, paper, seen);
        if (paper.posts().stream().noneMatch(p -> p.postId() == post)) throw Problem.missing();
        posts.take(post, version, taken);
        changes.note(prompt.classId());
        events.add(prompt.classId(), taken ? "handed-again-taken" : "handed-again-left", post, viewer.personId());
        return papers.paper(viewer, promptId, studentId);
    }

    /**
     * Gives points for one criterion, or takes them away.
     *
     * @param seen the paper as the marker had it before them
     */
    @Transactional
    public PaperService.Standing mark(
            Viewer viewer, long promptId, long studentId, PaperService.Seen seen, String criterion, Given given) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        Rubric rubric = prompt.rubric();
        if (rubric == null) throw Problem.missing();
        Rubric.Criterion of = rubric.find(criterion).orElseThrow(Problem::missing);
        BigDecimal points = given.notCounted() ? null : given.points();
        if (points != null) of.require(points);
        requireRemark(given.remark());
        MarkingDesk.Alike before = begin(viewer, prompt, studentId, seen, given.reason());
        if (given.notCounted()) {
            Set<String> without = new HashSet<>(Set.of(criterion));
            for (Mark mark : before.paper().marks()) if (mark.notCounted()) without.add(mark.criterion());
            rubric.requireCounting(without);
        }
        String remark = given.remark().strip();
        boolean isNew = !remark.isEmpty()
                && store.marks(promptId, studentId).stream()
                        .noneMatch(m ->
                                m.criterion().equals(criterion) && m.remark().equals(remark));
        for (long student : before.students())
            store.setMark(new Mark(promptId, student, criterion, points, given.notCounted(), remark));
        if (isNew)
            phrases.learn(
                    viewer, of.name(), points == null ? "" : of.reached(points).name(), remark);
        return changed(viewer, before, given.reason());
    }

    /**
     * Gives what a table says about one paper, all of it or nothing.
     *
     * @param word null to leave the one that stands there
     */
    @Transactional
    public void markWhole(
            Viewer viewer,
            long promptId,
            long studentId,
            PaperService.Seen seen,
            List<MarksTableService.TableMark> marks,
            @Nullable String word,
            String reason) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        Rubric rubric = prompt.rubric();
        if (rubric == null) throw Problem.missing();
        Map<String, Mark> all = new HashMap<>();
        MarkingDesk.Alike before = begin(viewer, prompt, studentId, seen, reason);
        for (Mark mark : store.marks(promptId, studentId)) all.put(mark.criterion(), mark);
        for (MarksTableService.TableMark mark : marks) {
            Rubric.Criterion of = rubric.find(mark.criterion()).orElseThrow(Problem::missing);
            Mark was = all.get(mark.criterion());
            boolean saysPoints = mark.notCounted() || mark.points() != null;
            BigDecimal points =
                    saysPoints ? mark.notCounted() ? null : mark.points() : was == null ? null : was.points();
            if (points != null) of.require(points);
            String remark = mark.remark() != null ? mark.remark() : was == null ? "" : was.remark();
            requireRemark(remark);
            all.put(
                    mark.criterion(),
                    new Mark(
                            promptId,
                            studentId,
                            mark.criterion(),
                            points,
                            saysPoints ? mark.notCounted() : was != null && was.notCounted(),
                            remark.strip()));
        }
        rubric.requireCounting(all.values().stream()
                .filter(Mark::notCounted)
                .map(Mark::criterion)
                .collect(Collectors.toSet()));
        for (long student : before.students()) {
            for (MarksTableService.TableMark mark : marks) {
                Mark to = all.get(mark.criterion());
                store.setMark(new Mark(promptId, student, to.criterion(), to.points(), to.notCounted(), to.remark()));
            }
            if (word != null) store.setWord(promptId, student, requireWord(word).strip());
        }
        changed(viewer, before, reason);
    }

    /** @param reason why the word changes, once its student has seen it; empty before */
    @Transactional
    public PaperService.Standing word(
            Viewer viewer, long promptId, long studentId, PaperService.Seen seen, String word, String reason) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        requireWord(word);
        MarkingDesk.Alike before = begin(viewer, prompt, studentId, seen, reason);
        for (long student : before.students()) store.setWord(promptId, student, word.strip());
        Marking was = before.paper().marking();
        if (was == null || !was.word().equals(word.strip())) phrases.learn(viewer, "", "", word);
        return changed(viewer, before, reason);
    }

    /**
     * Makes sure that a paper stands as its marker had it before them, with its rows locked, and begins its marking or
     * goes on with it.
     *
     * @return the paper as it was
     */
    private MarkingDesk.Alike begin(
            Viewer viewer, Prompt prompt, long studentId, PaperService.Seen seen, String reason) {
        papers.requireStudent(prompt, studentId);
        MarkingDesk.Alike alike = desk.lock(prompt, studentId);
        MarkingDesk.Paper paper = alike.paper();
        if (paper.allowance().letOff())
            throw Problem.stale("let-off", "This student was let off, so there is nothing to mark.");
        if (paper.isEmpty())
            throw Problem.stale("nothing-handed-in", "Nothing was handed in here yet, so there is nothing to mark.");
        if (!seen.equals(paper.seen())) throw papers.outdated(viewer, paper, seen);
        if (alike.papers().stream().anyMatch(MarkingDesk.Paper::isReleased))
            requireReason(reason, "The student has seen this score. Say why it changes; the student reads it.");
        boolean assists = !access.allows(viewer, Act.MANAGE_CLASS, prompt.classId());
        if (assists
                && classes.get(prompt.classId()).rules().takeOver()
                && alike.papers().stream().anyMatch(MarkingDesk.Paper::isReleased))
            throw Problem.stale("released-already", "The student has seen this score. Only a teacher changes it now.");
        Instant now = clock.instant();
        for (MarkingDesk.Paper of : alike.papers()) {
            if (of.marking() != null) store.touch(prompt.id(), of.studentId(), viewer.personId(), assists, now);
            else store.begin(prompt.id(), of.studentId(), viewer.personId(), assists, now);
            store.setRead(prompt.id(), of.studentId(), seen);
        }
        changes.note(prompt.classId());
        return alike;
    }

    /** Notes what a step changed of a score that its student has seen, and says how the paper stands after it. */
    private PaperService.Standing changed(Viewer viewer, MarkingDesk.Alike before, String reason) {
        Prompt prompt = before.paper().prompt();
        List<MarkingDesk.Paper> after = desk.papers(prompt.classId(), List.of(prompt), before.students())
                .get(prompt.id());
        for (int i = 0; i < after.size(); i++) {
            MarkingDesk.Paper was = before.papers().get(i);
            if (!was.isReleased()) continue;
            scores.note(
                    viewer,
                    after.get(i),
                    ScoreEventStore.Kind.CHANGED,
                    reason,
                    was.shown(),
                    after.get(i).shown());
            events.add(prompt.classId(), "score-changed", was.studentId(), viewer.personId());
        }
        return papers.standing(
                after.get(before.papers().indexOf(before.paper())), people.names(viewer, prompt.classId()));
    }

    private static void requireRemark(String remark) {
        if (remark.length() > 4000)
            throw Problem.invalid(
                    "remark", "remark-too-long", "A comment on a criterion has at most 4,000 characters.");
    }

    private static String requireWord(String word) {
        if (word.length() > 10_000)
            throw Problem.invalid("word", "word-too-long", "This comment has more than 10,000 characters.");
        return word;
    }

    static void requireReason(String reason, String sentence) {
        if (reason.isBlank()) throw Problem.invalid("reason", "reason-missing", sentence);
        if (reason.length() > LONGEST_REASON)
            throw Problem.invalid("reason", "reason-too-long", "A reason has at most 1,000 characters.");
    }
}
