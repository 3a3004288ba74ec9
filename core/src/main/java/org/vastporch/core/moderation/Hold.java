package org.vastporch.core.moderation;

/**
 * A reason for which a text waits although its author may publish.
 *
 * @param start first character of the place in the plain text, 0-based; -1 if the hold is about the whole
 * @param end the character after the last
 * @param found the words at that place
 */
public record Hold(Rule rule, int start, int end, String found) {

    /**
     * The rules that can hold a text. WRITING_OVER: it was to go up by itself when its author could not write there any
     * more. MORE: more was found than is marked.
     */
    public enum Rule {
        WORD,
        PHONE,
        EMAIL,
        HANDLE,
        STREET,
        FULL_NAME,
        LINK,
        PICTURE,
        GUEST,
        FIRST_POST,
        REPORT,
        WRITING_OVER,
        MORE
    }

    /** A hold that is about the whole text. {@code found} says more, such as what a reader reported. */
    public static Hold ofWhole(Rule rule, String found) {
        return new Hold(rule, -1, -1, found);
    }
}
