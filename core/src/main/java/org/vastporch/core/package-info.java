/** The rules and the computation of Vast Porch: plain Java that knows no server, no database, no file and no clock. */
package org.vastporch.core;
