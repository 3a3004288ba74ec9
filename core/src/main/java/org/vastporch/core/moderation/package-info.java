/**
 * What happens to a text between its author and its readers.
 *
 * <p>{@link ModerationTable} is the only place that changes a state, and {@link Course} the only one that says when
 * what happened; {@link Author} and {@link Policy} say whose eyes come first, {@link HoldRules} what is never let
 * through unseen, {@link NoticeRule} when those who approve are told. Laws, held on generated histories: at most one
 * version is live and one is worked on; nothing goes up that nobody let up; an undo brings back what was; what is found
 * in a text is found in it disguised.
 */
package org.vastporch.core.moderation;
