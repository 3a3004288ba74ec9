package org.vastporch.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.core.rubrics.Counted;
import org.vastporch.core.rubrics.Measure;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.marking.MarkingService;
import org.vastporch.server.marking.PaperService;
import org.vastporch.server.marking.ReleaseService;
import org.vastporch.server.media.AttachmentService;
import org.vastporch.server.media.Upload;
import org.vastporch.server.media.UploadFolder;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.prompts.WantedReviews;
import org.vastporch.server.writing.PostService;

/**
 * Sound Walks over half a term: four prompts of two posts each with sounds that play, three comments asked by the
 * Wednesday after, and an assistant who marks. The first walk is done, the second is partly taken over, the third is
 * being marked, the fourth has begun.
 */
@Component
class SoundWalks {

    private static final int ASKED_COMMENTS = 3;
    private static final int DONE = 0;
    private static final int PARTLY_TAKEN_OVER = 1;
    private static final int BEING_MARKED = 2;
    private static final int BEGUN = 3;
    private static final int TAKEN_OVER = 11;
    private static final int MARKED_OF_THIRD = 6;
    private static final int BEGUN_OF_FOURTH = 4;
    /** In which week each walk is set; the fourth week is free. */
    private static final List<Integer> WEEKS = List.of(0, 2, 5, 7);

    /** Whose post of the first walk is wanted to warm up on. */
    private static final int ASKED_FOR = 6;

    private record Written(long student, long post) {}

    private final DemoClock clock;
    private final PeopleService people;
    private final BlogService blogs;
    private final PromptService prompts;
    private final PostService posts;
    private final PileService pile;
    private final CommentService comments;
    private final MarkingService marking;
    private final PaperService papers;
    private final ReleaseService releases;
    private final AttachmentService attachments;
    private final UploadFolder uploads;
    private final AccessService access;
    private final UnnamedSounds unnamed;
    private final OwnViews own;
    private final SecondEyes seconds;
    private final PeerReviews peers;
    private final Random random = new Random(12);

    SoundWalks(
            Clock clock,
            PeopleService people,
            BlogService blogs,
            PromptService prompts,
            PostService posts,
            PileService pile,
            CommentService comments,
            MarkingService marking,
            PaperService papers,
            ReleaseService releases,
            AttachmentService attachments,
            UploadFolder uploads,
            AccessService access,
            UnnamedSounds unnamed,
            OwnViews own,
            SecondEyes seconds,
            PeerReviews peers) {
        this.clock = (DemoClock) clock;
        this.people = people;
        this.blogs = blogs;
        this.prompts = prompts;
        this.posts = posts;
        this.pile = pile;
        this.comments = comments;
        this.marking = marking;
        this.papers = papers;
        this.releases = releases;
        this.attachments = attachments;
        this.uploads = uploads;
        this.access = access;
        this.unnamed = unnamed;
        this.own = own;
        this.seconds = seconds;
        this.peers = peers;
    }

    void fill(Viewer teacher, Viewer assistant, long classId, LocalDate monday, Instant now) {
        List<Long> students = people.students(classId);
        long toWarmUpOn = 0;
        for (int w = 0; w < SoundTexts.WALKS.size(); w++) {
            LocalDate set = monday.plusWeeks(WEEKS.get(w));
            clock.set(earlier(DemoSchool.at(set, 7, 30), now));
            long prompt = prompts.set(teacher, classId, wanted(SoundTexts.WALKS.get(w), set, peersOf(w, set, now)));
            List<Written> written = writeAll(classId, students, w, prompt, set, now);
            answer(students, written, w, earlier(DemoSchool.at(set.plusDays(9), 17, 0), now));
            if (w == PARTLY_TAKEN_OVER) unnamed.fill(teacher, classId, set.plusWeeks(1));
            clock.set(earlier(DemoSchool.at(set.plusDays(13), 17, 0), now));
            if (w < BEGUN) lookAt(teacher);
            own.fill(prompt, w == DONE ? students : students.subList(0, students.size() / (w + 1)));
            if (w == DONE || w == BEING_MARKED) peers.giveOut(teacher, prompt);
            if (w == DONE) {
                toWarmUpOn = written.get(ASKED_FOR).post();
                peers.give(teacher, prompt, 3);
                clock.set(DemoSchool.at(set.plusDays(14), 8, 10));
                peers.giveLate(teacher, prompt);
                markSome(teacher, prompt, students.size());
                seconds.read(teacher, assistant, prompt, 0);
                release(teacher, prompt);
            }
            if (w == PARTLY_TAKEN_OVER) {
                markSome(assistant, prompt, students.size());
                takeOver(teacher, prompt);
                release(teacher, prompt);
            }
            if (w == BEING_MARKED) {
                markSome(assistant, prompt, MARKED_OF_THIRD);
                markSome(teacher, prompt, MARKED_OF_THIRD);
                seconds.read(teacher, assistant, prompt, 3);
                peers.give(teacher, prompt, 2);
                peers.askToWarmUpOn(teacher, prompt, toWarmUpOn);
            }
        }
    }

    /** Classmates have read the first walk, and are reading the third. */
    private static WantedReviews.WantedPeers peersOf(int walk, LocalDate set, Instant now) {
        return switch (walk) {
            case DONE -> PeerReviews.wanted(set.plusDays(13));
            case BEING_MARKED ->
                PeerReviews.wanted(now.atZone(DemoSchool.ZONE).toLocalDate().plusDays(2));
            default -> null;
        };
    }

    private static PromptService.WantedPrompt wanted(
            SoundTexts.Walk walk, LocalDate set, WantedReviews.@Nullable WantedPeers peers) {
        return new PromptService.WantedPrompt(
                walk.prompt(),
                walk.instructions(),
                List.of("What did you hear first, and what last?", "What is not on the recording?"),
                null,
                null,
                LocalDateTime.of(set.plusDays(7), LocalTime.of(18, 0)),
                12,
                new BigDecimal("4"),
                new BigDecimal("20"),
                null,
                new BigDecimal("20"),
                new HandIn.Asked(30, 0, 0, 0, 0, 0, ASKED_COMMENTS),
                new PromptService.WantedAnswers(2, false, false, false, List.of(), null, false, false, null, null),
                null,
                LocalDateTime.of(set.plusDays(9), LocalTime.of(20, 0)),
                5,
                null,
                null,
                null,
                null,
                listening(),
                new WantedReviews(Reviews.Self.ASKED, 0, peers),
                null);
    }

    static Rubric listening() {
        return new Rubric(List.of(
                criterion(
                        "Listening",
                        "3",
                        List.of("names", "tells apart", "places", "follows"),
                        List.of(
                                "Names sounds that one would expect there.",
                                "Tells sounds apart that come at the same time.",
                                "Says from where each comes, and what it does to the place.",
                                "Follows one sound through the whole, and what changes it."),
                        new Measure(Counted.SOUNDS, List.of(1))),
                criterion(
                        "Words for sounds",
                        "2",
                        List.of("loud or soft", "borrowed", "found", "exact"),
                        List.of(
                                "Loud, soft, nice.",
                                "Words that are said of any such place.",
                                "Words of one's own.",
                                "A reader could pick out the recording by them."),
                        new Measure(Counted.WORDS, List.of(60, 100))),
                criterion(
                        "Reflection",
                        "2",
                        List.of("none", "repeats", "doubts", "changes"),
                        List.of(
                                "The second post says the first again.",
                                "Adds to the first.",
                                "Doubts something in the first, with the minute at which it can be heard.",
                                "Says what will be done differently, and why."),
                        new Measure(Counted.COMMENTS, List.of()))));
    }

    private static Rubric.Criterion criterion(
            String name, String weight, List<String> names, List<String> descriptors, Measure counted) {
        List<Rubric.Level> levels = new ArrayList<>();
        for (int i = 0; i < names.size(); i++)
            levels.add(new Rubric.Level(names.get(i), BigDecimal.valueOf(i), descriptors.get(i)));
        return new Rubric.Criterion("", name, new BigDecimal(weight), levels, List.of(counted));
    }

    /** Both posts of everybody who came to it so far, in the order of the places. */
    private List<Written> writeAll(
            long classId, List<Long> students, int walk, long prompt, LocalDate set, Instant now) {
        List<Written> written = new ArrayList<>();
        boolean isLast = walk == SoundTexts.WALKS.size() - 1;
        for (int s = 0; s < students.size(); s++) {
            if (isLast ? s >= BEGUN_OF_FOURTH : (s + 5 * walk) % 17 == 16) continue;
            SoundTexts.Walk of = SoundTexts.WALKS.get(walk);
            boolean late = (s + walk) % 8 == 7;
            Instant first = DemoSchool.at(set.plusDays(isLast ? 0 : 2 + s % 4), 16, (s * 7) % 60);
            Instant second = DemoSchool.at(set.plusDays(late ? 9 : 6), 17, (s * 5) % 60);
            long student = students.get(s);
            String spot = SoundTexts.spot(of, s);
            long post = handIn(classId, student, prompt, earlier(first, now), spot, s, walk, of);
            written.add(new Written(student, post));
            if (isLast || walk == BEING_MARKED && s % 9 == 4) continue;
            handIn(classId, student, prompt, earlier(second, now), null, s, walk, of);
        }
        return written;
    }

    /** @param spot the title of a portrait with its sound; null for what was heard when listening again */
    private long handIn(
            long classId, long student, long prompt, Instant at, String spot, int s, int walk, SoundTexts.Walk of) {
        clock.set(at);
        Viewer author = access.viewer(student);
        long id = posts.begin(author, blogs.homeOf(classId, student).orElseThrow(), prompt);
        String html =
                spot == null ? SoundTexts.again(of, s) : SoundTexts.portrait(of, s, sound(author, id, s + 20 * walk));
        int rev = posts.save(
                        author,
                        id,
                        new PostService.Save(
                                posts.draft(author, id).beside().rev(),
                                spot == null ? "Listening again: " + SoundTexts.spot(of, s) : spot,
                                html,
                                List.of(spot == null ? "again" : "portrait"),
                                "MY_CLASS",
                                null,
                                null))
                .rev();
        posts.handIn(author, id, new PostService.HandingIn(rev, null, null));
        return id;
    }

    private String sound(Viewer author, long post, int seed) {
        try (Upload upload = uploads.of(Sounds.walk(seed), "walk.wav")) {
            AttachmentService.FileView file = attachments.add(author, post, upload);
            return "<figure data-kind=\"sound\"><a href=\"" + file.address()
                    + "\">Five minutes, cut to four seconds</a></figure>";
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Most give their three comments by the Wednesday. */
    private void answer(List<Long> students, List<Written> written, int walk, Instant until) {
        for (int s = 0; s < students.size() && walk < BEGUN; s++) {
            int gives = (s + walk) % 6 == 5 ? 1 : ASKED_COMMENTS;
            for (int c = 0; c < gives; c++) {
                clock.set(until.minusSeconds(60L * (3 * s + c)));
                Written of = written.get((s + 2 + c * (c + 1)) % written.size());
                if (of.student() == students.get(s)) continue;
                comments.add(
                        access.viewer(students.get(s)),
                        of.post(),
                        SoundTexts.COMMENTS.get((s + 2 * c + walk) % SoundTexts.COMMENTS.size()),
                        null);
            }
        }
    }

    /** What was published is looked at afterwards. */
    private void lookAt(Viewer teacher) {
        List<PileService.Seen> waiting = pile.pile(teacher, new PileFilter(null, "", 200)).items().stream()
                .map(i -> new PileService.Seen(i.subject(), i.id(), i.version(), i.rev()))
                .toList();
        if (!waiting.isEmpty()) pile.decide(teacher, new PileService.Deciding(Step.APPROVE, "", waiting));
    }

    private void markSome(Viewer marker, long prompt, int most) {
        int marked = 0;
        for (PaperService.StripView line : papers.strip(marker, prompt).students()) {
            if (line.standing() != PaperState.HANDED_IN || marked++ >= most) continue;
            for (Rubric.Criterion criterion :
                    papers.paper(marker, prompt, line.studentId()).rubric().criteria())
                marking.mark(
                        marker,
                        prompt,
                        line.studentId(),
                        papers.paper(marker, prompt, line.studentId()).given().seen(),
                        criterion.id(),
                        new MarkingService.Given(BigDecimal.valueOf(1 + random.nextInt(3)), false, "", ""));
        }
    }

    private void takeOver(Viewer teacher, long prompt) {
        releases.takeOver(
                teacher,
                prompt,
                papers.strip(teacher, prompt).students().stream()
                        .filter(PaperService.StripView::toTakeOver)
                        .limit(TAKEN_OVER)
                        .map(s -> new ReleaseService.SeenPaper(s.studentId(), s.seen()))
                        .toList());
    }

    private void release(Viewer teacher, long prompt) {
        releases.release(
                teacher,
                prompt,
                papers.strip(teacher, prompt).students().stream()
                        .filter(s -> s.standing() == PaperState.MARKED)
                        .map(s -> new ReleaseService.SeenPaper(s.studentId(), s.seen()))
                        .toList());
    }

    private static Instant earlier(Instant moment, Instant other) {
        return moment.isBefore(other) ? moment : other;
    }
}
