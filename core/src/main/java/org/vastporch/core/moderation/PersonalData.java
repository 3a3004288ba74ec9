package org.vastporch.core.moderation;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.vastporch.core.text.Folding;

/**
 * Finds personal data of children in a plain text. Errs towards finding: a person looks at what is found. Every repetition has a
 * bound, so that a text made to be slow is read in time proportional to its length.
 */
final class PersonalData {

    /** Where a word begins and ends. Not {@code \\b}, which reads back over all marks before it, each time. */
    private static final String BEGIN = "(?<![\\p{L}\\p{N}_])";
    private static final String END = "(?![\\p{L}\\p{N}_])";
    private static final String DIGIT_WORD = "(?:zero|oh|one|two|three|four|five|six|seven|eight|nine)";

    /** Seven digits or more that start like a number to ring, with spaces, dots, dashes or brackets between them. */
    private static final Pattern PHONE = Pattern.compile("(?<![\\w.,/-])(?:\\+|00|\\(?0)\\d?(?:[ .()/-]{0,2}\\d){6,13}(?![\\w/-])");
    private static final Pattern LOCAL_PHONE =
        Pattern.compile("(?i)(?:ring|call|text|phone|tel|number|mobile|whatsapp)\\D{1,24}?(\\d(?:[ .-]?\\d){5,11})(?!\\w)");
    private static final Pattern PHONE_IN_WORDS =
        Pattern.compile("(?i)" + BEGIN + DIGIT_WORD + "(?:[ ,.-]{1,3}(?:double |triple )?" + DIGIT_WORD + "){5,30}" + END);
    private static final Pattern EMAIL = Pattern.compile(
        "(?i)(?<![\\p{L}\\d._%+-])[\\p{L}\\d._%+-]++\\s?(?:@|\\(at\\)|\\[at\\]| at )\\s?[\\p{L}\\d-]{1,63}(?:(?:\\.|\\s?\\(dot\\)\\s?|\\s?\\[dot\\]\\s?| dot )[\\p{L}\\d-]{1,63}){1,8}");
    private static final Pattern HANDLE = Pattern.compile(
        "(?<![\\w@./])@[A-Za-z][\\w.]{2,}+|(?i)" + BEGIN + "(?:insta|snap|snapchat|discord|tiktok|telegram|my user ?name)\\s{0,4}(?:is|:|=)\\s{0,4}([\\w.#@-]{3,30})");
    private static final Pattern STREET = Pattern.compile(
        BEGIN + "\\d{1,4}[a-dA-D]?,? (?:(?:[A-Z][\\p{L}']{1,30}|St\\.?) ){1,3}(?:Street|St|Road|Rd|Lane|Ln|Avenue|Ave|Close|Drive|Way|Row|Terrace|Crescent|Court|Place|Square|Hill|Gardens|Quay)" + END);
    private static final Pattern LINK = Pattern.compile("(?i)" + BEGIN + "(?:https?://|www\\.)\\S+");
    private static final Set<String> NOT_HANDLES = Set.of("@home", "@school", "@work", "@the", "@all");

    private PersonalData() {}

    static List<Hold> find(String plain) {
        List<Hold> holds = new ArrayList<>();
        BitSet taken = new BitSet(plain.length());
        add(holds, taken, Hold.Rule.EMAIL, EMAIL, plain, m -> true);
        add(holds, taken, Hold.Rule.PHONE, PHONE, plain, PersonalData::isDialled);
        add(holds, taken, Hold.Rule.PHONE, LOCAL_PHONE, plain, m -> true);
        add(holds, taken, Hold.Rule.PHONE, PHONE_IN_WORDS, plain, m -> true);
        add(holds, taken, Hold.Rule.HANDLE, HANDLE, plain, m -> !NOT_HANDLES.contains(m.group().toLowerCase()));
        add(holds, taken, Hold.Rule.STREET, STREET, plain, m -> true);
        return holds;
    }

    static List<Hold> findLinks(String plain) {
        List<Hold> holds = new ArrayList<>();
        add(holds, new BitSet(), Hold.Rule.LINK, LINK, plain, m -> true);
        return holds;
    }

    static List<Hold> findNames(String plain, List<String> names) {
        String folded = Folding.fold(plain);
        List<Hold> holds = new ArrayList<>();
        BitSet taken = new BitSet();
        for (String name : names) {
            String wanted = Folding.fold(name.strip());
            if (!wanted.contains(" ")) continue;
            String spaced = Pattern.quote(wanted).replace(" ", "\\E\\s+\\Q");
            add(holds, taken, Hold.Rule.FULL_NAME, Pattern.compile("(?<![\\p{L}])" + spaced + "(?![\\p{L}])"), folded, m -> true);
        }
        // The folded text has the same places, so the words come from the original.
        return holds.stream().map(h -> new Hold(h.rule(), h.start(), h.end(), plain.substring(h.start(), h.end()))).toList();
    }

    /** A date such as 01.02.2026 or 01/02/2026 10:15 starts like a number to ring, and is none. */
    private static boolean isDialled(MatchResult match) {
        return !match.group().matches("0?\\d[./-]\\d{1,2}[./-]\\d{2,4}.*");
    }

    /** Adds what the pattern finds where nothing was found yet; the places {@code taken} grow with it. */
    private static void add(List<Hold> holds, BitSet taken, Hold.Rule rule, Pattern pattern, String text, Predicate<MatchResult> really) {
        Matcher matcher = pattern.matcher(text);
        while (matcher.find()) {
            int group = matcher.groupCount() > 0 && matcher.group(1) != null ? 1 : 0;
            int start = matcher.start(group);
            int end = matcher.end(group);
            int next = taken.nextSetBit(start);
            if (next >= 0 && next < end || !really.test(matcher)) continue;
            taken.set(start, end);
            holds.add(new Hold(rule, start, end, text.substring(start, end)));
        }
    }
}
