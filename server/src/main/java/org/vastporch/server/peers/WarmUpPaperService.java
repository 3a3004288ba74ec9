package org.vastporch.server.peers;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
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
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.OwnViewService;
import org.vastporch.server.marking.OwnViewService.Own;
import org.vastporch.server.peers.WarmUpStore.Reading;
import org.vastporch.server.peers.WarmUpStore.Row;
import org.vastporch.server.prompts.FilesInPrompt;
import org.vastporch.server.prompts.PromptService;

/** Papers to warm up on, for those who write and mark them. */
@Service
public class WarmUpPaperService {

    /**
     * @param ready whether reviewers get it
     * @param tried how many have judged it, and seen the steps that were given
     * @param near where their steps lie, by criterion
     */
    public record WarmUpPaper(
            long id,
            int rev,
            String title,
            String html,
            Rubric rubric,
            Own own,
            boolean ready,
            int tried,
            List<WarmUp.Near> near) {}

    /** @param most so many can be there */
    public record WarmUpPapers(long promptId, String title, List<WarmUpPaper> papers, int most) {}

    private final WarmUpStore store;
    private final PromptService prompts;
    private final FilesInPrompt files;
    private final AccessService access;
    private final ClassChanges changes;
    private final EventStore events;
    private final Clock clock;

    WarmUpPaperService(
            WarmUpStore store,
            PromptService prompts,
            FilesInPrompt files,
            AccessService access,
            ClassChanges changes,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.prompts = prompts;
        this.files = files;
        this.access = access;
        this.changes = changes;
        this.events = events;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    public WarmUpPapers ofPrompt(Viewer viewer, long promptId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        return view(asking(prompt));
    }

    /** Adds a paper, that is still to be marked. */
    @Transactional
    public WarmUpPapers add(Viewer viewer, long promptId, String title, String html) {
        managed(viewer, promptId);
        Prompt prompt = asking(prompts.lock(promptId));
        WarmUp.requireText(title, html);
        if (store.ofPrompt(promptId).size() >= WarmUp.MOST)
            throw Problem.invalid(
                    "title", "too-many", "A prompt has at most " + WarmUp.MOST + " papers to warm up on.");
        store.add(promptId, title.strip(), clean(viewer, prompt, html), clock.instant());
        noted(viewer, prompt);
        return view(prompt);
    }

    /** Changes the text; not once somebody has judged it. */
    @Transactional
    public WarmUpPaper change(Viewer viewer, long id, int rev, String title, String html) {
        return keep(viewer, id, rev, paper -> {
            WarmUp.requireText(title, html);
            Prompt prompt = prompts.get(paper.promptId());
            String clean = clean(viewer, prompt, html);
            boolean isAlike = clean.equals(paper.html()) && title.strip().equals(paper.title());
            if (!isAlike && !store.readings(List.of(id)).isEmpty())
                throw Problem.stale(
                        "judged-already", "Somebody has judged this text already. Add another paper in its place.");
            return new Row(id, paper.promptId(), title.strip(), clean, paper.word(), rev);
        });
    }

    /** Gives points and a word on one criterion. */
    @Transactional
    public Own mark(Viewer viewer, long id, int rev, String criterion, @Nullable BigDecimal points, String remark) {
        return keep(viewer, id, rev, paper -> {
                    Rubric asked = asked(prompts.get(paper.promptId()));
                    asked.find(criterion).orElseThrow(Problem::missing);
                    Marks.Mark mark = new Marks.Mark(criterion, points, false, remark);
                    store.given(List.of(id)).getOrDefault(id, Marks.NONE).with(asked, mark);
                    store.setGiven(id, mark);
                    return paper;
                })
                .own();
    }

    /** Says something about the whole. */
    @Transactional
    public Own word(Viewer viewer, long id, int rev, String word) {
        String words = Marks.word(word);
        return keep(viewer, id, rev, p -> new Row(id, p.promptId(), p.title(), p.html(), words, rev))
                .own();
    }

    /** Takes a paper out, with what anybody did with it. */
    @Transactional
    public WarmUpPapers remove(Viewer viewer, long id) {
        Row paper = store.lock(id).orElseThrow(Problem::missing);
        Prompt prompt = asking(managed(viewer, paper.promptId()));
        store.remove(id);
        noted(viewer, prompt);
        return view(prompt);
    }

    private WarmUpPaper keep(Viewer viewer, long id, int rev, UnaryOperator<Row> change) {
        Row before = store.lock(id).orElseThrow(Problem::missing);
        Prompt prompt = asking(managed(viewer, before.promptId()));
        if (before.rev() != rev)
            throw Problem.stale("warm-up-changed", "This paper was changed somewhere else since.")
                    .with("own", paper(before, prompt).own());
        Row after = change.apply(before);
        if (!after.equals(before)) store.set(id, after.title(), after.html(), after.word());
        noted(viewer, prompt);
        return paper(store.find(id).orElseThrow(), prompt);
    }

    private String clean(Viewer viewer, Prompt prompt, String html) {
        String clean = files.own(viewer, prompt.classId(), Sanitiser.post(html));
        WarmUp.requireSaid(TextFacts.of(clean).plain());
        return clean;
    }

    private WarmUpPapers view(Prompt prompt) {
        return new WarmUpPapers(
                prompt.id(),
                prompt.title(),
                store.ofPrompt(prompt.id()).stream().map(p -> paper(p, prompt)).toList(),
                WarmUp.MOST);
    }

    private WarmUpPaper paper(Row paper, Prompt prompt) {
        Rubric asked = asked(prompt);
        Marks given = store.given(List.of(paper.id())).getOrDefault(paper.id(), Marks.NONE);
        List<Reading> done = store.readings(List.of(paper.id())).stream()
                .filter(Reading::isDone)
                .toList();
        Map<Long, Marks> steps = store.steps(done.stream().map(Reading::id).collect(Collectors.toSet()));
        return new WarmUpPaper(
                paper.id(),
                paper.rev(),
                paper.title(),
                paper.html(),
                asked,
                own(paper, asked, given),
                WarmUp.isReady(asked, given),
                done.size(),
                WarmUp.near(
                        asked,
                        given,
                        done.stream()
                                .map(r -> steps.getOrDefault(r.id(), Marks.NONE))
                                .toList()));
    }

    static Own own(Row paper, Rubric asked, Marks given) {
        return new Own(paper.rev(), OwnViewService.views(given), paper.word(), WarmUp.isReady(asked, given));
    }

    static Rubric asked(Prompt prompt) {
        return prompt.reviews().peers().asked(prompt.rubric());
    }

    private Prompt managed(Viewer viewer, long promptId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        Problem.unlessAllowed(AccessEngine.own(viewer));
        return prompt;
    }

    private static Prompt asking(Prompt prompt) {
        if (prompt.reviews().peers() == null || prompt.rubric() == null) throw Problem.missing();
        return prompt;
    }

    private void noted(Viewer viewer, Prompt prompt) {
        changes.note(prompt.classId());
        events.add(prompt.classId(), "warm-up-changed", prompt.id(), viewer.personId());
    }
}
