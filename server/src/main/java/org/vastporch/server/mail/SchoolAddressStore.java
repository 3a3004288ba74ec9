package org.vastporch.server.mail;

import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** The one row about the school itself. */
@Repository
class SchoolAddressStore {

    private final JdbcClient jdbc;

    SchoolAddressStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<String> find() {
        return jdbc.sql("select address from school where id = 1 and address is not null")
                .query(String.class)
                .optional();
    }

    void put(String address) {
        jdbc.sql("merge into school (id, address) key (id) values (1, :address)")
                .param("address", address)
                .update();
    }
}
