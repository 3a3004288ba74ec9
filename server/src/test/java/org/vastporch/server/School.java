package org.vastporch.server;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.blogs.BlogSetup;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.enrolment.RosterService;
import org.vastporch.server.people.PeopleService;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A small class for a test, and people who talk to the running server as browsers do. */
@Component
class School {

    static final String PASSWORD = "a quiet test";
    private static final AtomicInteger NUMBER = new AtomicInteger();

    /** A class with its lead, co-teacher, moderator, guest and two students with a blog each. */
    record Made(
            long classId,
            long blogOfFirst,
            Person lead,
            Person second,
            Person moderator,
            Person guest,
            Person first,
            Person other) {}

    record Answer(int status, JsonNode body, HttpResponse<byte[]> raw) {
        String code() {
            return body.path("code").asString("");
        }

        String text() {
            return new String(raw.body(), StandardCharsets.UTF_8);
        }
    }

    private final PeopleService people;
    private final ClassService classes;
    private final RosterService rosters;
    private final BlogService blogs;
    private final AccessService access;
    private final JsonMapper json;
    private final JdbcClient jdbc;

    School(
            PeopleService people,
            ClassService classes,
            RosterService rosters,
            BlogService blogs,
            AccessService access,
            JsonMapper json,
            JdbcClient jdbc) {
        this.people = people;
        this.classes = classes;
        this.rosters = rosters;
        this.blogs = blogs;
        this.access = access;
        this.json = json;
        this.jdbc = jdbc;
    }

    Made make(int port) {
        int n = NUMBER.incrementAndGet();
        Person lead = staff(port, "Lead" + n, true);
        long id = classes.create(
                access.viewer(lead.id),
                new ClassService.NewClass(
                        "Garden " + n,
                        "",
                        "",
                        "Europe/London",
                        LocalDate.now().minusDays(20),
                        LocalDate.now().plusDays(60),
                        List.of()));
        Person second = helper(port, id, Role.CO_TEACHER, "Second" + n);
        Person moderator = helper(port, id, Role.MODERATOR, "Moderator" + n);
        Person guest = helper(port, id, Role.GUEST, "Guest" + n);
        Viewer viewer = access.viewer(lead.id);
        blogs.create(
                viewer, id, BlogSetup.of(BlogKind.ONE_EACH, "Log of {name}", "", Audience.MY_CLASS, Commenters.CLASS));
        rosters.importRows(
                viewer,
                id,
                rosters.preview(
                                viewer,
                                id,
                                "Name,Number\nWren Castellane," + n + "a\nPia Aurelio," + n + "b",
                                List.of())
                        .rows());
        List<Long> students = people.students(id);
        students.forEach(s -> people.setPassword(s, PASSWORD));
        // Sorted by family name: Aurelio, Castellane.
        Person first = new Person(port, students.get(1));
        return new Made(
                id,
                blogs.homeOf(id, first.id).orElseThrow(),
                lead,
                second,
                moderator,
                guest,
                first,
                new Person(port, students.get(0)));
    }

    /** A draft as it was saved. */
    record Saved(long id, int rev) {}

    /** A draft of somebody's with what is given of it; as a text of the class where nothing is said. */
    static Saved save(Person author, long blog, Map<String, Object> begin, Map<String, Object> given) {
        return change(
                author,
                author.post("/api/blogs/" + blog + "/posts", begin)
                        .body()
                        .get("id")
                        .asLong(),
                given);
    }

    /** The text beside a post, or a draft, with what is given of it. */
    static Saved change(Person author, long id, Map<String, Object> given) {
        int rev = author.get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        Map<String, Object> save = new HashMap<>(Map.of(
                "rev", rev, "html", "<p>Eleven leaves with holes.</p>", "tags", List.of(), "audience", "MY_CLASS"));
        save.putAll(given);
        return new Saved(
                id,
                author.put("/api/posts/" + id + "/draft", save)
                        .body()
                        .get("rev")
                        .asInt());
    }

    /** A post that was handed in before, with what is given of it. */
    static Answer handInAgain(Person author, long post, Map<String, Object> given) {
        return author.post(
                "/api/posts/" + post + "/hand-in",
                Map.of("rev", change(author, post, given).rev()));
    }

    /** A post of somebody's, saved and handed in. */
    Answer handIn(Person author, long blog, Map<String, Object> begin, String title, String html) {
        Saved saved = save(author, blog, begin, Map.of("title", title, "html", html));
        return author.post("/api/posts/" + saved.id() + "/hand-in", Map.of("rev", saved.rev()));
    }

    /** A post of somebody's that the lead teacher has approved; gives its number. */
    long published(Made of, Person author, long blog, Map<String, Object> begin, String title) {
        handIn(author, blog, begin, title, "<p>Eleven leaves with holes.</p>");
        JsonNode pile = of.lead().get("/api/pile?most=500").body().get("items");
        JsonNode item = pile.get(pile.size() - 1);
        decide(of.lead(), item, "APPROVE", "");
        return item.get("id").asLong();
    }

    /** Decides about something in the pile, as it stood there. */
    static Answer decide(Person who, JsonNode item, String step, String note) {
        Map<String, Object> seen = Map.of(
                "subject",
                item.get("subject").asString(),
                "id",
                item.get("id").asLong(),
                "version",
                item.get("version").asInt(),
                "rev",
                item.get("rev").asInt());
        return who.post("/api/pile/decisions", Map.of("step", step, "note", note, "items", List.of(seen)));
    }

    /** Changes a comment, as it is at that moment. */
    Answer changeComment(Person who, long comment, String text) {
        int rev = jdbc.sql("select rev from comment where id = :id")
                .param("id", comment)
                .query(Integer.class)
                .single();
        return who.put("/api/comments/" + comment, Map.of("rev", rev, "text", text));
    }

    /** So many posts of each, perhaps before others' are read. */
    static Map<String, Object> answers(int posts, boolean ownFirst) {
        return answers(posts, ownFirst, false, List.of());
    }

    static Map<String, Object> answers(int posts, boolean ownFirst, boolean byGroups, List<Long> commentOn) {
        return Map.of(
                "posts",
                posts,
                "ownFirst",
                ownFirst,
                "byGroups",
                byGroups,
                "commentsFirst",
                false,
                "commentOn",
                commentOn,
                "byTag",
                false,
                "byTime",
                false);
    }

    /** Names the paper of a student as it stands at that moment; as nothing was handed in, if that is so. */
    Map<String, Object> seen(Person marker, long prompt, long student) {
        JsonNode seen = marker.get("/api/prompts/" + prompt + "/marking/" + student)
                .body()
                .path("given")
                .path("seen");
        List<Object> posts = new ArrayList<>();
        for (JsonNode post : seen.path("posts"))
            posts.add(Map.of(
                    "post",
                    post.get("post").asLong(),
                    "version",
                    post.get("version").asInt()));
        return Map.of(
                "posts",
                posts,
                "comments",
                seen.path("comments").asInt(0),
                "rev",
                seen.path("rev").asInt(0));
    }

    Person stranger(int port) {
        return new Person(port, 0);
    }

    private Person staff(int port, String name, boolean teacher) {
        long id = people.addStaff(Viewer.STRANGER, "Ms", new PersonName(name, "Ada"), "", teacher);
        people.setPassword(id, PASSWORD);
        return new Person(port, id);
    }

    /** One more student of a class. */
    Person student(int port, long classId, String name) {
        Person student = helper(port, classId, Role.STUDENT, name);
        people.arrived(classId, List.of(student.id));
        return student;
    }

    long homeOf(long classId, Person student) {
        return blogs.homeOf(classId, student.id).orElseThrow();
    }

    /** Somebody who helps in a class. */
    Person helper(int port, long classId, Role role, String name) {
        Person person = staff(port, name, false);
        people.enrol(classId, person.id, role, "", PersonName.Shown.OWN_NAME, null);
        return person;
    }

    /** Somebody with a browser of their own; signs in at the first call. */
    final class Person {
        final long id;
        private final int port;
        private final Map<String, String> cookies = new HashMap<>();
        private final HttpClient http = HttpClient.newHttpClient();

        Person(int port, long id) {
            this.port = port;
            this.id = id;
        }

        Answer get(String path, String... headers) {
            return call("GET", path, null, headers);
        }

        Answer post(String path, Object body) {
            return call("POST", path, body);
        }

        Answer put(String path, Object body) {
            return call("PUT", path, body);
        }

        Answer upload(String path, String name, byte[] bytes) {
            String head = "--b\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + name
                    + "\"\r\nContent-Type: image/png\r\n\r\n";
            ByteArrayOutputStream form = new ByteArrayOutputStream();
            form.writeBytes(head.getBytes(StandardCharsets.UTF_8));
            form.writeBytes(bytes);
            form.writeBytes("\r\n--b--\r\n".getBytes(StandardCharsets.UTF_8));
            signIn();
            return send(HttpRequest.newBuilder(uri(path))
                    .header("Content-Type", "multipart/form-data; boundary=b")
                    .POST(HttpRequest.BodyPublishers.ofByteArray(form.toByteArray())));
        }

        Answer call(String method, String path, Object body, String... headers) {
            signIn();
            return raw(method, path, body, headers);
        }

        /** Sends a text as it is, JSON or not. */
        Answer callText(String method, String path, String text) {
            signIn();
            return send(HttpRequest.newBuilder(uri(path))
                    .header("Content-Type", "application/json")
                    .method(
                            method,
                            text == null
                                    ? HttpRequest.BodyPublishers.noBody()
                                    : HttpRequest.BodyPublishers.ofString(text)));
        }

        private void signIn() {
            if (cookies.containsKey("XSRF-TOKEN")) return;
            raw("GET", "/api/me", null);
            if (id != 0) raw("POST", "/api/session", Map.of("username", people.usernameOf(id), "password", PASSWORD));
        }

        private Answer raw(String method, String path, Object body, String... headers) {
            HttpRequest.Builder request = HttpRequest.newBuilder(uri(path)).header("Content-Type", "application/json");
            if (headers.length > 0) request.headers(headers);
            return send(request.method(
                    method,
                    body == null
                            ? HttpRequest.BodyPublishers.noBody()
                            : HttpRequest.BodyPublishers.ofString(json.writeValueAsString(body))));
        }

        private URI uri(String path) {
            return URI.create("http://localhost:" + port + path);
        }

        /** The cookies as a browser sends them. */
        String cookie() {
            StringBuilder cookie = new StringBuilder();
            cookies.forEach((name, value) ->
                    cookie.append(name).append('=').append(value).append("; "));
            return cookie.toString();
        }

        String csrf() {
            return cookies.get("XSRF-TOKEN");
        }

        private Answer send(HttpRequest.Builder request) {
            if (!cookies.isEmpty()) request.header("Cookie", cookie());
            if (cookies.containsKey("XSRF-TOKEN")) request.header("X-XSRF-TOKEN", csrf());
            try {
                HttpResponse<byte[]> answer = http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
                for (String set : answer.headers().allValues("Set-Cookie"))
                    cookies.put(set.split("=", 2)[0], set.split("=", 2)[1].split(";")[0]);
                String text = new String(answer.body(), StandardCharsets.UTF_8);
                boolean isJson = text.startsWith("{") || text.startsWith("[");
                return new Answer(answer.statusCode(), json.readTree(isJson ? text : "{}"), answer);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException(e);
            }
        }
    }
}
