package org.vastporch.core.blogs;

/** Titles of blogs that are made for each student or group: a text in which {name} stands for whose it is. */
public final class TitlePattern {

    /** Longer than this no title is. */
    public static final int LONGEST = 160;

    private static final String NAME = "{name}";

    private TitlePattern() {}

    /** Whether a title stands for somebody. */
    public static boolean isPattern(String title) {
        return title.contains(NAME);
    }

    /**
     * The title with a name in it; a name for which there is no room is cut, and says so.
     *
     * @param pattern at most 130 characters
     */
    public static String fill(String pattern, String name) {
        String rest = pattern.replace(NAME, "");
        int times = (pattern.length() - rest.length()) / NAME.length();
        if (times == 0) return pattern;
        int room = Math.max(1, (LONGEST - rest.length()) / times);
        if (name.length() > room) {
            int end = Character.isHighSurrogate(name.charAt(Math.max(0, room - 2))) ? room - 2 : room - 1;
            name = name.substring(0, Math.max(0, end)).strip() + "…";
        }
        return pattern.replace(NAME, name);
    }
}
