package org.vastporch.server.feeds;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.feeds.EntryIdentity;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.feeds.EntryIdentity.Known;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.feeds.Feed;
import org.vastporch.core.feeds.PromptMatch;
import org.vastporch.core.writing.Tags;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.feeds.SourceStore.FreshEntry;
import org.vastporch.server.feeds.SourceStore.KnownEntry;
import org.vastporch.server.feeds.SourceStore.Source;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.PostService;
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
    private final PostService posts;
    private final Posts texts;
    private final PromptService prompts;
    private final ClassService classes;
    private final PeopleService people;
    private final Clock clock;

    SourceIntake(
            SourceStore store,
            GonePostStore gone,
            PostService posts,
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
     * @param prompts those that posts may answer; null if the entries are news
     * @param begins entries from before are left out
     */
    private record Of(
            Source source,
            Map<String, String> whole,
            @Nullable List<PromptMatch.Candidate> prompts,
            Instant begins,
            Instant now) {}

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
        Of of = new Of(source, whole, promptsFor(source), begins(source), clock.instant());
        List<FreshEntry> fresh = new ArrayList<>();
        for (int i = 0; i < keys.size(); i++) {
            KnownEntry before = known.get(keys.get(i));
            if (before != null && EntryIdentity.isSame(entries.get(i), before.contentHash())) continue;
            FreshEntry entry = taken(of, keys.get(i), entries.get(i), before);
            if (before == null) fresh.add(entry);
            else store.changeEntry(source.id(), entry);
        }
        store.addEntries(source.id(), fresh, of.now());
        if (of.prompts() != null && !feed.cut() && !entries.isEmpty())
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

    private @Nullable List<PromptMatch.Candidate> promptsFor(Source source) {
        if (source.personId() == null
                || source.blogId() == null
                || !people.students(source.classId()).contains(source.personId())) return null;
        return prompts.all(source.classId()).stream()
                .map(p -> new PromptMatch.Candidate(p.id(), p.title(), p.tag(), p.opens(), null))
                .toList();
    }

    private FreshEntry taken(Of of, String key, Entry entry, @Nullable KnownEntry known) {
        String said = entry.link() == null ? "" : entry.link();
        String link = said.length() > LONGEST_LINK ? "" : said;
        String cleanLink = link.isEmpty() ? "" : EntryIdentity.cleanLink(link);
        Instant date = EntryIdentity.dateOf(entry, of.now());
        Long post = known == null ? null : known.postId();
        boolean leftOut = known == null ? date.isBefore(of.begins()) : known.leftOut();
        if (of.prompts() != null && !leftOut) {
            Optional<Long> twin = post != null ? Optional.empty() : twin(of.source(), cleanLink, key);
            post = twin.isPresent() ? twin.get() : post(of, entry, link, date, post);
        }
        return new FreshEntry(
                key, EntryIdentity.contentHash(entry), link, cleanLink, entry.title(), date, leftOut, post);
    }

    /** The post that was made of the same page elsewhere: by another source of the student, or brought in by hand. */
    private Optional<Long> twin(Source source, String cleanLink, String key) {
        // Entries that share one link in this source are not one page.
        if (key.contains("#") || cleanLink.isEmpty()) return Optional.empty();
        return store.postOfLink(source.classId(), source.personId(), source.id(), cleanLink)
                .or(() -> posts.broughtIn(source.classId(), source.personId(), cleanLink));
    }

    private long post(Of of, Entry entry, String link, Instant date, @Nullable Long known) {
        Source source = of.source();
        PromptMatch.Match match =
                PromptMatch.find(entry.tags(), date, of.prompts()).orElse(null);
        String whole = entry.link() == null ? null : of.whole().get(entry.link());
        Excerpt excerpt =
                whole != null ? Excerpt.COMPLETED : Excerpt.look(entry) == Excerpt.Look.SURE ? Excerpt.BEGINNING : null;
        // A beginning does not take the place of the whole that came before.
        if (excerpt == Excerpt.BEGINNING && known != null && isHere(entry, known)) return known;
        return posts.takeIn(
                source.classId(),
                source.blogId(),
                source.personId(),
                new PostService.Gathered(
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
        return texts.marked(post, null)
                .filter(text -> Excerpt.whole(entry, text.html()).isPresent())
                .isPresent();
    }
}
