package org.vastporch.server.writing;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.marking.Deadline;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.State;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.PromptMatch;
import org.vastporch.core.text.OneLine;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.core.writing.HandIn;
import org.vastporch.core.writing.Revisions;
import org.vastporch.core.writing.Tags;
import org.vastporch.core.writing.Tool;
import org.vastporch.core.writing.WorkUsed;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.access.NamesKept;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.DraftCheck.CheckedDraft;
import org.vastporch.server.writing.PostStore.Binned;

/** Writing: drafts, handing in, the bin. */
@Service
public class PostService {

    static final int LONGEST_TITLE = 200;
    private static final int LONGEST_WORD = 1_000;
    /** Some twenty thousand words and their marks. */
    static final int LONGEST_HTML = 150_000;

    /** @param rev the state of the draft that the writer had before them; an older one is refused */
    public record Save(
            int rev,
            String title,
            String html,
            List<String> tags,
            String audience,
            @Optionally Long category,
            @Optionally List<WorkUsed> works) {}

    /**
     * @param publishAt the class's own time of day, as 2026-11-29T20:00, at which it goes up; left out for as soon as
     *     it may
     * @param word to whoever decides on it or marks it; left out for none
     */
    public record HandingIn(
            int rev,
            @Optionally LocalDateTime publishAt,
            @Optionally String word) {}

    /** @param answerFirst whether classmates read it only once they have published their own answer */
    public record PromptBrief(
            long id,
            String title,
            String instructions,
            List<String> questions,
            Instant due,
            boolean late,
            boolean answerFirst,
            @Optionally Instant commentsDue,
            int commentsWords) {}

    /**
     * @param suggestions tags in use, to choose from
     * @param mayAnnounce whether the writer may make it an announcement, which stands apart from the posts of students
     * @param tools what the writer finds in the editor
     * @param publishAt the class's own time of day at which it is to go up
     * @param namesKept that classmates do not read its author's name; left out if they do
     * @param handInWord what its author said with it when it was handed in last
     */
    public record Draft(
            long id,
            long classId,
            BlogService.BlogView blog,
            @Optionally PromptBrief prompt,
            String title,
            String html,
            List<String> tags,
            String audience,
            List<String> audiences,
            @Optionally Long category,
            List<CategoryService.Category> categories,
            List<String> suggestions,
            List<WorkUsed> works,
            boolean isUp,
            boolean own,
            @Optionally String handInWord,
            boolean mayAnnounce,
            boolean announcement,
            @Optionally LocalDateTime publishAt,
            List<PileItem.Past> history,
            BlogRules rules,
            Set<Tool> tools,
            @Optionally NamesKept namesKept,
            CheckedDraft beside) {}

    private final PostStore store;
    private final DraftCheck beside;
    private final CategoryService categories;
    private final FilesInText files;
    private final BlogService blogs;
    private final PromptService prompts;
    private final PeopleService people;
    private final ClassService classes;
    private final ReviewService reviews;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    PostService(
            PostStore store,
            DraftCheck beside,
            CategoryService categories,
            FilesInText files,
            BlogService blogs,
            PromptService prompts,
            PeopleService people,
            ClassService classes,
            ReviewService reviews,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.beside = beside;
        this.categories = categories;
        this.files = files;
        this.blogs = blogs;
        this.prompts = prompts;
        this.people = people;
        this.classes = classes;
        this.reviews = reviews;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /**
     * A new draft in a blog; the one begun before for the same prompt, if there is one. An answer begins with what its
     * prompt gives.
     */
    @Transactional
    public long begin(Viewer viewer, long blogId, @Nullable Long promptId) {
        BlogFacts blog = access.requireWriting(viewer, blogId);
        Prompt prompt = promptOf(viewer, blog, promptId);
        Optional<Long> begun = store.draftOf(viewer.personId(), blogId, promptId);
        if (begun.isPresent()) return begun.get();
        Instant now = clock.instant();
        Audience usual = blog.kind().usual().cutTo(blog.ceiling());
        String starter = prompt == null ? "" : prompt.starter();
        long id = store.add(blog.classId(), blogId, viewer.personId(), promptId, null, null, usual, now);
        store.putVersion(
                id,
                new Version(
                        1, new Content("", starter, List.of(), usual, null, List.of()), viewer.personId(), now, now),
                TextFacts.of(starter));
        return id;
    }

    /**
     * A new draft with the text of a post that its writer keeps elsewhere; the post that was brought in from that
     * address before, if there is one.
     *
     * @param link the lasting address there
     * @param html as it stands there, not cleaned yet
     */
    @Transactional
    public long bringIn(
            Viewer viewer,
            long blogId,
            @Nullable Long promptId,
            String link,
            String title,
            String html,
            List<String> tags) {
        BlogFacts blog = access.requireWriting(viewer, blogId);
        promptOf(viewer, blog, promptId);
        Optional<Long> before = store.ofLink(blog.classId(), viewer.personId(), link);
        if (before.isPresent()) return before.get();
        boolean student = viewer.in(blog.classId(), clock.instant())
                .filter(m -> m.role() == Role.STUDENT)
                .isPresent();
        String clean = cleaned("address", html);
        if (student)
            clean = Tool.keepOnly(clean, classes.get(blog.classId()).rules().tools());
        Instant now = clock.instant();
        Audience usual = blog.kind().usual().cutTo(blog.ceiling());
        long id = store.add(blog.classId(), blogId, viewer.personId(), promptId, null, link, usual, now);
        store.putVersion(
                id,
                new Version(
                        1,
                        new Content(fitting(title, clean), clean, tags, usual, null, List.of()),
                        viewer.personId(),
                        now,
                        now),
                TextFacts.of(clean));
        return id;
    }

    /** A text as it may be kept. Its length is looked at first, so that nothing is done with what is too long. */
    private static String cleaned(String field, String html) {
        String clean = html.length() > LONGEST_HTML ? html : Sanitiser.post(html);
        if (clean.length() > LONGEST_HTML)
            throw Problem.invalid(field, "text-too-long", "This text is too long for one post. Make two posts of it.");
        return clean;
    }

    private @Nullable Prompt promptOf(Viewer viewer, BlogFacts blog, @Nullable Long promptId) {
        Prompt prompt = promptId == null ? null : prompts.forMember(viewer, promptId);
        if (prompt != null && prompt.classId() != blog.classId()) throw Problem.missing();
        if (prompt != null && prompt.answers().isCommentsAlone())
            throw Problem.stale(
                    "comments-alone", "\"" + prompt.title() + "\" asks for comments, so there is no post to write.");
        if (prompt != null && prompt.answers().into() != null) {
            String into = PromptService.WantedAnswers.refOf(prompt.answers().into());
            if (!blogs.view(viewer, blog.id()).ref().equals(into))
                throw Problem.stale("goes-elsewhere", "Answers to \"" + prompt.title() + "\" go into another blog.");
        }
        return prompt;
    }

    /** A title from outside, cut to what a title may have; the first words where there is none. */
    static String fitting(String title, String clean) {
        String shown = title.isBlank() ? TextFacts.of(clean).firstLines(60) : OneLine.of(title);
        return shown.length() > LONGEST_TITLE ? shown.substring(0, LONGEST_TITLE - 1) + "…" : shown;
    }

    @Transactional(readOnly = true)
    public Draft draft(Viewer viewer, long id) {
        PostFacts facts = access.requirePost(viewer, Act.EDIT, id);
        PostRow row = store.find(id).orElseThrow(Problem::missing);
        Version version = store.version(id, row.standing().newest()).orElseThrow();
        List<String> audiences = Arrays.stream(Audience.values())
                .filter(a -> facts.blog().ceiling().reaches(a))
                .map(Audience::name)
                .toList();
        boolean staff = access.allows(viewer, Act.MANAGE_CLASS, row.classId());
        List<String> tags = store.tagsInUse(access.scope(viewer), row.classId());
        LocalDateTime publishAt = row.publishAt() == null
                ? null
                : classes.get(row.classId()).term().timeOf(row.publishAt());
        return new Draft(
                id,
                row.classId(),
                blogs.view(viewer, row.blogId()),
                brief(row),
                version.title(),
                Sanitiser.post(version.html()),
                version.tags(),
                version.audience().cutTo(facts.blog().ceiling()).name(),
                audiences,
                version.content().categoryId(),
                categories.ofClass(viewer, row.classId()),
                tags,
                version.content().works(),
                facts.isUp(),
                isOwn(viewer, row),
                store.handInWords(List.of(id)).get(id),
                staff && beside.roleOf(row) != Role.STUDENT,
                row.announcement(),
                publishAt,
                reviews.history("post", id, people.names(viewer, row.classId())),
                blogs.rules(row.blogId()),
                classes.get(row.classId()).rules().toolsOf(staff),
                NamesKept.at(facts.authorKeptUntil(), clock.instant()),
                beside.of(viewer, row, facts, version));
    }

    /**
     * Keeps what was typed. A draft that changed elsewhere since {@code rev} is not written over: the problem carries
     * what stands there.
     */
    @Transactional
    public CheckedDraft save(Viewer viewer, long id, Save wanted) {
        // What costs time is done for those who may, and before the row is locked.
        access.requirePost(viewer, Act.EDIT, id);
        String html = cleaned("html", wanted.html());
        List<String> tags = Tags.tidy(wanted.tags());
        PostFacts post = access.requireLockedPost(viewer, Act.EDIT, id);
        PostRow row = store.find(id).orElseThrow(Problem::missing);
        refuseOtherTab(row, wanted.rev());
        String title = OneLine.of(wanted.title());
        if (title.length() > LONGEST_TITLE)
            throw Problem.invalid(
                    "title",
                    "title-too-long",
                    "A title has at most " + LONGEST_TITLE + " characters; this one has " + title.length() + ".");
        if (isOwn(viewer, row) && beside.roleOf(row) == Role.STUDENT)
            html = Tool.keepOnly(html, classes.get(row.classId()).rules().tools());
        List<WorkUsed> works = wanted.works() == null ? List.of() : wanted.works();
        if (works.size() > WorkUsed.MOST)
            throw Problem.invalid("works", "too-many-sources", "A post has at most " + WorkUsed.MOST + " sources.");
        if (wanted.category() != null) categories.require(row.classId(), wanted.category());
        return keep(
                viewer,
                row,
                new Content(
                        title,
                        files.own(viewer, post, html),
                        tags,
                        audience(wanted.audience()),
                        wanted.category(),
                        works),
                false);
    }

    /**
     * Makes a text the newest of a post, whose row is locked, and tells what stands beside it then.
     *
     * @param apart whether it begins a version of its own in any case
     */
    public CheckedDraft keep(Viewer viewer, PostRow row, Content content, boolean apart) {
        boolean own = isOwn(viewer, row);
        if (own && row.waitingSince() != null && reviews.isReported("post", row.id()))
            throw Problem.stale(
                    "being-looked-at", "Somebody is looking at this just now. You can change it after that.");
        Version before = store.version(row.id(), row.standing().newest()).orElseThrow();
        boolean sameHand = before.savedBy() != null && before.savedBy() == viewer.personId();
        boolean mending = !own && row.standing().state() == State.WAITING;
        Instant now = clock.instant();
        TextFacts facts = TextFacts.of(content.html());
        // What was handed in stays as it was: a marker may have read it, and it may be the one that was there in time.
        boolean wasHandedIn = row.handedNo() != null && row.handedNo() == before.no();
        boolean anew = apart
                || own && wasHandedIn
                || Revisions.beginsAnew(before.begunAt(), now, store.words(row.id(), before.no()), facts.words());
        Course after = row.course()
                .written(mending, sameHand, anew)
                .orElseThrow(() -> Problem.stale(
                        "not-possible",
                        "This post is " + row.standing().state().name().toLowerCase() + " and cannot be changed now."));
        int no = after.standing().newest();
        Version version = new Version(no, content, viewer.personId(), no == before.no() ? before.begunAt() : now, now);
        store.putVersion(row.id(), version, facts);
        // What is up can be narrowed at once; it reaches further only when the version that asks for it goes up.
        store.setAudience(
                row.id(),
                row.standing().live() == null
                        ? version.audience()
                        : version.audience().cutTo(row.audience()));
        store.settle(row, after, viewer.personId(), now);
        PostRow saved = store.find(row.id()).orElseThrow();
        // What staff mended away holds it no more.
        List<Hold> holds = beside.holds(saved, version);
        if (mending) reviews.setHolds("post", row.id(), holds);
        return beside.of(viewer, saved, access.requirePost(viewer, Act.EDIT, row.id()), version, holds);
    }

    /** What stands beside the newest version of a post as it is. */
    public CheckedDraft check(Viewer viewer, PostRow row) {
        return beside.of(
                viewer,
                row,
                access.requirePost(viewer, Act.EDIT, row.id()),
                store.version(row.id(), row.standing().newest()).orElseThrow());
    }

    /**
     * Hands in what was saved last: it waits, or is published where nobody looks first, at once or at the time asked
     * for.
     */
    @Transactional
    public CheckedDraft handIn(Viewer viewer, long id, HandingIn wish) {
        PostFacts facts = access.requireLockedPost(viewer, Act.HAND_IN, id);
        PostRow row = store.find(id).orElseThrow(Problem::missing);
        refuseOtherTab(row, wish.rev());
        Version version = store.version(id, row.standing().newest()).orElseThrow();
        refuseWhenClosed(row);
        List<HandIn.Line> needs = beside.needs(viewer, row, version);
        if (!HandIn.isReady(needs)) throw beside.notReady(row, needs);
        Instant publishAt = publishAt(row.classId(), wish.publishAt());
        List<Hold> holds = beside.holds(row, version);
        Course after = row.course()
                .handedIn(publishAt, circumstances(row, !holds.isEmpty()))
                .orElseThrow(() -> Problem.stale("not-possible", "This post was handed in already."));
        match(row, version);
        store.setHandInWord(id, handInWord(wish.word()));
        handedIn(row, after, holds, version);
        PostRow saved = store.find(id).orElseThrow();
        return beside.of(viewer, saved, facts, version, holds);
    }

    private static String handInWord(@Nullable String word) {
        String kept = word == null ? "" : word.strip();
        if (kept.length() > LONGEST_WORD)
            throw Problem.invalid("word", "word-too-long", "A word with it has at most 1,000 characters.");
        return kept;
    }

    /** A student's post that was written for no prompt may answer one all the same. */
    private void match(PostRow row, Version version) {
        boolean isKnown = row.promptId() != null || store.matchedBy(row.id()).isPresent();
        if (isKnown || row.handedInAt() != null || beside.roleOf(row) != Role.STUDENT) return;
        PromptMatch.own(version.tags(), version.content().categoryId(), clock.instant(), prompts.all(row.classId()))
                .ifPresent(match -> store.setMatched(row.id(), match));
    }

    /** What was asked to be mended comes in whenever it is mended. */
    private void refuseWhenClosed(PostRow row) {
        if (row.promptId() == null || row.standing().state() == State.RETURNED) return;
        Prompt prompt = prompts.get(row.promptId());
        if (prompt.isClosed(clock.instant(), prompts.allowance(prompt.id(), row.authorId())))
            throw Problem.stale(
                    "prompt-closed",
                    "\"" + prompt.title() + "\" is closed: nothing comes in any more. Your text is kept.");
    }

    /** The moment of a time of day in the class's zone, to come within a year. */
    private @Nullable Instant publishAt(long classId, @Nullable LocalDateTime wanted) {
        if (wanted == null) return null;
        Instant at = classes.get(classId).term().momentOf(wanted);
        Instant now = clock.instant();
        if (!at.isAfter(now))
            throw Problem.invalid("publishAt", "time-past", "This time is over. Choose one to come, or leave it out.");
        if (at.isAfter(now.plus(366, ChronoUnit.DAYS)))
            throw Problem.invalid("publishAt", "time-too-far", "A post can be set to go up within a year from now.");
        return at;
    }

    /** Makes a post of staff an announcement, which stands apart from what students write, or an ordinary one again. */
    @Transactional
    public void announce(Viewer viewer, long id, boolean announcement) {
        access.requireLockedPost(viewer, Act.EDIT, id);
        PostRow row = store.find(id).orElseThrow(Problem::missing);
        access.require(viewer, Act.MANAGE_CLASS, row.classId());
        if (beside.roleOf(row) == Role.STUDENT)
            throw Problem.invalid("announcement", "by-staff-only", "A student's post cannot be an announcement.");
        store.setAnnouncement(id, announcement);
        events.add(row.classId(), announcement ? "announced" : "announcement-taken-back", id, viewer.personId());
    }

    /** Puts a post into the bin, from which it can be restored for 30 days. */
    @Transactional
    public void bin(Viewer viewer, long id) {
        access.requireLockedPost(viewer, Act.DELETE, id);
        step(viewer, store.find(id).orElseThrow(Problem::missing), Step.BIN);
    }

    /**
     * Takes a post out of the bin: it stands where it stood before. What staff threw away is taken out by staff alone.
     */
    @Transactional
    public void restore(Viewer viewer, long id) {
        access.requireLockedPost(viewer, Act.EDIT, id);
        PostRow row = store.find(id).orElseThrow(Problem::missing);
        Binned binned = store.binned(id).orElseThrow(() -> notPossible(row));
        if (row.emptiedAt() != null || binned.at().plus(PostJobs.BIN).isBefore(clock.instant()))
            throw Problem.stale("bin-emptied", "This post lay in the bin for more than 30 days and was thrown away.");
        if (!Objects.equals(binned.by(), viewer.personId()) && !access.allows(viewer, Act.MANAGE_CLASS, row.classId()))
            throw Problem.stale(
                    "binned-by-staff", "Your teacher put this into the bin. Ask there if you want to have it back.");
        move(viewer, row, row.course().restored(binned.from(), circumstances(row, false)));
    }

    /** Shows a hidden post again; only staff do, whoever wrote it. */
    @Transactional
    public void show(Viewer viewer, long id) {
        PostFacts facts = access.requireLockedPost(viewer, Act.READ, id);
        access.require(viewer, Act.MANAGE_CLASS, facts.blog().classId());
        step(viewer, store.find(id).orElseThrow(Problem::missing), Step.SHOW);
    }

    private void step(Viewer viewer, PostRow row, Step step) {
        move(viewer, row, row.course().moved(step, circumstances(row, false)));
    }

    private Course.Circumstances circumstances(PostRow row, boolean held) {
        return new Course.Circumstances(
                clock.instant(),
                beside.policy(row).policy(),
                held,
                reviews.isReported("post", row.id()),
                row.isFromOutside());
    }

    private static Problem notPossible(PostRow row) {
        return Problem.stale(
                "not-possible",
                "This cannot be done with a post that is "
                        + row.standing().state().name().toLowerCase() + ".");
    }

    /** Puts a post, whose row is locked, where a step leads. */
    private void move(Viewer viewer, PostRow row, Optional<Course> step) {
        Course after = step.orElseThrow(() -> notPossible(row));
        store.settle(row, after, viewer.personId(), clock.instant());
        events.add(row.classId(), "post-" + after.standing().state().name().toLowerCase(), row.id(), viewer.personId());
    }

    /** Stores what was handed in; its row is locked. */
    private void handedIn(PostRow row, Course after, List<Hold> holds, Version version) {
        store.settle(row, after, row.authorId(), clock.instant());
        store.setHanded(row, version.no(), clock.instant());
        reviews.setHolds("post", row.id(), holds);
        String what =
                switch (after.standing().state()) {
                    case PUBLISHED -> "post-published";
                    case SCHEDULED -> "post-scheduled";
                    default -> "post-waits";
                };
        events.add(row.classId(), what, row.id(), row.authorId());
    }

    /** Publishes a post whose time has come, if its author may still write there. */
    @Transactional
    public void publishDue(long id) {
        PostRow row = store.lock(id).orElseThrow();
        Optional<Course> up = row.course().due(circumstances(row, false));
        if (up.isEmpty()) return;
        boolean may = mayStillWrite(row);
        Instant now = clock.instant();
        store.settle(row, may ? up.get() : row.course().heldBack(now), row.authorId(), now);
        // Somebody reads then why it waits.
        if (!may) reviews.setHolds("post", id, List.of(Hold.ofWhole(Hold.Rule.WRITING_OVER, "")));
        events.add(row.classId(), may ? "post-published" : "post-waits", id, row.authorId());
    }

    /** Whether the author of a post may write in its blog at this moment. */
    private boolean mayStillWrite(PostRow row) {
        return access.decide(access.viewer(row.authorId()), Act.HAND_IN, access.post(row.id()))
                .allows();
    }

    private static Audience audience(String name) {
        return Arrays.stream(Audience.values())
                .filter(a -> a.name().equals(name))
                .findFirst()
                .orElseThrow(() -> Problem.invalid("audience", "audience-unknown", "Choose who will read it."));
    }

    private static boolean isOwn(Viewer viewer, PostRow row) {
        return Objects.equals(row.authorId(), viewer.personId());
    }

    public void refuseOtherTab(PostRow row, int rev) {
        if (row.rev() == rev) return;
        Version theirs = store.version(row.id(), row.standing().newest()).orElseThrow();
        throw Problem.stale(
                        "changed-elsewhere",
                        "This post was changed in another window or by somebody else. Nothing was written over.")
                .with("rev", row.rev())
                .with("title", theirs.title())
                .with("html", Sanitiser.post(theirs.html()))
                .with("tags", theirs.tags())
                .with("category", theirs.content().categoryId())
                .with("works", theirs.content().works());
    }

    private @Nullable PromptBrief brief(PostRow row) {
        if (row.promptId() == null) return null;
        Prompt prompt = prompts.get(row.promptId());
        Instant at = row.handedInAt() == null ? clock.instant() : row.handedInAt();
        Deadline deadline = prompt.deadline(prompts.allowance(prompt.id(), row.authorId()));
        return new PromptBrief(
                prompt.id(),
                prompt.title(),
                prompt.instructions(),
                prompt.questions(),
                deadline.due(),
                deadline.isOver(at),
                prompt.answers().ownFirst(),
                prompt.commentsDue(),
                prompt.commentsWords());
    }
}
