/** Comments that a prompt asks for: how many a student owes and has given. */
package org.vastporch.core.comments;
