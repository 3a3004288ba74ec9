package org.vastporch.server.prompts;

import org.vastporch.core.access.Viewer;

/** Knows the pictures and files that stand in what a prompt says. */
public interface FilesInPrompt {

    /**
     * A text with own copies of what belongs to other classes, as far as the viewer knows that. The same text gives the
     * same copies each time.
     *
     * @param html clean
     */
    String own(Viewer viewer, long classId, String html);

    /**
     * The text of a post, to stand as an example in a class, with copies of the pictures and files in it that are the
     * viewer's to give.
     *
     * @param html clean
     */
    String ofPost(Viewer author, long classId, String html);

    /**
     * Removes the copies that were made for a text of a post, which no longer stands as an example; those that another
     * example shows are left.
     */
    void forget(long classId, String html);
}
