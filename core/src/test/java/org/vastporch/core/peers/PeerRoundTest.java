package org.vastporch.core.peers;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.vastporch.core.peers.GivingOut.Review;
import org.vastporch.core.peers.PeerRound.Change;
import org.vastporch.core.peers.PeerRound.Given;
import org.vastporch.core.peers.PeerRound.Participant;

class PeerRoundTest {

    private static PeerRound round(List<Participant> participants, Review... unreadable) {
        return new PeerRound(participants, ids(participants), Set.of(unreadable), Set.of());
    }

    private static Set<Long> ids(List<Participant> participants) {
        return participants.stream().map(Participant::id).collect(Collectors.toSet());
    }

    private static List<Participant> alone(int n) {
        return IntStream.range(0, n)
                .mapToObj(i -> new Participant(i, null, List.of((long) i)))
                .toList();
    }

    /** Papers of some people each, who are groups of the class. */
    private static List<Participant> groups(int groups, int size) {
        List<Participant> people = new ArrayList<>();
        for (long group = 0; group < groups; group++) {
            long first = group * size;
            List<Long> together =
                    IntStream.range(0, size).mapToObj(i -> first + i).toList();
            for (long id : together) people.add(new Participant(id, group, together));
        }
        return people;
    }

    /** What a plan gives out, as it stands afterwards. */
    private static List<Given> standing(List<Review> reviews, Set<Integer> sent) {
        List<Given> given = new ArrayList<>();
        for (int i = 0; i < reviews.size(); i++)
            given.add(new Given(i, reviews.get(i).reviewer(), reviews.get(i).author(), false, sent.contains(i)));
        return given;
    }

    private static Map<Long, Long> counted(List<Review> reviews, Function<Review, Long> by) {
        return reviews.stream().collect(Collectors.groupingBy(by, Collectors.counting()));
    }

    @Test
    void aPaperOfSeveralIsReadByNobodyTwiceAndByNoneOfItsAuthors() {
        for (int size = 2; size <= 5; size++)
            for (int groups = 4; groups <= 8; groups++) {
                int per = size;
                PeerRound round = round(groups(groups, size));
                List<Review> reviews =
                        round.plan(3, Set.of(), size * 10L + groups).reviews();
                assertEquals(groups * size * 3, reviews.size());
                Set<List<Long>> papers = new HashSet<>();
                for (Review r : reviews) {
                    assertNotEquals(r.reviewer() / per, r.author() / per, "never a paper of one's own");
                    assertTrue(papers.add(List.of(r.reviewer(), r.author() / per)), "never one paper twice");
                }
                assertTrue(round.allows(reviews));
            }
    }

    @Test
    void nothingThatCannotBeReadIsGivenOut() {
        Review shut = new Review(0, 1);
        PeerRound round = round(alone(6), shut);
        for (int seed = 0; seed < 20; seed++)
            assertFalse(round.plan(3, Set.of(), seed).reviews().contains(shut));
        assertFalse(round.allows(shut));
        assertTrue(round.allows(new Review(1, 0)));
        assertFalse(round.allows(new Review(1, 1)), "not the own paper");
        assertFalse(round.allows(new Review(9, 1)), "not to somebody without a paper");
        assertFalse(round.allows(new Review(1, 9)), "not a paper that is not there");
    }

    @Test
    void whatIsChosenByHandIsLookedAtWhole() {
        PeerRound round = round(groups(3, 2));
        assertTrue(round.allows(List.of(new Review(0, 2), new Review(0, 4))));
        assertFalse(round.allows(List.of(new Review(0, 2), new Review(0, 3))), "one paper, by two of its authors");
        assertFalse(round.allows(List.of(new Review(0, 2), new Review(0, 1))));
    }

    /** A class in which people come late, leave, and take papers back, again and again. */
    @Test
    void nobodyIsMovedWhenOthersComeLateOrLeave() {
        Random random = new Random(11);
        for (int world = 0; world < 120; world++) {
            int n = 4 + random.nextInt(20);
            int each = 1 + random.nextInt(3);
            List<Participant> people = alone(n);
            List<Review> given = round(people).plan(each, Set.of(), world).reviews();
            List<Given> standing = standing(
                    given,
                    IntStream.range(0, given.size())
                            .filter(i -> random.nextInt(3) == 0)
                            .boxed()
                            .collect(Collectors.toSet()));
            Set<Long> left = random.longs(random.nextInt(3), 0, n).boxed().collect(Collectors.toSet());
            List<Participant> now = Stream.concat(
                            people.stream().filter(p -> !left.contains(p.id())),
                            IntStream.range(0, random.nextInt(3))
                                    .mapToObj(i -> new Participant(1000 + i, null, List.of(1000L + i))))
                    .toList();
            Change change = round(now).fitted(each, standing, Set.of(), world);

            for (Given g : standing) {
                boolean isTouched = left.contains(g.reviewer()) || left.contains(g.author());
                assertEquals(!g.isSent() && isTouched, change.ended().contains(g.id()));
            }
            List<Review> after = Stream.concat(
                            standing.stream()
                                    .filter(g -> !change.ended().contains(g.id()))
                                    .map(g -> new Review(g.reviewer(), g.author())),
                            change.begun().stream())
                    .toList();
            assertEquals(after.size(), new HashSet<>(after).size(), "nobody reads a paper twice");
            Map<Long, Long> readers = counted(after, Review::author);
            for (Participant p : now)
                assertTrue(readers.getOrDefault(p.id(), 0L) >= Math.min(each, now.size() - 1), "a paper goes short");
            for (Review r : change.begun()) assertTrue(round(now).allows(r));

            List<Given> then = standing(after, Set.of());
            Change again = round(now)
                    .fitted(
                            each,
                            then.stream()
                                    .map(g -> new Given(
                                            g.id(),
                                            g.reviewer(),
                                            g.author(),
                                            false,
                                            left.contains(g.reviewer()) || left.contains(g.author())))
                                    .toList(),
                            Set.of(),
                            world + 1);
            assertEquals(List.of(), again.ended());
        }
    }

    @Test
    void whatStandsWholeIsLeftAlone() {
        PeerRound round = round(alone(9));
        List<Given> standing = standing(round.plan(2, Set.of(), 3).reviews(), Set.of(1, 4));
        assertEquals(new Change(List.of(), List.of()), round.fitted(2, standing, Set.of(), 8));
    }

    @Test
    void aReviewIsGoneOnWithThoughTheOwnPaperWasTakenBack() {
        List<Participant> all = alone(4);
        List<Given> standing = List.of(new Given(1, 0, 1, false, false), new Given(2, 1, 0, false, false));
        PeerRound without0 = new PeerRound(all.subList(1, 4), ids(all), Set.of(), Set.of());
        assertEquals(
                List.of(2L), without0.fitted(1, standing, Set.of(), 1).ended(), "its paper is gone, its reader is not");
    }

    @Test
    void aMissingReviewGoesToWhoHasTime() {
        List<Participant> people = List.of(
                new Participant(0, 1L, List.of(0L)),
                new Participant(1, 1L, List.of(1L)),
                new Participant(2, 2L, List.of(2L)),
                new Participant(3, 2L, List.of(3L)),
                new Participant(4, 3L, List.of(4L)));
        Given missing = new Given(1, 4, 0, false, false);
        List<Given> standing = List.of(
                missing,
                new Given(2, 2, 4, false, true),
                new Given(3, 2, 1, false, true),
                new Given(4, 3, 1, false, false),
                new Given(5, 1, 3, false, true));
        assertEquals(Optional.of(2L), round(people).whoHasTime(standing, missing), "who has sent all of theirs");
        assertEquals(
                Optional.of(3L),
                round(people, new Review(2, 0)).whoHasTime(standing, missing),
                "one who is busy before a group-mate");
        assertEquals(
                Optional.of(1L),
                round(people, new Review(2, 0), new Review(3, 0)).whoHasTime(standing, missing));
        assertEquals(
                Optional.empty(),
                round(people, new Review(2, 0), new Review(3, 0), new Review(1, 0))
                        .whoHasTime(standing, missing));
    }

    @Test
    void classesOfOneTwoAndThree() {
        assertEquals(List.of(), round(alone(1)).plan(2, Set.of(), 1).reviews());
        assertEquals(1, round(alone(2)).plan(2, Set.of(), 1).gaveWay().each());
        assertEquals(
                Set.of(new Review(0, 1), new Review(1, 0)),
                Set.copyOf(round(alone(2)).plan(2, Set.of(), 1).reviews()));
        assertEquals(6, round(alone(3)).plan(2, Set.of(), 1).reviews().size());
        assertEquals(List.of(), round(groups(1, 4)).plan(2, Set.of(), 1).reviews(), "all in one group");
    }

    /** A member who left makes another one the first of a paper; it is the same paper for who has it already. */
    @Test
    void aPaperOfSeveralThatStandsIsNotGivenOnceMore() {
        for (int seed = 0; seed < 60; seed++) {
            PeerRound before = round(groups(5, 3));
            List<Given> standing = standing(before.plan(2, Set.of(), seed).reviews(), Set.of(0, 3, 7, 9));
            List<Participant> after = groups(6, 3).stream()
                    .filter(p -> p.id() != 0 && p.id() != 4)
                    .map(p -> new Participant(
                            p.id(),
                            p.group(),
                            p.together().stream()
                                    .filter(id -> id != 0 && id != 4)
                                    .toList()))
                    .toList();
            PeerRound now = round(after);
            Change change = now.fitted(2, standing, Set.of(), seed);
            List<Review> reviews = Stream.concat(
                            standing.stream()
                                    .filter(g -> !change.ended().contains(g.id()))
                                    .map(g -> new Review(g.reviewer(), g.author()))
                                    .filter(now::allows),
                            change.begun().stream())
                    .toList();
            assertTrue(now.allows(reviews), "nobody reads one paper twice");
        }
    }

    @Test
    void whoReadsAPaperOfSeveralIsNotAskedForItAgain() {
        List<Participant> people = groups(3, 2);
        Given missing = new Given(1, 4, 0, false, false);
        // Two and three read the same paper by its other author, or this one.
        List<Given> standing = List.of(missing, new Given(2, 2, 1, false, true), new Given(3, 5, 2, false, true));
        assertEquals(Optional.of(3L), round(people).whoHasTime(standing, missing));
        List<Given> all = Stream.concat(
                        standing.stream(), Stream.of(new Given(4, 5, 1, false, true), new Given(5, 3, 0, false, false)))
                .toList();
        assertEquals(Optional.empty(), round(people).whoHasTime(all, missing));
    }

    @Test
    void whatWasTakenByHandComesBackToNobodyFromWhomItWasTaken() {
        for (int seed = 0; seed < 40; seed++) {
            PeerRound round = round(alone(8));
            List<Review> all = round.plan(2, Set.of(), seed).reviews();
            Review taken = all.get(seed % all.size());
            List<Given> standing =
                    standing(all.stream().filter(r -> !r.equals(taken)).toList(), Set.of());
            Change change = round.fitted(2, standing, Set.of(taken), seed);
            assertEquals(List.of(), change.ended());
            assertEquals(1, change.begun().size(), "the paper finds another reader");
            assertEquals(taken.author(), change.begun().get(0).author());
            assertNotEquals(taken.reviewer(), change.begun().get(0).reviewer());
            List<Given> passedOn = standing(
                    Stream.concat(
                                    standing.stream().map(g -> new Review(g.reviewer(), g.author())),
                                    change.begun().stream())
                            .toList(),
                    Set.of());
            assertEquals(new Change(List.of(), List.of()), round.fitted(2, passedOn, Set.of(taken), seed));
        }
    }

    @Test
    void whatIsBegunStaysWithItsReaderWhileThePaperIsAway() {
        List<Participant> all = alone(4);
        List<Given> standing = List.of(new Given(1, 1, 0, true, false), new Given(2, 2, 0, false, false));
        PeerRound away = new PeerRound(all.subList(1, 4), ids(all), Set.of(), Set.of());
        assertEquals(List.of(2L), away.fitted(1, standing, Set.of(), 1).ended());
        PeerRound left = new PeerRound(all.subList(2, 4), Set.of(0L, 2L, 3L), Set.of(), Set.of());
        assertEquals(List.of(1L, 2L), left.fitted(1, standing, Set.of(), 1).ended());
    }
}
