/**
 * Peer review: classmates read each other's papers by the rubric of a prompt.
 *
 * <p>{@link GivingOut} gives each author others' papers and each paper its reviewers, and says which wish had to give
 * way; {@link Flow} finds the reviews that break the fewest wishes. {@link PeerRound} says who takes part in it, and
 * what changes when somebody comes late or leaves. {@link PeerReading} decides what the reader of one paper may do, and
 * until when; {@link PeerMarks} is what several gave together. Laws: nobody reviews the own paper or one twice; what
 * stands already stays; the same seed gives the same plan; the right to read a paper ends with its review.
 * {@link WarmUp} says which papers come first, so that reviewers learn to judge.
 */
package org.vastporch.core.peers;
