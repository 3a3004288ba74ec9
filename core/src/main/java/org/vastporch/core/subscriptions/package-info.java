/** When somebody is told what is new: at once, daily or weekly, in the zone of the reader. */
package org.vastporch.core.subscriptions;
