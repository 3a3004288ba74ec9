package org.vastporch.core.marking;

import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.vastporch.core.rubrics.Counted;
import org.vastporch.core.text.TextFacts;

/**
 * What is counted in a paper, as evidence beside its criteria.
 *
 * @param numbers what is not known is left out
 */
public record Evidence(Map<Counted, Integer> numbers) {

    public Evidence {
        numbers = Map.copyOf(numbers);
    }

    /**
     * One post of a paper.
     *
     * @param isWhole false if only the beginning of its text is known
     * @param works how many works its author says were used
     */
    public record Text(TextFacts facts, boolean isWhole, boolean hasCategory, Set<String> tags, int works) {}

    /**
     * All posts of a paper together. Of a text of which only the beginning is known nobody knows how long it is, so the
     * words of the whole paper are not known either; a tag that two posts bear is one tag.
     *
     * @param comments how many its student gave
     * @param daysLate of the paper; 0 if it is on time
     */
    public static Evidence of(List<Text> texts, int comments, int daysLate) {
        Map<Counted, Integer> numbers = new EnumMap<>(Counted.class);
        Set<String> tags = new HashSet<>();
        for (Text text : texts) {
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
        if (!texts.stream().allMatch(Text::isWhole)) numbers.remove(Counted.WORDS);
        numbers.put(Counted.COMMENTS, comments);
        numbers.put(Counted.ON_TIME, daysLate == 0 ? 1 : 0);
        return new Evidence(numbers);
    }
}
