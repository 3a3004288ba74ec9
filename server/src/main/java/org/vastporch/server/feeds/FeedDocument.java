package org.vastporch.server.feeds;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A feed as it goes out, in whatever format.
 *
 * @param id the same for ever, without a secret
 * @param page the address of the pages that it is about
 * @param self the address at which it was asked for
 * @param updated when anything in it changed last, what was taken back included
 * @param links to other documents of the same feed, by their relations (RFC 5005)
 * @param archive whether nothing is added to it any more
 */
record FeedDocument(
        String id,
        String title,
        String says,
        String page,
        String self,
        Instant updated,
        List<Link> links,
        boolean archive,
        List<Item> items) {

    /** @param relation such as "next" */
    record Link(String relation, String address) {}

    /**
     * @param html clean, with whole addresses
     * @param about the first lines in plain words; null to leave it to the reader
     */
    record Item(
            String id,
            String address,
            String title,
            String html,
            @Nullable String about,
            String author,
            List<String> tags,
            Instant published,
            Instant updated) {}
}
