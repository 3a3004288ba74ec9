package org.vastporch.e2e;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * Kills the demo school with -9 while students write and a teacher approves and marks: every act that was acknowledged
 * is there afterwards.
 */
class KillTest {

    private static final int ENOUGH = 200;
    private static final List<String> STUDENTS = List.of("wren.c", "tunde.a", "pia.a");
    private static final String MARKED = "/api/prompts/6/marking/11";

    /** How far a post came; each step was acknowledged, so were all before it. */
    private enum Step {
        BEGUN,
        SAVED,
        HANDED_IN,
        APPROVED,
        COMMENTED,
        SHOWN
    }

    private record Post(long id, String author, String words) {}

    private final Map<Post, Step> posts = new ConcurrentHashMap<>();
    private final AtomicInteger marks = new AtomicInteger(-1);
    private final ConcurrentLinkedQueue<String> refused = new ConcurrentLinkedQueue<>();
    private final CountDownLatch enough = new CountDownLatch(ENOUGH);

    private interface Acts {
        void go() throws IOException, InterruptedException;
    }

    @Test
    void whatWasAcknowledgedSurvives() throws Exception {
        try (School school = new School("kill")) {
            String address = school.address();
            List<Thread> writers = new ArrayList<>();
            for (String student : STUDENTS) writers.add(new Thread(() -> untilKilled(() -> write(address, student))));
            writers.add(new Thread(() -> untilKilled(() -> mark(address))));
            writers.forEach(Thread::start);
            boolean wroteEnough = enough.await(60, TimeUnit.SECONDS);
            school.kill();
            for (Thread writer : writers) writer.join();
            assertTrue(wroteEnough, () -> "Written until then: " + posts + ", refused: " + refused);

            school.start();
            assertEquals(List.of(), lost(address), "of " + posts.size() + " posts");
            String remark = new Visitor(address, "quill", "porch-demo")
                    .get(MARKED)
                    .get("given")
                    .get("marks")
                    .get(0)
                    .get("remark")
                    .asString();
            assertTrue(Integer.parseInt(remark) >= marks.get(), "Acknowledged was " + marks + ", kept is " + remark);
        }
    }

    /**
     * Takes one post after the other through the day: begun, saved, handed in, approved, commented, the comment shown.
     */
    private void write(String address, String author) throws IOException, InterruptedException {
        Visitor student = new Visitor(address, author, "porch-demo");
        Visitor classmate = new Visitor(address, "odalys.b", "porch-demo");
        Visitor teacher = new Visitor(address, "quill", "porch-demo");
        long blog = 0;
        for (JsonNode mine : student.get("/api/classes/1/blogs/mine"))
            if (mine.get("kind").asString().equals("ONE_EACH"))
                blog = mine.get("id").asLong();
        for (int i = 0; ; i++) {
            Post post = new Post(
                    student.call("POST", "/api/blogs/" + blog + "/posts", "{}")
                            .get("id")
                            .asLong(),
                    author,
                    "kept by " + author + " as number " + i);
            reached(post, Step.BEGUN);
            String path = "/api/posts/" + post.id();
            int rev = student.call(
                            "PUT",
                            path + "/draft",
                            "{\"rev\":1,\"title\":\"Beans\",\"html\":\"<p>" + post.words()
                                    + "</p>\",\"tags\":[],\"audience\":\"MY_CLASS\"}")
                    .get("rev")
                    .asInt();
            reached(post, Step.SAVED);
            student.call("POST", path + "/hand-in", "{\"rev\":" + rev + "}");
            reached(post, Step.HANDED_IN);
            approve(teacher, "post", post.id());
            reached(post, Step.APPROVED);
            long comment = classmate
                    .call("POST", path + "/comments", "{\"text\":\"" + post.words() + "\"}")
                    .get("id")
                    .asLong();
            reached(post, Step.COMMENTED);
            approve(teacher, "comment", comment);
            reached(post, Step.SHOWN);
        }
    }

    /** Decides on what waits; what did not need to wait is there already. */
    private static void approve(Visitor teacher, String subject, long id) throws IOException, InterruptedException {
        for (JsonNode item : teacher.get("/api/pile").get("items"))
            if (item.get("id").asLong() == id && item.get("subject").asString().equals(subject))
                teacher.call(
                        "POST",
                        "/api/pile/decisions",
                        "{\"step\":\"APPROVE\",\"note\":\"\",\"items\":[{\"subject\":\"" + subject + "\",\"id\":" + id
                                + ",\"version\":" + item.get("version") + ",\"rev\":" + item.get("rev") + "}]}");
    }

    private void mark(String address) throws IOException, InterruptedException {
        Visitor teacher = new Visitor(address, "fennimore", "porch-demo");
        for (int i = 0; ; i++) {
            JsonNode seen = teacher.get(MARKED).get("given").get("seen");
            teacher.call(
                    "PUT",
                    MARKED + "/criteria/c1",
                    "{\"seen\":" + seen + ",\"points\":" + 2 * (i % 4) + ",\"remark\":\"" + i + "\"}");
            marks.set(i);
            enough.countDown();
        }
    }

    private void reached(Post post, Step step) {
        posts.put(post, step);
        enough.countDown();
    }

    private void untilKilled(Acts acts) {
        try {
            acts.go();
        } catch (IOException e) {
            // The server was killed, as it should be; if it was not, this says why too little was written.
            refused.add(String.valueOf(e.getMessage()));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** What had been acknowledged and is not there. */
    private List<String> lost(String address) throws IOException, InterruptedException {
        Visitor teacher = new Visitor(address, "quill", "porch-demo");
        Visitor reader = new Visitor(address, "ilka.d", "porch-demo");
        Map<String, Visitor> authors = new HashMap<>();
        for (String student : STUDENTS) authors.put(student, new Visitor(address, student, "porch-demo"));
        List<String> lost = new ArrayList<>();
        for (Map.Entry<Post, Step> each : posts.entrySet()) {
            Post post = each.getKey();
            Step step = each.getValue();
            String path = "/api/posts/" + post.id();
            JsonNode kept = authors.get(post.author()).get(path);
            if (step.compareTo(Step.SAVED) >= 0 && !kept.get("html").asString().contains(post.words()))
                lost.add("the text of " + post);
            if (step.compareTo(Step.HANDED_IN) >= 0
                    && kept.get("state").asString().equals("DRAFT")) lost.add("the handing in of " + post);
            if (step.compareTo(Step.APPROVED) >= 0
                    && !reader.get(path).get("html").asString().contains(post.words()))
                lost.add("the approval of " + post);
            if (step.compareTo(Step.COMMENTED) >= 0
                    && !teacher.get(path + "/comments").toString().contains(post.words()))
                lost.add("the comment on " + post);
            if (step.compareTo(Step.SHOWN) >= 0
                    && !reader.get(path + "/comments").toString().contains(post.words()))
                lost.add("the approval of the comment on " + post);
        }
        return lost;
    }
}
