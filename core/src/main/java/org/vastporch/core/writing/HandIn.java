package org.vastporch.core.writing;

import java.util.ArrayList;
import java.util.List;
import org.vastporch.core.blogs.BlogRules;

/** "Before you hand in": what a prompt asks for and what a draft has. */
public final class HandIn {

    /** What can be asked for. */
    public enum Need {
        TITLE,
        WORDS,
        PICTURES,
        PICTURES_DESCRIBED,
        TAGS,
        CATEGORY,
        LINKS,
        SOURCES,
        COMMENTS,
        OWN_VIEW,
        MOST_WORDS,
        MOST_POSTS
    }

    /** What a prompt asks for; 0 where it asks for nothing. {@code category} is 1 where one must be chosen. */
    public record Asked(int words, int pictures, int tags, int category, int links, int sources, int comments) {
        public static final Asked NOTHING = new Asked(0, 0, 0, 0, 0, 0, 0);
    }

    /**
     * What the blog's rules say to this draft.
     *
     * @param before how many posts its author handed in here in the period so far, without this one
     */
    public record Ruled(BlogRules rules, int before) {
        public static final Ruled FREE = new Ruled(BlogRules.FREE, 0);
    }

    /** What a draft has. {@code comments} are those its author gave to classmates for the prompt. */
    public record Has(
            String title,
            int words,
            int pictures,
            int described,
            int tags,
            int category,
            int links,
            int sources,
            int comments) {}

    /**
     * One line of the list.
     *
     * @param must whether nothing can be handed in without it; what is not met otherwise is only said
     */
    public record Line(Need need, int has, int asked, boolean must) {
        public boolean met() {
            return switch (need) {
                case MOST_WORDS -> has <= asked;
                case MOST_POSTS -> has < asked;
                default -> has >= asked;
            };
        }
    }

    private HandIn() {}

    /**
     * The list for a draft whose prompt also asks how its author sees it.
     *
     * @param said whether they have said so
     */
    public static List<Line> withOwnView(List<Line> lines, boolean said) {
        List<Line> all = new ArrayList<>(lines);
        all.add(new Line(Need.OWN_VIEW, said ? 1 : 0, 1, false));
        return all;
    }

    /**
     * The list for a draft: a title and some words always, then what the blog demands, then what the prompt asks for. A
     * rule of the blog must be met; what a prompt asks for is only said.
     */
    public static List<Line> check(Asked asked, Ruled ruled, Has has) {
        BlogRules rules = ruled.rules();
        List<Line> lines = new ArrayList<>();
        lines.add(new Line(Need.TITLE, has.title().isBlank() ? 0 : 1, 1, true));
        boolean tooShort = has.words() == 0 && has.pictures() == 0 || has.words() < rules.fewestWords();
        lines.add(
                new Line(Need.WORDS, has.words(), Math.max(Math.max(1, asked.words()), rules.fewestWords()), tooShort));
        if (rules.mostWords() > 0) lines.add(new Line(Need.MOST_WORDS, has.words(), rules.mostWords(), true));
        if (rules.mostPosts() > 0) lines.add(new Line(Need.MOST_POSTS, ruled.before(), rules.mostPosts(), true));
        if (asked.pictures() > 0) lines.add(new Line(Need.PICTURES, has.pictures(), asked.pictures(), false));
        if (has.pictures() > 0) lines.add(new Line(Need.PICTURES_DESCRIBED, has.described(), has.pictures(), false));
        if (asked.tags() > 0) lines.add(new Line(Need.TAGS, has.tags(), asked.tags(), false));
        if (asked.category() > 0) lines.add(new Line(Need.CATEGORY, has.category(), 1, false));
        if (asked.links() > 0) lines.add(new Line(Need.LINKS, has.links(), asked.links(), false));
        if (asked.sources() > 0) lines.add(new Line(Need.SOURCES, has.sources(), asked.sources(), false));
        if (asked.comments() > 0) lines.add(new Line(Need.COMMENTS, has.comments(), asked.comments(), false));
        return lines;
    }

    /** Tells whether a draft can be handed in: nothing that must be there is missing. */
    public static boolean isReady(List<Line> lines) {
        return lines.stream().allMatch(line -> line.met() || !line.must());
    }
}
