/**
 * People and their places: names, usernames, pass phrases, who looks after an account, what a place can become,
 * leaving.
 *
 * <p>Decided from the places that people have. Laws: nobody is signed in for by somebody who does not look after them;
 * guessing is slow and locks nobody out.
 */
package org.vastporch.core.people;
