package org.vastporch.server.writing;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Knowledge;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.marking.HandIns;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;

/** What other features need to know of posts. */
@Service
public class Posts {

    /**
     * A post that was handed in for a prompt, in the version to be marked.
     *
     * @param gathered whether it came in from an outside blog
     * @param excerpt null if its text is whole
     * @param hasCategory whether it stands in a category
     * @param works how many works its author says were used
     */
    public record HandedIn(
            long postId,
            long authorId,
            int version,
            State state,
            boolean isUp,
            Instant at,
            boolean gathered,
            @Nullable Excerpt excerpt,
            String title,
            String html,
            List<String> tags,
            boolean hasCategory,
            int works,
            TextFacts facts) {}

    private final PostStore store;
    private final AccessService access;

    Posts(PostStore store, AccessService access) {
        this.store = store;
        this.access = access;
    }

    /** What is kept of a post beside its versions. */
    public Optional<PostRow> find(long postId) {
        return store.find(postId);
    }

    public Optional<Version> version(long postId, int no) {
        return store.version(postId, no);
    }

    /** The names of categories, by their numbers. */
    public Map<Long, String> categories(Collection<Long> ids) {
        return store.categories(ids);
    }

    /** Posts as their readers know them: under the title that is up, whatever their authors work on besides. */
    public Map<Long, String> titles(Collection<Long> postIds) {
        return store.titles(postIds);
    }

    /** The same without those that a person wrote. */
    public Map<Long, String> titlesOfOthers(Collection<Long> postIds, long personId) {
        Map<Long, String> titles = store.titles(postIds);
        titles.keySet().removeAll(store.writtenBy(personId, titles.keySet()));
        return titles;
    }

    /**
     * Whether a file of a post stands in what the viewer may know of it: in any version for its author and the staff,
     * else in the one that the viewer reads.
     *
     * @param file its id, which stands in the text
     * @throws Problem if the viewer may not read the post
     */
    public boolean knowsFile(Viewer viewer, long postId, String file) {
        Knowledge knows = access.knows(viewer, access.requirePost(viewer, Act.READ, postId));
        if (knows == Knowledge.ALL) return true;
        Standing standing = store.find(postId).orElseThrow(Problem::missing).standing();
        Integer no = knows == Knowledge.JUDGED ? Integer.valueOf(standing.judged()) : standing.live();
        return no != null && store.stands(postId, no, file);
    }

    /**
     * A post that was handed in for a prompt, without its text.
     *
     * @param version the one that is marked
     * @param at when that counts as handed in
     * @param newer one that its author handed in again unasked, after the time, and that no marker takes
     */
    public record Handed(
            long promptId,
            long authorId,
            long postId,
            int version,
            State state,
            Instant at,
            @Nullable Integer newer,
            List<HandIns.Again> again) {

        Handed with(List<HandIns.Again> again) {
            return new Handed(promptId, authorId, postId, version, state, at, newer, again);
        }

        /** The version that a marker took, though it came after the time; null if there is none. */
        public @Nullable Integer taken() {
            return again.stream()
                    .filter(HandIns.Again::taken)
                    .map(HandIns.Again::version)
                    .reduce((earlier, later) -> later)
                    .orElse(null);
        }

        /**
         * The same with what counts by a deadline.
         *
         * @param end the last moment that is on time
         */
        public Handed by(Instant end) {
            HandIns.Counts counts = HandIns.of(at, again, end);
            return new Handed(
                    promptId,
                    authorId,
                    postId,
                    counts.upTo() == null ? version : counts.upTo(),
                    state,
                    counts.at(),
                    counts.newer(),
                    again);
        }
    }

    /** What was handed in for prompts: of each student for each prompt in the order in which it came. */
    public List<Handed> handed(Collection<Long> promptIds) {
        Map<Long, List<HandIns.Again>> again = store.handedAgain(promptIds).stream()
                .collect(Collectors.groupingBy(
                        PostStore.HandedAgain::postId,
                        Collectors.mapping(PostStore.HandedAgain::again, Collectors.toList())));
        return handedFirst(promptIds).stream()
                .map(p -> p.with(again.getOrDefault(p.postId(), List.of())))
                .toList();
    }

    /** The same as far as it was handed in first: enough to tell where each stands. */
    public List<Handed> handedFirst(Collection<Long> promptIds) {
        return store.handedIn(promptIds).stream()
                .map(p -> new Handed(
                        p.promptId(),
                        p.authorId(),
                        p.id(),
                        p.standing().marked(p.handedNo()),
                        p.standing().state(),
                        p.handedInAt(),
                        null,
                        List.of()))
                .toList();
    }

    /** What was handed in for a prompt, as it is marked: its words alone. */
    public record AnswerText(long promptId, long postId, long authorId, Instant at, String title, String html) {}

    /** The words of posts that were handed in, in the versions that are marked; whoever asks may mark. */
    public List<AnswerText> words(List<Handed> handed) {
        Map<Long, Handed> byId = handed.stream().collect(Collectors.toMap(Handed::postId, p -> p));
        return store
                .words(handed.stream()
                        .map(p -> new Object[] {p.postId(), p.version()})
                        .toList())
                .stream()
                .map(w -> {
                    Handed of = byId.get(w.postId());
                    return new AnswerText(of.promptId(), w.postId(), of.authorId(), of.at(), w.title(), w.html());
                })
                .toList();
    }

    /** The same posts with their texts, in the versions that are marked. */
    public List<HandedIn> texts(List<Handed> handed) {
        return handed.stream()
                .map(post -> view(
                        store.find(post.postId()).orElseThrow(),
                        store.version(post.postId(), post.version()).orElseThrow(),
                        post.at()))
                .toList();
    }

    /** A post that was handed in, in one of its versions. */
    public Optional<HandedIn> text(long postId, int version) {
        return store.find(postId)
                .flatMap(row -> store.version(postId, version).map(v -> view(row, v, row.handedInAt())));
    }

    /** A text as it is up. */
    public record LiveText(long postId, int version, String title, String html) {}

    /** Those of some posts that are up, as readers get them; whoever asks has seen to the right to read them. */
    public List<LiveText> live(Collection<Long> postIds) {
        return store.live(postIds).stream()
                .map(t -> new LiveText(t.postId(), t.version(), t.title(), Sanitiser.post(t.html())))
                .toList();
    }

    /** What authors said with their posts to whoever decides or marks, by post; whoever asks is one of those. */
    public Map<Long, String> handInWords(Collection<Long> postIds) {
        return store.handInWords(postIds);
    }

    /** Takes a version that was handed in again after the time, or leaves it again; whoever asks may mark. */
    public void take(long postId, int version, boolean taken) {
        if (!store.setTaken(postId, version, taken)) throw Problem.missing();
    }

    /** Locks what students handed in for a prompt until the transaction ends. */
    public void lockHandedIn(long promptId, Collection<Long> students) {
        store.lockHandedIn(promptId, students);
    }

    /** A post that was handed in, in its newest version. */
    public Optional<HandedIn> newest(long postId) {
        return store.find(postId)
                .flatMap(row -> store.version(postId, row.standing().newest())
                        .map(version -> view(row, version, row.handedInAt())));
    }

    private static HandedIn view(PostRow row, Version version, @Nullable Instant at) {
        String html = Sanitiser.post(version.html());
        return new HandedIn(
                row.id(),
                row.authorId(),
                version.no(),
                row.standing().state(),
                row.standing().live() != null,
                at,
                row.sourceId() != null,
                row.excerpt(),
                version.title(),
                html,
                version.tags(),
                version.content().categoryId() != null,
                version.content().works().size(),
                TextFacts.of(html));
    }
}
