package org.vastporch.server.reading;

import java.time.Clock;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.Refusal;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.progress.NextToAnswer;
import org.vastporch.core.progress.NextToAnswer.Candidate;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** Which posts of classmates wait for an answer, where a student chooses what to read; staff put some up. */
@Service
public class ToAnswerService {

    /**
     * @param count how many posts of this term no classmate has answered, or staff put up
     * @param posts the first of them, in the order in which this student is offered them
     */
    public record ToAnswer(int count, List<PorchService.EntryView> posts) {}

    private static final int SHOWN = 3;

    private final PorchStore porch;
    private final AnswerWantedStore store;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    ToAnswerService(
            PorchStore porch,
            AnswerWantedStore store,
            ClassService classes,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.porch = porch;
        this.store = store;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    public ToAnswer toAnswer(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        long me = viewer.personId();
        Set<Long> students = new HashSet<>(people.students(classId));
        if (!students.contains(me)) return new ToAnswer(0, List.of());
        Term term = classes.get(classId).terms().at(clock.instant());
        List<Term.Week> weeks = term.weeks();
        ScopeSql scope = access.scope(viewer);
        List<PorchStore.Unanswered> found = porch.unanswered(
                scope,
                classId,
                weeks.get(0).start(),
                weeks.get(weeks.size() - 1).end());
        Around voices =
                porch.around(me, found.stream().map(PorchStore.Unanswered::id).toList());
        Map<Long, Instant> wanted = store.wanted(classId);
        List<Candidate> waiting = found.stream()
                .filter(p -> students.contains(p.authorId()))
                .map(p -> candidate(p, voices.of(p.id()), students, me, wanted.get(p.id())))
                .filter(c -> c.comments() == 0 || c.wanted())
                .toList();
        Map<Long, PostFacts> facts =
                access.posts(waiting.stream().map(Candidate::post).toList());
        List<Candidate> offered = NextToAnswer.order(
                me,
                people.studentGroups(classId).get(me).orElse(null),
                waiting.stream()
                        .filter(c ->
                                facts.containsKey(c.post()) && access.allows(viewer, Act.COMMENT, facts.get(c.post())))
                        .toList());
        List<Long> first = offered.stream().limit(SHOWN).map(Candidate::post).toList();
        Names names = people.names(viewer, classId);
        Around around = porch.around(me, first);
        return new ToAnswer(
                offered.size(),
                porch.entries(scope, classId, first).stream()
                        .map(e -> PorchService.view(e, names, around, viewer))
                        .toList());
    }

    /**
     * Puts a student's post up, so that classmates are offered it first until one of them answers it.
     *
     * @throws Refusal if they could not
     */
    @Transactional
    public void want(Viewer viewer, long postId) {
        PostFacts post = access.requireLockedPost(viewer, Act.MARK, postId);
        long classId = post.blog().classId();
        Optional<Refusal> refusal =
                NextToAnswer.unanswerable(post, people.students(classId).contains(post.authorId()));
        if (refusal.isPresent()) throw refusal.get();
        store.want(postId, clock.instant());
        events.add(classId, "answer-wanted", postId, viewer.personId());
    }

    @Transactional
    public void unwant(Viewer viewer, long postId) {
        PostFacts post = access.requireLockedPost(viewer, Act.MARK, postId);
        store.unwant(postId);
        events.add(post.blog().classId(), "answer-not-wanted", postId, viewer.personId());
    }

    /** Since when posts of a class are put up for an answer, by post; for staff. */
    public Map<Long, Instant> wanted(long classId) {
        return store.wanted(classId);
    }

    /** Of an author whose name is kept back the group is not told by the order either. */
    private static Candidate candidate(
            PorchStore.Unanswered post,
            List<Around.Voice> voices,
            Set<Long> students,
            long me,
            @Nullable Instant wanted) {
        List<Around.Voice> answers = voices.stream()
                .filter(v -> v.author() != null && v.author() != post.authorId() && students.contains(v.author()))
                .toList();
        return new Candidate(
                post.id(),
                post.authorId(),
                post.isNamed() ? post.group() : null,
                answers.size(),
                post.publishedAt(),
                wanted != null && answers.stream().noneMatch(v -> v.newest().isAfter(wanted)),
                answers.stream().anyMatch(v -> v.author() == me));
    }
}
