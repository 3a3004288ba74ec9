/**
 * How a class goes over its weeks: what each student handed in, when, and how often in a row.
 *
 * <p>{@link Weeks} decides it from the states of papers, the posts that came and the weeks of the term;
 * {@link CellState} is what stands in a cell. Laws: a row has a cell for each week; no more is on time than was asked;
 * breaks, weeks in which nothing was asked, what one was let off and weeks before one came change no count and end no
 * streak.
 *
 * <p>{@link WhoAnswersWhom} tells the same of the comments between students, {@link NextToAnswer} which post a student
 * is offered to answer, {@link LastWeeks} how much is written in the classes of a school.
 */
package org.vastporch.core.progress;
