package org.vastporch.core.marking;

import java.math.BigDecimal;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.Rubric;

/**
 * What one marker gave for one paper. An immutable value; a step makes another one.
 *
 * @param given by the identities of the criteria
 */
public record Marks(Map<String, Mark> given) {

    public static final Marks NONE = new Marks(Map.of());

    private static final int LONGEST_REMARK = 4_000;
    private static final int LONGEST_WORD = 10_000;

    /**
     * What was given for one criterion.
     *
     * @param points null while only a remark stands, and where the criterion does not count
     * @param notCounted whether the criterion does not count for this paper
     */
    public record Mark(String criterion, @Nullable BigDecimal points, boolean notCounted, String remark) {
        public Mark {
            if (notCounted) points = null;
            remark = remark.strip();
        }
    }

    public Marks {
        given = Map.copyOf(given);
    }

    public static Marks of(Collection<Mark> marks) {
        return new Marks(marks.stream().collect(Collectors.toMap(Mark::criterion, m -> m)));
    }

    /** Points alone, by the identities of the criteria. */
    public static Marks ofPoints(Map<String, BigDecimal> points) {
        return of(points.entrySet().stream()
                .map(e -> new Mark(e.getKey(), e.getValue(), false, ""))
                .toList());
    }

    public Optional<Mark> of(String criterion) {
        return Optional.ofNullable(given.get(criterion));
    }

    /** The points by the identities of the criteria that have some. */
    public Map<String, BigDecimal> points() {
        Map<String, BigDecimal> points = new HashMap<>();
        for (Mark mark : given.values()) if (mark.points() != null) points.put(mark.criterion(), mark.points());
        return points;
    }

    /** Whether every criterion of a rubric has points. */
    public boolean isWhole(Rubric rubric) {
        return rubric.criteria().stream()
                .allMatch(c -> of(c.id()).filter(m -> m.points() != null).isPresent());
    }

    /**
     * The same with a mark in place of what stood for its criterion.
     *
     * @param rubric has the criterion
     * @throws Refusal if its points are none of the criterion's, its remark is too long, or nothing would count any
     *     more
     */
    public Marks with(Rubric rubric, Mark mark) {
        Rubric.Criterion of = rubric.find(mark.criterion())
                .orElseThrow(() -> new IllegalArgumentException("No criterion of this rubric: " + mark.criterion()));
        if (mark.points() != null) of.require(mark.points());
        if (mark.remark().length() > LONGEST_REMARK)
            throw new Refusal("remark", "remark-too-long", "A comment on a criterion has at most 4,000 characters.");
        Map<String, Mark> after = new HashMap<>(given);
        after.put(mark.criterion(), mark);
        rubric.requireCounting(after.values().stream()
                .filter(Mark::notCounted)
                .map(Mark::criterion)
                .collect(Collectors.toSet()));
        return new Marks(after);
    }

    /**
     * The same with what a table says: what it leaves unsaid of a criterion stays as it stood.
     *
     * @throws Refusal as for a single mark
     */
    public Marks with(Rubric rubric, Collection<MarksTable.Mark> said) {
        Marks after = this;
        // What counts again comes first, so that no order of the rows leaves nothing that counts on the way.
        for (boolean leaves : new boolean[] {false, true})
            for (MarksTable.Mark mark : said)
                if (mark.notCounted() == leaves) after = after.with(rubric, after.completed(mark));
        return after;
    }

    private Mark completed(MarksTable.Mark said) {
        Mark was = given.getOrDefault(said.criterion(), new Mark(said.criterion(), null, false, ""));
        boolean saysPoints = said.notCounted() || said.points() != null;
        return new Mark(
                said.criterion(),
                saysPoints ? said.points() : was.points(),
                saysPoints ? said.notCounted() : was.notCounted(),
                said.remark() == null ? was.remark() : said.remark());
    }

    /** Makes sure that words on the whole of a paper are no longer than they may be. */
    public static String word(String word) {
        if (word.length() > LONGEST_WORD)
            throw new Refusal("word", "word-too-long", "This comment has more than 10,000 characters.");
        return word.strip();
    }
}
