package org.vastporch.server.moderation;

import java.time.Clock;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Problem;

/** The notes that somebody returns texts with again and again: a bank of one's own. */
@Service
public class ReturnNotes {

    public record ReturnNote(long id, String text) {}

    private static final int MOST = 30;
    private static final int LONGEST = 1000;

    private final ReturnNoteStore store;
    private final Clock clock;

    ReturnNotes(ReturnNoteStore store, Clock clock) {
        this.store = store;
        this.clock = clock;
    }

    /** The notes that were used last, first. */
    public List<ReturnNote> of(Viewer viewer) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        return store.of(viewer.personId());
    }

    /** Keeps a note, or brings one that is there to the front. */
    @Transactional
    public List<ReturnNote> keep(Viewer viewer, String text) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        String note = text.strip();
        if (note.isEmpty()) throw Problem.invalid("text", "note-missing", "Write the note first.");
        if (note.length() > LONGEST)
            throw Problem.invalid("text", "note-too-long", "A note to keep has at most " + LONGEST + " characters.");
        List<ReturnNote> notes = store.of(viewer.personId());
        notes.stream()
                .filter(n -> n.text().equals(note))
                .findFirst()
                .ifPresentOrElse(n -> store.use(n.id(), clock.instant()), () -> {
                    if (notes.size() >= MOST)
                        store.remove(
                                viewer.personId(), notes.get(notes.size() - 1).id());
                    store.add(viewer.personId(), note, clock.instant());
                });
        return store.of(viewer.personId());
    }

    @Transactional
    public List<ReturnNote> forget(Viewer viewer, long id) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        store.remove(viewer.personId(), id);
        return store.of(viewer.personId());
    }
}
