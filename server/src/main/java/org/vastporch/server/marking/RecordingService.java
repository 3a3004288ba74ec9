package org.vastporch.server.marking;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.media.DrawerService;
import org.vastporch.server.media.Upload;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/**
 * Feedback that a marker speaks or films. It is part of the feedback: its student has it from when the marks are shown.
 */
@Service
public class RecordingService {

    /**
     * @param kind SOUND or VIDEO
     * @param summary what is said in it, in a few words; may be empty
     */
    public record Recording(long id, String address, String kind, String summary, String by) {}

    private static final int MOST = 5;
    private static final int LONGEST_SUMMARY = 2_000;
    private static final int LONGEST_KEY = 40;

    private final RecordingStore store;
    private final DrawerService files;
    private final MarkingDesk desk;
    private final PaperService papers;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final TransactionTemplate transaction;
    private final Clock clock;

    RecordingService(
            RecordingStore store,
            DrawerService files,
            MarkingDesk desk,
            PaperService papers,
            PeopleService people,
            AccessService access,
            EventStore events,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.files = files;
        this.desk = desk;
        this.papers = papers;
        this.people = people;
        this.access = access;
        this.events = events;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** Keeps a recording for everybody who has this paper. */
    public List<Recording> add(
            Viewer viewer, long promptId, long studentId, Upload upload, String summary, @Nullable String key)
            throws IOException {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        papers.requireStudent(prompt, studentId);
        requireShort(summary);
        if (key != null && key.length() > LONGEST_KEY)
            throw Problem.invalid("key", "key-too-long", "A recording is known by at most 40 characters.");
        if (isKept(promptId, studentId, key)) return of(promptId, studentId, people.names(viewer, prompt.classId()));
        refuseMany(promptId, studentId);
        DrawerService.DrawerItem file = files.keep(
                viewer,
                prompt.classId(),
                upload,
                Set.of("SOUND", "VIDEO"),
                () -> papers.requireMarking(viewer, promptId));
        transaction.executeWithoutResult(status -> {
            MarkingDesk.Alike alike = desk.lock(prompt, studentId);
            if (alike.paper().isEmpty() || alike.paper().allowance().letOff())
                throw Problem.stale(
                        "nothing-handed-in", "Nothing is handed in here, so there is nothing to say to it.");
            // The same one may have come by another way meanwhile; its second copy goes with the next clearing.
            if (isKept(promptId, studentId, key)) return;
            refuseMany(promptId, studentId);
            for (long student : alike.students())
                store.add(promptId, student, file.id(), summary.strip(), viewer.personId(), key, clock.instant());
            events.add(prompt.classId(), "feedback-recorded", studentId, viewer.personId());
        });
        return of(promptId, studentId, people.names(viewer, prompt.classId()));
    }

    private boolean isKept(long promptId, long studentId, @Nullable String key) {
        return key != null && store.isKept(promptId, studentId, key);
    }

    private void refuseMany(long promptId, long studentId) {
        if (store.of(List.of(promptId), studentId).size() >= MOST)
            throw Problem.stale("too-many-recordings", "A paper has at most " + MOST + " recordings.");
    }

    private static void requireShort(String summary) {
        if (summary.length() > LONGEST_SUMMARY)
            throw Problem.invalid("summary", "summary-too-long", "A summary has at most 2,000 characters.");
    }

    /** Takes away what one has recorded oneself; a teacher of the class also an assistant's. */
    @Transactional
    public void remove(Viewer viewer, long id) {
        RecordingStore.Row row = lock(viewer, id);
        store.remove(row);
        note(viewer, row, "recording-removed");
    }

    /**
     * Says in other words what a recording says.
     *
     * @param was the summary as whoever changes it saw it
     */
    @Transactional
    public Recording change(Viewer viewer, long id, String was, String summary) {
        RecordingStore.Row row = lock(viewer, id);
        requireShort(summary);
        if (!row.summary().equals(was))
            throw Problem.stale("summary-changed", "Somebody has changed this summary since. Yours was not kept.");
        store.setSummary(row, summary.strip());
        note(viewer, row, "recording-changed");
        return view(
                store.lock(id).orElseThrow(),
                people.names(
                        viewer, papers.requireMarking(viewer, row.promptId()).classId()));
    }

    /** A recording of one's own, or of an assistant for a teacher, its row locked. */
    private RecordingStore.Row lock(Viewer viewer, long id) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        RecordingStore.Row row = store.lock(id).orElseThrow(Problem::missing);
        Prompt prompt = papers.requireMarking(viewer, row.promptId());
        if (row.byId() != viewer.personId()) access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        return row;
    }

    private void note(Viewer viewer, RecordingStore.Row row, String kind) {
        long classId = papers.requireMarking(viewer, row.promptId()).classId();
        events.add(classId, kind, row.studentId(), viewer.personId());
    }

    List<Recording> of(long promptId, long studentId, Names names) {
        return store.of(List.of(promptId), studentId).stream()
                .map(row -> view(row, names))
                .toList();
    }

    static Recording view(RecordingStore.Row row, Names names) {
        return new Recording(row.id(), "/media/files/" + row.fileId(), row.kind(), row.summary(), names.of(row.byId()));
    }
}
