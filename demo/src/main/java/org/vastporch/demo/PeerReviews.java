package org.vastporch.demo;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.prompts.Peers;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.peers.PeerReviewService;
import org.vastporch.server.peers.PeerRoundService;
import org.vastporch.server.peers.PeerRoundService.RoundLine;
import org.vastporch.server.peers.PeerRoundService.RoundView;
import org.vastporch.server.prompts.WantedReviews;

/** Students of Sound Walks read each other's papers. */
@Component
class PeerReviews {

    private static final int EACH = 3;

    private static final Map<String, List<String>> WHY = Map.of(
            "Listening",
            List.of(
                    "You say where the dripping comes from. I would not have heard that.",
                    "I could follow the announcement through the whole text.",
                    "You name many sounds. Which of them was there from the first to the last minute?",
                    ""),
            "Words for sounds",
            List.of(
                    "“A hum with a crack in it” is exact, I found the place on the recording.",
                    "Loud is said four times. What kind of loud?",
                    "",
                    "The words for the footsteps are yours, those for the bell one reads everywhere."),
            "Reflection",
            List.of(
                    "The second post changed how I heard the first.",
                    "You could say at which minute you noticed it.",
                    "",
                    "I liked that you doubt your own first sentence."));

    private static final List<String> ANSWERS = List.of(
            "How long did you stand there before you pressed record?",
            "What did it sound like before the people came?",
            "Is there a sound that you left out on purpose?",
            "Why did you stop at that moment?");

    private static final List<String> WORDS = List.of(
            "I listened twice because of your last sentence.",
            "",
            "Keep the short sentences, they sound like steps.",
            "");

    private static final String HELD = "If you like we can go there together, my number is 07700 900417.";

    private final PeerRoundService rounds;
    private final PeerReviewService reviews;
    private final WarmUps warmUps;
    private final AccessService access;

    PeerReviews(PeerRoundService rounds, PeerReviewService reviews, WarmUps warmUps, AccessService access) {
        this.rounds = rounds;
        this.reviews = reviews;
        this.warmUps = warmUps;
        this.access = access;
    }

    /** @param due the day on which reviews are */
    static WantedReviews.WantedPeers wanted(LocalDate due) {
        return new WantedReviews.WantedPeers(
                EACH,
                Peers.When.BY_HAND,
                null,
                LocalDateTime.of(due, LocalTime.of(20, 0)),
                true,
                true,
                List.of(),
                List.of("What would you ask whoever stood there?"),
                0,
                true);
    }

    void giveOut(Viewer teacher, long prompt) {
        rounds.giveOut(
                teacher, prompt, rounds.plan(teacher, prompt, 4, List.of()).pairs());
    }

    /**
     * Students give what was given out to them.
     *
     * @param some of so many reviews each the first ones; with all of them one is left for {@link #giveLate}, with
     *     fewer one reader has not begun at all
     */
    void give(Viewer teacher, long prompt, int some) {
        if (some < EACH) warmUps.add(teacher, prompt);
        RoundView round = rounds.round(teacher, prompt);
        Map<Long, Integer> done = new TreeMap<>();
        int at = 0;
        for (RoundLine line : round.lines()) {
            int before = done.merge(line.reviewerId(), 1, Integer::sum) - 1;
            boolean isFirst = some < EACH && done.size() == 1;
            boolean isLast = some == EACH && at == round.lines().size() - 1;
            if (before < some && !isFirst && !isLast) give(line, at, some < EACH && at == 4);
            else if (some < EACH && before == some && done.size() % 3 == 0) begin(line);
            at++;
        }
        thank(round);
    }

    /** Somebody is asked for a post, and has not answered. */
    void askToWarmUpOn(Viewer teacher, long prompt, long post) {
        warmUps.ask(teacher, prompt, post);
    }

    /** Gives what was left. */
    void giveLate(Viewer teacher, long prompt) {
        for (RoundLine line : rounds.round(teacher, prompt).lines()) if (line.sentAt() == null) give(line, 3, false);
    }

    private void give(RoundLine line, int at, boolean isHeld) {
        Viewer reader = access.viewer(line.reviewerId());
        PeerReviewService.PeerReviewPage page = reviews.page(reader, line.id());
        int rev = page.own().rev();
        List<Rubric.Criterion> criteria = page.rubric().criteria();
        for (int c = 0; c < criteria.size(); c++) {
            List<String> why = WHY.get(criteria.get(c).name());
            // Two readers stand apart from all others: one is severe throughout, one gives the most.
            int points = at % 17 == 5 ? 0 : at % 17 == 11 ? 3 : 2 + (int) (line.authorId() + c + at % 2) % 2;
            rev = reviews.mark(
                            reader,
                            line.id(),
                            rev,
                            criteria.get(c).id(),
                            BigDecimal.valueOf(points),
                            why.get((at + c) % why.size()))
                    .rev();
        }
        rev = reviews.answer(reader, line.id(), rev, 0, ANSWERS.get(at % ANSWERS.size()))
                .rev();
        String word = isHeld ? HELD : WORDS.get(at % WORDS.size());
        if (!word.isEmpty()) rev = reviews.word(reader, line.id(), rev, word).rev();
        reviews.send(reader, line.id(), rev);
    }

    private void begin(RoundLine line) {
        Viewer reader = access.viewer(line.reviewerId());
        PeerReviewService.PeerReviewPage page = reviews.page(reader, line.id());
        String criterion = page.rubric().criteria().get(0).id();
        reviews.mark(reader, line.id(), page.own().rev(), criterion, BigDecimal.valueOf(2), "");
    }

    /** Two authors say what helped them. */
    private void thank(RoundView round) {
        for (int i = 0; i < round.people().size() && i < 2; i++) {
            Viewer author = access.viewer(round.people().get(i).id());
            PeerReviewService.ReceivedReviews mine = reviews.ofMine(author, round.promptId());
            if (!mine.reviews().isEmpty())
                reviews.helped(
                        author, mine.reviews().get(0).id(), true, "I went back and listened for what you asked.");
        }
    }
}
