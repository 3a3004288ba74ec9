/**
 * Who reviews whose paper.
 *
 * <p>{@link GivingOut} gives each author others' papers and each paper its reviewers, and says which wish had to give
 * way. {@link Flow} finds the reviews that break the fewest wishes. Laws: nobody reviews the own paper or one twice;
 * what stands already stays; the same seed gives the same plan.
 */
package org.vastporch.core.peers;
