package org.vastporch.core.writing;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.vastporch.core.Refusal;
import org.vastporch.core.text.Folding;

/**
 * A work that a post rests on: a source in its reference list.
 *
 * @param title of the work; the one thing that must be there
 * @param author family name first, several parted by semicolons; empty if nobody is named
 * @param date a year or a day, as it is written in the work; empty if it says none
 * @param publisher who brought it out; empty if unknown
 * @param address where it can be found, http or https; empty if nowhere on the web
 */
public record WorkUsed(String title, String author, String date, String publisher, String address) {

    public static final int MOST = 60;
    private static final int LONGEST = 500;
    private static final int LONGEST_ADDRESS = 2000;
    private static final Pattern YEAR = Pattern.compile("(?<!\\d)(\\d{4})(?!\\d)");

    /** One line of the list: lead, title (in italics), tail, then the address. Nothing in it is HTML. */
    public record Reference(String lead, String title, String tail, String address) {

        /** The whole line as plain text. */
        public String line() {
            return (lead + title + tail + " " + address).strip();
        }
    }

    /** Whether another list means the same work: by its address, or by its title where one of them has none. */
    public boolean isSame(WorkUsed other) {
        if (!address.isEmpty() && !other.address.isEmpty()) return bare(address).equals(bare(other.address));
        return Folding.fold(title).equals(Folding.fold(other.title));
    }

    private static String bare(String address) {
        return address.toLowerCase(Locale.ROOT)
                .replaceAll("^https?://(www\\.)?|[#?].*$|/+$", "")
                .replaceAll("/+$", "");
    }

    /** @throws Refusal with a sentence for the writer if the work cannot stand in a list */
    public WorkUsed {
        title = tidy(title);
        author = tidy(author);
        date = tidy(date);
        publisher = tidy(publisher);
        address = tidy(address);
        if (title.isEmpty()) throw new Refusal("works", "work-title-missing", "A source needs a title.");
        for (String part : List.of(title, author, date, publisher))
            if (part.length() > LONGEST)
                throw new Refusal(
                        "works",
                        "work-too-long",
                        "One part of a source has at most " + LONGEST + " characters; this one has " + part.length()
                                + ".");
        if (address.length() > LONGEST_ADDRESS)
            throw new Refusal(
                    "works", "work-address", "The address of a source has at most " + LONGEST_ADDRESS + " characters.");
        if (!address.isEmpty() && !address.matches("(?i)https?://\\S+"))
            throw new Refusal("works", "work-address", "The address of a source begins with http:// or https://.");
    }

    /**
     * The reference list in author-date style: in the order of authors, then years; works of one author and year are
     * told apart by a letter.
     */
    public static List<Reference> references(List<WorkUsed> works) {
        List<WorkUsed> sorted = new ArrayList<>(works);
        sorted.sort(Comparator.comparing((WorkUsed w) -> Folding.fold(w.first()))
                .thenComparing(WorkUsed::year)
                .thenComparing(w -> Folding.fold(w.title())));
        Map<String, Integer> sameYear = new HashMap<>();
        for (WorkUsed work : sorted) sameYear.merge(work.key(), 1, Integer::sum);
        Map<String, Integer> so = new HashMap<>();
        List<Reference> list = new ArrayList<>();
        for (WorkUsed work : sorted) {
            int nth = so.merge(work.key(), 1, Integer::sum);
            String letter = sameYear.get(work.key()) > 1 && nth <= 26 ? String.valueOf((char) ('a' + nth - 1)) : "";
            list.add(work.reference(letter));
        }
        return list;
    }

    private Reference reference(String letter) {
        String when = " (" + (date.isEmpty() ? "no date" : date) + letter + "). ";
        String end = publisher.isEmpty() ? "" : " " + withStop(publisher);
        if (author.isEmpty()) return new Reference("", title, when.stripTrailing() + end, address);
        return new Reference(authors() + when, withStop(title), end, address);
    }

    /**
     * "Castellane, W., Eze, C. and Kowhai, T." A name without a comma is taken as it stands: it may be that of an
     * office or a society.
     */
    private String authors() {
        List<String> names = List.of(author.split("\\s*;\\s*")).stream()
                .filter(n -> !n.isBlank())
                .map(WorkUsed::withInitials)
                .collect(Collectors.toList());
        if (names.size() == 1) return names.get(0);
        return String.join(", ", names.subList(0, names.size() - 1)) + " and " + names.get(names.size() - 1);
    }

    private static String withInitials(String name) {
        int comma = name.indexOf(',');
        if (comma < 0) return name;
        String given = List.of(name.substring(comma + 1).strip().split("[\\s-]+")).stream()
                .filter(g -> !g.isEmpty())
                .map(g -> g.substring(0, g.offsetByCodePoints(0, 1)).toUpperCase() + ".")
                .collect(Collectors.joining(" "));
        return name.substring(0, comma).strip() + (given.isEmpty() ? "" : ", " + given);
    }

    private String first() {
        return author.isEmpty() ? title : author;
    }

    private String year() {
        Matcher matcher = YEAR.matcher(date);
        return matcher.find() ? matcher.group(1) : "";
    }

    private String key() {
        return Folding.fold(first()) + "|" + Folding.fold(date);
    }

    private static String withStop(String text) {
        return text.matches(".*[.?!…]") ? text : text + ".";
    }

    private static String tidy(String text) {
        return text == null
                ? ""
                : text.replaceAll("[\\p{Cntrl}]", " ").replaceAll("\\s+", " ").strip();
    }
}
