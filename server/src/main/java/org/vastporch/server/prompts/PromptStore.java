package org.vastporch.server.prompts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.marking.LateRule;
import org.vastporch.core.prompts.Answers;
import org.vastporch.core.prompts.Peers;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.rows.Rows;
import tools.jackson.databind.json.JsonMapper;

@Repository
class PromptStore {

    private static final String COLUMNS = """
        p.id, p.class_id, p.title, p.instructions, p.questions, p.tag, p.opens_at, p.due_at, p.grace_minutes, p.late_per_day, p.late_cap, p.late_floor,
        p.points, p.places, p.asked_words, p.asked_pictures, p.asked_tags, p.asked_links, p.asked_comments, p.asked_category, p.asked_sources,
        p.comments_due_at, p.comments_words, p.starter, p.example, p.answer_first, p.asked_posts, p.by_groups, p.also_category, p.also_tag,
        p.also_time, p.comments_first, p.closes_at, p.names_until, p.into_blog, p.into_set, p.series, p.bundle_id, p.rubric_hidden, p.self_review, p.self_share, p.peers, p.rev, r.definition,
        (select listagg(n.post_id, ',') within group (order by n.post_id)
           from prompt_comment_on n where n.prompt_id = p.id) as comment_on""";

    /** What is written of a prompt when it is set, and when it is changed. */
    private static final List<String> WRITTEN = List.of(
            "title",
            "instructions",
            "questions",
            "tag",
            "opens_at",
            "due_at",
            "grace_minutes",
            "late_per_day",
            "late_cap",
            "late_floor",
            "points",
            "places",
            "rubric_id",
            "asked_words",
            "asked_pictures",
            "asked_tags",
            "asked_links",
            "asked_comments",
            "asked_category",
            "asked_sources",
            "comments_due_at",
            "comments_words",
            "starter",
            "example",
            "answer_first",
            "asked_posts",
            "by_groups",
            "also_category",
            "also_tag",
            "also_time",
            "comments_first",
            "closes_at",
            "names_until",
            "into_blog",
            "into_set",
            "series",
            "bundle_id",
            "rubric_hidden",
            "self_review",
            "self_share",
            "peers",
            "peers_due_at");

    private final JdbcClient jdbc;
    private final JsonMapper json;

    PromptStore(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** @param root the first version of the rubric; null if this is it */
    long addRubric(long classId, String name, Rubric rubric, @Nullable Long root, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into rubric (class_id, name, definition, root_id, created_at)
                values (:classId, :name, :definition, :root, :now)""")
                .param("classId", classId)
                .param("name", name)
                .param("definition", json.writeValueAsString(rubric))
                .param("root", root)
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** The rubric of a prompt by its number, and the first version of it. */
    record RubricKey(long id, long root) {}

    Optional<RubricKey> rubricOf(long promptId) {
        return jdbc.sql("""
                select r.id, coalesce(r.root_id, r.id) as root
                  from prompt p
                  join rubric r on r.id = p.rubric_id
                 where p.id = :id""")
                .param("id", promptId)
                .query((row, n) -> new RubricKey(row.getLong("id"), row.getLong("root")))
                .optional();
    }

    long add(Prompt prompt, @Nullable Long rubricId, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        Map<String, Object> params = written(prompt, rubricId);
        params.put("class_id", prompt.classId());
        params.put("now", Rows.utc(now));
        jdbc.sql("insert into prompt (class_id, created_at, " + String.join(", ", WRITTEN)
                        + ") values (:class_id, :now, :" + String.join(", :", WRITTEN) + ")")
                .params(params)
                .update(key, "id");
        long id = key.getKey().longValue();
        nameToAnswer(id, prompt.answers().commentOn());
        return id;
    }

    void change(Prompt prompt, @Nullable Long rubricId) {
        Map<String, Object> params = written(prompt, rubricId);
        params.put("id", prompt.id());
        jdbc.sql("update prompt set "
                        + WRITTEN.stream()
                                .map(column -> column + " = :" + column)
                                .collect(Collectors.joining(", "))
                        + ", rev = rev + 1 where id = :id")
                .params(params)
                .update();
        nameToAnswer(prompt.id(), prompt.answers().commentOn());
    }

    private Map<String, Object> written(Prompt prompt, @Nullable Long rubricId) {
        Map<String, Object> params = new HashMap<>();
        params.put("title", prompt.title());
        params.put("instructions", prompt.instructions());
        params.put("questions", String.join("\n", prompt.questions()));
        params.put("tag", prompt.tag());
        params.put("opens_at", Rows.utc(prompt.opens()));
        params.put("due_at", Rows.utc(prompt.due()));
        params.put("grace_minutes", prompt.grace().toMinutes());
        params.put("late_per_day", prompt.late().perDay());
        params.put("late_cap", prompt.late().cap());
        params.put("late_floor", prompt.late().floor());
        params.put("points", prompt.points());
        params.put("places", prompt.places());
        params.put("rubric_id", rubricId);
        params.put("asked_words", prompt.asked().words());
        params.put("asked_pictures", prompt.asked().pictures());
        params.put("asked_tags", prompt.asked().tags());
        params.put("asked_links", prompt.asked().links());
        params.put("asked_comments", prompt.asked().comments());
        params.put("asked_category", prompt.asked().category());
        params.put("asked_sources", prompt.asked().sources());
        params.put("comments_due_at", Rows.utc(prompt.commentsDue()));
        params.put("comments_words", prompt.commentsWords());
        params.put("starter", prompt.starter());
        params.put("example", prompt.example());
        params.put("answer_first", prompt.answers().ownFirst());
        params.put("asked_posts", prompt.answers().posts());
        params.put("by_groups", prompt.answers().byGroups());
        params.put("also_category", prompt.answers().also().category());
        params.put("also_tag", prompt.answers().also().tag());
        params.put("also_time", prompt.answers().also().time());
        params.put("comments_first", prompt.answers().commentsFirst());
        params.put("rubric_hidden", prompt.rubricHidden());
        params.put("self_review", prompt.reviews().self().name());
        params.put("self_share", prompt.reviews().selfShare());
        Peers peers = prompt.reviews().peers();
        params.put("peers", peers == null ? null : json.writeValueAsString(peers));
        params.put("peers_due_at", peers == null ? null : Rows.utc(peers.due()));
        params.put("closes_at", Rows.utc(prompt.closes()));
        params.put("names_until", Rows.utc(prompt.answers().namesUntil()));
        Answers.Into into = prompt.answers().into();
        params.put("into_blog", into == null || into.isEach() ? null : into.id());
        params.put("into_set", into == null || !into.isEach() ? null : into.id());
        params.put("series", prompt.series());
        params.put("bundle_id", prompt.bundleId());
        return params;
    }

    private void nameToAnswer(long promptId, List<Long> posts) {
        jdbc.sql("delete from prompt_comment_on where prompt_id = :id")
                .param("id", promptId)
                .update();
        for (long post : posts)
            jdbc.sql("insert into prompt_comment_on (prompt_id, post_id) values (:id, :post)")
                    .param("id", promptId)
                    .param("post", post)
                    .update();
    }

    boolean hasCategory(long classId, long category) {
        return jdbc.sql("select exists (select 1 from category where id = :id and class_id = :classId)")
                .param("id", category)
                .param("classId", classId)
                .query(Boolean.class)
                .single();
    }

    /** Whether a blog, or a set, of a class is one in which its students write. */
    boolean isWrittenIn(long classId, Answers.Into into) {
        return jdbc.sql("select exists (select 1 from " + (into.isEach() ? "blog_set" : "blog")
                        + " where id = :id and class_id = :classId and kind <> 'TEACHERS'"
                        + (into.isEach() ? ")" : " and owner_id is null)"))
                .param("id", into.id())
                .param("classId", classId)
                .query(Boolean.class)
                .single();
    }

    /** How many of these posts stand in a class. */
    int postsOf(long classId, Collection<Long> posts) {
        if (posts.isEmpty()) return 0;
        return jdbc.sql("select count(*) from post where id in (:posts) and class_id = :classId")
                .param("posts", posts)
                .param("classId", classId)
                .query(Integer.class)
                .single();
    }

    void setSeries(long id, long series) {
        jdbc.sql("update prompt set series = :series where id = :id")
                .param("series", series)
                .param("id", id)
                .update();
    }

    /** Notes of which prompt one is a copy; of a copy, of which that is one. */
    void setCopyOf(long id, long copied) {
        jdbc.sql("update prompt set copy_of = (select coalesce(c.copy_of, c.id) from prompt c where c.id = :copied)"
                        + " where id = :id")
                .param("copied", copied)
                .param("id", id)
                .update();
    }

    List<Long> withEarlier(long id) {
        return jdbc.sql("""
                select o.id
                  from prompt p
                  join prompt o on o.id = coalesce(p.copy_of, p.id) or o.copy_of = coalesce(p.copy_of, p.id)
                 where p.id = :id and (o.id = p.id or o.due_at < p.due_at)
                 order by o.id""").param("id", id).query(Long.class).list();
    }

    /** Locks a prompt until the transaction ends. */
    void lock(long id) {
        jdbc.sql("select id from prompt where id = :id for update")
                .param("id", id)
                .query(Long.class)
                .optional();
    }

    Optional<Prompt> find(long id) {
        return jdbc.sql("select " + COLUMNS
                        + " from prompt p left join rubric r on r.id = p.rubric_id where p.id = :id")
                .param("id", id)
                .query((row, n) -> prompt(row))
                .optional();
    }

    List<Prompt> all(Collection<Long> ids) {
        if (ids.isEmpty()) return List.of();
        return jdbc.sql("select " + COLUMNS
                        + " from prompt p left join rubric r on r.id = p.rubric_id where p.id in (:ids)")
                .param("ids", ids)
                .query((row, n) -> prompt(row))
                .list();
    }

    List<Prompt> ofClasses(Collection<Long> classIds) {
        if (classIds.isEmpty()) return List.of();
        return jdbc.sql("select " + COLUMNS
                        + " from prompt p left join rubric r on r.id = p.rubric_id where "
                        + "p.class_id in (:classIds) order by p.due_at desc, p.id desc")
                .param("classIds", classIds)
                .query((row, n) -> prompt(row))
                .list();
    }

    List<PromptService.Named> answerFirst(long classId, Instant openAt) {
        return jdbc.sql("""
                select id, title from prompt where class_id = :classId and answer_first and opens_at <= :now
                 order by due_at desc, id desc""")
                .param("classId", classId)
                .param("now", Rows.utc(openAt))
                .query((row, n) -> new PromptService.Named(row.getLong("id"), row.getString("title")))
                .list();
    }

    /** @param openAt only of those that are open then; null for all */
    List<Instant> dueTimes(long classId, @Nullable Instant openAt) {
        return jdbc.sql("select due_at from prompt where class_id = :classId"
                        + (openAt == null ? "" : " and opens_at <= :now") + " order by due_at desc, id desc")
                .param("classId", classId)
                .param("now", Rows.utc(openAt))
                .query((row, n) -> Rows.instant(row, "due_at"))
                .list();
    }

    List<Long> idsOf(long classId) {
        return jdbc.sql("select id from prompt where class_id = :classId")
                .param("classId", classId)
                .query(Long.class)
                .list();
    }

    boolean hasAny(long classId) {
        return jdbc.sql("select exists (select 1 from prompt where class_id = :classId)")
                .param("classId", classId)
                .query(Boolean.class)
                .single();
    }

    private static Answers answers(ResultSet row) throws SQLException {
        String named = row.getString("comment_on");
        return new Answers(
                row.getInt("asked_posts"),
                row.getBoolean("answer_first"),
                row.getBoolean("by_groups"),
                row.getBoolean("comments_first"),
                named == null
                        ? List.of()
                        : Arrays.stream(named.split(",")).map(Long::valueOf).toList(),
                new Answers.Also(
                        Rows.number(row, "also_category"), row.getBoolean("also_tag"), row.getBoolean("also_time")),
                into(Rows.number(row, "into_blog"), Rows.number(row, "into_set")),
                Rows.instant(row, "names_until"));
    }

    private static Answers.@Nullable Into into(@Nullable Long blog, @Nullable Long set) {
        if (blog == null && set == null) return null;
        return blog != null ? new Answers.Into(false, blog) : new Answers.Into(true, set);
    }

    private Prompt prompt(ResultSet row) throws SQLException {
        String rubric = row.getString("definition");
        String peers = row.getString("peers");
        return new Prompt(
                row.getLong("id"),
                row.getLong("class_id"),
                row.getString("title"),
                row.getString("instructions"),
                row.getString("questions").lines().filter(q -> !q.isBlank()).toList(),
                row.getString("tag"),
                Rows.instant(row, "opens_at"),
                Rows.instant(row, "due_at"),
                Duration.ofMinutes(row.getInt("grace_minutes")),
                new LateRule(
                        row.getBigDecimal("late_per_day"),
                        row.getBigDecimal("late_cap"),
                        row.getBigDecimal("late_floor")),
                row.getBigDecimal("points").stripTrailingZeros(),
                row.getInt("places"),
                new HandIn.Asked(
                        row.getInt("asked_words"),
                        row.getInt("asked_pictures"),
                        row.getInt("asked_tags"),
                        row.getInt("asked_category"),
                        row.getInt("asked_links"),
                        row.getInt("asked_sources"),
                        row.getInt("asked_comments")),
                Rows.instant(row, "comments_due_at"),
                row.getInt("comments_words"),
                row.getString("starter"),
                row.getString("example"),
                answers(row),
                Rows.instant(row, "closes_at"),
                Rows.number(row, "series"),
                Rows.number(row, "bundle_id"),
                row.getBoolean("rubric_hidden"),
                rubric == null ? null : json.readValue(rubric, Rubric.class),
                new Reviews(
                        Reviews.Self.valueOf(row.getString("self_review")),
                        row.getInt("self_share"),
                        peers == null ? null : json.readValue(peers, Peers.class)),
                row.getInt("rev"));
    }
}
