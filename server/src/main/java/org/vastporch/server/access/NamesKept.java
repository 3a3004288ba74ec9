package org.vastporch.server.access;

import java.time.Instant;
import java.time.LocalDateTime;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.access.KeptNames;
import org.vastporch.core.calendar.Term;
import org.vastporch.server.http.Optionally;

/**
 * That names are kept from classmates.
 *
 * @param until when classmates read them again; left out if they never do
 */
public record NamesKept(@Optionally Instant until) {

    /** The same as staff set it, by the clock of the class. */
    public record WantedNames(@Optionally LocalDateTime until) {

        /** @param end null if names are not kept back */
        public static @Nullable WantedNames of(@Nullable Instant end, Term term) {
            if (end == null) return null;
            return new WantedNames(isForGood(end) ? null : term.timeOf(end));
        }

        /** @param wanted null if names are not kept back */
        public static @Nullable Instant in(@Nullable WantedNames wanted, Term term) {
            if (wanted == null) return null;
            return wanted.until() == null ? KeptNames.FOR_GOOD : term.momentOf(wanted.until());
        }
    }

    /** @param end null if names are not kept back */
    public static @Nullable NamesKept at(@Nullable Instant end, Instant now) {
        if (end == null || !now.isBefore(end)) return null;
        return new NamesKept(isForGood(end) ? null : end);
    }

    private static boolean isForGood(Instant end) {
        return !end.isBefore(KeptNames.FOR_GOOD);
    }
}
