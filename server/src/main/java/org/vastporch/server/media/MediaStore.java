package org.vastporch.server.media;

import java.io.ByteArrayOutputStream;
import java.time.Instant;
import java.util.Arrays;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.http.Rows;

/** Files as rows of chunks under their hash: the same file is kept once, and back-ups are whole. */
@Repository
class MediaStore {

    static final int CHUNK = 262_144;

    record Picture(String id, long postId, String sha, String smallSha) {}

    record Medium(String type, byte[] bytes) {}

    private final JdbcClient jdbc;

    MediaStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(String sha, String type, byte[] bytes) {
        int known = jdbc.sql("select count(*) from medium where sha = :sha").param("sha", sha).query(Integer.class).single();
        if (known > 0) return;
        jdbc.sql("insert into medium (sha, type, size) values (:sha, :type, :size)").param("sha", sha).param("type", type).param("size", bytes.length).update();
        for (int no = 0; no * CHUNK < bytes.length; no++)
            jdbc.sql("insert into medium_chunk (sha, no, bytes) values (:sha, :no, :bytes)").param("sha", sha).param("no", no)
                .param("bytes", Arrays.copyOfRange(bytes, no * CHUNK, Math.min(bytes.length, (no + 1) * CHUNK))).update();
    }

    void addPicture(String id, long classId, long postId, long ownerId, String sha, String smallSha, int width, int height, Instant now) {
        jdbc.sql("""
                insert into picture (id, class_id, post_id, owner_id, sha, small_sha, width, height, created_at)
                values (:id, :classId, :postId, :ownerId, :sha, :smallSha, :width, :height, :now)""")
            .param("id", id).param("classId", classId).param("postId", postId).param("ownerId", ownerId).param("sha", sha)
            .param("smallSha", smallSha).param("width", width).param("height", height).param("now", Rows.utc(now)).update();
    }

    Optional<Picture> picture(String id) {
        return jdbc.sql("select id, post_id, sha, small_sha from picture where id = :id").param("id", id)
            .query((row, n) -> new Picture(row.getString("id"), row.getLong("post_id"), row.getString("sha"), row.getString("small_sha"))).optional();
    }

    Medium medium(String sha) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        jdbc.sql("select bytes from medium_chunk where sha = :sha order by no").param("sha", sha)
            .query((row, n) -> row.getBytes("bytes")).list().forEach(bytes::writeBytes);
        String type = jdbc.sql("select type from medium where sha = :sha").param("sha", sha).query(String.class).single();
        return new Medium(type, bytes.toByteArray());
    }

    byte[] chunk(String sha, long no) {
        return jdbc.sql("select bytes from medium_chunk where sha = :sha and no = :no").param("sha", sha).param("no", no).query((row, n) -> row.getBytes("bytes")).single();
    }

    int picturesOf(long postId) {
        return jdbc.sql("select count(*) from picture where post_id = :postId").param("postId", postId).query(Integer.class).single();
    }
}
