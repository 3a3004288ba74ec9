package org.vastporch.server.writing;

import org.vastporch.core.prompts.Prompt;

/**
 * How many comments somebody gave to classmates for a prompt, as far as they count. Whoever keeps the comments knows.
 */
public interface CommentsGiven {

    int given(long personId, Prompt prompt);
}
