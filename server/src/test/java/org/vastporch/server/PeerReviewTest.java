package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import org.vastporch.server.peers.PeerRoundService;
import tools.jackson.databind.JsonNode;

/** Classmates read each other's papers: who gets which, what they may do with it, and who reads what came of it. */
@ServerTest
class PeerReviewTest extends Assessing {

    @Autowired
    PeerRoundService rounds;

    private final List<Person> students = new ArrayList<>();
    private long prompt;

    @BeforeEach
    void threePapersAreThere() {
        students.addAll(List.of(of.first(), of.other(), school.student(port, of.classId(), "Tamsin")));
        prompt = set(asking(Map.of()));
        for (Person student : students) published(student, "Slugs of " + student.id, "MY_CLASS");
    }

    private Map<String, Object> asking(Map<String, Object> rules) {
        Map<String, Object> peers = new HashMap<>(peers(2));
        peers.putAll(rules);
        Map<String, Object> wanted = open("Slugs", in(3));
        wanted.put("reviews", Map.of("self", "NOT_ASKED", "selfShare", 0, "peers", peers));
        return wanted;
    }

    private long published(Person student, String title, String audience) {
        long blog = school.homeOf(of.classId(), student);
        School.Saved saved =
                School.save(student, blog, Map.of("promptId", prompt), Map.of("title", title, "audience", audience));
        student.post("/api/posts/" + saved.id() + "/hand-in", Map.of("rev", saved.rev()));
        approve();
        return saved.id();
    }

    /** Approves the last text of the pile. */
    private JsonNode last() {
        JsonNode pile = of.lead()
                .get("/api/pile?most=500&classId=" + of.classId())
                .body()
                .get("items");
        return pile.get(pile.size() - 1);
    }

    private void approve() {
        assertEquals(200, School.decide(of.lead(), last(), "APPROVE", "").status());
    }

    private String round() {
        return "/api/prompts/" + prompt + "/peer-round";
    }

    private JsonNode plan(int seed) {
        return of.lead()
                .post(round() + "/plan", Map.of("seed", seed, "kept", List.of()))
                .body();
    }

    private JsonNode giveOut() {
        Answer given = of.lead().post(round(), Map.of("reviews", plan(1).get("pairs")));
        assertEquals(200, given.status(), given::text);
        return given.body();
    }

    private JsonNode lines() {
        return of.lead().get(round()).body().get("lines");
    }

    private JsonNode toGive(Person student) {
        return student.get("/api/classes/" + of.classId() + "/peer-reviews").body();
    }

    private String first(Person student) {
        return "/api/peer-reviews/" + toGive(student).get(0).get("id").asLong();
    }

    private static int rev(Person student, String review) {
        return student.get(review).body().at("/own/rev").asInt();
    }

    private static Answer step(Person student, String review, String criterion, int points, String remark) {
        return student.put(
                review + "/criteria/" + criterion,
                Map.of("rev", rev(student, review), "points", points, "remark", remark));
    }

    private static Answer send(Person student, String review) {
        return student.post(review + "/sent", Map.of("rev", rev(student, review)));
    }

    /** A whole review that was sent. */
    private static void give(Person student, String review, int points) {
        assertEquals(
                200, step(student, review, "c1", points, "I see the slugs.").status());
        Answer answered = student.put(
                review + "/answers/0", Map.of("rev", rev(student, review), "answer", "Where do they sleep?"));
        assertEquals(200, answered.status(), answered::text);
        Answer sent = send(student, review);
        assertEquals(200, sent.status(), sent::text);
    }

    private Person byId(long id) {
        return students.stream().filter(s -> s.id == id).findFirst().orElseThrow();
    }

    private Person authorOf(String review) {
        long id = Long.parseLong(review.substring(review.lastIndexOf('/') + 1));
        for (JsonNode line : lines())
            if (line.get("id").asLong() == id) return byId(line.get("authorId").asLong());
        throw new AssertionError("not in the round: " + review);
    }

    private JsonNode received(Person author) {
        return author.get("/api/prompts/" + prompt + "/peer-reviews").body();
    }

    @Test
    void whatWasSeenInAPlanIsGivenOutAndNothingElse() {
        assertEquals(0, lines().size());
        JsonNode pairs = plan(3).get("pairs");
        assertEquals(6, pairs.size());
        assertEquals(pairs, plan(3).get("pairs"), "the same seed makes the same plan");
        assertEquals(0, lines().size(), "a plan is only looked at");
        JsonNode given = giveOut();
        assertEquals(6, given.get("lines").size());
        Answer again = of.second().post(round(), Map.of("reviews", pairs));
        assertEquals("given-out", again.code(), "two teachers at once");
        for (Person student : students) assertEquals(2, toGive(student).size());
    }

    @Test
    void noNameOfAnAuthorIsInWhatItsReviewerGets() {
        giveOut();
        Person reviewer = of.first();
        String review = first(reviewer);
        Person author = authorOf(review);
        JsonNode page = reviewer.get(review).body();
        assertTrue(page.at("/posts/0/html").asString().contains("Eleven leaves"));
        assertFalse(page.has("author"));
        assertFalse(page.at("/posts/0").has("postId"), "a number of a post leads to its author");
        assertFalse(toGive(reviewer).get(0).has("author"));
        for (Person other : List.of(author, of.moderator(), of.guest(), of.lead()))
            assertEquals(
                    404,
                    other.get(review).status() == 403 ? 404 : other.get(review).status());
        assertEquals(401, school.stranger(port).get(review).status());
    }

    @Test
    void aReviewIsKeptAsOneGoesAndSentWhole() {
        giveOut();
        Person reviewer = of.first();
        String review = first(reviewer);
        assertEquals("steps-missing", send(reviewer, review).code());
        assertEquals(404, step(reviewer, review, "c2", 1, "").status(), "not asked about");
        assertEquals(200, step(reviewer, review, "c1", 4, "Clear.").status());
        assertEquals("answers-missing", send(reviewer, review).code());
        assertEquals(
                "review-changed",
                reviewer.put(review + "/word", Map.of("rev", 0, "word", "So.")).code(),
                "a second tab");
        assertEquals("BEGUN", stage(review));
        give(reviewer, review, 4);
        assertEquals("WAITS", stage(review));
        assertEquals("review-sent", step(reviewer, review, "c1", 6, "").code());
        assertEquals(0, reviewer.get(review).body().get("posts").size(), "the right to the paper ends with it");
    }

    private String stage(String review) {
        long id = Long.parseLong(review.substring(review.lastIndexOf('/') + 1));
        for (JsonNode line : lines())
            if (line.get("id").asLong() == id) return line.get("stage").asString();
        throw new AssertionError("not in the round: " + review);
    }

    @Test
    void itsWordsAreLookedAtAndItsPointsAreNot() {
        giveOut();
        Person reviewer = of.first();
        String review = first(reviewer);
        Person author = authorOf(review);
        give(reviewer, review, 4);
        assertEquals(0, received(author).get("reviews").size(), "nothing before somebody has looked");
        JsonNode item = last();
        assertEquals("review", item.get("subject").asString());
        assertTrue(item.get("html").asString().contains("I see the slugs."));
        assertTrue(item.get("html").asString().contains("Where do they sleep?"));
        assertFalse(item.get("html").asString().contains("4"), "no points");
        assertEquals(
                1,
                of.lead()
                        .get("/api/today")
                        .body()
                        .at("/classes/0/approve/reviews")
                        .asInt(1));
        School.decide(of.lead(), item, "RETURN", "Say it kindly.");
        JsonNode back = reviewer.get(review).body();
        assertEquals("Say it kindly.", back.get("note").asString());
        assertEquals("ALLOWED", back.get("can").asString());
        assertTrue(reviewer.get("/api/news").text().contains("REVIEW_RETURNED"));
        give(reviewer, review, 6);
        approve();
        JsonNode mine = received(author);
        assertEquals(1, mine.get("reviews").size());
        assertFalse(mine.at("/reviews/0").has("reviewer"), "names are kept");
        assertEquals("6", mine.at("/median/0/points").asString());
        assertTrue(author.get("/api/news").text().contains("REVIEWED"));
    }

    @Test
    void anAuthorSaysWhatHelpedAndReportsWhatHurts() {
        giveOut();
        Person reviewer = of.first();
        String review = first(reviewer);
        Person author = authorOf(review);
        give(reviewer, review, 4);
        Map<String, Object> helped = Map.of("helped", true, "why", "The question about sleep.");
        assertEquals(404, author.put(review + "/helped", helped).status(), "not before it is there");
        approve();
        assertEquals(404, reviewer.put(review + "/helped", helped).status());
        assertEquals(
                "The question about sleep.",
                author.put(review + "/helped", helped)
                        .body()
                        .at("/reviews/0/helped")
                        .asString());
        for (Person other : students)
            if (other != author)
                assertEquals(
                        404,
                        other.post(review + "/reports", Map.of("reason", "")).status());
        assertEquals(
                200,
                author.post(review + "/reports", Map.of("reason", "It hurts.")).status());
        assertEquals("It hurts.", last().at("/reports/0/reason").asString());
    }

    @Test
    void aPaperThatItsAuthorBinsIsGoneFromTheReview() {
        giveOut();
        String review = first(of.first());
        Person author = authorOf(review);
        long post = jdbc.sql("select id from post where author_id = :author and prompt_id = :prompt")
                .param("author", author.id)
                .param("prompt", prompt)
                .query(Long.class)
                .single();
        assertTrue(of.lead().call("DELETE", "/api/posts/" + post, null).status() < 300);
        JsonNode page = of.first().get(review).body();
        assertEquals("PAPER_GONE", page.get("can").asString());
        assertEquals(0, page.get("posts").size());
        assertEquals("paper-gone", step(of.first(), review, "c1", 4, "").code());
    }

    @Test
    void wordsThatAreTooLongAreRefusedAndNothingOfWhatStoodIsLost() {
        giveOut();
        Person wren = of.first();
        String review = first(wren);
        step(wren, review, "c1", 4, "I see the slugs.");
        String words = "slug ".repeat(40_000);
        int rev = rev(wren, review);
        assertEquals(
                "answer-too-long",
                wren.put(review + "/answers/0", Map.of("rev", rev, "answer", words))
                        .code());
        assertEquals(
                422,
                wren.put(review + "/word", Map.of("rev", rev, "word", words)).status());
        assertEquals(422, step(wren, review, "c1", 6, words).status());
        JsonNode own = wren.get(review).body().get("own");
        assertEquals(rev, own.get("rev").asInt());
        assertEquals("I see the slugs.", own.at("/marks/0/remark").asString());
    }

    @Test
    void ofTwoTeachersWhoGiveOutAtTheSameMomentOneDoes() throws Exception {
        for (int round = 0; round < 5; round++) {
            Map<String, Object> seen = Map.of("reviews", plan(round).get("pairs"));
            CyclicBarrier together = new CyclicBarrier(2);
            List<Integer> answers = new ArrayList<>();
            ExecutorService two = Executors.newFixedThreadPool(2);
            List<Future<Integer>> both = new ArrayList<>();
            for (Person teacher : List.of(of.lead(), of.second()))
                both.add(two.submit(() -> {
                    together.await();
                    return teacher.post(round(), seen).status();
                }));
            for (Future<Integer> one : both) answers.add(one.get());
            two.shutdown();
            Collections.sort(answers);
            assertEquals(List.of(200, 409), answers);
            assertEquals(6, lines().size(), "nobody got a paper twice");
            jdbc.sql("delete from review where prompt_id = :prompt")
                    .param("prompt", prompt)
                    .update();
            jdbc.sql("update prompt set peers_given_at = null where id = :prompt")
                    .param("prompt", prompt)
                    .update();
        }
    }

    @Test
    void aPaperThatIsTakenBackIsReadByNobodyAndTheClockReplacesIt() {
        giveOut();
        Person reviewer = of.first();
        String review = first(reviewer);
        Person author = authorOf(review);
        jdbc.sql("update post set audience = 0 where author_id = :author")
                .param("author", author.id)
                .update();
        assertEquals("PAPER_GONE", reviewer.get(review).body().get("can").asString());
        assertEquals(0, reviewer.get(review).body().get("posts").size());
        assertEquals("paper-gone", step(reviewer, review, "c1", 4, "").code());
        rounds.tick(prompt);
        assertEquals(
                404,
                reviewer.get(review).status() == 200
                        ? 404
                        : reviewer.get(review).status());
        Set<Long> authors = new TreeSet<>();
        for (JsonNode line : lines()) authors.add(line.get("authorId").asLong());
        assertFalse(authors.contains(author.id));
    }

    @Test
    void whoComesLateIsFittedInAndNobodyIsMoved() {
        giveOut();
        JsonNode before = lines();
        Person late = school.student(port, of.classId(), "Yara");
        students.add(late);
        published(late, "Slugs of the last", "MY_CLASS");
        rounds.tick(prompt);
        assertEquals(2, toGive(late).size());
        Set<Long> now = new TreeSet<>();
        for (JsonNode line : lines()) now.add(line.get("id").asLong());
        for (JsonNode line : before) assertTrue(now.contains(line.get("id").asLong()));
        int size = lines().size();
        rounds.tick(prompt);
        assertEquals(size, lines().size(), "once is enough");
    }

    @Test
    void aMissingReviewIsPassedOn() {
        Person fourth = school.student(port, of.classId(), "Yara");
        students.add(fourth);
        published(fourth, "Slugs of the last", "MY_CLASS");
        giveOut();
        String review = first(of.first());
        Person author = authorOf(review);
        assertEquals(403, of.first().post(review + "/passed-on", Map.of()).status());
        Answer passed = of.lead().post(review + "/passed-on", Map.of());
        assertEquals(200, passed.status(), passed::text);
        assertEquals(1, toGive(of.first()).size());
        assertEquals("ENDED", of.first().get(review).body().get("can").asString());
        int readers = 0;
        for (JsonNode line : lines()) if (line.get("authorId").asLong() == author.id) readers++;
        assertEquals(2, readers);
        assertEquals(409, of.lead().post(review + "/passed-on", Map.of()).status(), "a second click");
        rounds.tick(prompt);
        assertEquals(1, toGive(of.first()).size(), "the clock gives nothing in place of it");
    }

    @Test
    void theClockGivesOutAtItsTimeAndRemindsOnce() {
        Map<String, Object> wanted = asking(Map.of("when", "ALL_IN"));
        assertEquals(200, change(prompt, wanted, "").status());
        rounds.tick(prompt);
        assertEquals(6, lines().size());
        jdbc.sql("update prompt set peers = replace(peers, :from, :to) where id = :id")
                .param("from", dueOf())
                .param("to", Instant.now().plusSeconds(3600).toString())
                .param("id", prompt)
                .update();
        assertFalse(of.first().get("/api/news").text().contains("REVIEW_REMINDER"));
        rounds.tick(prompt);
        Object reminded = reminded();
        assertNotNull(reminded);
        assertTrue(of.first().get("/api/news").text().contains("REVIEW_REMINDER"));
        rounds.tick(prompt);
        assertEquals(reminded, reminded());
    }

    private String dueOf() {
        return of.lead().get(round()).body().at("/rules/due").asString();
    }

    private Object reminded() {
        return jdbc.sql("select peers_reminded_at from prompt where id = :id")
                .param("id", prompt)
                .query((row, n) -> row.getObject(1, java.time.OffsetDateTime.class))
                .single();
    }

    @Test
    void aShareOfTheScoreIsTheMedianOfThoseThatCount() {
        assertEquals(200, change(prompt, asking(Map.of("share", 50)), "").status());
        giveOut();
        Person author = of.first();
        mark(prompt, 6, 3);
        release(prompt);
        assertEquals("9.0", score(prompt));
        for (JsonNode line : lines()) {
            if (line.get("authorId").asLong() != author.id) continue;
            String review = "/api/peer-reviews/" + line.get("id").asLong();
            give(byId(line.get("reviewerId").asLong()), review, 0);
            assertEquals(
                    "0",
                    of.lead()
                                            .get("/api/prompts/" + prompt + "/peer-reviews/" + author.id)
                                            .body()
                                            .get("reviews")
                                            .size()
                                    == 0
                            ? "0"
                            : "1");
            approve();
            break;
        }
        // Half of it is 0 of 9 by the one criterion that classmates judged.
        assertEquals("4.5", score(prompt));
        JsonNode history = of.lead().get(at(prompt) + "/history").body();
        assertTrue(history.toString().contains("classmate"), history::toString);
        JsonNode told = feedback().get(0).get("changed");
        assertTrue(told.get("reason").asString().contains("classmate"), told::toString);
        String news = author.get("/api/news").text();
        assertTrue(news.contains("RESCORED"), news);
        jdbc.sql("select by_id from score_event where kind = 'CHANGED' and prompt_id = :prompt")
                .param("prompt", prompt)
                .query((row, n) -> row.getObject(1))
                .list()
                .forEach(by -> assertNull(by, "nobody's name stands beside it"));
    }

    @Test
    void onlyWhoTeachesGivesOut() {
        for (Person no : List.of(of.first(), of.guest(), of.moderator())) {
            assertEquals(403, no.get(round()).status());
            assertEquals(403, no.post(round(), Map.of("reviews", List.of())).status());
        }
        assertEquals(401, school.stranger(port).get(round()).status());
        long me = of.first().id;
        assertEquals(
                "round-changed",
                of.lead()
                        .post(round(), Map.of("reviews", List.of(Map.of("reviewer", me, "author", me))))
                        .code());
        assertEquals(
                "nobody-yet",
                of.lead().post(round(), Map.of("reviews", List.of())).code());
    }

    /** What a round costs does not grow with the class, nor does the pile with what waits in it. */
    @Test
    void theNumberOfStatementsStaysTheSame() {
        giveOut();
        String review = first(of.first());
        give(of.first(), review, 4);
        int round = StatementCount.of(() -> of.lead().get(round()));
        int pile = StatementCount.of(() -> of.lead().get("/api/pile?sort=reviews"));
        Person late = school.student(port, of.classId(), "Yara");
        students.add(late);
        published(late, "Slugs of the last", "MY_CLASS");
        rounds.tick(prompt);
        give(of.other(), first(of.other()), 6);
        assertEquals(round, StatementCount.of(() -> of.lead().get(round())));
        assertEquals(pile, StatementCount.of(() -> of.lead().get("/api/pile?sort=reviews")));
    }

    @Test
    void anAnswerStaysWithTheQuestionThatWasAsked() {
        giveOut();
        Person reviewer = of.first();
        String review = first(reviewer);
        Person author = authorOf(review);
        give(reviewer, review, 4);
        approve();
        Map<String, Object> wanted = asking(Map.of("questions", List.of("Which leaf was the first?")));
        assertEquals(200, change(prompt, wanted, "").status());
        JsonNode answer = received(author).at("/reviews/0/answers/0");
        assertEquals("What would you ask the author?", answer.get("question").asString());
        assertEquals("Where do they sleep?", answer.get("answer").asString());
        JsonNode open = of.other().get(first(of.other())).body().get("answers").get(0);
        assertEquals("Which leaf was the first?", open.get("question").asString());
        assertEquals("", open.get("answer").asString());
    }

    @Test
    void anErasedPersonLeavesNothingOfReviews() {
        giveOut();
        String review = first(of.first());
        Person author = authorOf(review);
        give(of.first(), review, 4);
        approve();
        author.post(review + "/reports", Map.of("reason", "It hurts."));
        int before = lines().size();
        String name = jdbc.sql("select username from person where id = :id")
                .param("id", of.first().id)
                .query(String.class)
                .single();
        Answer erased = of.lead().post("/api/people/" + of.first().id + "/erasure", Map.of("typed", name));
        assertEquals(200, erased.status(), erased::text);
        assertTrue(lines().size() < before);
        assertEquals(
                0,
                jdbc.sql(
                                "select count(*) from report where subject = 'review' and subject_id not in (select id from review)")
                        .query(Integer.class)
                        .single());
    }
}
