package org.vastporch.server.moderation;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.text.Folding;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Csv;
import org.vastporch.server.http.Cursor;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/**
 * Every decision about a text of a class: who, when, about which version, why. It can be read and taken away, and never
 * changed.
 */
@Service
public class DecisionLog {

    /**
     * One decision.
     *
     * @param title of the post, or of the post that a comment stands under
     * @param place the author's number in the class
     * @param undoneAt when it was taken back; left out if it holds
     */
    public record DecisionLine(
            long id,
            Instant at,
            String by,
            Step step,
            String subject,
            long postId,
            String title,
            String author,
            long place,
            int version,
            String note,
            @Optionally Instant undoneAt) {}

    /** @param next where the next page begins; left out on the last */
    public record DecisionPage(
            List<DecisionLine> lines, @Optionally String next) {}

    /**
     * What is looked for.
     *
     * @param words words of a title, a note, or the names of those who wrote or decided; empty for all
     * @param step approved, returned or hidden only; null for all
     */
    public record Wish(String words, @Nullable Step step) {}

    /** A decision as it is stored, with the post that it is about. */
    record Row(
            long id,
            Instant at,
            long by,
            Step step,
            String subject,
            long postId,
            String title,
            @Nullable Long author,
            int version,
            String note,
            @Nullable Instant undoneAt) {}

    private static final int PAGE = 60;
    private static final int SCANNED = 400;
    private static final DateTimeFormatter MINUTES = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm");

    private final DecisionStore store;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;

    DecisionLog(DecisionStore store, ClassService classes, PeopleService people, AccessService access) {
        this.store = store;
        this.classes = classes;
        this.people = people;
        this.access = access;
    }

    /** @param begins where the page begins; null for the first */
    public DecisionPage page(Viewer viewer, long classId, Wish wish, @Nullable String begins) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        Names names = people.names(viewer, classId);
        List<DecisionLine> lines = new ArrayList<>();
        Long after = Cursor.read(begins, parts -> Long.valueOf(parts.get(0))).orElse(null);
        while (true) {
            List<Row> rows = store.log(classId, wish.step(), after, SCANNED);
            for (Row row : rows) {
                DecisionLine line = line(row, names);
                after = row.id();
                if (fits(line, wish)) lines.add(line);
                if (lines.size() == PAGE) return new DecisionPage(lines, Cursor.of(after));
            }
            if (rows.size() < SCANNED) return new DecisionPage(lines, null);
        }
    }

    /** The same as a table for a spreadsheet, in the class's own time. */
    public String csv(Viewer viewer, long classId, Wish wish) {
        ZoneId zone = classes.get(classId).term().zone();
        List<List<?>> rows = new ArrayList<>();
        rows.add(
                List.of("When", "Who decided", "Decision", "Kind", "Title", "Author", "Version", "Note", "Taken back"));
        for (DecisionPage page = page(viewer, classId, wish, null); ; page = page(viewer, classId, wish, page.next())) {
            for (DecisionLine l : page.lines())
                rows.add(List.of(
                        MINUTES.format(l.at().atZone(zone)),
                        l.by(),
                        l.step(),
                        l.subject(),
                        l.title(),
                        l.author(),
                        l.version(),
                        l.note(),
                        l.undoneAt() == null ? "" : MINUTES.format(l.undoneAt().atZone(zone))));
            if (page.next() == null) return Csv.table(rows);
        }
    }

    private static boolean fits(DecisionLine line, Wish wish) {
        String all = Folding.fold(line.title() + " " + line.note() + " " + line.author() + " " + line.by());
        for (String word : Folding.fold(wish.words().strip()).split("\\s+")) if (!all.contains(word)) return false;
        return true;
    }

    private static DecisionLine line(Row row, Names names) {
        long author = row.author() == null ? 0 : row.author();
        return new DecisionLine(
                row.id(),
                row.at(),
                names.of(row.by()),
                row.step(),
                row.subject(),
                row.postId(),
                row.title(),
                row.author() == null ? "A visitor" : names.of(author),
                names.placeOf(author),
                row.version(),
                row.note(),
                row.undoneAt());
    }
}
