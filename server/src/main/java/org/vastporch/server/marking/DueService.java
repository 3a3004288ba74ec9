package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.comments.CommentsAsked;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.marking.Deadline;
import org.vastporch.core.marking.Owed;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.access.NamesKept;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.comments.GivenCommentService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.Posts;

/** What is due for a student in a class, by the hour of looking. */
@Service
public class DueService {

    /**
     * @param due for the viewer
     * @param ownDate whether that is a date of their own
     * @param letOff whether nothing of it is asked of the viewer; it is told while the others have time
     * @param posts how many are there, of those asked for
     * @param comments how many were given that count, of those asked for
     * @param together who else hands it in with the viewer; empty where each hands in alone
     * @param commentOn the posts that are to be answered, if the prompt names some
     * @param into the blog in which it is written, as {@link PromptService.WantedAnswers} names it; left out for any
     * @param namesKept that names are kept from classmates around it; left out if they are not
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
            Owed.When when,
            PaperState standing,
            int posts,
            int askedPosts,
            int comments,
            int askedComments,
            @Optionally Instant commentsDue,
            List<String> together,
            List<NamedPost> commentOn,
            @Optionally String into,
            @Optionally NamesKept namesKept,
            boolean owesPosts,
            boolean owesComments,
            int daysLate,
            BigDecimal percentLost) {}

    /** A post by its title. */
    public record NamedPost(long id, String title) {}

    private final MarkingDesk desk;
    private final PromptService prompts;
    private final GivenCommentService comments;
    private final Posts posts;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final Clock clock;

    DueService(
            MarkingDesk desk,
            PromptService prompts,
            GivenCommentService comments,
            Posts posts,
            ClassService classes,
            PeopleService people,
            AccessService access,
            Clock clock) {
        this.desk = desk;
        this.prompts = prompts;
        this.comments = comments;
        this.posts = posts;
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
        List<Prompt> open = prompts.ofClass(viewer, classId);
        Map<Long, List<MarkingDesk.Paper>> papers = desk.papers(classId, open, List.of(student));
        Map<Long, Integer> given = comments.given(student, open);
        Map<Long, String> named = named(viewer, open);
        Names names = people.names(viewer, classId);
        List<DueLine> lines = new ArrayList<>();
        for (Prompt prompt : open) {
            MarkingDesk.Paper paper = papers.get(prompt.id()).get(0);
            line(paper, given.getOrDefault(prompt.id(), 0), named, names).ifPresent(lines::add);
        }
        lines.sort(Comparator.comparing(DueLine::due).thenComparing(DueLine::promptId));
        return lines;
    }

    private Optional<DueLine> line(MarkingDesk.Paper paper, int given, Map<Long, String> named, Names names) {
        Prompt prompt = paper.prompt();
        Instant now = clock.instant();
        Term term = classes.get(prompt.classId()).term();
        Allowance allowance = paper.allowance();
        Deadline deadline = prompt.deadline(allowance);
        CommentsAsked asked = prompt.commentsAsked(allowance);
        Owed owed = allowance.letOff()
                ? Owed.NOTHING
                : Owed.of(
                        Owed.Part.posts(
                                prompt.answers().posts(),
                                paper.posts().size(),
                                prompt.isClosed(now, allowance),
                                paper.marking() != null),
                        new Owed.Part(asked.number(), given, asked.isOpen(now, prompt.due())),
                        prompt.late(),
                        deadline.daysLate(term, List.of(now)));
        Owed.When when = Owed.When.of(deadline, term, now);
        if (!owed.isTold(allowance.letOff(), when)) return Optional.empty();
        BigDecimal lost = owed.shareLost().movePointRight(2).stripTrailingZeros();
        return Optional.of(new DueLine(
                prompt.id(),
                prompt.title(),
                prompt.instructions(),
                deadline.due(),
                allowance.due() != null,
                allowance.letOff(),
                prompt.closes(),
                prompt.points(),
                when,
                paper.state(),
                paper.posts().size(),
                prompt.answers().posts(),
                given,
                asked.number(),
                asked.due(),
                paper.members().authors(paper.studentId()).stream()
                        .filter(id -> id != paper.studentId())
                        .map(names::of)
                        .toList(),
                prompt.answers().commentOn().stream()
                        .filter(named::containsKey)
                        .map(id -> new NamedPost(id, named.get(id)))
                        .toList(),
                PromptService.WantedAnswers.refOf(prompt.answers().into()),
                NamesKept.at(prompt.answers().namesUntil(), clock.instant()),
                owed.posts() > 0,
                owed.comments() > 0,
                owed.daysLate(),
                new BigDecimal(lost.toPlainString())));
    }

    /** The posts that prompts name to be answered, as far as the viewer may read them and has not written them. */
    private Map<Long, String> named(Viewer viewer, List<Prompt> of) {
        Set<Long> named =
                of.stream().flatMap(p -> p.answers().commentOn().stream()).collect(Collectors.toSet());
        return named.isEmpty() ? Map.of() : posts.titlesOfOthers(access.readable(viewer, named), viewer.personId());
    }
}
