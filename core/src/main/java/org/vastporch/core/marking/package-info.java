/**
 * What a paper is worth and where it stands.
 *
 * <p>{@link PaperState} is computed from what was handed in, which criteria have points and whether they were released.
 * {@link HandIns} says which version of a post is to be marked, and when it counts as handed in; {@link Deadline} and
 * {@link Allowance} until when it is on time. {@link LateRule} takes a score down for lateness. {@link Bundle} says
 * which papers count together, and to what share they come; {@link ScoreSheet} puts them together. {@link Members} says
 * whose paper is whose, {@link MarkingRules} who may take which step on {@link Marks}, {@link ClassPicture} how a class
 * stands, {@link Phrases} what a marker is offered. {@link Owed} and {@link Trend} are what a student is told. Laws:
 * lateness never gives more, and never takes what is under the floor; a released paper stays released; no other choice
 * of so many papers comes to more than the one that counts.
 */
package org.vastporch.core.marking;
