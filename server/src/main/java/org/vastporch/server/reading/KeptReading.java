package org.vastporch.server.reading;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Supplier;
import java.util.function.ToIntFunction;
import org.vastporch.server.log.ClassChanges;

/** What was read of classes, each kept until something happens in its class or the clock opens or closes something. */
final class KeptReading<T> {

    private record Key(long classId, Object of) {}

    private record Kept<T>(T value, int bytes, long changes, Instant until) {}

    private static final Duration LONGEST = Duration.ofMinutes(5);
    private static final int MOST_BYTES = 64 * 1024 * 1024;

    private final ClassChanges changes;
    private final BiFunction<Long, Instant, Optional<Instant>> nextTurn;
    private final ToIntFunction<T> bytes;
    private final Cache<Key, Kept<T>> kept = Caffeine.newBuilder()
            .maximumWeight(MOST_BYTES)
            .weigher((Key key, Kept<T> value) -> value.bytes())
            .build();

    /**
     * @param nextTurn when the clock next opens or closes something in a class
     * @param bytes how much memory a value takes, about
     */
    KeptReading(ClassChanges changes, BiFunction<Long, Instant, Optional<Instant>> nextTurn, ToIntFunction<T> bytes) {
        this.changes = changes;
        this.nextTurn = nextTurn;
        this.bytes = bytes;
    }

    /**
     * What was read before if it is what would be read now, or what is read now.
     *
     * @param of who reads what, with the scope: equal only to what reads the same by the same right
     */
    T get(long classId, Object of, Instant now, Supplier<T> read) {
        // Asked first: what changes while it is read makes it be read again.
        long seen = changes.of(classId);
        Key key = new Key(classId, of);
        Kept<T> before = kept.getIfPresent(key);
        if (before != null && before.changes() == seen && now.isBefore(before.until())) return before.value();
        T value = read.get();
        Instant longest = now.plus(LONGEST);
        Instant until = nextTurn.apply(classId, now).filter(longest::isAfter).orElse(longest);
        kept.put(key, new Kept<>(value, bytes.applyAsInt(value), seen, until));
        return value;
    }
}
