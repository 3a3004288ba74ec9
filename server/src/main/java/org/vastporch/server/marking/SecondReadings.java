package org.vastporch.server.marking;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.Apart;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.core.reviews.SecondReading;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.marking.SecondReadingService.SecondLine;
import org.vastporch.server.marking.SecondReadingService.SettledView;
import org.vastporch.server.people.Names;
import org.vastporch.server.reviews.PaperReviews;
import org.vastporch.server.reviews.PaperReviews.Reading;
import org.vastporch.server.reviews.PaperReviews.Review;

/** Second readings as they stand beside the first marks. */
@Component
class SecondReadings {

    private final MarkingDesk desk;
    private final PaperReviews reviews;
    private final ClassService classes;

    SecondReadings(MarkingDesk desk, PaperReviews reviews, ClassService classes) {
        this.desk = desk;
        this.reviews = reviews;
        this.classes = classes;
    }

    static Marks given(MarkingDesk.Paper paper) {
        return Marks.of(paper.marks().stream().map(MarkingStore.Mark::given).toList());
    }

    Firsts firsts(Prompt prompt) {
        return new Firsts(prompt);
    }

    /** The finished second readings of one paper, for its markers. */
    List<SecondLine> ofPaper(MarkingDesk.Paper paper, Names names) {
        Prompt prompt = paper.prompt();
        if (prompt.rubric() == null) return List.of();
        List<Reading> of = reviews.of(List.of(prompt), ReviewKind.SECOND)
                .getOrDefault(new PaperReviews.Paper(prompt.id(), paper.studentId()), List.of());
        if (of.isEmpty()) return List.of();
        Firsts firsts = new Firsts(prompt);
        return of.stream()
                .filter(r -> r.review().isFinished())
                .map(r -> line(prompt, firsts, r, names))
                .toList();
    }

    /** The marks against which second readings are held: as they were before another counted in place of them. */
    final class Firsts {

        private final Map<Long, Marks> marks = new HashMap<>();

        private Firsts(Prompt prompt) {
            desk.papers(prompt.classId(), List.of(prompt))
                    .get(prompt.id())
                    .forEach(p -> marks.put(p.studentId(), given(p)));
            reviews.of(List.of(prompt), ReviewKind.FIRST)
                    .forEach((paper, kept) ->
                            marks.put(paper.studentId(), kept.get(0).marks()));
        }

        Marks of(long student) {
            return marks.getOrDefault(student, Marks.NONE);
        }
    }

    SecondLine line(Prompt prompt, Firsts firsts, Reading second, Names names) {
        Review review = second.review();
        List<Apart> apart = review.isFinished()
                ? Apart.of(prompt.rubric(), second.marks(), firsts.of(review.studentId()))
                : List.of();
        PaperReviews.Settled settled = review.settled();
        return new SecondLine(
                review.studentId(),
                names.of(review.studentId()),
                review.readerId(),
                names.of(review.readerId()),
                review.isBlind(),
                review.rev(),
                review.rev() > 0,
                review.isFinished(),
                review.isFinished() ? OwnViewService.view(second) : null,
                apart,
                settled == null
                        && SecondReading.comesBack(
                                apart, classes.get(prompt.classId()).rules().apart()),
                settled == null
                        ? null
                        : new SettledView(
                                settled.byId() == null ? null : names.of(settled.byId()),
                                settled.at(),
                                settled.takesSecond(),
                                settled.reason()));
    }

    /** How many second readings of a prompt lie too far from the first marks, and nobody has settled them. */
    int comingBack(Prompt prompt, Names names) {
        if (prompt.rubric() == null) return 0;
        List<Reading> finished = reviews.of(List.of(prompt), ReviewKind.SECOND).values().stream()
                .flatMap(List::stream)
                .filter(r -> r.review().isFinished() && r.review().settled() == null)
                .toList();
        if (finished.isEmpty()) return 0;
        Firsts firsts = new Firsts(prompt);
        return (int) finished.stream()
                .filter(r -> line(prompt, firsts, r, names).comesBack())
                .count();
    }

    /** Whether first marks are kept from somebody who reads a paper blind and has not finished. */
    boolean isKeptFrom(Viewer viewer, Prompt prompt, long studentId) {
        if (prompt.rubric() == null) return false;
        Review review = reviews.find(prompt, studentId, viewer.personId(), ReviewKind.SECOND)
                .review();
        return review.id() != 0 && review.isBlind() && !review.isFinished();
    }
}
