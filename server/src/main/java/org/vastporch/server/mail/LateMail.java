package org.vastporch.server.mail;

import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Mail that tells what people wrote. It is ordered when it is due, and its words are written at the moment at which it
 * goes: so it tells only what its reader may read then, however long it waited, and no word of it is kept.
 */
public interface LateMail {

    /**
     * What is to be told.
     *
     * @param personId who reads it
     * @param about what the writer needs to know besides
     * @param since it tells of what happened after this moment
     * @param until up to this one
     */
    record Order(long personId, String about, Instant since, Instant until) {}

    /**
     * @param stopAddress where its reader stops such mails; null if that is done elsewhere
     * @param enclosed a page that comes with it; null for none
     */
    record Words(
            String subject,
            String text,
            @Nullable String html,
            @Nullable String stopAddress,
            @Nullable Enclosed enclosed) {

        public Words(String subject, String text, @Nullable String html, @Nullable String stopAddress) {
            this(subject, text, html, stopAddress, null);
        }
    }

    /** @param name what it is called where it is saved, such as report.pdf */
    record Enclosed(String name, String type, byte[] content) {}

    /** The name of the kind, by which an order finds its writer again. */
    String kind();

    /** The words as they may be told now; empty if nothing is left to tell. */
    Optional<Words> write(Order order);
}
