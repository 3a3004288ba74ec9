package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.marking.Deadline;
import org.vastporch.core.marking.Owed;
import org.vastporch.core.marking.PaperState;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.prompts.PromptService.PromptRecord;

/** What is due for a student in a class, by the hour of looking. */
@Service
public class DueService {

    /** Where something stands in the list of what is due. */
    public enum When {
        LATE,
        THIS_WEEK,
        LATER
    }

    /**
     * @param due for the viewer
     * @param ownDate whether that is a date of their own
     * @param letOff whether nothing of it is asked of the viewer; it is told while the others have time
     * @param posts how many are there, of those asked for
     * @param comments how many were given that count, of those asked for
     * @param owesPosts whether posts are still to be handed in
     * @param owesComments whether comments are still to be given
     * @param daysLate of a post that is handed in now
     * @param percentLost what that takes of the score
     */
    public record DueLine(
            long promptId,
            String title,
            String instructions,
            Instant due,
            boolean ownDate,
            boolean letOff,
            @Optionally Instant closes,
            BigDecimal points,
            When when,
            PaperState standing,
            int posts,
            int askedPosts,
            int comments,
            int askedComments,
            @Optionally Instant commentsDue,
            boolean owesPosts,
            boolean owesComments,
            int daysLate,
            BigDecimal percentLost) {}

    private final MarkingDesk desk;
    private final PromptService prompts;
    private final CommentService comments;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final Clock clock;

    DueService(
            MarkingDesk desk,
            PromptService prompts,
            CommentService comments,
            ClassService classes,
            PeopleService people,
            AccessService access,
            Clock clock) {
        this.desk = desk;
        this.prompts = prompts;
        this.comments = comments;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.clock = clock;
    }

    /** What the viewer still owes, what is due first comes first; nothing for who is no student there. */
    public List<DueLine> due(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        long student = viewer.personId();
        if (!people.students(classId).contains(student)) return List.of();
        List<PromptRecord> open = prompts.ofClass(viewer, classId);
        Map<Long, List<MarkingDesk.Paper>> papers = desk.papers(classId, open, List.of(student));
        Map<Long, Integer> given = comments.given(
                student, open.stream().filter(p -> p.asked().comments() > 0).toList());
        List<DueLine> lines = new ArrayList<>();
        for (PromptRecord prompt : open) {
            MarkingDesk.Paper paper = papers.get(prompt.id()).get(0);
            DueLine line = line(paper, given.getOrDefault(prompt.id(), 0));
            boolean told = line.letOff() && line.when() != When.LATE;
            if (told || line.owesPosts() || line.owesComments()) lines.add(line);
        }
        lines.sort(Comparator.comparing(DueLine::due).thenComparing(DueLine::promptId));
        return lines;
    }

    private DueLine line(MarkingDesk.Paper paper, int given) {
        PromptRecord prompt = paper.prompt();
        Instant now = clock.instant();
        Term term = classes.get(prompt.classId()).term();
        Deadline deadline = prompt.deadline(paper.allowance());
        boolean letOff = paper.allowance().letOff();
        Owed owed = letOff
                ? Owed.NOTHING
                : Owed.of(
                        new Owed.Part(
                                prompt.askedPosts(),
                                paper.posts().size(),
                                !prompt.isClosed(now, paper.allowance()) && paper.marking() == null),
                        new Owed.Part(
                                prompt.asked().comments(),
                                given,
                                prompt.commentsAsked().isOpen(now, prompt.due())),
                        prompt.late(),
                        deadline.daysLate(term, List.of(now)));
        Instant week = term.around(Term.Span.WEEK, now).end();
        When when = deadline.isOver(now) ? When.LATE : deadline.due().isBefore(week) ? When.THIS_WEEK : When.LATER;
        BigDecimal lost = owed.shareLost().movePointRight(2).stripTrailingZeros();
        return new DueLine(
                prompt.id(),
                prompt.title(),
                prompt.instructions(),
                deadline.due(),
                paper.allowance().due() != null,
                letOff,
                prompt.closes(),
                prompt.points(),
                when,
                paper.state(),
                paper.posts().size(),
                prompt.askedPosts(),
                given,
                prompt.asked().comments(),
                prompt.commentsDue(),
                owed.posts() > 0,
                owed.comments() > 0,
                owed.daysLate(),
                new BigDecimal(lost.toPlainString()));
    }
}
