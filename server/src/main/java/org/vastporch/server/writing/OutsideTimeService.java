package org.vastporch.server.writing;

import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.feeds.OutsideTime;
import org.vastporch.core.marking.Deadline;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.prompts.PromptService;

/** When a post that was gathered from an outside blog counts as handed in, and staff who decide that. */
@Service
public class OutsideTimeService {

    /**
     * @param asked whether a person has to decide
     * @param daysLateSays how many days late it is for its prompt by the time that it says
     * @param daysLateSeen the same by the time when it was first seen
     * @param mayDecide whether the viewer may
     * @param rev the state of the post; a decision names it
     */
    public record OutsideTimeView(
            Instant says,
            Instant firstSeen,
            OutsideTime.Counts counts,
            boolean asked,
            int daysLateSays,
            int daysLateSeen,
            boolean mayDecide,
            int rev) {}

    private final PostStore store;
    private final PromptService prompts;
    private final ClassService classes;
    private final AccessService access;
    private final ScoresKept scores;
    private final EventStore events;

    OutsideTimeService(
            PostStore store,
            PromptService prompts,
            ClassService classes,
            AccessService access,
            ScoresKept scores,
            EventStore events) {
        this.store = store;
        this.prompts = prompts;
        this.classes = classes;
        this.access = access;
        this.scores = scores;
        this.events = events;
    }

    /** For its author and the staff. */
    public OutsideTimeView get(Viewer viewer, long postId) {
        PostFacts post = access.requireAllOf(viewer, postId);
        return view(viewer, post, store.find(postId).orElseThrow(Problem::missing));
    }

    /** @param rev the state of the post as whoever decides saw it */
    @Transactional
    public OutsideTimeView decide(Viewer viewer, long postId, OutsideTime.Counts counts, int rev) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        PostFacts post = access.requireLockedPost(viewer, Act.READ, postId);
        access.require(viewer, Act.MARK, post.blog().classId());
        PostRow row = store.find(postId).orElseThrow(Problem::missing);
        OutsideTime time = time(row);
        if (row.rev() != rev)
            throw Problem.stale("post-changed", "This post has changed meanwhile. Here it is as it stands now.");
        OutsideTime decided = new OutsideTime(time.says(), time.firstSeen(), counts);
        if (row.promptId() == null) store.setOutsideTime(postId, decided);
        else
            scores.noting(viewer, row.promptId(), "It was decided when your post counts as handed in.", () -> {
                store.setOutsideTime(postId, decided);
                return decided;
            });
        events.add(row.classId(), "outside-time-set", postId, viewer.personId());
        return view(viewer, post, store.find(postId).orElseThrow());
    }

    private OutsideTime time(PostRow row) {
        return store.outsideTime(row.id()).orElseThrow(Problem::missing);
    }

    private OutsideTimeView view(Viewer viewer, PostFacts post, PostRow row) {
        OutsideTime time = time(row);
        Prompt prompt = row.promptId() == null ? null : prompts.get(row.promptId());
        Term term = classes.get(row.classId()).term();
        Deadline deadline = prompt == null ? null : prompt.deadline(prompts.allowance(prompt.id(), row.authorId()));
        int says = deadline == null ? 0 : deadline.daysLate(term, List.of(time.says()));
        int seen = deadline == null ? 0 : deadline.daysLate(term, List.of(time.firstSeen()));
        return new OutsideTimeView(
                time.says(),
                time.firstSeen(),
                time.counts(),
                time.isAsked(says, seen),
                says,
                seen,
                viewer.isInPerson()
                        && access.allows(viewer, Act.MARK, post.blog().classId()),
                row.rev());
    }
}
