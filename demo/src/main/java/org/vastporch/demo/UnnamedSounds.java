package org.vastporch.demo;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.access.NamesKept;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.blogs.BlogSetup;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;

/** A common blog of Sound Walks, and a prompt whose answers stand in it without names. */
@Component
class UnnamedSounds {

    private static final List<DemoTexts.Text> HEARD = List.of(
            new DemoTexts.Text(
                    "The key in the door",
                    List.of(),
                    "When it turns once it is my mother. When it turns twice somebody has been drinking. "
                            + "I count before I look up."),
            new DemoTexts.Text(
                    "A ringtone",
                    List.of(),
                    "It was hers. Somebody on the tram has the same one, and every time I look for her."),
            new DemoTexts.Text(
                    "Chairs",
                    List.of(),
                    "Thirty chairs pushed back at once. It means that the lesson is over and the corridor "
                            + "begins."),
            new DemoTexts.Text(
                    "My own voice",
                    List.of(),
                    "On the recording of the second walk. I cut it out and then I put it back, since it was "
                            + "there."));

    private static final List<String> SAID = List.of(
            "I know this one. Thank you for writing it.",
            "I would not have dared to.",
            "Is it still like that?",
            "You put it back. I think that is the brave part.");

    private final DemoClock clock;
    private final PeopleService people;
    private final BlogService blogs;
    private final PromptService prompts;
    private final Hands hands;
    private final CommentService comments;
    private final AccessService access;

    UnnamedSounds(
            Clock clock,
            PeopleService people,
            BlogService blogs,
            PromptService prompts,
            Hands hands,
            CommentService comments,
            AccessService access) {
        this.clock = (DemoClock) clock;
        this.people = people;
        this.blogs = blogs;
        this.prompts = prompts;
        this.hands = hands;
        this.comments = comments;
        this.access = access;
    }

    void fill(Viewer teacher, long classId, LocalDate set) {
        clock.set(DemoSchool.at(set, 7, 40));
        blogs.create(
                teacher,
                classId,
                BlogSetup.of(
                        BlogKind.SHARED,
                        "Heard together",
                        "What belongs to all of us.",
                        Audience.MY_CLASS,
                        Commenters.CLASS));
        List<Long> students = people.students(classId);
        BlogService.BlogView together = blogs.writable(access.viewer(students.get(0)), classId).stream()
                .filter(b -> b.kind() == BlogKind.SHARED)
                .findFirst()
                .orElseThrow();
        long prompt = prompts.set(teacher, classId, wanted(set, together.ref()));
        List<Long> written = new ArrayList<>();
        for (int i = 0; i < HEARD.size(); i++)
            written.add(hands.in(
                    students.get(3 * i + 1),
                    together.id(),
                    prompt,
                    DemoSchool.at(set.plusDays(1 + i), 19, 12),
                    HEARD.get(i),
                    null));
        for (int i = 0; i < SAID.size(); i++) {
            clock.set(DemoSchool.at(set.plusDays(6), 18, 3 * i));
            comments.add(access.viewer(students.get(2 * i)), written.get(i), SAID.get(i), null);
        }
    }

    private static PromptService.WantedPrompt wanted(LocalDate set, String into) {
        return new PromptService.WantedPrompt(
                "A sound I would rather not hear",
                "<p>Everybody has one. Say where you hear it and what it does. Nobody of the class reads your name "
                        + "on it, now or later.</p>",
                List.of(),
                null,
                null,
                LocalDateTime.of(set.plusDays(7), LocalTime.of(18, 0)),
                0,
                BigDecimal.ZERO,
                BigDecimal.ZERO,
                null,
                BigDecimal.ZERO,
                HandIn.Asked.NOTHING,
                new PromptService.WantedAnswers(
                        1, false, false, false, List.of(), null, false, false, into, new NamesKept.WantedNames(null)),
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
    }
}
