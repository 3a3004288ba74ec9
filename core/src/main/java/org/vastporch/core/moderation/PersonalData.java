package org.vastporch.core.moderation;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import org.vastporch.core.text.Searchable;

/**
 * Finds personal data of children in a plain text. Errs towards finding: a person looks at what is found. Every
 * repetition has a bound, so that a text made to be slow is read in time proportional to its length.
 */
final class PersonalData {

    /** Where a word begins and ends. Not {@code \\b}, which reads back over all marks before it, each time. */
    private static final String BEGIN = "(?<![\\p{L}\\p{N}_])";

    private static final String END = "(?![\\p{L}\\p{N}_])";
    private static final String DIGIT_WORD = "(?:zero|oh|one|two|three|four|five|six|seven|eight|nine)";

    /**
     * Seven digits or more that start like a number to ring, with spaces, dots, dashes, slashes or brackets between
     * them.
     */
    private static final Pattern PHONE =
            Pattern.compile("(?<![\\w.,/-])(?<!\\d )(?:\\+|00|\\(?0)\\d?(?:[ .()/-]{0,3}\\d){6,13}(?![\\w/-])");

    /** A number within the place has six digits or more. */
    private static final int FEWEST_DIGITS = 6;

    private static final Pattern LOCAL_PHONE = Pattern.compile(
            "(?i)(?:ring|call|text|phone|tel|number|mobile|whatsapp)\\D{1,24}?(\\d(?:[ .-]?\\d){5,11})(?!\\w)");
    private static final Pattern PHONE_IN_WORDS = Pattern.compile(
            "(?i)" + BEGIN + DIGIT_WORD + "(?:[ ,.-]{1,3}(?:double |triple )?" + DIGIT_WORD + "){5,30}" + END);

    private static final String DOT = "(?:\\.|\\s?\\(dot\\)\\s?|\\s?\\[dot\\]\\s?| dot )";
    private static final Pattern EMAIL =
            Pattern.compile("(?i)(?<![\\p{L}\\d._%+-])[\\p{L}\\d._%+-]++(?:@| @ |\\s?\\(at\\)\\s?|\\s?\\[at\\]\\s?| "
                    + "at )[\\p{L}\\d-]{1,63}(?:"
                    + DOT + "[\\p{L}\\d-]{1,63}){0,8}" + DOT + "\\p{L}{2,24}" + END);

    private static final String MESSENGER = "(?:insta(?:gram)?|snap(?:chat)?|discord|tiktok|telegram)";
    private static final String NAME_THERE = "([\\w.#@-]{3,30})";
    /** A name with a sign in it that no ordinary word has. */
    private static final String ODD_NAME = "((?=[\\w.#@-]{0,28}[\\d_.#]\\w)[\\w.#@-]{3,30})";

    private static final Pattern HANDLE = Pattern.compile("(?<![\\w@./])@[A-Za-z][\\w.]{2,}+");
    private static final List<Pattern> NAMED_HANDLES = List.of(
            Pattern.compile(
                    "(?i)" + BEGIN + "my (?:" + MESSENGER + "|user ?name)\\s{0,4}(?:is|:|=)\\s{0,4}" + NAME_THERE),
            Pattern.compile("(?i)" + BEGIN + "(?:" + MESSENGER + "|sc)\\s{0,4}(?:is|:|=)\\s{0,4}" + ODD_NAME),
            Pattern.compile("(?i)" + BEGIN + MESSENGER + " (?:i am|i'm|im)(?: called)? " + NAME_THERE),
            Pattern.compile("(?i)" + BEGIN + "(?:add|find|follow) (?:me )?" + ODD_NAME + " on " + MESSENGER));

    private static final String STREET_WORD =
            "(?:Street|St|Road|Rd|Lane|Ln|Avenue|Ave|Close|Drive|Way|Row|Terrace|Crescent|Court|Place|Square|Hill|Gardens|Quay)";
    private static final Pattern STREET = Pattern.compile(
            BEGIN + "\\d{1,4}[a-dA-D]?,? (?:(?:[A-Z][\\p{L}']{1,30}|St\\.?) ){1,3}" + STREET_WORD + END);
    /** Without capitals a street is one only where somebody says that they live there, or asks others to come. */
    private static final Pattern STREET_SAID =
            Pattern.compile("(?i)" + BEGIN + "(?:lives?|house|address|come|moved|flat)" + END
                    + "[^.!?\\n\\d]{1,24}(\\d{1,4}[a-d]? (?:in )?(?:[\\p{L}']{2,20} ){1,2}" + STREET_WORD + ")" + END);

    private static final Pattern LINK = Pattern.compile("(?i)" + BEGIN + "(?:https?://|www\\.)\\S+");
    private static final Set<String> NOT_HANDLES = Set.of("@home", "@school", "@work", "@the", "@all");

    private PersonalData() {}

    /** Signs without which no messenger, and no name on one, is spoken of. */
    private static final List<String> OF_MESSENGERS =
            List.of("insta", "snap", "discord", "tiktok", "telegram", "user", "sc");

    private static final List<String> OF_EMAIL = List.of("@", "(at)", "[at]", " at ");

    /** Most texts have no number and no address: to see that costs a tenth of looking for them in all their forms. */
    static void find(Finds finds) {
        BitSet taken = new BitSet();
        String in = finds.cased();
        String small = finds.text();
        long digits = small.chars().filter(c -> c >= '0' && c <= '9').count();
        if (OF_EMAIL.stream().anyMatch(small::contains)) finds.add(Hold.Rule.EMAIL, EMAIL, in, taken, m -> true);
        if (digits >= FEWEST_DIGITS) {
            finds.add(Hold.Rule.PHONE, PHONE, in, taken, PersonalData::isDialled);
            finds.add(Hold.Rule.PHONE, LOCAL_PHONE, in, taken, m -> true);
        }
        finds.add(Hold.Rule.PHONE, PHONE_IN_WORDS, in, taken, m -> true);
        if (small.indexOf('@') >= 0)
            finds.add(
                    Hold.Rule.HANDLE,
                    HANDLE,
                    in,
                    taken,
                    m -> !NOT_HANDLES.contains(m.group().toLowerCase()));
        if (OF_MESSENGERS.stream().anyMatch(small::contains))
            for (Pattern named : NAMED_HANDLES) finds.add(Hold.Rule.HANDLE, named, in, taken, m -> true);
        if (digits > 0) {
            finds.add(Hold.Rule.STREET, STREET, in, taken, m -> true);
            finds.add(Hold.Rule.STREET, STREET_SAID, in, taken, m -> true);
        }
    }

    static void findLinks(Finds finds) {
        finds.add(Hold.Rule.LINK, LINK, finds.cased(), new BitSet(), m -> true);
    }

    /** Full names, however accents, hyphens and apostrophes are written, and with the family name first. */
    static void findNames(Finds finds, List<String> names) {
        String in = finds.text().replace('-', ' ');
        BitSet taken = new BitSet();
        for (String name : names) {
            String wanted = Searchable.of(name.strip()).text().replace('-', ' ');
            int space = wanted.indexOf(' ');
            // Most names do not stand in a text, and to see that costs next to nothing.
            if (space < 0 || !Arrays.stream(wanted.split(" ")).allMatch(in::contains)) continue;
            String given = quoted(wanted.substring(0, space));
            String family = quoted(wanted.substring(space + 1));
            Pattern either = Pattern.compile(
                    "(?<![\\p{L}])(?:" + given + "\\s+" + family + "|" + family + ",\\s*" + given + ")(?![\\p{L}])");
            finds.add(Hold.Rule.FULL_NAME, either, in, taken, m -> true);
        }
    }

    private static String quoted(String words) {
        return Pattern.quote(words).replace(" ", "\\E\\s+\\Q");
    }

    /** A date such as 01.02.2026 or 01/02/2026 10:15 starts like a number to ring, and is none. */
    private static boolean isDialled(MatchResult match) {
        return !match.group().matches("0?\\d[./-]\\d{1,2}[./-]\\d{2,4}.*");
    }
}
