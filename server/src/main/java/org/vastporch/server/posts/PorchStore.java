package org.vastporch.server.posts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.text.Folding;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.http.Rows;

/** What readers get: posts that are up, narrowed by the reader's scope. */
@Repository
class PorchStore {

    /** One condition with its value, added where it is given. */
    record Filter(@Nullable Instant from, @Nullable Instant to, @Nullable Long person, @Nullable Long group, @Nullable Long prompt, @Nullable String tag, boolean unanswered) {
        static final Filter ALL = new Filter(null, null, null, null, null, null, false);
    }

    record Entry(long id, String title, String firstLines, String html, String picture, String tags, long authorId, String blogTitle, @Nullable Long promptId,
                 @Nullable String promptTitle, @Nullable String outsideLink, @Nullable String sourceTitle, Instant publishedAt, Instant changedAt,
                 int comments, int answers, @Nullable Long lastCommenter, boolean unread) {}

    record Count(String key, String label, int count) {}

    private static final String WHERE = " where p.class_id = :classId and " + ScopeSql.UP + " and p.published_at <= :scope_now and ";
    private static final String ANSWERS = """
        (select count(*) from comment k where k.post_id = p.id and k.state = 'PUBLISHED' and k.author_id <> coalesce(p.author_id, 0))""";

    private final JdbcClient jdbc;

    PorchStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The newest first, {@code most} at the most, those after the cursor (a moment and an id) if one is given. */
    List<Entry> entries(ScopeSql scope, long classId, long reader, Filter filter, @Nullable Instant beforeAt, long beforeId, int most) {
        Map<String, Object> params = new HashMap<>(scope.params());
        String narrowed = narrow(filter, params);
        if (beforeAt != null) {
            narrowed += " and (p.published_at, p.id) < (:beforeAt, :beforeId)";
            params.put("beforeAt", Rows.utc(beforeAt));
            params.put("beforeId", beforeId);
        }
        return jdbc.sql("""
                select p.id, v.title, v.first_lines, v.html, v.first_picture, v.tags, p.author_id, b.title as blog_title, p.prompt_id, q.title as prompt_title,
                       p.outside_link, s.title as source_title, p.published_at, v.saved_at,
                       (select count(*) from comment k where k.post_id = p.id and k.state = 'PUBLISHED') as comments,
                       """ + ANSWERS + """
                        as answers,
                       (select k.author_id from comment k where k.post_id = p.id and k.state = 'PUBLISHED' order by k.published_at desc, k.id desc limit 1) as last_commenter,
                       not exists (select 1 from seen e where e.post_id = p.id and e.person_id = :reader) as unread
                  from """ + " " + ScopeSql.TABLES + """
                  join post_version v on v.post_id = p.id and v.no = p.live
                  left join prompt q on q.id = p.prompt_id
                  left join source s on s.id = p.source_id
                """ + WHERE + scope.condition() + narrowed + " order by p.class_id, p.published_at desc, p.id desc limit :most")
            .params(params).param("classId", classId).param("reader", reader).param("most", most).query((row, n) -> entry(row)).list();
    }

    /** When each post in scope was published, for counting by week. */
    List<Instant> moments(ScopeSql scope, long classId, Filter filter) {
        Map<String, Object> params = new HashMap<>(scope.params());
        String narrowed = narrow(filter, params);
        return jdbc.sql("select p.published_at from " + ScopeSql.TABLES + WHERE + scope.condition() + narrowed)
            .params(params).param("classId", classId).query((row, n) -> Rows.instant(row, "published_at")).list();
    }

    /** How many posts of a range answer each prompt. */
    List<Count> byPrompt(ScopeSql scope, long classId, Filter range) {
        return counts("select q.id as k, q.title as l, count(*) as c from " + ScopeSql.TABLES + " join prompt q on q.id = p.prompt_id", " group by q.id, q.title order by max(q.due_at) desc", scope, classId, range);
    }

    List<Count> byTag(ScopeSql scope, long classId, Filter range) {
        return counts("select t.folded as k, min(t.tag) as l, count(*) as c from " + ScopeSql.TABLES + " join post_tag t on t.post_id = p.id", " group by t.folded order by c desc, k limit 16", scope, classId, range);
    }

    int unanswered(ScopeSql scope, long classId, Filter range) {
        Filter none = new Filter(range.from(), range.to(), range.person(), range.group(), range.prompt(), range.tag(), true);
        return moments(scope, classId, none).size();
    }

    /** How many posts the reader has not opened yet. */
    int unread(ScopeSql scope, long classId, long reader, Filter filter) {
        Map<String, Object> params = new HashMap<>(scope.params());
        String narrowed = narrow(filter, params);
        return jdbc.sql("select count(*) from " + ScopeSql.TABLES + WHERE + scope.condition() + narrowed
                + " and not exists (select 1 from seen e where e.post_id = p.id and e.person_id = :reader)")
            .params(params).param("classId", classId).param("reader", reader).query(Integer.class).single();
    }

    private List<Count> counts(String select, String group, ScopeSql scope, long classId, Filter range) {
        Map<String, Object> params = new HashMap<>(scope.params());
        String narrowed = narrow(range, params);
        return jdbc.sql(select + WHERE + scope.condition() + narrowed + group).params(params).param("classId", classId)
            .query((row, n) -> new Count(row.getString("k"), row.getString("l"), row.getInt("c"))).list();
    }

    void markSeen(long personId, long postId, Instant now) {
        jdbc.sql("merge into seen (person_id, post_id, seen_at) key (person_id, post_id) values (:person, :post, :now)")
            .param("person", personId).param("post", postId).param("now", Rows.utc(now)).update();
    }

    Optional<String> sourceTitle(long sourceId) {
        return jdbc.sql("select title from source where id = :id").param("id", sourceId).query(String.class).optional();
    }

    private static String narrow(Filter filter, Map<String, Object> params) {
        StringBuilder sql = new StringBuilder();
        and(sql, params, " and p.published_at >= :from", "from", filter.from() == null ? null : Rows.utc(filter.from()));
        and(sql, params, " and p.published_at < :to", "to", filter.to() == null ? null : Rows.utc(filter.to()));
        and(sql, params, " and p.author_id = :person", "person", filter.person());
        and(sql, params, " and am.group_id = :inGroup", "inGroup", filter.group());
        and(sql, params, " and p.prompt_id = :prompt", "prompt", filter.prompt());
        and(sql, params, " and exists (select 1 from post_tag t where t.post_id = p.id and t.folded = :tag)", "tag", filter.tag() == null ? null : Folding.fold(filter.tag()));
        if (filter.unanswered()) sql.append(" and ").append(ANSWERS).append(" = 0");
        return sql.toString();
    }

    private static void and(StringBuilder sql, Map<String, Object> params, String condition, String name, @Nullable Object value) {
        if (value == null) return;
        sql.append(condition);
        params.put(name, value);
    }

    private static Entry entry(ResultSet row) throws SQLException {
        return new Entry(row.getLong("id"), row.getString("title"), row.getString("first_lines"), row.getString("html"), row.getString("first_picture"), row.getString("tags"),
            row.getLong("author_id"), row.getString("blog_title"), Rows.number(row, "prompt_id"), row.getString("prompt_title"), row.getString("outside_link"),
            row.getString("source_title"), Rows.instant(row, "published_at"), Rows.instant(row, "saved_at"), row.getInt("comments"), row.getInt("answers"),
            Rows.number(row, "last_commenter"), row.getBoolean("unread"));
    }
}
