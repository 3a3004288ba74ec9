package org.vastporch.server.frontpage;

import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Where the front pages of classes stand, and what they show. */
@Repository
class FrontPageStore {

    /**
     * A class as far as its front page goes.
     *
     * @param address the present one
     * @param version of the class
     */
    record Front(long classId, String address, boolean open, boolean findable, boolean peoplePages, int version) {}

    private static final String FRONT =
            "select c.id, c.address, c.open, c.findable, c.people_pages, c.version from class c ";

    private final JdbcClient jdbc;

    FrontPageStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The class that has, or had, an address. */
    Optional<Front> at(String address) {
        return front(jdbc.sql(FRONT + "join class_address a on a.class_id = c.id where a.address = :address")
                .param("address", address));
    }

    Optional<Front> of(long classId) {
        return front(jdbc.sql(FRONT + "where c.id = :id").param("id", classId));
    }

    private static Optional<Front> front(JdbcClient.StatementSpec statement) {
        return statement
                .query((row, n) -> new Front(
                        row.getLong("id"),
                        row.getString("address"),
                        row.getBoolean("open"),
                        row.getBoolean("findable"),
                        row.getBoolean("people_pages"),
                        row.getInt("version")))
                .optional();
    }

    /** Whether an address belongs, or once belonged, to another class. */
    boolean isGiven(String address, long except) {
        return jdbc.sql("select count(*) from class_address where address = :address and class_id <> :except")
                        .param("address", address)
                        .param("except", except)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** Changes a front page; false if somebody else changed the class since {@code version}. */
    boolean change(long classId, String address, boolean findable, boolean peoplePages, int version) {
        boolean changed = jdbc.sql("""
                update class
                   set address = :address, findable = :findable, people_pages = :peoplePages, version = version + 1
                 where id = :id and version = :version""")
                        .param("address", address)
                        .param("findable", findable)
                        .param("peoplePages", peoplePages)
                        .param("id", classId)
                        .param("version", version)
                        .update()
                == 1;
        if (changed)
            jdbc.sql("merge into class_address (address, class_id) key (address) values (:address, :id)")
                    .param("address", address)
                    .param("id", classId)
                    .update();
        return changed;
    }

    /** Whether the keeper lets search engines find front pages. */
    boolean isSchoolFindable() {
        return jdbc.sql("select findable from school where id = 1")
                .query(Boolean.class)
                .optional()
                .orElse(false);
    }

    void setSchoolFindable(boolean findable) {
        jdbc.sql("merge into school (id, findable) key (id) values (1, :findable)")
                .param("findable", findable)
                .update();
    }
}
