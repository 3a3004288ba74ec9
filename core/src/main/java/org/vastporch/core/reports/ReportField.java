package org.vastporch.core.reports;

import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What a template names by a chip: a word of the report that is another for each student. */
public enum ReportField {
    STUDENT,
    CLASS,
    WEEK,
    DAYS,
    ON_TIME,
    GIVEN,
    RECEIVED,
    NOTE,
    POST_TITLE(Each.POST),
    POST_DAY(Each.POST),
    PROMPT(Each.PAPER),
    STATE(Each.PAPER),
    SCORE(Each.PAPER),
    OUT_OF(Each.PAPER),
    WORD(Each.PAPER),
    CRITERION(Each.CRITERION),
    LEVEL(Each.CRITERION),
    STEP(Each.CRITERION),
    DESCRIPTOR(Each.CRITERION),
    REMARK(Each.CRITERION),
    NEXT_PROMPT(Each.NEXT),
    NEXT_DUE(Each.NEXT);

    /** A part that stands once for each of something. */
    public enum Each {
        POST,
        PAPER,
        /** Of a paper whose marks are shown. */
        CRITERION,
        /** What is due next. */
        NEXT;

        /** The part within which it stands; null for the report itself. */
        @Nullable
        Each within() {
            return this == CRITERION ? PAPER : null;
        }
    }

    /** A part that stands only if something is so. */
    public enum When {
        POSTS,
        NO_POSTS,
        PAPERS,
        NEXT,
        NOTE,
        LATE(Each.PAPER),
        SCORED(Each.PAPER),
        WORD(Each.PAPER),
        REMARK(Each.CRITERION);

        private final @Nullable Each within;

        When() {
            this(null);
        }

        When(@Nullable Each within) {
            this.within = within;
        }

        @Nullable
        Each within() {
            return within;
        }
    }

    private final @Nullable Each within;

    ReportField() {
        this(null);
    }

    ReportField(@Nullable Each within) {
        this.within = within;
    }

    /** The part within which it means something; null for anywhere. */
    @Nullable
    Each within() {
        return within;
    }

    /** The one of some names that a template means, such as post-title. */
    static <E extends Enum<E>> Optional<E> named(Class<E> of, String name) {
        for (E one : of.getEnumConstants()) if (key(one).equals(name)) return Optional.of(one);
        return Optional.empty();
    }

    /** As it stands in a template. */
    static String key(Enum<?> name) {
        return name.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
}
