package org.vastporch.demo;

import java.time.Clock;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.writing.PostService;

/** Hands in what students of the demo wrote for prompts. */
@Component
class Hands {

    private final DemoClock clock;
    private final PostService posts;
    private final AccessService access;

    Hands(Clock clock, PostService posts, AccessService access) {
        this.clock = (DemoClock) clock;
        this.posts = posts;
        this.access = access;
    }

    /**
     * Somebody hands in an answer.
     *
     * @param word what goes with it to whoever marks it; null for nothing
     */
    long in(long student, long blog, long prompt, Instant at, DemoTexts.Text text, @Nullable String word) {
        clock.set(at);
        Viewer author = access.viewer(student);
        long id = posts.begin(author, blog, prompt);
        int rev = posts.save(
                        author,
                        id,
                        new PostService.Save(
                                posts.draft(author, id).beside().rev(),
                                text.title(),
                                text.html(),
                                text.tags(),
                                "MY_CLASS",
                                null,
                                null))
                .rev();
        posts.handIn(author, id, new PostService.HandingIn(rev, null, word));
        return id;
    }
}
