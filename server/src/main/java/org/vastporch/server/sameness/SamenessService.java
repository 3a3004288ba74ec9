package org.vastporch.server.sameness;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Members;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.sameness.Answer;
import org.vastporch.core.sameness.Common;
import org.vastporch.core.sameness.Passage;
import org.vastporch.core.sameness.Piece;
import org.vastporch.core.sameness.Sameness;
import org.vastporch.core.sameness.Sameness.Pair;
import org.vastporch.core.writing.WorkUsed;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PaperMembers;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.Posts;
import org.vastporch.server.writing.Posts.AnswerText;
import org.vastporch.server.writing.Posts.Handed;

/** Which answers to a prompt share passages, also with those to the prompts of which it is a copy. */
@Service
public class SamenessService {

    /**
     * One answer of a pair.
     *
     * @param studentId left out, as name and title are, for what the viewer may not read
     * @param year the prompt that it answered, if that is an earlier one
     */
    public record SameText(
            long postId,
            @Optionally Long studentId,
            @Optionally String name,
            @Optionally String title,
            Instant at,
            @Optionally String year) {}

    /** Why a pair need not be looked at again. */
    public record WhyAside(String reason, @Optionally String by, Instant at) {}

    /** @param first the one that was handed in first */
    public record SamePair(
            SameText first,
            SameText second,
            int words,
            int passages,
            boolean readable,
            @Optionally WhyAside aside) {}

    /**
     * What more than a third share, which makes no pair.
     *
     * @param texts how many say the part of it that most of them say
     */
    public record SameCommon(String text, int words, int texts) {}

    /**
     * @param texts how many were compared
     * @param common the longest first
     */
    public record SamenessView(long promptId, String title, int texts, List<SameCommon> common, List<SamePair> pairs) {}

    /**
     * A piece of a line.
     *
     * @param passage which one it stands in, from 0 for the longest; left out for none
     * @param quoted whether its author shows it as somebody else's words
     * @param common how many words it has, if more than a third share it, so that it folds away; it may go on over
     *     several lines
     */
    public record SamePiece(
            String text,
            @Optionally Integer passage,
            boolean quoted,
            @Optionally Integer common) {}

    /** A line of a text, cut where passages and quotations begin and end. */
    public record SameLine(List<SamePiece> pieces) {}

    /**
     * A pair with both texts.
     *
     * @param passages the words of each, the longest first
     * @param works titles of works that both say they used
     */
    public record SameTexts(
            SamePair pair, List<Integer> passages, List<SameLine> first, List<SameLine> second, List<String> works) {}

    /** How many pairs a student's answers are in that nobody has put aside. */
    public record SameOf(int pairs, int words) {}

    /**
     * @param texts those that are in a pair
     * @param common what most share, in words of this prompt's own answers
     */
    private record Kept(
            List<Handed> handed,
            String starter,
            List<AnswerText> texts,
            Sameness.Found found,
            List<SameCommon> common) {

        List<Common> commonOf(long post) {
            return found.common().stream().filter(c -> c.text() == post).toList();
        }
    }

    private static final int LONGEST_REASON = 1_000;
    private static final int MOST_KEPT = 20;
    /** Beyond these the shorter ones say little. */
    private static final int MOST_COMMON_SHOWN = 12;

    private final SamenessStore store;
    private final PromptService prompts;
    private final PaperMembers members;
    private final Posts posts;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;
    private final Cache<Long, Kept> kept =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).build();

    SamenessService(
            SamenessStore store,
            PromptService prompts,
            PaperMembers members,
            Posts posts,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.prompts = prompts;
        this.members = members;
        this.posts = posts;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** The pairs of a prompt, those with the most shared words first. */
    public SamenessView pairs(Viewer viewer, long promptId) {
        Prompt prompt = marked(viewer, promptId);
        Kept of = found(prompt);
        return new SamenessView(promptId, prompt.title(), of.handed().size(), of.common(), views(viewer, prompt, of));
    }

    /** How much of it is about one student. */
    public SameOf of(Viewer viewer, long promptId, long studentId) {
        Prompt prompt = marked(viewer, promptId);
        List<SamePair> pairs = views(viewer, prompt, found(prompt)).stream()
                .filter(p -> p.aside() == null)
                .filter(p -> isOf(p.first(), studentId) || isOf(p.second(), studentId))
                .toList();
        return new SameOf(
                pairs.size(), pairs.stream().mapToInt(SamePair::words).max().orElse(0));
    }

    private static boolean isOf(SameText text, long studentId) {
        return text.year() == null && text.studentId() != null && text.studentId() == studentId;
    }

    /** Both texts of a pair. That somebody looked stands in the log. */
    @Transactional
    public SameTexts look(Viewer viewer, long promptId, long first, long second) {
        Prompt prompt = marked(viewer, promptId);
        Kept of = found(prompt);
        SamePair view = pair(viewer, prompt, of, first, second);
        if (!view.readable()) throw Problem.missing();
        Pair pair = of.found().pairs().stream()
                .filter(p -> isPair(p, first, second))
                .findFirst()
                .orElseThrow();
        Map<Long, AnswerText> texts = byId(of);
        boolean isTurned = pair.first() != view.first().postId();
        List<SameLine> one = lines(of, texts.get(pair.first()), pair.passages(), true);
        List<SameLine> other = lines(of, texts.get(pair.second()), pair.passages(), false);
        events.add(prompt.classId(), "sameness-looked-at", promptId, viewer.personId());
        return new SameTexts(
                view,
                pair.passages().stream().map(Passage::words).toList(),
                isTurned ? other : one,
                isTurned ? one : other,
                usedByBoth(of, first, second));
    }

    private List<String> usedByBoth(Kept of, long first, long second) {
        List<WorkUsed> others = worksOf(of, second);
        return worksOf(of, first).stream()
                .filter(work -> others.stream().anyMatch(work::isSame))
                .map(WorkUsed::title)
                .toList();
    }

    private List<WorkUsed> worksOf(Kept of, long post) {
        return of.handed().stream()
                .filter(h -> h.postId() == post)
                .findFirst()
                .flatMap(h -> posts.version(post, h.version()))
                .map(v -> v.content().works())
                .orElse(List.of());
    }

    private static List<SameLine> lines(Kept of, AnswerText text, List<Passage> passages, boolean isFirst) {
        Answer answer = Answer.of(text.postId(), text.html());
        return Piece.of(answer, passages, of.commonOf(text.postId()), isFirst).stream()
                .map(line -> new SameLine(line.stream()
                        .map(p -> new SamePiece(
                                p.text(),
                                p.passage(),
                                p.quoted(),
                                p.common() == 0 ? null : Integer.valueOf(p.common())))
                        .toList()))
                .toList();
    }

    /** @param reason why a pair need not be looked at again; empty to take that back */
    @Transactional
    public void putAside(Viewer viewer, long promptId, long first, long second, String reason) {
        Prompt prompt = marked(viewer, promptId);
        pair(viewer, prompt, found(prompt), first, second);
        if (reason.length() > LONGEST_REASON)
            throw Problem.invalid("reason", "reason-too-long", "A reason has at most 1,000 characters.");
        if (reason.isBlank()) store.takeBack(promptId, first, second);
        else store.putAside(promptId, first, second, reason.strip(), viewer.personId(), clock.instant());
        events.add(
                prompt.classId(),
                reason.isBlank() ? "sameness-taken-back" : "sameness-put-aside",
                promptId,
                viewer.personId());
    }

    private SamePair pair(Viewer viewer, Prompt prompt, Kept of, long first, long second) {
        return views(viewer, prompt, of).stream()
                .filter(p -> Set.of(p.first().postId(), p.second().postId()).equals(Set.of(first, second)))
                .findFirst()
                .orElseThrow(Problem::missing);
    }

    private static boolean isPair(Pair pair, long first, long second) {
        return pair.first() == Math.min(first, second) && pair.second() == Math.max(first, second);
    }

    /** What is shared, kept until something else is to be marked. */
    private Kept found(Prompt prompt) {
        List<Handed> handed = posts.handed(prompts.withEarlier(prompt.id()));
        Kept known = kept.getIfPresent(prompt.id());
        if (known != null && known.handed().equals(handed) && known.starter().equals(prompt.starter())) return known;
        List<AnswerText> texts = posts.words(handed);
        Map<Long, AnswerText> byId = texts.stream().collect(Collectors.toMap(AnswerText::postId, t -> t));
        Sameness.Found all = Sameness.among(
                texts.stream().map(t -> Answer.of(t.postId(), t.html())).toList(),
                List.of(Answer.of(0, prompt.starter()).plain()));
        List<Pair> pairs = all.pairs().stream()
                .filter(p -> {
                    AnswerText one = byId.get(p.first());
                    AnswerText other = byId.get(p.second());
                    return isTold(one, other, prompt.id(), one.authorId() == other.authorId());
                })
                .toList();
        Set<Long> inPairs =
                pairs.stream().flatMap(p -> Stream.of(p.first(), p.second())).collect(Collectors.toSet());
        known = new Kept(
                handed,
                prompt.starter(),
                texts.stream().filter(t -> inPairs.contains(t.postId())).toList(),
                new Sameness.Found(
                        pairs,
                        all.commonRuns(),
                        all.common().stream()
                                .filter(c -> inPairs.contains(c.text()))
                                .toList()),
                shown(all.common(), byId, prompt));
        kept.put(prompt.id(), known);
        return known;
    }

    private static List<SameCommon> shown(List<Common> all, Map<Long, AnswerText> texts, Prompt prompt) {
        List<Common> own = all.stream()
                .filter(c -> texts.get(c.text()).promptId() == prompt.id())
                .toList();
        return Common.once(own).stream()
                .limit(MOST_COMMON_SHOWN)
                .map(c -> new SameCommon(
                        Answer.of(c.text(), texts.get(c.text()).html()).plain().substring(c.start(), c.end()),
                        c.words().size(),
                        c.texts()))
                .toList();
    }

    private static boolean isTold(AnswerText one, AnswerText other, long promptId, boolean oneHand) {
        return Sameness.isTold(promptId, one.promptId(), other.promptId(), oneHand);
    }

    private static Map<Long, AnswerText> byId(Kept of) {
        return of.texts().stream().collect(Collectors.toMap(AnswerText::postId, t -> t));
    }

    private List<SamePair> views(Viewer viewer, Prompt prompt, Kept of) {
        if (of.found().pairs().isEmpty()) return List.of();
        Map<Long, AnswerText> texts = byId(of);
        Set<Long> earlier = new HashSet<>();
        for (Pair pair : of.found().pairs())
            for (long id : List.of(pair.first(), pair.second()))
                if (texts.get(id).promptId() != prompt.id()) earlier.add(id);
        Set<Long> readable = earlier.isEmpty() ? Set.of() : access.readable(viewer, earlier);
        Names names = people.names(viewer, prompt.classId());
        Map<Long, Earlier> years = earlier.isEmpty() ? Map.of() : years(viewer, prompt, texts.values());
        Map<Set<Long>, WhyAside> aside = new HashMap<>();
        for (SamenessStore.PutAside put : store.aside(prompt.id()))
            aside.put(
                    Set.of(put.first(), put.second()),
                    new WhyAside(put.reason(), put.byId() == null ? null : names.of(put.byId()), put.at()));
        // Who hands in together may be somebody else by now, so that is asked each time.
        Members together = members.of(prompt);
        List<SamePair> views = new ArrayList<>();
        for (Pair pair : of.found().pairs()) {
            AnswerText one = texts.get(pair.first());
            AnswerText other = texts.get(pair.second());
            if (!isTold(
                    one, other, prompt.id(), together.authors(one.authorId()).contains(other.authorId()))) continue;
            boolean isTurned = Comparator.comparing(AnswerText::at)
                            .thenComparing(AnswerText::postId)
                            .compare(one, other)
                    > 0;
            SameText first = view(one, prompt, readable, names, years);
            SameText second = view(other, prompt, readable, names, years);
            views.add(new SamePair(
                    isTurned ? second : first,
                    isTurned ? first : second,
                    pair.sharedWords(),
                    pair.passages().size(),
                    first.title() != null && second.title() != null,
                    aside.get(Set.of(pair.first(), pair.second()))));
        }
        return views;
    }

    /** An earlier prompt, and the names of those who answered it. */
    private record Earlier(String title, Names names) {}

    private Map<Long, Earlier> years(Viewer viewer, Prompt prompt, Collection<AnswerText> texts) {
        Set<Long> ids = texts.stream()
                .map(AnswerText::promptId)
                .filter(id -> id != prompt.id())
                .collect(Collectors.toSet());
        Map<Long, Names> names = new HashMap<>();
        Map<Long, Earlier> years = new HashMap<>();
        prompts.byId(ids)
                .forEach((id, p) -> years.put(
                        id,
                        new Earlier(p.title(), names.computeIfAbsent(p.classId(), of -> people.names(viewer, of)))));
        return years;
    }

    private static SameText view(
            AnswerText text, Prompt prompt, Set<Long> readable, Names names, Map<Long, Earlier> years) {
        boolean isEarlier = text.promptId() != prompt.id();
        if (isEarlier && !readable.contains(text.postId()))
            return new SameText(text.postId(), null, null, null, text.at(), "");
        Earlier year = years.get(text.promptId());
        return new SameText(
                text.postId(),
                text.authorId(),
                (year == null ? names : year.names()).of(text.authorId()),
                text.title(),
                text.at(),
                year == null ? null : year.title());
    }

    private Prompt marked(Viewer viewer, long promptId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        return prompt;
    }
}
