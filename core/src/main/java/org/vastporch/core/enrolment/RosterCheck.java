package org.vastporch.core.enrolment;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.enrolment.RosterReader.Row;
import org.vastporch.core.people.AccountCare;
import org.vastporch.core.people.EmailAddress;
import org.vastporch.core.text.Folding;

/**
 * Says of each row of a roster what importing it would do. The same e-mail address or school number means the same
 * person; the same name alone is a question, not an answer.
 */
public final class RosterCheck {

    /** What a row is. Only NEW, JOINS, CHANGES, MOVES and, if the teacher says so, QUESTION are imported. */
    public enum Outcome {
        /** A person whom the school does not know yet. */
        NEW,
        /** A person with an account who comes into this class. */
        JOINS,
        /** Already in this class, just so. */
        ALREADY,
        /** Already in this class; the list says something else of the person, which is taken over. */
        CHANGES,
        /**
         * Already in this class, in another group than the list says; the rest of the account is the school keeper's.
         */
        MOVES,
        /** Stands in this file before. */
        DOUBLE,
        /** Somebody of this name is here and nothing tells the two apart. */
        QUESTION,
        BAD
    }

    /**
     * A person the school knows. Empty texts for what it does not.
     *
     * @param group the group in this class
     * @param student whether the place in this class is that of a student
     * @param care whether whoever imports looks after the account, see {@link AccountCare#isWith}
     * @param works whether it is the account of somebody who works for the school
     */
    public record Known(
            long personId,
            String family,
            String given,
            String email,
            String schoolNo,
            String group,
            boolean inClass,
            boolean student,
            boolean care,
            boolean works) {
        String fullName() {
            return (given + " " + family).strip();
        }
    }

    /**
     * @param personId the person whom the row means; null for a new one
     * @param message what is wrong or asked, in words; empty if nothing is
     */
    public record Checked(
            Row row, Outcome outcome, @Nullable Long personId, String message) {}

    private RosterCheck() {}

    /** Checks all rows, in their order. */
    public static List<Checked> check(List<Row> rows, List<Known> known) {
        Map<String, Known> byMark = new HashMap<>();
        Map<String, Known> inClassByName = new HashMap<>();
        for (Known person : known) {
            for (String mark : marks(person.email(), person.schoolNo())) byMark.put(mark, person);
            if (person.inClass()) inClassByName.put(folded(person.fullName()), person);
        }
        Map<String, Integer> seenMarks = new HashMap<>();
        Map<String, Row> seenNames = new HashMap<>();
        List<Checked> checked = new ArrayList<>();
        for (Row row : rows) {
            Checked result = noted(checkRow(row, byMark, inClassByName, seenMarks, seenNames));
            checked.add(result);
            if (result.outcome() == Outcome.BAD) continue;
            for (String mark : marks(row.email(), row.schoolNo())) seenMarks.putIfAbsent(mark, row.line());
            seenNames.putIfAbsent(nameOf(row), row);
        }
        return checked;
    }

    private static Checked noted(Checked checked) {
        String note = checked.row().note();
        if (note.isEmpty()) return checked;
        return new Checked(
                checked.row(),
                checked.outcome(),
                checked.personId(),
                checked.message().isEmpty() ? note : checked.message().replaceAll("[. ]+$", "") + ". " + note);
    }

    private static Checked checkRow(
            Row row,
            Map<String, Known> byMark,
            Map<String, Known> inClassByName,
            Map<String, Integer> seenMarks,
            Map<String, Row> seenNames) {
        String fault = faultOf(row);
        if (!fault.isEmpty()) return new Checked(row, Outcome.BAD, null, fault);
        List<String> marks = marks(row.email(), row.schoolNo());
        for (String mark : marks)
            if (seenMarks.containsKey(mark))
                return new Checked(
                        row,
                        Outcome.DOUBLE,
                        null,
                        "The same " + (mark.startsWith("n:") ? "number" : "e-mail address") + " as line "
                                + seenMarks.get(mark));
        if (marks.stream()
                        .map(byMark::get)
                        .filter(Objects::nonNull)
                        .map(Known::personId)
                        .distinct()
                        .count()
                > 1)
            return new Checked(
                    row, Outcome.BAD, null, "The number and the e-mail address belong to two different people");
        for (String mark : marks) {
            Known person = byMark.get(mark);
            if (person != null && (person.works() || person.inClass() && !person.student()))
                return new Checked(
                        row,
                        Outcome.BAD,
                        null,
                        "This is the " + (mark.startsWith("n:") ? "number" : "e-mail address")
                                + " of somebody who is no student. Invite such people under Ways in");
            if (person != null)
                return person.inClass()
                        ? known(row, person)
                        : new Checked(
                                row,
                                Outcome.JOINS,
                                person.personId(),
                                "Has an account already and joins this class with it");
        }
        Known namesake = inClassByName.get(nameOf(row));
        Row twin = seenNames.get(nameOf(row));
        if (namesake != null
                && (marks.isEmpty()
                        || marks(namesake.email(), namesake.schoolNo()).isEmpty()))
            return new Checked(
                    row,
                    Outcome.QUESTION,
                    namesake.personId(),
                    "Somebody of this name is in the class. Another person?");
        if (twin != null
                && (marks.isEmpty() || marks(twin.email(), twin.schoolNo()).isEmpty()))
            return new Checked(
                    row, Outcome.QUESTION, null, "The same name as line " + twin.line() + ". Another person?");
        return new Checked(
                row,
                Outcome.NEW,
                null,
                twin != null ? "Another person of this name stands in line " + twin.line() : "");
    }

    /** A row about somebody who is here: what it says anew. What the row leaves empty is no change. */
    private static Checked known(Row row, Known person) {
        List<String> changes = new ArrayList<>();
        String name = (row.given() + " " + row.family()).strip();
        if (!composed(name).equals(composed(person.fullName())))
            changes.add("name: " + person.fullName() + " becomes " + name);
        change(changes, "e-mail", person.email(), row.email());
        change(changes, "number", person.schoolNo(), row.schoolNo());
        boolean moves = !row.group().isEmpty() && !row.group().equals(person.group());
        if (!changes.isEmpty() && !person.care()) {
            String kept = "Here already, and in other classes too: the school keeper changes name, number and address";
            return new Checked(
                    row,
                    moves ? Outcome.MOVES : Outcome.ALREADY,
                    person.personId(),
                    moves ? kept + "; the group becomes " + row.group() : kept);
        }
        change(changes, "group", person.group(), row.group());
        return changes.isEmpty()
                ? new Checked(row, Outcome.ALREADY, person.personId(), "Already in this class")
                : new Checked(row, Outcome.CHANGES, person.personId(), "Here already; " + String.join("; ", changes));
    }

    private static void change(List<String> changes, String what, String before, String after) {
        if (!after.isEmpty() && !after.equals(before))
            changes.add(what + ": " + (before.isEmpty() ? "none" : before) + " becomes " + after);
    }

    private static String faultOf(Row row) {
        if (row.family().isEmpty() && row.given().isEmpty()) return "There is no name in this line";
        for (String[] part : new String[][] {
            {"given name", row.given(), "100"},
            {"family name", row.family(), "100"},
            {"e-mail address", row.email(), "254"},
            {"number", row.schoolNo(), "60"},
            {"group", row.group(), "60"}
        })
            if (part[1].length() > Integer.parseInt(part[2]))
                return "The " + part[0] + " has " + part[1].length() + " characters, and at most " + part[2]
                        + " fit. Shorten it.";
        if ((row.family() + row.given()).chars().noneMatch(Character::isLetter))
            return "This is not a name: " + row.given() + " " + row.family();
        if (!row.email().isEmpty() && !EmailAddress.isValid(row.email()))
            return "\"" + row.email() + "\" is not an e-mail address. Mend it or leave it out.";
        return "";
    }

    private static List<String> marks(String email, String schoolNo) {
        List<String> marks = new ArrayList<>();
        if (!schoolNo.isEmpty()) marks.add("n:" + Folding.fold(schoolNo));
        if (!email.isEmpty()) marks.add("e:" + Folding.fold(email));
        return marks;
    }

    private static String nameOf(Row row) {
        return folded((row.given() + " " + row.family()).strip());
    }

    /** Names are the same however their letters are composed, and whatever invisible stands between them. */
    private static String folded(String name) {
        return Folding.fold(composed(name).replaceAll("\\p{Cf}", ""));
    }

    private static String composed(String name) {
        return Normalizer.normalize(name, Normalizer.Form.NFC);
    }
}
