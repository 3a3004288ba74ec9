package org.vastporch.server.marking;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.progress.Weeks;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.people.PeopleService;

/** Where papers stand, for who shows it by weeks. Whoever asks has seen to the right to do so. */
@Service
public class PaperStandings {

    private final MarkingDesk desk;
    private final PeopleService people;

    PaperStandings(MarkingDesk desk, PeopleService people) {
        this.desk = desk;
        this.people = people;
    }

    /** What prompts of a class ask of each of its students, in the order of the prompts; for somebody who marks. */
    public Map<Long, List<Weeks.Asked>> of(Viewer viewer, long classId, List<Prompt> prompts) {
        return byStudent(classId, prompts, desk.papers(viewer, classId, prompts), false);
    }

    /** The same for one student, as that student may know it. */
    public List<Weeks.Asked> ofOne(long classId, List<Prompt> prompts, long student) {
        return byStudent(classId, prompts, desk.papers(classId, prompts, List.of(student)), true)
                .getOrDefault(student, List.of());
    }

    private Map<Long, List<Weeks.Asked>> byStudent(
            long classId, List<Prompt> prompts, Map<Long, List<MarkingDesk.Paper>> papers, boolean toStudents) {
        Map<Long, Instant> joined = people.joined(classId);
        Map<Long, List<Weeks.Asked>> asked = new HashMap<>();
        for (Prompt prompt : prompts)
            for (MarkingDesk.Paper paper : papers.get(prompt.id()))
                asked.computeIfAbsent(paper.studentId(), s -> new ArrayList<>())
                        .add(asked(paper, joined.getOrDefault(paper.studentId(), Instant.MIN), toStudents));
        return asked;
    }

    private static Weeks.Asked asked(MarkingDesk.Paper paper, Instant joined, boolean toStudents) {
        Prompt prompt = paper.prompt();
        PaperState state = toStudents ? paper.state().toItsStudent(paper.isShown()) : paper.state();
        return new Weeks.Asked(
                prompt.due(),
                state,
                paper.daysLate() > 0,
                paper.allowance().due() != null,
                joined.isBefore(prompt.deadline(paper.allowance()).end()));
    }
}
