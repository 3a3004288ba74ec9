package org.vastporch.server.moderation;

import java.time.Clock;
import java.time.Duration;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.HoldRules;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.TextToReview;
import org.vastporch.core.moderation.UsualWait;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** What is looked at before it is published: the policy in force for an author, and the holds on a text. */
@Service
public class ReviewService {

    private static final int LATEST = 40;

    private final DecisionStore store;
    private final ReportStore reports;
    private final ClassService classes;
    private final PeopleService people;
    private final Clock clock;

    ReviewService(DecisionStore store, ReportStore reports, ClassService classes, PeopleService people, Clock clock) {
        this.store = store;
        this.reports = reports;
        this.classes = classes;
        this.people = people;
        this.clock = clock;
    }

    /** What is known of somebody who writes in a class. */
    public Author author(long classId, long personId) {
        return store.authors(List.of(classId), List.of(personId), clock.instant())
                .getOrDefault(new DecisionStore.InClass(classId, personId), Author.OUTSIDE);
    }

    /**
     * The policy for an author's posts, and what decided it.
     *
     * @param ofBlog what the blog says; null if it leaves it to the class
     */
    public Policy.InForce ofPosts(long classId, Author author, @Nullable Policy ofBlog) {
        return classes.get(classId).rules().forPosts(author, ofBlog);
    }

    /** The same for comments. */
    public Policy.InForce ofComments(long classId, Author author, @Nullable Policy ofBlog) {
        return classes.get(classId).rules().forComments(author, ofBlog);
    }

    /**
     * What holds a text.
     *
     * @param authorId whose own name is not held; 0 for nobody
     */
    public List<Hold> holds(long classId, long authorId, Author author, TextToReview text) {
        if (author.place() == Author.Place.STAFF) return List.of();
        return rules(classId, authorId).find(text, author);
    }

    /** What a class holds in the texts of somebody. */
    public HoldRules rules(long classId, long authorId) {
        return classes.get(classId).rules().holding(people.fullNames(classId, authorId));
    }

    public void setHolds(String subject, long id, List<Hold> holds) {
        store.setHolds(subject, id, holds);
    }

    /** What was decided about a text, the newest first. */
    public List<PileItem.Past> history(String subject, long id, Names names) {
        return past(store.about(subject, id), names);
    }

    /** The same of several texts of a kind; those without any are left out. */
    public Map<Long, List<PileItem.Past>> histories(String subject, Collection<Long> ids, Names names) {
        Map<Long, List<PileItem.Past>> histories = new HashMap<>();
        store.about(ids.stream().map(id -> new DecisionStore.Key(subject, id)).toList())
                .forEach((text, decisions) -> histories.put(text.id(), past(decisions, names)));
        return histories;
    }

    static List<PileItem.Past> past(List<DecisionStore.Decision> decisions, Names names) {
        return decisions.stream()
                .map(d -> new PileItem.Past(d.step(), names.of(d.by()), d.at(), d.note(), d.version()))
                .toList();
    }

    /** Whether a reader reported the text and nobody has decided about that yet. */
    public boolean isReported(String subject, long id) {
        return !reports.open(subject, id).isEmpty();
    }

    /** Within how long three of four texts of a class were decided on lately; empty if there were too few. */
    public Optional<Duration> usualWait(long classId) {
        return UsualWait.of(store.waits(classId, LATEST));
    }
}
