package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import tools.jackson.databind.JsonNode;

/** A class that goes on over several terms: each has its own weeks, and nothing of an earlier one is lost. */
@ServerTest
class TermsTest {

    private static final LocalDate TODAY = LocalDate.now(ZoneOffset.UTC);

    @Autowired
    School school;

    @Autowired
    JdbcClient jdbc;

    @LocalServerPort
    int port;

    Made of;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
    }

    private static Map<String, Object> term(String name, LocalDate first, LocalDate last) {
        return Map.of("name", name, "firstDay", first.toString(), "lastDay", last.toString());
    }

    private String path(String rest) {
        return "/api/classes/" + of.classId() + rest;
    }

    private Answer set(List<Map<String, Object>> terms, List<Map<String, Object>> breaks) {
        JsonNode now = of.lead().get(path("")).body();
        Map<String, Object> wish = new HashMap<>(Map.of("terms", terms, "breaks", breaks));
        for (String same : List.of("name", "subject", "level", "zone", "ownPasswords", "byGiven", "version"))
            wish.put(same, now.get(same));
        return of.lead().put(path(""), wish);
    }

    private void published(String title, LocalDate day) {
        long id = school.published(of, of.first(), of.blogOfFirst(), Map.of(), title);
        jdbc.sql("update post set published_at = :at where id = :id")
                .param("at", day.atTime(12, 0).atOffset(ZoneOffset.UTC))
                .param("id", id)
                .update();
    }

    private List<String> titles(String query) {
        return of.other()
                .get(path("/porch" + query))
                .body()
                .get("entries")
                .valueStream()
                .map(e -> e.get("title").asString())
                .toList();
    }

    private int onRail(String query) {
        return of.other()
                .get(path("/rail" + query))
                .body()
                .get("counts")
                .valueStream()
                .mapToInt(JsonNode::asInt)
                .sum();
    }

    @Test
    void eachTermHasItsOwnWeeksAndPosts() {
        LocalDate spring = TODAY.minusDays(200);
        published("Of spring", spring.plusDays(8));
        published("Of now", TODAY.minusDays(1));
        assertEquals(
                200,
                set(
                                List.of(
                                        term("Autumn", TODAY.minusDays(20), TODAY.plusDays(60)),
                                        term("Spring", spring, spring.plusDays(80))),
                                List.of(Map.of(
                                        "from",
                                        spring.plusDays(30).toString(),
                                        "to",
                                        spring.plusDays(36).toString())))
                        .status());
        JsonNode terms = of.other().get(path("")).body().get("terms");
        assertEquals("Spring", terms.get(0).get("name").asString(), "in their order, however they were given");
        assertFalse(terms.get(0).get("now").asBoolean());
        assertTrue(terms.get(1).get("now").asBoolean());
        assertEquals(List.of("Of now", "Of spring"), titles(""));
        assertEquals(List.of("Of spring"), titles("?term=0"));
        assertEquals(List.of("Of now"), titles("?term=1"));
        assertEquals(List.of("Of spring"), titles("?term=0&fromWeek=0&toWeek=2"));
        assertEquals(List.of(), titles("?term=0&fromWeek=5"));
        assertEquals(1, onRail(""));
        assertEquals(1, onRail("?term=0"));
        assertEquals(2, of.other().get(path("/rail")).body().get("months").size(), "the archive knows all terms");
        assertEquals(200, of.other().get(path("/porch?term=99")).status());
        assertEquals(List.of("Of now"), titles("?term=99"), "the nearest there is");
    }

    @Test
    void termsThatShareADayAreRefusedAndNothingIsChanged() {
        JsonNode before = of.lead().get(path("")).body();
        Answer refused =
                set(List.of(term("a", TODAY.minusDays(20), TODAY), term("b", TODAY, TODAY.plusDays(20))), List.of());
        assertEquals("terms-overlap", refused.code());
        assertEquals("terms", refused.body().get("field").asString());
        assertEquals("term-missing", set(List.of(), List.of()).code());
        Answer backwards = set(List.of(term("a", TODAY, TODAY.minusDays(1))), List.of());
        assertEquals("term-order", backwards.code());
        assertEquals("terms", backwards.body().get("field").asString());
        assertEquals(
                400,
                set(List.of(Map.of("name", "", "firstDay", "", "lastDay", "")), List.of())
                        .status());
        assertEquals(400, set(List.of(Map.of("name", "a")), List.of()).status());
        assertEquals(before, of.lead().get(path("")).body());
    }
}
