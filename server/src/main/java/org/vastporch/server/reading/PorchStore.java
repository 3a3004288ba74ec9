package org.vastporch.server.reading;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.text.Folding;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.rows.Rows;

/** What readers get: posts that are up, narrowed by the reader's scope. */
@Repository
class PorchStore {

    /** One condition with its value, added where it is given. */
    record Filter(
            @Nullable Instant from,
            @Nullable Instant to,
            @Nullable Long person,
            @Nullable Long group,
            @Nullable Long prompt,
            @Nullable String tag,
            @Nullable Long category,
            @Nullable Long source,
            boolean unanswered,
            @Nullable Long blog,
            boolean pinned,
            Kind kind) {
        static final Filter ALL = between(null, null);

        static Filter between(@Nullable Instant from, @Nullable Instant to) {
            return new Filter(from, to, null, null, null, null, null, null, false, null, false, Kind.POSTS);
        }

        Filter ofBlog(@Nullable Long other) {
            return new Filter(
                    from,
                    to,
                    person,
                    group,
                    prompt,
                    tag,
                    category,
                    source,
                    unanswered,
                    other,
                    pinned,
                    other == null ? kind : Kind.BOTH);
        }

        Filter ofPerson(@Nullable Long other) {
            return new Filter(from, to, other, group, prompt, tag, category, source, unanswered, blog, pinned, kind);
        }

        Filter onlyPinned() {
            return new Filter(from, to, person, group, prompt, tag, category, source, unanswered, blog, true, kind);
        }

        Filter onlyUnanswered() {
            return new Filter(from, to, person, group, prompt, tag, category, source, true, blog, pinned, kind);
        }

        /** The same without its limits in time. */
        Filter always() {
            return new Filter(null, null, person, group, prompt, tag, category, source, unanswered, blog, pinned, kind);
        }

        Filter of(Kind other) {
            return new Filter(from, to, person, group, prompt, tag, category, source, unanswered, blog, pinned, other);
        }
    }

    /**
     * Announcements of staff stand apart: they are among posts only where that is asked for, and in the blog in which
     * they were written.
     */
    enum Kind {
        POSTS,
        ANNOUNCEMENTS,
        BOTH
    }

    /** How many posts were published from a moment on, before the next. */
    record Moment(Instant at, int count) {}

    /** Where a page begins, and how it is read. Without a moment it begins at the beginning. */
    record Page(@Nullable Instant at, long id, boolean oldestFirst, int most) {
        /** Whether a post stands behind the beginning. */
        boolean isAhead(Instant published, long post) {
            if (at == null) return true;
            int order = published.equals(at) ? Long.compare(post, id) : published.compareTo(at);
            return oldestFirst ? order > 0 : order < 0;
        }
    }

    /** What a reader finds in one blog. */
    record InBlog(long blogId, String title, String address, int posts, int comments, Instant newest) {}

    /** A part of a series. */
    record Part(String series, int part, long postId, String title) {}

    /**
     * @param isNamed whether its reader may know who wrote it
     * @param keepsNames whether the names of who comments are kept from its reader
     */
    record Entry(
            long id,
            String title,
            String firstLines,
            String picture,
            String tags,
            long authorId,
            boolean isNamed,
            boolean keepsNames,
            String blogTitle,
            String blogAddress,
            @Nullable Long promptId,
            @Nullable String promptTitle,
            @Nullable String outsideLink,
            @Nullable String sourceTitle,
            Instant publishedAt,
            Instant changedAt) {}

    /** A post with its whole text, both as of one moment. */
    record Text(Entry entry, String html) {}

    record Count(String key, String label, int count) {}

    private static final String WHERE =
            " where p.class_id = :classId and " + ScopeSql.UP + " and p.published_at <= :scope_now and ";
    private static final String ANSWERS = """
        (select count(*) from comment k where k.post_id = p.id and k.state = 'PUBLISHED' and k.author_id <> coalesce(p.author_id, 0))""";

    private static final String ENTRY = """
        p.id, v.title, v.first_lines, v.first_picture, v.tags, p.author_id, b.title as blog_title,
               b.address, p.prompt_id, answered.title as prompt_title, p.outside_link, s.title as source_title,
               p.published_at, v.saved_at""" + " ";
    private static final String FROM = " from " + ScopeSql.TABLES + """
          join post_version v on v.post_id = p.id and v.no = p.live
          left join source s on s.id = p.source_id
        """;

    private final JdbcClient jdbc;

    PorchStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The newest posts in scope. */
    List<Entry> newest(ScopeSql scope, long classId, Filter filter, int most) {
        return newest(entryFor(scope), scope, classId, filter, new Page(null, 0, false, most))
                .query((row, n) -> entry(row))
                .list();
    }

    /** The newest posts behind the beginning of a page, with their texts. */
    List<Text> newestTexts(ScopeSql scope, long classId, Filter filter, Page page) {
        return newest(entryFor(scope) + ", v.html", scope, classId, filter, page)
                .query((row, n) -> new Text(entry(row), row.getString("html")))
                .list();
    }

    private static String entryFor(ScopeSql scope) {
        return "select " + scope.namesAuthor() + " as is_named, " + scope.keepsNames() + " as keeps_names, " + ENTRY;
    }

    private JdbcClient.StatementSpec newest(String select, ScopeSql scope, long classId, Filter filter, Page page) {
        Map<String, Object> params = new HashMap<>(scope.params());
        String narrowed = narrow(scope, filter, params);
        if (page.at() != null) {
            narrowed += " and (p.published_at < :at or p.published_at = :at and p.id < :behind)";
            params.put("at", Rows.utc(page.at()));
            params.put("behind", page.id());
        }
        return jdbc.sql(select + FROM + WHERE + scope.condition() + narrowed
                        + " order by p.class_id, p.published_at desc, p.id desc limit :most")
                .params(params)
                .param("classId", classId)
                .param("most", page.most());
    }

    /**
     * Some posts in scope, in the order in which they are asked for. What left the scope since they were counted is
     * left out: who may read a text and the text itself come from one moment.
     */
    List<Entry> entries(ScopeSql scope, long classId, List<Long> ids) {
        Map<Long, Entry> found = new HashMap<>();
        jdbc.sql(entryFor(scope) + FROM + WHERE + scope.condition() + " and p.id = any(:ids)")
                .params(scope.params())
                .param("classId", classId)
                .param("ids", ids.toArray(Long[]::new))
                .query((row, n) -> entry(row))
                .list()
                .forEach(e -> found.put(e.id(), e));
        return ids.stream().map(found::get).filter(Objects::nonNull).toList();
    }

    /** When the posts in scope were published, by quarters of an hour: no day anywhere begins within one. */
    List<Moment> moments(ScopeSql scope, long classId, Filter filter) {
        Map<String, Object> params = new HashMap<>(scope.params());
        String narrowed = narrow(scope, filter, params);
        return jdbc.sql("select floor(extract(epoch from p.published_at) / 900) as quarter, count(*) as c from "
                        + ScopeSql.TABLES + WHERE + scope.condition() + narrowed + " group by quarter")
                .params(params)
                .param("classId", classId)
                .query((row, n) -> new Moment(Instant.ofEpochSecond(row.getLong("quarter") * 900), row.getInt("c")))
                .list();
    }

    int count(ScopeSql scope, long classId, Filter filter) {
        Map<String, Object> params = new HashMap<>(scope.params());
        String narrowed = narrow(scope, filter, params);
        return jdbc.sql("select count(*) from " + ScopeSql.TABLES + WHERE + scope.condition() + narrowed)
                .params(params)
                .param("classId", classId)
                .query(Integer.class)
                .single();
    }

    int unanswered(ScopeSql scope, long classId, Filter range) {
        return count(scope, classId, range.onlyUnanswered());
    }

    /** The posts of a range as they are counted, for a reader who has opened none of them yet. */
    PorchCounts counts(ScopeSql scope, long classId, long reader, Filter range) {
        Map<String, Object> params = new HashMap<>(scope.params());
        String narrowed = narrow(scope, range, params);
        List<PorchCounts.Post> posts = jdbc.sql("""
                select """ + " " + scope.namesAuthor() + """
                       as is_named, p.id, p.published_at, p.author_id, am.group_id, p.prompt_id, answered.title as prompt_title,
                       answered.due_at,
                       p.category_id, g.name as category_name, g.place, p.source_id, s.title as source_title
                  from """ + " " + ScopeSql.TABLES + """
                  left join category g on g.id = p.category_id
                  left join source s on s.id = p.source_id
                """
                        + WHERE + scope.condition() + narrowed)
                .params(params)
                .param("classId", classId)
                .query((row, n) -> counted(row))
                .list();
        List<Long> ids = posts.stream().map(PorchCounts.Post::id).toList();
        Map<Long, List<PorchCounts.Tag>> tags = new HashMap<>();
        jdbc.sql("select post_id, folded, tag from post_tag where post_id = any(:posts)")
                .param("posts", ids.toArray(Long[]::new))
                .query(row -> {
                    tags.computeIfAbsent(row.getLong("post_id"), id -> new ArrayList<>())
                            .add(new PorchCounts.Tag(row.getString("folded"), row.getString("tag")));
                });
        return new PorchCounts(posts, tags, new Around(reader, voices(ids), Set.of()));
    }

    /**
     * A post of a student that no classmate has answered, or that is put up for an answer.
     *
     * @param isNamed whether its reader may know who wrote it
     * @param group of its author; null for none
     */
    record Unanswered(
            long id,
            long authorId,
            boolean isNamed,
            @Nullable Long group,
            Instant publishedAt) {}

    /** Those in scope that went up in a stretch of time, so that few are looked at; announcements are none. */
    List<Unanswered> unanswered(ScopeSql scope, long classId, Instant from, Instant to) {
        return jdbc.sql("select " + scope.namesAuthor()
                        + " as is_named, p.id, p.author_id, am.group_id, p.published_at from "
                        + ScopeSql.TABLES + WHERE + scope.condition() + """
                         and p.published_at >= :from and p.published_at < :to and not p.announcement
                         and am.role = 'STUDENT'
                         and (exists (select 1 from answer_wanted w where w.post_id = p.id)
                              or not exists (select 1
                                               from comment k
                                               join membership km on km.class_id = k.class_id and km.person_id = k.author_id
                                              where k.post_id = p.id and k.state = 'PUBLISHED' and km.role = 'STUDENT'
                                                and k.author_id <> p.author_id))""")
                .params(scope.params())
                .param("classId", classId)
                .param("from", Rows.utc(from))
                .param("to", Rows.utc(to))
                .query((row, n) -> new Unanswered(
                        row.getLong("id"),
                        row.getLong("author_id"),
                        row.getBoolean("is_named"),
                        Rows.number(row, "group_id"),
                        Rows.instant(row, "published_at")))
                .list();
    }

    /** What is around some posts for a reader, who may read them. */
    Around around(long reader, List<Long> posts) {
        return new Around(reader, voices(posts), seen(reader, posts));
    }

    private Map<Long, List<Around.Voice>> voices(List<Long> posts) {
        Map<Long, List<Around.Voice>> voices = new HashMap<>();
        jdbc.sql("""
                select post_id, author_id, count(*) as comments, max(published_at) as newest, max(id) as newest_id
                  from comment where post_id = any(:posts) and state = 'PUBLISHED' group by post_id, author_id""").param("posts", posts.toArray(Long[]::new)).query(row -> {
            voices.computeIfAbsent(row.getLong("post_id"), id -> new ArrayList<>())
                    .add(new Around.Voice(
                            Rows.number(row, "author_id"),
                            row.getInt("comments"),
                            Rows.instant(row, "newest"),
                            row.getLong("newest_id")));
        });
        return voices;
    }

    /** Those of some posts that a reader has opened. */
    Set<Long> seen(long reader, List<Long> posts) {
        return new HashSet<>(jdbc.sql("select post_id from seen where person_id = :reader and post_id = any(:posts)")
                .param("reader", reader)
                .param("posts", posts.toArray(Long[]::new))
                .query(Long.class)
                .list());
    }

    private static PorchCounts.Post counted(ResultSet row) throws SQLException {
        Long prompt = Rows.number(row, "prompt_id");
        Long category = Rows.number(row, "category_id");
        Long source = Rows.number(row, "source_id");
        return new PorchCounts.Post(
                row.getLong("id"),
                Rows.instant(row, "published_at"),
                row.getLong("author_id"),
                row.getBoolean("is_named"),
                Rows.number(row, "group_id"),
                prompt == null
                        ? null
                        : new PorchCounts.Prompt(prompt, row.getString("prompt_title"), Rows.instant(row, "due_at")),
                category == null
                        ? null
                        : new PorchCounts.Category(category, row.getString("category_name"), row.getInt("place")),
                source == null ? null : new PorchCounts.Source(source, row.getString("source_title")));
    }

    /**
     * What was published in each blog of a class, as far as it is in scope; blogs with nothing in scope are left out.
     */
    List<InBlog> byBlog(ScopeSql scope, long classId) {
        return jdbc.sql("""
                select p.blog_id, b.title, b.address, count(*) as posts, max(p.published_at) as newest,
                       sum((select count(*) from comment k where k.post_id = p.id and k.state = 'PUBLISHED')) as comments
                  from """ + " " + ScopeSql.TABLES + WHERE + scope.condition()
                        + " group by p.blog_id, b.title, b.address")
                .params(scope.params())
                .param("classId", classId)
                .query((row, n) -> new InBlog(
                        row.getLong("blog_id"),
                        row.getString("title"),
                        row.getString("address"),
                        row.getInt("posts"),
                        row.getInt("comments"),
                        Rows.instant(row, "newest")))
                .list();
    }

    /** The parts of all series of a blog that are in scope, each series in the order of its parts. */
    List<Part> parts(ScopeSql scope, long classId, long blogId) {
        return jdbc.sql("select p.series, p.part, p.id, v.title from " + ScopeSql.TABLES
                        + " join post_version v on v.post_id = p.id and v.no = p.live" + WHERE + scope.condition()
                        + " and p.blog_id = :blog and p.series is not null order by p.series, p.part, p.id")
                .params(scope.params())
                .param("classId", classId)
                .param("blog", blogId)
                .query((row, n) -> new Part(
                        row.getString("series"), row.getInt("part"), row.getLong("id"), row.getString("title")))
                .list();
    }

    /** Pins a post, or takes the pin out, and gives it its place in a series. */
    void arrange(long postId, @Nullable Instant pinnedAt, @Nullable String series, @Nullable Integer part) {
        jdbc.sql("update post set pinned_at = :pinned, series = :series, part = :part where id = :id")
                .param("pinned", Rows.utc(pinnedAt))
                .param("series", series)
                .param("part", part)
                .param("id", postId)
                .update();
    }

    /**
     * When the clock next opens or closes a blog of a class, opens a prompt, shows names or puts a post up; nothing if
     * it does not.
     */
    Optional<Instant> nextTurn(long classId, Instant now) {
        return jdbc.sql("""
                select least((select min(opens_at) from blog where class_id = :classId and opens_at > :now),
                             (select min(closes_at) from blog where class_id = :classId and closes_at > :now),
                             (select min(opens_at) from prompt where class_id = :classId and opens_at > :now),
                             (select min(names_until) from blog where class_id = :classId and names_until > :now),
                             (select min(names_until) from prompt where class_id = :classId and names_until > :now),
                             (select min(published_at) from post where class_id = :classId and published_at > :now))
                       as next""")
                .param("now", Rows.utc(now))
                .param("classId", classId)
                .query((row, n) -> Optional.ofNullable(Rows.instant(row, "next")))
                .single();
    }

    void markSeen(long personId, long postId, Instant now) {
        jdbc.sql("merge into seen (person_id, post_id, seen_at) key (person_id, post_id) values (:person, :post, :now)")
                .param("person", personId)
                .param("post", postId)
                .param("now", Rows.utc(now))
                .update();
    }

    Optional<String> sourceTitle(long sourceId) {
        return jdbc.sql("select title from source where id = :id")
                .param("id", sourceId)
                .query(String.class)
                .optional();
    }

    private static String narrow(ScopeSql scope, Filter filter, Map<String, Object> params) {
        StringBuilder sql = new StringBuilder();
        and(
                sql,
                params,
                " and p.published_at >= :from",
                "from",
                filter.from() == null ? null : Rows.utc(filter.from()));
        and(sql, params, " and p.published_at < :to", "to", filter.to() == null ? null : Rows.utc(filter.to()));
        // Whose posts they are must not be told by what is found under a name.
        if (filter.person() != null || filter.group() != null)
            sql.append(" and ").append(scope.namesAuthor());
        and(sql, params, " and p.author_id = :person", "person", filter.person());
        and(sql, params, " and am.group_id = :inGroup", "inGroup", filter.group());
        and(sql, params, " and p.prompt_id = :prompt", "prompt", filter.prompt());
        and(
                sql,
                params,
                " and exists (select 1 from post_tag t where t.post_id = p.id and t.folded = :tag)",
                "tag",
                filter.tag() == null ? null : Folding.fold(filter.tag()));
        and(sql, params, " and p.category_id = :category", "category", filter.category());
        and(sql, params, " and p.source_id = :source", "source", filter.source());
        and(sql, params, " and p.blog_id = :ofBlog", "ofBlog", filter.blog());
        if (filter.kind() != Kind.BOTH)
            sql.append(filter.kind() == Kind.POSTS ? " and not p.announcement" : " and p.announcement");
        if (filter.pinned()) sql.append(" and p.pinned_at is not null");
        if (filter.unanswered()) sql.append(" and ").append(ANSWERS).append(" = 0");
        return sql.toString();
    }

    private static void and(
            StringBuilder sql, Map<String, Object> params, String condition, String name, @Nullable Object value) {
        if (value == null) return;
        sql.append(condition);
        params.put(name, value);
    }

    private static Entry entry(ResultSet row) throws SQLException {
        return new Entry(
                row.getLong("id"),
                row.getString("title"),
                row.getString("first_lines"),
                row.getString("first_picture"),
                row.getString("tags"),
                row.getLong("author_id"),
                row.getBoolean("is_named"),
                row.getBoolean("keeps_names"),
                row.getString("blog_title"),
                row.getString("address"),
                Rows.number(row, "prompt_id"),
                row.getString("prompt_title"),
                row.getString("outside_link"),
                row.getString("source_title"),
                Rows.instant(row, "published_at"),
                Rows.instant(row, "saved_at"));
    }
}
