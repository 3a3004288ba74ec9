package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.rubrics.Counted;
import org.vastporch.core.text.TextFacts;
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
        Map<Counted, Integer> numbers = new EnumMap<>(Counted.class);
        Set<String> tags = new HashSet<>();
        for (HandedIn text : texts) {
            TextFacts facts = text.facts();
            numbers.merge(Counted.WORDS, facts.words(), Integer::sum);
            numbers.merge(Counted.HEADINGS, facts.headings().size(), Integer::sum);
            numbers.merge(Counted.PICTURES, facts.pictures(), Integer::sum);
            numbers.merge(Counted.DESCRIBED, facts.described(), Integer::sum);
            numbers.merge(Counted.SOUNDS, facts.sounds(), Integer::sum);
            numbers.merge(Counted.VIDEOS, facts.videos(), Integer::sum);
            numbers.merge(Counted.LINKS, facts.links(), Integer::sum);
            numbers.merge(Counted.WORKS, text.works(), Integer::sum);
            numbers.merge(Counted.CATEGORY, text.hasCategory() ? 1 : 0, Integer::sum);
            tags.addAll(text.tags());
        }
        if (!texts.isEmpty()) numbers.put(Counted.TAGS, tags.size());
        numbers.put(Counted.COMMENTS, comments);
        numbers.put(Counted.ON_TIME, daysLate == 0 ? 1 : 0);
        // Of a beginning nobody knows how long the whole is.
        if (texts.stream().anyMatch(text -> text.excerpt() == Excerpt.BEGINNING)) numbers.remove(Counted.WORDS);
        List<Proposed> proposed = prompt.rubric() == null
                ? List.of()
                : prompt.rubric().criteria().stream()
                        .flatMap(c -> c.proposed(numbers).stream().map(level -> new Proposed(c.id(), level.points())))
                        .toList();
        return new PaperEvidence(
                numbers.entrySet().stream()
                        .map(e -> new Count(e.getKey(), e.getValue()))
                        .toList(),
                prompt.asked().comments(),
                proposed);
    }
}
