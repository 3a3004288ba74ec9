/**
 * What a paper is worth and where it stands.
 *
 * <p>{@link PaperState} is computed from what was handed in, which criteria have points and whether they were released.
 * {@link LateRule} takes a score down for lateness. {@link Bundle} says which papers count together, and to what share
 * they come. Laws: lateness never gives more, and never takes what is under the floor; a released paper stays released;
 * no other choice of so many papers comes to more than the one that counts.
 */
package org.vastporch.core.marking;
