package org.vastporch.server.feeds;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.feeds.FeedKeyStore.FeedKey;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.http.Tokens;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/**
 * Secret addresses at which a reader has the feeds of a class: whoever knows one reads as that reader. The files in
 * such a feed have addresses of their own, each signed for its reader and for that file, which end with the feed's.
 */
@Service
class FeedKeyService {

    /** Who reads at a secret address, and in which class. */
    record Reader(FeedKey key, Viewer viewer, long classId) {}

    /**
     * A secret address that is in use, for the staff of the class; without the secret.
     *
     * @param lastUse within an hour; left out while nobody has used it
     */
    record FeedReader(
            long personId,
            String name,
            Instant since,
            @Optionally Instant lastUse) {}

    private final FeedKeyStore store;
    private final PeopleService people;
    private final AccessService access;
    private final ClassChanges changes;
    private final Clock clock;
    /** That a reader's program asks every few minutes need not be written each time. */
    private final Cache<String, Boolean> lately = Caffeine.newBuilder()
            .maximumSize(10_000)
            .expireAfterWrite(Duration.ofHours(1))
            .build();

    FeedKeyService(FeedKeyStore store, PeopleService people, AccessService access, ClassChanges changes, Clock clock) {
        this.store = store;
        this.people = people;
        this.access = access;
        this.changes = changes;
        this.clock = clock;
    }

    /** @throws Problem if the address was never given or was taken back, or its reader is not in the class any more */
    Reader reader(String token) {
        return reader(store.find(token).orElseThrow(Problem::missing));
    }

    private Reader reader(FeedKey key) {
        Viewer reader = access.viewer(key.personId());
        access.require(reader, Act.READ_CLASS, key.classId());
        return new Reader(key, reader, key.classId());
    }

    void used(String token) {
        if (lately.asMap().putIfAbsent(token, true) == null) store.used(token, clock.instant());
    }

    /** The signature that lets a file be fetched for the reader of a key. */
    static String signature(FeedKey key, String file) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(key.token().getBytes(StandardCharsets.UTF_8), "HmacSHA256"));
            byte[] signed = mac.doFinal(file.getBytes(StandardCharsets.UTF_8));
            return Base64.getUrlEncoder().withoutPadding().encodeToString(signed);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("Every JDK has HmacSHA256", e);
        }
    }

    /** Who reads a file at its signed address. */
    Reader readerOfFile(long keyId, String signature, String file) {
        FeedKey key = store.find(keyId).orElseThrow(Problem::missing);
        byte[] right = signature(key, file).getBytes(StandardCharsets.UTF_8);
        if (!MessageDigest.isEqual(right, signature.getBytes(StandardCharsets.UTF_8))) throw Problem.missing();
        return reader(key);
    }

    /** The viewer's own token in a class, made at the first asking. */
    @Transactional
    public String of(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        return store.of(viewer.personId(), classId).map(FeedKey::token).orElseGet(() -> make(viewer, classId));
    }

    private String make(Viewer viewer, long classId) {
        String fresh = Tokens.make();
        store.add(fresh, viewer.personId(), classId, clock.instant());
        return fresh;
    }

    /** A new one in place of the one that there was, which works no more. */
    @Transactional
    public String renew(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        end(viewer.personId(), classId);
        return make(viewer, classId);
    }

    @Transactional
    public void revoke(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        end(viewer.personId(), classId);
    }

    /** Ends the address of somebody in the class: staff may, when one has got about. */
    @Transactional
    public void revoke(Viewer viewer, long classId, long personId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        end(personId, classId);
    }

    private void end(long personId, long classId) {
        store.revoke(personId, classId, clock.instant());
        changes.note(classId);
    }

    List<FeedReader> ofClass(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        Names names = people.names(viewer, classId);
        return store.ofClass(classId).stream()
                .filter(key -> names.placeOf(key.personId()) > 0)
                .map(key -> new FeedReader(key.personId(), names.of(key.personId()), key.createdAt(), key.lastUsedAt()))
                .toList();
    }
}
