package org.vastporch.core.progress;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.vastporch.core.progress.WhoAnswersWhom.Edge;
import org.vastporch.core.progress.WhoAnswersWhom.OneGroup;
import org.vastporch.core.progress.WhoAnswersWhom.Pair;
import org.vastporch.core.progress.WhoAnswersWhom.Post;
import org.vastporch.core.progress.WhoAnswersWhom.Student;
import org.vastporch.core.progress.WhoAnswersWhom.Voice;

class WhoAnswersWhomTest {

    private static final List<Student> FIVE = List.of(
            new Student(1, "Heron"),
            new Student(2, "Heron"),
            new Student(3, "Alder"),
            new Student(4, "Alder"),
            new Student(5, null));

    private static WhoAnswersWhom of(Edge... edges) {
        return WhoAnswersWhom.of(FIVE, List.of(edges), List.of());
    }

    @Test
    void aVoiceTellsWhatOneGivesAndGets() {
        WhoAnswersWhom graph = WhoAnswersWhom.of(
                FIVE,
                List.of(
                        new Edge(1, 2, 2),
                        new Edge(2, 1, 1),
                        new Edge(3, 1, 4),
                        new Edge(1, 2, 1),
                        new Edge(1, 1, 9),
                        new Edge(77, 1, 9)),
                List.of(new Post(1, true), new Post(1, false), new Post(5, false), new Post(77, false)));
        assertEquals(new Voice(1, 3, 5, 2, 1, 2, 1), graph.voices().get(0));
        assertEquals(List.of(new Edge(3, 1, 4), new Edge(1, 2, 3), new Edge(2, 1, 1)), graph.edges());
        assertEquals("2 of 3", graph.bothWays() + " of " + graph.edges().size());
        assertEquals(List.of(1L, 2L), graph.topThree());
        assertEquals("8 of 8", graph.topShare() + " of " + graph.comments());
        assertEquals(
                List.of(5L),
                graph.voices().stream()
                        .filter(Voice::isNeverAnswered)
                        .map(Voice::student)
                        .toList(),
                "who wrote nothing is not left without an answer");
    }

    @Test
    void aClassThatSaysNothing() {
        WhoAnswersWhom graph = of();
        assertEquals(0, graph.gini());
        assertEquals(List.of(), graph.topThree());
        assertEquals(List.of(1L, 2L, 3L, 4L, 5L), graph.together());
        assertEquals(
                List.of(), WhoAnswersWhom.of(List.of(), List.of(), List.of()).together());
    }

    @Test
    void howEvenlyCommentsAreSpread() {
        assertEquals(
                WhoAnswersWhom.Spread.EVEN,
                of(new Edge(1, 2, 2), new Edge(2, 3, 2), new Edge(3, 4, 2), new Edge(4, 5, 2), new Edge(5, 1, 2))
                        .spread());
        assertEquals(
                WhoAnswersWhom.Spread.UNEVEN,
                of(new Edge(1, 2, 4), new Edge(2, 3, 2), new Edge(3, 4, 2)).spread());
        assertEquals(WhoAnswersWhom.Spread.VERY_UNEVEN, of(new Edge(1, 2, 9)).spread());
    }

    @Test
    void twoWhoAnswerNobodyButEachOther() {
        assertEquals(
                List.of(new Pair(2, 3, 5)),
                of(new Edge(2, 3, 2), new Edge(3, 2, 3), new Edge(1, 2, 4)).pairs());
        assertEquals(
                List.of(),
                of(new Edge(2, 3, 2), new Edge(3, 2, 3), new Edge(3, 1, 1)).pairs());
        assertEquals(List.of(), of(new Edge(2, 3, 1), new Edge(3, 2, 1)).pairs(), "twice is no habit");
    }

    @Test
    void whoAnswersOneGroupAlone() {
        assertEquals(
                List.of(new OneGroup(1, "Alder", 3)),
                of(new Edge(1, 3, 2), new Edge(1, 4, 1), new Edge(2, 3, 2), new Edge(2, 1, 2), new Edge(4, 5, 7))
                        .onlyOneGroup());
        List<Student> oneGroup = List.of(new Student(1, "Heron"), new Student(2, "Heron"));
        assertEquals(
                List.of(),
                WhoAnswersWhom.of(oneGroup, List.of(new Edge(1, 2, 9)), List.of())
                        .onlyOneGroup(),
                "where there is no other group nobody is passed over");
    }

    @Test
    void byGroupTheMostAnsweredComeFirst() {
        assertEquals(
                List.of(4L, 3L, 1L, 2L, 5L),
                of(new Edge(1, 4, 2), new Edge(2, 3, 1), new Edge(3, 5, 9)).byGroup(FIVE, Comparator.naturalOrder()));
    }

    @Test
    void blocksOfFriendsStandTogether() {
        for (long seed = 0; seed < 60; seed++) {
            Random random = new Random(seed);
            int blocks = 2 + random.nextInt(4);
            List<Long> ids = new ArrayList<>();
            for (long id = 1; id <= blocks * 5L; id++) ids.add(id);
            Collections.shuffle(ids, random);
            List<Edge> edges = new ArrayList<>();
            for (long from : ids)
                for (long to : ids)
                    if (from != to && from % blocks == to % blocks && random.nextInt(4) > 0)
                        edges.add(new Edge(from, to, 1 + random.nextInt(3)));
            List<Student> students =
                    ids.stream().map(id -> new Student(id, null)).toList();
            WhoAnswersWhom graph = WhoAnswersWhom.of(students, edges, List.of());
            List<Long> order = graph.together();
            assertEquals(new TreeSet<>(ids), new TreeSet<>(order));
            assertEquals(ids.size(), order.size());
            Set<Long> done = new HashSet<>();
            long last = -1;
            for (long id : order) {
                long block = id % blocks;
                if (block != last) assertTrue(done.add(block), "seed " + seed + ": block " + block + " in two pieces");
                last = block;
            }
            Collections.shuffle(edges, random);
            assertEquals(order, WhoAnswersWhom.of(students, edges, List.of()).together(), "same input, same order");
        }
    }

    /** Everything once more, slowly, from a table of all pairs. */
    @Test
    void theNumbersAreThoseOfASlowReading() {
        for (long seed = 0; seed < 300; seed++) {
            Random random = new Random(seed);
            int n = 1 + random.nextInt(14);
            List<Student> students = new ArrayList<>();
            for (long id = 1; id <= n; id++)
                students.add(new Student(id, random.nextInt(4) == 0 ? null : "g" + random.nextInt(3)));
            int[][] table = new int[n + 3][n + 3];
            List<Edge> edges = new ArrayList<>();
            for (int i = random.nextInt(40); i > 0; i--) {
                int from = 1 + random.nextInt(n + 2);
                int to = 1 + random.nextInt(n + 2);
                int comments = 1 + random.nextInt(3);
                edges.add(new Edge(from, to, comments));
                if (from != to && from <= n && to <= n) table[from][to] += comments;
            }
            List<Post> posts = new ArrayList<>();
            for (int i = random.nextInt(20); i > 0; i--)
                posts.add(new Post(1 + random.nextInt(n + 1), random.nextBoolean()));
            holds(table, students, WhoAnswersWhom.of(students, edges, posts), posts, seed);
        }
    }

    private static void holds(
            int[][] table, List<Student> students, WhoAnswersWhom graph, List<Post> posts, long seed) {
        int n = students.size();
        int pairs = 0;
        int bothWays = 0;
        int all = 0;
        int[] received = new int[n];
        for (int from = 1; from <= n; from++)
            for (int to = 1; to <= n; to++) {
                if (table[from][to] == 0) continue;
                pairs++;
                if (table[to][from] > 0) bothWays++;
                all += table[from][to];
                received[to - 1] += table[from][to];
            }
        String of = "seed " + seed;
        assertEquals(pairs, graph.edges().size(), of);
        assertEquals(bothWays, graph.bothWays(), of);
        assertEquals(all, graph.comments(), of);
        // The mean difference of all pairs, over twice the mean.
        double apart = 0;
        for (int one : received) for (int other : received) apart += Math.abs(one - other);
        assertEquals(all == 0 ? 0 : apart / (2.0 * n * all), graph.gini(), 1e-9, of);
        int top = received.length;
        int[] sorted = received.clone();
        Arrays.sort(sorted);
        int three = 0;
        for (int i = top - 1; i >= Math.max(0, top - 3); i--) three += sorted[i];
        assertEquals(three, graph.topShare(), of);
        TreeMap<Long, String> groups = new TreeMap<>();
        for (Student s : students) if (s.group() != null) groups.put(s.id(), s.group());
        for (int i = 1; i <= n; i++) {
            Voice voice = graph.voices().get(i - 1);
            int given = 0;
            int by = 0;
            int back = 0;
            Set<String> to = new HashSet<>();
            for (int j = 1; j <= n; j++) {
                given += table[i][j];
                if (table[i][j] > 0) to.add(groups.getOrDefault((long) j, "none"));
                if (table[j][i] > 0) by++;
                if (table[j][i] > 0 && table[i][j] > 0) back++;
            }
            long me = i;
            long own = posts.stream().filter(p -> p.author() == me).count();
            long bare = posts.stream()
                    .filter(p -> p.author() == me && !p.answered())
                    .count();
            assertEquals(new Voice(i, given, received[i - 1], by, back, (int) own, (int) bare), voice, of);
            boolean oneGroup =
                    given >= 3 && to.size() == 1 && !to.contains("none") && new HashSet<>(groups.values()).size() > 1;
            assertEquals(
                    oneGroup, graph.onlyOneGroup().stream().anyMatch(o -> o.student() == me), of + ", student " + i);
        }
    }
}
