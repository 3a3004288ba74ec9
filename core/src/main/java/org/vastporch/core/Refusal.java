package org.vastporch.core;

/**
 * Something that somebody sent cannot be, and a sentence says why, to people. Whatever else goes wrong in the core, an
 * {@link IllegalArgumentException} above all, is a fault of ours.
 */
public final class Refusal extends RuntimeException {

    private final String field;
    private final String code;

    /**
     * @param field the part that was sent and is not right, as it is named where it is sent; empty if it is no single
     *     one
     * @param code a name for the reason that stays the same
     * @param sentence why, for whoever sent it
     */
    public Refusal(String field, String code, String sentence) {
        super(sentence);
        this.field = field;
        this.code = code;
    }

    public String field() {
        return field;
    }

    public String code() {
        return code;
    }
}
