package org.vastporch.demo;

import java.math.BigDecimal;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.marking.OwnViewService.Own;
import org.vastporch.server.peers.PeerRoundService;
import org.vastporch.server.peers.PeerRoundService.RoundLine;
import org.vastporch.server.peers.WarmUpPaperService;
import org.vastporch.server.peers.WarmUpPaperService.WarmUpPaper;
import org.vastporch.server.peers.WarmUpService;

/** Students of Sound Walks learn to judge on papers that their teacher wrote and marked; one is asked for a post. */
@Component
class WarmUps {

    private record Paper(String title, String html, List<Integer> steps, List<String> why, String word) {}

    private static final List<Paper> PAPERS = List.of(
            new Paper(
                    "The kitchen at night",
                    "<p>It was quiet in the kitchen. The fridge made a noise and then it stopped. There were other noises"
                            + " from the street. I stayed for ten minutes and wrote down what I heard.</p>",
                    List.of(1, 0, 1),
                    List.of(
                            "Two sounds, and for one of them a time: when it stopped.",
                            "“A noise” could be anything. What did it sound like?",
                            "It says how long, and not yet what that changed."),
                    "A beginning. One exact word for the fridge would lift all of it."),
            new Paper(
                    "Under the stairs",
                    "<p>Somebody goes up: nine dull knocks, the fourth one hollow, because that board is loose. Dust"
                            + " ticks on the box beside me. Then a door, and the whole house seems to hold its breath.</p>"
                            + "<p>I had thought that I knew this stair. I had never counted it.</p>",
                    List.of(3, 3, 2),
                    List.of(
                            "From the board to the dust: one hears where everything is.",
                            "“Ticks” and “hollow” are heard, not copied.",
                            "The last two sentences do it. One more could say why it matters."),
                    "Count what you think you know. That is all the trick."),
            new Paper(
                    "Waiting room",
                    "<p>The clock ticked, the clock ticked, the clock ticked. A man turned pages. The radio said something"
                            + " about rain. I thought: everybody here listens for one door only.</p>",
                    List.of(2, 1, 3),
                    List.of(
                            "Four sounds and who makes them; the room itself is still silent.",
                            "The threefold clock works once. The rest are words for any room.",
                            "The last sentence turns it round: who listens, and for what."),
                    "See how much one thought at the end can carry."));

    private final WarmUpPaperService papers;
    private final WarmUpService warmUps;
    private final PeerRoundService rounds;
    private final AccessService access;

    WarmUps(WarmUpPaperService papers, WarmUpService warmUps, PeerRoundService rounds, AccessService access) {
        this.papers = papers;
        this.warmUps = warmUps;
        this.rounds = rounds;
        this.access = access;
    }

    /** Three papers, that all who review have judged but the first of them. */
    void add(Viewer teacher, long prompt) {
        for (Paper paper : PAPERS) papers.add(teacher, prompt, paper.title(), paper.html());
        List<WarmUpPaper> added = papers.ofPrompt(teacher, prompt).papers();
        for (int i = 0; i < added.size(); i++) mark(teacher, added.get(i), PAPERS.get(i));
        rounds.round(teacher, prompt).lines().stream()
                .map(RoundLine::reviewerId)
                .distinct()
                .skip(1)
                .forEach(reader -> {
                    for (int i = 0; i < added.size(); i++) judge(access.viewer(reader), added.get(i), PAPERS.get(i));
                });
    }

    void ask(Viewer teacher, long prompt, long post) {
        papers.ask(teacher, prompt, post);
    }

    private void mark(Viewer teacher, WarmUpPaper paper, Paper of) {
        int rev = paper.own().rev();
        for (int c = 0; c < paper.rubric().criteria().size(); c++)
            rev = papers.mark(
                            teacher,
                            paper.id(),
                            rev,
                            paper.rubric().criteria().get(c).id(),
                            BigDecimal.valueOf(of.steps().get(c)),
                            of.why().get(c))
                    .rev();
        papers.word(teacher, paper.id(), rev, of.word());
    }

    /** Near what the teacher gave, and nearer in the end than in the beginning. */
    private void judge(Viewer reader, WarmUpPaper paper, Paper of) {
        int rev = 0;
        for (int c = 0; c < paper.rubric().criteria().size(); c++) {
            int away = (int) ((reader.personId() * 7 + c * 3 + PAPERS.indexOf(of) * 5L) % (3 + PAPERS.indexOf(of)));
            int step = Math.max(0, Math.min(3, of.steps().get(c) + (away == 0 ? 1 : away == 1 && c == 1 ? -1 : 0)));
            Own own = warmUps.mark(
                    reader, paper.id(), rev, paper.rubric().criteria().get(c).id(), BigDecimal.valueOf(step));
            rev = own.rev();
        }
        warmUps.done(reader, paper.id(), rev);
    }
}
