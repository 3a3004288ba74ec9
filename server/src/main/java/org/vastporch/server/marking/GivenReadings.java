package org.vastporch.server.marking;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.server.reviews.PaperReviews;
import org.vastporch.server.reviews.PaperReviews.Reading;

/** What everybody gave for papers, for who compares readers. Whoever asks has seen to the right to do so. */
@Service
public class GivenReadings {

    /** As what somebody read a paper. */
    public enum By {
        /** The one whose marks count, or counted before a teacher let a second reading count. */
        LEAD,
        SECOND,
        SELF,
        /** One classmate. */
        PEER,
        /** All classmates who read it, by the median. */
        PEERS;

        /** Whether it is a reading by somebody who marks. */
        public boolean isMarkers() {
            return this == LEAD || this == SECOND;
        }
    }

    /**
     * @param studentId whose paper it is; of several who handed it in together the first
     * @param readerId 0 for several together
     */
    public record GivenReading(Prompt prompt, long studentId, By by, long readerId, Marks marks) {}

    private final MarkingDesk desk;
    private final PaperReviews reviews;

    GivenReadings(MarkingDesk desk, PaperReviews reviews) {
        this.desk = desk;
        this.reviews = reviews;
    }

    /**
     * All of the papers of prompts of a class that have a rubric: marks as far as they go, other readings once done.
     */
    public List<GivenReading> of(Viewer viewer, long classId, List<Prompt> of) {
        List<Prompt> marked = of.stream().filter(p -> p.rubric() != null).toList();
        if (marked.isEmpty()) return List.of();
        Map<Long, List<MarkingDesk.Paper>> papers = desk.papers(viewer, classId, marked);
        Map<PaperReviews.Paper, Reading> kept = new HashMap<>();
        reviews.of(marked, ReviewKind.FIRST).forEach((paper, readings) -> kept.put(paper, readings.get(0)));
        Map<PaperReviews.Paper, List<Reading>> seconds = reviews.of(marked, ReviewKind.SECOND);
        List<GivenReading> given = new ArrayList<>();
        for (Prompt prompt : marked)
            for (MarkingDesk.Paper paper : MarkingDesk.once(papers.get(prompt.id()))) {
                PaperReviews.Paper key = new PaperReviews.Paper(prompt.id(), paper.studentId());
                Reading first = kept.get(key);
                // What counts in the end is told of nobody who has still to read blind.
                if (first != null && paper.marking() != null)
                    given.add(reading(paper, By.LEAD, first.review().readerId(), first.marks()));
                else if (paper.marking() != null && !paper.marks().isEmpty())
                    given.add(reading(paper, By.LEAD, paper.marking().markerId(), SecondReadings.given(paper)));
                for (Reading second : seconds.getOrDefault(key, List.of()))
                    if (second.review().isFinished())
                        given.add(reading(paper, By.SECOND, second.review().readerId(), second.marks()));
                if (paper.own() != null && paper.own().review().isFinished())
                    given.add(reading(
                            paper, By.SELF, paper.studentId(), paper.own().marks()));
                for (Reading peer : paper.peers())
                    given.add(reading(paper, By.PEER, peer.review().readerId(), peer.marks()));
                if (!paper.peers().isEmpty())
                    given.add(reading(paper, By.PEERS, 0, Marks.ofPoints(paper.peerMedian())));
            }
        return given;
    }

    private static GivenReading reading(MarkingDesk.Paper paper, By by, long reader, Marks marks) {
        return new GivenReading(paper.prompt(), paper.studentId(), by, reader, marks);
    }
}
