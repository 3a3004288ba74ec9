package org.vastporch.server.enrolment;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.enrolment.RosterCheck;
import org.vastporch.core.enrolment.RosterCheck.Checked;
import org.vastporch.core.enrolment.RosterCheck.Outcome;
import org.vastporch.core.enrolment.RosterReader;
import org.vastporch.core.enrolment.RosterReader.Column;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.people.Usernames;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.people.PeopleService;

/**
 * Enrols many students at once: first every row is shown, then the good ones are taken and the others stay to be
 * mended.
 */
@Service
public class RosterService {

    /**
     * A row as the screen shows it and sends it back. {@code asNew}: the teacher says that this namesake is another
     * person.
     */
    public record RowView(
            int line,
            String family,
            String given,
            String email,
            String schoolNo,
            String group,
            String outcome,
            String message,
            @Optionally String username,
            boolean asNew) {}

    /** One student who was enrolled, with the final username. */
    public record Enrolled(long id, String name, String username) {}

    /** @param changed how many people who were here already were changed as the list says */
    public record Imported(List<Enrolled> enrolled, int changed, List<RowView> left) {}

    /**
     * A list before anything of it is saved: what its columns were taken as, what was left or mended, and what each row
     * would do.
     */
    public record Preview(List<RosterReader.ColumnTaken> columns, List<String> notes, List<RowView> rows) {}

    /** Hears how far an import is; may stop it by throwing. */
    interface Progress {
        void done(int rows);
    }

    private final PeopleService people;
    private final ClassService classes;
    private final AccessService access;
    private final TransactionTemplate transaction;

    RosterService(PeopleService people, ClassService classes, AccessService access, TransactionTemplate transaction) {
        this.people = people;
        this.classes = classes;
        this.access = access;
        this.transaction = transaction;
    }

    /** @param columns what the columns are; empty to let that be found */
    public Preview preview(Viewer viewer, long classId, String text, List<Column> columns) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return preview(viewer, classId, RosterReader.read(text, columns));
    }

    public Preview preview(Viewer viewer, long classId, byte[] file, List<Column> columns) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return preview(viewer, classId, RosterReader.read(file, columns));
    }

    private Preview preview(Viewer viewer, long classId, RosterReader.Roster roster) {
        return new Preview(roster.columns(), roster.notes(), views(viewer, classId, roster.rows()));
    }

    /** Takes the rows that can be taken. Checked anew: what was previewed may have changed since. */
    public Imported importRows(Viewer viewer, long classId, List<RowView> rows) {
        return importRows(viewer, classId, rows, done -> {});
    }

    Imported importRows(Viewer viewer, long classId, List<RowView> rows, Progress progress) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        Set<Integer> asNew = new HashSet<>();
        for (RowView row : rows) if (row.asNew()) asNew.add(row.line());
        // Hashing is slow on purpose: it is done before the transaction, on all cores, and only for accounts that will
        // be new.
        List<Checked> expected = check(viewer, classId, rows);
        Map<Integer, Phrase> phrases = new ConcurrentHashMap<>();
        AtomicInteger done = new AtomicInteger();
        IntStream.range(0, rows.size()).parallel().forEach(i -> {
            if (isNew(expected.get(i), asNew)) {
                String phrase = people.newPhrase();
                phrases.put(i, new Phrase(phrase, people.hash(phrase)));
            }
            progress.done(done.incrementAndGet());
        });
        return transaction.execute(status -> take(viewer, classId, rows, asNew, phrases));
    }

    private record Phrase(String phrase, String hash) {}

    private List<Checked> check(Viewer viewer, long classId, List<RowView> rows) {
        return RosterCheck.check(rows.stream().map(RosterService::row).toList(), people.known(viewer, classId));
    }

    private static boolean isNew(Checked row, Set<Integer> asNew) {
        return row.outcome() == Outcome.NEW
                || row.outcome() == Outcome.QUESTION && asNew.contains(row.row().line());
    }

    private Imported take(
            Viewer viewer, long classId, List<RowView> rows, Set<Integer> asNew, Map<Integer, Phrase> phrases) {
        List<Checked> checked = check(viewer, classId, rows);
        PersonName.Shown shown = classes.get(classId).shown();
        List<Enrolled> enrolled = new ArrayList<>();
        List<RowView> left = new ArrayList<>();
        int changed = 0;
        for (int i = 0; i < checked.size(); i++) {
            Checked row = checked.get(i);
            // Somebody who was expected to have an account and has none any more waits for the next try, with a phrase
            // of their own.
            boolean isNew = isNew(row, asNew) && phrases.containsKey(i);
            if (row.outcome() == Outcome.CHANGES) {
                people.change(
                        classId,
                        row.personId(),
                        nameOf(row),
                        row.row().email(),
                        row.row().schoolNo(),
                        row.row().group());
                changed++;
            } else if (row.outcome() == Outcome.MOVES) {
                people.move(classId, row.personId(), row.row().group());
                changed++;
            } else if (isNew || row.outcome() == Outcome.JOINS) {
                long id = isNew
                        ? people.addStudent(
                                nameOf(row), row.row().email(), row.row().schoolNo())
                        : row.personId();
                if (isNew)
                    people.setPhrase(id, phrases.get(i).phrase(), phrases.get(i).hash());
                people.enrol(classId, id, Role.STUDENT, row.row().group(), shown, viewer.personId());
                enrolled.add(new Enrolled(id, nameOf(row).full(), people.usernameOf(id)));
            } else {
                left.add(view(row, null));
            }
        }
        people.arrived(classId, enrolled.stream().map(Enrolled::id).toList());
        return new Imported(enrolled, changed, left);
    }

    private List<RowView> views(Viewer viewer, long classId, List<RosterReader.Row> rows) {
        Set<String> promised = new HashSet<>();
        List<RowView> views = new ArrayList<>();
        for (Checked row : RosterCheck.check(rows, people.known(viewer, classId))) {
            String username = null;
            if (row.outcome() == Outcome.NEW || row.outcome() == Outcome.QUESTION) {
                username = Usernames.make(
                        nameOf(row),
                        name -> promised.contains(name)
                                || people.credentials(name).isPresent());
                promised.add(username);
            } else if (row.personId() != null) {
                username = people.usernameOf(row.personId());
            }
            views.add(view(row, username));
        }
        return views;
    }

    private static PersonName nameOf(Checked row) {
        return new PersonName(row.row().family(), row.row().given());
    }

    private static RosterReader.Row row(RowView view) {
        return new RosterReader.Row(
                view.line(),
                view.family().strip(),
                view.given().strip(),
                view.email().strip(),
                view.schoolNo().strip(),
                view.group().strip(),
                "");
    }

    private static RowView view(Checked checked, String username) {
        RosterReader.Row row = checked.row();
        return new RowView(
                row.line(),
                row.family(),
                row.given(),
                row.email(),
                row.schoolNo(),
                row.group(),
                checked.outcome().name(),
                checked.message(),
                username,
                false);
    }
}
