/**
 * What a paper is worth and where it stands.
 *
 * <p>{@link PaperState} is computed from what was handed in, which criteria have points and whether they were released.
 * {@link LateRule} takes a score down for lateness. Laws: lateness never gives more, and never takes what is under the
 * floor; a released paper stays released.
 */
package org.vastporch.core.marking;
