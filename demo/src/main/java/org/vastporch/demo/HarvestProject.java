package org.vastporch.demo;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Bundle;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.marking.MarkingService;
import org.vastporch.server.marking.PaperService;
import org.vastporch.server.marking.PromptChanges;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.PileService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.BundleService;
import org.vastporch.server.prompts.BundleService.BundleView;
import org.vastporch.server.prompts.PromptService;

/** What counts in the garden class: two bundles, a project of two posts, and what single students are allowed. */
@Component
class HarvestProject {

    private static final String PROJECT = "What our bed gave";
    /** Places of students in the roster. */
    private static final int FIRST_HALF_ONLY = 1;

    private static final int BOTH_HALVES = 4;
    private static final int LET_OFF = 2;
    private static final int OWN_DATE = 17;
    private static final int SPOKEN_TO = 3;
    private static final int MENDS_IT = 5;

    private final DemoClock clock;
    private final PeopleService people;
    private final BlogService blogs;
    private final PromptService prompts;
    private final Hands hands;
    private final PileService pile;
    private final BundleService bundles;
    private final MarkingService marking;
    private final PaperService papers;
    private final PromptChanges changes;
    private final BedPlans plans;
    private final GardenShed extras;

    HarvestProject(
            Clock clock,
            PeopleService people,
            BlogService blogs,
            PromptService prompts,
            Hands hands,
            PileService pile,
            BundleService bundles,
            MarkingService marking,
            PaperService papers,
            PromptChanges changes,
            BedPlans plans,
            GardenShed extras) {
        this.clock = (DemoClock) clock;
        this.people = people;
        this.blogs = blogs;
        this.prompts = prompts;
        this.hands = hands;
        this.pile = pile;
        this.bundles = bundles;
        this.marking = marking;
        this.papers = papers;
        this.changes = changes;
        this.plans = plans;
        this.extras = extras;
    }

    void fill(Viewer teacher, long classId, LocalDate monday, Instant now) {
        List<Long> students = people.students(classId);
        List<Prompt> logs = prompts.all(classId);
        // The week before last: long enough ago to be nobody's news.
        LocalDate set = monday.plusWeeks(5);
        clock.set(DemoSchool.at(set, 8, 0));
        long project = prompts.set(teacher, classId, project(set));
        handIn(classId, students.get(FIRST_HALF_ONLY), project, set.plusDays(3), DemoTexts.PARSNIPS);
        handIn(classId, students.get(BOTH_HALVES), project, set.plusDays(2), DemoTexts.BEETROOT);
        handIn(classId, students.get(BOTH_HALVES), project, set.plusDays(4), DemoTexts.BEETROOT_AGAIN);
        approve(teacher, project, DemoSchool.at(set.plusDays(4), 19, 0));
        long plan = plans.fill(this, teacher, classId, monday, now);
        clock.set(now.minusSeconds(3_600));
        changes.allow(
                teacher,
                log(logs, "Week 4 log"),
                students.get(LET_OFF),
                new PromptChanges.WantedAllowance(null, true, false, "You were at the dentist all week."));
        changes.allow(
                teacher,
                log(logs, "Week 6 log"),
                students.get(OWN_DATE),
                new PromptChanges.WantedAllowance(
                        LocalDateTime.of(DemoSchool.day(now).plusDays(4), LocalTime.of(20, 0)), false, false, null));
        lookAgain(teacher, log(logs, "Week 5 log"), students.get(0));
        extras.fill(teacher, classId, log(logs, "Week 5 log"), students.get(SPOKEN_TO), students.get(MENDS_IT));
        extras.showExamples(teacher, log(logs, "Week 7 log"), log(logs, "Week 5 log"));
        bundles.set(
                teacher,
                classId,
                new BundleService.BundlesView(
                        List.of(
                                new BundleView(
                                        null,
                                        "Weekly logs",
                                        new BigDecimal("60"),
                                        5,
                                        Bundle.Never.ZERO,
                                        new ArrayList<>(
                                                logs.stream().map(Prompt::id).toList())),
                                new BundleView(
                                        null,
                                        "Projects",
                                        new BigDecimal("40"),
                                        0,
                                        Bundle.Never.ZERO,
                                        List.of(project, plan))),
                        bundles.ofClass(teacher, classId).seen()));
    }

    private static PromptService.WantedPrompt project(LocalDate set) {
        return new PromptService.WantedPrompt(
                PROJECT,
                "Two posts about what came out of your bed this autumn: in the first what you can count or weigh, in "
                        + "the second what you would do otherwise next year, and why.",
                List.of("What surprised you when you weighed it?", "What would you not grow again?"),
                null,
                null,
                LocalDateTime.of(set.plusWeeks(5).plusDays(4), LocalTime.of(20, 0)),
                24,
                new BigDecimal("5"),
                new BigDecimal("50"),
                null,
                new BigDecimal("40"),
                new HandIn.Asked(30, 0, 0, 0, 0, 0, 0),
                new PromptService.WantedAnswers(2, false, false, false, List.of(), null, false, false, null, null),
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                PlotToPlate.garden(),
                null,
                null);
    }

    /** Somebody of the class hands in an answer in the afternoon of a day. */
    void handIn(long classId, long student, long prompt, LocalDate day, DemoTexts.Text text) {
        hands.in(
                student,
                blogs.homeOf(classId, student).orElseThrow(),
                prompt,
                DemoSchool.at(day, 17, 20),
                text,
                text == DemoTexts.PARSNIPS ? "The second half comes when the scales are back." : null);
    }

    /** All that waits of the answers to a prompt is approved. */
    void approve(Viewer teacher, long project, Instant at) {
        clock.set(at);
        for (PaperService.StripView line : papers.strip(teacher, project).students())
            for (PaperService.SeenPost post : line.seen().posts())
                for (PileItem item :
                        pile.pile(teacher, new PileFilter(null, "", 200)).items())
                    if (item.subject().equals("post") && item.id() == post.post())
                        pile.decide(
                                teacher,
                                new PileService.Deciding(
                                        Step.APPROVE,
                                        "",
                                        List.of(new PileService.Seen(
                                                item.subject(), item.id(), item.version(), item.rev()))));
    }

    /** A score that its student had seen is changed, with the reason. */
    private void lookAgain(Viewer teacher, long prompt, long student) {
        PaperService.Standing given = papers.paper(teacher, prompt, student).given();
        given.marks().stream()
                .findFirst()
                .ifPresent(mark -> marking.mark(
                        teacher,
                        prompt,
                        student,
                        given.seen(),
                        mark.criterion(),
                        new MarkingService.Given(
                                new BigDecimal("6"),
                                false,
                                "",
                                "You did measure it twice. I had missed the second time.")));
    }

    private static long log(List<Prompt> logs, String title) {
        return logs.stream()
                .filter(p -> p.title().equals(title))
                .findFirst()
                .orElseThrow()
                .id();
    }
}
