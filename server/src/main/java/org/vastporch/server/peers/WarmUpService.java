package org.vastporch.server.peers;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.peers.WarmUp;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.Apart;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.OwnViewService;
import org.vastporch.server.marking.OwnViewService.JudgedPost;
import org.vastporch.server.marking.OwnViewService.Own;
import org.vastporch.server.peers.WarmUpStore.Reading;
import org.vastporch.server.peers.WarmUpStore.Row;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;

/** Papers to warm up on, for those who review papers of classmates. */
@Service
public class WarmUpService {

    /**
     * How far the viewer is with the papers of a prompt.
     *
     * @param at the one to judge next; the first one when all are done
     */
    public record WarmUpFirst(long at, int done, int of) {}

    /** One of the papers that the viewer judges. */
    public record WarmUpOne(long id, boolean done) {}

    /**
     * @param own what the viewer thinks of it
     * @param teacher what the teacher gave and said; left out until the viewer is done
     * @param apart how the viewer's steps lie to those; empty until then
     * @param next the paper to judge next; left out when there is none
     * @param review the first paper of a classmate that the viewer has to read; left out when there is none
     */
    public record WarmUpPage(
            long id,
            long promptId,
            String title,
            Rubric rubric,
            List<JudgedPost> posts,
            Own own,
            boolean done,
            @Optionally Own teacher,
            List<Apart> apart,
            List<WarmUpOne> all,
            @Optionally Long next,
            @Optionally Long review) {}

    private final WarmUpStore store;
    private final PeerReviewStore reviews;
    private final PromptService prompts;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    WarmUpService(
            WarmUpStore store,
            PeerReviewStore reviews,
            PromptService prompts,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.reviews = reviews;
        this.prompts = prompts;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** How far somebody is with the papers of a prompt. */
    WarmUp.Progress progress(Prompt prompt, long readerId) {
        List<Row> papers = store.ofPrompt(prompt.id());
        List<Long> ids = papers.stream().map(Row::id).toList();
        Map<Long, Marks> given = store.given(ids);
        Rubric asked = WarmUpPaperService.asked(prompt);
        Set<Long> done = store.readings(ids).stream()
                .filter(r -> r.isDone() && r.readerId() == readerId)
                .map(Reading::paper)
                .collect(Collectors.toSet());
        return new WarmUp.Progress(
                papers.stream()
                        .filter(p -> WarmUp.isReady(asked, given.getOrDefault(p.id(), Marks.NONE), p.isThere()))
                        .filter(p -> WarmUp.isFor(readerId, p.authorId()))
                        .map(Row::id)
                        .toList(),
                done);
    }

    static @Nullable WarmUpFirst first(WarmUp.Progress progress) {
        if (progress.ready().isEmpty()) return null;
        return new WarmUpFirst(
                progress.next().orElse(progress.ready().get(0)),
                progress.finished(),
                progress.ready().size());
    }

    @Transactional(readOnly = true)
    public WarmUpPage page(Viewer viewer, long id) {
        return page(viewer, mine(viewer, store.find(id).orElseThrow(Problem::missing)));
    }

    /** Chooses a step on one criterion. */
    @Transactional
    public Own mark(Viewer viewer, long id, int rev, String criterion, @Nullable BigDecimal points) {
        Mine mine = open(viewer, id, rev);
        mine.asked().find(criterion).orElseThrow(Problem::missing);
        steps(mine).with(mine.asked(), new Marks.Mark(criterion, points, false, ""));
        store.setStep(mine.reading(), criterion, points);
        return own(new Mine(mine.paper(), mine.prompt(), mine.progress(), store.reading(id, viewer.personId())));
    }

    /** Is done with a paper, and sees what the teacher gave. */
    @Transactional
    public WarmUpPage done(Viewer viewer, long id, int rev) {
        Mine mine = open(viewer, id, rev);
        WarmUp.requireWhole(mine.asked(), steps(mine));
        store.setDone(mine.reading().id(), clock.instant());
        events.add(mine.prompt().classId(), "warm-up-done", id, viewer.personId());
        return page(viewer, id);
    }

    /** A paper that is the viewer's to judge, as they left it. */
    private record Mine(Row paper, Prompt prompt, WarmUp.Progress progress, Reading reading) {

        Rubric asked() {
            return WarmUpPaperService.asked(prompt);
        }
    }

    private Mine open(Viewer viewer, long id, int rev) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        Mine mine = mine(viewer, store.lock(id).orElseThrow(Problem::missing));
        switch (WarmUp.give(mine.reading().isDone(), mine.reading().rev() == rev)) {
            case ALLOWED -> {}
            case DONE ->
                throw Problem.stale(
                        "warm-up-done", "You have seen what your teacher gave. Your steps stay as they are.");
            case OUTDATED ->
                throw Problem.stale("warm-up-changed", "You have changed this somewhere else since.")
                        .with("own", own(mine));
        }
        return mine;
    }

    /** Only for students of the class to whom a paper of a classmate was given for the prompt. */
    private Mine mine(Viewer viewer, Row paper) {
        Prompt prompt = prompts.get(paper.promptId());
        access.require(viewer, Act.READ_CLASS, prompt.classId());
        if (prompt.reviews().peers() == null
                || prompt.rubric() == null
                || !people.students(prompt.classId()).contains(viewer.personId())
                || reviews.ofReader(viewer.personId(), prompt.classId()).stream()
                        .noneMatch(r -> r.promptId() == prompt.id())) throw Problem.missing();
        WarmUp.Progress progress = progress(prompt, viewer.personId());
        if (!progress.ready().contains(paper.id())) throw Problem.missing();
        return new Mine(paper, prompt, progress, store.reading(paper.id(), viewer.personId()));
    }

    private WarmUpPage page(Viewer viewer, Mine mine) {
        Row paper = mine.paper();
        boolean isDone = mine.reading().isDone();
        Marks given = store.given(List.of(paper.id())).getOrDefault(paper.id(), Marks.NONE);
        WarmUp.Progress progress = mine.progress();
        return new WarmUpPage(
                paper.id(),
                mine.prompt().id(),
                mine.prompt().title(),
                mine.asked(),
                List.of(new JudgedPost(null, paper.title(), Sanitiser.post(paper.html()))),
                own(mine),
                isDone,
                isDone ? WarmUpPaperService.own(paper, mine.asked(), given) : null,
                isDone ? Apart.of(mine.asked(), steps(mine), given) : List.of(),
                progress.ready().stream()
                        .map(id -> new WarmUpOne(id, progress.done().contains(id)))
                        .toList(),
                progress.next().isPresent() ? progress.next().getAsLong() : null,
                reviews.ofReader(viewer.personId(), mine.prompt().classId()).stream()
                        .filter(r -> r.promptId() == mine.prompt().id() && !r.isSent())
                        .map(PeerReviewStore.Row::id)
                        .findFirst()
                        .orElse(null));
    }

    private Marks steps(Mine mine) {
        long id = mine.reading().id();
        return id == 0 ? Marks.NONE : store.steps(List.of(id)).getOrDefault(id, Marks.NONE);
    }

    private Own own(Mine mine) {
        Marks steps = steps(mine);
        return new Own(mine.reading().rev(), OwnViewService.views(steps), "", steps.isWhole(mine.asked()));
    }
}
