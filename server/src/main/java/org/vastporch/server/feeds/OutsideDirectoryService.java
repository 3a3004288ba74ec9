package org.vastporch.server.feeds;

import java.text.Collator;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.PastedAddress;
import org.vastporch.core.text.OneLine;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.feeds.PrivateBlogStore.PrivateBlog;
import org.vastporch.server.feeds.SourceStore.Source;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** Who blogs where outside: what is gathered, and blogs that are private and so cannot be. */
@Service
class OutsideDirectoryService {

    private static final int MOST = 200;
    private static final int LONGEST_TITLE = 300;
    private static final int LONGEST_ADDRESS = 1_900;

    /** How a blog comes in. */
    enum Gathering {
        GATHERED,
        RESTING,
        /** It could not be read the last time. */
        FALTERING,
        /** One has to sign in to read it, so nothing comes. */
        PRIVATE
    }

    /**
     * @param person whose it is; left out for news of the class
     * @param note the number of the note of a private blog
     */
    record OutsideLine(
            String title,
            String address,
            @Optionally String person,
            Gathering gathering,
            @Optionally Long note) {}

    /** @param personId whose it is; left out for nobody's */
    record PrivateWish(
            String address,
            String title,
            @Optionally @Nullable Long personId) {}

    private final SourceStore sources;
    private final PrivateBlogStore notes;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    OutsideDirectoryService(
            SourceStore sources,
            PrivateBlogStore notes,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.sources = sources;
        this.notes = notes;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** For everybody who reads in the class; what waits for a yes of staff is not among it. */
    List<OutsideLine> list(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        Names names = people.names(viewer, classId);
        List<OutsideLine> lines = new ArrayList<>();
        for (Source s : sources.ofClass(classId))
            if (!s.asked())
                lines.add(new OutsideLine(
                        s.title(),
                        s.siteAddress().isEmpty() ? s.checks().feedAddress() : s.siteAddress(),
                        s.personId() == null ? null : names.of(s.personId()),
                        gathering(s),
                        null));
        for (PrivateBlog note : notes.ofClass(classId))
            lines.add(new OutsideLine(
                    note.title(),
                    note.address(),
                    note.personId() == null ? null : names.of(note.personId()),
                    Gathering.PRIVATE,
                    note.id()));
        lines.sort(Comparator.comparing(OutsideLine::title, Collator.getInstance(Locale.ENGLISH)));
        return lines;
    }

    private static Gathering gathering(Source source) {
        if (source.paused()) return Gathering.RESTING;
        return source.checks().stopped() || source.checks().failures() > 0 ? Gathering.FALTERING : Gathering.GATHERED;
    }

    /** Notes a blog that one has to sign in to read. */
    @Transactional
    public long note(Viewer viewer, long classId, PrivateWish wish) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        String address = PastedAddress.normalise(wish.address());
        if (address.isEmpty() || address.length() > LONGEST_ADDRESS)
            throw Problem.invalid("address", "not-an-address", "This is not the address of a page.");
        String title = OneLine.of(wish.title());
        if (title.isEmpty() || title.length() > LONGEST_TITLE)
            throw Problem.invalid("title", "title-missing", "Give the blog a name, of at most 300 characters.");
        if (wish.personId() != null && !people.students(classId).contains(wish.personId()))
            throw Problem.invalid("personId", "not-a-student", "Choose a student of this class.");
        sources.lockClass(classId);
        List<PrivateBlog> there = notes.ofClass(classId);
        if (there.stream().anyMatch(n -> n.address().equals(address)))
            throw Problem.invalid("address", "source-known", "This blog is noted in this class already.");
        if (there.size() >= MOST)
            throw Problem.invalid("address", "too-many-notes", "A class can note " + MOST + " private blogs.");
        long id = notes.add(classId, wish.personId(), title, address, clock.instant());
        events.add(classId, "private-blog-noted", id, viewer.personId());
        return id;
    }

    @Transactional
    public void remove(Viewer viewer, long noteId) {
        PrivateBlog note = notes.find(noteId).orElseThrow(Problem::missing);
        access.require(viewer, Act.MANAGE_CLASS, note.classId());
        notes.remove(noteId);
        events.add(note.classId(), "private-blog-removed", noteId, viewer.personId());
    }
}
