package org.vastporch.server.feeds;

import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * The school's stable name, from which the ids in feeds are made: as it was configured, else made once and kept. It
 * stays when the school moves to another address, so that no reader's program sees everything a second time.
 */
@Component
class SchoolName {

    private final SchoolNameStore store;
    private final String configured;
    private volatile String kept = "";

    SchoolName(SchoolNameStore store, @Value("${vastporch.name:}") String configured) {
        this.store = store;
        this.configured = configured.strip();
    }

    /** The id of something of this school, such as ("post", 17), as a name that means nothing to anybody else. */
    String urn(String kind, Object... of) {
        StringBuilder text = new StringBuilder(name()).append('/').append(kind);
        for (Object part : of) text.append('/').append(part);
        return "urn:uuid:" + UUID.nameUUIDFromBytes(text.toString().getBytes(StandardCharsets.UTF_8));
    }

    private String name() {
        if (!configured.isEmpty()) return configured;
        if (kept.isEmpty())
            kept = store.find().orElseGet(() -> store.make(UUID.randomUUID().toString()));
        return kept;
    }
}
