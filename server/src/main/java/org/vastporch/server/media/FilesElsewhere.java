package org.vastporch.server.media;

import org.vastporch.core.access.Viewer;

/** Knows files that stand in no post and in no prompt. */
public interface FilesElsewhere {

    /** Whether a file is shown to somebody who reads its class and is not of its staff. */
    boolean isShown(Viewer viewer, String fileId);
}
