/**
 * Tables that come in: from what a spreadsheet or an office saved, or somebody pasted, to lines of cells. What the
 * cells mean is decided where they are wanted.
 */
@NullMarked
package org.vastporch.core.tables;

import org.jspecify.annotations.NullMarked;
