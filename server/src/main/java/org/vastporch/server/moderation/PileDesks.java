package org.vastporch.server.moderation;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Hold;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.moderation.DecisionStore.Key;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** Loads what a {@link PileDesk} shows. */
@Component
class PileDesks {

    /** What is known of the texts of one pile. */
    record Loaded(
            Viewer viewer,
            Map<Long, PostFacts> posts,
            Map<DecisionStore.InClass, Author> authors,
            Map<Key, List<Hold>> holds,
            Map<Key, List<DecisionStore.Decision>> decisions,
            Map<Key, List<ReportStore.ReportRow>> reports) {}

    private final DecisionStore decisions;
    private final ReportStore reports;
    private final AccessService access;
    private final ClassService classes;
    private final PeopleService people;
    private final Clock clock;

    PileDesks(
            DecisionStore decisions,
            ReportStore reports,
            AccessService access,
            ClassService classes,
            PeopleService people,
            Clock clock) {
        this.decisions = decisions;
        this.reports = reports;
        this.access = access;
        this.classes = classes;
        this.people = people;
        this.clock = clock;
    }

    PileDesk of(Viewer viewer, List<Moderated.Waiting> texts) {
        Set<Long> inClasses = texts.stream().map(Moderated.Waiting::classId).collect(Collectors.toSet());
        Set<Long> by = texts.stream().map(Moderated.Waiting::authorId).collect(Collectors.toSet());
        Set<Long> posts = texts.stream()
                .map(Moderated.Waiting::postId)
                .filter(Objects::nonNull)
                .collect(Collectors.toSet());
        List<Key> keys = texts.stream().map(PileDesk::key).toList();
        Map<Key, List<Hold>> holds = decisions.holds(keys);
        // A text that was reported is held for that until somebody has decided.
        List<Key> reported = keys.stream()
                .filter(key -> holds.getOrDefault(key, List.of()).stream().anyMatch(h -> h.rule() == Hold.Rule.REPORT))
                .toList();
        return new PileDesk(
                new Loaded(
                        viewer,
                        access.posts(posts),
                        decisions.authors(inClasses, by, clock.instant()),
                        holds,
                        decisions.about(keys),
                        reports.open(reported)),
                this,
                access.sightlines());
    }

    ClassService.ClassRecord classOf(long id) {
        return classes.get(id);
    }

    Names names(Viewer viewer, long classId) {
        return people.names(viewer, classId);
    }
}
