package org.vastporch.core.rubrics;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;

class RubricJsonTest {

    /** Whatever stands in it, a rubric comes back as it was, and from one form to the other too. */
    @Test
    void comesBackAsItWas() {
        Random random = new Random(16);
        for (int i = 0; i < 1_000; i++) {
            Rubric rubric = SomeRubric.of(random);
            assertEquals(rubric, RubricJson.read(RubricJson.write(rubric)));
            assertEquals(rubric, RubricCsv.read(RubricCsv.write(RubricJson.read(RubricJson.write(rubric)))));
        }
    }

    @Test
    void whatIsLeftOutHasAPlainMeaning() {
        Rubric read =
                RubricJson.read("\uFEFF {\"rubric\": 1, \"by\": \"somebody\", \"criteria\": [{\"name\": \"Voice\", "
                        + "\"levels\": [{\"points\": 0}, {\"points\": 2.50, \"name\": \"high\"}]}]}");
        Rubric.Criterion voice = read.criteria().get(0);
        assertEquals(BigDecimal.ONE, voice.weight());
        assertEquals("c1", voice.id());
        assertEquals(new BigDecimal("2.50"), voice.levels().get(1).points());
        assertTrue(RubricJson.looksLikeOne("\uFEFF\n{"));
        assertFalse(RubricJson.looksLikeOne("Criterion,Points"));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', textBlock = """
        {                                                                                     | rubric-unreadable
        {"rubric": 1} x                                                                       | rubric-unreadable
        {"criteria": []}                                                                      | rubric-unreadable
        {"rubric": 2, "criteria": []}                                                         | rubric-newer
        {"rubric": 1, "criteria": []}                                                         | rubric-empty
        {"rubric": 1, "criteria": {}}                                                         | rubric-empty
        {"rubric": 1, "criteria": [7]}                                                        | criterion-levels
        {"rubric": 1, "criteria": [{"name": "A", "levels": [{"points": 1}]}]}                 | criterion-levels
        {"rubric": 1, "criteria": [{"name": 3, "levels": [{"points": 1}]}]}                   | rubric-unreadable
        {"rubric": 1, "criteria": [{"name": "A", "levels": [{"points": "1"}, {"points": 2}]}]} | rubric-number
        {"rubric": 1, "criteria": [{"name": "A", "levels": [{"points": 2}, {"points": 1}]}]}  | levels-order
        {"rubric": 1, "criteria": [{"name": "A", "levels": [{"points": 0}, {"points": 1e9}]}]} | points-range
        {"rubric": 1, "criteria": [{"name": "A", "levels": [{"points": 0}, {"points": 1e999}]}]} | points-range
        {"rubric": 1, "criteria": [{"name": "", "levels": [{"points": 0}, {"points": 1}]}]}   | criterion-name
        {"rubric": 1, "criteria": [{"name": "A", "counted": [{"what": "x"}], "levels": []}]}  | measure-unknown
        {"rubric": 1, "criteria": [{"name": "A", "counted": [{"what": "words", "atLeast": [1.5]}], "levels": []}]} | rubric-number
        """)
    void whatCanBeNoRubricIsSaidInWords(String json, String code) {
        assertEquals(
                code, assertThrows(Refusal.class, () -> RubricJson.read(json)).code());
    }

    @Test
    void whatIsMuchTooLongIsNotReadToItsEnd() {
        String many = "{\"rubric\":1,\"criteria\":[" + "{\"levels\":[]},".repeat(13) + "{}]}";
        assertTrue(
                assertThrows(Refusal.class, () -> RubricJson.read(many)).code().startsWith("criterion"));
        for (String json : new String[] {"[".repeat(200_000), "{" + "x".repeat(400_000), "{\"a\":".repeat(40_000)})
            assertTrue(assertThrows(Refusal.class, () -> RubricJson.read(json))
                    .code()
                    .startsWith("rubric"));
    }
}
