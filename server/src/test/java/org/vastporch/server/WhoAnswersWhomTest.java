package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import org.vastporch.server.people.PeopleService;
import tools.jackson.databind.JsonNode;

/** Who answers whom, for those who mark; which posts wait for an answer, for students; a word to several of them. */
@ServerTest
class WhoAnswersWhomTest extends Assessing {

    @Autowired
    PeopleService people;

    private Person third;

    @BeforeEach
    void aThird() {
        third = school.student(port, of.classId(), "Third");
    }

    private String path(String rest) {
        return "/api/classes/" + of.classId() + rest;
    }

    private long written(Person author, String title) {
        return school.published(of, author, school.homeOf(of.classId(), author), Map.of(), title);
    }

    /** A comment that is up. */
    private void answered(Person by, long post) {
        Answer said = by.post("/api/posts/" + post + "/comments", Map.of("text", "How many were there?"));
        assertTrue(said.status() < 300, said.text());
        for (JsonNode item : of.lead().get("/api/pile?sort=comments").body().get("items"))
            School.decide(of.lead(), item, "APPROVE", "");
    }

    private JsonNode seen(String wish) {
        return of.lead().get(path("/who-answers-whom" + wish)).body();
    }

    private static JsonNode voice(JsonNode view, Person of) {
        for (JsonNode voice : view.get("students")) if (voice.get("studentId").asLong() == of.id) return voice;
        throw new AssertionError(view.toString());
    }

    private JsonNode offered(Person student) {
        return student.get(path("/to-answer")).body();
    }

    private static List<Long> ids(JsonNode offered) {
        return offered.get("posts").valueStream().map(p -> p.get("id").asLong()).toList();
    }

    @Test
    void staffSeeWhoAnswersWhomAndNobodyElseDoes() {
        long slugs = written(of.first(), "Slugs");
        long beans = written(of.other(), "Beans");
        long alone = written(third, "Nobody reads this");
        answered(of.other(), slugs);
        answered(of.other(), slugs);
        answered(of.first(), beans);
        answered(of.lead(), alone);
        JsonNode view = seen("");
        assertEquals(3, view.get("students").size());
        assertEquals(3, view.get("comments").asInt(), "what staff write is no answer of a classmate");
        assertEquals(2, view.get("threads").size());
        assertEquals(2, view.get("bothWays").asInt());
        assertEquals(2, voice(view, of.first()).get("received").asInt());
        assertEquals(1, voice(view, of.first()).get("answeredBack").asInt());
        JsonNode never = view.at("/silent/0");
        assertTrue(never.get("neverAnswered").asBoolean());
        assertEquals(alone, never.at("/posts/0/postId").asLong());
        assertTrue(never.at("/posts/0/answerable").asBoolean());
        assertEquals(3, seen("?by=TOGETHER").get("students").size());
        int weeks = of.lead().get(path("/weeks?by=POST")).body().get("heads").size();
        assertEquals(0, seen("?fromWeek=" + (weeks - 1)).get("comments").asInt(), "nothing of the last week yet");
        assertEquals(3, seen("?fromWeek=0&toWeek=" + weeks).get("comments").asInt());
        String csv = of.lead().get(path("/who-answers-whom.csv")).text();
        assertTrue(csv.startsWith("\ufeffFrom,Group,"), csv);
        for (Person no : List.of(of.first(), of.guest(), of.moderator()))
            assertFalse(no.get(path("/who-answers-whom")).text().contains("neverAnswered"));
    }

    @Test
    void aCommentThatWaitsOrWentIsNoAnswer() {
        long slugs = written(of.first(), "Slugs");
        answered(of.other(), slugs);
        jdbc.sql("update comment set state = 'HIDDEN' where post_id = :post")
                .param("post", slugs)
                .update();
        assertEquals(0, seen("").get("comments").asInt());
        assertEquals(List.of(slugs), ids(offered(third)));
    }

    @Test
    void studentsAreOfferedWhatNobodyAnsweredInAFairOrder() {
        long first = written(of.first(), "First");
        long second = written(of.other(), "Second");
        assertEquals(List.of(first, second), ids(offered(third)));
        assertEquals(2, offered(third).get("count").asInt());
        assertEquals(List.of(second), ids(offered(of.first())), "never one's own");
        assertEquals(0, offered(of.lead()).get("count").asInt());
        answered(third, first);
        assertEquals(List.of(second), ids(offered(third)));

        // Staff put the other one up again: it comes first, for whoever has not answered it.
        assertEquals(
                204,
                of.lead().put("/api/posts/" + first + "/answer-wanted", null).status());
        assertEquals(List.of(second), ids(offered(third)));
        assertEquals(List.of(first), ids(offered(of.other())));
        String told = of.other().get(path("/to-answer")).text();
        assertFalse(told.contains("wanted"), "a classmate sees the post, and not that it is put up: " + told);
        answered(of.other(), first);
        assertEquals(List.of(), ids(offered(of.other())), "an answer ends it");
    }

    @Test
    void whatAStudentMayNotReadOrCommentOnIsNotOffered() {
        long hidden = written(of.first(), "Hidden");
        long closed = written(of.other(), "Closed");
        assertEquals(2, offered(third).get("count").asInt());
        jdbc.sql("update post set state = 'HIDDEN' where id = :id")
                .param("id", hidden)
                .update();
        jdbc.sql("update blog set commenters = 'NOBODY' where id = (select blog_id from post where id = :id)")
                .param("id", closed)
                .update();
        assertEquals(0, offered(third).get("count").asInt());
        Answer refused = of.lead().put("/api/posts/" + hidden + "/answer-wanted", null);
        assertEquals("not-up", refused.code(), refused.text());
        assertEquals(
                "comments-off",
                of.lead().put("/api/posts/" + closed + "/answer-wanted", null).code());
        assertEquals(
                403, third.put("/api/posts/" + hidden + "/answer-wanted", null).status());
        assertEquals(
                0,
                jdbc.sql("select count(*) from answer_wanted where post_id in (:ids)")
                        .param("ids", List.of(hidden, closed))
                        .query(Integer.class)
                        .single());
    }

    @Test
    void aWordToSeveralIsReadByEachAloneAndAnswered() {
        Map<String, Object> word =
                new HashMap<>(Map.of("students", List.of(of.first().id, third.id), "text", "Is all well with you?"));
        assertEquals(
                2,
                of.lead()
                        .post(path("/words/several"), word)
                        .body()
                        .get("students")
                        .asInt());
        String own = of.first().get(path("/words")).text();
        assertTrue(own.contains("Is all well with you?"), own);
        assertFalse(own.contains("Third"), own);
        assertEquals(0, of.other().get(path("/words")).body().get("list").size());
        assertEquals(
                "no-word",
                of.other().post(path("/words"), Map.of("text", "Hello")).code());
        assertEquals(
                200,
                of.first().post(path("/words"), Map.of("text", "I was ill.")).status());
        JsonNode thread =
                of.second().get(path("/people/" + of.first().id + "/words")).body();
        assertEquals(2, thread.get("list").size());
        assertEquals(
                1,
                of.lead()
                        .get(path("/people/" + third.id + "/words"))
                        .body()
                        .get("list")
                        .size());

        word.put("students", List.of(of.first().id, of.guest().id));
        assertEquals(
                "not-in-class", of.lead().post(path("/words/several"), word).code());
        word.put("students", List.of());
        assertEquals("nobody", of.lead().post(path("/words/several"), word).code());
        word.put("students", List.of(of.first().id));
        word.put("text", "  ");
        assertEquals("word-empty", of.lead().post(path("/words/several"), word).code());
        assertEquals(2, of.first().get(path("/words")).body().get("list").size(), "a refused one is to nobody");
    }

    @Test
    void theKeeperSeesClassesByWeeksAndNobodysName() {
        written(of.first(), "Slugs");
        long id = people.addKeeper("keeper" + of.lead().id, new PersonName("Keeper", "Ada"));
        people.setPassword(id, School.PASSWORD);
        Person keeper = school.new Person(port, id);
        JsonNode view = keeper.get("/api/school/weeks").body();
        assertEquals(12, view.get("mondays").size());
        JsonNode line = view.get("classes")
                .valueStream()
                .filter(c -> c.get("id").asLong() == of.classId())
                .findFirst()
                .orElseThrow();
        assertEquals(1, line.at("/posts/11").asInt());
        assertEquals(0, line.at("/comments/11").asInt());
        assertFalse(view.toString().contains("Castellane"), view.toString());
        assertEquals(404, of.lead().get("/api/school/weeks").status());
    }
}
