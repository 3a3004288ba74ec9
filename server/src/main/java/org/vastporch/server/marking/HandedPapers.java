package org.vastporch.server.marking;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.writing.Posts.Handed;

/** What was handed in for prompts, for who gives it to others to read. Whoever asks has seen to the right to do so. */
@Service
public class HandedPapers {

    /**
     * @param together who handed it in, its student among them
     * @param posts those that count, by their numbers; none while nothing was handed in
     */
    public record HandedPaper(long studentId, List<Long> together, List<Long> posts, boolean letOff) {}

    private final MarkingDesk desk;
    private final ScoreWatch scores;
    private final Clock clock;

    HandedPapers(MarkingDesk desk, ScoreWatch scores, Clock clock) {
        this.desk = desk;
        this.scores = scores;
        this.clock = clock;
    }

    /** The papers of all students for a prompt. */
    public List<HandedPaper> of(Prompt prompt) {
        return desk.papers(prompt.classId(), List.of(prompt)).get(prompt.id()).stream()
                .map(HandedPapers::handed)
                .toList();
    }

    public HandedPaper of(Prompt prompt, long studentId) {
        return handed(desk.papers(prompt.classId(), List.of(prompt), List.of(studentId))
                .get(prompt.id())
                .get(0));
    }

    private static HandedPaper handed(MarkingDesk.Paper paper) {
        return new HandedPaper(
                paper.studentId(),
                paper.members().authors(paper.studentId()),
                paper.posts().stream().map(Handed::postId).toList(),
                paper.allowance().letOff());
    }

    /**
     * Changes what classmates' marks are of scores; where a shown score changes by that, its history says so, and does
     * not say by whom: its student reads it.
     */
    public void notingScores(Prompt prompt, Runnable change) {
        if (prompt.reviews().peers() == null || prompt.reviews().peers().share() == 0) {
            change.run();
            return;
        }
        String reason = "A classmate's review came in or was taken down; reviews are "
                + prompt.reviews().peers().share() + " % of the score.";
        scores.noting((Long) null, prompt.id(), reason, () -> {
            change.run();
            return null;
        });
    }

    /** Whether nobody who has time still owes a paper. */
    public boolean areAllIn(Prompt prompt) {
        Instant now = clock.instant();
        return desk.papers(prompt.classId(), List.of(prompt)).get(prompt.id()).stream()
                .noneMatch(p -> p.isEmpty()
                        && !p.allowance().letOff()
                        && !prompt.deadline(p.allowance()).isOver(now));
    }
}
