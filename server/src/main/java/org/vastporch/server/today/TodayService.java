package org.vastporch.server.today;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.feeds.SourceService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.marking.MarkingDesk;
import org.vastporch.server.marking.SecondReadingService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptQuestions;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reading.PorchService;

/** What needs a person now, one line each; what is fine is not said. */
@Service
public class TodayService {

    public record ToApprove(
            int total, int posts, int comments, int outside, int headers, int reviews, int held, Instant oldest) {}

    /** @param toTakeOver how many an assistant has marked, for a teacher to take over */
    public record ToMark(long promptId, String title, Instant due, int count, int toTakeOver, int missing) {}

    /** Papers that a colleague would like the viewer to read a second time. */
    public record ToReadAgain(long promptId, String title, int count) {}

    public record Faltering(
            long id, String title, String error, @Optionally Instant lastEntry) {}

    /** An outside blog that its student asks to bring in. */
    public record AskedSource(String title, String person) {}

    /** Somebody who came in by the class word. */
    public record CameByWord(String name, Instant at) {}

    /** A student of this class whom a teacher of another one enrolled there. */
    public record EnrolledElsewhere(String name, String by, String className, Instant at) {}

    /**
     * @param askedNames names of newcomers that could be taken for somebody else's: the class sees them once staff have
     *     looked
     * @param byWord who came in by the class word within a week
     * @param enrolled who was enrolled elsewhere within two weeks
     * @param week number of the week that is now; 0 in a break or outside the term
     */
    public record Today(
            String day,
            int week,
            String className,
            int students,
            boolean hasPrompts,
            @Optionally ToApprove approve,
            List<ToMark> mark,
            List<ToReadAgain> readAgain,
            List<PromptQuestions.Waiting> questions,
            int unanswered,
            int weekIndex,
            List<Faltering> faltering,
            List<AskedSource> askedSources,
            List<String> elsewhere,
            List<String> askedNames,
            List<CameByWord> byWord,
            List<EnrolledElsewhere> enrolled) {}

    private final TodayStore store;
    private final ClassService classes;
    private final PeopleService people;
    private final PromptService prompts;
    private final PromptQuestions questions;
    private final MarkingDesk desk;
    private final SecondReadingService seconds;
    private final PorchService porch;
    private final SourceService sources;
    private final AccessService access;
    private final Clock clock;

    TodayService(
            TodayStore store,
            ClassService classes,
            PeopleService people,
            PromptService prompts,
            PromptQuestions questions,
            MarkingDesk desk,
            SecondReadingService seconds,
            PorchService porch,
            SourceService sources,
            AccessService access,
            Clock clock) {
        this.store = store;
        this.classes = classes;
        this.people = people;
        this.prompts = prompts;
        this.questions = questions;
        this.desk = desk;
        this.seconds = seconds;
        this.porch = porch;
        this.sources = sources;
        this.access = access;
        this.clock = clock;
    }

    public Today of(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_STAFF_THREAD, classId);
        ClassService.ClassRecord in = classes.get(classId);
        boolean teaches = access.allows(viewer, Act.MANAGE_CLASS, classId);
        Instant now = clock.instant();
        List<Term.Week> weeks = in.term().weeks();
        int index = 0;
        for (int i = 0; i < weeks.size(); i++) if (weeks.get(i).contains(now)) index = i;
        Term.Week week = weeks.get(index);
        ToApprove approve = store.waiting(List.of(classId)).stream()
                .findFirst()
                .map(w -> new ToApprove(
                        w.all(), w.posts(), w.comments(), w.outside(), w.headers(), w.reviews(), w.held(), w.oldest()))
                .orElse(null);
        Names names = people.names(viewer, classId);
        List<SourceService.SourceView> gathered = sources.ofClass(viewer, classId);
        return new Today(
                in.term().dayOf(now).getDayOfWeek().name(),
                week.contains(now) ? week.number() : 0,
                in.name(),
                people.students(classId).size(),
                prompts.hasAny(classId),
                approve,
                desk.of(classId).stream()
                        .filter(p -> p.waiting(teaches) > 0)
                        .map(p -> new ToMark(
                                p.promptId(),
                                p.title(),
                                p.due(),
                                p.toMark(),
                                teaches ? p.toTakeOver() : 0,
                                p.missing()))
                        .toList(),
                seconds.askedOf(viewer, classId).stream()
                        .map(a -> new ToReadAgain(a.promptId(), a.title(), (int)
                                a.papers().stream().filter(p -> !p.finished()).count()))
                        .filter(a -> a.count() > 0)
                        .toList(),
                questions.waiting(classId),
                porch.unanswered(viewer, classId, week.start(), week.end()),
                index,
                faltering(gathered),
                gathered.stream()
                        .filter(SourceService.SourceView::asked)
                        .map(s -> new AskedSource(s.title(), s.person()))
                        .toList(),
                elsewhere(viewer, classId),
                store.nameAsked(classId).stream().map(names::of).toList(),
                store.byWord(classId, now.minus(Duration.ofDays(7))).stream()
                        .map(a -> new CameByWord(names.of(a.personId()), a.at()))
                        .toList(),
                store.enrolledElsewhere(classId, now.minus(Duration.ofDays(14))).stream()
                        .map(a -> new EnrolledElsewhere(
                                names.of(a.personId()), people.ownName(a.by()), a.elsewhere(), a.at()))
                        .toList());
    }

    private static List<Faltering> faltering(List<SourceService.SourceView> gathered) {
        return gathered.stream()
                .filter(s -> s.health().equals("FALTERING") || s.health().equals("STOPPED"))
                .map(s -> new Faltering(s.id(), s.title(), s.lastError() == null ? "" : s.lastError(), s.lastEntry()))
                .toList();
    }

    /** The viewer's other classes in which something waits. */
    private List<String> elsewhere(Viewer viewer, long classId) {
        List<Long> others = viewer.memberships().stream()
                .filter(m -> m.classId() != classId
                        && m.isActiveAt(clock.instant())
                        && m.role().approves())
                .map(m -> m.classId())
                .toList();
        return store.waiting(others).stream()
                .map(w -> classes.get(w.classId()).name())
                .toList();
    }
}
