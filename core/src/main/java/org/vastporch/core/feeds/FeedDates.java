package org.vastporch.core.feeds;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Month;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.TextStyle;
import java.time.temporal.IsoFields;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.text.Folding;

/**
 * Dates as feeds write them: those of RFC 822 and RFC 3339, and the many ways in which people miss them. A time without
 * a zone is one of UTC; a zone of a name that nobody knows is UTC too.
 */
public final class FeedDates {

    private static final int LONGEST = 100;
    private static final Instant EARLIEST = Instant.parse("1970-01-02T00:00:00Z");
    private static final Instant LATEST = Instant.parse("9000-01-01T00:00:00Z");

    private static final String TIME =
            "(?<hour>\\d{1,2})[:.h]\\s?(?<minute>\\d{2})(?:[:.](?<second>\\d{1,2})(?:[.,:]\\d+)?)?";
    private static final String HALF = "(?:\\s?(?<half>[ap])\\.?m\\.?(?![a-z/]))?";
    private static final String ZONE = "(?:\\s*(?<zone>z|[+-].*|[a-z][a-z/_ +-]*[\\d:]*))?";
    private static final String CLOCK = "(?:[t ,]+(?:at |um |a )?" + TIME + HALF + ZONE + ")?";

    private static final Pattern STAMP = Pattern.compile("(\\d{9,10})|(\\d{13})");
    private static final Pattern WEEK =
            Pattern.compile("(?<year>\\d{4})-?w(?<week>\\d{2})(?:-?(?<day>[1-7]))?" + CLOCK);
    private static final Pattern DAY_OF_YEAR = Pattern.compile("(?<year>\\d{4})-?(?<day>\\d{3})" + CLOCK);
    private static final Pattern PACKED = Pattern.compile(
            "(?<year>\\d{4})-?(?<month>\\d{2})-?(?<day>\\d{2})(?:[t ]?(?<hour>\\d{2}):?(?<minute>\\d{2})"
                    + "(?<second>\\d{2})?(?:[.,]\\d+)?" + HALF + ZONE + ")?");
    /** Year first: 2026-11-05T09:30:00.5+01:00, 2026/11/5, 2026-11, 2026. */
    private static final Pattern YEAR_FIRST =
            Pattern.compile("(?<year>\\d{4})(?:[-/.](?<month>\\d{1,2})(?:[-/.](?<day>\\d{1,2}))?)?" + CLOCK);
    /** Day first, in words: 5 November 2026 09:30 GMT. */
    private static final Pattern DAY_FIRST = Pattern.compile(
            "(?<day>\\d{1,2})(?:st|nd|rd|th|\\.)?[ /-]*(?:de )?(?<month>[a-z]{3,})\\.?,?[ /-]*(?:de )?(?<year>\\d{2,4})"
                    + CLOCK);
    /** Month first: November 5, 2026 9:30 am. */
    private static final Pattern MONTH_FIRST = Pattern.compile(
            "(?<month>[a-z]{3,})\\.?[ -]+(?<day>\\d{1,2})(?:st|nd|rd|th)?,?[ -]+(?<year>\\d{4})" + CLOCK);
    /** As C prints it: Nov 5 09:30:00 GMT 2026. */
    private static final Pattern YEAR_LAST = Pattern.compile("(?<month>[a-z]{3,}) +(?<day>\\d{1,2}),? +" + TIME + HALF
            + "(?:\\s+(?<zone>[a-z]{1,5}|[+-]\\d{2}:?\\d{2}))?\\s+(?<year>\\d{4})");
    /** In numbers alone: 5.11.2026, or 11/05/2026, in which the month comes first unless it cannot be one. */
    private static final Pattern NUMBERS =
            Pattern.compile("(?<one>\\d{1,2})(?<sign>[./-])(?<two>\\d{1,2})[./-](?<year>\\d{4}|\\d{2})" + CLOCK);

    private static final Map<String, Integer> MONTHS = months();
    /** Hours from UTC of zones that mails and feeds name; names of regions are known besides. */
    private static final Map<String, Integer> ZONES = Map.ofEntries(
            Map.entry("est", -5),
            Map.entry("edt", -4),
            Map.entry("cst", -6),
            Map.entry("cdt", -5),
            Map.entry("mst", -7),
            Map.entry("mdt", -6),
            Map.entry("pst", -8),
            Map.entry("pdt", -7),
            Map.entry("akst", -9),
            Map.entry("hst", -10),
            Map.entry("bst", 1),
            Map.entry("wet", 0),
            Map.entry("west", 1),
            Map.entry("cet", 1),
            Map.entry("mez", 1),
            Map.entry("cest", 2),
            Map.entry("mesz", 2),
            Map.entry("eet", 2),
            Map.entry("eest", 3),
            Map.entry("msk", 3),
            Map.entry("jst", 9),
            Map.entry("kst", 9),
            Map.entry("aest", 10),
            Map.entry("aedt", 11),
            Map.entry("nzst", 12),
            Map.entry("nzdt", 13));

    private FeedDates() {}

    /** The moment that a text names; empty if it names none, or one that no post can be from. */
    public static Optional<Instant> of(@Nullable String text) {
        if (text == null || text.length() > LONGEST) return Optional.empty();
        String plain = Folding.fold(text)
                .replaceAll("\\([^)]*\\)", " ")
                .replaceAll("[\\s\u00a0]+", " ")
                .strip();
        try {
            return read(plain)
                    .or(() -> read(withoutWeekday(plain)))
                    .filter(at -> at.isAfter(EARLIEST) && at.isBefore(LATEST));
        } catch (DateTimeException | NumberFormatException e) {
            // The 31st of a short month, the 25th hour.
            return Optional.empty();
        }
    }

    /** A weekday says nothing that the date does not, and is wrong as often as not. */
    private static String withoutWeekday(String text) {
        return text.replaceFirst("^[^\\d\\s,.]+[.,]* ?,? *(?=[\\da-z])", "");
    }

    private static Optional<Instant> read(String text) {
        Matcher m = STAMP.matcher(text);
        if (m.matches())
            return Optional.of(
                    m.group(1) != null
                            ? Instant.ofEpochSecond(Long.parseLong(text))
                            : Instant.ofEpochMilli(Long.parseLong(text)));
        if ((m = WEEK.matcher(text)).matches())
            return at(
                    LocalDate.of(number(m, "year"), 1, 4)
                            .with(IsoFields.WEEK_OF_WEEK_BASED_YEAR, number(m, "week"))
                            .with(DayOfWeek.of(m.group("day") == null ? 1 : number(m, "day"))),
                    m);
        if ((m = PACKED.matcher(text)).matches()) return at(date(m), m);
        if ((m = DAY_OF_YEAR.matcher(text)).matches())
            return at(LocalDate.ofYearDay(number(m, "year"), number(m, "day")), m);
        if ((m = YEAR_FIRST.matcher(text)).matches()) return at(date(m), m);
        for (Pattern words : new Pattern[] {DAY_FIRST, MONTH_FIRST, YEAR_LAST})
            if ((m = words.matcher(text)).matches()) {
                Integer month = MONTHS.get(m.group("month"));
                if (month == null) continue;
                return at(LocalDate.of(year(m.group("year")), month, number(m, "day")), m);
            }
        if ((m = NUMBERS.matcher(text)).matches()) {
            int one = number(m, "one");
            int two = number(m, "two");
            boolean dayFirst = !m.group("sign").equals("/") || one > 12;
            return at(LocalDate.of(year(m.group("year")), dayFirst ? two : one, dayFirst ? one : two), m);
        }
        return Optional.empty();
    }

    private static LocalDate date(Matcher m) {
        return LocalDate.of(
                number(m, "year"),
                m.group("month") == null ? 1 : number(m, "month"),
                m.group("day") == null ? 1 : number(m, "day"));
    }

    private static Optional<Instant> at(LocalDate date, Matcher m) {
        ZoneId zone = zone(m.group("zone"));
        if (m.group("hour") == null) return Optional.of(date.atStartOfDay(zone).toInstant());
        int hour = number(m, "hour");
        String half = m.group("half");
        if (half != null && hour <= 12) hour = hour % 12 + (half.equals("p") ? 12 : 0);
        // A day may end at 24:00, and a minute with a leap second.
        boolean midnight = hour == 24 && number(m, "minute") == 0;
        int second = m.group("second") == null ? 0 : Math.min(59, number(m, "second"));
        LocalTime time = LocalTime.of(midnight ? 0 : hour, number(m, "minute"), second);
        return Optional.of(LocalDateTime.of(midnight ? date.plusDays(1) : date, time)
                .atZone(zone)
                .toInstant());
    }

    private static int number(Matcher m, String group) {
        return Integer.parseInt(m.group(group));
    }

    /** Two figures are a year near our own; three are what a clock that began in 1900 says. */
    private static int year(String figures) {
        int year = Integer.parseInt(figures);
        if (figures.length() == 3) return 1900 + year;
        if (figures.length() > 2) return year;
        return year < 70 ? 2000 + year : 1900 + year;
    }

    private static ZoneId zone(@Nullable String name) {
        if (name == null || name.isBlank()) return ZoneOffset.UTC;
        String plain = name.strip().replaceFirst("^(gmt|utc|ut)(?=[+-])", "");
        Matcher offset = Pattern.compile("([+-])\\s?(\\d{1,2}):?(\\d{2})?.*").matcher(plain);
        if (offset.matches()) {
            int minutes = Integer.parseInt(offset.group(2)) * 60
                    + (offset.group(3) == null ? 0 : Integer.parseInt(offset.group(3)));
            return minutes > 18 * 60
                    ? ZoneOffset.UTC
                    : ZoneOffset.ofTotalSeconds((offset.group(1).equals("-") ? -60 : 60) * minutes);
        }
        if (ZONES.containsKey(plain)) return ZoneOffset.ofHours(ZONES.get(plain));
        if (plain.contains("/"))
            for (String region : ZoneId.getAvailableZoneIds())
                if (region.equalsIgnoreCase(plain)) return ZoneId.of(region);
        return ZoneOffset.UTC;
    }

    /** The names of months and their short forms in the languages that schools here read. */
    private static Map<String, Integer> months() {
        Map<String, Integer> months = new HashMap<>();
        for (String language : new String[] {"en", "de", "fr", "es", "it", "pt", "nl", "sv", "da", "pl"})
            for (Month month : Month.values())
                for (TextStyle style : new TextStyle[] {
                    TextStyle.FULL, TextStyle.FULL_STANDALONE, TextStyle.SHORT, TextStyle.SHORT_STANDALONE
                }) {
                    String name = Folding.fold(month.getDisplayName(style, Locale.forLanguageTag(language)))
                            .replace(".", "");
                    if (name.length() >= 3) months.putIfAbsent(name, month.getValue());
                }
        months.put("sept", 9);
        months.put("mrz", 3);
        return months;
    }
}
