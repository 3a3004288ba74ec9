/**
 * Writing: what is needed to hand something in, when a version begins, what a tag and a source are, which tools a class
 * has.
 *
 * <p>Decided from the text and the rules of its blog and prompt. Law: what a class switched off does not come back by a
 * paste.
 */
package org.vastporch.core.writing;
