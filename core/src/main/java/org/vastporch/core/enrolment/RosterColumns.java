package org.vastporch.core.enrolment;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.enrolment.RosterReader.Column;
import org.vastporch.core.tables.Table.Line;
import org.vastporch.core.text.Folding;

/** What the columns of a list are: by the words at their head, else by what stands in them. */
final class RosterColumns {

    /** @param at where in the table the head stands; -1 if there is none */
    record Head(int at, List<Column> columns) {}

    /** A head stands among so many lines. */
    private static final int LOOKED_AT = 15;

    private static final int SORTED_FROM = 5;
    private static final Pattern NAME = Pattern.compile("[\\p{L}\\p{M}'’.,\u200c\u200d -]{2,80}");
    private static final Pattern NUMBER = Pattern.compile("\\p{L}{0,4}[-/. ]?\\d[\\d./-]{1,14}\\p{L}?");
    private static final Map<String, Column> WORDS = words();
    /** Parts of words that tell what a column is, the more telling first. */
    private static final List<Map.Entry<String, Column>> PARTS = List.of(
            Map.entry("username", Column.LEFT),
            Map.entry("login", Column.LEFT),
            Map.entry("parent", Column.LEFT),
            Map.entry("contact", Column.LEFT),
            Map.entry("tutor", Column.LEFT),
            Map.entry("teacher", Column.LEFT),
            Map.entry("phone", Column.LEFT),
            Map.entry("birth", Column.LEFT),
            Map.entry("middle", Column.LEFT),
            Map.entry("yeargroup", Column.LEFT),
            Map.entry("reggroup", Column.LEFT),
            Map.entry("registration", Column.LEFT),
            Map.entry("mail", Column.EMAIL),
            Map.entry("surname", Column.FAMILY),
            Map.entry("lastname", Column.FAMILY),
            Map.entry("familyname", Column.FAMILY),
            Map.entry("nachname", Column.FAMILY),
            Map.entry("forename", Column.GIVEN),
            Map.entry("firstname", Column.GIVEN),
            Map.entry("givenname", Column.GIVEN),
            Map.entry("vorname", Column.GIVEN),
            Map.entry("prenom", Column.GIVEN),
            Map.entry("fullname", Column.FULL),
            Map.entry("pupilname", Column.FULL),
            Map.entry("studentname", Column.FULL),
            Map.entry("learnername", Column.FULL),
            Map.entry("displayname", Column.FULL),
            Map.entry("admission", Column.NUMBER),
            Map.entry("studentno", Column.NUMBER),
            Map.entry("studentid", Column.NUMBER),
            Map.entry("pupilno", Column.NUMBER),
            Map.entry("pupilid", Column.NUMBER),
            Map.entry("schoolno", Column.NUMBER),
            Map.entry("matrik", Column.NUMBER));

    private RosterColumns() {}

    static Head of(List<Line> lines) {
        int best = -1;
        int most = 0;
        for (int i = 0; i < Math.min(LOOKED_AT, lines.size()); i++) {
            int known = known(lines.get(i));
            if (known > most) {
                most = known;
                best = i;
            }
        }
        return best >= 0 ? new Head(best, byWords(lines, best)) : byContent(lines);
    }

    /**
     * How many columns a line names; 0 if it cannot be a head, for it names nobody's name or has an address or number
     * of somebody.
     */
    private static int known(Line line) {
        EnumSet<Column> found = EnumSet.noneOf(Column.class);
        for (String cell : line.cells()) {
            if (cell.contains("@") || cell.matches(".*\\d{3,}.*") || cell.length() > 60) return 0;
            Column column = column(cell);
            if (column != null && column != Column.LEFT) found.add(column);
        }
        // One line of words such as "Student" among names is a head; a lone "Group 4" above the list is its title.
        boolean names = found.contains(Column.FAMILY) || found.contains(Column.GIVEN) || found.contains(Column.FULL);
        return names || found.size() > 1 || found.contains(Column.EMAIL) ? found.size() : 0;
    }

    /** Whether lines with one comma each are names typed as "Family, Given". */
    static boolean areNames(List<String> lines) {
        return lines.stream().allMatch(l -> looksLikeName(l.strip()) && !isKnown(l.split(",", 2)[0]));
    }

    static boolean isKnown(String head) {
        return column(head) != null;
    }

    private static @Nullable Column column(String head) {
        String letters = Folding.fold(head).replaceAll("[^\\p{L}]", "");
        if (letters.isEmpty()) return null;
        Column exact = WORDS.get(letters);
        if (exact != null) return exact;
        if (letters.length() > 30) return null;
        return PARTS.stream()
                .filter(part -> letters.contains(part.getKey()))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse(null);
    }

    private static List<Column> byWords(List<Line> lines, int head) {
        List<Column> columns = new ArrayList<>();
        for (String cell : lines.get(head).cells()) {
            Column column = column(cell);
            columns.add(column == null || columns.contains(column) ? Column.LEFT : column);
        }
        List<Line> below = lines.subList(head + 1, lines.size());
        fillIn(columns, below);
        if (columns.contains(Column.FULL) && (columns.contains(Column.FAMILY) || columns.contains(Column.GIVEN))) {
            boolean both = columns.contains(Column.FAMILY) && columns.contains(Column.GIVEN);
            // "Name" beside "Vorname" is the family's.
            columns.replaceAll(c -> c != Column.FULL
                    ? c
                    : both ? Column.LEFT : columns.contains(Column.FAMILY) ? Column.GIVEN : Column.FAMILY);
        }
        if (columns.contains(Column.FAMILY) != columns.contains(Column.GIVEN)) {
            // One of the two is named in words that nobody here knows.
            for (int i = 0; i < columns.size(); i++)
                if (column(lines.get(head).cell(i)) == null
                        && columns.get(i) == Column.LEFT
                        && mostly(below, i, RosterColumns::looksLikeName)) {
                    columns.set(i, columns.contains(Column.FAMILY) ? Column.GIVEN : Column.FAMILY);
                    break;
                }
        }
        turnFull(columns, below);
        return columns;
    }

    /**
     * Lists without a head, or with one in words that nobody knows: each column is what most of its cells look like.
     */
    private static Head byContent(List<Line> lines) {
        int width = lines.stream().mapToInt(l -> l.cells().size()).max().orElse(0);
        List<Line> below = lines.size() > 1 ? lines.subList(1, lines.size()) : lines;
        List<Column> columns = new ArrayList<>();
        for (int i = 0; i < width; i++) columns.add(Column.LEFT);
        fillIn(columns, below);
        boolean head = lines.size() > 1 && isUnlike(lines.get(0), below, columns);
        List<Line> people = head ? below : lines;
        List<Integer> names = new ArrayList<>();
        for (int i = 0; i < width; i++)
            if (columns.get(i) == Column.LEFT && mostly(people, i, RosterColumns::looksLikeName)) names.add(i);
        if (names.size() >= 2
                && people.stream()
                                        .filter(l -> l.cell(names.get(0)).contains(" "))
                                        .count()
                                * 2
                        < people.size()) {
            boolean secondIsFamily = isSorted(people, names.get(1)) && !isSorted(people, names.get(0));
            columns.set(names.get(0), secondIsFamily ? Column.GIVEN : Column.FAMILY);
            columns.set(names.get(1), secondIsFamily ? Column.FAMILY : Column.GIVEN);
        } else if (!names.isEmpty()) {
            columns.set(names.get(0), Column.FULL);
        }
        turnFull(columns, people);
        return new Head(head ? 0 : -1, columns);
    }

    private static void fillIn(List<Column> columns, List<Line> below) {
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i) != Column.LEFT) continue;
            if (!columns.contains(Column.EMAIL) && mostly(below, i, cell -> cell.contains("@")))
                columns.set(i, Column.EMAIL);
        }
        if (columns.stream().allMatch(c -> c == Column.LEFT || c == Column.EMAIL))
            for (int i = 0; i < columns.size() && !columns.contains(Column.NUMBER); i++) {
                int at = i;
                boolean different = below.stream()
                                .map(l -> l.cell(at))
                                .filter(c -> !c.isEmpty())
                                .distinct()
                                .count()
                        == below.stream().filter(l -> !l.cell(at).isEmpty()).count();
                if (columns.get(i) == Column.LEFT
                        && different
                        && mostly(below, i, cell -> NUMBER.matcher(cell).matches() && cell.length() > 2))
                    columns.set(i, Column.NUMBER);
            }
    }

    /** A first line whose cells are no addresses and numbers where all others are. */
    private static boolean isUnlike(Line first, List<Line> below, List<Column> columns) {
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i) == Column.EMAIL
                    && !first.cell(i).isEmpty()
                    && !first.cell(i).contains("@")) return true;
            if (columns.get(i) == Column.NUMBER
                    && first.cell(i).chars().noneMatch(Character::isDigit)
                    && !first.cell(i).isEmpty()) return true;
        }
        return false;
    }

    /**
     * Whole names without a comma, in a list that is sorted by their first word and not by their last, have the family
     * name first.
     */
    private static void turnFull(List<Column> columns, List<Line> lines) {
        int full = columns.indexOf(Column.FULL);
        if (full < 0 || lines.stream().filter(l -> l.cell(full).contains(",")).count() * 2 > lines.size()) return;
        List<String> names = lines.stream()
                .map(l -> l.cell(full))
                .filter(n -> n.contains(" "))
                .toList();
        List<String> firsts =
                names.stream().map(n -> n.substring(0, n.indexOf(' '))).toList();
        List<String> lasts =
                names.stream().map(n -> n.substring(n.lastIndexOf(' ') + 1)).toList();
        if (isSorted(firsts) && !isSorted(lasts)) columns.set(full, Column.FULL_FAMILY_FIRST);
    }

    private static boolean isSorted(List<Line> lines, int column) {
        return isSorted(lines.stream()
                .map(l -> l.cell(column))
                .filter(c -> !c.isEmpty())
                .toList());
    }

    private static boolean isSorted(List<String> words) {
        if (words.size() < SORTED_FROM) return false;
        for (int i = 1; i < words.size(); i++)
            if (Folding.fold(words.get(i)).compareTo(Folding.fold(words.get(i - 1))) < 0) return false;
        return true;
    }

    private static boolean mostly(List<Line> lines, int column, Predicate<String> is) {
        List<String> cells = lines.stream()
                .map(l -> l.cell(column))
                .filter(c -> !c.isEmpty())
                .toList();
        return !cells.isEmpty() && cells.stream().filter(is).count() * 10 >= cells.size() * 8L;
    }

    static boolean looksLikeName(String cell) {
        return NAME.matcher(cell).matches() && cell.chars().anyMatch(Character::isLetter);
    }

    private static Map<String, Column> words() {
        Map<Column, String> synonyms = Map.of(
                Column.FAMILY,
                        "surname family familyname lastname last sname nachname familienname zuname "
                                + "nom nomdefamille achternaam apellido apellidos cognome sobrenome apelido "
                                + "nazwisko prijmeni efternavn etternavn efternamn sukunimi soyadi soyad cyfenw"
                                + " sloinne",
                Column.GIVEN,
                        "forename forenames first firstname firstnames given givenname givennames "
                                + "vorname rufname prenom prenoms voornaam roepnaam nombre nombres "
                                + "preferredname preferredforename knownas christianname imie jmeno fornavn "
                                + "fornamn etunimi adi ad enwcyntaf ceadainm calledname",
                Column.FULL,
                        "name names fullname student students studentname learner learners pupil "
                                + "pupils pupilname nameofstudent nameofpupil child childsname nomcomplet "
                                + "nomprenom nometprenom schuler schulerin name1 naam nome nombrecompleto "
                                + "nomecompleto namn navn imieinazwisko enw ainm nimi candidate candidatename",
                Column.EMAIL,
                        "email mail emailaddress adresseemail schoolemail correo correoelectronico "
                                + "courriel epost eposta mailadresse emailadresse workemail sahkoposti",
                Column.NUMBER,
                        "studentno studentnumber studentnr number no nr nummer num id studentid "
                                + "schoolno schoolnumber admissionno admissionnumber admno upn pupilnumber "
                                + "pupilno schulernummer leerlingnummer numero matricula matricola candidateno "
                                + "candidatenumber registrationno",
                Column.GROUP,
                        "group groups team set bed gruppe groupe groep grupo gruppo grupa grupp "
                                + "tablegroup workinggroup table",
                Column.LEFT,
                        "house form class tutor tutorgroup year yeargroup gender sex dob dateofbirth "
                                + "age username login password postcode address phone telephone mobile sen "
                                + "notes comment comments middlename title klasse");
        Map<String, Column> words = new HashMap<>();
        synonyms.forEach((column, all) -> {
            for (String word : all.split(" ")) words.put(word.toLowerCase(Locale.ROOT), column);
        });
        return Map.copyOf(words);
    }
}
