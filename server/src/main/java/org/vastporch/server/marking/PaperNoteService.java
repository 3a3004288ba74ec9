package org.vastporch.server.marking;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.margin.Passage;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.PaperNoteStore.Note;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.Posts;
import org.vastporch.server.writing.Posts.HandedIn;

/**
 * What a marker writes beside words of a post. It is part of the feedback: the post's author reads it from when the
 * marks are released on, and not after they were taken back.
 */
@Service
public class PaperNoteService {

    /** @param mine whether the viewer wrote it, and may change it */
    public record PaperNote(long id, String quote, int nth, String text, String by, Instant at, boolean mine) {}

    /** @param version the version of the post that its writer has before them */
    public record NewPaperNote(long post, int version, String quote, int nth, String text) {}

    /** A post of one's own as it was marked, with what was written beside it. */
    public record NotedPost(long postId, String title, String html, List<PaperNote> notes) {}

    private static final int LONGEST = 4_000;
    private static final int MOST = 200;

    private final PaperNoteStore store;
    private final MarkingDesk desk;
    private final PaperService papers;
    private final Posts posts;
    private final PeopleService people;
    private final PromptService prompts;
    private final EventStore events;
    private final Clock clock;

    PaperNoteService(
            PaperNoteStore store,
            MarkingDesk desk,
            PaperService papers,
            Posts posts,
            PeopleService people,
            PromptService prompts,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.desk = desk;
        this.papers = papers;
        this.posts = posts;
        this.people = people;
        this.prompts = prompts;
        this.events = events;
        this.clock = clock;
    }

    /** Writes beside words of a post that belongs to a paper, in the version that is to be marked. */
    @Transactional
    public PaperNote add(Viewer viewer, long promptId, long studentId, NewPaperNote wanted) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        papers.requireStudent(prompt, studentId);
        String text = checked(wanted.text());
        Passage passage = new Passage(wanted.quote(), wanted.nth());
        MarkingDesk.Paper paper = desk.lock(prompt, studentId).paper();
        Posts.Handed handed = paper.posts().stream()
                .filter(p -> p.postId() == wanted.post())
                .findFirst()
                .orElseThrow(() -> Problem.stale("not-of-the-paper", "This post does not answer the prompt any more."));
        HandedIn post = posts.texts(List.of(handed)).get(0);
        if (post.version() != wanted.version())
            throw Problem.stale(
                    "handed-in-again", "This was handed in again since you opened it. Load the page to see it.");
        if (!passage.isIn(post.html()))
            throw Problem.stale(
                    "words-gone",
                    "These words do not stand in the text any more. Load the page again to see it as it is now.");
        if (store.of(List.of(promptId), List.of(wanted.post())).size() >= MOST)
            throw Problem.stale("too-many-notes", "There are " + MOST + " notes beside this post; no more fit.");
        Note note = new Note(
                0, promptId, wanted.post(), wanted.version(), passage, text, viewer.personId(), clock.instant());
        long id = store.add(note);
        events.add(prompt.classId(), "paper-noted", wanted.post(), viewer.personId());
        return view(viewer, store.find(id).orElseThrow(), people.names(viewer, prompt.classId()));
    }

    /**
     * Changes what one wrote oneself.
     *
     * @param was what stood there when it was opened; if it is another text by now, nothing is written over
     */
    @Transactional
    public PaperNote change(Viewer viewer, long id, String was, String text) {
        Note note = own(viewer, id);
        String to = checked(text);
        if (!note.text().equals(was))
            throw Problem.stale("changed-elsewhere", "This note was changed in another window. Nothing was lost there.")
                    .with("text", note.text());
        store.setText(id, to);
        long classId = papers.requireMarking(viewer, note.promptId()).classId();
        events.add(classId, "paper-note-changed", note.postId(), viewer.personId());
        return view(viewer, store.find(id).orElseThrow(), people.names(viewer, classId));
    }

    @Transactional
    public void remove(Viewer viewer, long id) {
        Note note = own(viewer, id);
        store.remove(id);
        events.add(
                papers.requireMarking(viewer, note.promptId()).classId(),
                "paper-note-removed",
                note.postId(),
                viewer.personId());
    }

    /** A post of the viewer's own as it was marked, once the marks are theirs to see. */
    public NotedPost noted(Viewer viewer, long promptId, long postId) {
        Prompt prompt = prompts.forMember(viewer, promptId);
        MarkingDesk.Paper paper = papers.onDesk(prompt, viewer.personId());
        boolean own = posts.titlesOfOthers(List.of(postId), viewer.personId()).isEmpty();
        HandedIn post = paper.read().stream()
                .filter(read -> own && paper.isShown() && read.post() == postId)
                .findFirst()
                .flatMap(read -> posts.text(read.post(), read.version()))
                .orElseThrow(Problem::missing);
        Names names = people.names(viewer, prompt.classId());
        return new NotedPost(
                postId,
                post.title(),
                post.html(),
                store.of(List.of(promptId), List.of(postId)).stream()
                        .map(note -> view(viewer, note, names))
                        .toList());
    }

    private Note own(Viewer viewer, long id) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        Note note = store.lock(id).orElseThrow(Problem::missing);
        if (note.authorId() != viewer.personId()) throw Problem.missing();
        papers.requireMarking(viewer, note.promptId());
        return note;
    }

    private static String checked(String text) {
        if (text.isBlank()) throw Problem.invalid("text", "note-empty", "Write something first.");
        if (text.length() > LONGEST)
            throw Problem.invalid("text", "note-too-long", "A note has at most 4,000 characters.");
        return text.strip();
    }

    static PaperNote view(Viewer viewer, Note note, Names names) {
        return new PaperNote(
                note.id(),
                note.passage().quote(),
                note.passage().nth(),
                note.text(),
                names.of(note.authorId()),
                note.at(),
                note.authorId() == viewer.personId());
    }
}
