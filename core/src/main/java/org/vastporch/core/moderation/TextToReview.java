package org.vastporch.core.moderation;

import org.jspecify.annotations.Nullable;

/**
 * A text as it is looked through for what holds it.
 *
 * @param isPost false for a comment
 * @param plain its words
 * @param approved the words of the version that was approved before; null for none
 * @param media how many pictures, sounds, videos and files would be new to readers
 * @param reported whether a reader has reported it and nobody has decided about that
 */
public record TextToReview(
        boolean isPost, String plain, @Nullable String approved, int media, boolean reported) {

    /** A comment that is not there yet. */
    public static TextToReview newComment(String plain) {
        return new TextToReview(false, plain, null, 0, false);
    }
}
