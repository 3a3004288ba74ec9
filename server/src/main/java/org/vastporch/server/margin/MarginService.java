package org.vastporch.server.margin;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.margin.SuggestedChange;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.margin.MarginStore.Note;
import org.vastporch.server.margin.MarginStore.NoteState;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.writing.Content;
import org.vastporch.server.writing.DraftCheck.CheckedDraft;
import org.vastporch.server.writing.PostRow;
import org.vastporch.server.writing.PostService;
import org.vastporch.server.writing.Posts;
import org.vastporch.server.writing.Version;

/**
 * Notes in the margin: staff write beside a student's words or propose others; the student takes them over or not, and
 * all of it stays to be seen.
 */
@Service
public class MarginService {

    private static final int LONGEST = 4_000;

    /** @param replacement what is proposed instead of the quote; left out for a note alone */
    public record NewNote(
            String quote,
            int nth,
            String remark,
            @Optionally String replacement) {}

    /** @param state OPEN, DONE, ACCEPTED or DECLINED */
    public record NoteView(
            long id,
            String quote,
            int nth,
            String remark,
            @Optionally String replacement,
            String by,
            Instant at,
            String state) {}

    /**
     * @param asked whether the author asks for help
     * @param html the newest version, which the notes are about
     * @param mayNote whether the viewer may add a note
     * @param mayAnswer whether the text is the viewer's own, to take changes over or not
     */
    public record Margin(
            boolean asked,
            String title,
            String author,
            String html,
            int rev,
            List<NoteView> notes,
            boolean mayNote,
            boolean mayAnswer) {}

    /** A text whose author asks for help. */
    public record Asking(long postId, String title, String author, Instant at) {}

    private final MarginStore store;
    private final Posts posts;
    private final PostService writing;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    MarginService(
            MarginStore store,
            Posts posts,
            PostService writing,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.posts = posts;
        this.writing = writing;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    public Margin of(Viewer viewer, long postId) {
        PostRow row = readable(viewer, postId);
        Names names = people.names(viewer, row.classId());
        Version version = posts.version(postId, row.standing().newest()).orElseThrow();
        boolean own = Objects.equals(row.authorId(), viewer.personId());
        return new Margin(
                store.helpAsked(postId).isPresent(),
                version.title(),
                names.of(row.authorId()),
                Sanitiser.post(version.html()),
                row.rev(),
                store.ofPost(postId).stream()
                        .map(n -> new NoteView(
                                n.id(),
                                n.quote(),
                                n.nth(),
                                n.remark(),
                                n.replacement(),
                                names.of(n.authorId()),
                                n.at(),
                                n.state().name()))
                        .toList(),
                !own && access.mayWriteAside(viewer, row.classId()),
                own && viewer.isInPerson());
    }

    /** The texts of a class whose authors ask for help, for the staff. */
    public List<Asking> asking(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_STAFF_THREAD, classId);
        Names names = people.names(viewer, classId);
        return store.asking(classId).stream()
                .map(id -> {
                    PostRow row = posts.find(id).orElseThrow();
                    return new Asking(
                            id,
                            posts.version(id, row.standing().newest())
                                    .orElseThrow()
                                    .title(),
                            names.of(row.authorId()),
                            store.helpAsked(id).orElseThrow());
                })
                .toList();
    }

    /** Asks the staff to look at a text of one's own, or no longer. */
    @Transactional
    public void ask(Viewer viewer, long postId, boolean asked) {
        access.requireLockedPost(viewer, Act.EDIT, postId);
        PostRow row = own(viewer, postId);
        store.setHelpAsked(postId, asked ? clock.instant() : null);
        if (asked) events.add(row.classId(), "help-asked", postId, viewer.personId());
    }

    @Transactional
    public NoteView add(Viewer viewer, long postId, NewNote wanted) {
        access.requireLockedPost(viewer, Act.READ, postId);
        PostRow row = readable(viewer, postId);
        access.requireAside(viewer, row.classId());
        String replacement = wanted.replacement();
        if (wanted.remark().length() > LONGEST)
            throw Problem.invalid("remark", "note-too-long", "A note has at most " + LONGEST + " characters.");
        if (wanted.remark().isBlank() && replacement == null)
            throw Problem.invalid("remark", "note-empty", "Write a note, or other words for the ones you chose.");
        Version version = posts.version(postId, row.standing().newest()).orElseThrow();
        if (new SuggestedChange(wanted.quote(), wanted.nth(), replacement == null ? "" : replacement)
                .in(version.html())
                .isEmpty())
            throw Problem.stale(
                    "words-gone",
                    "These words do not stand in the text any more. Load the page again to see it as it is now.");
        Note note = new Note(
                0,
                postId,
                version.no(),
                wanted.quote(),
                wanted.nth(),
                wanted.remark().strip(),
                replacement,
                viewer.personId(),
                clock.instant(),
                NoteState.OPEN);
        long id = store.add(row.classId(), note);
        store.setHelpAsked(postId, null);
        events.add(row.classId(), "margin-note", postId, viewer.personId());
        return new NoteView(
                id,
                note.quote(),
                note.nth(),
                note.remark(),
                replacement,
                people.names(viewer, row.classId()).of(viewer.personId()),
                note.at(),
                note.state().name());
    }

    /**
     * Answers a note as the author of the text: a change is taken over or not, a note is done with. What is taken over
     * becomes a version of its own.
     *
     * @param rev the state of the text that the author had before them
     * @return what stands beside the draft then
     */
    @Transactional
    public CheckedDraft answer(Viewer viewer, long postId, long noteId, NoteState answer, int rev) {
        access.requireLockedPost(viewer, Act.EDIT, postId);
        PostRow row = own(viewer, postId);
        Note note = store.find(noteId).filter(n -> n.postId() == postId).orElseThrow(Problem::missing);
        writing.refuseOtherTab(row, rev);
        Content content =
                posts.version(postId, row.standing().newest()).orElseThrow().content();
        boolean accepts = answer == NoteState.ACCEPTED;
        if (answer == NoteState.OPEN || accepts && note.replacement() == null)
            throw Problem.invalid("answer", "answer-unknown", "A change is taken over or not; a note is done with.");
        if (accepts) {
            String html = note.change()
                    .in(content.html())
                    .map(Sanitiser::post)
                    .orElseThrow(() -> Problem.stale(
                            "words-gone",
                            "These words do not stand in your text any more, so the change cannot be made by itself."));
            content = new Content(
                    content.title(), html, content.tags(), content.audience(), content.categoryId(), content.works());
        }
        store.answer(noteId, answer, clock.instant());
        return accepts ? writing.keep(viewer, row, content, true) : writing.check(viewer, row);
    }

    private PostRow readable(Viewer viewer, long postId) {
        access.requireAllOf(viewer, postId);
        return posts.find(postId).orElseThrow(Problem::missing);
    }

    private PostRow own(Viewer viewer, long postId) {
        PostRow row = posts.find(postId).orElseThrow(Problem::missing);
        if (!Objects.equals(row.authorId(), viewer.personId())) throw Problem.missing();
        return row;
    }
}
