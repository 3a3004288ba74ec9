package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.ClassPicture;
import org.vastporch.core.marking.ClassPicture.Given;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.rubrics.Fraction;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.prompts.PromptService;

/** How a class stands in its criteria; for those who mark there. */
@Service
public class ClassPictureService {

    /** @param papers how many reached it and not the next */
    public record LevelCount(String level, int papers) {}

    /** @param percent the mean share of its points, rounded for show */
    public record CriterionSpread(String criterion, List<LevelCount> levels, int papers, BigDecimal percent) {}

    public record PromptPicture(long promptId, String title, List<CriterionSpread> criteria) {}

    public record StrengthView(String criterion, int papers, BigDecimal percent) {}

    /**
     * @param strengths over all prompts, what the class is strongest in first; empty while too few papers are marked
     * @param prompts the one due last first; those without marks are left out
     */
    public record Picture(List<StrengthView> strengths, List<PromptPicture> prompts) {}

    private static final Fraction HUNDRED = Fraction.of(BigDecimal.valueOf(100));

    private final MarkingDesk desk;
    private final PromptService prompts;
    private final AccessService access;

    ClassPictureService(MarkingDesk desk, PromptService prompts, AccessService access) {
        this.desk = desk;
        this.prompts = prompts;
        this.access = access;
    }

    public Picture picture(Viewer viewer, long classId) {
        access.require(viewer, Act.MARK, classId);
        List<Prompt> all = prompts.all(classId).stream()
                .filter(p -> p.rubric() != null)
                .sorted(Comparator.comparing(Prompt::due).reversed())
                .toList();
        Map<Long, List<MarkingDesk.Paper>> papers = desk.papers(viewer, classId, all);
        List<Given> every = new ArrayList<>();
        List<PromptPicture> pictures = new ArrayList<>();
        for (Prompt prompt : all) {
            List<Given> given = given(MarkingDesk.once(papers.get(prompt.id())));
            every.addAll(given);
            if (!given.isEmpty())
                pictures.add(new PromptPicture(
                        prompt.id(),
                        prompt.title(),
                        ClassPicture.of(prompt.rubric(), given).stream()
                                .map(ClassPictureService::view)
                                .toList()));
        }
        return new Picture(
                ClassPicture.strengths(every).stream()
                        .map(s -> new StrengthView(s.criterion(), s.papers(), percent(s.mean())))
                        .toList(),
                pictures);
    }

    /** What the papers of a prompt were given; a group's counts once, and what was let off not at all. */
    private static List<Given> given(List<MarkingDesk.Paper> papers) {
        List<Given> given = new ArrayList<>();
        for (MarkingDesk.Paper paper : papers) {
            if (paper.allowance().letOff()) continue;
            for (MarkingStore.Mark mark : paper.marks())
                if (mark.points() != null)
                    given.add(new Given(
                            paper.prompt().rubric().find(mark.criterion()).orElseThrow(), mark.points()));
        }
        return given;
    }

    private static CriterionSpread view(ClassPicture.Spread spread) {
        List<LevelCount> levels = new ArrayList<>();
        for (int i = 0; i < spread.reached().size(); i++)
            levels.add(new LevelCount(
                    spread.criterion().levels().get(i).name(), spread.reached().get(i)));
        return new CriterionSpread(spread.criterion().name(), levels, spread.papers(), percent(spread.mean()));
    }

    private static BigDecimal percent(Fraction share) {
        return share.times(HUNDRED).rounded(0);
    }
}
