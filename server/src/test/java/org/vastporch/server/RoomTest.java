package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.config.ScheduledTaskHolder;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;

/**
 * How much room pictures and files take in a class: who sees and sets it, what happens when it is full, and what gives
 * it back.
 */
@ServerTest
class RoomTest {

    @Autowired
    School school;

    @Autowired
    JdbcClient jdbc;

    @Autowired
    List<ScheduledTaskHolder> tasks;

    @LocalServerPort
    int port;

    Made of;
    long post;

    @BeforeEach
    void makeDraft() {
        of = school.make(port);
        post = of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
    }

    private String path() {
        return "/api/classes/" + of.classId() + "/room";
    }

    private Answer set(Person who, int student, int inAll) {
        return who.put(
                path(),
                Map.of(
                        "student",
                        student,
                        "inAll",
                        inAll,
                        "rev",
                        of.lead().get(path()).body().get("rev").asInt()));
    }

    private Answer file(String name, int bytes) {
        return of.first().upload("/api/posts/" + post + "/files", name, words(name, bytes));
    }

    private static byte[] words(String begins, int bytes) {
        return (begins + "a".repeat(bytes - begins.length())).getBytes(StandardCharsets.US_ASCII);
    }

    @Test
    void aStudentsRoomIsFullAtItsEndAndStaffGiveMore() {
        assertEquals(200, set(of.lead(), 1, 100).status());
        assertEquals(200, file("a.txt", 700_000).status());
        Answer full = file("b.txt", 400_000);
        assertEquals("room-full", full.code());
        assertEquals(
                "Your pictures and files take all of the 1 megabytes that you have in this class. Ask"
                        + " your teacher for more room.",
                full.body().get("detail").asString());
        assertEquals(1, of.first().get("/api/posts/" + post + "/files").body().size());
        assertEquals(200, file("c.txt", 300_000).status(), "what still fits is taken");
        assertEquals(200, set(of.second(), 2, 100).status());
        assertEquals(200, file("d.txt", 400_000).status());
    }

    @Test
    void theClassHasOneRoomForAll() {
        assertEquals(200, set(of.lead(), 50, 1).status());
        assertEquals(200, file("a.txt", 700_000).status());
        assertTrue(file("b.txt", 400_000).text().contains("of this class take all of its 1 megabytes"));
        assertEquals(
                "room-full",
                of.lead()
                        .upload("/api/posts/" + post + "/files", "c.txt", words("c.txt", 400_000))
                        .code(),
                "staff are bound by it, too");
    }

    @Test
    void itIsForStaffToSeeAndToSet() {
        file("a.txt", 700_000);
        of.first().upload("/api/posts/" + post + "/pictures", "leaf.png", CanarySchool.png(5));
        Answer seen = of.second().get(path());
        assertEquals(
                "Wren Castellane", seen.body().get("most").get(0).get("name").asString());
        assertTrue(seen.body().get("used").asLong() > 700_000, "pictures count with their small ones");
        for (Person one : List.of(of.first(), of.moderator(), of.guest())) {
            assertEquals(403, one.get(path()).status());
            assertEquals(
                    403,
                    one.put(path(), Map.of("student", 9, "inAll", 9, "rev", 1)).status());
        }
        assertEquals(
                "class-changed",
                of.lead()
                        .put(path(), Map.of("student", 9, "inAll", 9, "rev", 77))
                        .code());
        assertEquals("room-range", set(of.lead(), 0, 9).code());
        assertEquals("inAll", set(of.lead(), 9, 0).body().get("field").asString());
    }

    /**
     * A picture that no version of its post shows, one of a dropped draft, a header that was replaced: after its time
     * its room is free again.
     */
    @Test
    void whatNothingShowsGivesItsRoomBack() {
        String shown = picture(6);
        String cut = picture(7);
        String young = picture(8);
        of.first()
                .put(
                        "/api/posts/" + post + "/draft",
                        Map.of(
                                "rev",
                                1,
                                "title",
                                "One",
                                "html",
                                "<figure><img src=\"" + shown + "\" alt=\"\"></figure>",
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS"));
        String header = "/api/blogs/" + of.blogOfFirst() + "/header";
        of.first().upload(header, "a.png", CanarySchool.png(9));
        of.first().upload(header, "b.png", CanarySchool.png(10));
        long before = used();
        for (String old : List.of(shown, cut))
            jdbc.sql("update picture set created_at = :then where id = :id")
                    .param("then", Instant.now().minusSeconds(40L * 86_400).atOffset(ZoneOffset.UTC))
                    .param("id", old.substring(7))
                    .update();
        jdbc.sql("update medium set added_at = :then")
                .param("then", Instant.now().minusSeconds(2L * 86_400).atOffset(ZoneOffset.UTC))
                .update();
        jdbc.sql("update blog_header set changed_at = :then")
                .param("then", Instant.now().minusSeconds(40L * 86_400).atOffset(ZoneOffset.UTC))
                .update();
        int bytes = media();
        clear();
        assertEquals(200, of.first().get(shown).status());
        assertEquals(404, of.first().get(cut).status());
        assertEquals(200, of.first().get(young).status(), "somebody may still be about to put it in");
        assertTrue(used() < before);
        assertTrue(media() < bytes, "the bytes are gone, too");
        assertEquals(
                200,
                of.lead()
                        .get("/api/classes/" + of.classId() + "/blogs/at/log-of-wren-castellane")
                        .status());
    }

    private String picture(int seed) {
        return of.first()
                .upload("/api/posts/" + post + "/pictures", "leaf.png", CanarySchool.png(seed))
                .body()
                .get("address")
                .asString();
    }

    private long used() {
        return of.lead().get(path()).body().get("used").asLong();
    }

    private int media() {
        return jdbc.sql("select count(*) from medium").query(Integer.class).single();
    }

    /** Runs the clearing that comes every hour. */
    private void clear() {
        tasks.stream()
                .flatMap(holder -> holder.getScheduledTasks().stream())
                .filter(task -> task.toString().contains("MediaJobs"))
                .findFirst()
                .orElseThrow()
                .getTask()
                .getRunnable()
                .run();
    }

    /** Strangers send no files, whatever address they send them to. */
    @Test
    void filesOfStrangersAreNotEvenRead() {
        Person stranger = school.stranger(port);
        assertEquals(
                "sign-in-first",
                stranger.upload("/api/posts/" + post + "/files", "a.txt", new byte[3_000_000])
                        .code());
        assertEquals(
                "sign-in-first",
                stranger.upload("/nowhere", "a.txt", new byte[10]).code());
    }
}
