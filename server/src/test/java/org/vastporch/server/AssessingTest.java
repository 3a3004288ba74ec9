package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Papers over their whole life: prompts that change, own dates, several posts, released scores, sums. Over HTTP. */
@ServerTest
class AssessingTest extends Assessing {

    @Test
    void aChangedDateIsSaidBeforeItIsKeptAndSeenScoresChangeOnlyWithAReason() {
        long prompt = set(wanted("Log", in(2)));
        handIn(prompt, "Slugs");
        mark(prompt, 6, 3);
        release(prompt);
        assertEquals("9.0", score(prompt));
        Map<String, Object> earlier = wanted("Log", in(-1));
        JsonNode effects =
                of.lead().post("/api/prompts/" + prompt + "/look", earlier).body();
        assertEquals("Wren Castellane", effects.get("becomeLate").get(0).asString());
        assertEquals("8.1", effects.get("scores").get(0).get("after").asString());
        assertTrue(effects.get("needsReason").asBoolean());
        assertEquals(2, effects.get("toldDate").asInt());
        assertEquals("9.0", score(prompt), "a look keeps nothing");
        assertEquals("reason-missing", change(prompt, earlier, " ").code());
        assertEquals("9.0", score(prompt));
        assertEquals(200, change(prompt, earlier, "The date was wrong.").status());
        assertEquals("8.1", score(prompt));
        JsonNode news = of.first().get("/api/news").body().get("items").get(0);
        assertEquals("RESCORED", news.get("kind").asString());
        assertEquals("The date was wrong.", news.get("lines").asString());
        assertFalse(news.toString().contains("8.1"), "a score stands under Feedback alone");
        assertEquals(
                "The date was wrong.",
                feedback().get(0).get("changed").get("reason").asString());
        JsonNode history = of.lead().get(at(prompt) + "/history").body();
        assertEquals("CHANGED", history.get(0).get("kind").asString());
        assertEquals("9", history.get(0).get("before").asString());
        assertEquals("8.1", history.get(0).get("after").asString());
        assertEquals("RELEASED", history.get(1).get("kind").asString());
        // Taken back and released anew, it stands as it is shown.
        assertEquals(
                200,
                of.lead()
                        .post(at(prompt) + "/take-back", Map.of("seen", school.seen(of.lead(), prompt, of.first().id)))
                        .status());
        assertEquals(0, feedback().size());
        release(prompt);
        assertFalse(feedback().get(0).has("changed"));
    }

    @Test
    void twoTeachersDoNotChangeAPromptOverEachOther() {
        long prompt = set(wanted("Log", in(2)));
        JsonNode editable =
                of.lead().get("/api/prompts/" + prompt + "/editable").body();
        int rev = editable.get("rev").asInt();
        assertEquals(
                200,
                of.second()
                        .put("/api/prompts/" + prompt, Map.of("rev", rev, "prompt", wanted("Theirs", in(2))))
                        .status());
        Answer late = of.lead().put("/api/prompts/" + prompt, Map.of("rev", rev, "prompt", wanted("Mine", in(2))));
        assertEquals("prompt-changed", late.code());
        assertEquals(
                "Theirs",
                of.lead().get("/api/prompts/" + prompt).body().get("title").asString());
    }

    @Test
    void whatIsSentBackUnchangedChangesNothing() {
        long prompt = set(wanted("Log", in(2)));
        JsonNode before = of.lead().get("/api/prompts/" + prompt + "/editable").body();
        assertEquals(
                200,
                of.lead()
                        .put(
                                "/api/prompts/" + prompt,
                                Map.of("rev", before.get("rev").asInt(), "prompt", before.get("prompt")))
                        .status());
        JsonNode after = of.lead().get("/api/prompts/" + prompt + "/editable").body();
        assertEquals(before.get("prompt"), after.get("prompt"));
        assertEquals(
                1,
                jdbc.sql("select count(*) from rubric where class_id = :id")
                        .param("id", of.classId())
                        .query(Integer.class)
                        .single(),
                "the rubric is the same one");
    }

    @Test
    void aCriterionThatGoesKeepsItsMarksForWhenItComesBack() {
        long prompt = set(wanted("Log", in(2)));
        handIn(prompt, "Slugs");
        mark(prompt, 6, 1);
        Map<String, Object> without = wanted("Log", in(2));
        List<Object> criteria =
                new ArrayList<>(((Map<?, List<Object>>) (Map<?, ?>) without.get("rubric")).get("criteria"));
        criteria.remove(1);
        without.put("rubric", Map.of("criteria", criteria));
        JsonNode effects =
                of.lead().post("/api/prompts/" + prompt + "/look", without).body();
        assertEquals("Reflection", effects.get("aside").get(0).get("criterion").asString());
        assertEquals(1, effects.get("aside").get(0).get("marks").asInt());
        change(prompt, without, "");
        assertEquals("9.0", score(prompt));
        Map<String, Object> off = wanted("Log", in(2));
        off.remove("rubric");
        change(prompt, off, "");
        assertFalse(paper(prompt).get("given").has("score"));
        change(prompt, wanted("Log", in(2)), "");
        assertEquals("7.0", score(prompt), "9 × (2·1 + 1·⅓) / 3: all marks are found again");
        assertEquals("MARKED", paper(prompt).get("given").get("standing").asString());
    }

    @Test
    void anOwnDateAndBeingLetOffHoldForOneStudentAlone() {
        long prompt = set(wanted("Log", in(-3)));
        handIn(prompt, "Slugs");
        school.published(
                of,
                of.other(),
                of.other()
                        .get("/api/classes/" + of.classId() + "/blogs/mine")
                        .body()
                        .get(0)
                        .get("id")
                        .asLong(),
                Map.of("promptId", prompt),
                "Snails");
        mark(prompt, 6, 3);
        release(prompt);
        assertEquals("5.4", score(prompt), "four days have begun");
        String allowance = "/api/prompts/" + prompt + "/allowances/" + of.first().id;
        assertEquals(
                403,
                of.first()
                        .put(allowance, Map.of("letOff", true, "again", false))
                        .status());
        of.lead().put(allowance, Map.of("letOff", false, "again", false, "due", in(1).toString()));
        assertEquals("9.0", score(prompt));
        assertEquals(
                "You were given a date of your own.",
                feedback().get(0).get("changed").get("reason").asString());
        JsonNode mine = of.first().get("/api/prompts/" + prompt).body();
        assertTrue(mine.get("ownDate").asBoolean());
        assertFalse(mine.get("late").asBoolean());
        assertTrue(of.first().get("/api/news").text().contains("OWN_DATE"));
        assertFalse(of.other().get("/api/news").text().contains("OWN_DATE"));
        JsonNode theirs = of.other().get("/api/prompts/" + prompt).body();
        assertFalse(theirs.get("ownDate").asBoolean());
        assertTrue(theirs.get("late").asBoolean());
        JsonNode other = of.lead()
                .get("/api/prompts/" + prompt + "/marking/" + of.other().id)
                .body();
        assertTrue(other.get("daysLate").asInt() >= 3);
        of.lead().put(allowance, Map.of("letOff", true, "again", false));
        assertEquals("LET_OFF", paper(prompt).get("given").get("standing").asString());
        assertEquals(0, feedback().size());
        assertEquals("let-off", give(prompt, "c1", Map.of("points", 0)).code());
        of.lead().put(allowance, Map.of("letOff", false, "again", false));
        assertEquals("5.4", score(prompt), "nothing was lost");
    }

    @Test
    void aPaperOfTwoPostsIsReadyWithBothAndAThirdMovesNoMark() {
        Map<String, Object> two = wanted("Project", in(2));
        two.put("answers", School.answers(2, false));
        long prompt = set(two);
        handIn(prompt, "First half");
        assertEquals("IN_PART", paper(prompt).get("given").get("standing").asString());
        handIn(prompt, "Second half");
        JsonNode both = paper(prompt);
        assertEquals("HANDED_IN", both.get("given").get("standing").asString());
        assertEquals("First half", both.get("posts").get(0).get("title").asString());
        assertEquals("Second half", both.get("posts").get(1).get("title").asString());
        mark(prompt, 6, 3);
        release(prompt);
        // What comes then is not what was marked.
        letDueGoBy(prompt);
        handIn(prompt, "A third");
        assertEquals("9.0", score(prompt), "the mark stays with what was read");
        assertTrue(paper(prompt).get("given").get("changed").asBoolean());
        assertEquals("A third", paper(prompt).get("posts").get(1).get("title").asString());
        JsonNode shown = feedback().get(0);
        assertEquals("9.0", shown.get("score").get("points").asString());
        assertEquals("First half", shown.get("posts").get(0).get("title").asString());
        assertEquals(2, shown.get("posts").size());
    }

    private Answer take(long prompt, long post, int version, boolean taken) {
        return of.lead()
                .put(
                        at(prompt) + "/taken",
                        Map.of(
                                "seen",
                                school.seen(of.lead(), prompt, of.first().id),
                                "post",
                                post,
                                "version",
                                version,
                                "taken",
                                taken));
    }

    @Test
    void whatIsChangedUnaskedAfterTheTimeCountsOnlyIfTheMarkerTakesIt() {
        long prompt = set(wanted("Log", in(2)));
        long post = handIn(prompt, "Slugs");
        handInAgain(post, "Slugs, mended in time");
        assertEquals(
                "Slugs, mended in time",
                paper(prompt).get("posts").get(0).get("title").asString());
        letDueGoBy(prompt);
        mark(prompt, 6, 3);
        handInAgain(post, "Slugs, after the time");
        JsonNode seen = paper(prompt).get("posts").get(0);
        assertEquals("Slugs, mended in time", seen.get("title").asString());
        assertEquals("Slugs, after the time", seen.get("newer").get("title").asString());
        assertEquals(0, seen.get("daysLate").asInt());
        assertEquals("9.0", score(prompt));
        assertFalse(paper(prompt).get("given").get("changed").asBoolean());
        int newer = seen.get("newer").get("version").asInt();
        assertEquals(404, take(prompt, post + 1_000, newer, true).status());
        assertEquals(200, take(prompt, post, newer, true).status());
        JsonNode taken = paper(prompt);
        assertEquals(
                "Slugs, after the time", taken.get("posts").get(0).get("title").asString());
        assertEquals(1, taken.get("posts").get(0).get("daysLate").asInt());
        assertTrue(taken.get("given").get("changed").asBoolean());
        assertEquals("9.0", score(prompt), "what was marked is the earlier text, which was on time");
        assertEquals(200, give(prompt, "c1", Map.of("points", 6)).status());
        assertEquals("8.1", score(prompt), "now it is the later one");
        assertEquals(200, take(prompt, post, newer, false).status());
        assertEquals(
                "Slugs, mended in time",
                paper(prompt).get("posts").get(0).get("title").asString());
    }

    @Test
    void whatStaffAskedToBeMendedCountsFromTheFirstTime() {
        long prompt = set(wanted("Log", in(2)));
        school.handIn(
                of.first(),
                of.blogOfFirst(),
                Map.of("promptId", prompt),
                "Slugs",
                "<p>Five words are written here.</p>");
        JsonNode item = of.lead().get("/api/pile?most=500").body().get("items").get(0);
        School.decide(of.lead(), item, "RETURN", "Which slugs?");
        letDueGoBy(prompt);
        handInAgain(item.get("id").asLong(), "Slugs of the north side");
        JsonNode post = paper(prompt).get("posts").get(0);
        assertEquals("Slugs of the north side", post.get("title").asString());
        assertEquals(0, post.get("daysLate").asInt());
        assertFalse(post.has("newer"));
    }

    @Test
    void aScoreThatWasShownStandsWhenThePostIsThrownAway() {
        long prompt = set(wanted("Log", in(2)));
        long post = handIn(prompt, "Slugs");
        mark(prompt, 6, 3);
        release(prompt);
        assertEquals(200, of.lead().call("DELETE", "/api/posts/" + post, null).status());
        assertEquals("9.0", feedback().get(0).get("score").get("points").asString());
        assertEquals("RELEASED", paper(prompt).get("given").get("standing").asString());
    }

    @Test
    void aReleaseIsTakenBackFreelyForAnHourAndWithAReasonAfterwards() {
        long prompt = set(wanted("Log", in(2)));
        handIn(prompt, "Slugs");
        mark(prompt, 6, 3);
        assertEquals(
                "not-released",
                of.lead()
                        .post(at(prompt) + "/take-back", Map.of("seen", school.seen(of.lead(), prompt, of.first().id)))
                        .code());
        release(prompt);
        assertEquals("reason-missing", give(prompt, "c1", Map.of("points", 4)).code());
        assertEquals(
                200,
                give(prompt, "c1", Map.of("points", 4, "reason", "Looked again."))
                        .status());
        jdbc.sql("update marking set released_at = :at where prompt_id = :id")
                .param("at", Instant.now().minusSeconds(3_700).atOffset(ZoneOffset.UTC))
                .param("id", prompt)
                .update();
        Map<String, Object> seen = school.seen(of.lead(), prompt, of.first().id);
        assertEquals(
                "reason-missing",
                of.lead().post(at(prompt) + "/take-back", Map.of("seen", seen)).code());
        assertEquals(1, feedback().size());
        assertEquals(
                200,
                of.lead()
                        .post(at(prompt) + "/take-back", Map.of("seen", seen, "reason", "Marked the wrong text."))
                        .status());
        assertEquals(0, feedback().size());
        assertEquals(
                "Marked the wrong text.",
                of.lead()
                        .get(at(prompt) + "/history")
                        .body()
                        .get(0)
                        .get("reason")
                        .asString());
        assertEquals(403, of.first().get(at(prompt) + "/history").status());
    }

    /** What every next level would make of the score is told beforehand, late or not, and is what it then comes to. */
    @Test
    void whatAStepWillMakeOfTheScoreIsToldBeforehandUnlessItWouldBeForAnotherText() {
        long prompt = set(wanted("Log", in(2)));
        long post = handIn(prompt, "Slugs");
        assertEachStepComesTo(prompt);
        letDueGoBy(prompt);
        jdbc.sql("update prompt set due_at = :due where id = :id")
                .param("due", Instant.now().minusSeconds(3_600).atOffset(ZoneOffset.UTC))
                .param("id", prompt)
                .update();
        assertEquals(1, paper(prompt).get("daysLate").asInt());
        assertEachStepComesTo(prompt);
        handInAgain(post, "Slugs, after the time");
        int newer = paper(prompt).at("/posts/0/newer/version").asInt();
        assertEquals(200, take(prompt, post, newer, true).status());
        assertTrue(paper(prompt).at("/given/changed").asBoolean());
        assertEquals(0, paper(prompt).at("/given/scores").size());
    }

    private void assertEachStepComesTo(long prompt) {
        JsonNode told = paper(prompt).at("/given/scores");
        assertTrue(told.size() > 3);
        for (int i = 0; i < told.size(); i++) {
            JsonNode step = paper(prompt).at("/given/scores/" + i);
            Answer given = give(
                    prompt,
                    step.get("criterion").asString(),
                    Map.of("points", step.get("points").asString()));
            assertEquals(step.get("score"), given.body().get("score"), step::toString);
        }
    }

    @Test
    void pointsMayLieBetweenTheStepsAndACriterionMayNotCount() {
        long prompt = set(wanted("Log", in(2)));
        handIn(prompt, "Slugs");
        mark(prompt, "4.5", 3);
        assertEquals("7.5", score(prompt), "9 × (2·¾ + 1) / 3");
        assertEquals(
                "points-places",
                give(prompt, "c1", Map.of("points", "3.33333333")).code());
        assertEquals("points-range", give(prompt, "c1", Map.of("points", -1)).code());
        assertEquals("points-range", give(prompt, "c1", Map.of("points", 1e9)).code());
        assertEquals(200, give(prompt, "c1", Map.of("notCounted", true)).status());
        assertEquals("9.0", score(prompt));
        assertEquals("MARKED", paper(prompt).get("given").get("standing").asString());
        assertEquals(
                "nothing-counts", give(prompt, "c2", Map.of("notCounted", true)).code());
        assertEquals(200, give(prompt, "c1", Map.of("points", 0)).status());
        assertEquals("3.0", score(prompt));
    }

    @Test
    void afterItHasClosedNothingComesInButWhatWasAskedToBeMended() {
        Map<String, Object> closing = wanted("Log", in(1));
        closing.put("closes", in(1).plusHours(1).toString());
        long prompt = set(closing);
        school.handIn(
                of.first(),
                of.blogOfFirst(),
                Map.of("promptId", prompt),
                "Slugs",
                "<p>Five words are written here.</p>");
        JsonNode item = of.lead().get("/api/pile?most=500").body().get("items").get(0);
        School.decide(of.lead(), item, "RETURN", "Which slugs?");
        Map<String, Object> before = wanted("Log", in(-2));
        before.put("closes", in(-1).toString());
        change(prompt, before, "");
        long id = item.get("id").asLong();
        int rev = of.first()
                .get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        assertEquals(
                200,
                of.first()
                        .post("/api/posts/" + id + "/hand-in", Map.of("rev", rev))
                        .status());
        Person other = of.other();
        long blog = other.get("/api/classes/" + of.classId() + "/blogs/mine")
                .body()
                .get(0)
                .get("id")
                .asLong();
        assertEquals(
                "prompt-closed",
                school.handIn(other, blog, Map.of("promptId", prompt), "Late", "<p>Five words are written here.</p>")
                        .code());
        of.lead()
                .put(
                        "/api/prompts/" + prompt + "/allowances/" + other.id,
                        Map.of("letOff", false, "again", false, "due", in(3).toString()));
        assertEquals(
                200,
                school.handIn(other, blog, Map.of("promptId", prompt), "Late", "<p>Five words are written here.</p>")
                        .status());
    }

    @Test
    void aStudentIsToldWhatIsDueAndWhatItCostsToBeLateNow() {
        Map<String, Object> late = wanted("Late", in(-2).plusHours(1));
        late.put("answers", School.answers(2, false));
        long behind = set(late);
        set(open("Soon", in(30)));
        long off = set(open("Off", in(20)));
        of.lead().put("/api/prompts/" + off + "/allowances/" + of.first().id, Map.of("letOff", true, "again", false));
        JsonNode due = of.first().get("/api/classes/" + of.classId() + "/due").body();
        assertEquals(
                List.of("Late", "Off", "Soon"),
                due.valueStream().map(d -> d.get("title").asString()).toList());
        assertEquals("LATE", due.get(0).get("when").asString());
        assertEquals(2, due.get(0).get("daysLate").asInt());
        assertEquals(20, due.get(0).get("percentLost").asInt());
        assertTrue(due.get(1).get("letOff").asBoolean());
        assertFalse(due.get(1).get("owesPosts").asBoolean());
        assertEquals("LATER", due.get(2).get("when").asString());
        handIn(behind, "One of two");
        JsonNode half =
                of.first().get("/api/classes/" + of.classId() + "/due").body().get(0);
        assertEquals(1, half.get("posts").asInt());
        assertTrue(half.get("owesPosts").asBoolean());
        handIn(behind, "Two of two");
        assertEquals(
                "Off",
                of.first()
                        .get("/api/classes/" + of.classId() + "/due")
                        .body()
                        .get(0)
                        .get("title")
                        .asString());
        assertEquals(
                0, of.lead().get("/api/classes/" + of.classId() + "/due").body().size());
    }

    @Test
    void timesThatMakeNoSenseAreRefusedAndNothingIsKept() {
        Map<String, Object> closes = wanted("Log", in(2));
        closes.put("closes", in(1).toString());
        assertEquals(
                "closes-before-due",
                of.lead()
                        .post("/api/classes/" + of.classId() + "/prompts", closes)
                        .code());
        Map<String, Object> none = wanted("Log", in(2));
        none.put("answers", School.answers(21, false));
        assertEquals(
                "posts-range",
                of.lead()
                        .post("/api/classes/" + of.classId() + "/prompts", none)
                        .code());
        assertEquals(
                0,
                of.lead()
                        .get("/api/classes/" + of.classId() + "/prompts")
                        .body()
                        .size());
    }

    @Test
    void aPromptIsRepeatedThroughTheTermEachOneOnItsOwn() {
        Map<String, Object> weekly = wanted("Log of week {week}", in(1));
        int many = of.lead()
                .post("/api/classes/" + of.classId() + "/prompts/repeat", weekly)
                .body()
                .get("set")
                .asInt();
        JsonNode prompts =
                of.lead().get("/api/classes/" + of.classId() + "/prompts").body();
        assertEquals(many, prompts.size());
        assertTrue(many >= 8, () -> many + " weeks");
        Instant last = Instant.parse(prompts.get(0).get("due").asString());
        Instant before = Instant.parse(prompts.get(1).get("due").asString());
        assertEquals(LocalDateTime.ofInstant(before, LONDON).plusWeeks(1), LocalDateTime.ofInstant(last, LONDON));
        long second = prompts.get(many - 2).get("id").asLong();
        change(second, wanted("Another one", in(9)), "");
        assertEquals(
                1,
                of.lead()
                        .get("/api/classes/" + of.classId() + "/prompts")
                        .body()
                        .valueStream()
                        .filter(p -> p.get("title").asString().equals("Another one"))
                        .count());
        assertEquals(
                403,
                of.first()
                        .post("/api/classes/" + of.classId() + "/prompts/repeat", weekly)
                        .status());
    }

    @Test
    void theScoreSheetSumsWhatWasReleasedByBundles() {
        long one = set(wanted("One", in(2)));
        long two = set(wanted("Two", in(2)));
        long project = set(wanted("=Project", in(2)));
        for (long prompt : List.of(one, two, project)) handIn(prompt, "For " + prompt);
        mark(one, 6, 3);
        mark(two, 0, 0);
        mark(project, 6, 0);
        release(one);
        release(two);
        String at = "/api/classes/" + of.classId() + "/bundles";
        String seen = of.lead().get(at).body().get("seen").asString();
        Map<String, Object> bundles = Map.of(
                "seen",
                seen,
                "bundles",
                List.of(bundle("Logs", 60, 1, List.of(one, two)), bundle("Project", 40, 0, List.of(project))));
        assertEquals(200, of.lead().put(at, bundles).status());
        assertEquals("bundles-changed", of.second().put(at, bundles).code());
        JsonNode sheet =
                of.lead().get("/api/classes/" + of.classId() + "/score-sheet").body();
        JsonNode line = sheet.get("students").get(1);
        assertEquals("Wren Castellane", line.get("name").asString());
        assertEquals("100.0", line.get("total").asString(), "the better log alone: the project is not released");
        assertTrue(line.get("cells").get(0).get("counts").asBoolean());
        assertFalse(line.get("cells").get(1).get("counts").asBoolean());
        assertFalse(line.get("percents").get(1).has("value"));
        release(project);
        assertEquals(
                "86.7",
                of.lead()
                        .get("/api/classes/" + of.classId() + "/score-sheet")
                        .body()
                        .get("students")
                        .get(1)
                        .get("total")
                        .asString(),
                "60 × 1 + 40 × ⅔");
        // Pia came to the class after the day of a prompt: what she could not do counts nothing for her, not 0.
        change(one, wanted("One", in(-1)), "Another day.");
        JsonNode pia = of.lead()
                .get("/api/classes/" + of.classId() + "/score-sheet")
                .body()
                .get("students")
                .get(0);
        assertEquals("MISSING", pia.get("cells").get(0).get("state").asString());
        assertFalse(pia.has("total"));
        String csv = of.lead()
                .get("/api/classes/" + of.classId() + "/score-sheet.csv")
                .text();
        assertTrue(csv.contains("'=Project"), csv);
        assertTrue(csv.contains("Wren Castellane"), csv);
        String byCriterion = of.lead()
                .get("/api/classes/" + of.classId() + "/score-sheet-by-criterion.csv")
                .text();
        assertEquals(7, byCriterion.strip().lines().count(), byCriterion);
        for (Person who : List.of(of.first(), of.other(), of.guest(), of.moderator()))
            assertEquals(
                    403,
                    who.get("/api/classes/" + of.classId() + "/score-sheet").status());
    }

    @Test
    void aBundleTakesNoPromptOfAnotherClass() {
        Made elsewhere = school.make(port);
        long theirs = elsewhere
                .lead()
                .post("/api/classes/" + elsewhere.classId() + "/prompts", wanted("Theirs", in(2)))
                .body()
                .get("id")
                .asLong();
        String at = "/api/classes/" + of.classId() + "/bundles";
        String seen = of.lead().get(at).body().get("seen").asString();
        assertEquals(
                404,
                of.lead()
                        .put(at, Map.of("seen", seen, "bundles", List.of(bundle("Logs", 60, 1, List.of(theirs)))))
                        .status());
        assertEquals(
                "bundle-weight",
                of.lead()
                        .put(at, Map.of("seen", seen, "bundles", List.of(bundle("Logs", 0, 1, List.of()))))
                        .code());
        Map<String, Object> wanted = wanted("Log", in(2));
        wanted.put("bundleId", 123_456);
        assertEquals(
                404,
                of.lead()
                        .post("/api/classes/" + of.classId() + "/prompts", wanted)
                        .status());
    }

    private static Map<String, Object> bundle(String name, int weight, int best, List<Long> prompts) {
        return Map.of("name", name, "weight", weight, "best", best, "never", "ZERO", "prompts", prompts);
    }

    /** From here on: what comes later in the term changes too, each at its own time and under its own title. */
    @Test
    void aChangeIsTakenOverByThoseThatFollow() {
        LocalDateTime due = in(2).withSecond(0).withNano(0);
        Map<String, Object> weekly = wanted("Log {week}", due);
        assertEquals(
                200,
                of.lead()
                        .post("/api/classes/" + of.classId() + "/prompts/repeat", weekly)
                        .status());
        List<Long> ids = jdbc.sql("select id from prompt where class_id = :id order by due_at")
                .param("id", of.classId())
                .query(Long.class)
                .list();
        assertTrue(ids.size() > 3);
        JsonNode second =
                of.lead().get("/api/prompts/" + ids.get(1) + "/editable").body();
        assertEquals(ids.size() - 2, second.get("following").asInt());
        Map<String, Object> changed =
                new HashMap<>(wanted("Another name", due.plusWeeks(1).plusHours(3)));
        changed.put("instructions", "Count the bees.");
        Map<String, Object> body = new HashMap<>();
        body.put("rev", second.get("rev").asInt());
        body.put("prompt", changed);
        body.put("following", true);
        assertEquals(200, of.lead().put("/api/prompts/" + ids.get(1), body).status());
        JsonNode first =
                of.lead().get("/api/prompts/" + ids.get(0) + "/editable").body().get("prompt");
        assertNotEquals("Count the bees.", first.get("instructions").asString());
        JsonNode third =
                of.lead().get("/api/prompts/" + ids.get(2) + "/editable").body().get("prompt");
        assertEquals("Count the bees.", third.get("instructions").asString());
        assertTrue(third.get("title").asString().startsWith("Log "), "each keeps its title");
        assertEquals(
                due.plusWeeks(2).plusHours(3),
                LocalDateTime.parse(third.get("due").asString()));
        assertEquals(
                "prompt-changed",
                of.lead().put("/api/prompts/" + ids.get(1), body).code());
    }
}
