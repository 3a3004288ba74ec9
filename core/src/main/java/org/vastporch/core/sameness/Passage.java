package org.vastporch.core.sameness;

/**
 * Words that stand in two texts in the same order, as many as do so in a row.
 *
 * @param words how many
 * @param start where they begin in the plain text of the first, and {@code end} the character after them
 * @param startThere where they begin in the plain text of the second, and {@code endThere} the character after them
 */
public record Passage(int words, int start, int end, int startThere, int endThere) {}
