package org.vastporch.server;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Two classmates in the canary school, who are nobody in its table, and S read each other's papers. */
final class CanaryPeers {

    private final CanarySchool school;
    private long prompt;
    private long shared;
    private Person one;
    private Person other;

    CanaryPeers(CanarySchool school) {
        this.school = school;
    }

    /** The papers, given out: what everybody in the class may know. */
    void giveOut(long own, long shared) {
        this.shared = shared;
        Map<String, Object> wanted = school.wanted(
                "Read by classmates",
                false,
                LocalDateTime.now().plusDays(5),
                LocalDateTime.now().minusDays(1));
        wanted.put("reviews", Map.of("self", "NOT_ASKED", "selfShare", 0, "peers", Assessing.peers(2)));
        prompt = school.who('L')
                .post("/api/classes/" + school.classId + "/prompts", wanted)
                .body()
                .get("id")
                .asLong();
        school.thing("prompt", prompt);
        school.thing("post", school.published(own, Map.of("promptId", prompt), school.token("for-class"), "MY_CLASS"));
        one = school.student("Reed", "Nettleton", "Bed 2");
        other = school.student("Ferris", "Okonedo", "Bed 2");
        for (Person author : List.of(one, other)) school.thing("post", paper(author));
        JsonNode plan = school.who('L')
                .post(round() + "/plan", Map.of("seed", 1, "kept", List.of()))
                .body();
        school.who('L').post(round(), Map.of("reviews", plan.get("pairs")));
        for (Person reader : List.of(one, other))
            for (Person author : List.of(school.who('S'), one, other))
                if (author != reader) school.thing("peer-review", review(reader, author));
        school.thing("answer", 0);
    }

    private long paper(Person author) {
        long id = author.post("/api/blogs/" + shared + "/posts", Map.of("promptId", prompt))
                .body()
                .get("id")
                .asLong();
        school.saveAs(author, id, "Leaves", "Eleven of them.", "MY_CLASS");
        handIn(author, id);
        return id;
    }

    private void handIn(Person author, long id) {
        int rev = author.get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        author.post("/api/posts/" + id + "/hand-in", Map.of("rev", rev));
        school.decide('L', "post", id, "APPROVE", "");
    }

    private String round() {
        return "/api/prompts/" + prompt + "/peer-round";
    }

    private long review(Person reader, Person author) {
        for (JsonNode line : school.who('L').get(round()).body().get("lines"))
            if (line.get("reviewerId").asLong() == reader.id
                    && line.get("authorId").asLong() == author.id)
                return line.get("id").asLong();
        throw new AssertionError(reader.id + " does not read the paper of " + author.id);
    }

    /** What is said of the paper of S: read by its author, still waiting, and still being written. */
    void say() {
        long up = review(one, school.who('S'));
        give(one, up, school.token("peer-review"));
        school.decide('L', "review", up, "APPROVE", "");
        school.who('S')
                .put(
                        "/api/peer-reviews/" + up + "/helped",
                        Map.of("helped", true, "why", school.token("review-helped")));
        give(other, review(other, school.who('S')), school.token("waiting-review"));
        word(one, review(one, other), school.token("unsent-review"));
    }

    /** One paper to warm up on that S is to judge, and one that is not marked yet. */
    void warmUp() {
        long ready = warmUp(0, school.token("warm-up"));
        String at = "/api/warm-ups/" + ready + "/given/";
        school.who('L').put(at + "criteria/c1", Map.of("rev", 0, "points", 6, "remark", ""));
        school.who('L').put(at + "word", Map.of("rev", 1, "word", school.token("warm-up-word")));
        warmUp(1, school.token("warm-up-unready"));
        given(2, "warm-up-given");
        Map<String, Object> no = Map.of("given", false, "named", false);
        one.put("/api/examples/" + given(3, "warm-up-taken-back") + "/leave", no);
    }

    /** One that a classmate gives, who shows it to nobody else of the class; and the question to them. */
    private long given(int before, String kind) {
        long post = one.post("/api/blogs/" + shared + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        school.thing("post", post);
        school.saveAs(one, post, school.token(kind), school.token(kind), "STAFF_AND_ME");
        handIn(one, post);
        long paper = school.who('L')
                .post("/api/prompts/" + prompt + "/warm-ups/asked", Map.of("postId", post))
                .body()
                .at("/papers/" + before + "/id")
                .asLong();
        school.thing("warm-up", paper);
        long question = one.get("/api/examples").body().at("/0/id").asLong();
        school.thing("example", question);
        one.put("/api/examples/" + question + "/leave", Map.of("given", true, "named", true));
        school.who('L')
                .put("/api/warm-ups/" + paper + "/given/criteria/c1", Map.of("rev", 0, "points", 6, "remark", ""));
        return question;
    }

    private long warmUp(int before, String words) {
        long id = school.who('L')
                .post(
                        "/api/prompts/" + prompt + "/warm-ups",
                        Map.of("rev", 0, "title", words, "html", "<p>" + words + "</p>"))
                .body()
                .at("/papers/" + before + "/id")
                .asLong();
        school.thing("warm-up", id);
        return id;
    }

    private static void give(Person who, long id, String words) {
        who.put("/api/peer-reviews/" + id + "/criteria/c1", Map.of("rev", rev(who, id), "points", 6, "remark", words));
        who.put("/api/peer-reviews/" + id + "/answers/0", Map.of("rev", rev(who, id), "answer", words));
        word(who, id, words);
        who.post("/api/peer-reviews/" + id + "/sent", Map.of("rev", rev(who, id)));
    }

    private static void word(Person who, long id, String words) {
        who.put("/api/peer-reviews/" + id + "/word", Map.of("rev", rev(who, id), "word", words));
    }

    private static int rev(Person who, long id) {
        return who.get("/api/peer-reviews/" + id).body().at("/own/rev").asInt();
    }
}
