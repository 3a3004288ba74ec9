package org.vastporch.server.posts;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.core.posts.WorkUsed;
import org.vastporch.core.text.Revision;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.Moderated;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.ClassService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.posts.PostStore.PostRow;
import org.vastporch.server.posts.PostStore.Version;
import org.vastporch.server.prompts.PromptService;

/** Posts in the pile. */
@Component
class PostPile implements Moderated {

    private final PostStore store;
    private final BlogService blogs;
    private final PromptService prompts;
    private final ClassService classes;
    private final PeopleService people;
    private final ReviewService reviews;
    private final AccessService access;
    private final BesideDraft beside;
    private final Clock clock;

    PostPile(
            PostStore store,
            BlogService blogs,
            PromptService prompts,
            ClassService classes,
            PeopleService people,
            ReviewService reviews,
            AccessService access,
            BesideDraft beside,
            Clock clock) {
        this.store = store;
        this.blogs = blogs;
        this.prompts = prompts;
        this.classes = classes;
        this.people = people;
        this.reviews = reviews;
        this.access = access;
        this.beside = beside;
        this.clock = clock;
    }

    @Override
    public String subject() {
        return "post";
    }

    @Override
    public Optional<Text> lock(long id) {
        return store.lock(id)
                .map(p -> new Text(
                        p.id(),
                        p.classId(),
                        p.authorId(),
                        p.rev(),
                        p.standing(),
                        p.waitingSince(),
                        p.publishedAt(),
                        p.publishAt()));
    }

    @Override
    public void settle(
            Text before, Standing after, @Nullable Instant waitingSince, @Nullable Instant publishedAt, long by) {
        PostRow row = store.find(before.id()).orElseThrow();
        // An outside post stands at the day on which it was written, not on which it was approved.
        Instant out = publishedAt != null
                        && before.publishedAt() == null
                        && row.sourceId() != null
                        && row.handedInAt() != null
                ? row.handedInAt()
                : publishedAt;
        store.settle(before.id(), after, waitingSince, out, null);
        boolean binned = after.state() == State.BINNED;
        if (binned != (before.standing().state() == State.BINNED))
            store.setBinned(
                    before.id(),
                    binned
                            ? new PostStore.Binned(
                                    clock.instant(), by, before.standing().state())
                            : null);
        Optional<Version> live = after.live() == null ? Optional.empty() : store.version(before.id(), after.live());
        store.setTags(before.classId(), before.id(), live.map(Version::tags).orElse(List.of()));
        store.setCategory(before.id(), live.map(v -> v.content().categoryId()).orElse(null));
        // The audience goes with the version: an approval lets it reach further, taking it back undoes that.
        if (!Objects.equals(after.live(), before.standing().live()))
            live.ifPresent(version -> store.setAudience(before.id(), version.audience()));
    }

    @Override
    public Optional<Revision> changesSince(long id, int version) {
        PostRow row = store.find(id).orElseThrow(Problem::missing);
        return store.version(id, version)
                .map(seen -> Revision.of(
                        side(seen),
                        side(store.version(id, row.standing().judged()).orElseThrow())));
    }

    @Override
    public void requireReading(Viewer viewer, long id) {
        if (!access.requirePost(viewer, Act.READ, id).isUp()) throw Problem.missing();
    }

    @Override
    public List<PileItem> waiting(Viewer viewer, Collection<Long> classIds, PileFilter filter) {
        Map<Long, Names> names = new HashMap<>();
        Map<Long, ClassService.ClassRecord> known = new HashMap<>();
        List<PileItem> items = new ArrayList<>();
        for (PostRow row : store.waiting(List.copyOf(classIds), filter)) {
            Names of = names.computeIfAbsent(row.classId(), id -> people.names(viewer, id));
            ClassService.ClassRecord in = known.computeIfAbsent(row.classId(), classes::get);
            items.add(item(viewer, row, of, in));
        }
        return items;
    }

    private PileItem item(Viewer viewer, PostRow row, Names names, ClassService.ClassRecord in) {
        Version version = store.version(row.id(), row.standing().judged()).orElseThrow();
        List<PileItem.Past> history = reviews.history("post", row.id(), names);
        PostFacts facts = access.requirePost(viewer, Act.READ, row.id());
        PileItem.Readers readers = readers(facts.withAudience(version.audience()));
        PileItem.Readers readersNow =
                row.standing().live() == null || row.audience() == version.audience() ? null : readers(facts);
        return new PileItem(
                "post",
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
                besides(version),
                row.waitingSince(),
                blogs.view(viewer, row.blogId()).title(),
                prompt(row, in.term()),
                row.outsideLink() == null ? null : new PileItem.Outside(hostOf(row.outsideLink()), row.outsideLink()),
                null,
                reviews.holdsOf("post", row.id()),
                changes(row, version, history),
                history,
                readers,
                readersNow,
                reviews.approvalsInRow(row.classId(), row.authorId()),
                in.rules().trustAfter(),
                row.publishAt(),
                stands(row.standing()).name(),
                beside.policy(row),
                reviews.reportsOn("post", row.id(), names));
    }

    private PileItem.Readers readers(PostFacts facts) {
        return PileItem.Readers.of(access.sightline(facts));
    }

    /**
     * What the pile says of where a text stands: it waits, came down, or is up, whatever its author works on besides.
     */
    static State stands(Standing standing) {
        State state = standing.state();
        return state == State.WAITING || state == State.HIDDEN ? state : State.PUBLISHED;
    }

    /**
     * What changed since the version that somebody saw last: the live one, else the one that was returned. Null if that
     * is nothing.
     */
    private @Nullable Revision changes(PostRow row, Version version, List<PileItem.Past> history) {
        Integer seen = row.standing().live() != null
                ? row.standing().live()
                : history.isEmpty() ? null : Integer.valueOf(history.get(0).version());
        if (seen == null || seen == version.no()) return null;
        return store.version(row.id(), seen)
                .map(before -> Revision.of(side(before), side(version)))
                .filter(revision -> !revision.isEmpty())
                .orElse(null);
    }

    private Revision.Side side(Version version) {
        return new Revision.Side(
                version.title(),
                Sanitiser.post(version.html()),
                besides(version).lines());
    }

    private PileItem.Besides besides(Version version) {
        return new PileItem.Besides(
                store.category(version.content().categoryId()).orElse(null),
                version.tags(),
                WorkUsed.references(version.content().works()).stream()
                        .map(WorkUsed.Reference::line)
                        .toList());
    }

    private PileItem.@Nullable AnsweredPrompt prompt(PostRow row, Term term) {
        if (row.promptId() == null || row.handedInAt() == null) return null;
        PromptService.PromptRecord prompt = prompts.get(row.promptId());
        int late = term.daysLate(row.handedInAt(), prompt.due(), prompt.grace());
        return new PileItem.AnsweredPrompt(prompt.id(), prompt.title(), late == 0, late);
    }

    static String hostOf(String link) {
        return link.replaceFirst("^https?://", "").replaceFirst("/.*$", "");
    }
}
