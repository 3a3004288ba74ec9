package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastporch.core.access.Role;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Feedback that is spoken or filmed. */
@ServerTest
class RecordingsTest extends Assessing {

    private long prompt;

    @BeforeEach
    void aPaperIsMarked() {
        prompt = set(open("Slugs", in(3)));
        handIn(prompt, "Slugs of the north side");
        mark(prompt, 4, 3);
    }

    private Answer say(Person who, String summary) {
        return who.upload(at(prompt) + "/recordings?summary=" + summary, "said.mp3", FilesTest.sound(3_000));
    }

    private int takeBack() {
        return of.lead()
                .post(at(prompt) + "/take-back", Map.of("seen", school.seen(of.lead(), prompt, of.first().id)))
                .status();
    }

    @Test
    void itsStudentHearsItWhileTheMarksAreShown() {
        JsonNode said = say(of.lead(), "Measure-it-twice").body().get(0);
        String address = said.get("address").asString();
        assertEquals("SOUND", said.get("kind").asString());
        assertEquals(1, paper(prompt).get("recordings").size());
        assertEquals(200, of.second().get(address).status());
        assertEquals(404, of.first().get(address).status(), "not released yet");
        release(prompt);
        assertEquals(200, of.first().get(address).status());
        assertEquals(206, of.first().get(address, "Range", "bytes=0-99").status(), "a player can jump");
        JsonNode heard = feedback().get(0).get("recordings").get(0);
        assertEquals("Measure-it-twice", heard.get("summary").asString());
        for (Person who : List.of(
                of.other(),
                of.guest(),
                of.moderator(),
                school.stranger(port),
                school.make(port).lead())) assertTrue(who.get(address).status() >= 401, () -> who.id + " hears it");
        assertEquals(200, takeBack());
        assertEquals(404, of.first().get(address).status(), "taken back");
    }

    @Test
    void whoMadeItTakesItAwayAndATeacherAnAssistants() {
        Person assistant = school.helper(port, of.classId(), Role.ASSISTANT, "Tremaine");
        long own = say(of.lead(), "").body().get(0).get("id").asLong();
        long theirs = say(assistant, "").body().get(1).get("id").asLong();
        for (Person who : List.of(assistant, of.first(), school.make(port).lead()))
            assertTrue(who.call("DELETE", "/api/recordings/" + own, null).status() >= 403, () -> who.id + " may");
        assertEquals(
                200, of.lead().call("DELETE", "/api/recordings/" + theirs, null).status());
        assertEquals(
                200, of.lead().call("DELETE", "/api/recordings/" + own, null).status());
        assertEquals(
                404, of.lead().call("DELETE", "/api/recordings/" + own, null).status());
        assertEquals(0, paper(prompt).get("recordings").size());
    }

    @Test
    void whatIsSentAgainIsThereOnce() {
        String to = at(prompt) + "/recordings?summary=Twice&key=4f1c";
        for (int i = 0; i < 3; i++)
            assertEquals(
                    1,
                    of.lead()
                            .upload(to, "said.mp3", FilesTest.sound(3_000))
                            .body()
                            .size());
        assertEquals(2, say(of.lead(), "Other").body().size());
        assertEquals(
                "key-too-long",
                of.lead()
                        .upload(at(prompt) + "/recordings?key=" + "x".repeat(41), "said.mp3", FilesTest.sound(3_000))
                        .code());
    }

    @Test
    void whatItSaysIsPutInOtherWordsByWhoMadeIt() {
        Person assistant = school.helper(port, of.classId(), Role.ASSISTANT, "Tremaine");
        long id = say(of.lead(), "Count").body().get(0).get("id").asLong();
        String at = "/api/recordings/" + id;
        assertEquals(
                200,
                of.lead()
                        .put(at, Map.of("was", "Count", "summary", " Count them on two days. "))
                        .status());
        assertEquals(
                "Count them on two days.",
                paper(prompt).at("/recordings/0/summary").asString());
        assertEquals(
                "summary-changed",
                of.lead().put(at, Map.of("was", "Count", "summary", "Late.")).code());
        Map<String, String> other = Map.of("was", "Count them on two days.", "summary", "No.");
        assertEquals(403, assistant.put(at, other).status());
        assertEquals(403, of.first().put(at, other).status());
        assertEquals(
                "summary-too-long",
                of.lead()
                        .put(at, Map.of("was", "Count them on two days.", "summary", "x".repeat(2_001)))
                        .code());
        assertEquals(
                "Count them on two days.",
                paper(prompt).at("/recordings/0/summary").asString());
    }

    @Test
    void whatIsNoRecordingIsRefusedInWords() {
        assertEquals(
                "file-not-taken",
                of.lead()
                        .upload(at(prompt) + "/recordings", "plan.pdf", "%PDF-1.7 x".getBytes(StandardCharsets.UTF_8))
                        .code());
        assertEquals("summary-too-long", say(of.lead(), "x".repeat(2_001)).code());
        assertEquals(403, say(of.first(), "").status());
        for (int i = 0; i < 5; i++) assertEquals(200, say(of.lead(), "").status());
        assertEquals("too-many-recordings", say(of.lead(), "").code());
        long empty = set(open("Roots", in(3)));
        assertEquals(
                "nothing-handed-in",
                of.lead()
                        .upload(at(empty) + "/recordings", "said.mp3", FilesTest.sound(2_000))
                        .code());
    }

    @Test
    void whatWasLetOffIsHeardNoMore() {
        String address = say(of.lead(), "").body().get(0).get("address").asString();
        release(prompt);
        of.lead()
                .put("/api/prompts/" + prompt + "/allowances/" + of.first().id, Map.of("letOff", true, "again", false));
        assertEquals(404, of.first().get(address).status());
    }
}
