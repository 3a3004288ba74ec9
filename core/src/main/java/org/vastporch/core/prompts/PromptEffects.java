package org.vastporch.core.prompts;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.rubrics.Rubric;

/**
 * What a change of a prompt changes for whom.
 *
 * @param becomeLate the students who are late by the change, and were on time
 * @param becomeOnTime the students who were late, and are on time by the change
 * @param toldDate how many students could read the date that was
 */
public record PromptEffects(
        List<Long> becomeLate,
        List<Long> becomeOnTime,
        List<ScoreChange> scores,
        List<MarksAside> aside,
        int toldDate) {

    public static final PromptEffects NONE = new PromptEffects(List.of(), List.of(), List.of(), List.of(), 0);

    /**
     * A paper before a change, or after it.
     *
     * @param score as people read it; null while there is none
     * @param isShown whether its student sees the score
     * @param marked the criteria for which something was given
     */
    public record Paper(
            long student, int daysLate, @Nullable BigDecimal score, boolean isShown, Set<String> marked) {}

    /** @param shown whether the student has seen the score */
    public record ScoreChange(
            long student,
            @Nullable BigDecimal before,
            @Nullable BigDecimal after,
            boolean shown) {}

    /** A criterion that goes, and how many marks are kept for it but count no more. */
    public record MarksAside(String criterion, int marks) {}

    /**
     * Compares papers before and after.
     *
     * @param dueMoves whether another date is told
     * @param before the rubric that was; null without one
     * @param after the rubric that comes; null without one
     * @param were the papers as they stand
     * @param are the papers of the same students in the same order, as they would stand
     */
    public static PromptEffects of(
            boolean dueMoves, @Nullable Rubric before, @Nullable Rubric after, List<Paper> were, List<Paper> are) {
        List<Long> late = new ArrayList<>();
        List<Long> onTime = new ArrayList<>();
        List<ScoreChange> scores = new ArrayList<>();
        for (int i = 0; i < were.size(); i++) {
            Paper was = were.get(i);
            Paper is = are.get(i);
            if (was.daysLate() == 0 && is.daysLate() > 0) late.add(was.student());
            if (was.daysLate() > 0 && is.daysLate() == 0) onTime.add(was.student());
            if (!Objects.equals(was.score(), is.score()))
                scores.add(new ScoreChange(was.student(), was.score(), is.score(), was.isShown()));
        }
        return new PromptEffects(late, onTime, scores, aside(before, after, were), dueMoves ? were.size() : 0);
    }

    /** Both together; a student who becomes late twice is named once. */
    public PromptEffects and(PromptEffects other) {
        return new PromptEffects(
                Stream.concat(becomeLate.stream(), other.becomeLate.stream())
                        .distinct()
                        .toList(),
                Stream.concat(becomeOnTime.stream(), other.becomeOnTime.stream())
                        .distinct()
                        .toList(),
                Stream.concat(scores.stream(), other.scores.stream()).toList(),
                Stream.concat(aside.stream(), other.aside.stream()).toList(),
                Math.max(toldDate, other.toldDate));
    }

    /** Whether a score changes that its student has seen: then the change needs a reason. */
    public boolean needsReason() {
        return scores.stream().anyMatch(ScoreChange::shown);
    }

    private static List<MarksAside> aside(@Nullable Rubric before, @Nullable Rubric after, List<Paper> papers) {
        if (before == null) return List.of();
        Set<String> stays = after == null
                ? Set.of()
                : after.criteria().stream().map(Rubric.Criterion::id).collect(Collectors.toSet());
        return before.criteria().stream()
                .filter(c -> !stays.contains(c.id()))
                .map(c -> new MarksAside(c.name(), (int)
                        papers.stream().filter(p -> p.marked().contains(c.id())).count()))
                .filter(a -> a.marks() > 0)
                .toList();
    }
}
