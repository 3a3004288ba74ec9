/**
 * How people come into a class: lists as offices send them, names that newcomers give, class words.
 *
 * <p>Decided from lines of text and from who is known already. Laws: a list read twice changes nothing the second time;
 * nobody is renamed by somebody who does not look after them; a name that could be taken for another's is asked about.
 */
package org.vastporch.core.enrolment;
