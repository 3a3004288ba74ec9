package org.vastporch.server.marking;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Members;
import org.vastporch.core.marking.Members.Member;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.PaperService.Seen;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PaperMembers;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.Posts;

/** Who handed in one paper together, as staff say: its members, and those who are marked apart. */
@Service
public class TogetherService {

    /**
     * @param seen the paper as whoever says so had it before them
     * @param students who hands it in together
     * @param apart those of them who have marks of their own
     * @param reason why scores change that were shown; left out if none does
     */
    public record WantedMembers(
            Seen seen,
            List<Long> students,
            List<Long> apart,
            @Optionally String reason) {}

    private final MarkingStore store;
    private final PaperService papers;
    private final MarkingDesk desk;
    private final ScoreWatch scores;
    private final PromptService prompts;
    private final PaperMembers members;
    private final Posts posts;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;

    TogetherService(
            MarkingStore store,
            PaperService papers,
            MarkingDesk desk,
            ScoreWatch scores,
            PromptService prompts,
            PaperMembers members,
            Posts posts,
            PeopleService people,
            AccessService access,
            EventStore events) {
        this.store = store;
        this.papers = papers;
        this.desk = desk;
        this.scores = scores;
        this.prompts = prompts;
        this.members = members;
        this.posts = posts;
        this.people = people;
        this.access = access;
        this.events = events;
    }

    /**
     * Says who handed in the paper of a student together. Who comes to it, or is no longer marked apart, gets the marks
     * that the others have; who leaves it has none of them any more.
     */
    @Transactional
    public PaperService.Paper set(Viewer viewer, long promptId, long studentId, WantedMembers wanted) {
        Prompt prompt = prompts.lock(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        List<Long> inClass = people.students(prompt.classId());
        if (!inClass.contains(studentId)) throw Problem.missing();
        if (!prompt.answers().byGroups())
            throw Problem.stale("each-alone", "For this prompt each student hands in a paper of their own.");
        Members before = members.of(prompt);
        Set<Long> were = new LinkedHashSet<>(before.authors(studentId));
        Set<Long> are = new TreeSet<>(wanted.students());
        if (!are.contains(studentId))
            throw Problem.invalid("students", "not-without", "Whose paper this is cannot be left out of it.");
        if (are.stream().anyMatch(s -> !inClass.contains(s) && !were.contains(s)))
            throw Problem.invalid("students", "not-a-student", "Only students of this class hand in a paper.");
        Set<Long> touched = new TreeSet<>(were);
        for (long student : are) touched.addAll(before.markedWith(student));
        posts.lockHandedIn(promptId, touched);
        store.lock(promptId, touched);
        MarkingDesk.Paper paper = desk.papers(prompt.classId(), List.of(prompt), List.of(studentId))
                .get(promptId)
                .get(0);
        if (!wanted.seen().equals(paper.seen())) throw papers.outdated(viewer, paper, wanted.seen());
        String reason = Objects.requireNonNullElse(wanted.reason(), "").strip();
        scores.noting(viewer, promptId, reason.isEmpty() ? "Who handed it in together was changed." : reason, () -> {
            change(prompt, before, studentId, are, Set.copyOf(wanted.apart()));
            events.add(prompt.classId(), "paper-members-set", promptId, viewer.personId());
            return paper;
        });
        return papers.paper(viewer, promptId, studentId);
    }

    private void change(Prompt prompt, Members before, long studentId, Set<Long> are, Set<Long> apart) {
        Long source = alikeOf(before, studentId);
        // A paper of one's own that others come to is known by its student.
        Long group = before.group(studentId) == null ? Long.valueOf(-studentId) : before.group(studentId);
        List<Member> said = new ArrayList<>();
        for (long student : before.authors(studentId))
            if (!are.contains(student)) {
                said.add(new Member(student, null, false));
                store.remove(prompt.id(), student);
            }
        for (long student : are) {
            boolean isApart = are.size() > 1 && apart.contains(student);
            said.add(new Member(student, group, isApart));
            boolean wasAlike = Objects.equals(before.group(student), group) && !before.isApart(student);
            if (!isApart && !wasAlike && source != null && source != student) store.copy(prompt.id(), source, student);
        }
        members.set(prompt.id(), said);
    }

    /** One of those who have the group's marks; null if everybody is marked apart. */
    private static @Nullable Long alikeOf(Members before, long studentId) {
        return before.authors(studentId).stream()
                .filter(s -> !before.isApart(s))
                .findFirst()
                .orElse(null);
    }
}
