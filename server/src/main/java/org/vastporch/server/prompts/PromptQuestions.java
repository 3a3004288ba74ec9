package org.vastporch.server.prompts;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.Questions;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.QuestionStore.QuestionRow;

/** What is asked under prompts. */
@Service
public class PromptQuestions {

    /**
     * @param asker left out for those who do not answer, but of an own question
     * @param answer left out while there is none
     */
    public record QuestionView(
            long id,
            boolean own,
            @Optionally String asker,
            String question,
            Instant askedAt,
            @Optionally String answer,
            @Optionally String answeredBy,
            boolean forAll,
            int rev) {}

    /**
     * @param mayAsk whether the viewer is one of those who ask
     * @param mayAnswer whether the viewer is one of those who answer
     */
    public record QuestionList(List<QuestionView> questions, boolean mayAsk, boolean mayAnswer) {}

    /** @param rev the state of the question as whoever answers saw it */
    public record WantedAnswer(int rev, String answer, boolean forAll) {}

    /** A prompt under which questions wait. */
    public record Waiting(long promptId, String title, int questions) {}

    private final QuestionStore store;
    private final PromptService prompts;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    PromptQuestions(
            QuestionStore store,
            PromptService prompts,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.prompts = prompts;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** Those that the viewer reads: the own ones, what was answered for all; all of them for those who answer. */
    public QuestionList ofPrompt(Viewer viewer, long promptId) {
        Prompt prompt = prompts.forMember(viewer, promptId);
        boolean answers = access.allows(viewer, Act.MARK, prompt.classId());
        Names names = people.names(viewer, prompt.classId());
        return new QuestionList(
                store.ofPrompt(promptId).stream()
                        .filter(q -> Questions.isRead(q.is(), viewer.personId(), answers))
                        .map(q -> view(q, viewer, answers, names))
                        .toList(),
                isStudent(viewer, prompt),
                answers);
    }

    @Transactional
    public QuestionView ask(Viewer viewer, long promptId, String question) {
        Prompt prompt = prompts.forMember(viewer, promptId);
        Problem.unlessAllowed(AccessEngine.own(viewer));
        if (!isStudent(viewer, prompt)) throw Problem.missing();
        String text = Questions.text("question", question);
        prompts.lock(promptId);
        Questions.requireRoom(store.waiting(promptId, viewer.personId()));
        long id = store.add(promptId, viewer.personId(), text, clock.instant());
        events.add(prompt.classId(), "question-asked", promptId, viewer.personId());
        return view(store.lock(id).orElseThrow(), viewer, false, people.names(viewer, prompt.classId()));
    }

    /** Answers a question, or says something else than before. */
    @Transactional
    public QuestionView answer(Viewer viewer, long id, WantedAnswer wanted) {
        QuestionRow question = store.lock(id).orElseThrow(Problem::missing);
        Prompt prompt = prompts.get(question.promptId());
        access.require(viewer, Act.MARK, prompt.classId());
        if (question.rev() != wanted.rev())
            throw Problem.stale("answered-meanwhile", "Somebody has answered this since you opened it.");
        store.answer(
                id, Questions.text("answer", wanted.answer()), viewer.personId(), wanted.forAll(), clock.instant());
        events.add(prompt.classId(), "question-answered", prompt.id(), viewer.personId());
        return view(store.lock(id).orElseThrow(), viewer, true, people.names(viewer, prompt.classId()));
    }

    /** Takes a question back: who asked it, while there is no answer; those who answer, with the answer too. */
    @Transactional
    public void remove(Viewer viewer, long id) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        QuestionRow question = store.lock(id).orElseThrow(Problem::missing);
        Prompt prompt = prompts.get(question.promptId());
        boolean answers = access.allows(viewer, Act.MARK, prompt.classId());
        boolean asked = question.is().askerId() == viewer.personId() && isStudent(viewer, prompt);
        if (!answers && !asked) throw Problem.missing();
        if (!Questions.isRemovable(question.is(), answers))
            throw Problem.stale("answered-already", "This was answered; others may rely on it. Ask your teacher.");
        store.remove(id);
        events.add(prompt.classId(), "question-removed", prompt.id(), viewer.personId());
    }

    /** The prompts of a class under which questions wait; whoever asks has seen to the right to do so. */
    public List<Waiting> waiting(long classId) {
        return store.waiting(classId);
    }

    private boolean isStudent(Viewer viewer, Prompt prompt) {
        return people.students(prompt.classId()).contains(viewer.personId());
    }

    private static QuestionView view(QuestionRow q, Viewer viewer, boolean answers, Names names) {
        boolean own = q.is().askerId() == viewer.personId();
        return new QuestionView(
                q.id(),
                own,
                answers || own ? names.of(q.is().askerId()) : null,
                q.question(),
                q.askedAt(),
                q.is().answer(),
                q.answeredBy() == null ? null : names.of(q.answeredBy()),
                q.is().forAll(),
                q.rev());
    }
}
