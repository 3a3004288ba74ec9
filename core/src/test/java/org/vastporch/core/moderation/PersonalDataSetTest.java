package org.vastporch.core.moderation;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * How well personal data is found in 300 short texts of our own, of which more than half are harmless and only look
 * like it.
 */
class PersonalDataSetTest {

    private static final HoldRules RULES = new HoldRules(
            List.of("idiot", "loser"),
            List.of(
                    "Ferris Nightingale",
                    "Bożena Łukaszewicz",
                    "Cosmo Pomeroy",
                    "Wren Castellane",
                    "Tunde Ainsworth-Bello",
                    "Maeve O'Shaughn",
                    "Kahu Tāne",
                    "Marisol Vasquez-Lind"),
            false,
            false,
            0);

    private record Labelled(Set<Hold.Rule> rules, String text) {}

    private static List<Labelled> texts(String name) throws IOException {
        try (InputStream file = PersonalDataSetTest.class.getResourceAsStream("/moderation/" + name)) {
            return new String(file.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.startsWith("#"))
                    .map(l -> l.split("\t", 2))
                    .map(p -> new Labelled(
                            p[0].equals("-")
                                    ? Set.of()
                                    : Arrays.stream(p[0].split(","))
                                            .map(Hold.Rule::valueOf)
                                            .collect(Collectors.toSet()),
                            p[1].replace("\\n", "\n")))
                    .toList();
        }
    }

    @Test
    void findsNearlyAllAndHoldsLittleThatIsHarmless() throws IOException {
        assertFound("personal-data.tsv", 300, 0.95);
    }

    /** Texts by which nothing was mended tell how well it goes with those of children whom nobody thought of. */
    @Test
    void findsMostInTextsThatItWasNotMadeWith() throws IOException {
        assertFound("personal-data-fresh.tsv", 130, 0.9);
    }

    /**
     * Signs that nobody sees and signs that look like others hide nothing, and are no reason to hold a text that needs
     * them.
     */
    @Test
    void seesThroughDisguises() throws IOException {
        assertFound("disguised.tsv", 100, 0.95);
    }

    private static void assertFound(String name, int atLeast, double good) throws IOException {
        int right = 0;
        List<String> missed = new ArrayList<>();
        List<String> wrong = new ArrayList<>();
        List<Labelled> texts = texts(name);
        for (Labelled labelled : texts) {
            Set<Hold.Rule> found = RULES.find(labelled.text()).stream()
                    .map(Hold::rule)
                    .collect(Collectors.toCollection(() -> EnumSet.noneOf(Hold.Rule.class)));
            for (Hold.Rule rule : found) {
                if (labelled.rules().contains(rule)) right++;
                else wrong.add(rule + ": " + labelled.text());
            }
            for (Hold.Rule rule : labelled.rules())
                if (!found.contains(rule)) missed.add(rule + ": " + labelled.text());
        }
        double precision = right / (double) (right + wrong.size());
        double recall = right / (double) (right + missed.size());
        String figures = String.format(
                "precision %.3f, recall %.3f of %d texts; missed %s; held for nothing %s",
                precision, recall, texts.size(), missed, wrong);
        assertTrue(texts.size() >= atLeast, figures);
        assertTrue(recall >= good && precision >= good, figures);
    }
}
