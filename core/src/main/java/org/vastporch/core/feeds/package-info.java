/**
 * What comes in from outside: what a feed and a page say, when an entry is the same as one before, how often to look,
 * how well a source is, which prompt a post answers, which feed somebody meant by an address.
 *
 * <p>Decided from what stands in the feed and when it was looked at. Laws: whatever the bytes, a feed or none, the same
 * twice; the same entries in any order give the same posts; nobody is asked more often than they wish to be.
 */
package org.vastporch.core.feeds;
