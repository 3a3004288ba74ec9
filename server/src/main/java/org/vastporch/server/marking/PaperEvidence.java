package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.marking.Evidence;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.rubrics.Counted;
import org.vastporch.server.writing.Posts.HandedIn;

/**
 * What the program counted in the posts of a paper, in all of them together.
 *
 * @param counts what is not known is left out
 * @param commentsAsked how many comments the prompt asks for
 * @param proposed for which level of which criterion the numbers speak
 */
public record PaperEvidence(List<Count> counts, int commentsAsked, List<Proposed> proposed) {

    public record Count(Counted what, int number) {}

    /** @param points of the level */
    public record Proposed(String criterion, BigDecimal points) {}

    /**
     * @param comments how many its student gave
     * @param daysLate of the paper
     */
    static PaperEvidence of(Prompt prompt, List<HandedIn> texts, int comments, int daysLate) {
        Map<Counted, Integer> numbers = Evidence.of(
                        texts.stream().map(PaperEvidence::text).toList(), comments, daysLate)
                .numbers();
        List<Proposed> proposed = prompt.rubric() == null
                ? List.of()
                : prompt.rubric().criteria().stream()
                        .flatMap(c -> c.proposed(numbers).stream().map(level -> new Proposed(c.id(), level.points())))
                        .toList();
        return new PaperEvidence(
                Arrays.stream(Counted.values())
                        .filter(numbers::containsKey)
                        .map(what -> new Count(what, numbers.get(what)))
                        .toList(),
                prompt.asked().comments(),
                proposed);
    }

    private static Evidence.Text text(HandedIn text) {
        return new Evidence.Text(
                text.facts(),
                text.excerpt() != Excerpt.BEGINNING,
                text.hasCategory(),
                Set.copyOf(text.tags()),
                text.works());
    }
}
