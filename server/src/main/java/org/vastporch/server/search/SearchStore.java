package org.vastporch.server.search;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** What is indexed, and what a reader may see of what was found. */
@Repository
class SearchStore {

    /** A text that was found, for a reader who may read it. */
    record Found(
            String kind,
            String id,
            long postId,
            long classId,
            long blogId,
            String title,
            String html,
            long authorId,
            @Nullable String visitor,
            @Nullable String source,
            Instant at) {}

    record Event(long id, String kind, @Nullable Long subjectId) {}

    private static final int PAGE = 500;
    private static final String POST = """
        select p.id, p.class_id, coalesce(p.author_id, 0) as author_id, p.audience, p.published_at, v.title, v.html,
               v.tags, v.works
          from post p
          join post_version v on v.post_id = p.id and v.no = p.live
         where p.state not in ('HIDDEN', 'BINNED')""";
    private static final String COMMENT = """
        select k.id, k.state, k.post_id, k.class_id, coalesce(k.author_id, 0) as author_id, k.html, k.published_at,
               coalesce(p.author_id, 0) as owner_id, p.audience
          from comment k
          join post p on p.id = k.post_id
         where""";
    /**
     * How many numbers of comments are gone through at once. The state is looked at here: in the question it would lead
     * the database through all that are published.
     */
    private static final int SPAN = 2_000;

    private static final String FILE = """
        select a.id, a.post_id, a.class_id, a.owner_id as author_id, a.name, a.created_at, coalesce(p.author_id, 0) as
               owner_id, p.audience
          from attachment a
          join post p on p.id = a.post_id
          join post_version v on v.post_id = p.id and v.no = p.live
         where locate(a.id, v.html) > 0""";
    private static final String OF_POST = "p.id as post_id, p.class_id, p.blog_id, v.title, s.title as source";
    private static final String TEXT =
            "join post_version v on v.post_id = p.id and v.no = p.live left join source s on s.id = p.source_id";

    private final JdbcClient jdbc;

    SearchStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long newestEvent() {
        return jdbc.sql("select coalesce(max(id), 0) from event")
                .query(Long.class)
                .single();
    }

    List<Event> events(long after) {
        return jdbc.sql("select id, kind, subject_id from event where id > :after order by id limit 1000")
                .param("after", after)
                .query((row, n) -> new Event(row.getLong("id"), row.getString("kind"), Rows.number(row, "subject_id")))
                .list();
    }

    /** All that can be found, page by page. */
    void forEach(Consumer<SearchIndex.Entry> each) {
        for (long after = 0; ; ) {
            List<SearchIndex.Entry> page =
                    posts(" and p.id > :after order by p.id limit " + PAGE, Map.of("after", after));
            if (page.isEmpty()) break;
            page.forEach(each);
            after = page.get(page.size() - 1).postId();
        }
        long newest = jdbc.sql("select coalesce(max(id), 0) from comment")
                .query(Long.class)
                .single();
        for (long from = 1; from <= newest; from += SPAN)
            comments(" k.id between :from and :until", Map.of("from", from, "until", from + SPAN - 1))
                    .forEach(each);
        files("", Map.of()).forEach(each);
    }

    Optional<SearchIndex.Entry> post(long id) {
        return posts(" and p.id = :id", Map.of("id", id)).stream().findFirst();
    }

    Optional<SearchIndex.Entry> comment(long id) {
        return comments(" k.id = :id", Map.of("id", id)).stream().findFirst();
    }

    /** The comments on a post that are up. */
    List<SearchIndex.Entry> commentsOf(long postId) {
        return comments(" k.post_id = :id", Map.of("id", postId));
    }

    /** The posts that go with a person who is erased. */
    List<Long> postsThatGo(long personId) {
        return jdbc.sql(Traces.POSTS_THAT_GO)
                .param("person", personId)
                .query(Long.class)
                .list();
    }

    List<SearchIndex.Entry> filesOf(long postId) {
        return files(" and a.post_id = :id", Map.of("id", postId));
    }

    private List<SearchIndex.Entry> posts(String more, Map<String, ?> params) {
        return jdbc.sql(POST + more)
                .params(params)
                .query((row, n) -> new SearchIndex.Entry(
                        "post",
                        row.getString("id"),
                        row.getLong("id"),
                        row.getLong("class_id"),
                        row.getLong("author_id"),
                        row.getLong("author_id"),
                        audience(row),
                        Rows.instant(row, "published_at"),
                        row.getString("title"),
                        TextFacts.of(row.getString("html")).plain() + "\n" + row.getString("tags")))
                .list();
    }

    private List<SearchIndex.Entry> comments(String more, Map<String, ?> params) {
        return jdbc
                .sql(COMMENT + more)
                .params(params)
                .query((row, n) -> row.getString("state").equals("PUBLISHED")
                        ? Optional.of(new SearchIndex.Entry(
                                "comment",
                                row.getString("id"),
                                row.getLong("post_id"),
                                row.getLong("class_id"),
                                row.getLong("author_id"),
                                row.getLong("owner_id"),
                                audience(row),
                                Rows.instant(row, "published_at"),
                                "",
                                TextFacts.of(row.getString("html")).plain()))
                        : Optional.<SearchIndex.Entry>empty())
                .list()
                .stream()
                .flatMap(Optional::stream)
                .toList();
    }

    private List<SearchIndex.Entry> files(String more, Map<String, ?> params) {
        return jdbc.sql(FILE + more)
                .params(params)
                .query((row, n) -> new SearchIndex.Entry(
                        "file",
                        row.getString("id"),
                        row.getLong("post_id"),
                        row.getLong("class_id"),
                        row.getLong("author_id"),
                        row.getLong("owner_id"),
                        audience(row),
                        Rows.instant(row, "created_at"),
                        row.getString("name").replaceAll("[._-]", " "),
                        ""))
                .list();
    }

    private static Audience audience(ResultSet row) throws SQLException {
        return Audience.values()[row.getInt("audience")];
    }

    /** What is up now of some candidates, whose posts the reader may read. */
    Map<String, Found> found(List<SearchIndex.Candidate> of) {
        Map<String, Found> found = new HashMap<>();
        collect(
                found,
                numbers(of, "post"),
                "select 'post' as kind, p.id as id, v.html, null as visitor, p.published_at as at, p.author_id, "
                        + OF_POST + " from post p " + TEXT + " where p.id in (:ids)");
        collect(
                found,
                numbers(of, "comment"),
                "select 'comment' as kind, k.id as id, k.html, k.visitor, k.published_at as at, k.author_id, " + OF_POST
                        + " from comment k join post p on p.id = k.post_id " + TEXT
                        + " where k.id in (:ids) and k.state = 'PUBLISHED'");
        collect(
                found,
                of.stream()
                        .filter(c -> c.kind().equals("file"))
                        .map(SearchIndex.Candidate::id)
                        .toList(),
                "select 'file' as kind, a.id as id, a.name as html, null as visitor, a.created_at as at, p.author_id, "
                        + OF_POST + " from attachment a join post p on p.id = a.post_id " + TEXT
                        + " where a.id in (:ids) and locate(a.id, v.html) > 0");
        return found;
    }

    private static List<Long> numbers(List<SearchIndex.Candidate> candidates, String kind) {
        return candidates.stream()
                .filter(c -> c.kind().equals(kind))
                .map(c -> Long.valueOf(c.id()))
                .toList();
    }

    private void collect(Map<String, Found> found, List<?> ids, String sql) {
        if (ids.isEmpty()) return;
        jdbc.sql(sql)
                .param("ids", ids)
                .query((row, n) -> new Found(
                        row.getString("kind"),
                        row.getString("id"),
                        row.getLong("post_id"),
                        row.getLong("class_id"),
                        row.getLong("blog_id"),
                        row.getString("title"),
                        row.getString("html"),
                        row.getLong("author_id"),
                        row.getString("visitor"),
                        row.getString("source"),
                        Rows.instant(row, "at")))
                .list()
                .forEach(f -> found.put(f.kind() + f.id(), f));
    }
}
