package org.vastporch.core.sameness;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.vastporch.core.sameness.Sameness.Found;
import org.vastporch.core.sameness.Sameness.Pair;

/**
 * What two texts share, held against a second reading of the rules that compares words as words: a run is five of them;
 * one that more than a third of the texts have (and more than five texts) is common; a passage is the longest stretch
 * of equal words all of whose runs count, longest first, cut where an earlier passage lies.
 */
class SlowSamenessTest {

    private static final int RUN = 5;

    private record Stretch(int words, int i, int j) {}

    private final Random random = new Random(5);
    private final List<List<String>> chunks = IntStream.range(0, 9)
            .mapToObj(c -> IntStream.range(0, 6 + random.nextInt(9))
                    .mapToObj(w -> "c" + random.nextInt(14))
                    .toList())
            .toList();

    /** Parts that others have too, in any order and any number of times, with words of its own between some. */
    private List<String> text(int id) {
        List<String> words = new ArrayList<>();
        for (int part = 0; part < 7; part++) {
            List<String> chunk = chunks.get(random.nextInt(chunks.size()));
            words.addAll(random.nextInt(4) == 0 ? chunk.subList(0, 3) : chunk);
            for (int own = random.nextInt(3); own > 0; own--) words.add("own" + id + "x" + random.nextInt(99));
        }
        return words;
    }

    private static List<List<String>> runs(List<String> words) {
        return IntStream.rangeClosed(0, words.size() - RUN)
                .mapToObj(i -> words.subList(i, i + RUN))
                .toList();
    }

    /** Positions of the runs of a text that touch its quotation, by words. */
    private static boolean isQuoted(int run, int[] quoted) {
        return run < quoted[1] && run + RUN > quoted[0];
    }

    @Test
    void itFindsWhatASlowReadingFinds() {
        int passages = 0;
        int common = 0;
        for (int world = 0; world < 60; world++) {
            int n = 7 + random.nextInt(12);
            List<List<String>> texts =
                    IntStream.range(0, n).mapToObj(this::text).toList();
            List<int[]> quoted = texts.stream()
                    .map(t -> random.nextInt(3) > 0
                            ? new int[] {0, 0}
                            : new int[] {random.nextInt(10), 10 + random.nextInt(15)})
                    .toList();
            List<String> starter = chunks.get(random.nextInt(chunks.size()));
            Found found = Sameness.among(answers(texts, quoted), List.of(String.join(" ", starter)));

            Set<List<String>> leftOut = new HashSet<>(runs(starter));
            List<Set<List<String>>> counting = new ArrayList<>();
            for (int t = 0; t < n; t++) counting.add(counting(texts.get(t), quoted.get(t), leftOut));
            Set<List<String>> shared = common(counting);
            assertEquals(shared.size(), found.commonRuns());
            common += shared.size();
            assertEquals(commonSigns(texts, quoted, shared), signs(found.common()));
            for (Common stretch : found.common())
                assertEquals(
                        IntStream.rangeClosed(0, stretch.words().size() - RUN)
                                .mapToObj(i -> stretch.words().subList(i, i + RUN))
                                .mapToInt(run -> (int) counting.stream()
                                        .filter(c -> c.contains(run))
                                        .count())
                                .max()
                                .orElseThrow(),
                        stretch.texts());
            counting.forEach(c -> c.removeAll(shared));

            Map<List<Integer>, Pair> pairs = new TreeMap<>(Comparator.comparing(List::toString));
            for (Pair pair : found.pairs()) pairs.put(List.of((int) pair.first(), (int) pair.second()), pair);
            for (int a = 0; a < n; a++)
                for (int b = a + 1; b < n; b++) {
                    Pair pair = pairs.get(List.of(a, b));
                    Set<List<String>> both = new HashSet<>(counting.get(a));
                    both.retainAll(counting.get(b));
                    if (both.size() < 4) {
                        assertNull(pair, "they share no eight words");
                        continue;
                    }
                    Set<List<String>> either = new HashSet<>(counting.get(a));
                    either.addAll(counting.get(b));
                    assertEquals((double) both.size() / either.size(), pair.jaccard(), 1e-12);
                    int fewer = Math.min(counting.get(a).size(), counting.get(b).size());
                    assertEquals((double) both.size() / fewer, pair.containment(), 1e-12);
                    List<Stretch> slow = slow(texts.get(a), quoted.get(a), texts.get(b), quoted.get(b), both);
                    assertEquals(places(slow, texts.get(a), texts.get(b)), pair.passages());
                    assertEquals(slow.stream().mapToInt(Stretch::words).sum(), pair.sharedWords());
                    passages += slow.size();
                }
            List<Pair> sorted = found.pairs().stream()
                    .sorted(Comparator.comparingInt(Pair::sharedWords)
                            .reversed()
                            .thenComparingLong(Pair::first)
                            .thenComparingLong(Pair::second))
                    .toList();
            assertEquals(sorted, found.pairs());
        }
        assertTrue(passages > 1_000 && common > 500, passages + " passages, " + common + " common runs");
    }

    /** Which signs of which text stand in a common run. */
    private static Set<String> commonSigns(List<List<String>> texts, List<int[]> quoted, Set<List<String>> shared) {
        Set<String> signs = new TreeSet<>();
        for (int t = 0; t < texts.size(); t++) {
            List<List<String>> runs = runs(texts.get(t));
            for (int i = 0; i < runs.size(); i++)
                if (shared.contains(runs.get(i)) && !isQuoted(i, quoted.get(t)))
                    for (int at = start(texts.get(t), i); at < start(texts.get(t), i + RUN) - 1; at++)
                        signs.add(t + " " + at);
        }
        return signs;
    }

    private static Set<String> signs(List<Common> stretches) {
        Set<String> signs = new TreeSet<>();
        for (Common stretch : stretches)
            for (int at = stretch.start(); at < stretch.end(); at++) signs.add(stretch.text() + " " + at);
        return signs;
    }

    private static List<Answer> answers(List<List<String>> texts, List<int[]> quoted) {
        List<Answer> answers = new ArrayList<>();
        for (int t = 0; t < texts.size(); t++) {
            List<String> words = texts.get(t);
            int[] q = quoted.get(t);
            List<Answer.Span> spans = q[1] == 0
                    ? List.of()
                    : List.of(new Answer.Span(
                            start(words, q[0]),
                            start(words, q[1] - 1) + words.get(q[1] - 1).length()));
            answers.add(new Answer(t, String.join(" ", words), spans));
        }
        return answers;
    }

    private static int start(List<String> words, int at) {
        return words.subList(0, at).stream().mapToInt(w -> w.length() + 1).sum();
    }

    private static Set<List<String>> counting(List<String> words, int[] quoted, Set<List<String>> leftOut) {
        Set<List<String>> counting = new HashSet<>();
        List<List<String>> runs = runs(words);
        for (int i = 0; i < runs.size(); i++)
            if (!isQuoted(i, quoted) && !leftOut.contains(runs.get(i))) counting.add(runs.get(i));
        return counting;
    }

    private static Set<List<String>> common(List<Set<List<String>>> texts) {
        Map<List<String>, Long> many =
                texts.stream().flatMap(Set::stream).collect(Collectors.groupingBy(r -> r, Collectors.counting()));
        return many.entrySet().stream()
                .filter(e -> e.getValue() > 5 && 3 * e.getValue() > texts.size())
                .map(Map.Entry::getKey)
                .collect(Collectors.toSet());
    }

    private static List<Stretch> slow(
            List<String> one, int[] quoted, List<String> other, int[] quotedThere, Set<List<String>> both) {
        List<List<String>> ofOne = runs(one);
        List<List<String>> ofOther = runs(other);
        boolean[][] equal = new boolean[ofOne.size() + 1][ofOther.size() + 1];
        for (int i = 0; i < ofOne.size(); i++)
            for (int j = 0; j < ofOther.size(); j++)
                equal[i][j] = both.contains(ofOne.get(i))
                        && ofOne.get(i).equals(ofOther.get(j))
                        && !isQuoted(i, quoted)
                        && !isQuoted(j, quotedThere);
        List<Stretch> all = new ArrayList<>();
        for (int i = 0; i < ofOne.size(); i++)
            for (int j = 0; j < ofOther.size(); j++) {
                if (!equal[i][j] || i > 0 && j > 0 && equal[i - 1][j - 1]) continue;
                int more = 0;
                while (equal[i + more][j + more]) more++;
                all.add(new Stretch(more + RUN - 1, i, j));
            }
        all.sort(Comparator.comparingInt(Stretch::words)
                .reversed()
                .thenComparingInt(Stretch::i)
                .thenComparingInt(Stretch::j));
        Set<Integer> taken = new HashSet<>();
        Set<Integer> takenThere = new HashSet<>();
        List<Stretch> passages = new ArrayList<>();
        for (Stretch s : all) {
            List<Integer> free = IntStream.range(0, s.words())
                    .filter(k -> !taken.contains(s.i() + k) && !takenThere.contains(s.j() + k))
                    .boxed()
                    .toList();
            if (free.size() < RUN) continue;
            int from = free.get(0);
            int words = free.get(free.size() - 1) + 1 - from;
            // One that is cut in the middle is left.
            if (words != free.size()) continue;
            for (int k : free) {
                taken.add(s.i() + k);
                takenThere.add(s.j() + k);
            }
            passages.add(new Stretch(words, s.i() + from, s.j() + from));
        }
        return passages;
    }

    private static List<Passage> places(List<Stretch> passages, List<String> one, List<String> other) {
        return passages.stream()
                .map(s -> new Passage(
                        s.words(), start(one, s.i()), end(one, s), start(other, s.j()), end(other, s.j(), s.words())))
                .sorted(Comparator.comparingInt(Passage::words).reversed().thenComparingInt(Passage::start))
                .toList();
    }

    private static int end(List<String> words, Stretch s) {
        return end(words, s.i(), s.words());
    }

    private static int end(List<String> words, int from, int many) {
        int last = from + many - 1;
        return start(words, last) + words.get(last).length();
    }

    @Test
    void wordsKnowWhereTheyBeginAndEnd() {
        assertWords("  one,two-three  4x!", "one 2-5", "two-three 6-15", "4x 17-19");
        assertWords("’ab’ c'- d", "ab 1-3", "c 5-6", "d 9-10");
        assertWords("ab-", "ab 0-2");
        assertWords("日本a b", "日 0-1", "本 1-2", "a 2-3", "b 4-5");
        assertWords("𝒂b 𠀀", "𝒂b 0-3", "𠀀 4-6");
        assertWords("...");
        assertWords("");
    }

    private static void assertWords(String text, String... expected) {
        List<String> found = Words.of(text).places().stream()
                .map(p -> text.substring(p.start(), p.end()) + " " + p.start() + "-" + p.end())
                .toList();
        assertEquals(Arrays.asList(expected), found);
    }
}
