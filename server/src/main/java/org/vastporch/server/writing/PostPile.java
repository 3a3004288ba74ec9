package org.vastporch.server.writing;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.text.Revision;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.writing.WorkUsed;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.Moderated;
import org.vastporch.server.moderation.PileDesk;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.people.Names;
import org.vastporch.server.writing.PostPileStore.DuePrompt;
import org.vastporch.server.writing.PostPileStore.InPile;
import org.vastporch.server.writing.PostStore.VersionKey;

/** Posts in the pile. */
@Component
class PostPile implements Moderated {

    private final PostStore store;
    private final PostPileStore pile;
    private final AccessService access;
    private final Clock clock;

    PostPile(PostStore store, PostPileStore pile, AccessService access, Clock clock) {
        this.store = store;
        this.pile = pile;
        this.access = access;
        this.clock = clock;
    }

    @Override
    public String subject() {
        return "post";
    }

    @Override
    public Optional<Text> lock(long id) {
        return store.lock(id)
                .map(p -> new Text(p.id(), p.classId(), p.authorId(), p.rev(), p.course(), p.isFromOutside()));
    }

    @Override
    public void settle(Text before, Course after, long by) {
        store.settle(store.find(before.id()).orElseThrow(), after, by, clock.instant());
    }

    @Override
    public Optional<Revision> changesSince(long id, int version) {
        VersionKey now = new VersionKey(
                id, store.find(id).orElseThrow(Problem::missing).standing().judged());
        VersionKey seen = new VersionKey(id, version);
        Map<VersionKey, Version> versions = store.versions(List.of(seen, now));
        if (versions.get(seen) == null) return Optional.empty();
        Map<Long, String> categories = store.categories(versions.values().stream()
                .map(v -> v.content().categoryId())
                .filter(Objects::nonNull)
                .collect(Collectors.toSet()));
        return Optional.of(Revision.of(side(versions.get(seen), categories), side(versions.get(now), categories)));
    }

    @Override
    public void requireReading(Viewer viewer, long id) {
        if (!access.requirePost(viewer, Act.READ, id).isUp()) throw Problem.missing();
    }

    @Override
    public Batch waiting(Collection<Long> classIds, PileFilter filter) {
        List<InPile> posts = pile.waiting(List.copyOf(classIds), filter);
        return new Batch(posts.stream().map(p -> text(p.post())).toList(), desk -> items(posts, desk));
    }

    private Waiting text(PostRow row) {
        return new Waiting(subject(), row.id(), row.classId(), row.authorId(), row.id());
    }

    /** What is known of the posts of one pile alone. */
    private record Known(Map<VersionKey, Version> versions, Map<Long, String> categories) {

        Version version(long post, int no) {
            return versions.get(new VersionKey(post, no));
        }
    }

    private List<PileItem> items(List<InPile> posts, PileDesk desk) {
        List<VersionKey> wanted = new ArrayList<>();
        for (InPile waits : posts) {
            PostRow row = waits.post();
            wanted.add(new VersionKey(row.id(), row.standing().judged()));
            Integer seen = seenBefore(row, desk);
            if (seen != null) wanted.add(new VersionKey(row.id(), seen));
        }
        Map<VersionKey, Version> versions = store.versions(wanted);
        Known known = new Known(
                versions,
                store.categories(versions.values().stream()
                        .map(v -> v.content().categoryId())
                        .filter(Objects::nonNull)
                        .collect(Collectors.toSet())));
        return posts.stream()
                .filter(waits -> desk.has(text(waits.post()))
                        && known.version(
                                        waits.post().id(),
                                        waits.post().standing().judged())
                                != null)
                .map(waits -> item(waits, known, desk))
                .toList();
    }

    private PileItem item(InPile waits, Known known, PileDesk desk) {
        PostRow row = waits.post();
        Waiting text = text(row);
        Names names = desk.names(row.classId());
        ClassService.ClassRecord in = desk.in(row.classId());
        Version version = known.version(row.id(), row.standing().judged());
        PostFacts facts = desk.post(row.id());
        Author author = desk.author(row.classId(), row.authorId());
        boolean reachesOthers = row.standing().live() != null && row.audience() != version.audience();
        return new PileItem(
                subject(),
                row.id(),
                row.classId(),
                in.name(),
                version.no(),
                row.rev(),
                names.of(row.authorId()),
                names.placeOf(row.authorId()),
                names.groupOf(row.authorId()),
                version.title(),
                Sanitiser.post(version.html()),
                besides(version, known.categories(), waits.word()),
                row.waitingSince(),
                waits.blog().title(),
                prompt(row, waits.prompt(), in.term()),
                row.outsideLink() == null
                        ? null
                        : new PileItem.Outside(hostOf(row.outsideLink()), row.outsideLink(), row.excerpt()),
                null,
                desk.holds(text),
                changes(row, version, known, desk),
                desk.history(text),
                desk.readers(facts.withAudience(version.audience())),
                reachesOthers ? desk.readers(facts) : null,
                author.approvals(),
                in.rules().trustAfter(),
                row.publishAt(),
                row.standing().asJudged(),
                in.rules().forPosts(author, waits.blog().posts()),
                desk.reports(text));
    }

    /** The version that somebody saw last: the live one, else the one that was returned; null if there is none. */
    private @Nullable Integer seenBefore(PostRow row, PileDesk desk) {
        if (row.standing().live() != null) return row.standing().live();
        List<PileItem.Past> history = desk.history(text(row));
        return history.isEmpty() ? null : Integer.valueOf(history.get(0).version());
    }

    /** What changed since the version that somebody saw last; null if that is nothing. */
    private @Nullable Revision changes(PostRow row, Version version, Known known, PileDesk desk) {
        Integer seen = seenBefore(row, desk);
        if (seen == null || seen == version.no()) return null;
        Version before = known.version(row.id(), seen);
        if (before == null) return null;
        Revision revision = Revision.of(side(before, known.categories()), side(version, known.categories()));
        return revision.isEmpty() ? null : revision;
    }

    private static Revision.Side side(Version version, Map<Long, String> categories) {
        return new Revision.Side(
                version.title(),
                Sanitiser.post(version.html()),
                besides(version, categories, null).lines());
    }

    private static PileItem.Besides besides(Version version, Map<Long, String> categories, @Nullable String word) {
        return new PileItem.Besides(
                categories.get(version.content().categoryId()),
                version.tags(),
                WorkUsed.references(version.content().works()).stream()
                        .map(WorkUsed.Reference::line)
                        .toList(),
                word);
    }

    private static PileItem.@Nullable AnsweredPrompt prompt(PostRow row, @Nullable DuePrompt prompt, Term term) {
        if (prompt == null || row.handedInAt() == null) return null;
        int late = term.daysLate(row.handedInAt(), prompt.due(), prompt.grace());
        return new PileItem.AnsweredPrompt(prompt.id(), prompt.title(), late == 0, late);
    }

    static String hostOf(String link) {
        return link.replaceFirst("^https?://", "").replaceFirst("/.*$", "");
    }
}
