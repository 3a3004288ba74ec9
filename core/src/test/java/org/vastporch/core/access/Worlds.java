package org.vastporch.core.access;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.moderation.State;

/**
 * Generated worlds: viewers with places in two classes, and posts in blogs of every kind, state, audience and opening
 * time.
 */
final class Worlds {

    static final Instant NOW = Instant.parse("2026-11-24T10:00:00Z");

    private final Random random;

    Worlds(long seed) {
        random = new Random(seed);
    }

    Viewer viewer() {
        if (random.nextInt(8) == 0) return Viewer.STRANGER;
        List<Membership> places = new ArrayList<>();
        for (long classId = 1; classId <= 2; classId++)
            if (random.nextInt(3) > 0)
                places.add(new Membership(classId, one(Role.values()), group(classId), moment()));
        Set<Long> answered = Set.of((long) random.nextInt(2), 2L + random.nextInt(2));
        Viewer viewer = new Viewer(1 + random.nextInt(6), random.nextInt(6) == 0, places, answered, null);
        return random.nextInt(6) == 0 ? viewer.throughLens(1 + random.nextInt(2)) : viewer;
    }

    PostFacts post() {
        long classId = 1 + random.nextInt(2);
        BlogKind kind = one(BlogKind.values());
        Long owner = kind == BlogKind.ONE_EACH || kind == BlogKind.JOURNAL ? (long) (1 + random.nextInt(6)) : null;
        BlogFacts blog = new BlogFacts(
                random.nextInt(100),
                classId,
                one(Audience.values()),
                random.nextBoolean(),
                kind,
                one(Audience.values()),
                one(BlogFacts.Commenters.values()),
                owner,
                kind == BlogKind.GROUP ? group(classId) : null,
                random.nextInt(4) == 0 ? group(classId) : null,
                moment(),
                moment(),
                new BlogRules(
                        window(),
                        window(),
                        random.nextBoolean(),
                        40,
                        40,
                        0,
                        0,
                        0,
                        BlogRules.Period.WEEK,
                        new BlogRules.Closing(random.nextInt(3), "")));
        return new PostFacts(
                random.nextInt(1000),
                blog,
                owner != null ? owner : random.nextInt(7),
                group(classId),
                one(State.values()),
                random.nextBoolean(),
                one(Audience.values()),
                moment(),
                random.nextInt(3) == 0 ? (long) random.nextInt(4) : null,
                random.nextInt(8) == 0,
                random.nextInt(3) == 0,
                random.nextInt(4) == 0,
                new KeptNames(moment(), random.nextInt(4) == 0, random.nextInt(6) == 0));
    }

    private BlogRules.Window window() {
        return new BlogRules.Window(new int[] {-1, 0, 60, 61}[random.nextInt(4)]);
    }

    private Long group(long classId) {
        return random.nextInt(3) == 0 ? null : classId * 10 + random.nextInt(2);
    }

    private Instant moment() {
        return switch (random.nextInt(5)) {
            case 0 -> NOW.minus(Duration.ofHours(1));
            case 1 -> NOW;
            case 2 -> NOW.plus(Duration.ofHours(1));
            default -> null;
        };
    }

    private <T> T one(T[] values) {
        return values[random.nextInt(values.length)];
    }
}
