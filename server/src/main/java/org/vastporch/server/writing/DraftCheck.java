package org.vastporch.server.writing;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.StringJoiner;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.State;
import org.vastporch.core.moderation.TextToReview;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.core.text.TextFacts;
import org.vastporch.core.writing.HandIn;
import org.vastporch.core.writing.WorkUsed;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.SightlineView;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reviews.PaperReviews;

/**
 * What the core says about a draft, computed anew with each save: what is missing, who would read it, what would hold
 * it.
 */
@Component
public class DraftCheck {

    /**
     * What the writer sees beside the draft.
     *
     * @param needs the list "before you hand in"
     * @param goesToApproval whether somebody looks at it before it is published
     * @param approval whether somebody looks at texts of this author, and what decided that
     * @param references the works used, as readers get them
     */
    public record CheckedDraft(
            int rev,
            State state,
            Instant savedAt,
            List<NeedLine> needs,
            boolean ready,
            SightlineView sightline,
            boolean goesToApproval,
            List<Hold> holds,
            List<WorkUsed.Reference> references,
            @Optionally Instant publishAt,
            Policy.InForce approval,
            int approvalsInRow,
            int trustAfter) {}

    public record NeedLine(HandIn.Need need, int has, int asked, boolean met, boolean must) {}

    private final PostStore store;
    private final BlogService blogs;
    private final PromptService prompts;
    private final PeopleService people;
    private final ClassService classes;
    private final ReviewService reviews;
    private final PaperReviews ownViews;
    private final CommentsGiven comments;
    private final AccessService access;
    private final Clock clock;

    DraftCheck(
            PostStore store,
            BlogService blogs,
            PromptService prompts,
            PeopleService people,
            ClassService classes,
            ReviewService reviews,
            PaperReviews ownViews,
            CommentsGiven comments,
            AccessService access,
            Clock clock) {
        this.store = store;
        this.blogs = blogs;
        this.prompts = prompts;
        this.people = people;
        this.classes = classes;
        this.reviews = reviews;
        this.ownViews = ownViews;
        this.comments = comments;
        this.access = access;
        this.clock = clock;
    }

    CheckedDraft of(Viewer viewer, PostRow row, PostFacts facts, Version version) {
        return of(viewer, row, facts, version, holds(row, version));
    }

    /** @param holds what would hold the version, where that was looked for already: in a long text it takes time */
    CheckedDraft of(Viewer viewer, PostRow row, PostFacts facts, Version version, List<Hold> holds) {
        List<HandIn.Line> needs = needs(viewer, row, version);
        SightlineView sightline = SightlineView.of(
                access.sightline(facts.withAudience(version.audience())),
                people.names(viewer, row.classId()),
                access.sightlineDetail(viewer, row.classId()));
        Author author = reviews.author(row.classId(), row.authorId());
        Policy.InForce policy = reviews.ofPosts(
                row.classId(), author, blogs.approving(row.blogId()).posts());
        boolean waits = Course.wouldWait(policy.policy(), !holds.isEmpty());
        return new CheckedDraft(
                row.rev(),
                row.standing().state(),
                version.savedAt(),
                needs.stream()
                        .map(l -> new NeedLine(l.need(), l.has(), l.asked(), l.met(), l.must()))
                        .toList(),
                HandIn.isReady(needs),
                sightline,
                waits,
                holds,
                WorkUsed.references(version.content().works()),
                row.publishAt(),
                policy,
                author.approvals(),
                classes.get(row.classId()).rules().trustAfter());
    }

    List<HandIn.Line> needs(Viewer viewer, PostRow row, Version version) {
        TextFacts facts = TextFacts.of(version.html());
        Prompt prompt = row.promptId() == null ? null : prompts.get(row.promptId());
        HandIn.Asked asked = prompt == null ? HandIn.Asked.NOTHING : prompt.asked();
        int given = asked.comments() == 0 ? 0 : comments.given(row.authorId(), prompt);
        List<HandIn.Line> lines = HandIn.check(
                asked,
                ruled(viewer, row),
                new HandIn.Has(
                        version.title(),
                        facts.words(),
                        facts.pictures(),
                        facts.described(),
                        version.tags().size(),
                        version.content().categoryId() == null ? 0 : 1,
                        facts.links(),
                        version.content().works().size(),
                        given));
        if (prompt == null || prompt.rubric() == null || prompt.reviews().self() != Reviews.Self.BEFORE) return lines;
        boolean said = ownViews.find(prompt, row.authorId(), row.authorId(), ReviewKind.SELF)
                .review()
                .isFinished();
        return HandIn.withOwnView(lines, said);
    }

    /** Says in a sentence what keeps a draft from being handed in. */
    Problem notReady(PostRow row, List<HandIn.Line> needs) {
        HandIn.Line line =
                needs.stream().filter(l -> l.must() && !l.met()).findFirst().orElseThrow();
        String empty = "A post needs a title and some words or a picture before it can be handed in.";
        String sentence =
                switch (line.need()) {
                    case MOST_POSTS ->
                        "In this blog you can hand in " + line.asked() + (line.asked() == 1 ? " post" : " posts")
                                + " in a "
                                + blogs.rules(row.blogId()).per().name().toLowerCase() + ". You have handed in "
                                + line.has() + "; your draft is kept.";
                    case MOST_WORDS ->
                        "In this blog a post has at most " + line.asked() + " words; yours has " + line.has() + ".";
                    case WORDS ->
                        line.has() > 0
                                ? "In this blog a post has at least " + line.asked() + " words; yours has " + line.has()
                                        + "."
                                : empty;
                    default -> empty;
                };
        return Problem.invalid("title", "not-ready", sentence);
    }

    /**
     * The rules of the blog, which bind students only. What was handed in once is not counted against a change of it.
     */
    private HandIn.Ruled ruled(Viewer viewer, PostRow row) {
        if (roleOf(row) != Role.STUDENT || access.allows(viewer, Act.MANAGE_CLASS, row.classId()))
            return HandIn.Ruled.FREE;
        BlogRules rules = blogs.rules(row.blogId());
        if (rules.mostPosts() == 0 || row.handedInAt() != null) return new HandIn.Ruled(rules, 0);
        Instant since = rules.periodStart(classes.get(row.classId()).term(), clock.instant());
        return new HandIn.Ruled(rules, store.handedInSince(row.authorId(), row.blogId(), since, row.id()));
    }

    /** What would hold the text, looked for only in what changed since a version was approved. */
    List<Hold> holds(PostRow row, Version version) {
        return reviews.holds(
                row.classId(),
                row.authorId(),
                reviews.author(row.classId(), row.authorId()),
                review(version, TextFacts.of(version.html()), approved(row), reviews.isReported("post", row.id())));
    }

    /** The version of a post that was approved last; null if none was. */
    @Nullable
    Version approved(PostRow row) {
        Integer live = row.standing().live();
        return live == null ? null : store.version(row.id(), live).orElse(null);
    }

    /** A version as those look at it who look for what holds it. */
    static TextToReview review(Version version, TextFacts facts, @Nullable Version approved, boolean reported) {
        TextFacts before = approved == null ? null : TextFacts.of(approved.html());
        List<String> known = before == null ? List.of() : before.media();
        int fresh = (int) facts.media().stream().filter(m -> !known.contains(m)).count();
        return new TextToReview(
                true, plain(version, facts), before == null ? null : plain(approved, before), fresh, reported);
    }

    /** All the words that go up with a version, those of tags, works, alternative texts and addresses among them. */
    private static String plain(Version version, TextFacts facts) {
        StringJoiner plain = new StringJoiner("\n").add(version.title()).add(facts.plain());
        facts.alts().forEach(plain::add);
        version.tags().forEach(plain::add);
        version.content().works().forEach(work -> plain.add(work.title())
                .add(work.author())
                .add(work.publisher())
                .add(work.address()));
        // What stands in the text already is found there.
        facts.addresses().stream()
                .filter(address -> !facts.plain().contains(address))
                .forEach(plain::add);
        return plain.toString();
    }

    Policy.InForce policy(PostRow row) {
        return reviews.ofPosts(
                row.classId(),
                reviews.author(row.classId(), row.authorId()),
                blogs.approving(row.blogId()).posts());
    }

    @Nullable
    Role roleOf(PostRow row) {
        return access.viewer(row.authorId())
                .in(row.classId(), clock.instant())
                .map(Membership::role)
                .orElse(null);
    }
}
