package org.vastporch.server.prompts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;
import tools.jackson.databind.json.JsonMapper;

/** Rubrics that teachers keep by a name. */
@Repository
@Order(11)
class KeptRubricStore implements Traces {

    record Kept(long id, long ownerId, String owner, String name, Rubric rubric, int rev) {}

    private static final String SELECT = """
            select k.id, k.owner_id, p.title || ' ' || p.family_name as owner, k.name, k.definition, k.rev
              from kept_rubric k
              join person p on p.id = k.owner_id
            """;

    private final JdbcClient jdbc;
    private final JsonMapper json;

    KeptRubricStore(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** Those of a teacher, and of whoever teaches one of some classes with them. */
    List<Kept> of(long teacherId, Collection<Long> classIds) {
        return jdbc.sql(SELECT + """
                 where k.owner_id = :teacher
                    or k.owner_id in (select m.person_id
                                        from membership m
                                       where m.class_id in (:classes) and m.role in ('LEAD', 'CO_TEACHER')
                                         and m.ended_at is null)
                 order by lower(k.name), k.id""")
                .param("teacher", teacherId)
                .param("classes", classIds.isEmpty() ? List.of(-1L) : classIds)
                .query(this::kept)
                .list();
    }

    /** One of a teacher's own, its row locked until the transaction ends. */
    Optional<Kept> lock(long id, long teacherId) {
        return jdbc.sql("select id from kept_rubric where id = :id and owner_id = :teacher for update")
                .param("id", id)
                .param("teacher", teacherId)
                .query(Long.class)
                .optional()
                .map(found -> jdbc.sql(SELECT + " where k.id = :id")
                        .param("id", id)
                        .query(this::kept)
                        .single());
    }

    int count(long teacherId) {
        return jdbc.sql("select count(*) from kept_rubric where owner_id = :teacher")
                .param("teacher", teacherId)
                .query(Integer.class)
                .single();
    }

    long add(long teacherId, String name, Rubric rubric, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into kept_rubric (owner_id, name, definition, kept_at, rev)
                values (:teacher, :name, :definition, :now, 1)""")
                .param("teacher", teacherId)
                .param("name", name)
                .param("definition", json.writeValueAsString(rubric))
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    void change(long id, String name, Rubric rubric, Instant now) {
        jdbc.sql("""
                update kept_rubric
                   set name = :name, definition = :definition, kept_at = :now, rev = rev + 1
                 where id = :id""")
                .param("name", name)
                .param("definition", json.writeValueAsString(rubric))
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    void remove(long id) {
        jdbc.sql("delete from kept_rubric where id = :id").param("id", id).update();
    }

    @Override
    public String what() {
        return "kept rubrics";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return classId != null ? 0 : count(personId);
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from kept_rubric where owner_id = :person")
                .param("person", personId)
                .update();
    }

    private Kept kept(ResultSet row, int n) throws SQLException {
        return new Kept(
                row.getLong("id"),
                row.getLong("owner_id"),
                row.getString("owner"),
                row.getString("name"),
                json.readValue(row.getString("definition"), Rubric.class),
                row.getInt("rev"));
    }
}
