package org.vastporch.server.moderation;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Hold;
import org.vastporch.server.access.Sightlines;
import org.vastporch.server.classes.ClassService.ClassRecord;
import org.vastporch.server.people.Names;

/**
 * What the texts of a pile have in common, loaded for all of them at once: a pile of a hundred costs as many statements
 * as one of two. What belongs to a class is loaded when the first text of that class asks for it.
 */
public final class PileDesk {

    private final PileDesks.Loaded loaded;
    private final PileDesks of;
    private final Sightlines sightlines;
    private final Map<Long, ClassRecord> classes = new HashMap<>();
    private final Map<Long, Names> names = new HashMap<>();

    PileDesk(PileDesks.Loaded loaded, PileDesks of, Sightlines sightlines) {
        this.loaded = loaded;
        this.of = of;
        this.sightlines = sightlines;
    }

    public ClassRecord in(long classId) {
        return classes.computeIfAbsent(classId, of::classOf);
    }

    public Names names(long classId) {
        return names.computeIfAbsent(classId, id -> of.names(loaded.viewer(), id));
    }

    public Author author(long classId, long personId) {
        return loaded.authors().getOrDefault(new DecisionStore.InClass(classId, personId), Author.OUTSIDE);
    }

    /** Whether the post it belongs to is still there: it may have been erased since the pile was looked up. */
    public boolean has(Moderated.Waiting text) {
        return text.postId() == null || loaded.posts().containsKey(text.postId());
    }

    public PostFacts post(long postId) {
        return loaded.posts().get(postId);
    }

    public PileItem.Readers readers(PostFacts post) {
        return PileItem.Readers.of(sightlines.of(post));
    }

    public PileItem.Readers readers(BlogFacts blog) {
        return PileItem.Readers.of(sightlines.of(blog));
    }

    public List<Hold> holds(Moderated.Waiting text) {
        return loaded.holds().getOrDefault(key(text), List.of());
    }

    /** What was decided about it, the newest first. */
    public List<PileItem.Past> history(Moderated.Waiting text) {
        return ReviewService.past(loaded.decisions().getOrDefault(key(text), List.of()), names(text.classId()));
    }

    /** What readers reported about it. */
    public List<PileItem.Report> reports(Moderated.Waiting text) {
        Names of = names(text.classId());
        return loaded.reports().getOrDefault(key(text), List.of()).stream()
                .map(r -> new PileItem.Report(of.of(r.reporterId()), r.reason(), r.at()))
                .toList();
    }

    static DecisionStore.Key key(Moderated.Waiting text) {
        return new DecisionStore.Key(text.subject(), text.id());
    }
}
