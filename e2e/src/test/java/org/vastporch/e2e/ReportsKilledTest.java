package org.vastporch.e2e;

import static org.junit.jupiter.api.Assertions.*;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.vastporch.standins.PostOffice;
import tools.jackson.databind.JsonNode;

/**
 * Kills the school with -9 while it makes and mails the reports of a class: when it is up again the run goes on by
 * itself, each is filed once, and a mail that is sent twice is known again by its Message-ID.
 */
class ReportsKilledTest {

    private static final int KILLS = 4;
    private static final int LETTERS = 20;

    @Test
    void eachIsToldOnce() throws Exception {
        try (PostOffice post = new PostOffice(0);
                School school = new School("reports-killed", "-Dvastporch.demo.post=" + post.smtpPort())) {
            String week = "/api/classes/1/weeks/" + LocalDate.now() + "/reports";
            Visitor teacher = new Visitor(school.address(), "quill", "porch-demo");
            JsonNode before = teacher.get(week);
            String subject = "Your report of " + before.get("week").asString() + ", Plot to Plate";
            List<String> wishes = new ArrayList<>();
            for (JsonNode line : before.get("lines"))
                wishes.add("{\"student\":" + line.get("studentId") + ",\"note\":\"Number " + line.get("studentId")
                        + "\"}");
            teacher.call(
                    "POST",
                    "/api/classes/1/weeks/" + before.get("monday").asString() + "/reports",
                    "{\"template\":\"letter\",\"reports\":[" + String.join(",", wishes) + "]}");
            // At once, and then right after some letter came in: before it is noted that it went, or just after that.
            int[] moments = new Random().ints(KILLS - 1, 1, LETTERS).sorted().toArray();
            for (int i = 0; i < KILLS; i++) {
                int moment = i == 0 ? 0 : moments[i - 1];
                while (about(post, subject).size() < moment) Thread.onSpinWait();
                school.kill();
                school.start();
            }
            JsonNode now = ended(new Visitor(school.address(), "quill", "porch-demo"), week);
            Set<Long> ids = new HashSet<>();
            int mailed = 0;
            for (JsonNode line : now.get("lines")) {
                JsonNode told = line.get("told");
                assertEquals("Number " + line.get("studentId"), told.get("note").asString());
                assertTrue(ids.add(told.get("id").asLong()));
                assertEquals(line.get("hasAddress").asBoolean(), told.has("mail"));
                if (told.has("mail")) mailed++;
            }
            assertEquals(wishes.size(), ids.size());
            for (JsonNode line : now.get("run").get("lines"))
                assertTrue(
                        Set.of("MAILED", "FILED").contains(line.get("outcome").asString()), line.toString());
            Map<String, Set<String>> byReader = new TreeMap<>();
            for (PostOffice.Letter letter : about(post, subject))
                byReader.computeIfAbsent(letter.to(), to -> new HashSet<>()).add(letter.id());
            assertEquals(mailed, byReader.size(), byReader.toString());
            byReader.forEach((to, known) -> assertEquals(1, known.size(), to));
        }
    }

    private static List<PostOffice.Letter> about(PostOffice post, String subject) {
        return post.letters().stream()
                .filter(letter -> letter.subject().equals(subject))
                .toList();
    }

    /** The week once its run has ended and all mails have gone. */
    private static JsonNode ended(Visitor teacher, String week) throws Exception {
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (true) {
            JsonNode now = teacher.get(week);
            boolean waits = now.get("lines")
                    .valueStream()
                    .anyMatch(l -> l.path("told").path("mail").asString("sent").equals("waits"));
            if (now.get("run").has("ended") && !waits) return now;
            assertTrue(System.nanoTime() < until, now::toString);
        }
    }
}
