package org.vastporch.server.blogs;

import java.time.Clock;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Revision;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogStore.BlogRow;
import org.vastporch.server.blogs.HeaderStore.Header;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.moderation.Moderated;
import org.vastporch.server.moderation.PileDesk;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/**
 * Pictures at the heads of blogs in the pile: where a class holds pictures, one that a student chose stands there once
 * somebody has looked at it.
 */
@Component
class HeaderPile implements Moderated {

    /**
     * A picture that its owner chose and that does not stand at the head.
     *
     * @param note what the owner was told if it came back
     */
    public record WantedHeader(
            String address, State state, @Optionally String note) {}

    private final HeaderStore store;
    private final BlogStore blogs;
    private final ClassService classes;
    private final PeopleService people;
    private final ReviewService reviews;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    HeaderPile(
            HeaderStore store,
            BlogStore blogs,
            ClassService classes,
            PeopleService people,
            ReviewService reviews,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.blogs = blogs;
        this.classes = classes;
        this.people = people;
        this.reviews = reviews;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /**
     * Puts a picture at the head of a blog, takes it away, or lets it wait. The viewer may choose the look of the blog.
     */
    void choose(Viewer viewer, BlogRow blog, @Nullable String sha) {
        boolean waits = sha != null
                && classes.get(blog.classId()).rules().holdPictures()
                && !access.allows(viewer, Act.MANAGE_CLASS, blog.classId());
        if (!waits) {
            store.drop(blog.id());
            blogs.setHeader(blog.id(), sha);
            return;
        }
        store.add(blog.classId(), blog.id(), viewer.personId(), sha, clock.instant());
        long id = store.ofBlog(blog.id()).orElseThrow().id();
        reviews.setHolds(subject(), id, List.of(Hold.ofWhole(Hold.Rule.PICTURE, "")));
        events.add(blog.classId(), "header-waits", id, viewer.personId());
    }

    /** What the owner of a blog, or its staff, should know of a picture that waits or came back. */
    Optional<WantedHeader> wanted(Viewer viewer, BlogRow blog) {
        return store.ofBlog(blog.id()).map(h -> {
            List<PileItem.Past> history = reviews.history(subject(), h.id(), people.names(viewer, h.classId()));
            return new WantedHeader(
                    address(h),
                    h.state(),
                    h.state() == State.RETURNED && !history.isEmpty()
                            ? history.get(0).note()
                            : null);
        });
    }

    /** The picture for those who decide about it, and its owner. */
    String sha(Viewer viewer, long id) {
        Header h = store.find(id).orElseThrow(Problem::missing);
        boolean own = !viewer.isStranger() && h.authorId() == viewer.personId();
        if (!own
                && !access.allows(viewer, Act.SEE_STAFF_THREAD, h.classId())
                && !access.mayJudge(viewer, h.classId(), h.standing().inPile(h.waitingSince() != null)))
            throw Problem.missing();
        return h.sha();
    }

    private static String address(Header h) {
        return "/media/headers/wanted/" + h.id();
    }

    @Override
    public String subject() {
        return "header";
    }

    @Override
    public Optional<Text> lock(long id) {
        return store.lock(id).map(h -> new Text(h.id(), h.classId(), h.authorId(), h.rev(), h.course(), false));
    }

    @Override
    public void settle(Text before, Course after, long by) {
        Header h = store.find(before.id()).orElseThrow();
        State was = before.course().standing().state();
        State is = after.standing().state();
        String now = blogs.find(h.blogId()).map(BlogRow::headerSha).orElse(null);
        String beforeSha = h.beforeSha();
        if (is == State.PUBLISHED) {
            beforeSha = now;
            blogs.setHeader(h.blogId(), h.sha());
        } else if (was == State.PUBLISHED && Objects.equals(now, h.sha())) {
            blogs.setHeader(h.blogId(), beforeSha);
        }
        store.settle(before.id(), after, beforeSha);
    }

    @Override
    public Optional<Revision> changesSince(long id, int version) {
        return Optional.empty();
    }

    @Override
    public void requireReading(Viewer viewer, long id) {
        throw Problem.missing();
    }

    @Override
    public Batch waiting(Collection<Long> classIds, PileFilter filter) {
        List<Header> headers = store.waiting(List.copyOf(classIds), filter);
        List<Long> of = headers.stream().map(Header::blogId).distinct().toList();
        Map<Long, String> titles = new HashMap<>();
        blogs.all(of).forEach(b -> titles.put(b.id(), b.setup().title()));
        Map<Long, BlogFacts> facts = access.blogs(of);
        return new Batch(headers.stream().map(this::text).toList(), desk -> headers.stream()
                .map(h -> item(h, titles.get(h.blogId()), facts.get(h.blogId()), desk))
                .toList());
    }

    private Waiting text(Header h) {
        return new Waiting(subject(), h.id(), h.classId(), h.authorId(), null);
    }

    private PileItem item(Header h, String blog, BlogFacts facts, PileDesk desk) {
        Names names = desk.names(h.classId());
        String html = "<figure><img src=\"" + address(h)
                + "\" alt=\"The picture that is to stand at the head of the blog\"></figure>";
        return new PileItem(
                subject(),
                h.id(),
                h.classId(),
                desk.in(h.classId()).name(),
                1,
                h.rev(),
                names.of(h.authorId()),
                names.placeOf(h.authorId()),
                names.groupOf(h.authorId()),
                "A picture for the head of “" + blog + "”",
                html,
                PileItem.Besides.NOTHING,
                h.waitingSince(),
                blog,
                null,
                null,
                null,
                desk.holds(text(h)),
                null,
                desk.history(text(h)),
                desk.readers(facts),
                null,
                0,
                0,
                null,
                h.state(),
                new Policy.InForce(Policy.NONE, Policy.Source.CLASS),
                List.of());
    }
}
