package org.vastporch.server.prompts;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.marking.LateRule;
import org.vastporch.core.prompts.Answers;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.text.OneLine;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.writing.HandIn;
import org.vastporch.core.writing.Tags;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.access.NamesKept;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;

/** Prompts and their rubrics. */
@Service
public class PromptService {

    /**
     * A prompt that is to be set, or as it is to be. Times are the class's own time of day, as 2026-11-29T20:00.
     *
     * @param answers left out for one post
     * @param latePercentPerDay points lost for each started day, in per cent
     * @param lateFloor points below which lateness does not push a score
     * @param example what an answer may look like, as HTML
     * @param rubricHidden whether students see the rubric only with their marks
     * @param reviews left out for nobody
     * @param copyOf the prompt of which a new one is a copy, so that answers can be held against those to it
     */
    public record WantedPrompt(
            String title,
            String instructions,
            List<String> questions,
            @Optionally String tag,
            @Optionally LocalDateTime opens,
            LocalDateTime due,
            int graceHours,
            BigDecimal latePercentPerDay,
            BigDecimal lateMostPercent,
            @Optionally BigDecimal lateFloor,
            BigDecimal points,
            HandIn.Asked asked,
            @Optionally WantedAnswers answers,
            @Optionally LocalDateTime closes,
            @Optionally LocalDateTime commentsDue,
            @Optionally Integer commentsWords,
            @Optionally String starter,
            @Optionally String example,
            @Optionally Long bundleId,
            @Optionally Boolean rubricHidden,
            @Optionally Rubric rubric,
            @Optionally WantedReviews reviews,
            @Optionally Long copyOf) {}

    /**
     * What a prompt takes as its answer; see {@link Answers}.
     *
     * @param byCategory the category that stands for it, by its number; left out for none
     * @param into the blog in which answers are written: "b" and the number of a blog, or "s" and that of a set; left
     *     out for any
     * @param namesKept that names are kept from classmates around them; left out if they are not
     */
    public record WantedAnswers(
            int posts,
            boolean ownFirst,
            boolean byGroups,
            boolean commentsFirst,
            List<Long> commentOn,
            @Optionally Long byCategory,
            boolean byTag,
            boolean byTime,
            @Optionally String into,
            @Optionally NamesKept.WantedNames namesKept) {

        static WantedAnswers of(Answers a, Term term) {
            return new WantedAnswers(
                    a.posts(),
                    a.ownFirst(),
                    a.byGroups(),
                    a.commentsFirst(),
                    a.commentOn(),
                    a.also().category(),
                    a.also().tag(),
                    a.also().time(),
                    refOf(a.into()),
                    NamesKept.WantedNames.of(a.namesUntil(), term));
        }

        Answers rules(Term term) {
            return new Answers(
                    posts,
                    ownFirst,
                    byGroups,
                    commentsFirst,
                    commentOn,
                    new Answers.Also(byCategory, byTag, byTime),
                    intoOf(into),
                    NamesKept.WantedNames.in(namesKept, term));
        }

        /** The same so many weeks later. */
        WantedAnswers moved(long weeks) {
            if (namesKept == null || namesKept.until() == null) return this;
            return new WantedAnswers(
                    posts,
                    ownFirst,
                    byGroups,
                    commentsFirst,
                    commentOn,
                    byCategory,
                    byTag,
                    byTime,
                    into,
                    new NamesKept.WantedNames(namesKept.until().plusWeeks(weeks)));
        }

        public static @Nullable String refOf(Answers.@Nullable Into into) {
            return into == null ? null : (into.isEach() ? "s" : "b") + into.id();
        }

        private static Answers.@Nullable Into intoOf(@Nullable String ref) {
            if (ref == null || ref.isEmpty()) return null;
            if (!ref.matches("[bs]\\d{1,15}"))
                throw Problem.invalid("into", "blog-unknown", "This blog is not one of this class.");
            return new Answers.Into(ref.startsWith("s"), Long.parseLong(ref.substring(1)));
        }
    }

    /**
     * @param rev the state of the prompt; a change names it
     * @param following how many that were set in one step with it are due later
     */
    public record Editable(WantedPrompt prompt, int rev, int following) {}

    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);
    /** Where the number of the week stands in the title of a repeated prompt. */
    private static final String WEEK = "{week}";

    /** At most so many are set in one step. */
    private static final int MOST_REPEATED = 60;

    private final PromptStore store;
    private final AllowanceStore allowances;
    private final BundleStore bundles;
    private final AccessService access;
    private final ClassService classes;
    private final FilesInPrompt files;
    private final EventStore events;
    private final ClassChanges changes;
    private final Clock clock;

    PromptService(
            PromptStore store,
            AllowanceStore allowances,
            BundleStore bundles,
            AccessService access,
            ClassService classes,
            FilesInPrompt files,
            EventStore events,
            ClassChanges changes,
            Clock clock) {
        this.store = store;
        this.allowances = allowances;
        this.bundles = bundles;
        this.access = access;
        this.classes = classes;
        this.files = files;
        this.events = events;
        this.changes = changes;
        this.clock = clock;
    }

    @Transactional
    public long set(Viewer viewer, long classId, WantedPrompt wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        long id = add(viewer, record(null, classId, wanted, null));
        if (wanted.copyOf() != null) {
            access.require(viewer, Act.MANAGE_CLASS, get(wanted.copyOf()).classId());
            store.setCopyOf(id, wanted.copyOf());
        }
        return id;
    }

    /** A prompt with those of which it is a copy, and their other copies, as far as they were due before it. */
    public List<Long> withEarlier(long id) {
        return store.withEarlier(id);
    }

    /**
     * Sets a prompt anew for each week of the term from the one in which it is due, breaks left out, at the same times
     * of the week; each is a prompt of its own from then on. "{week}" in the title is the number of the week.
     *
     * @return how many were set
     */
    @Transactional
    public int repeat(Viewer viewer, long classId, WantedPrompt wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        List<Term.Repeat> weeks = classes.get(classId).term().repeats(wanted.due());
        if (weeks.isEmpty())
            throw Problem.invalid("due", "not-in-term", "This day is in no week of the term that has school.");
        if (weeks.size() > MOST_REPEATED)
            throw Problem.invalid("due", "too-many", "At most 60 prompts are set in one step.");
        Long first = null;
        for (Term.Repeat week : weeks) {
            Prompt prompt = record(null, classId, moved(wanted, week.later(), week.number()), first);
            long id = add(viewer, prompt);
            if (first == null) {
                first = id;
                store.setSeries(id, id);
            }
        }
        return weeks.size();
    }

    /** With own copies of the pictures and files in what it says. */
    private Prompt owning(Viewer viewer, Prompt prompt) {
        return prompt.withTexts(
                files.own(viewer, prompt.classId(), prompt.instructions()),
                prompt.starter(),
                files.own(viewer, prompt.classId(), prompt.example()));
    }

    private long add(Viewer viewer, Prompt wanted) {
        Prompt prompt = owning(viewer, wanted);
        Instant now = clock.instant();
        Long rubric = prompt.rubric() == null
                ? null
                : Long.valueOf(store.addRubric(prompt.classId(), prompt.title(), prompt.rubric(), null, now));
        long id = store.add(prompt, rubric, now);
        events.add(prompt.classId(), "prompt-set", id, viewer.personId());
        changes.note(prompt.classId());
        return id;
    }

    /** The same prompt so many weeks later, at the same times on the clock. */
    private static WantedPrompt moved(WantedPrompt w, long weeks, int number) {
        String title = w.title().contains(WEEK)
                ? w.title().replace(WEEK, "" + number)
                : number == 0 ? w.title() : w.title() + ", week " + number;
        return new WantedPrompt(
                title,
                w.instructions(),
                w.questions(),
                w.tag(),
                opens(w, weeks),
                w.due().plusWeeks(weeks),
                w.graceHours(),
                w.latePercentPerDay(),
                w.lateMostPercent(),
                w.lateFloor(),
                w.points(),
                w.asked(),
                w.answers() == null ? null : w.answers().moved(weeks),
                w.closes() == null ? null : w.closes().plusWeeks(weeks),
                w.commentsDue() == null ? null : w.commentsDue().plusWeeks(weeks),
                w.commentsWords(),
                w.starter(),
                w.example(),
                w.bundleId(),
                w.rubricHidden(),
                w.rubric(),
                w.reviews() == null ? null : w.reviews().moved(weeks),
                w.copyOf());
    }

    /** One that is seen at once is seen, later on, from a week before it is due. */
    private static @Nullable LocalDateTime opens(WantedPrompt w, long weeks) {
        if (w.opens() != null) return w.opens().plusWeeks(weeks);
        return weeks <= 0 ? null : w.due().plusWeeks(weeks - 1);
    }

    /**
     * A prompt as it is to be, to be changed or copied.
     *
     * @param weeksLater by how many weeks its times are moved on
     */
    public Editable editable(Viewer viewer, long id, int weeksLater) {
        Prompt p = get(id);
        access.require(viewer, Act.MANAGE_CLASS, p.classId());
        if (weeksLater < -520 || weeksLater > 520)
            throw Problem.invalid("weeksLater", "weeks-range", "A prompt is moved by at most ten years.");
        Term term = classes.get(p.classId()).term();
        WantedPrompt wanted = new WantedPrompt(
                p.title(),
                p.instructions(),
                p.questions(),
                p.tag(),
                term.timeOf(p.opens()),
                term.timeOf(p.due()),
                (int) p.grace().toHours(),
                plain(p.late().perDay().multiply(HUNDRED)),
                plain(p.late().cap().multiply(HUNDRED)),
                plain(p.late().floor()),
                plain(p.points()),
                p.asked(),
                WantedAnswers.of(p.answers(), term),
                p.closes() == null ? null : term.timeOf(p.closes()),
                p.commentsDue() == null ? null : term.timeOf(p.commentsDue()),
                p.commentsWords(),
                p.starter(),
                p.example(),
                p.bundleId(),
                p.rubricHidden(),
                p.rubric(),
                WantedReviews.of(p.reviews(), term),
                null);
        return new Editable(
                weeksLater == 0 ? wanted : moved(wanted, weeksLater, 0),
                p.rev(),
                following(p).size());
    }

    /** What a prompt takes as its answer, with the times by the clock of its class. */
    public WantedAnswers answersTo(Prompt prompt) {
        return WantedAnswers.of(prompt.answers(), classes.get(prompt.classId()).term());
    }

    /** The prompt as it would be after a change; nothing is kept of it. */
    public Prompt wanted(Prompt before, WantedPrompt wanted) {
        return record(before, before.classId(), wanted, before.series());
    }

    /** Those that were set in one step with a prompt and are due after it, the next one first. */
    public List<Prompt> following(Prompt prompt) {
        if (prompt.series() == null) return List.of();
        return all(prompt.classId()).stream()
                .filter(p -> prompt.series().equals(p.series()) && p.due().isAfter(prompt.due()))
                .sorted(Comparator.comparing(Prompt::due))
                .toList();
    }

    /**
     * One that follows as it would be after the same change: as many weeks later as it is due after the other, under
     * its own title.
     */
    public Prompt wanted(Prompt following, Prompt before, WantedPrompt wanted) {
        Term term = classes.get(before.classId()).term();
        long weeks = ChronoUnit.WEEKS.between(
                term.timeOf(before.due()).toLocalDate(),
                term.timeOf(following.due()).toLocalDate());
        Prompt after = record(following, following.classId(), moved(wanted, weeks, 0), following.series());
        return after.withTitle(following.title());
    }

    /** Keeps a changed prompt, whose row is locked. */
    @Transactional
    public void change(Viewer viewer, Prompt wanted) {
        Prompt changed = owning(viewer, wanted);
        PromptStore.RubricKey known = store.rubricOf(changed.id()).orElse(null);
        Long rubric = null;
        if (changed.rubric() != null)
            rubric = known != null && changed.rubric().equals(get(changed.id()).rubric())
                    ? Long.valueOf(known.id())
                    : Long.valueOf(store.addRubric(
                            changed.classId(),
                            changed.title(),
                            changed.rubric(),
                            known == null ? null : known.root(),
                            clock.instant()));
        store.change(changed, rubric);
        events.add(changed.classId(), "prompt-changed", changed.id(), viewer.personId());
        changes.note(changed.classId());
    }

    /** The prompt, its row locked until the transaction ends. */
    @Transactional
    public Prompt lock(long id) {
        store.lock(id);
        return get(id);
    }

    /** The own dates for prompts, and who was let off: by prompt, by student. */
    public Map<Long, Map<Long, Allowance>> allowances(Collection<Long> promptIds) {
        Map<Long, Map<Long, Allowance>> found = new HashMap<>();
        for (AllowanceStore.Allowed a : allowances.ofPrompts(promptIds))
            found.computeIfAbsent(a.promptId(), id -> new HashMap<>()).put(a.studentId(), a.allowance());
        return found;
    }

    /** @param changes how often what the student is allowed for a prompt was changed, taking back counted */
    public record OwnAllowance(Allowance allowance, int changes) {

        public static final OwnAllowance NONE = new OwnAllowance(Allowance.NONE, 0);
    }

    /** What one student is allowed, by prompt; whoever asks has seen to the right to do so. */
    public Map<Long, OwnAllowance> ownAllowances(List<Prompt> of, long studentId) {
        return allowances.ofStudent(of.stream().map(Prompt::id).toList(), studentId).stream()
                .collect(Collectors.toMap(
                        AllowanceStore.Changed::promptId, a -> new OwnAllowance(a.allowance(), a.changes())));
    }

    public Allowance allowance(long promptId, long studentId) {
        return allowances.find(promptId, studentId);
    }

    /** Keeps what a student is allowed; whoever asks has seen to the right to do so. */
    @Transactional
    public void allow(Viewer viewer, Prompt prompt, long studentId, Allowance allowance) {
        allowances.set(prompt.id(), studentId, allowance, clock.instant());
        events.add(prompt.classId(), "allowance-set", studentId, viewer.personId());
        changes.note(prompt.classId());
    }

    /** The moment of a time of day in a class. */
    public Instant momentIn(long classId, LocalDateTime time) {
        return classes.get(classId).term().momentOf(time);
    }

    /** What the clock of a class says at a moment. */
    public LocalDateTime timeIn(long classId, Instant moment) {
        return classes.get(classId).term().timeOf(moment);
    }

    /** The week of the term in which a moment lies; null in a break and outside of the term. */
    public @Nullable Integer weekIn(long classId, Instant moment) {
        return classes.get(classId).term().weeks().stream()
                .filter(w -> w.contains(moment) && !w.isBreak())
                .map(Term.Week::number)
                .findFirst()
                .orElse(null);
    }

    /** @param before null for a prompt that is set */
    private Prompt record(@Nullable Prompt before, long classId, WantedPrompt wanted, @Nullable Long series) {
        Term term = classes.get(classId).term();
        if (wanted.bundleId() != null) bundles.require(classId, wanted.bundleId());
        List<String> tag = wanted.tag() == null ? List.of() : Tags.tidy(List.of(wanted.tag()));
        Answers answers =
                wanted.answers() == null ? Answers.ONE_POST : wanted.answers().rules(term);
        requireOwn(classId, answers);
        String starter = Objects.requireNonNullElse(wanted.starter(), "");
        Prompt prompt = new Prompt(
                before == null ? 0 : before.id(),
                classId,
                OneLine.of(wanted.title()),
                wanted.instructions().strip(),
                wanted.questions().stream()
                        .map(OneLine::of)
                        .filter(q -> !q.isEmpty())
                        .toList(),
                tag.isEmpty() ? null : tag.get(0),
                wanted.opens() == null
                        ? clock.instant()
                        : moment(term, wanted.opens(), before == null ? null : before.opens()),
                moment(term, wanted.due(), before == null ? null : before.due()),
                Duration.ofHours(wanted.graceHours()),
                new LateRule(
                        wanted.latePercentPerDay().divide(HUNDRED),
                        wanted.lateMostPercent().divide(HUNDRED),
                        Objects.requireNonNullElse(wanted.lateFloor(), BigDecimal.ZERO)),
                wanted.points(),
                before == null ? 1 : before.places(),
                wanted.asked(),
                moment(term, wanted.commentsDue(), before == null ? null : before.commentsDue()),
                wanted.commentsWords() == null ? 0 : Math.max(0, wanted.commentsWords()),
                starter,
                Objects.requireNonNullElse(wanted.example(), ""),
                answers,
                moment(term, wanted.closes(), before == null ? null : before.closes()),
                series,
                wanted.bundleId(),
                Boolean.TRUE.equals(wanted.rubricHidden()),
                wanted.rubric(),
                wanted.reviews() == null
                        ? Reviews.NONE
                        : wanted.reviews().rules(term, before == null ? null : before.reviews()),
                before == null ? 0 : before.rev());
        // What is too long is refused before it is cleaned, which takes its time.
        Prompt checked = prompt.checked();
        return checked.withTexts(
                        Sanitiser.post(checked.instructions()),
                        Sanitiser.post(starter),
                        Sanitiser.post(checked.example()))
                .checked();
    }

    /** What an answer is known by must be of this class. */
    private void requireOwn(long classId, Answers answers) {
        if (answers.also().category() != null
                && !store.hasCategory(classId, answers.also().category()))
            throw Problem.invalid("byCategory", "category-unknown", "This category is not one of this class.");
        if (answers.into() != null && !store.isWrittenIn(classId, answers.into()))
            throw Problem.invalid("into", "blog-unknown", "Students write in no such blog of this class.");
        if (store.postsOf(classId, answers.commentOn())
                != Set.copyOf(answers.commentOn()).size())
            throw Problem.invalid("commentOn", "post-unknown", "One of these posts is not there any more.");
    }

    /** A time that was not changed stays the moment that it was, also in the hour that comes twice. */
    static @Nullable Instant moment(Term term, @Nullable LocalDateTime time, @Nullable Instant before) {
        if (time == null) return null;
        return before != null && term.timeOf(before).equals(time) ? before : term.momentOf(time);
    }

    private static BigDecimal plain(BigDecimal number) {
        return new BigDecimal(number.stripTrailingZeros().toPlainString());
    }

    /** The prompt for a member of its class; students get it from when it opens. */
    public Prompt forMember(Viewer viewer, long id) {
        Prompt prompt = get(id);
        access.require(viewer, Act.READ_CLASS, prompt.classId());
        if (!isOpen(prompt) && !access.allows(viewer, Act.SEE_REAL_NAME, prompt.classId())) throw Problem.missing();
        return prompt;
    }

    /** Whether somebody who may know a prompt sees how it is marked before there are marks. */
    public boolean seesRubric(Viewer viewer, Prompt prompt) {
        return !prompt.rubricHidden() || access.allows(viewer, Act.MARK, prompt.classId());
    }

    public Prompt get(long id) {
        return store.find(id).orElseThrow(Problem::missing);
    }

    public Map<Long, Prompt> byId(Collection<Long> ids) {
        return store.all(ids).stream().collect(Collectors.toMap(Prompt::id, Function.identity()));
    }

    /** The prompts of a class, the one due last first; students get those that are open. */
    public List<Prompt> ofClass(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        boolean staff = access.allows(viewer, Act.SEE_REAL_NAME, classId);
        return all(classId).stream().filter(p -> staff || isOpen(p)).toList();
    }

    public List<Prompt> all(long classId) {
        return store.ofClasses(List.of(classId));
    }

    /** The prompts of classes, the one due last first; whoever asks has seen to the right to do so. */
    List<Prompt> ofClasses(Collection<Long> classIds) {
        return store.ofClasses(classIds);
    }

    /** A prompt by its name alone. */
    public record Named(long id, String title) {}

    /** The open prompts of a class whose answers are read only after the own one. */
    public List<Named> answerFirst(long classId) {
        return store.answerFirst(classId, clock.instant());
    }

    /** When the prompts of a class are due, the last first; students get those that are open. */
    public List<Instant> dueTimes(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        boolean staff = access.allows(viewer, Act.SEE_REAL_NAME, classId);
        return store.dueTimes(classId, staff ? null : clock.instant());
    }

    public boolean hasAny(long classId) {
        return store.hasAny(classId);
    }

    public boolean isOpen(Prompt prompt) {
        return prompt.isOpen(clock.instant());
    }
}
