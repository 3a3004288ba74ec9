package org.vastporch.core.text;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class TableCellTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "Slugs by night",
                "Anne-Marie",
                "-3",
                "+2",
                "-3.5",
                "-1,234.50",
                "−7",
                "-40 %",
                "3 + 4 = 7",
                "a@b.example",
                "’tis",
                "#frost",
                "(=)",
                "e=mc²",
                "１２"
            })
    void plainTextAndNumbersStayAsTheyAre(String words) {
        assertEquals(words, TableCell.of(words));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "=1+1",
                "+SUM(A1)",
                "-2+3",
                "@SUM(A1)",
                "-Ada",
                " =1",
                "\u00a0=1",
                "\u200b=1",
                "\ufeff=1",
                "\u2060\u00ad=1",
                "\t=1",
                "\r=1",
                "\tx",
                "\nx",
                "＝1",
                "＋1+1",
                "－x",
                "＠SUM(A1)",
                "\u3000＝1",
                "--1",
                "=\u0000",
                "−x",
                "-1;=2"
            })
    void whatCouldBeAFormulaIsMadeHarmless(String words) {
        assertEquals("'" + words, TableCell.of(words));
    }

    /** Law: whatever stands before it, a sign that begins a formula never comes first among what is seen. */
    @Test
    void nothingInvisibleHidesAFormula() {
        List<String> before = List.of(
                " ", "\u00a0", "\u2007", "\u202f", "\u200b", "\u200e", "\u202e", "\ufeff", "\t", "\u0001", "\u3000",
                "\u00ad");
        Random random = new Random(41);
        for (int i = 0; i < 2_000; i++) {
            String hidden = random.ints(random.nextInt(6), 0, before.size())
                    .mapToObj(before::get)
                    .collect(Collectors.joining());
            String words = hidden + List.of("=", "+", "-", "@", "＝").get(random.nextInt(5)) + "cmd";
            assertEquals("'" + words, TableCell.of(words));
        }
    }
}
