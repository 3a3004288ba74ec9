package org.vastporch.server.feeds;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.feeds.EntryIdentity;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.feeds.EntryIdentity.Known;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.feeds.Feed;
import org.vastporch.core.prompts.PromptMatch;
import org.vastporch.core.writing.Tags;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.feeds.SourceStore.FreshEntry;
import org.vastporch.server.feeds.SourceStore.KnownEntry;
import org.vastporch.server.feeds.SourceStore.Source;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.GatheredPosts;
import org.vastporch.server.writing.Posts;

/**
 * Takes in what a feed carries: new entries and changed ones, as posts of the student whose blog it is, or as news of
 * the class. Runs within the transaction of the check.
 */
@Component
class SourceIntake {

    private static final int LONGEST_LINK = 1_900;

    private final SourceStore store;
    private final GonePostStore gone;
    private final GatheredPosts posts;
    private final Posts texts;
    private final PromptService prompts;
    private final ClassService classes;
    private final PeopleService people;
    private final Clock clock;

    SourceIntake(
            SourceStore store,
            GonePostStore gone,
            GatheredPosts posts,
            Posts texts,
            PromptService prompts,
            ClassService classes,
            PeopleService people,
            Clock clock) {
        this.store = store;
        this.gone = gone;
        this.posts = posts;
        this.texts = texts;
        this.prompts = prompts;
        this.classes = classes;
        this.people = people;
        this.clock = clock;
    }

    /**
     * @param whole texts of entries whose feed carries only their beginnings, by their links
     * @param made what becomes of new entries; null if they are news
     * @param begins entries from before are left out
     */
    private record Of(
            Source source,
            Map<String, String> whole,
            @Nullable Made made,
            Instant begins,
            Instant now) {}

    /**
     * Entries become posts.
     *
     * @param prompts those that posts may answer
     * @param twins posts that were made of the same pages elsewhere, by another source of the student or brought in by
     *     hand, by their addresses
     */
    private record Made(GatheredPosts.Home home, List<PromptMatch.Candidate> prompts, Map<String, Long> twins) {}

    /** The entries of a student's feed that are new or have changed. */
    List<Entry> changed(Source source, Feed feed) {
        if (source.personId() == null) return List.of();
        List<Entry> entries = feed.wholeEntries();
        Map<String, KnownEntry> known = store.entries(source.id(), EntryIdentity.candidates(entries));
        List<String> keys = keys(entries, known);
        return IntStream.range(0, keys.size())
                .filter(i -> !known.containsKey(keys.get(i))
                        || !EntryIdentity.isSame(
                                entries.get(i), known.get(keys.get(i)).contentHash()))
                .mapToObj(entries::get)
                .toList();
    }

    private static List<String> keys(List<Entry> entries, Map<String, KnownEntry> known) {
        return EntryIdentity.keysOf(entries, key -> Optional.ofNullable(known.get(key))
                .map(e -> new Known(e.cleanLink(), e.contentHash())));
    }

    /** @param whole texts of entries whose feed carries only their beginnings, by their links */
    void take(Source source, Feed feed, Map<String, String> whole) {
        // Half an entry must not take the place of a whole one.
        List<Entry> entries = feed.wholeEntries();
        Map<String, KnownEntry> known = store.entries(source.id(), EntryIdentity.candidates(entries));
        List<String> keys = keys(entries, known);
        Of of = new Of(source, whole, made(source, entries), begins(source), clock.instant());
        List<FreshEntry> fresh = new ArrayList<>();
        for (int i = 0; i < keys.size(); i++) {
            KnownEntry before = known.get(keys.get(i));
            if (before != null && EntryIdentity.isSame(entries.get(i), before.contentHash())) continue;
            FreshEntry entry = taken(of, keys.get(i), entries.get(i), before);
            if (before == null) fresh.add(entry);
            else store.changeEntry(source.id(), entry);
        }
        store.addEntries(source.id(), fresh, of.now());
        if (of.made() != null && !feed.cut() && !entries.isEmpty())
            gone.hurry(source.id(), keys, oldest(entries, of.now()), of.now());
    }

    private static Instant oldest(List<Entry> entries, Instant now) {
        return entries.stream()
                .map(e -> EntryIdentity.dateOf(e, now))
                .min(Comparator.naturalOrder())
                .orElse(now);
    }

    private Instant begins(Source source) {
        return source.beginsOn() == null
                ? Instant.MIN
                : classes.get(source.classId()).term().startOf(source.beginsOn());
    }

    private @Nullable Made made(Source source, List<Entry> entries) {
        if (source.personId() == null
                || source.blogId() == null
                || !people.students(source.classId()).contains(source.personId())) return null;
        List<PromptMatch.Candidate> candidates = prompts.all(source.classId()).stream()
                .map(p -> new PromptMatch.Candidate(p.id(), p.title(), p.tag(), p.opens(), null))
                .toList();
        Set<String> links = entries.stream()
                .map(SourceIntake::cleanLink)
                .filter(l -> !l.isEmpty())
                .collect(Collectors.toSet());
        Map<String, Long> twins = new HashMap<>(posts.broughtIn(source.classId(), source.personId(), links));
        twins.putAll(store.postsOfLinks(source.classId(), source.personId(), source.id(), links));
        return new Made(posts.home(source.classId(), source.blogId(), source.personId()), candidates, twins);
    }

    private static String link(Entry entry) {
        return entry.link() == null || entry.link().length() > LONGEST_LINK ? "" : entry.link();
    }

    private static String cleanLink(Entry entry) {
        String link = link(entry);
        return link.isEmpty() ? "" : EntryIdentity.cleanLink(link);
    }

    private FreshEntry taken(Of of, String key, Entry entry, @Nullable KnownEntry known) {
        String link = link(entry);
        String cleanLink = cleanLink(entry);
        Instant date = EntryIdentity.dateOf(entry, of.now());
        Long post = known == null ? null : known.postId();
        boolean leftOut = known == null ? date.isBefore(of.begins()) : known.leftOut();
        if (of.made() != null && !leftOut) {
            // Entries that share one link in this source are not one page.
            Long twin =
                    post != null || key.contains("#") ? null : of.made().twins().get(cleanLink);
            post = twin != null ? twin : Long.valueOf(post(of, entry, link, date, post));
        }
        return new FreshEntry(
                key, EntryIdentity.contentHash(entry), link, cleanLink, entry.title(), date, leftOut, post);
    }

    private long post(Of of, Entry entry, String link, Instant date, @Nullable Long known) {
        Source source = of.source();
        PromptMatch.Match match =
                PromptMatch.find(entry.tags(), date, of.made().prompts()).orElse(null);
        String whole = entry.link() == null ? null : of.whole().get(entry.link());
        Excerpt excerpt =
                whole != null ? Excerpt.COMPLETED : Excerpt.look(entry) == Excerpt.Look.SURE ? Excerpt.BEGINNING : null;
        // A beginning does not take the place of the whole that came before.
        if (excerpt == Excerpt.BEGINNING && known != null && isHere(entry, known)) return known;
        return posts.takeIn(
                of.made().home(),
                new GatheredPosts.Gathered(
                        source.id(),
                        match,
                        link,
                        entry.title(),
                        whole == null ? entry.html() : whole,
                        Tags.tidy(entry.tags()),
                        date,
                        excerpt),
                known);
    }

    private boolean isHere(Entry entry, long post) {
        return texts.newest(post)
                .filter(text -> Excerpt.whole(entry, text.html()).isPresent())
                .isPresent();
    }
}
