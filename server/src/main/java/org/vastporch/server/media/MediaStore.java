package org.vastporch.server.media;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.media.Room;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** Files as rows of chunks under their hash: the same file is kept once, and back-ups are whole. */
@Repository
class MediaStore {

    static final int CHUNK = 262_144;

    record Picture(String id, @Nullable Long postId, String sha, String smallSha) {}

    record Medium(String type, byte[] bytes) {}

    private static final int MOST_AT_ONCE = 500;

    private final JdbcClient jdbc;
    private final Clock clock;

    MediaStore(JdbcClient jdbc, Clock clock) {
        this.jdbc = jdbc;
        this.clock = clock;
    }

    /** Keeps what is made here. */
    void add(String sha, String type, byte[] bytes) {
        try {
            add(sha, type, bytes.length, new ByteArrayInputStream(bytes));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Keeps a file, chunk by chunk. One that is kept already counts as new, so that nobody throws it away meanwhile.
     */
    void add(String sha, String type, long size, InputStream in) throws IOException {
        if (jdbc.sql("update medium set added_at = :now where sha = :sha")
                        .param("now", Rows.utc(clock.instant()))
                        .param("sha", sha)
                        .update()
                > 0) return;
        jdbc.sql("insert into medium (sha, type, size, added_at) values (:sha, :type, :size, :now)")
                .param("sha", sha)
                .param("type", type)
                .param("size", size)
                .param("now", Rows.utc(clock.instant()))
                .update();
        byte[] chunk = in.readNBytes(CHUNK);
        for (int no = 0; chunk.length > 0; no++) {
            jdbc.sql("insert into medium_chunk (sha, no, bytes) values (:sha, :no, :bytes)")
                    .param("sha", sha)
                    .param("no", no)
                    .param("bytes", chunk)
                    .update();
            chunk = in.readNBytes(CHUNK);
        }
    }

    /** The room of a class, and how often it was changed. */
    record ClassRoom(Room room, int rev) {}

    /** The room of a class, its row locked, so that two files that come at once count each other. */
    ClassRoom lockRoom(long classId) {
        Optional<ClassRoom> there = room(classId, " for update");
        if (there.isPresent()) return there.get();
        jdbc.sql("merge into room (class_id, student, in_all, rev) key (class_id) values (:id, :student, :all, 1)")
                .param("id", classId)
                .param("student", Room.USUAL.student())
                .param("all", Room.USUAL.inAll())
                .update();
        return room(classId, " for update").orElseThrow();
    }

    ClassRoom room(long classId) {
        return room(classId, "").orElse(new ClassRoom(Room.USUAL, 1));
    }

    private Optional<ClassRoom> room(long classId, String how) {
        return jdbc.sql("select student, in_all, rev from room where class_id = :id" + how)
                .param("id", classId)
                .query((row, n) ->
                        new ClassRoom(new Room(row.getInt("student"), row.getInt("in_all")), row.getInt("rev")))
                .optional();
    }

    void setRoom(long classId, Room room) {
        jdbc.sql("update room set student = :student, in_all = :all, rev = rev + 1 where class_id = :id")
                .param("student", room.student())
                .param("all", room.inAll())
                .param("id", classId)
                .update();
    }

    /**
     * How many bytes each person has in a class. What stands at the heads of blogs that are nobody's own counts for
     * person 0.
     */
    Map<Long, Long> used(long classId) {
        Map<Long, Long> used = new HashMap<>();
        jdbc.sql("""
                select owner, sum(size) as bytes
                  from (select p.owner_id as owner, m.size from picture p join medium m on m.sha = p.sha where
                         p.class_id = :id
                        union all select p.owner_id, m.size from picture p join medium m on m.sha = p.small_sha where
                               p.class_id = :id
                        union all select a.owner_id, a.size from attachment a where a.class_id = :id
                        union all select h.author_id, m.size from blog_header h join medium m on m.sha = h.sha where
                               h.class_id = :id
                        union all select coalesce(b.owner_id, 0), m.size from blog b join medium m on m.sha =
                               b.header_sha where b.class_id = :id
                               and not exists (select 1 from blog_header h where h.blog_id = b.id and h.sha =
                                      b.header_sha))
                 group by owner""").param("id", classId).query(row -> {
            used.put(row.getLong("owner"), row.getLong("bytes"));
        });
        return used;
    }

    /**
     * Throws away what nothing shows any more: pictures and files of posts whose time in the bin is over, those that no
     * version of a post shows and that were put in before {@code before}, what is not in the drawer of its class any
     * more and in no prompt, pictures that stood or waited at the head of a blog before that, and the bytes of all
     * these.
     *
     * @param fresh bytes that came in since then stay: what shows them may be on its way
     */
    void dropUnused(Instant before, Instant fresh) {
        for (String table : List.of("picture", "attachment")) {
            jdbc.sql("delete from " + table
                            + " where post_id in (select p.id from post p where p.emptied_at is not null)")
                    .update();
            jdbc.sql("delete from " + table
                            + " f where f.created_at < :before and f.post_id is not null and not exists (select 1 from "
                            + "post_version v where v.post_id = f.post_id and locate(f.id, "
                            + "v.html) > 0)")
                    .param("before", Rows.utc(before))
                    .update();
        }
        for (String table : List.of("picture", "attachment"))
            jdbc.sql("delete from " + table
                            + " f where f.created_at < :before and f.post_id is null and not f.offered and not exists "
                            + "(select 1 from prompt p where p.class_id = f.class_id and locate(f.id, p.instructions) > 0) "
                            + "and not exists (select 1 from recording r where r.file_id = f.id)")
                    .param("before", Rows.utc(before))
                    .update();
        jdbc.sql("delete from blog_header where state <> 'WAITING' and changed_at < :before")
                .param("before", Rows.utc(before))
                .update();
        dropBytes("m.added_at < :fresh", Map.of("fresh", Rows.utc(fresh)));
    }

    /** Throws away those of some files that nothing shows. */
    void dropUnused(Collection<String> shas) {
        List<String> all = List.copyOf(shas);
        for (int from = 0; from < all.size(); from += MOST_AT_ONCE)
            dropBytes("m.sha in (:shas)", Map.of("shas", all.subList(from, Math.min(all.size(), from + MOST_AT_ONCE))));
    }

    private void dropBytes(String which, Map<String, Object> params) {
        List<String> unused = jdbc.sql("""
            select m.sha
              from medium m
             where %s
               and not exists (select 1 from picture p where p.sha = m.sha)
               and not exists (select 1 from picture p where p.small_sha = m.sha)
               and not exists (select 1 from blog b where b.header_sha = m.sha)
               and not exists (select 1 from attachment a where a.sha = m.sha)
               and not exists (select 1 from blog_header h where h.sha = m.sha or h.before_sha = m.sha)
               and not exists (select 1 from blog_set s where s.header_sha = m.sha)""".formatted(which))
                .params(params)
                .query(String.class)
                .list();
        for (String sha : unused) {
            jdbc.sql("delete from medium_chunk where sha = :sha")
                    .param("sha", sha)
                    .update();
            jdbc.sql("delete from medium where sha = :sha").param("sha", sha).update();
        }
    }

    /** The files of a person, those at the heads of the own blogs too. */
    List<String> shasOf(long personId) {
        return jdbc
                .sql("""
                select sha from picture where owner_id = :person or post_id in (%1$s)
                 union select small_sha from picture where owner_id = :person or post_id in (%1$s)
                 union select sha from attachment where owner_id = :person or post_id in (%1$s)
                 union select sha from blog_header where author_id = :person or blog_id in (select b.id from blog b
                        where b.owner_id = :person)
                 union select before_sha from blog_header where author_id = :person or blog_id in (select b.id from
                        blog b where b.owner_id = :person)
                 union select header_sha from blog where owner_id = :person""".formatted(Traces.POSTS_THAT_GO))
                .param("person", personId)
                .query(String.class)
                .list()
                .stream()
                .filter(Objects::nonNull)
                .toList();
    }

    void addPicture(
            String id,
            long classId,
            @Nullable Long postId,
            long ownerId,
            String sha,
            String smallSha,
            int width,
            int height,
            Instant now) {
        jdbc.sql("""
                insert into picture (id, class_id, post_id, owner_id, sha, small_sha, width, height, created_at)
                values (:id, :classId, :postId, :ownerId, :sha, :smallSha, :width, :height, :now)""")
                .param("id", id)
                .param("classId", classId)
                .param("postId", postId)
                .param("ownerId", ownerId)
                .param("sha", sha)
                .param("smallSha", smallSha)
                .param("width", width)
                .param("height", height)
                .param("now", Rows.utc(now))
                .update();
    }

    /** One more entry for a picture that is there, in another post. */
    void copyPicture(String id, String own, long classId, @Nullable Long postId, long ownerId, Instant now) {
        jdbc.sql("""
                insert into picture (id, class_id, post_id, owner_id, sha, small_sha, width, height, created_at)
                select :own, :classId, :postId, :ownerId, sha, small_sha, width, height, :now from picture where id =
                       :id""")
                .param("own", own)
                .param("classId", classId)
                .param("postId", postId)
                .param("ownerId", ownerId)
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    /** How many bytes are kept under a hash. */
    long size(String sha) {
        return jdbc.sql("select size from medium where sha = :sha")
                .param("sha", sha)
                .query(Long.class)
                .single();
    }

    Optional<Picture> picture(String id) {
        return jdbc.sql("select id, post_id, sha, small_sha from picture where id = :id")
                .param("id", id)
                .query((row, n) -> new Picture(
                        row.getString("id"),
                        row.getObject("post_id", Long.class),
                        row.getString("sha"),
                        row.getString("small_sha")))
                .optional();
    }

    Medium medium(String sha) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        jdbc.sql("select bytes from medium_chunk where sha = :sha order by no")
                .param("sha", sha)
                .query((row, n) -> row.getBytes("bytes"))
                .list()
                .forEach(bytes::writeBytes);
        String type = jdbc.sql("select type from medium where sha = :sha")
                .param("sha", sha)
                .query(String.class)
                .single();
        return new Medium(type, bytes.toByteArray());
    }

    byte[] chunk(String sha, long no) {
        return jdbc.sql("select bytes from medium_chunk where sha = :sha and no = :no")
                .param("sha", sha)
                .param("no", no)
                .query((row, n) -> row.getBytes("bytes"))
                .single();
    }

    int picturesOf(long postId) {
        return jdbc.sql("select count(*) from picture where post_id = :postId")
                .param("postId", postId)
                .query(Integer.class)
                .single();
    }
}
