/** How much room pictures and files may take in a class. Decided from what is there and what comes. */
package org.vastporch.core.media;
