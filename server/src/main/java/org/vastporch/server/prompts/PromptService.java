package org.vastporch.server.prompts;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.comments.CommentsAsked;
import org.vastporch.core.marking.LateRule;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.text.OneLine;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.writing.HandIn;
import org.vastporch.core.writing.Tags;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;

/** Prompts and their rubrics. */
@Service
public class PromptService {

    private static final int LONGEST_STARTER = 100_000;

    /**
     * @param commentsDue by when the comments asked for are to be given; null for the day the prompt is due
     * @param commentsWords fewest words of a comment that counts; 0 for any
     * @param starter clean HTML that a new answer begins with; empty for a blank page
     */
    public record PromptRecord(
            long id,
            long classId,
            String title,
            String instructions,
            List<String> questions,
            @Nullable String tag,
            Instant opens,
            Instant due,
            Duration grace,
            LateRule late,
            BigDecimal points,
            int places,
            HandIn.Asked asked,
            @Nullable Instant commentsDue,
            int commentsWords,
            String starter,
            boolean answerFirst,
            @Nullable Rubric rubric) {

        public CommentsAsked commentsAsked() {
            return new CommentsAsked(asked.comments(), commentsWords, commentsDue);
        }
    }

    /**
     * A prompt that is to be set. Times are the class's own time of day, as 2026-11-29T20:00.
     *
     * @param answerFirst whether students read others' answers only once their own is published
     * @param latePercentPerDay points lost for each started day, in per cent
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
            BigDecimal points,
            HandIn.Asked asked,
            @Optionally LocalDateTime commentsDue,
            @Optionally Integer commentsWords,
            @Optionally String starter,
            @Optionally Boolean answerFirst,
            @Optionally Rubric rubric) {}

    private final PromptStore store;
    private final AccessService access;
    private final ClassService classes;
    private final EventStore events;
    private final Clock clock;

    PromptService(PromptStore store, AccessService access, ClassService classes, EventStore events, Clock clock) {
        this.store = store;
        this.access = access;
        this.classes = classes;
        this.events = events;
        this.clock = clock;
    }

    @Transactional
    public long set(Viewer viewer, long classId, WantedPrompt wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        ZoneId zone = classes.get(classId).term().zone();
        String title = OneLine.of(wanted.title());
        if (title.isEmpty()) throw Problem.invalid("title", "title-missing", "Give the prompt a title.");
        if (title.length() > 160)
            throw Problem.invalid(
                    "title",
                    "title-too-long",
                    "A title has at most 160 characters; this one has " + title.length() + ".");
        Instant due = moment(wanted.due(), zone);
        Instant opens = wanted.opens() == null ? clock.instant() : moment(wanted.opens(), zone);
        if (!opens.isBefore(due)) throw Problem.invalid("due", "due-before-opening", "It must be due after it opens.");
        if (wanted.points().signum() < 0 || wanted.points().compareTo(BigDecimal.valueOf(10_000)) > 0)
            throw Problem.invalid("points", "points-range", "Points lie between 0 and 10,000.");
        if (wanted.graceHours() < 0 || wanted.graceHours() > 24 * 60)
            throw Problem.invalid("graceHours", "grace-range", "Grace lies between 0 and 1,440 hours.");
        List<String> tag = wanted.tag() == null ? List.of() : Tags.tidy(List.of(wanted.tag()));
        BigDecimal hundred = BigDecimal.valueOf(100);
        LateRule late = new LateRule(
                wanted.latePercentPerDay().divide(hundred),
                wanted.lateMostPercent().divide(hundred),
                BigDecimal.ZERO);
        String starter = wanted.starter() == null
                ? ""
                : wanted.starter().length() > LONGEST_STARTER ? wanted.starter() : Sanitiser.post(wanted.starter());
        if (starter.length() > LONGEST_STARTER)
            throw Problem.invalid("starter", "starter-too-long", "This beginning is too long.");
        Long rubric =
                wanted.rubric() == null ? null : store.addRubric(classId, title, wanted.rubric(), clock.instant());
        long id = store.add(
                new PromptRecord(
                        0,
                        classId,
                        title,
                        wanted.instructions().strip(),
                        wanted.questions().stream()
                                .map(String::strip)
                                .filter(q -> !q.isEmpty())
                                .toList(),
                        tag.isEmpty() ? null : tag.get(0),
                        opens,
                        due,
                        Duration.ofHours(wanted.graceHours()),
                        late,
                        wanted.points(),
                        1,
                        wanted.asked(),
                        wanted.commentsDue() == null ? null : moment(wanted.commentsDue(), zone),
                        wanted.commentsWords() == null ? 0 : Math.max(0, wanted.commentsWords()),
                        starter,
                        Boolean.TRUE.equals(wanted.answerFirst()),
                        wanted.rubric()),
                rubric,
                clock.instant());
        events.add(classId, "prompt-set", id, viewer.personId());
        return id;
    }

    /** The prompt for a member of its class; students get it from when it opens. */
    public PromptRecord forMember(Viewer viewer, long id) {
        PromptRecord prompt = get(id);
        access.require(viewer, Act.READ_CLASS, prompt.classId());
        if (!isOpen(prompt) && !access.allows(viewer, Act.SEE_REAL_NAME, prompt.classId())) throw Problem.missing();
        return prompt;
    }

    public PromptRecord get(long id) {
        return store.find(id).orElseThrow(Problem::missing);
    }

    public Map<Long, PromptRecord> byId(Collection<Long> ids) {
        return store.all(ids).stream().collect(Collectors.toMap(PromptRecord::id, Function.identity()));
    }

    /** The prompts of a class, the one due last first; students get those that are open. */
    public List<PromptRecord> ofClass(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        boolean staff = access.allows(viewer, Act.SEE_REAL_NAME, classId);
        return all(classId).stream().filter(p -> staff || isOpen(p)).toList();
    }

    public List<PromptRecord> all(long classId) {
        return store.ofClass(classId);
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

    private boolean isOpen(PromptRecord prompt) {
        return !clock.instant().isBefore(prompt.opens());
    }

    /** A time of day in the class's zone; one that summer time skips counts as the first moment after. */
    private static Instant moment(LocalDateTime local, ZoneId zone) {
        try {
            return local.atZone(zone).toInstant();
        } catch (DateTimeException e) {
            throw Problem.invalid("due", "time-unknown", "This is not a time: " + local);
        }
    }
}
