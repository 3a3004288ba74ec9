package org.vastporch.server.reading;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.server.reading.PorchCounts.Category;
import org.vastporch.server.reading.PorchCounts.Post;
import org.vastporch.server.reading.PorchCounts.Prompt;
import org.vastporch.server.reading.PorchCounts.Source;
import org.vastporch.server.reading.PorchCounts.Tag;
import org.vastporch.server.reading.PorchStore.Count;
import org.vastporch.server.reading.PorchStore.Filter;

/** What a number beside a filter promises is what the filter leaves. */
class PorchCountsTest {

    private static final List<Prompt> PROMPTS = List.of(
            new Prompt(1, "Week 1 log", Instant.parse("2026-10-11T19:00:00Z")),
            new Prompt(2, "Week 2 log", Instant.parse("2026-10-18T19:00:00Z")));
    private static final List<Category> CATEGORIES = List.of(new Category(5, "Weather", 2), new Category(6, "Soil", 1));
    private static final List<Source> SOURCES = List.of(new Source(8, "Oakum Days"), new Source(9, "Rowlock"));
    private static final List<Tag> TAGS =
            List.of(new Tag("kale", "Kale"), new Tag("kale", "kale"), new Tag("soil", "soil"));

    private static <T> @Nullable T oneOf(List<T> some, Random chance) {
        int i = chance.nextInt(some.size() + 1);
        return i == some.size() ? null : some.get(i);
    }

    private static PorchCounts generated(long seed) {
        Random chance = new Random(seed);
        List<Post> posts = new ArrayList<>();
        Map<Long, List<Tag>> tags = new HashMap<>();
        Map<Long, List<Around.Voice>> voices = new HashMap<>();
        Set<Long> seen = new HashSet<>();
        for (long i = chance.nextInt(60); i > 0; i--) {
            Tag tag = oneOf(TAGS, chance);
            if (tag != null) tags.put(i, List.of(tag));
            posts.add(new Post(
                    i,
                    Instant.EPOCH.plusSeconds(chance.nextInt(20)),
                    chance.nextInt(1, 5),
                    chance.nextInt(4) > 0,
                    chance.nextBoolean() ? null : chance.nextLong(1, 3),
                    oneOf(PROMPTS, chance),
                    oneOf(CATEGORIES, chance),
                    oneOf(SOURCES, chance)));
            if (chance.nextBoolean())
                voices.put(i, List.of(new Around.Voice(chance.nextLong(1, 5), 1, Instant.EPOCH, i)));
            if (chance.nextBoolean()) seen.add(i);
        }
        return new PorchCounts(posts, tags, new Around(1, voices, seen));
    }

    private static Filter filter(
            @Nullable Long person,
            @Nullable Long group,
            @Nullable String prompt,
            @Nullable String category,
            @Nullable String source,
            @Nullable String tag,
            boolean unanswered) {
        return new Filter(
                null,
                null,
                person,
                group,
                prompt == null ? null : Long.valueOf(prompt),
                tag,
                category == null ? null : Long.valueOf(category),
                source == null ? null : Long.valueOf(source),
                unanswered,
                null,
                false,
                PorchStore.Kind.POSTS);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void everyNumberIsWhatItsFilterLeaves(long seed) {
        PorchCounts counts = generated(seed);
        List<Long> persons = new ArrayList<>(List.of(1L, 4L));
        persons.add(null);
        for (Long person : persons) {
            for (Count c : counts.byPrompt(person))
                assertEquals(c.count(), counts.total(filter(person, null, c.key(), null, null, null, false)));
            for (Count c : counts.byCategory(person))
                assertEquals(c.count(), counts.total(filter(person, null, null, c.key(), null, null, false)));
            for (Count c : counts.bySource(person))
                assertEquals(c.count(), counts.total(filter(person, null, null, null, c.key(), null, false)));
            for (Count c : counts.byTag(person)) {
                assertEquals(c.count(), counts.total(filter(person, null, null, null, null, c.key(), false)));
                assertEquals(
                        c.count(),
                        counts.total(
                                filter(person, null, null, null, null, c.label().toUpperCase(), false)),
                        "however a tag is written");
            }
            assertEquals(counts.unanswered(person), counts.total(filter(person, null, null, null, null, null, true)));
        }
        counts.byPerson()
                .forEach((person, n) ->
                        assertEquals(n, counts.total(filter(person, null, null, null, null, null, false))));
        Filter all = filter(null, null, null, null, null, null, false);
        assertEquals(counts.posts().size(), counts.total(all));
        assertEquals(
                counts.posts().stream()
                        .filter(p ->
                                p.authorId() != 1 && !counts.around().seen().contains(p.id()))
                        .map(Post::id)
                        .toList(),
                counts.unread(all));
        assertTrue(counts.total(filter(null, 1L, null, null, null, null, false)) <= counts.total(all));
        assertEquals(
                counts.posts().stream()
                        .filter(p -> p.isNamed() && Long.valueOf(2).equals(p.group()))
                        .count(),
                counts.total(filter(null, 2L, null, null, null, null, false)));
    }

    /** Posts with these tags, those with an even number of them for the first prompt and the first category. */
    private static PorchCounts tagged(List<List<String>> of) {
        List<Post> posts = new ArrayList<>();
        Map<Long, List<Tag>> tags = new HashMap<>();
        for (List<String> its : of) {
            long id = posts.size();
            tags.put(id, its.stream().map(t -> new Tag(t.toLowerCase(), t)).toList());
            int odd = its.size() % 2;
            posts.add(new Post(id, Instant.EPOCH, 1, true, null, PROMPTS.get(odd), CATEGORIES.get(odd), null));
        }
        return new PorchCounts(posts, tags, new Around(1, Map.of(), Set.of()));
    }

    private static List<String> said(List<Count> counts) {
        return counts.stream().map(c -> c.label() + " " + c.count()).toList();
    }

    @Test
    void theyStandInTheOrderOfThePage() {
        PorchCounts counts = tagged(List.of(List.of("beans", "Kale"), List.of("kale"), List.of("ants"), List.of()));
        assertEquals(List.of("Kale 2", "ants 1", "beans 1"), said(counts.byTag(null)));
        assertEquals(List.of("Week 2 log 2", "Week 1 log 2"), said(counts.byPrompt(null)));
        assertEquals(List.of("Soil 2", "Weather 2"), said(counts.byCategory(null)));
    }

    @Test
    void onlyTheTagsInMostPostsAreOffered() {
        List<List<String>> of = new ArrayList<>();
        for (int i = 0; i < 20; i++) of.add(List.of("tag" + i));
        of.add(List.of("tag19"));
        List<Count> tags = tagged(of).byTag(null);
        assertEquals(16, tags.size());
        assertEquals("tag19", tags.get(0).key());
    }

    @Test
    void whoSpokeLastIsWhoeverCommentedLast() {
        Instant then = Instant.parse("2026-11-01T10:00:00Z");
        Around around = new Around(
                7,
                Map.of(
                        1L,
                        List.of(
                                new Around.Voice(3L, 2, then, 20),
                                new Around.Voice(4L, 1, then.plusSeconds(1), 19),
                                new Around.Voice(null, 1, then, 21)),
                        2L,
                        List.of(new Around.Voice(3L, 1, then, 5), new Around.Voice(null, 1, then, 6)),
                        3L,
                        List.of(new Around.Voice(9L, 1, then, 7))),
                Set.of(2L));
        assertEquals(4, around.comments(1));
        assertEquals(0, around.comments(8));
        assertEquals(4L, around.lastCommenter(1));
        assertNull(around.lastCommenter(2), "a visitor");
        assertNull(around.lastCommenter(8), "nobody");
        assertTrue(around.isAnswered(1, 3));
        assertFalse(around.isAnswered(2, 3), "oneself and visitors are no answer");
        assertTrue(around.isAnswered(3, 0), "news of nobody's");
        assertTrue(around.isUnread(1, 3));
        assertTrue(around.isUnread(1, 0));
        assertFalse(around.isUnread(2, 3));
        assertFalse(around.isUnread(1, 7), "one's own");
    }

    /** Law: page after page gives every post that the filter leaves, once and in order, from either end. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4})
    void pagesFollowEachOther(long seed) {
        PorchCounts counts = generated(seed);
        Filter some = filter(null, 1L, null, null, null, null, false);
        Map<Long, Post> byId = new HashMap<>();
        counts.posts().forEach(p -> byId.put(p.id(), p));
        List<List<Long>> both = new ArrayList<>();
        for (boolean oldestFirst : new boolean[] {true, false}) {
            List<Long> all = new ArrayList<>();
            PorchStore.Page page = new PorchStore.Page(null, 0, oldestFirst, 3);
            for (List<Long> next = counts.page(some, page); !next.isEmpty(); next = counts.page(some, page)) {
                all.addAll(next);
                Post last = byId.get(next.get(next.size() - 1));
                page = new PorchStore.Page(last.publishedAt(), last.id(), oldestFirst, 3);
            }
            assertEquals(counts.total(some), all.size());
            assertEquals(all.size(), Set.copyOf(all).size());
            both.add(all);
        }
        Collections.reverse(both.get(1));
        assertEquals(both.get(0), both.get(1));
    }
}
