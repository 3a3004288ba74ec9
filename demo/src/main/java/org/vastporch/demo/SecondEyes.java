package org.vastporch.demo;

import java.util.List;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.reviews.SecondReading.Which;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.marking.OwnViewService.Own;
import org.vastporch.server.marking.PaperService;
import org.vastporch.server.marking.SecondReadingService;
import org.vastporch.server.marking.SecondReadingService.SecondLine;
import org.vastporch.server.marking.SecondReadingService.WantedReadings;

/** A colleague reads papers of Sound Walks a second time, and is kinder about what is thought over. */
@Component
class SecondEyes {

    /** How many steps the colleague gives more than the first marker, by criterion, paper after paper. */
    private static final List<List<Integer>> MORE = List.of(
            List.of(0, 0, 1, 0, 0, -1, 0, 0, 0, 0, 0, 1),
            List.of(0, 0, 0, -1, 0, 0, 1, 0, 0, 0, -1, 0),
            List.of(1, 1, 1, 1, 2, 1, 1, 1, 2, 1, 1, 2));

    private final SecondReadingService readings;
    private final PaperService papers;

    SecondEyes(SecondReadingService readings, PaperService papers) {
        this.readings = readings;
        this.papers = papers;
    }

    /** Reads all papers of a marked prompt without the first marks, but the last few. */
    void read(Viewer teacher, Viewer colleague, long prompt, int leaves) {
        readings.ask(teacher, prompt, new WantedReadings(colleague.personId(), null, Which.ALL, null, true));
        List<SecondLine> lines = readings.ofPrompt(teacher, prompt).lines();
        for (int i = 0; i < lines.size() - leaves; i++)
            read(teacher, colleague, prompt, lines.get(i).studentId(), i);
    }

    private void read(Viewer teacher, Viewer colleague, long prompt, long student, int at) {
        Rubric rubric = readings.page(colleague, prompt, student).rubric();
        Own own = null;
        for (int c = 0; c < rubric.criteria().size(); c++) {
            Rubric.Criterion criterion = rubric.criteria().get(c);
            int first = papers.paper(teacher, prompt, student).given().marks().stream()
                    .filter(m -> m.criterion().equals(criterion.id()))
                    .mapToInt(m -> criterion.step(m.points()))
                    .findFirst()
                    .orElse(1);
            int step = Math.max(
                    0,
                    Math.min(
                            criterion.levels().size() - 1,
                            first + MORE.get(c % MORE.size()).get(at % 12)));
            own = readings.mark(
                    colleague,
                    prompt,
                    student,
                    own == null ? 0 : own.rev(),
                    criterion.id(),
                    criterion.levels().get(step).points(),
                    "");
        }
    }
}
