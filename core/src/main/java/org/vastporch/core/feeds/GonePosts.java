package org.vastporch.core.feeds;

/** What a class does with outside posts whose pages are no longer there. */
public enum GonePosts {
    KEEP,
    HIDE,
    /** Staff say it of each. */
    ASK
}
