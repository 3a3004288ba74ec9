/**
 * What a teacher asks for, by when, and what counts as an answer.
 *
 * <p>{@link Prompt} is all of it; {@link Answers} says how many posts it asks for, of whom, and by what else than
 * having been written for it a post answers it. {@link PromptMatch} finds the prompt that a post answers which nobody
 * wrote for one. {@link PromptEffects} says what a change of it changes for whom; {@link Questions} who reads what is
 * asked under it. Laws: a prompt opens before it is due, and does not close before; it asks for something; what a
 * person said about a post, no match changes.
 */
package org.vastporch.core.prompts;
