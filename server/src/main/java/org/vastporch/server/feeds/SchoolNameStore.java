package org.vastporch.server.feeds;

import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** The one row that holds the school's stable name. */
@Repository
class SchoolNameStore {

    private final JdbcClient jdbc;

    SchoolNameStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<String> find() {
        return jdbc.sql("select name from school_name where id = 1")
                .query(String.class)
                .optional();
    }

    /** Two that make it at once agree on the first. */
    String make(String name) {
        jdbc.sql("""
                merge into school_name s using (values (1, :name)) n (id, name) on s.id = n.id
                when not matched then insert (id, name) values (n.id, n.name)""").param("name", name).update();
        return find().orElseThrow();
    }
}
