package org.vastporch.server.peers;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
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
import org.vastporch.core.writing.ExampleUse;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.OwnViewService;
import org.vastporch.server.marking.OwnViewService.Own;
import org.vastporch.server.peers.WarmUpStore.Reading;
import org.vastporch.server.peers.WarmUpStore.Row;
import org.vastporch.server.prompts.FilesInPrompt;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.ExamplePostService;
import org.vastporch.server.writing.ExamplePostService.AskedFor;
import org.vastporch.server.writing.Posts;

/** Papers to warm up on, for those who write them or ask for them, and mark them. */
@Service
public class WarmUpPaperService {

    /**
     * @param ready whether reviewers get it
     * @param tried how many have judged it, and seen the steps that were given
     * @param near where their steps lie, by criterion
     * @param asked of a student's post what its author says to that; left out for a paper that a teacher wrote
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
            List<WarmUp.Near> near,
            @Optionally AskedFor asked) {}

    /** @param most so many can be there */
    public record WarmUpPapers(long promptId, String title, List<WarmUpPaper> papers, int most) {}

    private final WarmUpStore store;
    private final ExamplePostService examples;
    private final Posts posts;
    private final PromptService prompts;
    private final FilesInPrompt files;
    private final AccessService access;
    private final ClassChanges changes;
    private final EventStore events;
    private final Clock clock;

    WarmUpPaperService(
            WarmUpStore store,
            ExamplePostService examples,
            Posts posts,
            PromptService prompts,
            FilesInPrompt files,
            AccessService access,
            ClassChanges changes,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.examples = examples;
        this.posts = posts;
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
        return view(viewer, asking(prompt));
    }

    /** Adds a paper, that is still to be marked. */
    @Transactional
    public WarmUpPapers add(Viewer viewer, long promptId, String title, String html) {
        managed(viewer, promptId);
        Prompt prompt = asking(prompts.lock(promptId));
        WarmUp.requireText(title, html);
        requireRoom(promptId, "title");
        store.add(promptId, title.strip(), clean(viewer, prompt, html), clock.instant());
        noted(viewer, prompt);
        return view(viewer, prompt);
    }

    /** Asks the author of a post whether reviewers may warm up on it; it is a paper once they agree. */
    @Transactional
    public WarmUpPapers ask(Viewer viewer, long promptId, long postId) {
        managed(viewer, promptId);
        Prompt prompt = asking(prompts.lock(promptId));
        AskedFor asked = examples.ask(viewer, promptId, postId, ExampleUse.WARM_UP);
        if (Objects.equals(posts.find(postId).orElseThrow().promptId(), promptId))
            throw Problem.invalid(
                    "postId",
                    "answers-this-prompt",
                    "This post answers this very prompt, so classmates may be given it to review.");
        Row before = store.ofPrompt(promptId).stream()
                .filter(p -> p.exampleId() != null && p.exampleId() == asked.id())
                .findFirst()
                .orElse(null);
        if (before == null) {
            requireRoom(promptId, "postId");
            store.addAsked(promptId, asked.id(), clock.instant());
        } else if (asked.given() == null) store.clear(before.id());
        noted(viewer, prompt);
        return view(viewer, prompt);
    }

    private void requireRoom(long promptId, String field) {
        if (store.ofPrompt(promptId).size() >= WarmUp.MOST)
            throw Problem.invalid(field, "too-many", "A prompt has at most " + WarmUp.MOST + " papers to warm up on.");
    }

    /** Changes the text of a paper that a teacher wrote; not once somebody has judged it. */
    @Transactional
    public WarmUpPaper change(Viewer viewer, long id, int rev, String title, String html) {
        return keep(viewer, id, rev, paper -> {
            if (paper.exampleId() != null)
                throw Problem.invalid("html", "text-of-its-author", "This text is its author's, and stays as it is.");
            WarmUp.requireText(title, html);
            String clean = clean(viewer, prompts.get(paper.promptId()), html);
            if (clean.equals(paper.html()) && title.strip().equals(paper.title())) return;
            if (!store.readings(List.of(id)).isEmpty())
                throw Problem.stale(
                        "judged-already", "Somebody has judged this text already. Add another paper in its place.");
            store.setText(id, title.strip(), clean);
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
                })
                .own();
    }

    /** Says something about the whole. */
    @Transactional
    public Own word(Viewer viewer, long id, int rev, String word) {
        String words = Marks.word(word);
        return keep(viewer, id, rev, paper -> {
                    if (!words.equals(paper.word())) store.setWord(id, words);
                })
                .own();
    }

    /** Takes a paper out, with what anybody did with it; of a post also the question to its author. */
    @Transactional
    public WarmUpPapers remove(Viewer viewer, long id) {
        Row paper = store.lock(id).orElseThrow(Problem::missing);
        Prompt prompt = asking(managed(viewer, paper.promptId()));
        if (paper.exampleId() != null) examples.remove(viewer, paper.exampleId());
        else store.remove(id);
        noted(viewer, prompt);
        return view(viewer, prompt);
    }

    private WarmUpPaper keep(Viewer viewer, long id, int rev, Consumer<Row> write) {
        Row before = store.lock(id).orElseThrow(Problem::missing);
        Prompt prompt = asking(managed(viewer, before.promptId()));
        if (before.rev() != rev)
            throw Problem.stale("warm-up-changed", "This paper was changed somewhere else since.")
                    .with("own", paper(before, prompt, asked(viewer, prompt)).own());
        if (!before.isThere())
            throw Problem.stale("no-text", "Its author has not given this text, so there is nothing to mark.");
        write.accept(before);
        noted(viewer, prompt);
        return paper(store.find(id).orElseThrow(), prompt, asked(viewer, prompt));
    }

    private String clean(Viewer viewer, Prompt prompt, String html) {
        String clean = files.own(viewer, prompt.classId(), Sanitiser.post(html));
        WarmUp.requireSaid(TextFacts.of(clean).plain());
        return clean;
    }

    private WarmUpPapers view(Viewer viewer, Prompt prompt) {
        Map<Long, AskedFor> asked = asked(viewer, prompt);
        return new WarmUpPapers(
                prompt.id(),
                prompt.title(),
                store.ofPrompt(prompt.id()).stream()
                        .filter(p -> p.isThere() || asked.containsKey(p.exampleId()))
                        .map(p -> paper(p, prompt, asked))
                        .toList(),
                WarmUp.MOST);
    }

    /** What the authors of posts said, for those who may ask them. */
    private Map<Long, AskedFor> asked(Viewer viewer, Prompt prompt) {
        if (!access.allows(viewer, Act.MANAGE_CLASS, prompt.classId())) return Map.of();
        return examples.askedFor(viewer, prompt.id(), ExampleUse.WARM_UP).stream()
                .collect(Collectors.toMap(AskedFor::id, a -> a));
    }

    private WarmUpPaper paper(Row paper, Prompt prompt, Map<Long, AskedFor> says) {
        Rubric asked = asked(prompt);
        Marks given = store.given(List.of(paper.id())).getOrDefault(paper.id(), Marks.NONE);
        List<Reading> done = store.readings(List.of(paper.id())).stream()
                .filter(Reading::isDone)
                .toList();
        Map<Long, Marks> steps = store.steps(done.stream().map(Reading::id).collect(Collectors.toSet()));
        AskedFor said = paper.exampleId() == null ? null : says.get(paper.exampleId());
        return new WarmUpPaper(
                paper.id(),
                paper.rev(),
                paper.isThere() || said == null ? paper.title() : said.title(),
                paper.isThere() ? Sanitiser.post(paper.html()) : "",
                asked,
                own(paper, asked, given),
                WarmUp.isReady(asked, given, paper.isThere()),
                done.size(),
                WarmUp.near(
                        asked,
                        given,
                        done.stream()
                                .map(r -> steps.getOrDefault(r.id(), Marks.NONE))
                                .toList()),
                said);
    }

    static Own own(Row paper, Rubric asked, Marks given) {
        return new Own(paper.rev(), OwnViewService.views(given), paper.word(), given.isWhole(asked));
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
