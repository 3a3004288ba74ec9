package org.vastporch.server;

import java.time.LocalDateTime;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.vastporch.server.School.Answer;
import tools.jackson.databind.JsonNode;

/** Every call of the web API, and every feed, file and page besides, for the things of the canary school. */
@Component
class Crawl {

    /**
     * One call.
     *
     * @param of the call with braces where a thing stands, by which the tables know it
     * @param body what is sent; null for nothing
     * @param never who writes nothing by it whatever the ledger says: everybody if it names a state that is not the
     *     present one or takes an account that is in the care of none of them, moderators if it is about a text that
     *     does not lie in the pile
     */
    record Call(String of, String method, String path, Object body, String never) {

        boolean takesAnAccount() {
            return TAKES_AN_ACCOUNT.contains(of);
        }

        @Override
        public String toString() {
            return method + " " + path + (body == null ? "" : " " + body);
        }
    }

    private static final Pattern TOKEN = Pattern.compile("qx[a-z]{3}zk");
    private static final Pattern BRACES = Pattern.compile("\\{(\\w+)}");
    /** Which thing stands behind a part of an address. */
    static final Map<String, String> AFTER = Map.ofEntries(
            Map.entry("classes", "class"),
            Map.entry("posts", "post"),
            Map.entry("comments", "comment"),
            Map.entry("blogs", "blog"),
            Map.entry("prompts", "prompt"),
            Map.entry("questions", "question"),
            Map.entry("examples", "example"),
            Map.entry("phrases", "phrase"),
            Map.entry("paper-notes", "paper-note"),
            Map.entry("rubrics", "rubric"),
            Map.entry("drawer", "item"),
            Map.entry("recordings", "recording"),
            Map.entry("feedback", "post"),
            Map.entry("marking", "person"),
            Map.entry("second-readings", "person"),
            Map.entry("peer-reviews", "peer-review"),
            Map.entry("warm-ups", "warm-up"),
            Map.entry("answers", "answer"),
            Map.entry("by", "reader"),
            Map.entry("criteria", "criterion"),
            Map.entry("weeks", "monday"),
            Map.entry("report-runs", "run"),
            Map.entry("week-reports", "told"),
            Map.entry("people", "person"),
            Map.entry("versions", "version"),
            Map.entry("margin", "note"),
            Map.entry("decisions", "decision"),
            Map.entry("invitations", "invitation"),
            Map.entry("groups", "group"),
            Map.entry("imports", "import"),
            Map.entry("blog-setups", "ref"),
            Map.entry("subscriptions", "subscription"),
            Map.entry("offers", "class"),
            Map.entry("private-blogs", "private"),
            Map.entry("sources", "source"),
            Map.entry("return-notes", "bank"),
            Map.entry("at", "address"));

    private static final Set<String> PEOPLE = Set.of("person", "student");
    private static final Set<String> TAKES_AN_ACCOUNT =
            Set.of("POST /api/classes/{}/people/{}/pass-phrase", "PUT /api/classes/{}/people/{}/name");
    private static final Set<String> UPLOADS = Set.of("/pictures", "/files", "/header", "/preview-file", "/recordings");
    /** Whoever signs out asks nothing more. */
    private static final Set<String> NOT_TRIED = Set.of("DELETE /api/session");

    private final CanarySchool school;
    private final JdbcClient jdbc;

    Crawl(CanarySchool school, JdbcClient jdbc) {
        this.school = school;
        this.jdbc = jdbc;
    }

    /** All calls of the description with some methods, for every thing that their addresses can name. */
    private List<Call> calls(Set<String> methods) {
        List<Call> calls = new ArrayList<>();
        JsonNode paths = school.who('-').get("/api/openapi").body().get("paths");
        paths.properties().forEach(path -> path.getValue().propertyNames().forEach(method -> {
            if (methods.contains(method.toUpperCase()))
                for (String filled : filled(path.getKey()))
                    calls.add(new Call(
                            method.toUpperCase() + " "
                                    + BRACES.matcher(path.getKey()).replaceAll("{}"),
                            method.toUpperCase(),
                            filled,
                            null,
                            ""));
        }));
        return calls;
    }

    private List<String> filled(String template) {
        Matcher brace = BRACES.matcher(template);
        if (!brace.find()) return List.of(template);
        String[] before = template.substring(0, brace.start()).split("/");
        String after = AFTER.get(before[before.length - 1]);
        // The same word stands before reviews and before the student whose reviews they are.
        if (PEOPLE.contains(brace.group(1))) after = "person";
        if (after == null) throw new AssertionError("What stands behind " + template + "? Crawl.AFTER does not say.");
        List<Object> things = school.things.getOrDefault(after, List.of(0));
        List<String> all = new ArrayList<>();
        for (Object thing : things)
            all.addAll(filled(template.substring(0, brace.start()) + thing + template.substring(brace.end())));
        return all;
    }

    /** Everything that can be read. */
    List<Call> reads() {
        List<Call> calls = new ArrayList<>(calls(Set.of("GET")).stream()
                .filter(c -> !c.path().endsWith(".pdf") && !c.path().equals("/api/openapi"))
                .toList());
        List<String> more = new ArrayList<>();
        List<Long> places = jdbc.sql("select id from membership order by id")
                .query(Long.class)
                .list();
        for (Object id : school.things.get("class")) {
            for (String wish :
                    List.of("unanswered=true", "announcements=true", "oldestFirst=true", "most=1", "span=TODAY"))
                more.add("/api/classes/" + id + "/porch?" + wish);
            for (String wish : List.of("by=PROMPT", "by=POST", "term=-1"))
                more.add("/api/classes/" + id + "/weeks?" + wish);
            more.add("/api/classes/" + id + "/who-answers-whom?by=TOGETHER");
            for (String format : List.of("rss", "atom", "json")) {
                more.add("/feeds/classes/" + id + "." + format);
                more.add("/feeds/classes/" + id + "/comments." + format);
            }
            for (String wish :
                    List.of("unanswered=true", "announcements=true", "place=1", "group=1", "prompt=1", "source=1"))
                more.add("/feeds/classes/" + id + ".atom?" + wish);
            for (Object post : school.things.get("post"))
                more.add("/feeds/classes/" + id + "/comments.atom?post=" + post);
            more.add("/classes/" + id + "/porch");
            for (long place : places)
                for (Object blog : school.things.get("blog"))
                    more.add("/api/classes/" + id + "/porch?blog=" + blog + "&place=" + place);
            for (Object blog : school.things.get("blog")) {
                more.add("/api/classes/" + id + "/porch?blog=" + blog);
                more.add("/api/classes/" + id + "/rail?blog=" + blog);
                more.add("/feeds/classes/" + id + ".atom?blog=" + blog);
                more.add("/feeds/classes/" + id + "/comments.atom?blog=" + blog);
            }
        }
        for (Object blog : school.things.get("blog"))
            more.addAll(List.of("/feeds/blogs/" + blog + ".rss", "/media/headers/" + blog));
        for (String sort : List.of("posts", "comments", "reviews", "held", "reported", "up"))
            more.add("/api/pile?sort=" + sort);
        for (Canary canary : school.canaries) more.add("/api/search?q=" + canary.token());
        for (String wish : List.of(
                "most=1", "most=2", "most=3", "most=50", "kind=post", "kind=comment", "class=" + school.classId))
            more.add("/api/search?q=leaves&" + wish);
        for (String file : school.files.keySet()) more.addAll(List.of(file, file + "?small=true"));
        for (Object post : school.things.get("post")) more.add("/posts/" + post);
        more.forEach(path -> calls.add(
                new Call("GET " + path.replaceAll("\\d+", "{}").replaceAll("\\?.*", ""), "GET", path, null, "")));
        return calls;
    }

    /** The pages that anyone may read: of classes, blogs, posts, persons and whatever else they can be narrowed by. */
    List<Call> frontPages() {
        List<String> paths = new ArrayList<>(List.of("/robots.txt", "/no-such-class"));
        List<String> classes = jdbc.sql("select address from class order by id")
                .query(String.class)
                .list();
        String month = YearMonth.now().toString();
        for (String at : classes) {
            paths.addAll(
                    List.of("/" + at, "/" + at + "?month=" + month, "/" + at + "?tag=leaves", "/" + at + "?q=leaves"));
            for (int place = 1; place < 20; place++) paths.add("/" + at + "?person=" + place);
            for (Canary canary : school.canaries) paths.add("/" + at + "?q=" + canary.token());
            for (String blog : jdbc.sql("select address from blog order by id")
                    .query(String.class)
                    .list()) paths.addAll(List.of("/" + at + "/" + blog, "/" + at + "/" + blog + "?month=" + month));
            for (Object post : school.things.get("post")) paths.add("/" + at + "/any-blog/" + post);
        }
        jdbc.sql("""
                select c.address as at, b.address as blog, p.id
                  from post p
                  join blog b on b.id = p.blog_id
                  join class c on c.id = p.class_id
                 order by p.id""").query(row -> {
            paths.add("/" + row.getString("at") + "/" + row.getString("blog") + "/" + row.getLong("id"));
        });
        return paths.stream()
                .map(path -> new Call("GET front page", "GET", path, null, ""))
                .toList();
    }

    /**
     * Everything that writes, with what was seen last and with guesses. Whose body needs nothing is sent an empty one.
     */
    List<Call> writes() {
        List<Call> calls = new ArrayList<>();
        for (Call call : calls(Set.of("POST", "PUT", "DELETE"))) {
            if (NOT_TRIED.contains(call.of())) continue;
            List<Object> bodies = bodies(call);
            if (bodies.isEmpty()) bodies = Collections.singletonList(null);
            String never = call.takesAnAccount() && call.path().contains("/people/" + school.inBoth + "/")
                    ? CanarySchool.ROLES
                    : "";
            bodies.forEach(body -> calls.add(new Call(
                    call.of(),
                    call.method(),
                    call.path(),
                    body instanceof Never n ? n.body() : body,
                    body instanceof Never n ? n.who() : never)));
        }
        return calls;
    }

    /** A body by which some people write nothing. */
    private record Never(Object body, String who) {}

    /** A body that names a state which is not the present one. */
    private static Never stale(Object body) {
        return new Never(body, CanarySchool.ROLES);
    }

    private List<Object> bodies(Call call) {
        long id = Optional.of(call.path().replaceFirst("^/api/[a-z-]+/(\\d+).*", "$1"))
                .filter(n -> n.matches("\\d+"))
                .map(Long::parseLong)
                .orElse(0L);
        Map<String, Supplier<List<Object>>> of = Map.ofEntries(
                Map.entry("POST /api/pile/decisions", this::decisions),
                Map.entry("PUT /api/posts/{}/draft", () -> List.of(saving(rev("post", id)), stale(saving(0)))),
                Map.entry(
                        "POST /api/posts/{}/hand-in",
                        () -> List.of(Map.of("rev", rev("post", id)), stale(Map.of("rev", 0)))),
                Map.entry(
                        "POST /api/posts/{}/versions/{}/bring-back",
                        () -> List.of(Map.of("rev", rev("post", id)), stale(Map.of("rev", 0)))),
                Map.entry("PUT /api/posts/{}/announcement", () -> List.of(Map.of("announcement", true))),
                Map.entry("PUT /api/posts/{}/answered-prompt", () -> List.of(Map.of())),
                Map.entry("PUT /api/posts/{}/outside-time", () -> List.of(Map.of("counts", "FIRST_SEEN", "rev", 3))),
                Map.entry("PUT /api/posts/{}/arrangement", () -> List.of(Map.of("pinned", true))),
                Map.entry("PUT /api/posts/{}/help", () -> List.of(Map.of("asked", true))),
                Map.entry("POST /api/posts/{}/margin", () -> List.of(Map.of("quote", "x", "nth", 0, "remark", "Why?"))),
                Map.entry(
                        "POST /api/posts/{}/margin/{}/answer",
                        () -> List.of(
                                Map.of("answer", "DONE", "rev", rev("post", id)),
                                stale(Map.of("answer", "DONE", "rev", 0)))),
                Map.entry(
                        "POST /api/posts/{}/comments", () -> List.of(Map.of("text", "Well seen.", "name", "Somebody"))),
                Map.entry("POST /api/posts/{}/reports", () -> List.of(Map.of("reason", "Not fair."))),
                Map.entry("POST /api/posts/{}/words", () -> List.of(Map.of("text", "A word."))),
                Map.entry("POST /api/classes/{}/words", () -> List.of(Map.of("text", "A word."))),
                Map.entry("POST /api/classes/{}/people/{}/words", () -> List.of(Map.of("text", "A word."))),
                Map.entry(
                        "POST /api/classes/{}/weeks/{}/reports",
                        () -> List.of(Map.of(
                                "template",
                                "letter",
                                "reports",
                                List.of(Map.of("student", school.who('S').id, "note", "Well done."))))),
                Map.entry(
                        "POST /api/classes/{}/words/several",
                        () -> List.of(Map.of("students", List.of(school.who('S').id), "text", "A word."))),
                Map.entry("POST /api/posts/{}/staff-thread", () -> List.of(Map.of("text", "A word."))),
                Map.entry(
                        "PUT /api/comments/{}",
                        () -> List.of(
                                Map.of("rev", rev("comment", id), "text", "Otherwise."),
                                stale(Map.of("rev", 0, "text", "Otherwise.")))),
                Map.entry("POST /api/comments/{}/reports", () -> List.of(Map.of("reason", "Not fair."))),
                Map.entry("POST /api/comments/{}/words", () -> List.of(Map.of("text", "A word."))),
                Map.entry("POST /api/prompts/{}/staff-thread", () -> List.of(Map.of("text", "A word."))),
                Map.entry("POST /api/prompts/{}/marking/{}/staff-thread", () -> List.of(Map.of("text", "A word."))),
                Map.entry(
                        "PUT /api/prompts/{}/marking/{}/criteria/{}",
                        () -> List.of(
                                Map.of("seen", seen(id), "points", 6, "remark", "", "reason", "Looked again."),
                                stale(Map.of("seen", guess(), "points", 6, "remark", "")))),
                Map.entry(
                        "PUT /api/prompts/{}/marking/{}/word",
                        () -> List.of(
                                Map.of("seen", seen(id), "word", "Good.", "reason", "Looked again."),
                                stale(Map.of("seen", guess(), "word", "Good.")))),
                Map.entry(
                        "PUT /api/prompts/{}/own-view/criteria/{}",
                        () -> List.of(
                                Map.of("rev", ownView(id), "points", 6, "remark", "I counted them."),
                                stale(Map.of("rev", 77, "points", 6, "remark", "")))),
                Map.entry("POST /api/prompts/{}/sameness/looks", () -> List.of(Map.of("first", 1, "second", 2))),
                Map.entry(
                        "PUT /api/prompts/{}/sameness/aside",
                        () -> List.of(Map.of("first", 1, "second", 2, "reason", "One poem."))),
                Map.entry(
                        "POST /api/prompts/{}/second-readings",
                        () -> List.of(Map.of("reader", school.who('2').id, "which", "ALL", "blind", true))),
                Map.entry(
                        "PUT /api/prompts/{}/second-readings/{}/criteria/{}",
                        () -> List.of(
                                Map.of("rev", 0, "points", 6, "remark", ""),
                                stale(Map.of("rev", 77, "points", 6, "remark", "")))),
                Map.entry(
                        "PUT /api/prompts/{}/second-readings/{}/word",
                        () -> List.of(Map.of("rev", 0, "word", "Well."), stale(Map.of("rev", 77, "word", "Well.")))),
                Map.entry(
                        "PUT /api/prompts/{}/second-readings/{}/by/{}/settled",
                        () -> List.of(
                                Map.of(
                                        "seen",
                                        seen(id),
                                        "rev",
                                        secondReading(id),
                                        "takesSecond",
                                        true,
                                        "reason",
                                        "Talked over."),
                                stale(Map.of(
                                        "seen", guess(), "rev", 77, "takesSecond", true, "reason", "Talked over.")))),
                Map.entry("POST /api/prompts/{}/peer-round/plan", () -> List.of(Map.of("seed", 1, "kept", List.of()))),
                Map.entry(
                        "POST /api/prompts/{}/peer-round",
                        () -> List.of(Map.of(
                                "reviews",
                                List.of(Map.of("reviewer", school.who('S').id, "author", school.who('G').id))))),
                Map.entry(
                        "POST /api/prompts/{}/peer-round/reviews",
                        () -> List.of(Map.of("reviewer", school.who('S').id, "author", school.who('G').id))),
                Map.entry(
                        "PUT /api/peer-reviews/{}/criteria/{}",
                        () -> List.of(
                                Map.of("rev", review(id), "points", 6, "remark", "Clear."),
                                stale(Map.of("rev", 77, "points", 6, "remark", "")))),
                Map.entry(
                        "PUT /api/peer-reviews/{}/word",
                        () -> List.of(
                                Map.of("rev", review(id), "word", "Clear."),
                                stale(Map.of("rev", 77, "word", "Clear.")))),
                Map.entry(
                        "PUT /api/peer-reviews/{}/answers/{}",
                        () -> List.of(
                                Map.of("rev", review(id), "answer", "How many?"),
                                stale(Map.of("rev", 77, "answer", "How many?")))),
                Map.entry(
                        "POST /api/peer-reviews/{}/sent",
                        () -> List.of(Map.of("rev", review(id)), stale(Map.of("rev", 77)))),
                Map.entry(
                        "PUT /api/peer-reviews/{}/helped",
                        () -> List.of(Map.of("helped", true, "why", "The question."))),
                Map.entry("POST /api/peer-reviews/{}/reports", () -> List.of(Map.of("reason", "Not fair."))),
                Map.entry(
                        "POST /api/prompts/{}/warm-ups",
                        () -> List.of(Map.of("rev", 0, "title", "Slugs", "html", "<p>Two of them.</p>"))),
                Map.entry("POST /api/prompts/{}/warm-ups/asked", () -> school.things.get("post").stream()
                        .limit(4)
                        .<Object>map(post -> Map.of("postId", post))
                        .toList()),
                Map.entry(
                        "PUT /api/warm-ups/{}/text",
                        () -> List.of(
                                Map.of("rev", warmUp(id), "title", "Slugs", "html", "<p>Two of them.</p>"),
                                stale(Map.of("rev", 77, "title", "Slugs", "html", "<p>Two of them.</p>")))),
                Map.entry(
                        "PUT /api/warm-ups/{}/given/criteria/{}",
                        () -> List.of(
                                Map.of("rev", warmUp(id), "points", 6, "remark", "Clear."),
                                stale(Map.of("rev", 77, "points", 6, "remark", "")))),
                Map.entry(
                        "PUT /api/warm-ups/{}/given/word",
                        () -> List.of(
                                Map.of("rev", warmUp(id), "word", "Clear."),
                                stale(Map.of("rev", 77, "word", "Clear.")))),
                Map.entry(
                        "PUT /api/warm-ups/{}/criteria/{}",
                        () -> List.of(Map.of("rev", 0, "points", 6), stale(Map.of("rev", 77, "points", 6)))),
                Map.entry("POST /api/warm-ups/{}/done", () -> List.of(Map.of("rev", 0), stale(Map.of("rev", 77)))),
                Map.entry(
                        "PUT /api/prompts/{}/own-view/word",
                        () -> List.of(
                                Map.of("rev", ownView(id), "word", "It was hard."),
                                stale(Map.of("rev", 77, "word", "It was hard.")))),
                Map.entry(
                        "POST /api/prompts/{}/marking/release",
                        () -> List.of(
                                Map.of("papers", List.of(Map.of("student", school.who('S').id, "seen", seen(id)))),
                                stale(Map.of(
                                        "papers", List.of(Map.of("student", school.who('S').id, "seen", guess())))))),
                Map.entry(
                        "POST /api/prompts/{}/marking/take-over",
                        () -> List.of(
                                Map.of("papers", List.of(Map.of("student", school.who('S').id, "seen", seen(id)))),
                                stale(Map.of(
                                        "papers", List.of(Map.of("student", school.who('S').id, "seen", guess())))))),
                Map.entry(
                        "POST /api/prompts/{}/marks-table/preview",
                        () -> List.of(Map.of("text", "Username,Comment\nwren,Well seen"))),
                Map.entry(
                        "POST /api/prompts/{}/marks-table",
                        () -> List.of(
                                Map.of("rows", List.of(marksRow(seen(id))), "reason", "Marked on paper."),
                                stale(Map.of("rows", List.of(marksRow(guess())), "reason", "Marked on paper.")))),
                Map.entry(
                        "POST /api/prompts/{}/marking/{}/take-back",
                        () -> List.of(
                                Map.of("seen", seen(id), "reason", "Too soon."),
                                stale(Map.of("seen", guess(), "reason", "Too soon.")))),
                Map.entry(
                        "PUT /api/prompts/{}/marking/{}/members",
                        () -> List.of(stale(Map.of("seen", guess(), "students", List.of(), "apart", List.of())))),
                Map.entry(
                        "PUT /api/prompts/{}/marking/{}/taken",
                        () -> List.of(stale(Map.of("seen", guess(), "post", 1, "version", 1, "taken", true)))),
                Map.entry(
                        "PUT /api/prompts/{}/marking/release-time",
                        () -> List.of(
                                Map.of("at", LocalDateTime.now().plusDays(9).toString(), "rev", 0),
                                stale(Map.of(
                                        "at", LocalDateTime.now().plusDays(9).toString(), "rev", 77)))),
                Map.entry("PUT /api/classes/{}/drawer/{}", () -> List.of(Map.of("name", "A leaf", "offered", false))),
                Map.entry("POST /api/rubrics", () -> List.of(keptRubric(0))),
                Map.entry("PUT /api/rubrics/{}", () -> List.of(keptRubric(1), stale(keptRubric(77)))),
                Map.entry(
                        "POST /api/prompts/{}/marking/{}/words",
                        () -> List.of(Map.of("text", "Well done."), Map.of("text", ""))),
                Map.entry(
                        "POST /api/prompts/{}/marking/{}/notes",
                        () -> List.of(
                                note(id, "leaves"),
                                note(id, "words that stand nowhere"),
                                stale(Map.of("post", 1, "version", 1, "quote", "x", "nth", 0, "text", "Good.")))),
                Map.entry(
                        "PUT /api/recordings/{}",
                        () -> List.of(
                                Map.of("was", summary(id), "summary", "In other words."),
                                stale(Map.of("was", "nothing of it", "summary", "In other words.")))),
                Map.entry(
                        "PUT /api/paper-notes/{}",
                        () -> List.of(
                                Map.of("was", noteText(id), "text", "Better."),
                                stale(Map.of("was", "something else", "text", "Better.")))),
                Map.entry("POST /api/prompts/{}/examples", () -> school.things.get("post").stream()
                        .limit(4)
                        .<Object>map(post -> Map.of("postId", post))
                        .toList()),
                Map.entry(
                        "PUT /api/examples/{}/leave",
                        () -> List.of(
                                Map.of("given", true, "named", true),
                                Map.of("given", true, "named", false),
                                Map.of("given", false, "named", false))),
                Map.entry(
                        "POST /api/prompts/{}/questions",
                        () -> List.of(Map.of("question", "How long?"), Map.of("question", ""))),
                Map.entry(
                        "PUT /api/questions/{}/answer",
                        () -> List.of(
                                Map.of("rev", rev("prompt_question", id), "answer", "Soon.", "forAll", false),
                                stale(Map.of("rev", 77, "answer", "Soon.", "forAll", true)))),
                Map.entry("POST /api/prompts/{}/look", () -> List.of(EndpointTableTest.wantedPrompt())),
                Map.entry(
                        "PUT /api/prompts/{}",
                        () -> List.of(
                                Map.of(
                                        "rev",
                                        rev("prompt", id),
                                        "prompt",
                                        EndpointTableTest.wantedPrompt(),
                                        "reason",
                                        "A better rule."),
                                stale(Map.of(
                                        "rev",
                                        0,
                                        "prompt",
                                        EndpointTableTest.wantedPrompt(),
                                        "reason",
                                        "A better rule.")))),
                Map.entry(
                        "PUT /api/classes/{}/bundles", () -> List.of(stale(Map.of("bundles", List.of(), "seen", "0")))),
                Map.entry("PUT /api/prompts/{}/allowances/{}", () -> List.of(Map.of("letOff", true, "again", false))),
                Map.entry("POST /api/blogs/{}/posts", () -> List.of(Map.of())),
                Map.entry("PUT /api/blogs/{}/look", () -> List.of(Map.of("look", "TIDE"))),
                Map.entry("PUT /api/blogs/{}/address", () -> List.of(Map.of("address", "another-address"))),
                Map.entry("PUT /api/classes/{}/shown", () -> List.of(Map.of("shown", "OWN_NAME"))),
                Map.entry("PUT /api/classes/{}/people/{}/role", () -> List.of(Map.of("role", "MODERATOR"))),
                Map.entry("PUT /api/classes/{}/people/{}/shown", () -> List.of(Map.of("shown", "FIRST_AND_INITIAL"))),
                Map.entry(
                        "PUT /api/classes/{}/people/{}/name",
                        () -> List.of(Map.of("given", "Other", "family", "Name"))),
                Map.entry("PUT /api/classes/{}/people/{}/approval", () -> List.of(Map.of("posts", "NONE"))),
                Map.entry("POST /api/classes/{}/people/{}/leaving", () -> List.of(Map.of("leaving", "KEEP"))),
                Map.entry(
                        "POST /api/classes/{}/helpers",
                        () -> List.of(
                                Map.of("role", "GUEST", "title", "", "given", "Kim", "family", "Help", "email", ""))),
                Map.entry("POST /api/classes/{}/groups", () -> List.of(Map.of("name", "Bed 9"))),
                Map.entry("POST /api/classes/{}/groups/moves", () -> List.of(Map.of("moves", List.of()))),
                Map.entry(
                        "POST /api/classes/{}/groups/split",
                        () -> List.of(Map.of("people", List.of(), "groups", 2, "atRandom", false))),
                Map.entry("PUT /api/groups/{}", () -> List.of(Map.of("name", "Bed 7"))),
                Map.entry("POST /api/classes/{}/roster/preview", () -> List.of(Map.of("text", "Name\nA B"))),
                Map.entry(
                        "PUT /api/classes/{}/room",
                        () -> List.of(
                                Map.of("student", 200, "inAll", 5_000, "rev", 1),
                                stale(Map.of("student", 200, "inAll", 5_000, "rev", 0)))),
                Map.entry("PUT /api/classes/{}/word", () -> List.of(Map.of("keep", false))),
                Map.entry(
                        "POST /api/classes/{}/invitations",
                        () -> List.of(Map.of("role", "GUEST", "name", "", "email", "somebody@post.example"))),
                Map.entry("PUT /api/classes/{}/categories", () -> List.of(List.of(Map.of("name", "Weather")))),
                Map.entry("POST /api/classes/{}/holds/try", () -> List.of(Map.of("text", "Ring 07700 900 412"))),
                Map.entry(
                        "PUT /api/classes/{}/notice",
                        () -> List.of(Map.of(
                                "cadence", "NEVER", "address", "", "quietFrom", "18:00:00", "quietUntil", "07:00:00"))),
                Map.entry("POST /api/subscriptions", () -> List.of(Map.of("classId", school.classId, "kind", "CLASS"))),
                Map.entry("PUT /api/subscriptions/answers", () -> List.of(Map.of("answers", "NEVER"))),
                Map.entry("PUT /api/subscriptions/{}", () -> List.of(Map.of("posts", "NEVER", "comments", "NEVER"))),
                Map.entry("POST /api/return-notes", () -> List.of(Map.of("text", "Measure it."))),
                Map.entry("POST /api/people/{}/erasure", () -> List.of(Map.of("typed", "not this"))),
                Map.entry("PUT /api/account/email", () -> List.of(Map.of("email", "new@post.example"))),
                Map.entry(
                        "PUT /api/account/password",
                        () -> List.of(Map.of("before", "not this", "password", "long enough"))),
                Map.entry(
                        "POST /api/school/staff",
                        () -> List.of(Map.of("title", "Ms", "given", "Ada", "family", "New", "email", ""))),
                Map.entry("PUT /api/school/address", () -> List.of(Map.of("address", "http://porch.example"))),
                Map.entry("PUT /api/classes/{}/mail", () -> List.of(Map.of("rule", "OFFERED", "seen", "OFF"))),
                Map.entry(
                        "POST /api/classes/{}/private-blogs",
                        () -> List.of(Map.of("address", "members.example/another", "title", "Members"))),
                Map.entry("PUT /api/classes/{}/gone-posts", () -> List.of(Map.of("rule", "KEEP", "seen", "ASK"))),
                Map.entry("POST /api/posts/{}/gone", () -> List.of(Map.of("hide", false))),
                Map.entry("POST /api/subscriptions/offers/{}", () -> List.of(Map.of("posts", "NEVER"))),
                Map.entry(
                        "PUT /api/classes/{}/sources/rule", () -> List.of(Map.of("own", "FREE", "seen", "STAFF_ONLY"))),
                Map.entry("PUT /api/school/findable", () -> List.of(Map.of("findable", true))),
                Map.entry(
                        "PUT /api/classes/{}/front-page",
                        () -> List.of(
                                Map.of(
                                        "address",
                                        "another-porch",
                                        "findable",
                                        true,
                                        "peoplePages",
                                        true,
                                        "version",
                                        jdbc.sql("select version from class where id = :id")
                                                .param("id", id)
                                                .query(Integer.class)
                                                .optional()
                                                .orElse(0)),
                                stale(Map.of(
                                        "address",
                                        "another-porch",
                                        "findable",
                                        true,
                                        "peoplePages",
                                        true,
                                        "version",
                                        0)))));
        return of.getOrDefault(call.of(), List::of).get();
    }

    /** Decisions about every text, waiting or not, as it stands and with guessed numbers. */
    private List<Object> decisions() {
        List<Object> all = new ArrayList<>();
        for (String subject : List.of("post", "comment"))
            for (Object id : school.things.get(subject))
                for (String step : List.of("APPROVE", "HIDE", "BIN")) {
                    long number = (long) id;
                    int judged = subject.equals("comment")
                            ? 1
                            : jdbc.sql("""
                                                    select case when live is not null and state <> 'WAITING'
                                                        then live else coalesce(working, live) end
                                                     from post
                                                     where id = :id""").param("id", id).query(Integer.class).single();
                    Object decision = deciding(step, subject, number, judged, rev(subject, number));
                    all.add(inPile(subject, number) ? decision : new Never(decision, "M"));
                    if (step.equals("APPROVE"))
                        all.addAll(List.of(
                                stale(deciding(step, subject, number, judged, 0)),
                                stale(deciding(step, subject, number, 1, 99))));
                }
        return all;
    }

    private boolean inPile(String subject, long id) {
        return jdbc.sql("select waiting_since is not null and state <> 'BINNED' from " + subject + " where id = :id")
                .param("id", id)
                .query(Boolean.class)
                .single();
    }

    private static Map<String, Object> deciding(String step, String subject, long id, int version, int rev) {
        return Map.of(
                "step",
                step,
                "note",
                "",
                "items",
                List.of(Map.of("subject", subject, "id", id, "version", version, "rev", rev)));
    }

    private int rev(String table, long id) {
        return jdbc.sql("select rev from " + table + " where id = :id")
                .param("id", id)
                .query(Integer.class)
                .optional()
                .orElse(0);
    }

    private int secondReading(long prompt) {
        return jdbc.sql("select max(rev) from review where prompt_id = :prompt and kind = 'SECOND'")
                .param("prompt", prompt)
                .query((row, n) -> row.getInt(1))
                .single();
    }

    private String summary(long recording) {
        return jdbc.sql("select summary from recording where id = :id")
                .param("id", recording)
                .query(String.class)
                .optional()
                .orElse("");
    }

    /** The state of what the author said of a paper. */
    private int ownView(long prompt) {
        return jdbc.sql("select max(rev) from review where prompt_id = :prompt and student_id = :student")
                .param("prompt", prompt)
                .param("student", school.who('S').id)
                .query((row, n) -> row.getInt(1))
                .single();
    }

    private int review(long id) {
        return jdbc.sql("select max(rev) from review where id = :id")
                .param("id", id)
                .query((row, n) -> row.getInt(1))
                .single();
    }

    private int warmUp(long id) {
        return jdbc.sql("select max(rev) from warm_up where id = :id")
                .param("id", id)
                .query((row, n) -> row.getInt(1))
                .single();
    }

    private Map<String, Object> seen(long prompt) {
        return jdbc.sql("""
                                select p.id, p.handed_no, coalesce(m.rev, 0) as rev
                                 from post p
                                 left join marking m on m.prompt_id = p.prompt_id and m.student_id = p.author_id
                                 where p.prompt_id = :id
                                 limit 1""")
                .param("id", prompt)
                .query((row, n) -> Map.<String, Object>of(
                        "posts",
                        List.of(Map.of("post", row.getLong("id"), "version", row.getInt("handed_no"))),
                        "comments",
                        0,
                        "rev",
                        row.getInt("rev")))
                .optional()
                .orElse(guess());
    }

    /** A note beside words of the post that answers a prompt. */
    private Map<String, Object> note(long prompt, String quote) {
        return jdbc.sql("select id, handed_no from post where prompt_id = :id limit 1")
                .param("id", prompt)
                .query((row, n) -> Map.<String, Object>of(
                        "post",
                        row.getLong("id"),
                        "version",
                        row.getInt("handed_no"),
                        "quote",
                        quote,
                        "nth",
                        0,
                        "text",
                        "How many?"))
                .optional()
                .orElse(Map.of("post", 1, "version", 1, "quote", quote, "nth", 0, "text", "How many?"));
    }

    private String noteText(long id) {
        return jdbc.sql("select text from paper_note where id = :id")
                .param("id", id)
                .query(String.class)
                .optional()
                .orElse("");
    }

    private Map<String, Object> marksRow(Map<String, Object> seen) {
        return Map.of("student", school.who('S').id, "seen", seen, "marks", List.of(), "word", "Well seen.");
    }

    static Map<String, Object> keptRubric(int rev) {
        return Map.of(
                "name",
                "Steps for logs",
                "rubric",
                Map.of(
                        "criteria",
                        List.of(Map.of(
                                "id",
                                "",
                                "name",
                                "Voice",
                                "weight",
                                1,
                                "levels",
                                List.of(
                                        Map.of("name", "low", "points", 0, "descriptor", ""),
                                        Map.of("name", "high", "points", 1, "descriptor", "")),
                                "counted",
                                List.of()))),
                "rev",
                rev);
    }

    private static Map<String, Object> guess() {
        return Map.of("posts", List.of(Map.of("post", 1, "version", 1)), "comments", 0, "rev", 77);
    }

    private static Map<String, Object> saving(int rev) {
        return Map.of(
                "rev",
                rev,
                "title",
                "Otherwise",
                "html",
                "<p>Otherwise.</p>",
                "tags",
                List.of(),
                "audience",
                "MY_CLASS");
    }

    Answer call(char role, Call call, String... headers) {
        if (call.method().equals("POST") && UPLOADS.stream().anyMatch(call.of()::endsWith))
            return school.who(role).upload(call.path(), "leaf.png", CanarySchool.png(6));
        return school.who(role).call(call.method(), call.path(), call.body(), headers);
    }

    /** The secrets in an answer. */
    List<Canary> seenIn(Call call, Answer answer) {
        StringBuilder all = new StringBuilder(answer.text());
        answer.raw().headers().map().forEach((name, values) -> {
            if (!name.equalsIgnoreCase("set-cookie")) all.append('\n').append(values);
        });
        TreeSet<String> tokens = new TreeSet<>();
        Matcher found = TOKEN.matcher(all);
        while (found.find()) tokens.add(found.group());
        List<Canary> seen = new ArrayList<>();
        for (Canary canary : school.canaries)
            if (tokens.contains(canary.token()) || canary.kind().equals("feed-key") && all.indexOf(canary.token()) >= 0)
                seen.add(canary);
        school.files.forEach((address, canary) -> {
            boolean served = call.path().replaceFirst("\\?.*", "").equals(address) && answer.status() < 300;
            if (served || !call.path().startsWith("/media") && all.indexOf(canary.token()) >= 0) seen.add(canary);
        });
        return seen;
    }
}
