package org.vastporch.core.progress;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The comments that students of a class gave to each other as a graph: an edge leads from who commented to whose post
 * it was, as heavy as there were comments.
 *
 * @param voices one for each student, in the order in which they were given
 * @param edges whose both ends are students, heaviest first
 * @param bothWays how many of the edges have one the other way
 * @param topThree the most answered students, at most three; empty if nobody was answered
 * @param topShare how many of all comments went to them
 * @param comments all of them
 * @param gini how unequally comments were received: 0 if all got as many, near 1 if one got all; 0 if there are none
 * @param pairs two who answer nobody but each other
 * @param onlyOneGroup students who answer one group alone, though there are several
 */
public record WhoAnswersWhom(
        List<Voice> voices,
        List<Edge> edges,
        int bothWays,
        List<Long> topThree,
        int topShare,
        int comments,
        double gini,
        List<Pair> pairs,
        List<OneGroup> onlyOneGroup) {

    /** @param group the name of the student's group; null for none */
    public record Student(long id, @Nullable String group) {}

    /** @param comments at least 1 */
    public record Edge(long from, long to, int comments) {}

    /**
     * A post of a student that is up.
     *
     * @param answered whether a classmate commented on it
     */
    public record Post(long author, boolean answered) {}

    /**
     * What one student gives and gets.
     *
     * @param given comments on posts of classmates
     * @param received comments of classmates
     * @param answeredBy how many classmates commented on a post of theirs
     * @param answeredBack how many of those they commented on too
     * @param posts how many they wrote
     * @param unanswered how many of those no classmate commented on
     */
    public record Voice(
            long student, int given, int received, int answeredBy, int answeredBack, int posts, int unanswered) {

        /** Whether they wrote something and no classmate ever commented on it. */
        public boolean isNeverAnswered() {
            return posts > 0 && received == 0;
        }
    }

    /** Two students, the one named first who was given first. */
    public record Pair(long one, long other, int comments) {}

    public record OneGroup(long student, String group, int comments) {}

    /** How comments are spread over those who could get them, as one says it. */
    public enum Spread {
        /** Gini below 0.35. */
        EVEN,
        /** Below 0.55. */
        UNEVEN,
        VERY_UNEVEN
    }

    /** So few comments are no habit yet. */
    private static final int HABIT = 3;

    /**
     * @param students of the class, each once
     * @param given comments on posts of somebody, of which only those between two different students count; those
     *     between the same two are added up
     * @param posts those of anybody else are left out
     */
    public static WhoAnswersWhom of(List<Student> students, List<Edge> given, List<Post> posts) {
        Map<Long, Map<Long, Integer>> weights = new HashMap<>();
        Set<Long> here = new HashSet<>();
        for (Student student : students) here.add(student.id());
        for (Edge edge : given)
            if (edge.from() != edge.to() && here.contains(edge.from()) && here.contains(edge.to()))
                weights.computeIfAbsent(edge.from(), id -> new HashMap<>())
                        .merge(edge.to(), edge.comments(), Integer::sum);
        List<Edge> edges = new ArrayList<>();
        weights.forEach((from, to) -> to.forEach((whom, comments) -> edges.add(new Edge(from, whom, comments))));
        edges.sort(Comparator.comparingInt(Edge::comments)
                .reversed()
                .thenComparingLong(Edge::from)
                .thenComparingLong(Edge::to));
        List<Voice> voices =
                students.stream().map(s -> voice(s.id(), edges, weights, posts)).toList();
        int all = edges.stream().mapToInt(Edge::comments).sum();
        List<Voice> most = voices.stream()
                .filter(v -> v.received() > 0)
                .sorted(Comparator.comparingInt(Voice::received).reversed())
                .limit(3)
                .toList();
        return new WhoAnswersWhom(
                voices,
                List.copyOf(edges),
                (int) edges.stream()
                        .filter(e -> weight(weights, e.to(), e.from()) > 0)
                        .count(),
                most.stream().map(Voice::student).toList(),
                most.stream().mapToInt(Voice::received).sum(),
                all,
                gini(voices.stream().mapToInt(Voice::received).toArray()),
                pairs(students, weights),
                onlyOneGroup(students, weights));
    }

    public Spread spread() {
        return gini < 0.35 ? Spread.EVEN : gini < 0.55 ? Spread.UNEVEN : Spread.VERY_UNEVEN;
    }

    private static int weight(Map<Long, Map<Long, Integer>> weights, long from, long to) {
        return weights.getOrDefault(from, Map.of()).getOrDefault(to, 0);
    }

    private static Voice voice(
            long student, List<Edge> edges, Map<Long, Map<Long, Integer>> weights, List<Post> posts) {
        Map<Long, Integer> to = weights.getOrDefault(student, Map.of());
        List<Edge> in = edges.stream().filter(e -> e.to() == student).toList();
        List<Post> own = posts.stream().filter(p -> p.author() == student).toList();
        return new Voice(
                student,
                to.values().stream().mapToInt(Integer::intValue).sum(),
                in.stream().mapToInt(Edge::comments).sum(),
                in.size(),
                (int) in.stream().filter(e -> to.containsKey(e.from())).count(),
                own.size(),
                (int) own.stream().filter(p -> !p.answered()).count());
    }

    /** By the sorted values: (2 · Σ i·xᵢ) / (n · Σ xᵢ) − (n + 1) / n, with i counted from 1. */
    private static double gini(int[] values) {
        int[] sorted = values.clone();
        Arrays.sort(sorted);
        double ranked = 0;
        double sum = 0;
        for (int i = 0; i < sorted.length; i++) {
            ranked += (i + 1.0) * sorted[i];
            sum += sorted[i];
        }
        int n = sorted.length;
        return sum == 0 ? 0 : 2 * ranked / (n * sum) - (n + 1.0) / n;
    }

    private static List<Pair> pairs(List<Student> students, Map<Long, Map<Long, Integer>> weights) {
        List<Pair> pairs = new ArrayList<>();
        Set<Long> told = new HashSet<>();
        for (Student student : students) {
            Map<Long, Integer> to = weights.getOrDefault(student.id(), Map.of());
            if (to.size() != 1 || told.contains(student.id())) continue;
            long other = to.keySet().iterator().next();
            Map<Long, Integer> back = weights.getOrDefault(other, Map.of());
            if (!back.keySet().equals(Set.of(student.id()))) continue;
            int comments = to.get(other) + back.get(student.id());
            told.add(other);
            if (comments >= HABIT) pairs.add(new Pair(student.id(), other, comments));
        }
        return List.copyOf(pairs);
    }

    private static List<OneGroup> onlyOneGroup(List<Student> students, Map<Long, Map<Long, Integer>> weights) {
        Map<Long, String> groups = new HashMap<>();
        for (Student student : students) if (student.group() != null) groups.put(student.id(), student.group());
        if (Set.copyOf(groups.values()).size() < 2) return List.of();
        List<OneGroup> found = new ArrayList<>();
        for (Student student : students) {
            Map<Long, Integer> to = weights.getOrDefault(student.id(), Map.of());
            int comments = to.values().stream().mapToInt(Integer::intValue).sum();
            Set<String> answered = new HashSet<>();
            for (long whom : to.keySet()) answered.add(groups.getOrDefault(whom, ""));
            if (comments >= HABIT && answered.size() == 1 && !answered.contains(""))
                found.add(new OneGroup(student.id(), answered.iterator().next(), comments));
        }
        return List.copyOf(found);
    }

    /**
     * The students by their groups, those of none last; within one by what they received, most first. Two who are alike
     * stand as they were given.
     */
    public List<Long> byGroup(List<Student> students, Comparator<String> groups) {
        Map<Long, Integer> received = new HashMap<>();
        for (Voice voice : voices) received.put(voice.student(), voice.received());
        return students.stream()
                .sorted(Comparator.comparing(Student::group, Comparator.nullsLast(groups))
                        .thenComparing(s -> -Objects.requireNonNullElse(received.get(s.id()), 0)))
                .map(Student::id)
                .toList();
    }

    /**
     * The students so that those who answer each other stand together. Chains of students are joined, those first that
     * answer each other most (the mean over all their pairs), each time with the ends together that have most to do
     * with each other. Who answers nobody and is answered by nobody stands last, as given. The work grows with the cube
     * of the class: 200 students take a few milliseconds.
     */
    public List<Long> together() {
        int n = voices.size();
        Map<Long, Integer> at = new HashMap<>();
        for (int i = 0; i < n; i++) at.put(voices.get(i).student(), i);
        double[][] near = new double[n][n];
        for (Edge edge : edges) {
            int from = at.get(edge.from());
            int to = at.get(edge.to());
            near[from][to] += edge.comments();
            near[to][from] += edge.comments();
        }
        double[][] between = new double[n][];
        for (int i = 0; i < n; i++) between[i] = near[i].clone();
        List<List<Integer>> chains = new ArrayList<>();
        for (int i = 0; i < n; i++) chains.add(new ArrayList<>(List.of(i)));
        boolean[] gone = new boolean[n];
        while (true) {
            int one = -1;
            int other = -1;
            double most = 0;
            for (int i = 0; i < n; i++)
                for (int j = i + 1; !gone[i] && j < n; j++) {
                    if (gone[j]) continue;
                    double mean = between[i][j]
                            / (chains.get(i).size() * chains.get(j).size());
                    if (mean > most) {
                        most = mean;
                        one = i;
                        other = j;
                    }
                }
            if (one < 0) break;
            chains.set(one, joined(chains.get(one), chains.get(other), near));
            gone[other] = true;
            for (int i = 0; i < n; i++) {
                between[one][i] += between[other][i];
                between[i][one] = between[one][i];
            }
        }
        List<Long> order = new ArrayList<>();
        for (boolean linked : new boolean[] {true, false})
            for (int i = 0; i < n; i++)
                if (!gone[i] && chains.get(i).size() > 1 == linked)
                    for (int student : chains.get(i))
                        order.add(voices.get(student).student());
        return order;
    }

    private static List<Integer> joined(List<Integer> left, List<Integer> right, double[][] near) {
        List<Integer> best = List.of();
        double most = -1;
        for (boolean turnLeft : new boolean[] {false, true})
            for (boolean turnRight : new boolean[] {false, true}) {
                List<Integer> a = turned(left, turnLeft);
                List<Integer> b = turned(right, turnRight);
                double meet = near[a.get(a.size() - 1)][b.get(0)];
                if (meet <= most) continue;
                most = meet;
                best = new ArrayList<>(a);
                best.addAll(b);
            }
        return best;
    }

    private static List<Integer> turned(List<Integer> chain, boolean turn) {
        List<Integer> copy = new ArrayList<>(chain);
        if (turn) Collections.reverse(copy);
        return copy;
    }
}
