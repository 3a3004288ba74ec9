package org.vastporch.server.feeds;

import java.time.Clock;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.http.Tokens;

/** Secret addresses at which a reader has the feeds of a class: whoever knows one reads as that reader. */
@Service
class FeedKeyService {

    /** Who reads at a secret address, and in which class. */
    record Reader(Viewer viewer, long classId) {}

    private final FeedKeyStore store;
    private final AccessService access;
    private final Clock clock;

    FeedKeyService(FeedKeyStore store, AccessService access, Clock clock) {
        this.store = store;
        this.access = access;
        this.clock = clock;
    }

    /** @throws Problem if the address was never given or was taken back, or its reader is not in the class any more */
    Reader reader(String token) {
        FeedKeyStore.FeedKey key = store.find(token).orElseThrow(Problem::missing);
        Viewer reader = access.viewer(key.personId());
        access.require(reader, Act.READ_CLASS, key.classId());
        return new Reader(reader, key.classId());
    }

    /** The viewer's own token in a class, made at the first asking. */
    @Transactional
    public String of(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        return store.of(viewer.personId(), classId).orElseGet(() -> {
            String fresh = Tokens.make();
            store.add(fresh, viewer.personId(), classId, clock.instant());
            return fresh;
        });
    }

    @Transactional
    public void revoke(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        store.revoke(viewer.personId(), classId, clock.instant());
    }
}
