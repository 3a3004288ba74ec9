/**
 * All work on words: the one sanitiser, counting, the difference of two texts, a copy in which to search, what other
 * formats can say.
 *
 * <p>Everything here takes time that grows with the length of the text and not with its square. Laws: cleaning twice is
 * cleaning once; the stretches of a difference make both texts again; what is found in a copy has its place in the
 * text.
 */
package org.vastporch.core.text;
