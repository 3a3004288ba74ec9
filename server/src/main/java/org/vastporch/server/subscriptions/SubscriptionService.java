package org.vastporch.server.subscriptions;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.core.text.Folding;
import org.vastporch.core.writing.Tags;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.http.Tokens;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.subscriptions.SubscriptionStore.Kind;
import org.vastporch.server.subscriptions.SubscriptionStore.MailWish;
import org.vastporch.server.subscriptions.SubscriptionStore.Subscription;
import org.vastporch.server.writing.Posts;

/** Subscribing to classes, blogs, people, tags and threads, and how often one is written to about them. */
@Service
public class SubscriptionService {

    /** @param target the number of a blog or post, or of a person's place in the class; left out for a class or tag */
    public record Wanted(
            long classId,
            String kind,
            @Optionally Long target,
            @Optionally String tag) {}

    /**
     * @param target the number of a blog or post, or of a person's place in the class; left out for a class or tag
     * @param to where it leads
     */
    public record SubscriptionView(
            long id,
            long classId,
            String className,
            String kind,
            @Optionally Long target,
            @Optionally String tag,
            String label,
            String to,
            Cadence posts,
            Cadence comments) {}

    /**
     * @param email where mails go; empty for nowhere
     * @param answers how often one is told of answers to what one wrote, and what became of it
     */
    public record Mine(String email, Cadence answers, List<SubscriptionView> list) {}

    private final SubscriptionStore store;
    private final ClassService classes;
    private final PeopleService people;
    private final BlogService blogs;
    private final Posts posts;
    private final AccessService access;
    private final Clock clock;

    SubscriptionService(
            SubscriptionStore store,
            ClassService classes,
            PeopleService people,
            BlogService blogs,
            Posts posts,
            AccessService access,
            Clock clock) {
        this.store = store;
        this.classes = classes;
        this.people = people;
        this.blogs = blogs;
        this.posts = posts;
        this.access = access;
        this.clock = clock;
    }

    /** All that the viewer subscribed to and can still reach. */
    public Mine mine(Viewer viewer) {
        long me = person(viewer);
        List<SubscriptionView> list = new ArrayList<>();
        for (Subscription s : store.of(me)) view(viewer, s).ifPresent(list::add);
        return new Mine(people.email(me), store.wish(me).map(MailWish::answers).orElse(Cadence.NEVER), list);
    }

    /** Subscribes; to the same thing once only. No mail comes of it before one asks for mail. */
    @Transactional
    public SubscriptionView add(Viewer viewer, Wanted wanted) {
        Subscription s = checked(viewer, wanted);
        wishOf(s.personId());
        Optional<Subscription> same = store.same(s);
        long id = same.isPresent() ? same.get().id() : store.add(s, clock.instant());
        store.end(id, null);
        return view(viewer, store.find(id).orElseThrow()).orElseThrow(Problem::missing);
    }

    private Subscription checked(Viewer viewer, Wanted wanted) {
        long me = person(viewer);
        Kind kind;
        try {
            kind = Kind.valueOf(wanted.kind());
        } catch (IllegalArgumentException e) {
            throw Problem.invalid(
                    "kind",
                    "kind-unknown",
                    "One can subscribe to a class, a blog, a person, a tag or the comments of a post.");
        }
        access.require(viewer, Act.READ_CLASS, wanted.classId());
        Long target = wanted.target();
        String tag = null;
        switch (kind) {
            case CLASS -> target = null;
            case TAG -> {
                target = null;
                List<String> tidy = Tags.tidy(List.of(wanted.tag() == null ? "" : wanted.tag()));
                if (tidy.isEmpty()) throw Problem.invalid("tag", "tag-missing", "Say which tag.");
                tag = Folding.fold(tidy.get(0));
            }
            case PERSON ->
                target = people.personAt(wanted.classId(), needed(target)).orElseThrow(Problem::missing);
            case BLOG -> {
                if (access.requireBlog(viewer, needed(target)).classId() != wanted.classId()) throw Problem.missing();
            }
            case THREAD -> {
                if (access.requirePost(viewer, Act.READ, needed(target)).blog().classId() != wanted.classId())
                    throw Problem.missing();
            }
        }
        return new Subscription(0, me, wanted.classId(), kind, target, tag, Cadence.NEVER, Cadence.NEVER, null);
    }

    private static long needed(@Nullable Long target) {
        if (target == null) throw Problem.invalid("target", "target-missing", "Say what you want to subscribe to.");
        return target;
    }

    @Transactional
    public void setCadence(Viewer viewer, long id, Cadence posts, Cadence comments) {
        Subscription s = own(viewer, id);
        requireAddress(s.personId(), posts, comments);
        store.setCadence(id, posts, comments);
        begin(s.personId(), posts);
        begin(s.personId(), comments);
    }

    /** How often one is told of answers to what one wrote. */
    @Transactional
    public void setAnswers(Viewer viewer, Cadence answers) {
        long me = person(viewer);
        requireAddress(me, answers);
        MailWish wish = wishOf(me);
        store.putWish(me, new MailWish(answers, wish.stopToken(), wish.newsSeenAt()));
        begin(me, answers);
    }

    private void requireAddress(long personId, Cadence... wanted) {
        for (Cadence cadence : wanted)
            if (cadence != Cadence.NEVER && people.email(personId).isEmpty())
                throw Problem.invalid(
                        "email",
                        "no-address",
                        "There is no e-mail address in your account to write to. What is new stands under News.");
    }

    /** Mails of a cadence begin from now on; what happened before is not told. */
    private void begin(long personId, Cadence cadence) {
        if (cadence != Cadence.NEVER && store.upto(personId, cadence).isEmpty())
            store.setUpto(personId, cadence, clock.instant());
    }

    @Transactional
    public void end(Viewer viewer, long id) {
        own(viewer, id);
        store.end(id, clock.instant());
    }

    @Transactional
    public void takeBack(Viewer viewer, long id) {
        own(viewer, id);
        store.end(id, null);
    }

    /** Stops all mails of somebody who has a link from one of them; nobody has to sign in for it. */
    @Transactional
    public void stop(String token) {
        store.stopMails(store.byStopToken(token)
                .orElseThrow(() ->
                        Problem.missing("This link is not known here. Sign in and look under My subscriptions.")));
    }

    MailWish wishOf(long personId) {
        return store.wish(personId).orElseGet(() -> {
            MailWish fresh = new MailWish(Cadence.NEVER, Tokens.make(), clock.instant());
            store.putWish(personId, fresh);
            return fresh;
        });
    }

    private Subscription own(Viewer viewer, long id) {
        Subscription s = store.find(id).orElseThrow(Problem::missing);
        if (s.personId() != person(viewer)) throw Problem.missing();
        return s;
    }

    private static long person(Viewer viewer) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        return viewer.personId();
    }

    /** The subscription in words; nothing if what it was to cannot be reached any more. */
    private Optional<SubscriptionView> view(Viewer viewer, Subscription s) {
        if (!access.allows(viewer, Act.READ_CLASS, s.classId())) return Optional.empty();
        String at = "/classes/" + s.classId();
        String in = classes.get(s.classId()).name();
        return switch (s.kind()) {
            case CLASS -> some(s, in, null, "All posts of " + in, at + "/porch");
            case TAG -> some(s, in, null, "Posts tagged " + s.tag(), at + "/porch?tag=" + s.tag());
            case PERSON -> {
                var names = people.names(viewer, s.classId());
                long place = names.placeOf(s.targetId());
                yield some(s, in, place, "Posts by " + names.of(s.targetId()), at + "/persons/" + place);
            }
            case BLOG ->
                !access.openable(viewer, List.of(s.targetId())).isEmpty()
                        ? some(
                                s,
                                in,
                                s.targetId(),
                                blogs.view(viewer, s.targetId()).title(),
                                at + "/blog/" + blogs.view(viewer, s.targetId()).address())
                        : Optional.empty();
            case THREAD ->
                access.mayRead(viewer, s.targetId())
                        ? some(
                                s,
                                in,
                                s.targetId(),
                                "Comments on "
                                        + posts.titles(List.of(s.targetId())).get(s.targetId()),
                                at + "/posts/" + s.targetId())
                        : Optional.empty();
        };
    }

    private static Optional<SubscriptionView> some(
            Subscription s, String in, @Nullable Long target, String label, String to) {
        return Optional.of(new SubscriptionView(
                s.id(), s.classId(), in, s.kind().name(), target, s.tag(), label, to, s.posts(), s.comments()));
    }
}
