package org.vastporch.core.progress;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.moderation.State;
import org.vastporch.core.progress.NextToAnswer.Candidate;

class NextToAnswerTest {

    private static final Instant MONDAY = Instant.parse("2026-11-23T09:00:00Z");

    private static Candidate post(long id, long author, Long group, int comments, boolean wanted) {
        return new Candidate(id, author, group, comments, MONDAY.plusSeconds(id), wanted, false);
    }

    private static List<Long> offered(long student, Long group, List<Candidate> posts) {
        return NextToAnswer.order(student, group, posts).stream()
                .map(Candidate::post)
                .toList();
    }

    @Test
    void whatStaffPutUpThenFewestCommentsThenOtherGroupsThenOldest() {
        List<Candidate> posts = List.of(
                post(1, 10, 7L, 0, false),
                post(2, 11, 8L, 1, false),
                post(3, 12, null, 0, false),
                post(4, 13, 8L, 0, false),
                post(5, 14, 7L, 5, true),
                post(6, 99, 8L, 0, true));
        assertEquals(List.of(5L, 3L, 4L, 1L, 2L), offered(99, 7L, posts));
        assertEquals(List.of(5L, 1L, 3L, 4L, 2L), offered(99, null, posts), "without a group all are others");
    }

    @Test
    void whatOneAnsweredIsNotOfferedAgain() {
        assertEquals(
                List.of(2L),
                offered(
                        99,
                        null,
                        List.of(new Candidate(1, 10, null, 0, MONDAY, true, true), post(2, 10, null, 3, false))));
    }

    /**
     * Everybody takes the first that is offered, over and over: no post is left out, and none gets far more than
     * others.
     */
    @Test
    void everyPostGetsItsTurn() {
        for (long seed = 0; seed < 200; seed++) {
            Random random = new Random(seed);
            int n = 3 + random.nextInt(20);
            int groups = 1 + random.nextInt(4);
            Map<Long, Set<Long>> answeredBy = new HashMap<>();
            List<Candidate> posts = new ArrayList<>();
            for (long id = 1; id <= n; id++) {
                long author = 1 + random.nextInt(n);
                posts.add(post(id, author, author % groups, 0, random.nextInt(9) == 0));
                answeredBy.put(id, new HashSet<>());
            }
            for (int round = 0; round < n; round++)
                for (long student = 1; student <= n; student++) {
                    long me = student;
                    List<Candidate> now = posts.stream()
                            .map(p -> new Candidate(
                                    p.post(),
                                    p.author(),
                                    p.group(),
                                    answeredBy.get(p.post()).size(),
                                    p.at(),
                                    p.wanted() && answeredBy.get(p.post()).isEmpty(),
                                    answeredBy.get(p.post()).contains(me)))
                            .toList();
                    List<Long> offered = offered(me, me % groups, now);
                    if (!offered.isEmpty()) answeredBy.get(offered.get(0)).add(me);
                    boolean allOnce = answeredBy.values().stream().noneMatch(Set::isEmpty);
                    if (round == 1) assertTrue(allOnce, "seed " + seed + ": after two rounds each has an answer");
                }
        }
    }

    @Test
    void onlyWhatClassmatesCanAnswerIsPutUp() {
        assertTrue(NextToAnswer.unanswerable(facts(Commenters.CLASS, Audience.MY_CLASS), true)
                .isEmpty());
        assertEquals("not-a-student", code(facts(Commenters.CLASS, Audience.MY_CLASS), false));
        assertEquals("comments-off", code(facts(Commenters.NOBODY, Audience.MY_CLASS), true));
        assertEquals("not-for-classmates", code(facts(Commenters.CLASS, Audience.STAFF_AND_ME), true));
        PostFacts hidden = new PostFacts(1, blog(Commenters.CLASS), 10, null, State.HIDDEN, true, Audience.MY_CLASS);
        assertEquals("not-up", code(hidden, true));
    }

    private static String code(PostFacts post, boolean byStudent) {
        return NextToAnswer.unanswerable(post, byStudent).orElseThrow().code();
    }

    private static PostFacts facts(Commenters commenters, Audience audience) {
        return new PostFacts(1, blog(commenters), 10, null, State.PUBLISHED, true, audience);
    }

    private static BlogFacts blog(Commenters commenters) {
        return new BlogFacts(
                1,
                1,
                Audience.ANYONE,
                false,
                BlogKind.SHARED,
                Audience.ANYONE,
                commenters,
                null,
                null,
                null,
                null,
                null);
    }
}
