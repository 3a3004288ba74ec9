package org.vastporch.server.marking;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.marking.PaperState;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.marking.MarkingStore.Given;
import org.vastporch.server.marking.MarkingStore.Marking;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.prompts.PromptService.PromptRecord;
import org.vastporch.server.writing.Posts;
import org.vastporch.server.writing.Posts.Handed;

/**
 * The papers of prompts, where each stands, from narrow rows: no text is read, and the number of statements does not
 * grow with prompts or students. How many lie on the desk of a class is asked for by every open page of its staff, so
 * that is counted anew only when something has happened there or a prompt is over.
 */
@Component
public class MarkingDesk {

    /** @param missing how many students handed in nothing in time */
    public record Pile(long promptId, String title, Instant due, int toMark, int missing) {}

    /** @param post null if nothing was handed in */
    record Paper(
            long studentId, @Nullable Handed post, @Nullable Marking marking, PaperState state) {}

    private record Counted(long change, Instant until, List<Pile> piles) {}

    private static final int MOST_CLASSES = 5_000;

    private final Cache<Long, Counted> counted =
            Caffeine.newBuilder().maximumSize(MOST_CLASSES).build();
    private final MarkingStore store;
    private final PromptService prompts;
    private final Posts posts;
    private final PeopleService people;
    private final ClassChanges changes;
    private final Duration kept;
    private final Clock clock;

    MarkingDesk(
            MarkingStore store,
            PromptService prompts,
            Posts posts,
            PeopleService people,
            ClassChanges changes,
            @Value("${vastporch.counts.kept:PT1M}") Duration kept,
            Clock clock) {
        this.store = store;
        this.prompts = prompts;
        this.posts = posts;
        this.people = people;
        this.changes = changes;
        this.kept = kept;
        this.clock = clock;
    }

    /** What lies on the desk of a class, the prompt that was due last first; for those who mark there. */
    public List<Pile> of(long classId) {
        long change = changes.of(classId);
        Instant now = clock.instant();
        Counted known = counted.getIfPresent(classId);
        if (known == null || known.change() != change || !now.isBefore(known.until())) {
            known = count(classId, change, now);
            counted.put(classId, known);
        }
        return known.piles();
    }

    private Counted count(long classId, long change, Instant now) {
        List<PromptRecord> all = prompts.all(classId);
        List<PromptRecord> due = all.stream()
                .filter(p -> p.rubric() != null && !now.isBefore(p.due()))
                .toList();
        Map<Long, List<Paper>> papers = papers(classId, due);
        List<Pile> piles = new ArrayList<>();
        for (PromptRecord prompt : due) {
            List<Paper> of = papers.get(prompt.id());
            int toMark = (int) of.stream().filter(p -> p.state().isToMark()).count();
            int missing = (int)
                    of.stream().filter(p -> p.state() == PaperState.MISSING).count();
            if (toMark > 0) piles.add(new Pile(prompt.id(), prompt.title(), prompt.due(), toMark, missing));
        }
        Instant until = now.plus(kept);
        for (PromptRecord prompt : all)
            for (Instant over :
                    List.of(prompt.due(), prompt.due().plus(prompt.grace()).plusMillis(1)))
                if (over.isAfter(now) && over.isBefore(until)) until = over;
        return new Counted(change, until, List.copyOf(piles));
    }

    /** The papers of the students of a class for some of its prompts, by prompt, in the order of the students. */
    Map<Long, List<Paper>> papers(long classId, List<PromptRecord> of) {
        List<Long> ids = of.stream().map(PromptRecord::id).toList();
        Map<List<Long>, Handed> handed = new HashMap<>();
        posts.handed(ids).forEach(p -> handed.put(List.of(p.promptId(), p.authorId()), p));
        Map<List<Long>, Marking> markings = new HashMap<>();
        store.ofPrompts(ids).forEach(m -> markings.put(List.of(m.promptId(), m.studentId()), m));
        Map<List<Long>, Integer> given = new HashMap<>();
        for (Given g : store.given(ids)) given.put(List.of(g.promptId(), g.studentId()), g.given());
        List<Long> students = people.students(classId);
        Map<Long, List<Paper>> papers = new HashMap<>();
        for (PromptRecord prompt : of) {
            boolean over = !Term.isOnTime(clock.instant(), prompt.due(), prompt.grace());
            List<Paper> lines = new ArrayList<>();
            for (long student : students) {
                List<Long> key = List.of(prompt.id(), student);
                Handed post = handed.get(key);
                Marking marking = markings.get(key);
                boolean released = marking != null && marking.releasedAt() != null;
                int criteria =
                        prompt.rubric() == null ? 0 : prompt.rubric().criteria().size();
                PaperState.Facts facts = new PaperState.Facts(
                        post == null ? null : post.state(), given.getOrDefault(key, 0), criteria, released);
                lines.add(new Paper(student, post, marking, PaperState.of(facts, over)));
            }
            papers.put(prompt.id(), lines);
        }
        return papers;
    }
}
