package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.blogs.BlogSetup;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.reports.ReportRunService;
import tools.jackson.databind.JsonNode;

/** Every call of the web API as everybody, held against the table in endpoints.txt. */
@ServerTest
class EndpointTableTest {

    private static final String ROLES = "L2AMSCGXK-";
    private static final AtomicInteger NUMBER = new AtomicInteger();

    @Autowired
    School school;

    @Autowired
    PeopleService people;

    @Autowired
    ReportRunService runs;

    @Autowired
    JdbcClient jdbc;

    @LocalServerPort
    int port;

    private Made of;
    private long prompt;
    private long published;
    private long read;
    private long warmRound;
    private final Map<Character, Person> roles = new LinkedHashMap<>();
    private final Map<String, Supplier<Object>> made = new HashMap<>();
    private final Map<String, Supplier<Object>> bodies = new HashMap<>();

    private record Line(String method, String path, String expected) {}

    private static List<Line> table() throws IOException {
        String text = new String(
                EndpointTableTest.class.getResourceAsStream("/endpoints.txt").readAllBytes(), StandardCharsets.UTF_8);
        return text.lines()
                .filter(l -> !l.isBlank() && !l.startsWith("#"))
                .map(l -> l.split("\\s+"))
                .map(p -> new Line(p[0], p[1], p[2]))
                .toList();
    }

    private String path(String rest) {
        return "/api/classes/" + of.classId() + rest;
    }

    @BeforeEach
    void makeEverybody() {
        of = school.make(port);
        long assistant = helper("ASSISTANT");
        people.setPassword(assistant, School.PASSWORD);
        long keeper = people.addKeeper("keeper" + NUMBER.incrementAndGet(), new PersonName("Keeper", "Ada"));
        people.setPassword(keeper, School.PASSWORD);
        List<Person> everybody = List.of(
                of.lead(),
                of.second(),
                school.new Person(port, assistant),
                of.moderator(),
                of.first(),
                of.other(),
                of.guest(),
                school.make(port).lead(),
                school.new Person(port, keeper),
                school.stranger(port));
        for (int i = 0; i < ROLES.length(); i++) roles.put(ROLES.charAt(i), everybody.get(i));
        prompt = of.lead()
                .post(path("/prompts"), wantedPrompt())
                .body()
                .get("id")
                .asLong();
        JsonNode waiting = waiting();
        published = waiting.get("id").asLong();
        decide(of.lead(), waiting);
        makeThings();
        makeBodies();
    }

    /** What stands in the braces of an address, made anew for each call where a call could use it up. */
    private void makeThings() {
        made.put("class", of::classId);
        made.put("blog", of::blogOfFirst);
        made.put("address", () -> "log-of-wren-castellane");
        made.put("ref", () -> "b" + of.blogOfFirst());
        made.put("set", () -> of.lead()
                .get(path("/blogs"))
                .body()
                .valueStream()
                .map(line -> line.get("ref").asString())
                .filter(ref -> ref.startsWith("s"))
                .findFirst()
                .orElseThrow());
        made.put("prompt", () -> prompt);
        made.put("criterion", () -> "c1");
        made.put("monday", () -> of.lead()
                .get("/api/classes/" + of.classId() + "/weeks")
                .body()
                .at("/heads/0/day")
                .asString());
        made.put("marked", () -> of.first().id);
        made.put("published", () -> published);
        made.put("helper", () -> helper("GUEST"));
        made.put("student", this::student);
        made.put("group", () -> of.lead()
                .post(path("/groups"), name("Group"))
                .body()
                .get("id")
                .asLong());
        made.put("import", () -> of.lead()
                .post(path("/roster"), Map.of("rows", List.of()))
                .body()
                .get("id")
                .asString());
        made.put("invitation", () -> {
            of.lead().post(path("/invitations"), invite());
            JsonNode all = of.lead().get(path("/invitations")).body();
            return all.get(all.size() - 1).get("id").asLong();
        });
        made.put("draft", this::draft);
        made.put("version", () -> 1);
        made.put("note", this::note);
        made.put("question", this::question);
        made.put("example", this::example);
        made.put("bank", () -> 1);
        made.put("comment", () -> of.other()
                .post("/api/posts/" + published + "/comments", Map.of("text", "Well seen."))
                .body()
                .get("id")
                .asLong());
        made.put("fresh", () -> school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Fresh"));
        made.put("shown", () -> of.lead()
                .post("/api/posts/" + made.get("fresh").get() + "/comments", Map.of("text", "Well seen."))
                .body()
                .get("id")
                .asLong());
        made.put(
                "decision",
                () -> decide(of.lead(), waiting()).body().get(0).get("decision").asLong());
        made.put("subscription", () -> of.lead()
                .post("/api/subscriptions", Map.of("classId", of.classId(), "kind", "CLASS"))
                .body()
                .get("id")
                .asLong());
        made.put("private", () -> of.lead()
                .post(
                        "/api/classes/" + of.classId() + "/private-blogs",
                        Map.of("address", "members.example/" + NUMBER.incrementAndGet(), "title", "Members"))
                .body()
                .get("id")
                .asLong());
        made.put("source", () -> of.lead()
                .post(path("/sources"), source())
                .body()
                .get("id")
                .asLong());
    }

    private long helper(String role) {
        String name = "Help" + NUMBER.incrementAndGet();
        of.lead()
                .post(
                        path("/helpers"),
                        Map.of("role", role, "title", "Mx", "given", "Kim", "family", name, "email", ""));
        for (JsonNode p : of.lead().get(path("/people")).body())
            if (p.get("sortName").asString().startsWith(name + ","))
                return p.get("id").asLong();
        throw new AssertionError("The helper is not there");
    }

    private long student() {
        long id = people.addStaff(
                Viewer.STRANGER, "", new PersonName("Fresh" + NUMBER.incrementAndGet(), "Pat"), "", false);
        people.enrol(of.classId(), id, Role.STUDENT, "", PersonName.Shown.OWN_NAME, null);
        return id;
    }

    private long draft() {
        return of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
    }

    /** A note in the margin of the draft. */
    private long note() {
        long id = draft();
        Map<String, Object> save = new HashMap<>(save());
        save.put(
                "rev",
                of.first()
                        .get("/api/posts/" + id + "/draft")
                        .body()
                        .get("beside")
                        .get("rev")
                        .asInt());
        of.first().put("/api/posts/" + id + "/draft", save);
        return of.lead()
                .post("/api/posts/" + id + "/margin", Map.of("quote", "leaves", "nth", 0, "remark", "How many?"))
                .body()
                .get("id")
                .asLong();
    }

    /** Whose it is not gets to know nothing of it. */
    private long phrase() {
        jdbc.sql("""
                merge into phrase (person_id, criterion, level, text, uses, used_at) key (person_id, criterion, text)
                values (:person, 'voice', '', 'Clear.', 1, current_timestamp)""").param("person", of.lead().id).update();
        return jdbc.sql("select max(id) from phrase").query(Long.class).single();
    }

    /** A run of reports, for which no other is under way. */
    private Map<String, Object> reports() {
        jdbc.sql("update report_run set ended_at = current_timestamp where ended_at is null")
                .update();
        return Map.of("template", "letter", "reports", List.of(Map.of("student", of.first().id, "note", "")));
    }

    /** Only who wrote it may change it. */
    private long paperNote() {
        jdbc.sql("""
                insert into paper_note (prompt_id, post_id, version_no, quote, nth, text, author_id, noted_at)
                values (:prompt, :post, 1, 'leaves', 0, 'Which?', :author, current_timestamp)""")
                .param("prompt", prompt)
                .param("post", published)
                .param("author", of.lead().id)
                .update();
        return jdbc.sql("select max(id) from paper_note").query(Long.class).single();
    }

    /** A prompt whose one paper is marked and released; what was read is its post. */
    private long released() {
        long id = of.lead()
                .post(path("/prompts"), wantedPrompt())
                .body()
                .get("id")
                .asLong();
        read = school.published(of, of.first(), of.blogOfFirst(), Map.of("promptId", id), "Marked");
        for (String sql : List.of(
                "insert into marking (prompt_id, student_id, marker_id, word, released_at, updated_at, rev) "
                        + "values (:prompt, :student, :marker, '', current_timestamp, current_timestamp, 1)",
                "insert into marking_post (prompt_id, student_id, post_id, version_no) "
                        + "select :prompt, :student, id, handed_no from post where id = :post and :marker > 0"))
            jdbc.sql(sql)
                    .param("prompt", id)
                    .param("student", of.first().id)
                    .param("marker", of.lead().id)
                    .param("post", read)
                    .update();
        return id;
    }

    /** A prompt whose answers their authors judge too, with an answer. */
    private long judged() {
        Map<String, Object> wanted = new HashMap<>(wantedPrompt());
        wanted.put("reviews", Map.of("self", "ASKED", "selfShare", 0));
        long id = of.lead().post(path("/prompts"), wanted).body().get("id").asLong();
        school.published(of, of.first(), of.blogOfFirst(), Map.of("promptId", id), "Judged");
        return id;
    }

    /** A prompt for which both students read each other's papers. */
    private long round(boolean givenOut) {
        Map<String, Object> wanted = new HashMap<>(wantedPrompt());
        wanted.put("reviews", Map.of("self", "NOT_ASKED", "selfShare", 0, "peers", Assessing.peers(1)));
        long id = of.lead().post(path("/prompts"), wanted).body().get("id").asLong();
        for (School.Person author : List.of(of.first(), of.other()))
            school.published(of, author, school.homeOf(of.classId(), author), Map.of("promptId", id), "Read by others");
        if (givenOut) of.lead().post("/api/prompts/" + id + "/peer-round", Map.of("reviews", everyPair()));
        return id;
    }

    private List<Map<String, Object>> everyPair() {
        return List.of(
                Map.of("reviewer", of.first().id, "author", of.other().id),
                Map.of("reviewer", of.other().id, "author", of.first().id));
    }

    private long review(School.Person reader) {
        long id = round(true);
        return jdbc.sql("select id from review where prompt_id = :prompt and reader_id = :reader")
                .param("prompt", id)
                .param("reader", reader.id)
                .query(Long.class)
                .single();
    }

    /** A round that all calls about papers to warm up on share: it takes long to make. */
    private long warmRound() {
        if (warmRound == 0) warmRound = round(true);
        jdbc.sql("delete from warm_up").update();
        return warmRound;
    }

    /** A paper to warm up on, that is marked. */
    private long warmUp() {
        long id = of.lead()
                .post(
                        "/api/prompts/" + warmRound() + "/warm-ups",
                        Map.of("rev", 0, "title", "Slugs", "html", "<p>Two.</p>"))
                .body()
                .at("/papers/0/id")
                .asLong();
        of.lead().put("/api/warm-ups/" + id + "/given/criteria/c1", Map.of("rev", 0, "points", 6, "remark", ""));
        return id;
    }

    /** A review of the first student's paper that is up. */
    private long received() {
        long id = review(of.other());
        jdbc.sql("update review set state = 'PUBLISHED', sent_at = current_timestamp, published_at = current_timestamp"
                        + " where id = :id")
                .param("id", id)
                .update();
        return id;
    }

    /** A prompt whose one paper the co-teacher was asked to read a second time. */
    private long secondRead() {
        long id = judged();
        of.lead()
                .post(
                        "/api/prompts/" + id + "/second-readings",
                        Map.of("reader", of.second().id, "which", "ALL", "blind", false));
        return id;
    }

    /** One of two answers of two students that share a sentence. */
    private long twin(int which) {
        if (twins.isEmpty())
            for (School.Person author : List.of(of.first(), of.other())) {
                long blog = jdbc.sql("select min(id) from blog where owner_id = :owner")
                        .param("owner", author.id)
                        .query(Long.class)
                        .single();
                twins.add(school.published(
                        of,
                        author,
                        blog,
                        Map.of("promptId", prompt),
                        "The same nine words stand in both of the texts"));
                jdbc.sql("update post_version set html = :html where post_id = :id")
                        .param("html", "<p>The same nine words stand in both of them.</p>")
                        .param("id", twins.get(twins.size() - 1))
                        .update();
            }
        return twins.get(which - 1);
    }

    private final List<Long> twins = new ArrayList<>();

    private long example() {
        return of.lead()
                .post("/api/prompts/" + prompt + "/examples", Map.of("postId", published))
                .body()
                .get("id")
                .asLong();
    }

    private long question() {
        // Only so many may wait at once.
        jdbc.sql("delete from prompt_question").update();
        return of.first()
                .post("/api/prompts/" + prompt + "/questions", Map.of("question", "How long?"))
                .body()
                .get("id")
                .asLong();
    }

    /** A post of the student that waits, as the pile shows it. */
    private JsonNode waiting() {
        long id = draft();
        Map<String, Object> save = new HashMap<>(save());
        save.put(
                "rev",
                of.first()
                        .get("/api/posts/" + id + "/draft")
                        .body()
                        .get("beside")
                        .get("rev")
                        .asInt());
        int rev = of.first()
                .put("/api/posts/" + id + "/draft", save)
                .body()
                .get("rev")
                .asInt();
        of.first().post("/api/posts/" + id + "/hand-in", Map.of("rev", rev));
        for (JsonNode item : of.lead().get("/api/pile").body().get("items"))
            if (item.get("id").asLong() == id && item.get("subject").asString().equals("post")) return item;
        throw new AssertionError("The post does not wait");
    }

    private static Answer decide(Person who, JsonNode item) {
        return who.post("/api/pile/decisions", deciding(item));
    }

    private static Map<String, Object> deciding(JsonNode item) {
        return Map.of(
                "step",
                "APPROVE",
                "note",
                "",
                "items",
                List.of(Map.of(
                        "subject",
                        item.get("subject").asString(),
                        "id",
                        item.get("id").asLong(),
                        "version",
                        item.get("version").asInt(),
                        "rev",
                        item.get("rev").asInt())));
    }

    private static Map<String, Object> save() {
        return Map.of(
                "rev",
                1,
                "title",
                "Slugs",
                "html",
                "<p>Eleven leaves with holes.</p>",
                "tags",
                List.of(),
                "audience",
                "MY_CLASS");
    }

    private static Map<String, Object> name(String of) {
        return Map.of("name", of + " " + NUMBER.incrementAndGet());
    }

    private static Map<String, Object> invite() {
        return Map.of("role", "GUEST", "name", "", "email", "guest" + NUMBER.incrementAndGet() + "@post.example");
    }

    private static Map<String, Object> source() {
        String address = "http://nowhere.example/" + NUMBER.incrementAndGet();
        return Map.of(
                "feedAddress",
                address,
                "siteAddress",
                address,
                "title",
                "Nowhere",
                "description",
                "",
                "keepTrying",
                true);
    }

    static Map<String, Object> wantedPrompt() {
        Map<String, Object> wanted = new HashMap<>(Map.of(
                "title",
                "Log",
                "instructions",
                "",
                "questions",
                List.of(),
                "due",
                LocalDateTime.now().plusDays(3).toString(),
                "graceHours",
                0,
                "latePercentPerDay",
                0,
                "lateMostPercent",
                0,
                "points",
                6,
                "asked",
                Map.of("words", 0, "pictures", 0, "tags", 0, "category", 0, "links", 0, "sources", 0, "comments", 0)));
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

    /** What is sent with a call; nothing where nothing is named. */
    private void makeBodies() {
        Supplier<Object> setup = () -> BlogSetup.of(
                BlogKind.SHARED, "News " + NUMBER.incrementAndGet(), "", Audience.MY_CLASS, Commenters.CLASS);
        Map<String, Object> newClass = Map.of(
                "name",
                "A class",
                "subject",
                "",
                "level",
                "",
                "zone",
                "Europe/London",
                "firstDay",
                "2026-09-01",
                "lastDay",
                "2026-12-01",
                "breaks",
                List.of());
        body("PUT /api/account/email", () -> Map.of("email", "new@post.example"));
        body("PUT /api/school/address", () -> Map.of("address", "http://localhost:" + port));
        body("PUT /api/school/findable", () -> Map.of("findable", false));
        body(
                "PUT /api/classes/{class}/front-page",
                () -> Map.of(
                        "address",
                        "class-" + of.classId(),
                        "findable",
                        false,
                        "peoplePages",
                        false,
                        "version",
                        of.lead()
                                .get("/api/classes/" + of.classId())
                                .body()
                                .get("version")
                                .asInt()));
        body("PUT /api/classes/{class}/people/{student}/name", () -> Map.of("given", "Pat", "family", "Fresh"));
        body("POST /api/email-confirmation", () -> Map.of("token", "guess"));
        body("PUT /api/account/password", () -> Map.of("before", "not this", "password", "long enough"));
        body(
                "POST /api/school/staff",
                () -> Map.of("title", "Ms", "given", "Ada", "family", "New" + NUMBER.incrementAndGet(), "email", ""));
        body("POST /api/people/{student}/erasure", () -> Map.of("typed", "not this"));
        body("POST /api/classes", () -> newClass);
        body(
                "PUT /api/classes/{class}",
                () -> Map.of(
                        "name",
                        "A class",
                        "subject",
                        "",
                        "level",
                        "",
                        "zone",
                        "Europe/London",
                        "terms",
                        List.of(Map.of("name", "", "firstDay", "2026-09-01", "lastDay", "2026-12-01")),
                        "breaks",
                        List.of(),
                        "ownPasswords",
                        true,
                        "byGiven",
                        false,
                        "version",
                        0));
        body(
                "PUT /api/classes/{class}/rules",
                () -> Map.of("rules", of.lead().get(path("")).body().get("rules"), "version", 0));
        body("PUT /api/classes/{class}/shown", () -> Map.of("shown", "OWN_NAME"));
        body("PUT /api/classes/{class}/people/{helper}/role", () -> Map.of("role", "MODERATOR"));
        body("PUT /api/classes/{class}/people/{student}/shown", () -> Map.of("shown", "OWN_NAME"));
        body("POST /api/classes/{class}/people/{student}/leaving", () -> Map.of("leaving", "KEEP"));
        body(
                "POST /api/classes/{class}/helpers",
                () -> Map.of(
                        "role",
                        "GUEST",
                        "title",
                        "",
                        "given",
                        "Kim",
                        "family",
                        "Help" + NUMBER.incrementAndGet(),
                        "email",
                        ""));
        body("POST /api/classes/{class}/groups", () -> name("Group"));
        body("POST /api/classes/{class}/groups/moves", () -> Map.of("moves", List.of()));
        body(
                "POST /api/classes/{class}/groups/split",
                () -> Map.of("people", List.of(), "groups", 2, "atRandom", true));
        body("PUT /api/groups/{group}", () -> name("Group"));
        body("POST /api/classes/{class}/roster/preview", () -> Map.of("text", "Name\nA B"));
        body("POST /api/classes/{class}/roster", () -> Map.of("rows", List.of()));
        body(
                "PUT /api/classes/{class}/room",
                () -> Map.of(
                        "student",
                        300,
                        "inAll",
                        6_000,
                        "rev",
                        of.lead().get(path("/room")).body().get("rev").asInt()));
        body("POST /api/posts/{draft}/pictures/from-address", () -> Map.of("address", "http://127.0.0.1:9/leaf.png"));
        body("PUT /api/classes/{class}/word", () -> Map.of("keep", false));
        body("POST /api/classes/{class}/invitations", EndpointTableTest::invite);
        body("POST /api/classes/{class}/blogs", setup);
        body("POST /api/classes/{class}/blogs/sightline", setup);
        body("PUT /api/blog-setups/{ref}", () -> Map.of("setup", setup.get(), "version", 0));
        body("PUT /api/blogs/{blog}/address", () -> Map.of("address", "log-of-wren-castellane"));
        body("PUT /api/blogs/{blog}/look", () -> Map.of("look", "TIDE"));
        body("POST /api/blogs/{blog}/posts", Map::of);
        body("PUT /api/classes/{class}/categories", List::of);
        body("PUT /api/posts/{draft}/announcement", () -> Map.of("announcement", true));
        body("POST /api/posts/{draft}/versions/{version}/bring-back", () -> Map.of("rev", 1));
        body("PUT /api/posts/{published}/arrangement", () -> Map.of("pinned", false));
        body("PUT /api/posts/{draft}/draft", EndpointTableTest::save);
        body("POST /api/posts/{draft}/hand-in", () -> Map.of("rev", 0));
        body("POST /api/posts/{published}/comments", () -> Map.of("text", "Well seen."));
        body("PUT /api/comments/{comment}", () -> Map.of("rev", 1, "text", "Well seen."));
        for (String at : List.of(
                "POST /api/posts/{published}/words",
                "POST /api/classes/{class}/words",
                "POST /api/classes/{class}/people/{marked}/words",
                "POST /api/comments/{comment}/words",
                "POST /api/posts/{published}/staff-thread",
                "POST /api/prompts/{prompt}/staff-thread",
                "POST /api/prompts/{prompt}/marking/{marked}/staff-thread"))
            body(at, () -> Map.of("text", "Well seen."));
        body(
                "POST /api/classes/{class}/words/several",
                () -> Map.of("students", List.of(of.first().id), "text", "Well seen."));
        made.put("run", () -> of.lead()
                .post(path("/weeks/" + made.get("monday").get() + "/reports"), reports())
                .body()
                .get("id")
                .asLong());
        made.put("told", () -> {
            of.lead().post(path("/weeks/" + made.get("monday").get() + "/reports"), reports());
            runs.makeWhatWaits();
            return jdbc.sql("select max(id) from week_report").query(Long.class).single();
        });
        body("POST /api/classes/{class}/weeks/{monday}/reports", this::reports);
        body("POST /api/posts/{draft}/margin", () -> Map.of("quote", "", "nth", 0, "remark", "x"));
        body("POST /api/posts/{draft}/margin/{note}/answer", () -> Map.of("answer", "DONE", "rev", 0));
        body("PUT /api/posts/{draft}/help", () -> Map.of("asked", true));
        body("POST /api/pile/decisions", () -> deciding(waiting()));
        body("POST /api/prompts/{prompt}/questions", () -> Map.of("question", "How long?"));
        made.put("phrase", this::phrase);
        made.put("papernote", this::paperNote);
        made.put("released", this::released);
        made.put("read", () -> read);
        made.put("judged", this::judged);
        body("POST /api/prompts/{prompt}/sameness/looks", () -> Map.of("first", twin(1), "second", twin(2)));
        body(
                "PUT /api/prompts/{prompt}/sameness/aside",
                () -> Map.of("first", twin(1), "second", twin(2), "reason", "One poem."));
        made.put("round", () -> round(false));
        made.put("givenround", () -> round(true));
        made.put("review", () -> review(of.first()));
        made.put("received", this::received);
        made.put("answer", () -> 0);
        made.put("warmround", this::warmRound);
        made.put("warmup", this::warmUp);
        body("POST /api/prompts/{warmround}/warm-ups", () -> Map.of("rev", 0, "title", "Slugs", "html", "<p>Two.</p>"));
        body("POST /api/prompts/{warmround}/warm-ups/asked", () -> Map.of("postId", published));
        body("PUT /api/warm-ups/{warmup}/text", () -> Map.of("rev", 1, "title", "Slugs", "html", "<p>Two.</p>"));
        body(
                "PUT /api/warm-ups/{warmup}/given/criteria/{criterion}",
                () -> Map.of("rev", 1, "points", 6, "remark", "Clear."));
        body("PUT /api/warm-ups/{warmup}/given/word", () -> Map.of("rev", 1, "word", "Clear."));
        body("PUT /api/warm-ups/{warmup}/criteria/{criterion}", () -> Map.of("rev", 0, "points", 6));
        body("POST /api/warm-ups/{warmup}/done", () -> Map.of("rev", 0));
        body("POST /api/prompts/{round}/peer-round/plan", () -> Map.of("seed", 1, "kept", List.of()));
        body("POST /api/prompts/{round}/peer-round", () -> Map.of("reviews", everyPair()));
        body("POST /api/prompts/{givenround}/peer-round/reviews", () -> everyPair()
                .get(0));
        body("PUT /api/peer-reviews/{review}/criteria/{criterion}", () -> Map.of("rev", 0, "points", 6, "remark", ""));
        body("PUT /api/peer-reviews/{review}/word", () -> Map.of("rev", 0, "word", "Clear."));
        body("PUT /api/peer-reviews/{review}/answers/{answer}", () -> Map.of("rev", 0, "answer", "How many?"));
        body("POST /api/peer-reviews/{review}/sent", () -> Map.of("rev", 0));
        body("PUT /api/peer-reviews/{received}/helped", () -> Map.of("helped", true, "why", ""));
        body("POST /api/peer-reviews/{received}/reports", () -> Map.of("reason", ""));
        made.put("secondread", this::secondRead);
        made.put("reader", () -> of.second().id);
        body(
                "POST /api/prompts/{judged}/second-readings",
                () -> Map.of("reader", of.second().id, "which", "ALL", "blind", false));
        body(
                "PUT /api/prompts/{secondread}/second-readings/{marked}/criteria/{criterion}",
                () -> Map.of("rev", 0, "points", 6, "remark", ""));
        body("PUT /api/prompts/{secondread}/second-readings/{marked}/word", () -> Map.of("rev", 0, "word", "Well."));
        body(
                "PUT /api/prompts/{secondread}/second-readings/{marked}/by/{reader}/settled",
                () -> Map.of(
                        "seen",
                        Map.of("posts", List.of(), "comments", 0, "rev", 77),
                        "rev",
                        77,
                        "takesSecond",
                        false,
                        "reason",
                        "Talked over."));
        body(
                "PUT /api/prompts/{judged}/own-view/criteria/{criterion}",
                () -> Map.of("rev", 0, "points", 6, "remark", ""));
        body("PUT /api/prompts/{judged}/own-view/word", () -> Map.of("rev", 0, "word", "Hard."));
        body("PUT /api/prompts/{prompt}/marking/release-time", () -> Map.of("rev", 77));
        body("POST /api/prompts/{prompt}/marking/{marked}/words", () -> Map.of("text", "Well done."));
        body(
                "POST /api/prompts/{prompt}/marking/{marked}/notes",
                () -> Map.of("post", published, "version", 1, "quote", "leaves", "nth", 0, "text", "Which?"));
        body("PUT /api/paper-notes/{papernote}", () -> Map.of("was", "Which?", "text", "Which ones?"));
        body("POST /api/prompts/{prompt}/examples", () -> Map.of("postId", published));
        body("PUT /api/examples/{example}/leave", () -> Map.of("given", true, "named", true));
        body("PUT /api/questions/{question}/answer", () -> Map.of("rev", 1, "answer", "Long.", "forAll", true));
        body("POST /api/classes/{class}/prompts", EndpointTableTest::wantedPrompt);
        body(
                "PUT /api/prompts/{prompt}/marking/{marked}/criteria/{criterion}",
                () -> Map.of("seen", seen(), "points", 6, "remark", ""));
        body("PUT /api/prompts/{prompt}/marking/{marked}/word", () -> Map.of("seen", seen(), "word", "Good."));
        body("POST /api/prompts/{prompt}/marks-table/preview", () -> Map.of("text", "Student,Comment\nWren,Good"));
        body("POST /api/prompts/{prompt}/marks-table", () -> Map.of("rows", List.of()));
        body("POST /api/prompts/{prompt}/marking/take-over", () -> Map.of("papers", List.of()));
        body("POST /api/prompts/{prompt}/marking/release", () -> Map.of("papers", List.of()));
        body(
                "PUT /api/prompts/{prompt}/marking/{marked}/members",
                () -> Map.of("seen", seen(), "students", List.of(), "apart", List.of()));
        body(
                "PUT /api/prompts/{prompt}/marking/{marked}/taken",
                () -> Map.of(
                        "seen",
                        Map.of("posts", List.of(), "comments", 0, "rev", 77),
                        "post",
                        1,
                        "version",
                        1,
                        "taken",
                        true));
        body(
                "POST /api/prompts/{prompt}/marking/{marked}/take-back",
                () -> Map.of("seen", seen(), "reason", "Too soon."));
        body("PUT /api/classes/{class}/bundles", () -> Map.of("bundles", List.of(), "seen", "1"));
        made.put("item", this::drawerItem);
        made.put("recording", this::recording);
        body("PUT /api/recordings/{recording}", () -> Map.of("was", "otherwise", "summary", "Shorter."));
        body("PUT /api/classes/{class}/drawer/{item}", () -> Map.of("name", "A leaf", "offered", true));
        made.put("keptrubric", this::keptRubric);
        body("POST /api/rubrics", () -> keptAs("Steps for logs", 0));
        body("PUT /api/rubrics/{keptrubric}", () -> keptAs("Steps for diaries", 1));
        body("POST /api/classes/{class}/rubric-table", () -> Map.of("table", "Criterion,Points\nA,0\nA,1\n"));
        body("POST /api/classes/{class}/prompts/repeat", EndpointTableTest::wantedPrompt);
        body("POST /api/prompts/{prompt}/look", EndpointTableTest::wantedPrompt);
        body("PUT /api/prompts/{prompt}", () -> Map.of("rev", 0, "prompt", wantedPrompt()));
        body("PUT /api/prompts/{prompt}/allowances/{marked}", () -> Map.of("letOff", false, "again", false));
        body("POST /api/subscriptions", () -> Map.of("classId", of.classId(), "kind", "CLASS"));
        body("PUT /api/subscriptions/answers", () -> Map.of("answers", "NEVER"));
        body("PUT /api/subscriptions/{subscription}", () -> Map.of("posts", "NEVER", "comments", "NEVER"));
        body("POST /api/classes/{class}/sources", EndpointTableTest::source);
        body("POST /api/posts/{fresh}/reports", () -> Map.of("reason", "Not fair."));
        body("POST /api/comments/{shown}/reports", () -> Map.of("reason", "Not fair."));
        body("POST /api/return-notes", () -> Map.of("text", "Measure it."));
        body("PUT /api/classes/{class}/people/{student}/approval", () -> Map.of("posts", "BEFORE"));
        body("POST /api/classes/{class}/holds/try", () -> Map.of("text", "Ring 07700 900 412"));
        body(
                "PUT /api/classes/{class}/notice",
                () -> Map.of("cadence", "NEVER", "address", "", "quietFrom", "18:00:00", "quietUntil", "07:00:00"));
        body("POST /api/blogs/{blog}/elsewhere/look", () -> Map.of("address", "http://nowhere.example/"));
        body("POST /api/blogs/{blog}/elsewhere", () -> Map.of("address", "http://nowhere.example/"));
        body(
                "POST /api/classes/{class}/sources/opml",
                () -> Map.of("file", "PG9wbWw+PG91dGxpbmUgeG1sVXJsPSdodHRwOi8veC5leGFtcGxlLyc+PC9vcG1sPg=="));
        body("PUT /api/classes/{class}/mail", () -> Map.of("rule", "OFFERED", "seen", "OFF"));
        body("POST /api/subscriptions/offers/{class}", () -> Map.of("posts", "NEVER"));
        body(
                "POST /api/classes/{class}/private-blogs",
                () -> Map.of("address", "members.example/" + NUMBER.incrementAndGet(), "title", "Members"));
        body("PUT /api/classes/{class}/gone-posts", () -> Map.of("rule", "KEEP", "seen", "ASK"));
        body("POST /api/posts/{published}/gone", () -> Map.of("hide", false));
        body("PUT /api/classes/{class}/sources/rule", () -> Map.of("own", "STAFF_ONLY", "seen", "STAFF_ONLY"));
        body("POST /api/classes/{class}/sources/mine", EndpointTableTest::source);
        body("POST /api/classes/{class}/sources/mine/look", () -> Map.of("address", "http://nowhere.example/"));
        body("PUT /api/posts/{published}/answered-prompt", () -> Map.of());
        body("PUT /api/posts/{published}/outside-time", () -> Map.of("counts", "SAYS", "rev", 1));
        body("PUT /api/sources/{source}", () -> Map.of("title", "Another name"));
        body("PUT /api/sources/{source}/entries", () -> Map.of("key", "id:1", "leftOut", true));
        body("PUT /api/sources/{source}/paused", () -> Map.of("paused", true));
        body("POST /api/classes/{class}/sources/look", () -> Map.of("address", "http://nowhere.example/"));
    }

    private Map<String, Object> seen() {
        return school.seen(of.lead(), prompt, of.first().id);
    }

    private void body(String call, Supplier<Object> body) {
        bodies.put(call, body);
    }

    @Test
    void everybodyGetsJustWhatTheTableSays() throws IOException {
        List<String> wrong = new ArrayList<>();
        for (Line line : table()) {
            if (line.expected().equals("public")) continue;
            StringBuilder found = new StringBuilder();
            for (char role : ROLES.toCharArray()) found.append(sign(call(roles.get(role), line), line));
            if (!found.toString().equals(line.expected()))
                wrong.add(line.method() + " " + line.path() + " " + found + ", not " + line.expected());
        }
        assertEquals(List.of(), wrong);
    }

    /** Kept without asking whether anything is handed in at this moment of the table. */
    private long recording() {
        String file = of.lead()
                .upload("/api/classes/" + of.classId() + "/drawer/files", "said.mp3", FilesTest.sound(2_000))
                .body()
                .get("id")
                .asString();
        jdbc.sql("""
                insert into recording (prompt_id, student_id, file_id, summary, by_id, made_at)
                values (:prompt, :student, :file, '', :by, current_timestamp)""")
                .param("prompt", prompt)
                .param("student", of.first().id)
                .param("file", file)
                .param("by", of.lead().id)
                .update();
        return jdbc.sql("select max(id) from recording").query(Long.class).single();
    }

    private String drawerItem() {
        return of.lead()
                .upload("/api/classes/" + of.classId() + "/drawer/pictures", "leaf.png", CanarySchool.png(2))
                .body()
                .get("id")
                .asString();
    }

    private long keptRubric() {
        return of.lead()
                .post("/api/rubrics", keptAs("Steps for logs", 0))
                .body()
                .get("id")
                .asLong();
    }

    private static Map<String, Object> keptAs(String name, int rev) {
        return Map.of("name", name, "rubric", wantedPrompt().get("rubric"), "rev", rev);
    }

    private Answer call(Person who, Line line) {
        String path = Pattern.compile("\\{(\\w+)}")
                .matcher(line.path())
                .replaceAll(m -> Matcher.quoteReplacement(
                        String.valueOf(made.get(m.group(1)).get())));
        if (path.equals("/api/search")) path += "?q=leaves";
        if (path.startsWith("/api/rubrics/") && line.method().equals("DELETE")) path += "?rev=1";
        if (path.endsWith("preview-file"))
            return who.upload(path, "x.csv", "Name\nA B".getBytes(StandardCharsets.UTF_8));
        if (path.endsWith("/recordings")) return who.upload(path, "said.mp3", FilesTest.sound(2_000));
        if (path.endsWith("/pictures")
                || line.method().equals("POST") && path.endsWith("/files")
                || line.method().equals("POST") && path.endsWith("/header"))
            return who.upload(path, "x.png", new byte[] {1, 2, 3});
        Supplier<Object> body = bodies.get(line.method() + " " + line.path());
        return who.call(line.method(), path, body == null ? null : body.get());
    }

    /** A call that carries several wishes answers each of them; the first counts here. */
    private static char sign(Answer answer, Line line) {
        if (answer.status() == 401) return '?';
        if (answer.status() == 403 || answer.status() == 404) return '.';
        // Neither a body that is not understood nor a fault of the server proves that somebody is let in.
        if (answer.status() == 400 || answer.status() >= 500) return '!';
        return line.path().equals("/api/pile/decisions") && answer.body().get(0).has("problem") ? '.' : '+';
    }

    @Test
    void theTableNamesEveryCallThatThereIs() throws IOException {
        TreeSet<String> listed = new TreeSet<>();
        for (Line line : table()) listed.add(line.method() + " " + line.path().replaceAll("\\{\\w+}", "{}"));
        TreeSet<String> there = new TreeSet<>();
        school.stranger(port)
                .get("/api/openapi")
                .body()
                .get("paths")
                .properties()
                .forEach(path -> path.getValue()
                        .properties()
                        .forEach(method -> there.add(method.getKey().toUpperCase() + " "
                                + path.getKey().replaceAll("\\{\\w+}", "{}"))));
        assertEquals(String.join("\n", there), String.join("\n", listed));
    }
}
