package org.vastporch.server.comments;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.comments.CommentsAsked;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.access.SettingsText;
import org.vastporch.server.moderation.ApprovingBlogs;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.rows.Rows;

/** Comments. A comment has one version: it is live or being worked on. */
@Repository
class CommentStore {

    /**
     * @param authorId 0 for a visitor without an account
     * @param visitor the name that a visitor gave
     * @param before what it said before its author changed it, after it had been up or had come back
     */
    record CommentRow(
            long id,
            long classId,
            long postId,
            long authorId,
            @Nullable String visitor,
            @Nullable Long parentId,
            State state,
            String html,
            @Nullable Instant waitingSince,
            @Nullable Instant publishedAt,
            Instant createdAt,
            @Nullable Instant editedAt,
            @Nullable Long editedBy,
            @Nullable String before,
            int rev) {
        Standing standing() {
            return Standing.ofOne(state, publishedAt != null);
        }

        Course course() {
            return new Course(standing(), waitingSince, publishedAt, createdAt, null);
        }
    }

    private static final String COLUMNS =
            "id, class_id, post_id, author_id, visitor, parent_id, state, html, waiting_since, "
                    + "published_at, created_at, edited_at, edited_by, before_html, rev";

    private final JdbcClient jdbc;

    CommentStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(CommentRow c, int words) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into comment (class_id, post_id, author_id, visitor, parent_id, state, html, words,
                       waiting_since, published_at, created_at, rev)
                values (:classId, :postId, :author, :visitor, :parent, :state, :html, :words, :waiting, :published,
                       :created, 1)""")
                .param("classId", c.classId())
                .param("postId", c.postId())
                .param("author", c.authorId() == 0 ? null : c.authorId())
                .param("visitor", c.visitor())
                .param("parent", c.parentId())
                .param("state", c.state().name())
                .param("html", c.html())
                .param("words", words)
                .param("waiting", Rows.utc(c.waitingSince()))
                .param("published", Rows.utc(c.publishedAt()))
                .param("created", Rows.utc(c.createdAt()))
                .update(key, "id");
        return key.getKey().longValue();
    }

    Optional<CommentRow> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from comment where id = :id")
                .param("id", id)
                .query((row, n) -> comment(row))
                .optional();
    }

    Optional<CommentRow> lock(long id) {
        return jdbc.sql("select " + COLUMNS + " from comment where id = :id for update")
                .param("id", id)
                .query((row, n) -> comment(row))
                .optional();
    }

    List<CommentRow> ofPost(long postId) {
        return jdbc.sql("select " + COLUMNS
                        + " from comment where post_id = :post and state <> 'BINNED' order by created_at, id")
                .param("post", postId)
                .query((row, n) -> comment(row))
                .list();
    }

    /** A comment that is up with the title of the post that it answers. */
    record Published(CommentRow row, String postTitle) {}

    /** The newest comments that are up, on posts in scope. */
    List<Published> newest(ScopeSql scope, long classId, @Nullable Long blog, @Nullable Long post, int most) {
        return jdbc.sql("select t.*, v.title as post_title from " + ScopeSql.TABLES
                        + " join comment t on t.post_id = p.id join post_version v on v.post_id = p.id and v.no = p.live"
                        + " where t.class_id = :classId and t.state = 'PUBLISHED' and " + ScopeSql.UP
                        + " and p.published_at <= :scope_now and " + scope.condition()
                        + (blog == null ? "" : " and p.blog_id = :blog") + (post == null ? "" : " and p.id = :post")
                        + " order by t.published_at desc, t.id desc limit :most")
                .params(scope.params())
                .param("classId", classId)
                .param("blog", blog)
                .param("post", post)
                .param("most", most)
                .query((row, n) -> new Published(comment(row), row.getString("post_title")))
                .list();
    }

    /** A comment of the pile with the title of the post that it answers, as readers know that. */
    record InPile(CommentRow comment, String postTitle, ApprovingBlogs.Approving blog) {}

    List<InPile> waiting(List<Long> classIds, PileFilter filter) {
        String sort = PileFilter.of(filter.sort(), "comment");
        if (classIds.isEmpty() || sort == null) return List.of();
        return jdbc.sql("select t.*, v.title as post_title, b.title as blog_title, b.settings from comment t"
                        + " join post p on p.id = t.post_id join blog b on b.id = p.blog_id"
                        + " join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working) where "
                        + PileFilter.waiting() + " and t.class_id in (:classes) and " + sort
                        + " order by t.waiting_since, t.id limit :most")
                .param("classes", classIds)
                .param("most", filter.most())
                .query((row, n) -> new InPile(
                        comment(row),
                        row.getString("post_title"),
                        ApprovingBlogs.Approving.of(
                                row.getString("blog_title"), SettingsText.read(row.getString("settings")))))
                .list();
    }

    /** A published comment that somebody gave to another for a prompt. */
    record GivenRow(long promptId, long authorId, long commentId, long postId, CommentsAsked.Given given) {}

    /**
     * The published comments that people gave to others for prompts since those opened, in order: on the posts that a
     * prompt names; else on posts for it; else, where it asks for comments alone, on any.
     *
     * @param person only theirs; null for everybody's
     */
    List<GivenRow> given(Collection<Long> promptIds, @Nullable Long person) {
        if (promptIds.isEmpty()) return List.of();
        String columns = "select r.id as prompt_id, k.author_id, k.id, k.post_id, k.created_at, k.words from prompt r ";
        String given = " join comment k on k.post_id = p.id where r.id in (:prompts) and k.state = 'PUBLISHED'"
                + " and k.author_id is distinct from p.author_id and k.author_id is not null"
                + " and k.created_at >= r.opens_at"
                + (person == null ? "" : " and k.author_id = :person");
        String unnamed = " and not exists (select 1 from prompt_comment_on n where n.prompt_id = r.id)";
        String sql = columns + "join prompt_comment_on n on n.prompt_id = r.id join post p on p.id = n.post_id" + given
                + " union all " + columns + "join post p on p.prompt_id = r.id" + given + unnamed
                + " and r.asked_posts > 0 union all " + columns + "join post p on p.class_id = r.class_id" + given
                + unnamed + " and r.asked_posts = 0 order by created_at, id";
        return jdbc.sql(sql)
                .param("prompts", promptIds)
                .param("person", person)
                .query((row, n) -> new GivenRow(
                        row.getLong("prompt_id"),
                        row.getLong("author_id"),
                        row.getLong("id"),
                        row.getLong("post_id"),
                        new CommentsAsked.Given(Rows.instant(row, "created_at"), row.getInt("words"))))
                .list();
    }

    /** The texts of comments, by their numbers. */
    Map<Long, String> texts(Collection<Long> ids) {
        Map<Long, String> texts = new HashMap<>();
        if (ids.isEmpty()) return texts;
        jdbc.sql("select id, html from comment where id in (:ids)")
                .param("ids", ids)
                .query(row -> {
                    texts.put(row.getLong("id"), row.getString("html"));
                });
        return texts;
    }

    /** Writes a changed text; raises {@code rev} by settling. */
    void setText(long id, String html, int words, long by, @Nullable String before, Instant now) {
        jdbc.sql("""
                                update comment
                                 set html = :html, words = :words, edited_by = :by, before_html = :before,
                                    edited_at = :now
                                 where id = :id""")
                .param("html", html)
                .param("words", words)
                .param("by", by)
                .param("before", before)
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    void settle(long id, Course after) {
        jdbc.sql("""
                update comment
                   set state = :state, waiting_since = :waiting, published_at = :published, rev = rev + 1
                 where id = :id""")
                .param("state", after.standing().state().name())
                .param("waiting", Rows.utc(after.waitingSince()))
                .param("published", Rows.utc(after.publishedAt()))
                .param("id", id)
                .update();
    }

    private static CommentRow comment(ResultSet row) throws SQLException {
        return new CommentRow(
                row.getLong("id"),
                row.getLong("class_id"),
                row.getLong("post_id"),
                row.getLong("author_id"),
                row.getString("visitor"),
                Rows.number(row, "parent_id"),
                State.valueOf(row.getString("state")),
                row.getString("html"),
                Rows.instant(row, "waiting_since"),
                Rows.instant(row, "published_at"),
                Rows.instant(row, "created_at"),
                Rows.instant(row, "edited_at"),
                Rows.number(row, "edited_by"),
                row.getString("before_html"),
                row.getInt("rev"));
    }
}
