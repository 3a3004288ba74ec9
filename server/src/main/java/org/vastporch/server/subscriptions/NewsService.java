package org.vastporch.server.subscriptions;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.subscriptions.NewsStore.Between;
import org.vastporch.server.subscriptions.NewsStore.Happened;
import org.vastporch.server.subscriptions.SubscriptionStore.Subscription;

/**
 * What is new for somebody since last time: answers to what they wrote, what became of their posts, and what they
 * subscribed to.
 */
@Service
public class NewsService {

    /** Whoever looks for the first time sees what happened in this time. */
    private static final Duration FIRST = Duration.ofDays(7);

    private static final int LINES = 220;
    private static final Set<String> ABOUT_SCORES = Set.of("SCORE", "RESCORED", "FEEDBACK_WORD");
    private static final Set<String> ABOUT_PROMPTS = Set.of("QUESTION_ANSWERED", "AGAIN");
    private static final Set<String> PLAIN = Set.of("RESCORED", "QUESTION_ANSWERED");
    private static final Set<String> ABOUT_REVIEWS = Set.of("TO_REVIEW", "REVIEW_REMINDER");
    private static final Set<String> ABOUT_DATES = Set.of("OWN_DATE", "LET_OFF");

    /**
     * @param kind POST, COMMENT, ANSWER, WORD, RETURNED, HIDDEN, APPROVED, SOURCE, SCORE, RESCORED, OWN_DATE, LET_OFF,
     *     AGAIN, PROMPT_CHOSEN, EXAMPLE_ASKED, WARM_UP_ASKED, FEEDBACK_WORD or FEEDBACK_ANSWERED
     * @param to where it leads
     * @param postId left out for a source
     */
    public record NewsItem(
            String kind,
            long classId,
            String className,
            String to,
            @Optionally Long postId,
            @Optionally Long comment,
            String title,
            String by,
            Instant at,
            String lines,
            boolean fresh) {}

    /** @param fresh how many came since the reader last said that all was seen */
    public record News(int fresh, List<NewsItem> items) {}

    private final NewsStore store;
    private final SubscriptionService subscriptions;
    private final SubscriptionStore wishes;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final Clock clock;

    NewsService(
            NewsStore store,
            SubscriptionService subscriptions,
            SubscriptionStore wishes,
            ClassService classes,
            PeopleService people,
            AccessService access,
            Clock clock) {
        this.store = store;
        this.subscriptions = subscriptions;
        this.wishes = wishes;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.clock = clock;
    }

    /** The news of the last weeks, those that were not seen yet marked. */
    public News news(Viewer viewer, int days) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        Instant now = clock.instant();
        Instant seen = wishes.wish(viewer.personId())
                .map(SubscriptionStore.MailWish::newsSeenAt)
                .orElse(now.minus(FIRST));
        Instant since = now.minus(Duration.ofDays(Math.max(1, Math.min(days, 60))));
        List<Happened> all = happened(viewer, new Between(since, now), null, null);
        List<NewsItem> items = items(viewer, all, seen);
        return new News((int) items.stream().filter(NewsItem::fresh).count(), items);
    }

    /** Says that all news so far were seen. */
    @Transactional
    public void seen(Viewer viewer) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        SubscriptionStore.MailWish wish = subscriptions.wishOf(viewer.personId());
        wishes.putWish(
                viewer.personId(), new SubscriptionStore.MailWish(wish.answers(), wish.stopToken(), clock.instant()));
    }

    /**
     * What happened for a reader, the newest first.
     *
     * @param cadence only what is told so often; null for all that shows in the news
     * @param answers whether answers and decisions are told so often; null with {@code cadence}
     */
    List<Happened> happened(Viewer viewer, Between between, @Nullable Cadence cadence, @Nullable Boolean answers) {
        long me = viewer.personId();
        List<Happened> all = new ArrayList<>();
        for (long classId :
                wishes.of(me).stream().map(Subscription::classId).distinct().toList()) {
            all.addAll(store.posts(classId, me, between, cadence));
            all.addAll(store.comments(classId, me, between, cadence));
        }
        boolean withAnswers = cadence == null || Boolean.TRUE.equals(answers);
        if (withAnswers) all.addAll(store.answers(me, between));
        Set<Long> readable = access.readable(
                viewer, all.stream().map(Happened::postId).distinct().toList());
        all.removeIf(h -> !readable.contains(h.postId()));
        leaveOutWhatOnlyANameLeadsTo(viewer, all, cadence);
        if (withAnswers) {
            List<Happened> toMe = new ArrayList<>(store.words(me, between));
            toMe.addAll(store.decisions(me, between));
            toMe.addAll(store.chosenPrompts(me, between));
            toMe.addAll(store.askedExamples(me, between));
            Stream.of(
                            store.scores(me, between),
                            store.allowances(me, between),
                            store.answeredQuestions(me, between),
                            store.reviews(me, between))
                    .flatMap(List::stream)
                    .filter(h -> access.allows(
                            viewer, h.kind().equals("SECOND_ASKED") ? Act.MARK : Act.READ_CLASS, h.classId()))
                    .forEach(all::add);
            store.wordsOnPapers(me, between).stream()
                    .filter(h -> access.allows(
                            viewer, h.kind().equals("FEEDBACK_WORD") ? Act.READ_CLASS : Act.MARK, h.classId()))
                    .forEach(all::add);
            store.faltering(me, between).stream()
                    .filter(h -> h.byId() == me || access.allows(viewer, Act.MANAGE_CLASS, h.classId()))
                    .forEach(all::add);
            // One's own post one reads wherever it stands; of another's, which may have been narrowed or hidden since,
            // not even the title is told.
            toMe.stream().filter(h -> access.mayRead(viewer, h.postId())).forEach(all::add);
        }
        // Through borrowed eyes one sees one class alone.
        if (viewer.lens() != null) all.removeIf(h -> h.classId() != viewer.lens());
        all.sort(Comparator.comparing(Happened::at).reversed());
        return all;
    }

    /** Whoever subscribed to a person is not told what that person wrote where names are kept back. */
    private void leaveOutWhatOnlyANameLeadsTo(Viewer viewer, List<Happened> all, @Nullable Cadence cadence) {
        Set<Long> unnamed = access
                .posts(all.stream().map(Happened::postId).distinct().toList())
                .values()
                .stream()
                .filter(p -> !access.namesAuthor(viewer, p))
                .map(PostFacts::id)
                .collect(Collectors.toSet());
        Set<Long> posts = store.notByName(unnamed, false, viewer.personId(), cadence);
        Set<Long> comments = store.notByName(unnamed, true, viewer.personId(), cadence);
        all.removeIf(h -> unnamed.contains(h.postId())
                && (h.kind().equals("POST") && !posts.contains(h.postId())
                        || h.kind().equals("COMMENT") && !comments.contains(h.postId())));
    }

    List<NewsItem> items(Viewer viewer, List<Happened> all, Instant seen) {
        Map<Long, Names> names = new HashMap<>();
        Map<Long, String> in = new HashMap<>();
        Map<Long, PostFacts> posts =
                access.posts(all.stream().map(Happened::postId).distinct().toList());
        return all.stream()
                .map(h -> {
                    Names of = names.computeIfAbsent(h.classId(), id -> people.names(viewer, id));
                    String name = in.computeIfAbsent(
                            h.classId(), id -> classes.get(id).name());
                    String lines = PLAIN.contains(h.kind())
                            ? h.html()
                            : h.html().isEmpty() ? "" : TextFacts.of(h.html()).firstLines(LINES);
                    String by =
                            h.visitor() != null ? h.visitor() + " (visitor)" : by(viewer, h, posts.get(h.postId()), of);
                    if (h.visitor() == null && h.byId() == 0) by = "";
                    return new NewsItem(
                            h.kind(),
                            h.classId(),
                            name,
                            to(viewer, h),
                            h.postId() == 0 ? null : h.postId(),
                            h.comment(),
                            h.title(),
                            by,
                            h.at(),
                            lines,
                            h.at().isAfter(seen));
                })
                .toList();
    }

    /** @param post null for what is about none */
    private String by(Viewer viewer, Happened h, @Nullable PostFacts post, Names names) {
        boolean isNamed = post == null
                || (h.kind().equals("POST") ? access.namesAuthor(viewer, post) : !access.keepsNames(viewer, post));
        return (isNamed ? names : names.keptFrom(viewer.personId())).of(h.byId());
    }

    private String to(Viewer viewer, Happened h) {
        if (Set.of("EXAMPLE_ASKED", "WARM_UP_ASKED").contains(h.kind()))
            return "/classes/" + h.classId() + "/my-writing";
        if (h.postId() != 0) return "/classes/" + h.classId() + "/posts/" + h.postId();
        if (ABOUT_SCORES.contains(h.kind())) return "/classes/" + h.classId() + "/feedback";
        if (h.kind().equals("FEEDBACK_ANSWERED"))
            return "/classes/" + h.classId() + "/mark/" + h.comment() + "/" + h.byId();
        if (ABOUT_PROMPTS.contains(h.kind())) return "/classes/" + h.classId() + "/prompt/" + h.comment();
        if (h.kind().equals("SECOND_ASKED")) return "/classes/" + h.classId() + "/mark";
        if (h.kind().equals("REVIEWED")) return "/classes/" + h.classId() + "/reviews/of/" + h.comment();
        if (h.kind().equals("REVIEW_RETURNED")) return "/classes/" + h.classId() + "/reviews/" + h.comment();
        if (ABOUT_REVIEWS.contains(h.kind())) return "/classes/" + h.classId() + "/reviews";
        if (ABOUT_DATES.contains(h.kind())) return "/classes/" + h.classId() + "/write";
        boolean manages = access.allows(viewer, Act.MANAGE_CLASS, h.classId());
        return "/classes/" + h.classId() + (manages ? "/sources" : "/my-writing");
    }
}
