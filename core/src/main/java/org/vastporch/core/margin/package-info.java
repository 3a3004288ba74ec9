/**
 * The margin of a text: changes that staff suggest.
 *
 * <p>Decided from the text as it stands. Law: a change is taken over as it was suggested or not at all.
 */
package org.vastporch.core.margin;
