package org.vastporch.server.feeds;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.server.rows.Rows;

/** Outside blogs that are noted and never fetched. */
@Repository
class PrivateBlogStore {

    /** @param personId whose it is; null for nobody's */
    record PrivateBlog(long id, long classId, @Nullable Long personId, String title, String address) {}

    private static final String COLUMNS = "select id, class_id, person_id, title, address from private_blog ";

    private final JdbcClient jdbc;

    PrivateBlogStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<PrivateBlog> ofClass(long classId) {
        return jdbc.sql(COLUMNS + "where class_id = :classId order by id")
                .param("classId", classId)
                .query((row, n) -> blog(row))
                .list();
    }

    Optional<PrivateBlog> find(long id) {
        return jdbc.sql(COLUMNS + "where id = :id")
                .param("id", id)
                .query((row, n) -> blog(row))
                .optional();
    }

    long add(long classId, @Nullable Long personId, String title, String address, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("insert into private_blog (class_id, person_id, title, address, noted_at)"
                        + " values (:classId, :person, :title, :address, :now)")
                .param("classId", classId)
                .param("person", personId)
                .param("title", title)
                .param("address", address)
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    void remove(long id) {
        jdbc.sql("delete from private_blog where id = :id").param("id", id).update();
    }

    private static PrivateBlog blog(ResultSet row) throws SQLException {
        return new PrivateBlog(
                row.getLong("id"),
                row.getLong("class_id"),
                Rows.number(row, "person_id"),
                row.getString("title"),
                row.getString("address"));
    }
}
