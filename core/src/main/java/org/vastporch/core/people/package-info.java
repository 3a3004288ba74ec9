/**
 * How people come into a school and who looks after them: lists as offices send them, names, usernames, pass phrases,
 * class words, what a place can become, leaving.
 *
 * <p>Decided from lines of text and from the places that people have. Laws: a list read twice changes nothing the
 * second time; nobody is renamed or signed in for by somebody who does not look after them; guessing is slow and locks
 * nobody out.
 */
package org.vastporch.core.people;
