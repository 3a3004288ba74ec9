package org.vastporch.server.comments;

import static java.util.stream.Collectors.groupingBy;
import static java.util.stream.Collectors.mapping;
import static java.util.stream.Collectors.toList;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.comments.CommentsAsked;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.comments.CommentStore.GivenRow;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.CommentsGiven;

/** The comments that students give to others because a prompt asks for them. */
@Service
public class GivenCommentService implements CommentsGiven {

    private final CommentStore store;
    private final PromptService prompts;
    private final PeopleService people;
    private final AccessService access;

    GivenCommentService(CommentStore store, PromptService prompts, PeopleService people, AccessService access) {
        this.store = store;
        this.prompts = prompts;
        this.people = people;
        this.access = access;
    }

    /** Comments given to others for a prompt, by the time asked and long enough to count. */
    @Override
    public int given(long personId, Prompt prompt) {
        return given(personId, List.of(prompt)).getOrDefault(prompt.id(), 0);
    }

    /** The same for several prompts, by prompt. */
    public Map<Long, Integer> given(long personId, List<Prompt> of) {
        Map<Long, Map<Long, Allowance>> allowed = prompts.allowances(ids(of));
        Map<Long, List<CommentsAsked.Given>> given = store.given(ids(of), personId).stream()
                .collect(groupingBy(GivenRow::promptId, mapping(GivenRow::given, toList())));
        Map<Long, Integer> counted = new HashMap<>();
        for (Prompt prompt : of)
            counted.put(
                    prompt.id(),
                    prompt.commentsAsked(
                                    allowed.getOrDefault(prompt.id(), Map.of()).getOrDefault(personId, Allowance.NONE))
                            .counted(given.getOrDefault(prompt.id(), List.of())));
        return counted;
    }

    /** The comments that students gave to others for prompts: by prompt, by student, in order. */
    public Map<Long, Map<Long, List<CommentsAsked.Given>>> given(List<Prompt> of) {
        return store.given(ids(of), null).stream()
                .collect(groupingBy(
                        GivenRow::promptId, groupingBy(GivenRow::authorId, mapping(GivenRow::given, toList()))));
    }

    private static List<Long> ids(List<Prompt> of) {
        return of.stream().filter(p -> p.asked().comments() > 0).map(Prompt::id).toList();
    }

    /** A comment that a student gave to another for a prompt. */
    public record GivenComment(long postId, String html, CommentsAsked.Given given) {}

    /** The comments that a student gave to others for a prompt, in order; whoever asks may mark. */
    public List<GivenComment> textsGiven(long personId, Prompt prompt) {
        List<GivenRow> given = store.given(ids(List.of(prompt)), personId);
        Map<Long, String> texts =
                store.texts(given.stream().map(GivenRow::commentId).toList());
        return given.stream()
                .map(g -> new GivenComment(g.postId(), Sanitiser.comment(texts.get(g.commentId())), g.given()))
                .toList();
    }

    /** How many comments a student gave to classmates for a prompt, of those asked for. */
    public record GivenLine(
            long place,
            String name,
            int given,
            int asked,
            @Optionally Instant due) {}

    /** What each student gave for a prompt, for staff; for a student the own line. */
    public List<GivenLine> givenFor(Viewer viewer, long promptId) {
        Prompt prompt = prompts.forMember(viewer, promptId);
        Names names = people.names(viewer, prompt.classId());
        boolean staff = access.allows(viewer, Act.SEE_STAFF_THREAD, prompt.classId());
        List<Long> students = people.students(prompt.classId()).stream()
                .filter(s -> staff || s == viewer.personId())
                .toList();
        Map<Long, Allowance> allowed = prompts.allowances(List.of(promptId)).getOrDefault(promptId, Map.of());
        Map<Long, List<CommentsAsked.Given>> given = given(List.of(prompt)).getOrDefault(promptId, Map.of());
        return students.stream()
                .map(s -> {
                    CommentsAsked asked = prompt.commentsAsked(allowed.getOrDefault(s, Allowance.NONE));
                    return new GivenLine(
                            names.placeOf(s),
                            names.of(s),
                            asked.counted(given.getOrDefault(s, List.of())),
                            asked.number(),
                            asked.due());
                })
                .toList();
    }
}
