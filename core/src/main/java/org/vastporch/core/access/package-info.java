/**
 * Who may do what, and why: one engine answers every question, with a reason.
 *
 * <p>It decides from facts alone: who the viewer is in which class ({@link Viewer}), what kind of blog, how far it
 * reaches and whether it is open ({@link BlogFacts}), whose post, in which state, for whom ({@link PostFacts}).
 *
 * <p>Laws, held on generated worlds: the engine agrees with a slow second reading of the rules; what a {@link Scope}
 * takes in is exactly what the engine lets its viewer read; nobody outside the audience gets another answer for a text
 * that is there than for one that is not; borrowed eyes see what their owner sees and do nothing.
 */
package org.vastporch.core.access;
