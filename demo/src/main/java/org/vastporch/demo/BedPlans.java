package org.vastporch.demo;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.marking.MarkingService;
import org.vastporch.server.marking.PaperService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PaperMembers;
import org.vastporch.server.prompts.PromptQuestions;
import org.vastporch.server.prompts.PromptService;

/** What the beds of the garden do together, and a task of comments alone. */
@Component
class BedPlans {

    /** Who hands in for a bed, by the place in the roster. */
    private record Plan(int place, DemoTexts.Text text) {}

    private static final List<Plan> PLANS = List.of(
            new Plan(1, DemoTexts.PLAN_BY_THE_WALL),
            new Plan(5, DemoTexts.PLAN_WITH_A_PATH),
            new Plan(13, DemoTexts.PLAN_FOR_BEES));

    private static final String PLAN = "A plan for spring";
    private static final int RAIN = 19;
    private static final int LATE = 10;
    private static final int MARKED = 1;
    private static final List<String> STEPS = List.of("4", "4", "2", "3");

    private final DemoClock clock;
    private final PeopleService people;
    private final PromptService prompts;
    private final PaperMembers members;
    private final MarkingService marking;
    private final PaperService papers;
    private final PromptQuestions questions;
    private final AccessService access;

    BedPlans(
            Clock clock,
            PeopleService people,
            PromptService prompts,
            PaperMembers members,
            MarkingService marking,
            PaperService papers,
            PromptQuestions questions,
            AccessService access) {
        this.clock = (DemoClock) clock;
        this.people = people;
        this.prompts = prompts;
        this.members = members;
        this.marking = marking;
        this.papers = papers;
        this.questions = questions;
        this.access = access;
    }

    /** @return the prompt that the beds answered */
    long fill(HarvestProject hands, Viewer teacher, long classId, LocalDate monday, Instant now) {
        List<Long> students = people.students(classId);
        LocalDate set = monday.plusWeeks(5);
        clock.set(DemoSchool.at(set, 9, 0));
        long plan = prompts.set(
                teacher,
                classId,
                prompt(
                        PLAN,
                        "One plan for your bed: what is to grow where next spring, and why there. Whoever hands it in does "
                                + "so for the whole bed.",
                        set.plusDays(6),
                        new HandIn.Asked(40, 0, 0, 0, 0, 0, 0),
                        new PromptService.WantedAnswers(
                                1, false, true, false, List.of(), null, false, false, null, null)));
        for (Plan of : PLANS) hands.handIn(classId, students.get(of.place()), plan, set.plusDays(4), of.text());
        hands.approve(teacher, plan, DemoSchool.at(set.plusDays(5), 16, 0));
        clock.set(DemoSchool.at(set.plusDays(7), 8, 0));
        members.keepWhatIsDue();
        mark(teacher, plan, students.get(MARKED));
        clock.set(DemoSchool.at(monday.plusWeeks(7), 8, 0));
        prompts.set(
                teacher,
                classId,
                prompt(
                        "Two answers",
                        "Find two posts that nobody has answered, and answer them with what you know from your own bed.",
                        monday.plusWeeks(7).plusDays(6),
                        new HandIn.Asked(0, 0, 0, 0, 0, 0, 2),
                        new PromptService.WantedAnswers(
                                0, false, false, false, List.of(), null, false, false, null, null)));
        clock.set(now.minusSeconds(7_200));
        ask(teacher, classId, students);
        return plan;
    }

    /** One question that was answered for all, and one that waits. */
    private void ask(Viewer teacher, long classId, List<Long> students) {
        long log = prompts.all(classId).stream()
                .filter(p -> p.title().equals("Week 7 log"))
                .findFirst()
                .orElseThrow()
                .id();
        PromptQuestions.QuestionView rain = questions.ask(
                access.viewer(students.get(RAIN)), log, "May it be about the rain, or only about what grows?");
        questions.answer(
                teacher,
                rain.id(),
                new PromptQuestions.WantedAnswer(
                        rain.rev(), "About rain too, if it fell on your bed and you measured it.", true));
        long plan = prompts.all(classId).stream()
                .filter(p -> p.title().equals(PLAN))
                .findFirst()
                .orElseThrow()
                .id();
        questions.ask(
                access.viewer(students.get(LATE)),
                plan,
                "We lost our drawing. Can two of us hand in half a plan each?");
    }

    private void mark(Viewer teacher, long prompt, long student) {
        PaperService.Paper paper = papers.paper(teacher, prompt, student);
        for (int i = 0; i < STEPS.size(); i++)
            marking.mark(
                    teacher,
                    prompt,
                    student,
                    papers.paper(teacher, prompt, student).given().seen(),
                    paper.rubric().criteria().get(i).id(),
                    new MarkingService.Given(new BigDecimal(STEPS.get(i)), false, "", ""));
    }

    private static PromptService.WantedPrompt prompt(
            String title, String instructions, LocalDate due, HandIn.Asked asked, PromptService.WantedAnswers answers) {
        return new PromptService.WantedPrompt(
                title,
                instructions,
                List.of(),
                null,
                null,
                LocalDateTime.of(due, LocalTime.of(20, 0)),
                24,
                BigDecimal.ZERO,
                BigDecimal.ZERO,
                null,
                new BigDecimal("18"),
                asked,
                answers,
                null,
                null,
                5,
                null,
                null,
                null,
                null,
                PlotToPlate.garden(),
                null,
                null);
    }
}
