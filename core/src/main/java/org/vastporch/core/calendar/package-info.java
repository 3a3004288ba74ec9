/**
 * The one calendar of a class: weeks of a term, breaks, days late.
 *
 * <p>Decided from the first and last day, the breaks and the time zone. Laws: every moment of a term is in one week;
 * days late never shrink as time goes on and grow by one at a time, through both changes of the clock.
 */
package org.vastporch.core.calendar;
