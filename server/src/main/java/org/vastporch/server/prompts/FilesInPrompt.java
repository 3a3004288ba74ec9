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
}
