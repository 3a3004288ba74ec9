package org.vastporch.server.writing;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.writing.ExampleUse;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.FilesInPrompt;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.ExamplePostStore.Row;

/**
 * Posts that stand as examples with a prompt, or on which reviewers warm up. A teacher asks, and only the author gives
 * leave: for that use, with the name or without, for the text as it is at that moment, and takes it back at any time.
 */
@Service
public class ExamplePostService {

    /** @param author left out where the name is not told */
    public record ExamplePost(
            long id, String title, String html, @Optionally String author) {}

    /** A post about which its author was asked, for those who set the prompt. */
    public record AskedFor(
            long id,
            long postId,
            String title,
            String author,
            @Optionally Boolean given,
            boolean named,
            boolean isUp) {}

    /** @param asked for those who set the prompt; empty for all others */
    public record ExamplePosts(List<ExamplePost> shown, List<AskedFor> asked) {}

    /**
     * What somebody is asked about an own post.
     *
     * @param by who asks
     * @param given left out while there is no answer
     */
    public record ExampleAsked(
            long id,
            long postId,
            long postClass,
            String title,
            String prompt,
            String inClass,
            String by,
            Instant at,
            @Optionally Boolean given,
            boolean named,
            ExampleUse use) {}

    /** @param named whether the author's name may stand there */
    public record Leave(boolean given, boolean named) {}

    private static final int MOST = 12;

    private final ExamplePostStore store;
    private final Posts posts;
    private final PromptService prompts;
    private final FilesInPrompt files;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    ExamplePostService(
            ExamplePostStore store,
            Posts posts,
            PromptService prompts,
            FilesInPrompt files,
            ClassService classes,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.posts = posts;
        this.prompts = prompts;
        this.files = files;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    public ExamplePosts ofPrompt(Viewer viewer, long promptId) {
        Prompt prompt = prompts.forMember(viewer, promptId);
        List<Row> all = store.ofPrompt(promptId, ExampleUse.EXAMPLE);
        boolean sets = access.allows(viewer, Act.MANAGE_CLASS, prompt.classId());
        return new ExamplePosts(
                all.stream()
                        .filter(Row::isShown)
                        .map(e -> new ExamplePost(
                                e.id(),
                                e.title(),
                                Sanitiser.post(e.html()),
                                e.named()
                                        ? people.namesForReaders(e.postClass()).of(e.authorId())
                                        : null))
                        .toList(),
                sets ? all.stream().map(e -> askedFor(viewer, e)).toList() : List.of());
    }

    /** Of a class in which the viewer reads no real names, the author is told as readers are. */
    private AskedFor askedFor(Viewer viewer, Row e) {
        return new AskedFor(
                e.id(),
                e.postId(),
                e.postTitle(),
                people.names(viewer, e.postClass()).of(e.authorId()),
                e.given(),
                e.named(),
                e.isUp());
    }

    /** What became of the questions that were asked about posts for one use, for those who set the prompt. */
    public List<AskedFor> askedFor(Viewer viewer, long promptId, ExampleUse use) {
        access.require(viewer, Act.MANAGE_CLASS, prompts.get(promptId).classId());
        return store.ofPrompt(promptId, use).stream()
                .map(e -> askedFor(viewer, e))
                .toList();
    }

    /** Asks the author of a post, of this class or another of the asker's, whether it may be used with a prompt. */
    @Transactional
    public AskedFor ask(Viewer viewer, long promptId, long postId, ExampleUse use) {
        Prompt prompt = prompts.lock(promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        PostFacts post = access.requireLockedPost(viewer, Act.READ, postId);
        Problem.unlessAllowed(AccessEngine.askForExample(viewer, post, clock.instant()));
        Row before = store.find(promptId, postId).orElse(null);
        if (before == null && store.ofPrompt(promptId, use).size() >= MOST)
            throw Problem.invalid("postId", "too-many-examples", "A prompt has at most " + MOST + " example posts.");
        if (before != null && before.use() != use)
            throw Problem.invalid(
                    "postId",
                    "asked-otherwise",
                    use == ExampleUse.WARM_UP
                            ? "The class reads this post as an example of this prompt, so nobody can warm up on it."
                            : "Reviewers warm up on this post for this prompt, so it cannot be an example too.");
        store.ask(promptId, postId, post.authorId(), use, viewer.personId(), clock.instant());
        events.add(prompt.classId(), "example-asked", promptId, viewer.personId());
        return askedFor(viewer, store.find(promptId, postId).orElseThrow());
    }

    /** What the viewer was asked about own posts. */
    public List<ExampleAsked> asked(Viewer viewer) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        return store.askedOf(viewer.personId()).stream()
                .map(e -> new ExampleAsked(
                        e.id(),
                        e.postId(),
                        e.postClass(),
                        e.postTitle(),
                        e.promptTitle(),
                        classes.get(e.classId()).name(),
                        e.askedBy() == null ? "A teacher" : people.ownName(e.askedBy()),
                        e.askedAt(),
                        e.given(),
                        e.named(),
                        e.use()))
                .toList();
    }

    /** Gives leave for the text as it is now, refuses, or takes leave back; then nothing is kept of the text. */
    @Transactional
    public void answer(Viewer viewer, long id, Leave leave) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        store.lock(id);
        Row of = store.find(id).filter(e -> e.authorId() == viewer.personId()).orElseThrow(Problem::missing);
        if (!of.use().takes(of.given(), leave.given()))
            throw Problem.stale("answered-already", "You have answered this. Your teacher can ask you again.");
        String title = "";
        String html = "";
        if (leave.given()) {
            PostRow post = posts.find(of.postId()).orElseThrow(Problem::missing);
            if (!of.isUp() || post.standing().live() == null)
                throw Problem.stale("not-published", "This post is not published now, so it cannot be used.");
            Version version = posts.version(of.postId(), post.standing().live()).orElseThrow();
            title = version.title();
            html = files.ofPost(viewer, of.classId(), version.html());
        }
        boolean isNamed = leave.given() && leave.named() && of.use().mayName();
        store.answer(id, leave.given(), isNamed, title, html, clock.instant());
        files.forget(of.classId(), of.html());
        events.add(of.classId(), leave.given() ? "example-given" : "example-refused", of.promptId(), viewer.personId());
    }

    /** Takes an example out, or the question whether it may be one. */
    @Transactional
    public void remove(Viewer viewer, long id) {
        store.lock(id);
        Row of = store.find(id).orElseThrow(Problem::missing);
        access.require(viewer, Act.MANAGE_CLASS, of.classId());
        store.remove(id);
        files.forget(of.classId(), of.html());
        events.add(of.classId(), "example-removed", of.promptId(), viewer.personId());
    }
}
