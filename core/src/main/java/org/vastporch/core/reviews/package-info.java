/**
 * Readings of a paper besides the one whose marks count: by its author, by classmates, by a second marker.
 *
 * <p>{@link OwnView} decides when authors may say how they see a paper of theirs. {@link Apart} tells how far two
 * readings are apart. {@link GivingOut} gives each author others' papers and each paper its reviewers, and says which
 * wish had to give way; {@link Flow} finds the reviews that break the fewest wishes. Laws: nobody reviews the own paper
 * or one twice; what stands already stays; the same seed gives the same plan.
 */
package org.vastporch.core.reviews;
