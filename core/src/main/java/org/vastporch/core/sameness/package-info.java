/**
 * Which answers to a prompt share passages.
 *
 * <p>{@link Answer} is a text without its quotations, {@link Words} are its words as they are compared: case, accents
 * and punctuation do not count. {@link Sameness} finds the pairs, {@link Piece} cuts a text where passages begin and
 * end. It counts words and passages and says nothing of what they mean. Laws: the order of the texts changes nothing;
 * what is left out, quoted or common to many is in no passage; no two passages of a pair overlap.
 */
package org.vastporch.core.sameness;
