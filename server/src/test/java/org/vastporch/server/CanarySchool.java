package org.vastporch.server;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.people.PersonName.Shown;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.blogs.BlogSetup;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.reports.ReportRunService;
import tools.jackson.databind.JsonNode;

/**
 * A school in which every secret carries a token: a class with every role, every kind of blog, texts in every state,
 * earlier versions, margins, threads of the staff, marks, pen names, files in drafts; a class of somebody else; and
 * what everybody may know. It is made as people make it, over HTTP.
 */
@Component
class CanarySchool {

    static final String ROLES = "L2AMSGCVEXYK-";

    private final School school;
    private final PeopleService people;
    private final ClassService classes;
    private final BlogService blogs;
    private final AccessService access;
    private final ReportRunService runs;
    private final JdbcClient jdbc;

    /**
     * What stands where, by the name of the kind of thing that an address asks for; in the order in which it was made.
     */
    final Map<String, List<Object>> things = new LinkedHashMap<>();

    final Map<Character, Person> roles = new LinkedHashMap<>();
    final List<Canary> canaries = new ArrayList<>();
    /** Addresses of files; whoever is served one has seen its secret. */
    final Map<String, Canary> files = new LinkedHashMap<>();

    long classId;
    long otherClass;
    /** Somebody in both classes, whose account is in the care of neither teacher. */
    long inBoth;

    private long own;
    private long journal;
    private long shared;
    private long groupBlog;
    private long closed;
    private Map<String, Object> unseen = Map.of();
    private CanaryPeers peers;
    private int port;

    CanarySchool(
            School school,
            PeopleService people,
            ClassService classes,
            BlogService blogs,
            AccessService access,
            ReportRunService runs,
            JdbcClient jdbc) {
        this.school = school;
        this.people = people;
        this.classes = classes;
        this.blogs = blogs;
        this.access = access;
        this.runs = runs;
        this.jdbc = jdbc;
    }

    /** A word that stands nowhere else; letters alone, so that no finder of numbers or links minds it. */
    String token(String kind) {
        int n = canaries.size();
        String token = "qx" + (char) ('a' + n / 676 % 26) + (char) ('a' + n / 26 % 26) + (char) ('a' + n % 26) + "zk";
        canaries.add(new Canary(kind, token));
        return token;
    }

    void thing(String kind, Object id) {
        things.computeIfAbsent(kind, k -> new ArrayList<>()).add(id);
    }

    Person who(char role) {
        return roles.get(role);
    }

    /** Makes the school with what everybody in it may know and nothing else. */
    void open(int port) {
        this.port = port;
        roles.put('K', account("Keeper", people.addKeeper("hester", new PersonName("Keeper", "Hester"))));
        roles.put('L', staff("Quill", true));
        classId = newClass(who('L'), "Plot to Plate");
        roles.put('2', helper("Fennimore", Role.CO_TEACHER));
        roles.put('A', helper("Tremaine", Role.ASSISTANT));
        roles.put('M', helper("Ardizzone", Role.MODERATOR));
        makeBlogs();
        roles.put('S', student("Wren", "Castellane", "Bed 1"));
        roles.put('G', student("Pia", "Aurelio", "Bed 1"));
        roles.put('C', student("Tunde", "Bello", "Bed 2"));
        roles.put('V', helper("Crake", Role.GUEST));
        roles.put('E', student("Odalys", "Brightwater", "Bed 2"));
        roles.put('X', staff("Halloway", true));
        roles.put('-', school.stranger(port));
        otherClass = newClass(who('X'), "Sound Walks");
        long y = people.addStaff(Viewer.STRANGER, "", new PersonName("Kaczmarek", "Lew"), "", false);
        people.enrol(otherClass, y, Role.STUDENT, "", Shown.OWN_NAME, who('X').id);
        roles.put('Y', account("Lew", y));
        Map<Character, Person> ordered = new LinkedHashMap<>();
        for (char role : ROLES.toCharArray()) ordered.put(role, roles.get(role));
        roles.clear();
        roles.putAll(ordered);
        findBlogs();
        for (long id : List.of(classId, otherClass)) thing("class", id);
        for (long id : List.of(own, journal, shared, groupBlog, closed)) thing("blog", id);
        thing("person", who('S').id);
        thing("person", who('V').id);
        who('L').post("/api/classes/" + classId + "/people/" + who('E').id + "/leaving", Map.of("leaving", "KEEP"));
        common();
    }

    private void common() {
        thing(
                "item",
                who('L').upload("/api/classes/" + classId + "/drawer/pictures?offered=true", "leaf.png", png(2))
                        .body()
                        .get("id")
                        .asString());
        long post = published(own, Map.of(), token("for-class"), "MY_CLASS");
        thing("post", post);
        thing("comment", comment('G', post, token("comment"), "APPROVE"));
        thing("post", published(groupBlog, Map.of(), token("for-group"), "MY_GROUP"));
        long forSchool = published(shared, Map.of(), token("for-school"), "SCHOOL");
        thing("post", forSchool);
        thing("post", published(shared, Map.of(), token("for-anyone"), "ANYONE"));
        thing("post", published(own, Map.of(), token("live-under-waiting"), "MY_CLASS"));
        long answered = published(own, Map.of(), token("answered-by-waiting"), "MY_CLASS");
        thing("post", answered);
        thing("comment", comment('G', answered, token("comment"), "APPROVE"));
        thing("comment", comment('S', answered, "A question about the leaves.", "APPROVE"));
        thing("comment", commentFromElsewhere(forSchool));
        long marked = prompt(
                "Log", false, LocalDateTime.now(ZoneId.of("Europe/London")).minusDays(3));
        long released = prompt(
                "Plan", false, LocalDateTime.now(ZoneId.of("Europe/London")).minusDays(2));
        long first = prompt("First yours", true, LocalDateTime.now().plusDays(4));
        for (long prompt : List.of(marked, released, first)) thing("prompt", prompt);
        unseen = wanted(
                "Unseen steps",
                false,
                LocalDateTime.now().plusDays(20),
                LocalDateTime.now().minusDays(1));
        unseen.remove("rubric");
        unseen.put("example", token("written-example"));
        thing(
                "prompt",
                who('L').post("/api/classes/" + classId + "/prompts", unseen)
                        .body()
                        .get("id")
                        .asLong());
        for (String kind : List.of("asked-example", "given-example")) {
            long example = published(groupBlog, Map.of(), token(kind), "MY_GROUP");
            thing("post", example);
            long id = who('L').post("/api/prompts/" + marked + "/examples", Map.of("postId", example))
                    .body()
                    .get("id")
                    .asLong();
            thing("example", id);
            if (kind.equals("given-example"))
                who('S').put("/api/examples/" + id + "/leave", Map.of("given", true, "named", false));
        }
        for (long prompt : List.of(marked, released))
            thing("post", published(own, Map.of("promptId", prompt), token("for-class"), "MY_CLASS"));
        thing("post", published(own, Map.of("promptId", first), token("answer-first"), "MY_CLASS"));
        for (String self : List.of("ASKED", "FIRST")) thing("prompt", seenByTheirAuthors(self));
        peers = new CanaryPeers(this);
        peers.giveOut(own, shared);
        for (JsonNode head :
                who('L').get("/api/classes/" + classId + "/weeks").body().get("heads"))
            if (head.get("isNow").asBoolean()) thing("monday", head.get("day").asString());
        livePictures();
        answered(asked(marked, "Which week?"), token("answer-for-all"), true);
        thing(
                "private",
                who('L').post(
                                "/api/classes/" + classId + "/private-blogs",
                                Map.of("address", "members.example", "title", token("private-blog")))
                        .body()
                        .get("id")
                        .asLong());
        // A word about a comment on a post that was hidden since.
        long hidden = published(own, Map.of(), token("hidden"), "MY_CLASS");
        long asked = comment('C', hidden, "Which kind?", "APPROVE");
        who('L').post("/api/comments/" + asked + "/words", Map.of("text", "Well asked."));
        decision('L', hidden, "HIDE");
        thing("post", hidden);
        thing("comment", asked);
        thing("post", published(closed, Map.of(), token("closed-blog"), "MY_CLASS"));
        jdbc.sql("update blog set closes_at = :then where id = :id")
                .param("then", Instant.now().minusSeconds(60).atOffset(ZoneOffset.UTC))
                .param("id", closed)
                .update();
        names();
        rules(token("held-word"));
        blogs.create(
                access.viewer(who('X').id),
                otherClass,
                BlogSetup.of(BlogKind.SHARED, "Walks", "", Audience.SCHOOL, Commenters.CLASS));
        thing(
                "blog",
                jdbc.sql("select max(id) from blog where class_id = :id")
                        .param("id", otherClass)
                        .query(Long.class)
                        .single());
        thing(
                "group",
                jdbc.sql("select min(id) from class_group where class_id = :id")
                        .param("id", classId)
                        .query(Long.class)
                        .single());
        thing("criterion", 0);
        thing("version", 1);
        thing("version", 2);
        thing("ref", "b" + own);
        thing(
                "ref",
                jdbc.sql("select 's' || min(id) from blog_set where class_id = :id")
                        .param("id", classId)
                        .query(String.class)
                        .single());
        thing("import", "none");
    }

    private void livePictures() {
        long live = begin(own, Map.of());
        String gone = picture(live, "mended-away-picture", 3);
        String stays = picture(live, "live-picture", 4);
        save(live, "Two", "x</p><figure><img src=\"/media/" + gone + "\" alt=\"\"></figure><p>", "MY_CLASS");
        save(
                live,
                "One",
                token("for-class") + "</p><figure><img src=\"/media/" + stays + "\" alt=\"\"></figure><p>",
                "MY_CLASS");
        handIn(live, null);
        decide('L', "post", live, "APPROVE", "");
        thing("post", live);
    }

    private void names() {
        String pen = token("pen-name");
        long hidden = people.addStaff(
                Viewer.STRANGER,
                "",
                new PersonName(token("real-name"), "Ilka"),
                token("roster-address") + "@post.example",
                false);
        people.enrol(classId, hidden, Role.STUDENT, "Bed 2", Shown.OWN_NAME, who('L').id);
        who('L').put(
                        "/api/classes/" + classId + "/people/" + hidden + "/shown",
                        Map.of("shown", "PEN_NAME", "penName", pen));
        Person behind = account("Ilka", hidden);
        long post = post(behind, shared, "About leaves", "Eleven of them.", "MY_CLASS");
        decide('L', "post", post, "APPROVE", "");
        long asked = people.addStaff(Viewer.STRANGER, "", new PersonName(token("waiting-name"), "Ms"), "", false);
        people.enrol(classId, asked, Role.STUDENT, "", Shown.OWN_NAME, asked);
        jdbc.sql("update membership set name_asked = true where person_id = :id")
                .param("id", asked)
                .update();
        thing("post", post);
        thing("post", post(behind, shared, "By Ilka", "It waits for a moderator.", "MY_CLASS"));
        inBoth = people.addStaff(Viewer.STRANGER, "", new PersonName("Nettle", "Robin"), "", false);
        people.enrol(classId, inBoth, Role.STUDENT, "Bed 2", Shown.OWN_NAME, who('L').id);
        people.enrol(otherClass, inBoth, Role.STUDENT, "", Shown.OWN_NAME, who('X').id);
        thing("person", inBoth);
    }

    /** Somebody with a pen name in the other class comments in this one: known here by pen name and class alone. */
    private long commentFromElsewhere(long post) {
        long hidden = people.addStaff(
                Viewer.STRANGER, "", new PersonName(token("real-name-elsewhere"), "Ottoline"), "", false);
        people.enrol(otherClass, hidden, Role.STUDENT, "", Shown.OWN_NAME, who('X').id);
        jdbc.sql("update membership set shown = 'PEN_NAME', pen_name = :pen where person_id = :id")
                .param("pen", token("pen-name-elsewhere"))
                .param("id", hidden)
                .update();
        roles.put('#', account("Ottoline", hidden));
        long comment = comment('#', post, "We walked there too.", "APPROVE");
        roles.remove('#');
        return comment;
    }

    /**
     * Adds the secrets. What this does is seen by whom the table names, and changes nothing for others. Every second
     * one lies long ago, so that they stand between, before and behind what others may read.
     */
    void addSecrets() {
        long post = newest("post");
        long comment = newest("comment");
        drafts();
        waiting();
        takenDown();
        besides();
        marks();
        files();
        waysIn();
        for (String column : List.of("created_at", "published_at")) {
            jdbc.sql("update post set " + column + " = dateadd(day, -30, " + column
                            + ") where id > :id and mod(id, 2) = 0")
                    .param("id", post)
                    .update();
            jdbc.sql("update comment set " + column + " = dateadd(day, -30, " + column
                            + ") where id > :id and mod(id, 2) = 0")
                    .param("id", comment)
                    .update();
        }
    }

    private long newest(String table) {
        return jdbc.sql("select max(id) from " + table).query(Long.class).single();
    }

    private void drafts() {
        String token = token("draft");
        long draft = begin(own, Map.of());
        save(draft, token("draft"), token, "MY_CLASS");
        thing("post", draft);
        JsonNode note = who('L').post(
                        "/api/posts/" + draft + "/margin", Map.of("quote", token, "nth", 0, "remark", token("margin")))
                .body();
        thing("note", note.get("id").asLong());
        thing("post", published(journal, Map.of(), token("journal"), "STAFF_AND_ME"));
        long later = begin(own, Map.of());
        save(later, token("scheduled"), token("scheduled"), "MY_CLASS");
        handIn(later, LocalDateTime.now(ZoneId.of("Europe/London")).plusDays(2));
        decide('L', "post", later, "APPROVE", "");
        thing("post", later);
        // What was deleted before it was handed in stays an earlier version.
        long edited = begin(own, Map.of());
        save(
                edited,
                "Mine",
                token("version-before")
                        + " and then some more words that stand here for a while, twenty of them at "
                        + "least, so that they are kept when most of them go",
                "MY_CLASS");
        save(edited, "Mine", token("waiting"), "MY_CLASS");
        handIn(edited, null);
        thing("post", edited);
    }

    private void waiting() {
        long waits = begin(own, Map.of());
        save(waits, token("waiting"), token("waiting"), "MY_CLASS");
        String word = token("hand-in-word");
        handIn(waits, null, word);
        // Whoever marks reads it too.
        jdbc.sql("""
                insert into hand_in_word (post_id, word)
                select max(id), :word from post where prompt_id = :prompt and author_id = :author""")
                .param("word", word)
                .param("prompt", things.get("prompt").get(0))
                .param("author", who('S').id)
                .update();
        thing("post", waits);
        long live = postWith("live-under-waiting");
        save(live, token("waiting-version"), token("waiting-version"), "MY_CLASS");
        handIn(live, null);
        long returned = begin(own, Map.of());
        save(returned, token("returned"), token("returned"), "MY_CLASS");
        handIn(returned, null);
        decide('L', "post", returned, "RETURN", token("return-note"));
        thing("post", returned);
    }

    private void takenDown() {
        long hidden = published(own, Map.of(), token("hidden"), "MY_CLASS");
        decision('L', hidden, "HIDE");
        thing("post", hidden);
        long binned = published(own, Map.of(), token("binned"), "MY_CLASS");
        who('S').call("DELETE", "/api/posts/" + binned, null);
        thing("post", binned);
        long reported = published(own, Map.of(), token("reported"), "MY_CLASS");
        who('C').post("/api/posts/" + reported + "/reports", Map.of("reason", token("report-reason")));
        jdbc.sql("update post set state = 'HIDDEN' where id = :id")
                .param("id", reported)
                .update();
        thing("post", reported);
    }

    private void besides() {
        long post = postWith("answered-by-waiting");
        long about = (long) things.get("comment").get(2);
        thing("comment", comment('S', post, token("waiting-comment"), ""));
        long hidden = comment('S', post, token("hidden-comment"), "APPROVE");
        jdbc.sql("update comment set state = 'HIDDEN' where id = :id")
                .param("id", hidden)
                .update();
        thing("comment", hidden);
        who('L').post("/api/comments/" + about + "/words", Map.of("text", token("word-on-comment")));
        who('L').post("/api/posts/" + post + "/words", Map.of("text", token("word-to-author")));
        String words = "/api/classes/" + classId;
        who('L').post(
                        words + "/words/several",
                        Map.of("students", List.of(who('S').id), "text", token("word-to-student")));
        who('S').post(words + "/words", Map.of("text", token("word-of-student")));
        Map<String, Object> toStudent = Map.of("student", who('S').id, "note", token("report-note"));
        String week = words + "/weeks/" + things.get("monday").get(0) + "/reports";
        thing(
                "run",
                who('L').post(week, Map.of("template", "letter", "reports", List.of(toStudent)))
                        .body()
                        .get("id")
                        .asLong());
        runs.makeWhatWaits();
        thing(
                "told",
                jdbc.sql("select max(id) from week_report").query(Long.class).single());
        who('L').post("/api/posts/" + post + "/staff-thread", Map.of("text", token("staff-thread")));
        Object prompt = things.get("prompt").get(0);
        who('L').post("/api/prompts/" + prompt + "/staff-thread", Map.of("text", token("staff-thread")));
        who('L').post(
                        "/api/prompts/" + prompt + "/marking/" + who('S').id + "/staff-thread",
                        Map.of("text", token("staff-thread")));
        jdbc.sql("""
                insert into phrase (person_id, criterion, level, text, uses, used_at)
                values (:person, '', '', :text, 1, current_timestamp)""")
                .param("person", who('L').id)
                .param("text", token("phrase"))
                .update();
        thing("phrase", jdbc.sql("select max(id) from phrase").query(Long.class).single());
        asked(prompt, token("question"));
        answered(asked(prompt, "Which bed?"), token("answer-for-one"), false);
        who('L').post("/api/return-notes", Map.of("text", token("return-bank")));
        thing(
                "bank",
                jdbc.sql("select max(id) from return_note").query(Long.class).single());
    }

    private long postWith(String kind) {
        String token = canaries.stream()
                .filter(c -> c.kind().equals(kind))
                .findFirst()
                .orElseThrow()
                .token();
        return jdbc.sql("select post_id from post_version where title = :title and no = 1")
                .param("title", token)
                .query(Long.class)
                .single();
    }

    /** A picture that waits for a prompt which nobody sees yet. */
    private void unseenDrawer() {
        String id = who('L').upload("/api/classes/" + classId + "/drawer/pictures", "leaf.png", png(5))
                .body()
                .get("id")
                .asString();
        files.put("/media/" + id, new Canary("unseen-drawer-picture", id));
    }

    private void keptRubric(String name) {
        Map<String, Object> wanted = new HashMap<>(Crawl.keptRubric(0));
        wanted.put("name", name);
        thing("rubric", who('L').post("/api/rubrics", wanted).body().get("id").asLong());
    }

    private void marks() {
        mark((long) things.get("prompt").get(0), token("unreleased-mark"), token("unreleased-note"));
        record((long) things.get("prompt").get(0), "unreleased-recording");
        long released = (long) things.get("prompt").get(1);
        mark(released, token("released-mark"), token("released-note"));
        record(released, "released-recording");
        showMarks(released);
        secondReading((long) things.get("prompt").get(4));
        peers.say();
        peers.warmUp();
        ownViews((long) things.get("prompt").get(4), (long) things.get("prompt").get(5));
        who('L').post(
                        "/api/prompts/" + released + "/marking/" + who('S').id + "/words",
                        Map.of("text", token("word-on-marks")));
        unseenSteps(token("hidden-rubric"));
        keptRubric(token("kept-rubric"));
        unseenDrawer();
        String hidden = token("unopened-prompt");
        thing(
                "prompt",
                who('L').post(
                                "/api/classes/" + classId + "/prompts",
                                wanted(
                                        hidden,
                                        false,
                                        LocalDateTime.now().plusDays(20),
                                        LocalDateTime.now().plusDays(9)))
                        .body()
                        .get("id")
                        .asLong());
    }

    /** A prompt whose answers their authors judge too, with an answer. */
    private long seenByTheirAuthors(String self) {
        Map<String, Object> wanted = wanted(
                "Judged by yourself",
                false,
                LocalDateTime.now().plusDays(5),
                LocalDateTime.now().minusDays(1));
        wanted.put("reviews", Map.of("self", self, "selfShare", 0));
        long prompt = who('L').post("/api/classes/" + classId + "/prompts", wanted)
                .body()
                .get("id")
                .asLong();
        thing("post", published(own, Map.of("promptId", prompt), token("for-class"), "MY_CLASS"));
        return prompt;
    }

    /** How an author sees a paper: said, and still being said while the marks wait for it. */
    private void ownViews(long said, long awaited) {
        who('S').put(
                        "/api/prompts/" + said + "/own-view/criteria/c1",
                        Map.of("rev", 0, "points", 6, "remark", token("own-view")));
        who('S').put(
                        "/api/prompts/" + awaited + "/own-view/word",
                        Map.of("rev", 0, "word", token("unfinished-own-view")));
        mark(awaited, token("mark-behind-own-view"), token("mark-behind-own-view"));
        record(awaited, "mark-behind-own-view");
        showMarks(awaited);
    }

    /** An assistant reads a marked paper a second time, and a teacher settles which counts. */
    private void secondReading(long prompt) {
        String at = "/api/prompts/" + prompt + "/second-readings";
        long reader = who('A').id;
        who('L').post(at, Map.of("reader", reader, "which", "ALL", "blind", false));
        String paper = at + "/" + who('S').id;
        who('A').put(paper + "/criteria/c1", Map.of("rev", 0, "points", 0, "remark", token("second-reading")));
        who('L').put(
                        paper + "/by/" + reader + "/settled",
                        Map.of(
                                "seen",
                                school.seen(who('L'), prompt, who('S').id),
                                "rev",
                                1,
                                "takesSecond",
                                false,
                                "reason",
                                token("settled-reason")));
        thing("reader", reader);
    }

    private void showMarks(long prompt) {
        Map<String, Object> paper = Map.of("student", who('S').id, "seen", school.seen(who('L'), prompt, who('S').id));
        who('L').post("/api/prompts/" + prompt + "/marking/release", Map.of("papers", List.of(paper)));
    }

    private void record(long prompt, String kind) {
        JsonNode made = who('L').upload(
                        "/api/prompts/" + prompt + "/marking/" + who('S').id + "/recordings?summary=" + token(kind),
                        "said.mp3",
                        FilesTest.sound(1_000 + kind.length()))
                .body()
                .get(0);
        String address = made.get("address").asString();
        files.put(address, new Canary(kind, address.replace("/media/files/", "")));
        thing("recording", made.get("id").asLong());
    }

    private void mark(long prompt, String remark, String note) {
        String at = "/api/prompts/" + prompt + "/marking/" + who('S').id;
        who('L').put(
                        at + "/criteria/c1",
                        Map.of("seen", school.seen(who('L'), prompt, who('S').id), "points", 6, "remark", remark));
        who('L').put(at + "/word", Map.of("seen", school.seen(who('L'), prompt, who('S').id), "word", remark));
        JsonNode post = who('L').get(at).body().get("posts").get(0);
        thing(
                "paper-note",
                who('L').post(
                                at + "/notes",
                                Map.of(
                                        "post",
                                        post.get("postId"),
                                        "version",
                                        post.get("version"),
                                        "quote",
                                        "leaves",
                                        "nth",
                                        0,
                                        "text",
                                        note))
                        .body()
                        .get("id")
                        .asLong());
    }

    private void files() {
        long draft = begin(own, Map.of());
        file(draft, "draft-file");
        String alone = picture(draft, "draft-picture", 1);
        save(draft, "With files", "x</p><figure><img src=\"/media/" + alone + "\" alt=\"\"></figure><p>", "MY_CLASS");
        thing("post", draft);
        long waits = begin(own, Map.of());
        String waiting = picture(waits, "waiting-picture", 2);
        save(waits, "A picture", "x</p><figure><img src=\"/media/" + waiting + "\" alt=\"\"></figure><p>", "MY_CLASS");
        handIn(waits, null);
        thing("post", waits);
        who('S').upload("/api/blogs/" + own + "/header", "head.png", png(5));
        long header =
                jdbc.sql("select max(id) from blog_header").query(Long.class).single();
        files.put(
                "/media/headers/wanted/" + header, new Canary("header-that-waits", "/media/headers/wanted/" + header));
    }

    private void waysIn() {
        who('L').post(
                        "/api/classes/" + classId + "/invitations",
                        Map.of(
                                "role",
                                "GUEST",
                                "name",
                                token("invited-name"),
                                "email",
                                token("invited-name") + "@post.example"));
        thing(
                "invitation",
                jdbc.sql("select max(id) from invitation").query(Long.class).single());
        String key = who('S').post("/api/classes/" + classId + "/feed-key", null)
                .body()
                .get("path")
                .asString()
                .replaceFirst(".*/mine/(.*)\\.rss", "$1");
        canaries.add(new Canary("feed-key", key));
        thing(
                "subscription",
                who('S').post("/api/subscriptions", Map.of("classId", classId, "kind", "CLASS"))
                        .body()
                        .get("id")
                        .asLong());
        long there = who('X').post("/api/blogs/" + things.get("blog").get(5) + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        String other = token("other-class");
        saveAs(who('X'), there, other, other, "STAFF_AND_ME");
        int rev = who('X').get("/api/posts/" + there + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        who('X').post("/api/posts/" + there + "/hand-in", Map.of("rev", rev));
        thing("post", there);
    }

    private void rules(String held) {
        JsonNode now = who('L').get("/api/classes/" + classId).body();
        Map<String, Object> rules = new HashMap<>(Map.of(
                "ceiling",
                "ANYONE",
                "open",
                true,
                "postPolicy",
                "BEFORE",
                "commentPolicy",
                "BEFORE",
                "trustAfter",
                0,
                "heldWords",
                held.isEmpty() ? List.of() : List.of(held),
                "holdLinks",
                false,
                "tools",
                List.of("BOLD", "PICTURE", "DOCUMENT")));
        rules.putAll(
                Map.of("takeOver", false, "apart", 1, "holdPictures", true, "firstPosts", 0, "reportsHide", false));
        who('L').put(
                        "/api/classes/" + classId + "/rules",
                        Map.of("version", now.get("version").asInt(), "rules", rules));
    }

    private void makeBlogs() {
        rules("");
        Viewer lead = access.viewer(who('L').id);
        blogs.create(
                lead,
                classId,
                BlogSetup.of(BlogKind.ONE_EACH, "Log of {name}", "", Audience.MY_CLASS, Commenters.CLASS));
        blogs.create(
                lead,
                classId,
                BlogSetup.of(BlogKind.JOURNAL, "Journal of {name}", "", Audience.STAFF_AND_ME, Commenters.NOBODY));
        blogs.create(lead, classId, BlogSetup.of(BlogKind.SHARED, "News", "", Audience.ANYONE, Commenters.SCHOOL));
        blogs.create(lead, classId, BlogSetup.of(BlogKind.SHARED, "Old news", "", Audience.MY_CLASS, Commenters.CLASS));
        who('L').post("/api/classes/" + classId + "/groups", Map.of("name", "Bed 1"));
        blogs.create(lead, classId, BlogSetup.of(BlogKind.GROUP, "Bed", "", Audience.MY_GROUP, Commenters.CLASS));
    }

    private void findBlogs() {
        own = blog("kind = 'ONE_EACH' and owner_id = " + who('S').id);
        journal = blog("kind = 'JOURNAL' and owner_id = " + who('S').id);
        shared = blog("title = 'News'");
        closed = blog("title = 'Old news'");
        groupBlog = blog("kind = 'GROUP'");
        thing(
                "address",
                jdbc.sql("select address from blog where id = :id")
                        .param("id", own)
                        .query(String.class)
                        .single());
        thing(
                "address",
                jdbc.sql("select address from blog where id = :id")
                        .param("id", journal)
                        .query(String.class)
                        .single());
    }

    private long blog(String where) {
        return jdbc.sql("select id from blog where class_id = :id and " + where)
                .param("id", classId)
                .query(Long.class)
                .single();
    }

    private Person staff(String family, boolean teacher) {
        return account(family, people.addStaff(Viewer.STRANGER, "Ms", new PersonName(family, "Ada"), "", teacher));
    }

    private Person account(String name, long id) {
        people.setPassword(id, School.PASSWORD);
        return school.new Person(port, id);
    }

    private Person helper(String family, Role role) {
        Person person = staff(family, false);
        people.enrol(classId, person.id, role, "", Shown.OWN_NAME, who('L').id);
        return person;
    }

    Person student(String given, String family, String group) {
        long id = people.addStaff(Viewer.STRANGER, "", new PersonName(family, given), "", false);
        people.enrol(classId, id, Role.STUDENT, group, Shown.OWN_NAME, who('L').id);
        for (BlogKind kind : List.of(BlogKind.ONE_EACH, BlogKind.JOURNAL)) {
            long set = jdbc.sql("select id from blog_set where class_id = :id and kind = :kind")
                    .param("id", classId)
                    .param("kind", kind.name())
                    .query(Long.class)
                    .single();
            jdbc.sql("""
                    insert into blog (class_id, kind, title, address, about, widest, kind_widest, commenters,
                           owner_id, set_id, created_at)
                    select class_id, kind, :title, :address, '', widest, :widest, commenters, :owner, id,
                           current_timestamp from blog_set where id = :set""")
                    .param("title", kind == BlogKind.JOURNAL ? "Journal of " + given : "Log of " + given)
                    .param("address", (kind.name() + "-" + given).toLowerCase())
                    .param("widest", kind.widest().ordinal())
                    .param("owner", id)
                    .param("set", set)
                    .update();
            jdbc.sql("""
                                    insert into blog_address (class_id, address, blog_id) select class_id,
                                        address, id
                                     from blog
                                     where owner_id = :id and kind = :kind""").param("id", id).param("kind", kind.name()).update();
        }
        return account(given, id);
    }

    private long newClass(Person lead, String name) {
        return classes.create(
                access.viewer(lead.id),
                new ClassService.NewClass(
                        name,
                        "",
                        "",
                        "Europe/London",
                        LocalDate.now().minusDays(20),
                        LocalDate.now().plusDays(60),
                        List.of()));
    }

    private long begin(long blog, Map<String, Object> begin) {
        if (begin.isEmpty())
            jdbc.sql("update post set prompt_id = prompt_id where blog_id = :id")
                    .param("id", blog)
                    .update();
        // A draft that is there would be gone on with.
        jdbc.sql("update post set state = 'RETURNED' where blog_id = :id and state = 'DRAFT' and live is null")
                .param("id", blog)
                .update();
        long id = who('S').post("/api/blogs/" + blog + "/posts", begin)
                .body()
                .get("id")
                .asLong();
        jdbc.sql("""
                                update post
                                 set state = 'DRAFT'
                                 where blog_id = :id and state = 'RETURNED' and live is null and handed_in_at is
                                    null""").param("id", blog).update();
        return id;
    }

    private Answer save(long post, String title, String text, String audience) {
        return saveAs(who('S'), post, title, text, audience);
    }

    Answer saveAs(Person who, long post, String title, String text, String audience) {
        int rev = who.get("/api/posts/" + post + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        return who.put(
                "/api/posts/" + post + "/draft",
                Map.of(
                        "rev",
                        rev,
                        "title",
                        title,
                        "html",
                        "<p>" + text + " leaves</p>",
                        "tags",
                        List.of(),
                        "audience",
                        audience));
    }

    private long asked(Object prompt, String question) {
        long id = who('S').post("/api/prompts/" + prompt + "/questions", Map.of("question", question))
                .body()
                .get("id")
                .asLong();
        thing("question", id);
        return id;
    }

    private void answered(long question, String answer, boolean forAll) {
        who('L').put("/api/questions/" + question + "/answer", Map.of("rev", 1, "answer", answer, "forAll", forAll));
    }

    private void handIn(long post, LocalDateTime at) {
        handIn(post, at, "");
    }

    private void handIn(long post, LocalDateTime at, String word) {
        int rev = who('S').get("/api/posts/" + post + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        Map<String, Object> wish = new HashMap<>(Map.of("rev", rev, "word", word));
        if (at != null) wish.put("publishAt", at.toString());
        Answer answer = who('S').post("/api/posts/" + post + "/hand-in", wish);
        if (answer.status() != 200) throw new AssertionError(answer.text());
    }

    private long post(Person who, long blog, String title, String text, String audience) {
        long id = who.post("/api/blogs/" + blog + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        saveAs(who, id, title, text, audience);
        int rev = who.get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        who.post("/api/posts/" + id + "/hand-in", Map.of("rev", rev));
        return id;
    }

    long published(long blog, Map<String, Object> begin, String token, String audience) {
        long id = begin(blog, begin);
        save(id, token, token, audience);
        handIn(id, null);
        decide('L', "post", id, "APPROVE", "");
        return id;
    }

    private long comment(char who, long post, String text, String step) {
        long id = who(who).post("/api/posts/" + post + "/comments", Map.of("text", text))
                .body()
                .get("id")
                .asLong();
        if (!step.isEmpty()) decide('L', "comment", id, step, "");
        return id;
    }

    void decide(char who, String subject, long id, String step, String note) {
        JsonNode item = who('L').get("/api/pile?most=500")
                .body()
                .get("items")
                .valueStream()
                .filter(i -> i.get("id").asLong() == id
                        && i.get("subject").asString().equals(subject))
                .findFirst()
                .orElseThrow(() -> new AssertionError(subject + " " + id + " does not wait"));
        JsonNode decided = who(who).post(
                        "/api/pile/decisions",
                        Map.of(
                                "step",
                                step,
                                "note",
                                note,
                                "items",
                                List.of(Map.of(
                                        "subject",
                                        subject,
                                        "id",
                                        id,
                                        "version",
                                        item.get("version").asInt(),
                                        "rev",
                                        item.get("rev").asInt()))))
                .body()
                .get(0);
        if (!decided.has("decision")) throw new AssertionError(decided);
        if (!things.containsKey("decision"))
            thing("decision", decided.get("decision").asLong());
    }

    private void decision(char who, long id, String step) {
        Map<String, Object> row = jdbc.sql("select live, rev from post where id = :id")
                .param("id", id)
                .query()
                .singleRow();
        who(who).post(
                        "/api/pile/decisions",
                        Map.of(
                                "step",
                                step,
                                "note",
                                "",
                                "items",
                                List.of(Map.of(
                                        "subject",
                                        "post",
                                        "id",
                                        id,
                                        "version",
                                        row.get("live"),
                                        "rev",
                                        row.get("rev")))));
    }

    /** Gives the prompt that has none a rubric which students see only with their marks. */
    private void unseenSteps(String criterion) {
        Object prompt = things.get("prompt").get(3);
        Map<String, Object> wanted = new HashMap<>(unseen);
        wanted.put("rubricHidden", true);
        wanted.put(
                "rubric",
                Map.of(
                        "criteria",
                        List.of(Map.of(
                                "name",
                                criterion,
                                "weight",
                                1,
                                "levels",
                                List.of(
                                        Map.of("name", "none", "points", 0, "descriptor", ""),
                                        Map.of("name", "all", "points", 6, "descriptor", ""))))));
        who('L').put("/api/prompts/" + prompt, Map.of("rev", 1, "prompt", wanted, "reason", ""));
    }

    private long prompt(String title, boolean answerFirst, LocalDateTime due) {
        return who('L').post("/api/classes/" + classId + "/prompts", wanted(title, answerFirst, due, due.minusDays(9)))
                .body()
                .get("id")
                .asLong();
    }

    static Map<String, Object> wanted(String title, boolean answerFirst, LocalDateTime due, LocalDateTime opens) {
        Map<String, Object> wanted = new HashMap<>(Map.of(
                "title",
                title,
                "instructions",
                "",
                "questions",
                List.of(),
                "opens",
                opens.toString(),
                "due",
                due.toString(),
                "graceHours",
                0,
                "latePercentPerDay",
                0,
                "lateMostPercent",
                0,
                "points",
                6));
        wanted.put(
                "asked",
                Map.of("words", 0, "pictures", 0, "tags", 0, "category", 0, "links", 0, "sources", 0, "comments", 0));
        wanted.put("answers", School.answers(1, answerFirst));
        wanted.put(
                "rubric",
                Map.of(
                        "criteria",
                        List.of(Map.of(
                                "name",
                                "Observation",
                                "weight",
                                1,
                                "levels",
                                List.of(
                                        Map.of("name", "none", "points", 0, "descriptor", ""),
                                        Map.of("name", "all", "points", 6, "descriptor", ""))))));
        return wanted;
    }

    private String picture(long post, String kind, int hue) {
        Answer answer = who('S').upload("/api/posts/" + post + "/pictures", "leaf.png", png(hue));
        String id = answer.body().get("id").asString();
        files.put("/media/" + id, new Canary(kind, id));
        return id;
    }

    private void file(long post, String kind) {
        String token = token(kind);
        Answer answer = who('S').upload(
                        "/api/posts/" + post + "/files",
                        token + ".pdf",
                        ("%PDF-1.7 " + token).getBytes(StandardCharsets.UTF_8));
        files.put(
                answer.body().get("address").asString(),
                new Canary(kind, answer.body().get("id").asString()));
    }

    static byte[] png(int hue) {
        BufferedImage image = new BufferedImage(40, 30, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < 40; x++)
            for (int y = 0; y < 30; y++) image.setRGB(x, y, Color.HSBtoRGB(hue / 7f, 1, (x + y) / 70f));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }
}
