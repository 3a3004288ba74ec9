package org.vastporch.server.peers;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.text.Revision;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.marking.HandedPapers;
import org.vastporch.server.moderation.Moderated;
import org.vastporch.server.moderation.PileDesk;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.peers.PeerReviewService.Answered;
import org.vastporch.server.peers.PeerReviewStore.Row;
import org.vastporch.server.people.Names;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reviews.PaperReviews;

/** Reviews in the pile: their words, and never their points. */
@Component
class PeerReviewPile implements Moderated {

    static final String SUBJECT = "review";

    private final PeerReviewStore store;
    private final PeerReviewService peers;
    private final PaperReviews reviews;
    private final HandedPapers papers;
    private final PromptService prompts;
    private final ClassChanges changes;

    PeerReviewPile(
            PeerReviewStore store,
            PeerReviewService peers,
            PaperReviews reviews,
            HandedPapers papers,
            PromptService prompts,
            ClassChanges changes) {
        this.store = store;
        this.peers = peers;
        this.reviews = reviews;
        this.papers = papers;
        this.prompts = prompts;
        this.changes = changes;
    }

    /** The words of a review as they are looked at: by criterion, then the answers, then what is said of the whole. */
    static String html(Prompt prompt, Marks marks, List<Answered> answers, String word) {
        StringBuilder html = new StringBuilder();
        for (Rubric.Criterion criterion : prompt.rubric().criteria())
            marks.of(criterion.id())
                    .filter(m -> !m.remark().isEmpty())
                    .ifPresent(m -> part(html, criterion.name(), m.remark()));
        for (Answered answer : answers) if (!answer.answer().isEmpty()) part(html, answer.question(), answer.answer());
        if (!word.isEmpty()) part(html, "On the whole", word);
        return html.isEmpty() ? "<p>No words.</p>" : html.toString();
    }

    private static void part(StringBuilder html, String title, String words) {
        html.append("<p><em>")
                .append(Sanitiser.commentFromPlain(title).replaceAll("</?p>", ""))
                .append("</em></p>")
                .append(Sanitiser.commentFromPlain(words));
    }

    @Override
    public String subject() {
        return SUBJECT;
    }

    @Override
    public Optional<Text> lock(long id) {
        return store.lock(id).map(r -> new Text(r.id(), r.classId(), r.readerId(), r.rev(), r.course(), false));
    }

    @Override
    public void settle(Text before, Course after, long by) {
        Row row = store.find(before.id()).orElseThrow(Problem::missing);
        papers.notingScores(prompts.get(row.promptId()), () -> store.settle(before.id(), after));
        changes.note(row.classId());
    }

    @Override
    public Optional<Revision> changesSince(long id, int version) {
        return Optional.empty();
    }

    @Override
    public void requireReading(Viewer viewer, long id) {
        if (!peers.isAuthor(viewer, store.find(id).orElseThrow(Problem::missing))) throw Problem.missing();
    }

    @Override
    public Batch waiting(Collection<Long> classIds, PileFilter filter) {
        List<Row> waiting = store.waiting(List.copyOf(classIds), filter);
        Map<Long, Prompt> of =
                prompts.byId(waiting.stream().map(Row::promptId).distinct().toList());
        Map<Long, Marks> marks = reviews.marks(of.keySet(), ReviewKind.PEER);
        Map<Long, List<PeerReviewStore.Answer>> answers =
                store.answers(waiting.stream().map(Row::id).collect(Collectors.toList()));
        return new Batch(waiting.stream().map(this::text).toList(), desk -> waiting.stream()
                .filter(w -> of.get(w.promptId()).reviews().peers() != null)
                .map(w -> item(w, of.get(w.promptId()), marks, answers, desk))
                .toList());
    }

    private Waiting text(Row row) {
        return new Waiting(subject(), row.id(), row.classId(), row.readerId(), null);
    }

    private PileItem item(
            Row row,
            Prompt prompt,
            Map<Long, Marks> marks,
            Map<Long, List<PeerReviewStore.Answer>> answers,
            PileDesk desk) {
        Waiting text = text(row);
        Names names = desk.names(row.classId());
        return new PileItem(
                subject(),
                row.id(),
                row.classId(),
                desk.in(row.classId()).name(),
                1,
                row.rev(),
                names.of(row.readerId()),
                names.placeOf(row.readerId()),
                names.groupOf(row.readerId()),
                "About the paper of " + names.of(row.studentId()),
                html(
                        prompt,
                        marks.getOrDefault(row.id(), Marks.NONE),
                        PeerReviewService.answered(answers.getOrDefault(row.id(), List.of())),
                        row.word()),
                PileItem.Besides.NOTHING,
                row.waitingSince(),
                null,
                new PileItem.AnsweredPrompt(prompt.id(), prompt.title(), true, 0),
                null,
                null,
                desk.holds(text),
                null,
                desk.history(text),
                new PileItem.Readers(1, false),
                null,
                0,
                0,
                null,
                row.state(),
                desk.in(row.classId()).rules().forComments(desk.author(row.classId(), row.readerId()), null),
                desk.reports(text));
    }
}
