/** Groups of a class: how students are split into them, in order or by chance, as evenly as it goes. */
package org.vastporch.core.groups;
