package org.vastporch.server.media;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.rows.Rows;

@Repository
class AttachmentStore {

    /** @param pages how many of its pages can be shown in place; 0 for what is no PDF */
    record Attachment(
            String id,
            long classId,
            @Nullable Long postId,
            long ownerId,
            String sha,
            String name,
            String kind,
            String type,
            long size,
            int pages) {
        Attachment copy(String own, long classId, @Nullable Long postId, long ownerId) {
            return new Attachment(own, classId, postId, ownerId, sha, name, kind, type, size, pages);
        }
    }

    private static final String COLUMNS = "id, class_id, post_id, owner_id, sha, name, kind, type, size, pages";

    private final JdbcClient jdbc;

    AttachmentStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(Attachment a, Instant now) {
        jdbc.sql("insert into attachment (" + COLUMNS
                        + ", created_at) values (:id, :classId, :postId, :ownerId, :sha, :name,"
                        + " :kind, :type, :size, :pages, :now)")
                .param("id", a.id())
                .param("classId", a.classId())
                .param("postId", a.postId())
                .param("ownerId", a.ownerId())
                .param("sha", a.sha())
                .param("name", a.name())
                .param("kind", a.kind())
                .param("type", a.type())
                .param("size", a.size())
                .param("pages", a.pages())
                .param("now", Rows.utc(now))
                .update();
    }

    Optional<Attachment> find(String id) {
        return jdbc.sql("select " + COLUMNS + " from attachment where id = :id")
                .param("id", id)
                .query((row, n) -> attachment(row))
                .optional();
    }

    List<Attachment> ofPost(long postId) {
        return jdbc.sql("select " + COLUMNS + " from attachment where post_id = :post order by created_at, id")
                .param("post", postId)
                .query((row, n) -> attachment(row))
                .list();
    }

    /** How many files a post has; its row is locked, so that two uploads at once count each other. */
    int count(long postId) {
        return jdbc.sql("select count(*) from attachment where post_id = :post")
                .param("post", postId)
                .query(Integer.class)
                .single();
    }

    private static Attachment attachment(ResultSet row) throws SQLException {
        return new Attachment(
                row.getString("id"),
                row.getLong("class_id"),
                row.getObject("post_id", Long.class),
                row.getLong("owner_id"),
                row.getString("sha"),
                row.getString("name"),
                row.getString("kind"),
                row.getString("type"),
                row.getLong("size"),
                row.getInt("pages"));
    }
}
