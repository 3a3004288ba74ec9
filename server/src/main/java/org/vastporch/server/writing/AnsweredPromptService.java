package org.vastporch.server.writing;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Knowledge;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.PromptMatch;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;

/** Which prompt a post from outside answers, by what that is known, and its author or staff who say otherwise. */
@Service
public class AnsweredPromptService {

    /** @param id of a prompt that the post could answer */
    public record PromptChoice(long id, String title) {}

    /**
     * @param promptId the prompt that it answers; left out for none
     * @param by by what that is known; left out if a person brought the post in for it, or if it is not known
     */
    public record PromptAnswered(
            @Optionally Long promptId, @Optionally PromptMatch.@Nullable By by, List<PromptChoice> choices) {}

    /** A post from outside that answers a prompt, and by what that is known. */
    public record OutsideAnswer(
            long postId,
            String title,
            @Optionally String person,
            @Optionally PromptMatch.@Nullable By by) {}

    private final PostStore store;
    private final PromptService prompts;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    AnsweredPromptService(
            PostStore store,
            PromptService prompts,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.prompts = prompts;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    public PromptAnswered get(Viewer viewer, long postId) {
        requireSetting(viewer, access.requirePost(viewer, Act.READ, postId));
        return view(store.find(postId).orElseThrow(Problem::missing));
    }

    /** The posts from outside that answer a prompt, for the staff of its class. */
    public List<OutsideAnswer> ofPrompt(Viewer viewer, long promptId) {
        long classId = prompts.forMember(viewer, promptId).classId();
        access.require(viewer, Act.MARK, classId);
        Names names = people.names(viewer, classId);
        return store.fromOutside(promptId).stream()
                .map(p -> new OutsideAnswer(
                        p.postId(), p.title(), p.authorId() == null ? null : names.of(p.authorId()), p.by()))
                .toList();
    }

    /**
     * Says which prompt a post answers; no later look at its blog says otherwise.
     *
     * @param promptId null for none
     */
    @Transactional
    public PromptAnswered set(Viewer viewer, long postId, @Nullable Long promptId) {
        PostFacts post = access.requireLockedPost(viewer, Act.READ, postId);
        requireSetting(viewer, post);
        PostRow row = store.find(postId).orElseThrow(Problem::missing);
        requireOutside(row);
        if (promptId != null
                && choices(row.classId()).stream().noneMatch(c -> c.id() == promptId)
                && !Objects.equals(promptId, row.promptId()))
            throw Problem.invalid("promptId", "prompt-unknown", "This is not a prompt of this class that is open yet.");
        store.setPrompt(postId, promptId);
        events.add(row.classId(), "prompt-set", postId, viewer.personId());
        return view(store.find(postId).orElseThrow(Problem::missing));
    }

    /** Its author, and staff who mark. To anybody else there is nothing to set. */
    private void requireSetting(Viewer viewer, PostFacts post) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        boolean may = access.knows(viewer, post) == Knowledge.ALL
                && access.allows(viewer, Act.READ_CLASS, post.blog().classId());
        if (!may) throw Problem.missing();
    }

    private PromptAnswered view(PostRow row) {
        requireOutside(row);
        return new PromptAnswered(row.promptId(), store.matchedBy(row.id()).orElse(null), choices(row.classId()));
    }

    private static void requireOutside(PostRow row) {
        if (row.outsideLink() == null) throw Problem.missing();
    }

    /** The prompts of the class that have opened, the newest first. */
    private List<PromptChoice> choices(long classId) {
        Instant now = clock.instant();
        return prompts.all(classId).stream()
                .filter(p -> !p.opens().isAfter(now))
                .map(p -> new PromptChoice(p.id(), p.title()))
                .toList();
    }
}
