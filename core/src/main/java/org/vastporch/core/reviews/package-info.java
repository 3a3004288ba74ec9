/**
 * Readings of papers besides the one whose marks count, by their authors and by second markers.
 *
 * <p>{@link OwnView} decides when authors may say how they see a paper of theirs, {@link SecondReading} which papers a
 * colleague reads a second time, and what that takes. {@link Apart} tells how far two readings are apart.
 */
package org.vastporch.core.reviews;
