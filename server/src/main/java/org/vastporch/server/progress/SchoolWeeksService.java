package org.vastporch.server.progress;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.UsualWait;
import org.vastporch.core.progress.LastWeeks;
import org.vastporch.core.progress.LastWeeks.Moment;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.people.PeopleService;

/** The classes of the school by weeks, for its keeper: how much is written and how long it waits, and nobody's name. */
@Service
public class SchoolWeeksService {

    /**
     * @param posts in each week
     * @param comments in each week
     * @param usualHours within which three of four texts were decided on; left out for fewer than five decisions
     * @param oldestHours since when the text waits that waits longest; left out if nothing waits
     */
    public record ClassWeeks(
            long id,
            String name,
            List<Integer> posts,
            List<Integer> comments,
            @Optionally Long usualHours,
            @Optionally Long oldestHours) {}

    /** @param mondays of the weeks, the earliest first */
    public record SchoolWeeks(List<LocalDate> mondays, List<ClassWeeks> classes) {}

    private static final int WEEKS = 12;

    private final SchoolWeeksStore store;
    private final PeopleService people;
    private final Clock clock;

    SchoolWeeksService(SchoolWeeksStore store, PeopleService people, Clock clock) {
        this.store = store;
        this.people = people;
        this.clock = clock;
    }

    public SchoolWeeks weeks(Viewer viewer) {
        people.requireKeeper(viewer);
        Instant now = clock.instant();
        List<SchoolWeeksStore.OfSchool> classes = store.classes();
        // The running week is that of the class in which it began first.
        LocalDate today = classes.stream()
                .map(c -> LocalDate.ofInstant(now, c.zone()))
                .max(Comparator.naturalOrder())
                .orElseGet(() -> LocalDate.ofInstant(now, ZoneOffset.UTC));
        LastWeeks weeks = LastWeeks.until(today, WEEKS);
        // Somewhere the first Monday begins half a day sooner.
        Instant from = weeks.start(ZoneOffset.MAX);
        Map<Long, List<Moment>> posts = store.posts(from);
        Map<Long, List<Moment>> comments = store.comments(from);
        Map<Long, List<Duration>> waits = store.waits(from);
        Map<Long, Instant> oldest = store.oldest();
        return new SchoolWeeks(
                weeks.mondays(),
                classes.stream()
                        .map(c -> new ClassWeeks(
                                c.id(),
                                c.name(),
                                weeks.counts(c.zone(), posts.getOrDefault(c.id(), List.of())),
                                weeks.counts(c.zone(), comments.getOrDefault(c.id(), List.of())),
                                UsualWait.of(waits.getOrDefault(c.id(), List.of()))
                                        .map(SchoolWeeksService::hours)
                                        .orElse(null),
                                oldest.containsKey(c.id()) ? hours(Duration.between(oldest.get(c.id()), now)) : null))
                        .toList());
    }

    /** Whole hours, begun ones counted. */
    private static Long hours(Duration wait) {
        return Math.max(1, (wait.toMinutes() + 59) / 60);
    }
}
