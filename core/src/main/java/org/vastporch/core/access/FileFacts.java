package org.vastporch.core.access;

/**
 * What the access engine needs to know of a file that stands in no post.
 *
 * @param offered whether the class finds it in its drawer
 * @param inOpenPrompt whether it stands in what a prompt says that has opened
 * @param handed whether it was given to the viewer alone: as feedback that was released to them
 */
public record FileFacts(long classId, boolean offered, boolean inOpenPrompt, boolean handed) {}
