/**
 * Criteria with weights and levels, and the score that they give: exact fractions, rounded once, for show.
 *
 * <p>Laws: a score lies between nothing and all; more points never give less; a criterion that does not count changes
 * nothing.
 */
package org.vastporch.core.rubrics;
