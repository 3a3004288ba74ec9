package org.vastporch.demo;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.reviews.OwnView;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.marking.OwnViewService;

/** Students of Sound Walks say how they see their own papers. */
@Component
class OwnViews {

    private static final Map<String, List<String>> WHY = Map.of(
            "Listening",
            List.of(
                    "I can tell the pump from the wind, but not where the wind comes from.",
                    "I followed one sound until it stopped.",
                    "I wrote down what I expected to hear.",
                    ""),
            "Words for sounds",
            List.of(
                    "I looked for a word for the hum for a whole evening.",
                    "Most of my words are about how loud it was.",
                    "",
                    "Somebody who has not been there would find it."),
            "Reflection",
            List.of(
                    "I only heard the echo when I listened again.",
                    "My second post says nearly the same as the first.",
                    "I would stand nearer to the water next time.",
                    ""));

    private static final List<String> WORDS = List.of(
            "The second listening changed what I thought I had heard.",
            "",
            "It was hard to write about something that nobody can see.",
            "",
            "I would like to know whether my words for the hum are clear.");

    private final OwnViewService views;
    private final AccessService access;

    OwnViews(OwnViewService views, AccessService access) {
        this.views = views;
        this.access = access;
    }

    /** Those of some students who have handed something in. */
    void fill(long prompt, List<Long> students) {
        for (int s = 0; s < students.size(); s++) {
            Viewer student = access.viewer(students.get(s));
            OwnViewService.OwnViewPage page = views.page(student, prompt);
            if (page.can() != OwnView.Answer.ALLOWED) continue;
            int rev = 0;
            List<Rubric.Criterion> criteria = page.rubric().criteria();
            for (int c = 0; c < criteria.size(); c++) {
                Rubric.Criterion criterion = criteria.get(c);
                List<String> why = WHY.get(criterion.name());
                BigDecimal points = BigDecimal.valueOf((s * 5 + c * 3) % 7 == 0 ? 1 : 2 + (s + c) % 2);
                rev = views.mark(student, prompt, rev, criterion.id(), points, why.get((s + c) % why.size()))
                        .rev();
            }
            String word = WORDS.get(s % WORDS.size());
            if (!word.isEmpty()) views.word(student, prompt, rev, word);
        }
    }
}
