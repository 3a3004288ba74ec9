package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastporch.core.access.Role;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Students by weeks, for those who mark, and a student's own row. */
@ServerTest
class WeeksTest extends Assessing {

    private static final int NOW = 2;
    private LocalDate monday;

    /** A term of five weeks, of which the third is now; both students are there from its beginning. */
    @BeforeEach
    void aTerm() {
        LocalDate today = LocalDate.now(LONDON);
        monday = today.minusDays(today.getDayOfWeek().getValue() - 1);
        terms(List.of(term("", monday.minusWeeks(NOW), monday.plusWeeks(2).plusDays(4))));
        jdbc.sql("update membership set joined_at = dateadd(day, -40, joined_at) where class_id = :class")
                .param("class", of.classId())
                .update();
    }

    private static Map<String, Object> term(String name, LocalDate first, LocalDate last) {
        return Map.of("name", name, "firstDay", first.toString(), "lastDay", last.toString());
    }

    private void terms(List<Map<String, Object>> terms) {
        String path = "/api/classes/" + of.classId();
        JsonNode now = of.lead().get(path).body();
        Map<String, Object> wish = new HashMap<>(Map.of("terms", terms, "breaks", List.of()));
        for (String same : List.of("name", "subject", "level", "zone", "ownPasswords", "byGiven", "version"))
            wish.put(same, now.get(same));
        assertEquals(200, of.lead().put(path, wish).status());
    }

    private JsonNode weeks(Person viewer, String wish) {
        return viewer.get("/api/classes/" + of.classId() + "/weeks" + wish).body();
    }

    private static JsonNode line(JsonNode view, Person student) {
        for (JsonNode line : view.get("lines")) if (line.get("studentId").asLong() == student.id) return line;
        throw new AssertionError(view.toString());
    }

    private static List<String> states(JsonNode line) {
        return line.get("cells")
                .valueStream()
                .map(c -> c.get("state").asString())
                .toList();
    }

    /** A prompt that students see. */
    private long given(String title) {
        return set(open(title, in(1)));
    }

    private void wasDue(long prompt, LocalDate day) {
        jdbc.sql("update prompt set due_at = :due where id = :id")
                .param("due", day.atTime(18, 0).atZone(LONDON).toOffsetDateTime())
                .param("id", prompt)
                .update();
    }

    @Test
    void aWeekTellsWhatWasDueInIt() {
        long prompt = given("Slugs");
        long post = handIn(prompt, "Two slugs");
        wasDue(prompt, monday.minusDays(2));
        JsonNode view = weeks(of.lead(), "");
        assertEquals(5, view.get("heads").size());
        assertEquals("2", view.at("/heads/1/name").asString());
        assertTrue(view.at("/heads/2/isNow").asBoolean());
        JsonNode wren = line(view, of.first());
        assertEquals(List.of("NOTHING", "HANDED_IN", "NOTHING", "NOTHING", "NOTHING"), states(wren));
        assertTrue(wren.at("/cells/1/late").asBoolean());
        assertEquals(0, wren.get("onTime").asInt());
        assertEquals(1, wren.get("of").asInt());
        assertEquals("MISSING", states(line(view, of.other())).get(1));
        jdbc.sql("update post set handed_in_at = :at where id = :post")
                .param("at", monday.minusDays(3).atTime(9, 0).atZone(LONDON).toOffsetDateTime())
                .param("post", post)
                .update();
        JsonNode onTime = line(weeks(of.lead(), ""), of.first());
        assertEquals("1 of 1, 1", onTime.get("onTime") + " of " + onTime.get("of") + ", " + onTime.get("streak"));
        JsonNode cell = of.lead()
                .get("/api/classes/" + of.classId() + "/weeks/" + monday.minusWeeks(1) + "/students/" + of.first().id)
                .body();
        assertEquals("Slugs", cell.at("/papers/0/title").asString());
        assertEquals(post, cell.at("/posts/0/postId").asLong());
        assertEquals("PUBLISHED", cell.at("/posts/0/state").asString());
    }

    @Test
    void byPromptAndByAnyPost() {
        long one = given("Slugs");
        handIn(one, "Two slugs");
        set(wanted("Not open yet", in(4)));
        JsonNode byPrompt = weeks(of.lead(), "?by=PROMPT");
        assertEquals(1, byPrompt.get("heads").size(), "what students have not seen is nobody's");
        assertEquals(one, byPrompt.at("/heads/0/promptId").asLong());
        assertEquals(List.of("HANDED_IN"), states(line(byPrompt, of.first())));
        JsonNode byPost = weeks(of.lead(), "?by=POST");
        assertEquals(
                List.of("MISSING", "MISSING", "PUBLISHED", "NOTHING", "NOTHING"), states(line(byPost, of.first())));
        assertEquals("NOT_HANDED_IN", states(line(byPost, of.other())).get(NOW));
        assertEquals(1, line(byPost, of.first()).get("streak").asInt());
        assertEquals(5, weeks(of.lead(), "?term=-1").get("heads").size());
        assertEquals(5, weeks(of.lead(), "?term=77").get("heads").size());
        assertEquals(
                400,
                of.lead().get("/api/classes/" + of.classId() + "/weeks?by=MOON").status());
    }

    @Test
    void severalTermsStandInOneRow() {
        terms(List.of(
                term("Autumn", monday.minusWeeks(3), monday.minusDays(5)),
                term("Winter", monday.minusDays(4), monday.plusWeeks(1))));
        JsonNode now = weeks(of.lead(), "");
        assertEquals(1, now.get("term").asInt());
        assertEquals(
                List.of("Autumn", "Winter"),
                now.get("terms").valueStream().map(JsonNode::asString).toList());
        assertEquals(3, now.get("heads").size());
        JsonNode all = weeks(of.lead(), "?term=-1");
        assertFalse(all.has("term"));
        assertEquals(5, all.get("heads").size(), "the week that both share is there once");
        assertEquals("Autumn", all.at("/heads/0/term").asString());
        assertEquals(3, weeks(of.lead(), "?term=0").get("heads").size());
    }

    @Test
    void commentsOnOthersPostsAreCounted() {
        long post = handIn(given("Slugs"), "Two slugs");
        for (Person who : List.of(of.other(), of.first()))
            who.post("/api/posts/" + post + "/comments", Map.of("text", "At night?"));
        for (JsonNode item : of.lead().get("/api/pile?most=500").body().get("items"))
            assertEquals(200, School.decide(of.lead(), item, "APPROVE", "").status());
        JsonNode view = weeks(of.lead(), "");
        assertEquals(1, line(view, of.other()).get("comments").asInt());
        assertEquals(0, line(view, of.first()).get("comments").asInt(), "the own post does not count");
    }

    @Test
    void aStudentSeesTheOwnRowAndNoMarksBeforeTheyAreShown() {
        long prompt = given("Slugs");
        handIn(prompt, "Two slugs");
        mark(prompt, 6, 3);
        assertEquals(
                "MARKED",
                states(line(weeks(of.lead(), "?by=PROMPT"), of.first())).get(0));
        JsonNode own =
                of.first().get("/api/classes/" + of.classId() + "/own-weeks").body();
        assertTrue(states(own.get("line")).contains("HANDED_IN"), own::toString);
        assertEquals(of.first().id, own.at("/line/studentId").asLong());
        release(prompt);
        own = of.first().get("/api/classes/" + of.classId() + "/own-weeks").body();
        assertTrue(states(own.get("line")).contains("RELEASED"), own::toString);
        assertFalse(of.guest()
                .get("/api/classes/" + of.classId() + "/own-weeks")
                .body()
                .has("line"));
        for (Person who : List.of(of.first(), of.other(), of.guest(), of.moderator()))
            for (String path : List.of("", ".csv", "/" + monday + "/students/" + of.first().id))
                assertEquals(
                        403,
                        who.get("/api/classes/" + of.classId() + "/weeks" + path)
                                .status());
        Person assistant = school.helper(port, of.classId(), Role.ASSISTANT, "Tremaine");
        assertEquals(
                200, assistant.get("/api/classes/" + of.classId() + "/weeks").status());
    }

    @Test
    void itIsTakenAlongAsATable() {
        long prompt = given("=Slugs");
        handIn(prompt, "Two slugs");
        String byWeek =
                of.lead().get("/api/classes/" + of.classId() + "/weeks.csv").text();
        assertTrue(byWeek.contains("\"Week 3, " + monday + "\"") || byWeek.contains("Week 3, " + monday), byWeek);
        assertTrue(byWeek.contains("Wren Castellane"), byWeek);
        assertTrue(byWeek.contains("handed in"), byWeek);
        assertTrue(of.lead()
                .get("/api/classes/" + of.classId() + "/weeks.csv?by=PROMPT")
                .text()
                .contains("'=Slugs"));
    }

    @Test
    void weeksAndStudentsThatAreNotThereAreMissing() {
        String weeks = "/api/classes/" + of.classId() + "/weeks/";
        assertEquals(
                404,
                of.lead()
                        .get(weeks + monday.plusDays(1) + "/students/" + of.first().id)
                        .status());
        assertEquals(
                404, of.lead().get(weeks + monday + "/students/" + of.lead().id).status());
        assertEquals(
                400, of.lead().get(weeks + "soon/students/" + of.first().id).status());
    }

    @Test
    void whoHandedInNothingForTwoWeeksIsTold() {
        long one = given("Slugs");
        long two = given("Snails");
        handIn(two, "One snail");
        wasDue(one, monday.minusDays(9));
        String quiet = "/api/classes/" + of.classId() + "/quiet";
        assertEquals(0, of.lead().get(quiet).body().get("students").size(), "one week is nothing yet");
        wasDue(two, monday.minusDays(2));
        JsonNode students = of.lead().get(quiet).body().get("students");
        assertEquals(1, students.size(), students::toString);
        JsonNode view = weeks(of.lead(), "");
        assertTrue(line(view, of.other()).get("quiet").asBoolean());
        assertFalse(line(view, of.first()).get("quiet").asBoolean());
        assertEquals(
                line(view, of.other()).get("name").asString(), students.get(0).asString());
        for (Person who : List.of(of.first(), of.other(), of.guest(), of.moderator()))
            assertEquals(403, who.get(quiet).status());
    }

    @Test
    void theStatementsDoNotGrowWithTheClass() {
        String path = "/api/classes/" + of.classId() + "/weeks";
        given("Slugs");
        of.lead().get(path);
        int before = StatementCount.of(() -> of.lead().get(path));
        for (int i = 0; i < 5; i++) school.student(port, of.classId(), "Tamsin" + i);
        given("Snails");
        of.lead().get(path);
        assertEquals(before, StatementCount.of(() -> of.lead().get(path)));
    }
}
