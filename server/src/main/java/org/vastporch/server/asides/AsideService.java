package org.vastporch.server.asides;

import java.time.Clock;
import java.time.Instant;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.asides.AsideStore.About;
import org.vastporch.server.asides.AsideStore.Aside;
import org.vastporch.server.asides.AsideStore.Kind;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.FeedbackService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reports.FiledReportService;

/**
 * What is said beside what everybody reads: a private word from staff to the author of a post or comment, words between
 * a student and the staff about the marks of a paper or about nothing that is written, and threads of the staff alone,
 * about a post, a prompt or the marking of one student.
 */
@Service
public class AsideService {

    private static final int LONGEST = 10_000;

    public record AsideView(long id, String author, String html, Instant at, boolean own) {}

    /** @param mayWrite whether the viewer may add to it */
    public record AsideList(List<AsideView> list, boolean mayWrite) {}

    private final AsideStore store;
    private final CommentService comments;
    private final PromptService prompts;
    private final FeedbackService feedback;
    private final PeopleService people;
    private final FiledReportService reports;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    AsideService(
            AsideStore store,
            CommentService comments,
            PromptService prompts,
            FeedbackService feedback,
            PeopleService people,
            FiledReportService reports,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.comments = comments;
        this.prompts = prompts;
        this.feedback = feedback;
        this.people = people;
        this.reports = reports;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** The private words about a post: for its author and the staff. */
    public AsideList wordsOnPost(Viewer viewer, long postId) {
        PostFacts post = access.requirePost(viewer, Act.READ, postId);
        return words(viewer, post.blog().classId(), post.authorId(), About.of(Kind.WORD, "post", postId));
    }

    @Transactional
    public AsideView sayOnPost(Viewer viewer, long postId, String text) {
        PostFacts post = access.requirePost(viewer, Act.READ, postId);
        return add(viewer, post.blog().classId(), About.of(Kind.WORD, "post", postId), text);
    }

    /** The private words about a comment: for its author and the staff. */
    public AsideList wordsOnComment(Viewer viewer, long commentId) {
        CommentService.Placed comment = comments.placed(viewer, commentId);
        return words(viewer, comment.classId(), comment.authorId(), About.of(Kind.WORD, "comment", commentId));
    }

    @Transactional
    public AsideView sayOnComment(Viewer viewer, long commentId, String text) {
        CommentService.Placed comment = comments.placed(viewer, commentId);
        if (comment.authorId() == 0)
            throw Problem.invalid("text", "visitor", "This visitor has no account and could not read it.");
        return add(viewer, comment.classId(), About.of(Kind.WORD, "comment", commentId), text);
    }

    /** What a student and the staff say to each other about the marks of a paper, once the student sees them. */
    public AsideList wordsOnPaper(Viewer viewer, long promptId, long studentId) {
        long classId = ofPaper(viewer, promptId, studentId);
        AsideList list = list(viewer, classId, new About(Kind.WORD, "paper", promptId, studentId));
        boolean mayWrite = feedback.isShown(promptId, studentId)
                && (list.mayWrite() || viewer.isInPerson() && viewer.personId() == studentId);
        return new AsideList(list.list(), mayWrite);
    }

    @Transactional
    public AsideView sayOnPaper(Viewer viewer, long promptId, long studentId, String text) {
        long classId = ofPaper(viewer, promptId, studentId);
        if (!feedback.isShown(promptId, studentId))
            throw Problem.stale("not-released", "These marks are not released, so there is nothing to answer to.");
        if (viewer.personId() == studentId) Problem.unlessAllowed(AccessEngine.own(viewer));
        else access.requireAside(viewer, classId);
        return keep(viewer, classId, new About(Kind.WORD, "paper", promptId, studentId), text);
    }

    /** What the viewer, a student of the class, and its staff say to each other. */
    public AsideList wordsToMe(Viewer viewer, long classId) {
        long me = student(viewer, classId, viewer.personId());
        AsideList list = list(viewer, classId, toStudent(classId, me));
        return new AsideList(list.list(), viewer.isInPerson() && wasSpokenTo(classId, me));
    }

    /** Whether staff said something to a student that can be answered: a word, or a report. */
    private boolean wasSpokenTo(long classId, long student) {
        return !store.about(toStudent(classId, student)).isEmpty() || reports.wasTold(classId, student);
    }

    /** A student answers; the first word is the staff's. */
    @Transactional
    public AsideView sayToStaff(Viewer viewer, long classId, String text) {
        long me = student(viewer, classId, viewer.personId());
        Problem.unlessAllowed(AccessEngine.own(viewer));
        if (!wasSpokenTo(classId, me))
            throw Problem.stale("no-word", "Nobody has written to you here, so there is nothing to answer to.");
        return keep(viewer, classId, toStudent(classId, me), text);
    }

    public AsideList wordsToStudent(Viewer viewer, long classId, long studentId) {
        access.require(viewer, Act.SEE_STAFF_THREAD, classId);
        return list(viewer, classId, toStudent(classId, student(viewer, classId, studentId)));
    }

    @Transactional
    public AsideView sayToStudent(Viewer viewer, long classId, long studentId, String text) {
        access.require(viewer, Act.SEE_STAFF_THREAD, classId);
        return add(viewer, classId, toStudent(classId, student(viewer, classId, studentId)), text);
    }

    /** The same word to each of several students, of which none knows of the others. */
    @Transactional
    public int sayToSeveral(Viewer viewer, long classId, List<Long> students, String text) {
        access.require(viewer, Act.SEE_STAFF_THREAD, classId);
        Set<Long> each = new LinkedHashSet<>(students);
        if (each.isEmpty()) throw Problem.invalid("students", "nobody", "Choose somebody to write to.");
        if (!new HashSet<>(people.students(classId)).containsAll(each))
            throw Problem.stale("not-in-class", "Somebody of these is no longer in the class. Choose once more.");
        for (long student : each) add(viewer, classId, toStudent(classId, student), text);
        return each.size();
    }

    /** Of one class: the staff of another do not read it. */
    private static About toStudent(long classId, long studentId) {
        return new About(Kind.WORD, "person", classId, studentId);
    }

    private long student(Viewer viewer, long classId, long studentId) {
        access.require(viewer, Act.READ_CLASS, classId);
        if (!people.students(classId).contains(studentId)) throw Problem.missing();
        return studentId;
    }

    /** The class, for the student and those who mark there; the student knows of it while the marks are shown. */
    private long ofPaper(Viewer viewer, long promptId, long studentId) {
        long classId = prompts.forMember(viewer, promptId).classId();
        boolean own = !viewer.isStranger() && viewer.personId() == studentId;
        if (own && !feedback.isShown(promptId, studentId)) throw Problem.missing();
        if (!own) access.require(viewer, Act.MARK, classId);
        if (!people.students(classId).contains(studentId)) throw Problem.missing();
        return classId;
    }

    private AsideList words(Viewer viewer, long classId, long author, About about) {
        if (!access.mayReadWord(viewer, classId, author)) throw Problem.missing();
        return list(viewer, classId, about);
    }

    public AsideList onPost(Viewer viewer, long postId) {
        return list(viewer, staffOfPost(viewer, postId), About.of(Kind.STAFF, "post", postId));
    }

    @Transactional
    public AsideView addOnPost(Viewer viewer, long postId, String text) {
        return add(viewer, staffOfPost(viewer, postId), About.of(Kind.STAFF, "post", postId), text);
    }

    /** @param studentId whose marking it is about; null for the prompt itself */
    public AsideList onPrompt(Viewer viewer, long promptId, @Nullable Long studentId) {
        return list(viewer, staffOfPrompt(viewer, promptId), new About(Kind.STAFF, "prompt", promptId, studentId));
    }

    @Transactional
    public AsideView addOnPrompt(Viewer viewer, long promptId, @Nullable Long studentId, String text) {
        long classId = staffOfPrompt(viewer, promptId);
        if (studentId != null && !people.students(classId).contains(studentId)) throw Problem.missing();
        return add(viewer, classId, new About(Kind.STAFF, "prompt", promptId, studentId), text);
    }

    private long staffOfPost(Viewer viewer, long postId) {
        long classId = access.requirePost(viewer, Act.READ, postId).blog().classId();
        access.require(viewer, Act.SEE_STAFF_THREAD, classId);
        return classId;
    }

    private long staffOfPrompt(Viewer viewer, long promptId) {
        long classId = prompts.forMember(viewer, promptId).classId();
        access.require(viewer, Act.SEE_STAFF_THREAD, classId);
        return classId;
    }

    private AsideList list(Viewer viewer, long classId, About about) {
        Names names = people.names(viewer, classId);
        return new AsideList(
                store.about(about).stream().map(a -> view(viewer, a, names)).toList(),
                access.mayWriteAside(viewer, classId));
    }

    private AsideView add(Viewer viewer, long classId, About about, String text) {
        access.requireAside(viewer, classId);
        return keep(viewer, classId, about, text);
    }

    private AsideView keep(Viewer viewer, long classId, About about, String text) {
        if (text.isBlank()) throw Problem.invalid("text", "word-empty", "Write something first.");
        if (text.length() > LONGEST)
            throw Problem.invalid(
                    "text", "word-too-long", "This has " + text.length() + " characters; at most 10,000 fit here.");
        Aside aside = store.add(classId, about, viewer.personId(), Sanitiser.commentFromPlain(text), clock.instant());
        events.add(
                classId,
                about.kind() == Kind.WORD ? about.subject() + "-word" : "staff-thread",
                about.subjectId(),
                viewer.personId());
        return view(viewer, aside, people.names(viewer, classId));
    }

    private static AsideView view(Viewer viewer, Aside a, Names names) {
        return new AsideView(
                a.id(), names.of(a.authorId()), Sanitiser.comment(a.html()), a.at(), a.authorId() == viewer.personId());
    }
}
