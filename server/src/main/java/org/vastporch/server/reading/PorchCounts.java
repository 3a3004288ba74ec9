package org.vastporch.server.reading;

import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.BiFunction;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.text.Folding;
import org.vastporch.server.reading.PorchStore.Count;
import org.vastporch.server.reading.PorchStore.Filter;

/**
 * What the Porch can be narrowed by, and how many posts that leaves: the posts of its weeks are gone through once
 * instead of being counted by the database for each.
 *
 * @param posts those that the reader may read, of the weeks, the blog and the kind that the page is about
 * @param tags of each by its id; left out if it has none
 * @param around who answered them, for a reader who has opened none of them yet
 */
record PorchCounts(List<Post> posts, Map<Long, List<Tag>> tags, Around around) {

    private static final int MOST_TAGS = 16;
    private static final int MOST_SOURCES = 12;

    /**
     * A post as far as counting goes.
     *
     * @param isNamed whether the reader may know who wrote it
     * @param group of its author; null for none
     */
    record Post(
            long id,
            Instant publishedAt,
            long authorId,
            boolean isNamed,
            @Nullable Long group,
            @Nullable Prompt prompt,
            @Nullable Category category,
            @Nullable Source source) {}

    record Prompt(long id, String title, Instant due) {}

    record Category(long id, String name, int place) {}

    record Source(long id, String title) {}

    record Tag(String folded, String tag) {}

    /** The posts of one page, in its order. */
    List<Long> page(Filter filter, PorchStore.Page page) {
        Comparator<Post> order = Comparator.comparing(Post::publishedAt).thenComparing(Post::id);
        if (!page.oldestFirst()) order = order.reversed();
        return fitting(filter)
                .filter(p -> page.isAhead(p.publishedAt(), p.id()))
                .sorted(order)
                .limit(page.most())
                .map(Post::id)
                .toList();
    }

    int total(Filter filter) {
        return (int) fitting(filter).count();
    }

    /** The posts that are new to the reader if they were never opened. */
    List<Long> unread(Filter filter) {
        return fitting(filter)
                .filter(p -> around.isUnread(p.id(), p.authorId()))
                .map(Post::id)
                .toList();
    }

    /** How many of a person's posts nobody has answered; null for everybody's. */
    int unanswered(@Nullable Long person) {
        return (int) of(person).filter(p -> !isAnswered(p)).count();
    }

    private boolean isAnswered(Post post) {
        return around.isAnswered(post.id(), post.authorId());
    }

    Map<Long, Integer> byPerson() {
        return counted(posts.stream().filter(Post::isNamed).map(Post::authorId));
    }

    /** The prompt due last first. */
    List<Count> byPrompt(@Nullable Long person) {
        return counted(of(person).map(Post::prompt)).entrySet().stream()
                .sorted(Comparator.comparing(e -> e.getKey().due(), Comparator.reverseOrder()))
                .map(e -> new Count(String.valueOf(e.getKey().id()), e.getKey().title(), e.getValue()))
                .toList();
    }

    /** In the order of the class. */
    List<Count> byCategory(@Nullable Long person) {
        return counted(of(person).map(Post::category)).entrySet().stream()
                .sorted(Comparator.comparing(e -> e.getKey().place()))
                .map(e -> new Count(String.valueOf(e.getKey().id()), e.getKey().name(), e.getValue()))
                .toList();
    }

    /** Those with the most posts. */
    List<Count> bySource(@Nullable Long person) {
        return most(
                counted(of(person).map(Post::source)),
                Comparator.comparing(Source::id),
                (source, n) -> new Count(String.valueOf(source.id()), source.title(), n),
                MOST_SOURCES);
    }

    /** Those with the most posts; of several ways to write a tag the first in the order of signs stands for it. */
    List<Count> byTag(@Nullable Long person) {
        Map<String, String> labels = new HashMap<>();
        of(person)
                .flatMap(this::tagsOf)
                .forEach(t -> labels.merge(t.folded(), t.tag(), (a, b) -> a.compareTo(b) <= 0 ? a : b));
        Map<String, Integer> counts = counted(of(person).flatMap(this::tagsOf).map(Tag::folded));
        return most(
                counts, Comparator.naturalOrder(), (folded, n) -> new Count(folded, labels.get(folded), n), MOST_TAGS);
    }

    private Stream<Tag> tagsOf(Post post) {
        return tags.getOrDefault(post.id(), List.of()).stream();
    }

    private Stream<Post> of(@Nullable Long person) {
        return posts.stream().filter(p -> person == null || p.isNamed() && p.authorId() == person);
    }

    private Stream<Post> fitting(Filter filter) {
        String tag = filter.tag() == null ? null : Folding.fold(filter.tag());
        Predicate<Post> tagged =
                p -> tag == null || tagsOf(p).anyMatch(t -> t.folded().equals(tag));
        return of(filter.person())
                .filter(p -> filter.group() == null || p.isNamed() && Objects.equals(p.group(), filter.group()))
                .filter(p -> filter.prompt() == null
                        || p.prompt() != null && p.prompt().id() == filter.prompt())
                .filter(p -> filter.category() == null
                        || p.category() != null && p.category().id() == filter.category())
                .filter(p -> filter.source() == null
                        || p.source() != null && p.source().id() == filter.source())
                .filter(p -> !filter.unanswered() || !isAnswered(p))
                .filter(tagged);
    }

    private static <K> Map<K, Integer> counted(Stream<K> keys) {
        Map<K, Integer> counts = new HashMap<>();
        keys.filter(Objects::nonNull).forEach(key -> counts.merge(key, 1, Integer::sum));
        return counts;
    }

    private static <K> List<Count> most(
            Map<K, Integer> counts, Comparator<K> among, BiFunction<K, Integer, Count> named, int most) {
        return counts.entrySet().stream()
                .sorted(Map.Entry.<K, Integer>comparingByValue(Comparator.reverseOrder())
                        .thenComparing(Map.Entry.comparingByKey(among)))
                .limit(most)
                .map(e -> named.apply(e.getKey(), e.getValue()))
                .toList();
    }
}
