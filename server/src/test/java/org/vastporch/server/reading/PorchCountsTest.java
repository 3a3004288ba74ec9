package org.vastporch.server.reading;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
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
        for (long i = chance.nextInt(60); i > 0; i--) {
            Tag tag = oneOf(TAGS, chance);
            if (tag != null) tags.put(i, List.of(tag));
            posts.add(new Post(
                    i,
                    chance.nextInt(1, 5),
                    chance.nextBoolean() ? null : chance.nextLong(1, 3),
                    oneOf(PROMPTS, chance),
                    oneOf(CATEGORIES, chance),
                    oneOf(SOURCES, chance),
                    chance.nextBoolean(),
                    chance.nextBoolean()));
        }
        return new PorchCounts(posts, tags);
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
        assertEquals(counts.posts().stream().filter(Post::unread).count(), counts.unread(all));
        assertTrue(counts.total(filter(null, 1L, null, null, null, null, false)) <= counts.total(all));
        assertEquals(
                counts.posts().stream()
                        .filter(p -> Long.valueOf(2).equals(p.group()))
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
            posts.add(new Post(id, 1, null, PROMPTS.get(odd), CATEGORIES.get(odd), null, false, false));
        }
        return new PorchCounts(posts, tags);
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
}
