package org.vastporch.server.feeds;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.function.Predicate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.GonePosts;
import org.vastporch.core.feeds.Presence;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassSettings;
import org.vastporch.server.classes.ClassSettings.Setting;
import org.vastporch.server.feeds.GonePostStore.Page;
import org.vastporch.server.feeds.SafeFetcher.FetchException;
import org.vastporch.server.feeds.SourceStore.Source;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.writing.GatheredPosts;

/** Outside posts whose pages are no longer there, and what becomes of them here. */
@Service
class GonePostService {

    /** @param at when that was found out */
    record GoneLine(
            long postId,
            String title,
            String link,
            @Optionally String person,
            Instant at) {}

    /** @param posts those of which staff have still to say what becomes of them */
    record Gone(GonePosts rule, List<GoneLine> posts) {}

    private static final Setting<GonePosts> RULE = new Setting<>("gone_posts", GonePosts.class, GonePosts.ASK);
    /** So many pages are looked at with each check of their source. */
    private static final int MOST = 3;

    private final GonePostStore store;
    private final SourceStore sources;
    private final SafeFetcher fetcher;
    private final GatheredPosts posts;
    private final PeopleService people;
    private final ClassSettings settings;
    private final AccessService access;
    private final EventStore events;
    private final TransactionTemplate transaction;
    private final Clock clock;

    GonePostService(
            GonePostStore store,
            SourceStore sources,
            SafeFetcher fetcher,
            GatheredPosts posts,
            PeopleService people,
            ClassSettings settings,
            AccessService access,
            EventStore events,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.sources = sources;
        this.fetcher = fetcher;
        this.posts = posts;
        this.people = people;
        this.settings = settings;
        this.access = access;
        this.events = events;
        this.transaction = transaction;
        this.clock = clock;
    }

    /**
     * Looks at some pages of a source whose time has come.
     *
     * @param mayAsk waits until their server may be asked; false if that would take too long
     */
    void look(Source source, Budget budget, Predicate<String> mayAsk) {
        for (Page page : store.due(source.id(), clock.instant(), MOST)) {
            if (budget.isSpent() || !mayAsk.test(page.link())) return;
            int status = status(page.link(), budget);
            transaction.executeWithoutResult(done -> sources.lock(source.id()).ifPresent(s -> note(s, page, status)));
        }
    }

    private int status(String link, Budget budget) {
        try {
            return fetcher.get(link, null, null, budget).status();
        } catch (FetchException e) {
            return 0;
        }
    }

    private void note(Source source, Page page, int status) {
        Presence before = store.presence(source.id(), page.key()).orElse(null);
        if (before == null) return;
        Presence after = before.after(status, clock.instant());
        store.looked(source.id(), page.key(), after, clock.instant());
        if (after.gone() == before.gone()) return;
        store.setGone(page.postId(), after.gone() ? clock.instant() : null);
        events.add(source.classId(), after.gone() ? "outside-post-gone" : "outside-post-back", page.postId(), null);
        if (after.gone() && settings.get(source.classId(), RULE) == GonePosts.HIDE) posts.hideGone(page.postId());
    }

    Gone ofClass(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        Names names = people.names(viewer, classId);
        return new Gone(
                settings.get(classId, RULE),
                store.unsettled(classId).stream()
                        .map(p -> new GoneLine(
                                p.postId(),
                                p.title(),
                                p.link(),
                                p.authorId() == null ? null : names.of(p.authorId()),
                                p.at()))
                        .toList());
    }

    /** @param seen the rule that whoever changes it saw */
    void setRule(Viewer viewer, long classId, GonePosts rule, GonePosts seen) {
        settings.change(viewer, classId, RULE, rule, seen);
    }

    /** Says what becomes of one of them. */
    @Transactional
    public void settle(Viewer viewer, long postId, boolean hide) {
        PostFacts post = access.requireLockedPost(viewer, Act.READ, postId);
        access.require(viewer, Act.MANAGE_CLASS, post.blog().classId());
        if (!store.isGone(postId))
            throw Problem.stale("not-gone", "Its page is there again, so there is nothing to decide.");
        store.settle(postId);
        if (hide) posts.hideGone(postId);
        events.add(post.blog().classId(), "outside-post-settled", postId, viewer.personId());
    }
}
