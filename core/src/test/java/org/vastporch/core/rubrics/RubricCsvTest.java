package org.vastporch.core.rubrics;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

class RubricCsvTest {

    private static BigDecimal d(String number) {
        return new BigDecimal(number);
    }

    /** Whatever stands in it, a rubric comes back as it was. */
    @Test
    void comesBackAsItWas() {
        Random random = new Random(14);
        for (int i = 0; i < 1_000; i++) {
            Rubric rubric = SomeRubric.of(random);
            assertEquals(rubric, RubricCsv.read(RubricCsv.write(rubric)));
        }
    }

    @Test
    void whatASpreadsheetMakesOfItIsRead() {
        Rubric read = RubricCsv.read("\uFEFFCriterion;WEIGHT;Level;Points;Descriptor\r\n"
                + "Voice;1,5;low;0;\r\n;;high;2,5;\"Says it; and means it\"\r\n\r\nFacts;;no;0\r\nFacts;;yes;3\r\n");
        assertEquals(
                new Rubric(List.of(
                        new Criterion(
                                "",
                                "Voice",
                                d("1.5"),
                                List.of(
                                        new Level("low", d("0"), ""),
                                        new Level("high", d("2.5"), "Says it; and means it"))),
                        new Criterion(
                                "",
                                "Facts",
                                BigDecimal.ONE,
                                List.of(new Level("no", d("0"), ""), new Level("yes", d("3"), ""))))),
                read);
        assertEquals(
                "Voice",
                RubricCsv.read("Points\tCriterion\n0\tVoice\n1\tVoice\n")
                        .criteria()
                        .get(0)
                        .name());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
        Name,Points~A,1                                      | rubric-columns
        Criterion,Points                                     | rubric-empty
        Criterion,Points~,1                                  | criterion-name
        Criterion,Points~A,one~A,2                           | rubric-number
        Criterion,Points~A,~A,2                              | rubric-number
        Criterion,Points~A,2~A,1                             | levels-order
        Criterion,Points~A,1                                 | criterion-levels
        Criterion,Level,Points~A,x,0~A,x,1                   | level-name
        Criterion,Points~A,-1~A,1                            | points-range
        Criterion,Points~A,0~A,1e9                           | points-range
        Criterion,Points~A,0~A,3.33333333                    | points-places
        Criterion,Points~"A,0~A,1                            | rubric-unreadable
        Criterion,Points,Counted~A,0,smileys~A,1             | measure-unknown
        Criterion,Points,Counted~A,0,words~A,1,words x       | measure-unknown
        Criterion,Points,Counted~A,0,words 3~A,1,words 2     | measure-order
        Criterion,Points,Counted~A,0,words 3~A,1,words 4     | measure-levels
        Criterion,Points,Counted~A,0~A,1,words 9999999       | measure-range
        """)
    void whatCanBeNoRubricIsSaidInWords(String table, String code) {
        Refusal refused = assertThrows(Refusal.class, () -> RubricCsv.read(table.replace('~', '\n')));
        assertEquals(code, refused.code());
    }

    @Test
    void whatIsMuchTooLongIsNotReadToItsEnd() {
        String rows = "Criterion,Points\n" + "A,1\n".repeat(10_000);
        assertEquals(
                "rubric-too-long",
                assertThrows(Refusal.class, () -> RubricCsv.read(rows)).code());
        assertEquals(
                "rubric-too-long",
                assertThrows(Refusal.class, () -> RubricCsv.read("x".repeat(5_000_000)))
                        .code());
    }
}
