package org.vastporch.server.writing;

import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;

/**
 * Whoever keeps pictures and files sees to it that those in a text belong to its post: they are served to its readers,
 * and live as long as it does.
 */
public interface FilesInText {

    /**
     * A text with own copies of the pictures and files in it that belong to other posts, as far as whoever writes knows
     * all of those, and there is room. The same text gives the same copies each time.
     *
     * @param html clean
     */
    String own(Viewer viewer, PostFacts post, String html);
}
