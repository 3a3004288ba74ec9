package org.vastporch.demo;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;

/**
 * A prompt of Sound Walks that some have answered before it is due: all begin with the same sentence, two quote the
 * same page of their book without saying so, and two share what they should not.
 */
@Component
class BorrowedWords {

    private static final String BOOK =
            "A place is never silent; it is only that we have stopped being spoken to, and take "
                    + "the manners of things for their absence.";
    private static final String HUM =
            "Under it there is a hum that you only notice when the lift stops, and for two seconds "
                    + "the whole hall is made of coats.";
    private static final String WHEELS =
            "A bag with wheels goes over the tiles like a slow drum, and somebody laughs into a telephone.";

    /** How all begin: their teacher asked for it. */
    private static final String BEGIN = "I stayed ten minutes in the loudest place that I could find. ";

    private static final List<DemoTexts.Text> WRITTEN = List.of(
            new DemoTexts.Text(
                    "The swimming bath at closing",
                    List.of("loud"),
                    "Everything there is said twice, once by us and once by the roof. " + BOOK
                            + " When the last whistle goes, the water is louder than all of us were."),
            new DemoTexts.Text(
                    "Hall of lifts",
                    List.of("loud"),
                    "The loudspeaker says everything twice. " + HUM + " I stood by the flower stall. " + WHEELS
                            + " When I listened again at home, it was lower than I remembered, nearly a note."),
            new DemoTexts.Text(
                    "My brother practising",
                    List.of("loud"),
                    "Nine bars of trumpet through two doors. He does not know the tenth, so the house waits for it every "
                            + "evening at about half past six."),
            new DemoTexts.Text(
                    "Coats",
                    List.of("loud"),
                    "I went at six because of the trains from the coast. " + HUM
                            + " A child asks what the clock is for. "
                            + WHEELS.replace(", and somebody laughs into a telephone", "") + " Then another one."),
            new DemoTexts.Text(
                    "Playground, second break",
                    List.of("loud"),
                    "From the fence it is one sound, like rain on a tin roof. Inside it I could tell six people apart, and "
                            + "one of them was me."),
            new DemoTexts.Text(
                    "The bridge in wind",
                    List.of("loud"),
                    "Nobody crosses it on such a day, and it sings. " + BOOK
                            + " I could not record it: the wind got into the microphone and was all there was."));

    private final DemoClock clock;
    private final PeopleService people;
    private final BlogService blogs;
    private final PromptService prompts;
    private final Hands hands;

    BorrowedWords(Clock clock, PeopleService people, BlogService blogs, PromptService prompts, Hands hands) {
        this.clock = (DemoClock) clock;
        this.people = people;
        this.blogs = blogs;
        this.prompts = prompts;
        this.hands = hands;
    }

    /** @param today the day before which they have written */
    void fill(Viewer teacher, long classId, LocalDate today) {
        LocalDate set = today.minusDays(8);
        clock.set(DemoSchool.at(set, 7, 50));
        long prompt = prompts.set(teacher, classId, wanted(today));
        List<Long> students = people.students(classId);
        for (int i = 0; i < WRITTEN.size(); i++) {
            long student = students.get(2 * i + 5);
            hands.in(
                    student,
                    blogs.homeOf(classId, student).orElseThrow(),
                    prompt,
                    DemoSchool.at(set.plusDays(2 + i % 5), i % 2 == 0 ? 21 : 7, 10 + 7 * i),
                    beginning(WRITTEN.get(i)),
                    null);
        }
    }

    private static DemoTexts.Text beginning(DemoTexts.Text text) {
        String[] paragraphs = text.paragraphs().clone();
        paragraphs[0] = BEGIN + paragraphs[0];
        return new DemoTexts.Text(text.title(), text.tags(), paragraphs);
    }

    private static PromptService.WantedPrompt wanted(LocalDate today) {
        return new PromptService.WantedPrompt(
                "The loudest place",
                "<p>Where is it, and when? One post, no recording: let it be loud by your words alone. Begin with: “I stayed"
                        + " ten minutes in the loudest place that I could find.”</p>",
                List.of(),
                null,
                null,
                LocalDateTime.of(today.plusDays(6), LocalTime.of(18, 0)),
                0,
                BigDecimal.ZERO,
                BigDecimal.ZERO,
                null,
                BigDecimal.TEN,
                HandIn.Asked.NOTHING,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                SoundWalks.listening(),
                null,
                null);
    }
}
