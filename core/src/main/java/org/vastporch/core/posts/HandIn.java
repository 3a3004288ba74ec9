package org.vastporch.core.posts;

import java.util.ArrayList;
import java.util.List;

/** "Before you hand in": what a prompt asks for and what a draft has. */
public final class HandIn {

    /** What can be asked for. */
    public enum Need { TITLE, WORDS, PICTURES, PICTURES_DESCRIBED, TAGS, LINKS, COMMENTS }

    /** What a prompt asks for; 0 where it asks for nothing. */
    public record Asked(int words, int pictures, int tags, int links, int comments) {
        public static final Asked NOTHING = new Asked(0, 0, 0, 0, 0);
    }

    /** What a draft has. {@code comments} are those its author gave to classmates for the prompt. */
    public record Has(String title, int words, int pictures, int described, int tags, int links, int comments) {}

    /**
     * One line of the list.
     *
     * @param must whether nothing can be handed in without it; what is not met otherwise is only said
     */
    public record Line(Need need, int has, int asked, boolean must) {
        public boolean met() {
            return has >= asked;
        }
    }

    private HandIn() {}

    /** The list for a draft: a title and some words always, then what the prompt asks for. */
    public static List<Line> check(Asked asked, Has has) {
        List<Line> lines = new ArrayList<>();
        lines.add(new Line(Need.TITLE, has.title().isBlank() ? 0 : 1, 1, true));
        lines.add(new Line(Need.WORDS, has.words(), Math.max(1, asked.words()), has.words() == 0 && has.pictures() == 0));
        if (asked.pictures() > 0) lines.add(new Line(Need.PICTURES, has.pictures(), asked.pictures(), false));
        if (has.pictures() > 0) lines.add(new Line(Need.PICTURES_DESCRIBED, has.described(), has.pictures(), false));
        if (asked.tags() > 0) lines.add(new Line(Need.TAGS, has.tags(), asked.tags(), false));
        if (asked.links() > 0) lines.add(new Line(Need.LINKS, has.links(), asked.links(), false));
        if (asked.comments() > 0) lines.add(new Line(Need.COMMENTS, has.comments(), asked.comments(), false));
        return lines;
    }

    /** Tells whether a draft can be handed in: nothing that must be there is missing. */
    public static boolean isReady(List<Line> lines) {
        return lines.stream().allMatch(line -> line.met() || !line.must());
    }
}
