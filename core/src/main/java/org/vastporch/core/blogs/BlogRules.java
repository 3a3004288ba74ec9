package org.vastporch.core.blogs;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.calendar.Term;

/**
 * What a blog asks of the students who write in it. Staff are not bound by it.
 *
 * @param edit how long a student may change what is published
 * @param delete how long a student may delete it
 * @param deleteComments whether students may delete comments of their own
 * @param mostPictures in one post, 0 to {@value #MOST_PICTURES}
 * @param mostMegabytes of one upload, 1 to {@value #MOST_MEGABYTES}
 * @param fewestWords of a post; 0 for no such rule
 * @param mostWords of a post; 0 for no such rule
 * @param mostPosts handed in by one student in each {@code per}; 0 for no such rule
 * @param comments when posts can no longer be commented on
 */
public record BlogRules(
        Window edit,
        Window delete,
        boolean deleteComments,
        int mostPictures,
        int mostMegabytes,
        int fewestWords,
        int mostWords,
        int mostPosts,
        Period per,
        Closing comments) {

    public static final int MOST_PICTURES = 40;
    public static final int MOST_MEGABYTES = 40;

    /** The rules of a new blog: students change and delete as they like. */
    public static final BlogRules FREE = new BlogRules(
            Window.ALWAYS, Window.ALWAYS, true, MOST_PICTURES, MOST_MEGABYTES, 0, 0, 0, Period.WEEK, Closing.NEVER);

    /** The stretch of time for which posts are counted, by the calendar of the class. */
    public enum Period {
        DAY,
        WEEK,
        TERM
    }

    /**
     * A time that begins with publication.
     *
     * @param minutes how long it lasts; 0 for never, -1 for always
     */
    public record Window(int minutes) {
        public static final Window ALWAYS = new Window(-1);
        public static final Window NEVER = new Window(0);

        public Window {
            if (minutes < -1)
                throw new Refusal(
                        "minutes",
                        "window-range",
                        "A window lasts some minutes, or 0 for never, or -1 for always; not " + minutes);
        }

        /** Tells whether it is still open at {@code now}; its last moment is too late. */
        public boolean isOpen(Instant published, Instant now) {
            return minutes == -1 || now.isBefore(published.plus(Duration.ofMinutes(minutes)));
        }
    }

    /**
     * When comments close; the earlier of the two counts.
     *
     * @param afterDays so many days after a post went up; 0 for no such rule
     * @param at a moment such as 2026-12-18T16:00:00Z, for the whole blog; empty for no such rule
     */
    public record Closing(int afterDays, String at) {
        public static final Closing NEVER = new Closing(0, "");

        public Closing {
            inRange("afterDays", "days until comments close", afterDays, 0, 1000);
            if (!at.isEmpty()) at = Instant.parse(at).toString();
        }

        /** Tells whether a post that went up then is closed for comments; the very moment of closing is too late. */
        public boolean isOver(Instant published, Instant now) {
            boolean byDays = afterDays > 0 && !now.isBefore(published.plus(Duration.ofDays(afterDays)));
            return byDays || !at.isEmpty() && !now.isBefore(Instant.parse(at));
        }
    }

    public BlogRules {
        // Rules that were written down before there was such a thing.
        if (comments == null) comments = Closing.NEVER;
        inRange("mostPictures", "pictures in a post", mostPictures, 0, MOST_PICTURES);
        inRange("mostMegabytes", "megabytes of an upload", mostMegabytes, 1, MOST_MEGABYTES);
        inRange("fewestWords", "words", fewestWords, 0, 100_000);
        inRange("mostWords", "words", mostWords, 0, 100_000);
        inRange("mostPosts", "posts", mostPosts, 0, 1000);
        if (mostWords > 0 && mostWords < fewestWords)
            throw new Refusal(
                    "mostWords",
                    "words-order",
                    "A post cannot have at least " + fewestWords + " and at most " + mostWords + " words.");
    }

    /**
     * The first moment of the period that is now, by the calendar of the class.
     *
     * @param term the term of the class; what was handed in before it counts in no period
     */
    public Instant periodStart(Term term, Instant now) {
        LocalDate today = term.dayOf(now);
        return term.startOf(
                switch (per) {
                    case DAY -> today;
                    case WEEK -> today.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
                    case TERM -> term.first();
                });
    }

    BlogRules closingCommentsAt(@Nullable Instant at) {
        return new BlogRules(
                edit,
                delete,
                deleteComments,
                mostPictures,
                mostMegabytes,
                fewestWords,
                mostWords,
                mostPosts,
                per,
                new Closing(comments.afterDays(), at == null ? "" : at.toString()));
    }

    private static void inRange(String field, String what, int value, int least, int most) {
        if (value < least || value > most)
            throw new Refusal(
                    field,
                    "number-range",
                    "The number of " + what + " goes from " + least + " to " + most + ", not " + value + ".");
    }
}
