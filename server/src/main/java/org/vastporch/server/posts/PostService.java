package org.vastporch.server.posts;

import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Audience;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.ModerationTable;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.core.posts.HandIn;
import org.vastporch.core.posts.Tags;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.ClassService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.SightlineView;
import org.vastporch.server.posts.PostStore.PostRow;
import org.vastporch.server.posts.PostStore.Version;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.prompts.PromptService.PromptRecord;

/** Writing: drafts, handing in, the bin. */
@Service
public class PostService {

    static final int LONGEST_TITLE = 200;
    private static final int LONGEST_HTML = 900_000;

    /** @param rev the state of the draft that the writer had before them; an older one is refused */
    public record Save(int rev, String title, String html, List<String> tags, String audience) {}

    /** What the writer sees beside the draft, computed anew with each save. */
    public record Beside(int rev, String state, Instant savedAt, List<NeedLine> needs, boolean ready, SightlineView sightline, boolean goesToApproval, List<Hold> holds) {}

    public record NeedLine(String need, int has, int asked, boolean met, boolean must) {}

    /** @param answerFirst whether classmates read it only once they have published their own answer */
    public record PromptBrief(long id, String title, String instructions, List<String> questions, Instant due, boolean late, boolean answerFirst) {}

    public record Draft(long id, long classId, BlogService.BlogView blog, @Optionally PromptBrief prompt, String title, String html, List<String> tags, String audience,
                        List<String> audiences, boolean isUp, boolean own, List<PileItem.Past> history, BlogRules rules,
                        Beside beside) {}

    private final PostStore store;
    private final BlogService blogs;
    private final PromptService prompts;
    private final PeopleService people;
    private final ClassService classes;
    private final ReviewService reviews;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    PostService(PostStore store, BlogService blogs, PromptService prompts, PeopleService people, ClassService classes, ReviewService reviews, AccessService access,
                EventStore events, Clock clock) {
        this.store = store;
        this.blogs = blogs;
        this.prompts = prompts;
        this.people = people;
        this.classes = classes;
        this.reviews = reviews;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** A new draft in a blog; the one begun before for the same prompt, if there is one. */
    @Transactional
    public long begin(Viewer viewer, long blogId, @Nullable Long promptId) {
        BlogFacts blog = access.requireWriting(viewer, blogId);
        if (promptId != null && prompts.forMember(viewer, promptId).classId() != blog.classId()) throw Problem.missing();
        Optional<Long> begun = store.draftOf(viewer.personId(), blogId, promptId);
        if (begun.isPresent()) return begun.get();
        Instant now = clock.instant();
        Audience usual = blog.kind().usual().cutTo(blog.ceiling());
        long id = store.add(blog.classId(), blogId, viewer.personId(), promptId, null, null, usual, now);
        store.putVersion(id, new Version(1, "", "", List.of(), usual, viewer.personId(), now), TextFacts.of(""));
        return id;
    }

    @Transactional(readOnly = true)
    public Draft draft(Viewer viewer, long id) {
        PostFacts facts = access.requirePost(viewer, Act.EDIT, id);
        PostRow row = store.find(id).orElseThrow(Problem::missing);
        Version version = store.version(id, row.standing().newest()).orElseThrow();
        List<String> audiences = Arrays.stream(Audience.values()).filter(a -> facts.blog().ceiling().reaches(a)).map(Audience::name).toList();
        return new Draft(id, row.classId(), blogs.view(viewer, row.blogId()), brief(row), version.title(), Sanitiser.post(version.html()), version.tags(),
            version.audience().cutTo(facts.blog().ceiling()).name(), audiences, facts.isUp(), row.authorId() != null && row.authorId() == viewer.personId(),
            reviews.history("post", id, people.names(viewer, row.classId())), blogs.rules(row.blogId()), beside(viewer, row, facts, version));
    }

    /** Keeps what was typed. A draft that changed elsewhere since {@code rev} is not written over: the problem carries what stands there. */
    @Transactional
    public Beside save(Viewer viewer, long id, Save wanted) {
        access.requirePost(viewer, Act.EDIT, id);
        PostRow row = store.lock(id).orElseThrow(Problem::missing);
        refuseOtherTab(row, wanted.rev());
        if (wanted.title().strip().length() > LONGEST_TITLE)
            throw Problem.invalid("title", "title-too-long", "A title has at most " + LONGEST_TITLE + " characters; this one has " + wanted.title().strip().length() + ".");
        String html = Sanitiser.post(wanted.html());
        if (html.length() > LONGEST_HTML) throw Problem.invalid("html", "text-too-long", "This text is too long for one post. Make two posts of it.");
        boolean own = row.authorId() != null && row.authorId() == viewer.personId();
        Version before = store.version(id, row.standing().newest()).orElseThrow();
        boolean sameHand = row.standing().state() == State.WAITING && !own && before.savedBy() != null && before.savedBy() == viewer.personId();
        Standing after = sameHand ? row.standing() : ModerationTable.after(row.standing(), !own && row.standing().state() == State.WAITING ? Step.EDIT : Step.SAVE, Policy.BEFORE, false)
            .orElseThrow(() -> Problem.stale("not-possible", "This post is " + row.standing().state().name().toLowerCase() + " and cannot be changed now."));
        Version version = new Version(after.newest(), wanted.title().strip(), html, Tags.tidy(wanted.tags()), audience(wanted.audience()), viewer.personId(), clock.instant());
        store.putVersion(id, version, TextFacts.of(html));
        // What is up can be narrowed at once; it reaches further only when the version that asks for it goes up.
        store.setAudience(id, row.standing().live() == null ? version.audience() : version.audience().cutTo(row.audience()));
        store.settle(id, after, after.state().waits() ? row.waitingSince() : null, row.publishedAt(), null);
        PostRow saved = store.find(id).orElseThrow();
        return beside(viewer, saved, access.requirePost(viewer, Act.EDIT, id), version);
    }

    /** Hands in what was saved last: it waits, or is published at once where nobody looks first. */
    @Transactional
    public Beside handIn(Viewer viewer, long id, int rev) {
        PostFacts facts = access.requirePost(viewer, Act.EDIT, id);
        PostRow row = store.lock(id).orElseThrow(Problem::missing);
        refuseOtherTab(row, rev);
        Version version = store.version(id, row.standing().newest()).orElseThrow();
        List<HandIn.Line> needs = needs(viewer, row, version);
        if (!HandIn.isReady(needs)) throw notReady(needs, blogs.rules(row.blogId()).per());
        List<Hold> holds = holds(row, version);
        Standing after = ModerationTable.after(row.standing(), Step.HAND_IN, policy(row), !holds.isEmpty())
            .orElseThrow(() -> Problem.stale("not-possible", "This post was handed in already."));
        settle(row, after, holds, version);
        PostRow saved = store.find(id).orElseThrow();
        return beside(viewer, saved, facts, version);
    }

    private static Problem notReady(List<HandIn.Line> needs, BlogRules.Period per) {
        HandIn.Line line = needs.stream().filter(l -> l.must() && !l.met()).findFirst().orElseThrow();
        String sentence = switch (line.need()) {
            case MOST_POSTS -> "In this blog you can hand in " + line.asked() + (line.asked() == 1 ? " post" : " posts") + " in a " + per.name().toLowerCase()
                + ". You have handed in " + line.has() + "; your draft is kept.";
            case MOST_WORDS -> "In this blog a post has at most " + line.asked() + " words; yours has " + line.has() + ".";
            case WORDS -> line.has() > 0 ? "In this blog a post has at least " + line.asked() + " words; yours has " + line.has() + "."
                : "A post needs a title and some words or a picture before it can be handed in.";
            default -> "A post needs a title and some words or a picture before it can be handed in.";
        };
        return Problem.invalid("title", "not-ready", sentence);
    }

    /** Puts a post into the bin, from which it can be restored. */
    @Transactional
    public void bin(Viewer viewer, long id) {
        step(viewer, Act.DELETE, id, Step.BIN);
    }

    /** Takes a post out of the bin, or shows a hidden one again. */
    @Transactional
    public void restore(Viewer viewer, long id) {
        step(viewer, Act.EDIT, id, Step.RESTORE);
    }

    private void step(Viewer viewer, Act act, long id, Step step) {
        access.requirePost(viewer, act, id);
        PostRow row = store.lock(id).orElseThrow(Problem::missing);
        Standing after = ModerationTable.after(row.standing(), step, Policy.BEFORE, false)
            .orElseThrow(() -> Problem.stale("not-possible", "This cannot be done with a post that is " + row.standing().state().name().toLowerCase() + "."));
        store.settle(id, after, after.state().waits() ? clock.instant() : null, row.publishedAt(), null);
        events.add(row.classId(), "post-" + after.state().name().toLowerCase(), id, viewer.personId());
    }

    /**
     * Takes in an outside post for a student: as a new version of the post that came before, or as a new one. It goes the same way
     * through approval and holds as a post that was written here.
     *
     * @param postId the post that an earlier version of the entry made; null for the first
     */
    @Transactional
    public long takeIn(long classId, long blogId, long authorId, @Nullable Long promptId, long sourceId, String link, Audience audience,
                       String title, String html, List<String> tags, Instant date, @Nullable Long postId) {
        Instant now = clock.instant();
        long id = postId != null ? postId : store.add(classId, blogId, authorId, promptId, sourceId, link, audience, now);
        PostRow row = store.lock(id).orElseThrow();
        if (row.standing().state() == State.HIDDEN || row.standing().state() == State.BINNED) return id;
        Standing draft = ModerationTable.after(row.standing(), Step.SAVE, Policy.BEFORE, false).orElseThrow();
        String clean = Sanitiser.post(html);
        String shown = title.isBlank() ? TextFacts.of(clean).firstLines(60) : title.strip();
        Version version = new Version(draft.newest(), shown.length() > LONGEST_TITLE ? shown.substring(0, LONGEST_TITLE - 1) + "…" : shown, clean, tags, audience, authorId, now);
        store.putVersion(id, version, TextFacts.of(clean));
        PostRow drafted = row.as(draft, date);
        List<Hold> holds = holds(drafted, version);
        Standing after = ModerationTable.after(draft, Step.HAND_IN, policy(drafted), !holds.isEmpty()).orElseThrow();
        settle(drafted, after, holds, version);
        return id;
    }

    private void settle(PostRow row, Standing after, List<Hold> holds, Version version) {
        Instant now = clock.instant();
        boolean published = after.state() == State.PUBLISHED;
        Instant handedIn = row.handedInAt() == null ? now : row.handedInAt();
        Instant out = row.publishedAt() != null ? row.publishedAt() : row.sourceId() != null ? handedIn : now;
        store.settle(row.id(), after, after.state().waits() ? now : null, published ? out : row.publishedAt(), handedIn);
        reviews.setHolds("post", row.id(), holds);
        if (published) {
            store.setTags(row.classId(), row.id(), version.tags());
            store.setAudience(row.id(), version.audience());
        }
        events.add(row.classId(), published ? "post-published" : "post-waits", row.id(), row.authorId());
    }

    private static Audience audience(String name) {
        return Arrays.stream(Audience.values()).filter(a -> a.name().equals(name)).findFirst()
            .orElseThrow(() -> Problem.invalid("audience", "audience-unknown", "Choose who will read it."));
    }

    private void refuseOtherTab(PostRow row, int rev) {
        if (row.rev() == rev) return;
        Version theirs = store.version(row.id(), row.standing().newest()).orElseThrow();
        throw Problem.stale("changed-elsewhere", "This post was changed in another window or by somebody else. Nothing was written over.")
            .with("rev", row.rev()).with("title", theirs.title()).with("html", Sanitiser.post(theirs.html())).with("tags", theirs.tags());
    }

    private Beside beside(Viewer viewer, PostRow row, PostFacts facts, Version version) {
        List<HandIn.Line> needs = needs(viewer, row, version);
        SightlineView sightline = SightlineView.of(access.sightline(facts.withAudience(version.audience())), people.names(viewer, row.classId()));
        List<Hold> holds = holds(row, version);
        boolean waits = policy(row) == Policy.BEFORE || !holds.isEmpty();
        return new Beside(row.rev(), row.standing().state().name(), version.savedAt(),
            needs.stream().map(l -> new NeedLine(l.need().name(), l.has(), l.asked(), l.met(), l.must())).toList(), HandIn.isReady(needs), sightline, waits, holds);
    }

    private List<HandIn.Line> needs(Viewer viewer, PostRow row, Version version) {
        TextFacts facts = TextFacts.of(version.html());
        HandIn.Asked asked = row.promptId() == null ? HandIn.Asked.NOTHING : prompts.get(row.promptId()).asked();
        HandIn.Asked now = new HandIn.Asked(asked.words(), asked.pictures(), asked.tags(), asked.links(), 0);
        return HandIn.check(now, ruled(viewer, row), new HandIn.Has(version.title(), facts.words(), facts.pictures(), facts.described(), version.tags().size(), facts.links(), 0));
    }

    /** The rules of the blog, which bind students only. What was handed in once is not counted against a change of it. */
    private HandIn.Ruled ruled(Viewer viewer, PostRow row) {
        if (roleOf(row) != Role.STUDENT || access.allows(viewer, Act.MANAGE_CLASS, row.classId())) return HandIn.Ruled.FREE;
        BlogRules rules = blogs.rules(row.blogId());
        if (rules.mostPosts() == 0 || row.handedInAt() != null) return new HandIn.Ruled(rules, 0);
        Instant since = rules.periodStart(classes.get(row.classId()).term(), clock.instant());
        return new HandIn.Ruled(rules, store.handedInSince(row.authorId(), row.blogId(), since, row.id()));
    }

    private List<Hold> holds(PostRow row, Version version) {
        Integer live = row.standing().live();
        String approved = live == null ? null : store.version(row.id(), live).map(PostService::plain).orElse(null);
        return reviews.holds(row.classId(), row.authorId(), roleOf(row), plain(version), approved);
    }

    private static String plain(Version version) {
        TextFacts facts = TextFacts.of(version.html());
        return version.title() + "\n" + facts.plain() + "\n" + String.join("\n", facts.alts());
    }

    private Policy policy(PostRow row) {
        return reviews.policy(row.classId(), row.authorId(), roleOf(row), blogs.policies(row.blogId()).posts(), true);
    }

    private @Nullable Role roleOf(PostRow row) {
        return access.viewer(row.authorId()).in(row.classId(), clock.instant()).map(Membership::role).orElse(null);
    }

    private @Nullable PromptBrief brief(PostRow row) {
        if (row.promptId() == null) return null;
        PromptRecord prompt = prompts.get(row.promptId());
        Instant at = row.handedInAt() == null ? clock.instant() : row.handedInAt();
        return new PromptBrief(prompt.id(), prompt.title(), prompt.instructions(), prompt.questions(), prompt.due(), !Term.isOnTime(at, prompt.due(), prompt.grace()), prompt.answerFirst());
    }
}
