package org.vastporch.core.reports;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;

/**
 * A template filled with the facts of one student and one week.
 *
 * @param html clean
 */
public record Report(String title, String html) {

    /** What becomes of it in a run. */
    public enum Outcome {
        /** Kept for student and staff, and on its way by mail. */
        MAILED,
        /** Kept for both; its student has no address. */
        FILED,
        /** It says what was told before, so nobody is told again. */
        SAME,
        /** Its student has left the class. */
        LEFT,
        /** It could not be made. */
        FAILED,
        /** The run was stopped before its turn. */
        STOPPED
    }

    /** The same for two reports that say the same, and for no others: SHA-256 of all it says, in hexadecimal digits. */
    public String fingerprint() {
        try {
            byte[] said = (title + '\0' + html).getBytes(StandardCharsets.UTF_8);
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(said));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("Every Java has it", e);
        }
    }

    /**
     * What becomes of it, if its student is still in the class.
     *
     * @param told the fingerprint of what its student was told of this week last; null for nothing yet
     */
    public Outcome outcome(@Nullable String told, boolean hasAddress) {
        if (fingerprint().equals(told)) return Outcome.SAME;
        return hasAddress ? Outcome.MAILED : Outcome.FILED;
    }
}
