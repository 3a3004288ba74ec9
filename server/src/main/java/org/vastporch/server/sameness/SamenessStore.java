package org.vastporch.server.sameness;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** Pairs that were put aside. */
@Repository
@Order(9)
class SamenessStore implements Traces {

    /** @param first the one with the lower number */
    record PutAside(
            long first,
            long second,
            String reason,
            @Nullable Long byId,
            Instant at) {}

    private final JdbcClient jdbc;

    SamenessStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<PutAside> aside(long promptId) {
        return jdbc.sql("""
                select first_id, second_id, reason, by_id, put_at
                  from same_aside
                 where prompt_id = :prompt""")
                .param("prompt", promptId)
                .query((row, n) -> new PutAside(
                        row.getLong("first_id"),
                        row.getLong("second_id"),
                        row.getString("reason"),
                        Rows.number(row, "by_id"),
                        Rows.instant(row, "put_at")))
                .list();
    }

    void putAside(long promptId, long first, long second, String reason, long by, Instant now) {
        jdbc.sql("""
                merge into same_aside (prompt_id, first_id, second_id, reason, by_id, put_at) key (prompt_id,
                       first_id, second_id)
                values (:prompt, :first, :second, :reason, :by, :now)""")
                .param("prompt", promptId)
                .param("first", Math.min(first, second))
                .param("second", Math.max(first, second))
                .param("reason", reason)
                .param("by", by)
                .param("now", Rows.utc(now))
                .update();
    }

    void takeBack(long promptId, long first, long second) {
        jdbc.sql("""
                delete from same_aside
                 where prompt_id = :prompt and first_id = :first and second_id = :second""")
                .param("prompt", promptId)
                .param("first", Math.min(first, second))
                .param("second", Math.max(first, second))
                .update();
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from same_aside where first_id in (" + POSTS_THAT_GO + ") or second_id in (" + POSTS_THAT_GO
                        + ")")
                .param("person", personId)
                .update();
        jdbc.sql("update same_aside set by_id = null where by_id = :person")
                .param("person", personId)
                .update();
    }
}
