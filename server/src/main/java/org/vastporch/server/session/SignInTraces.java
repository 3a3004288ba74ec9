package org.vastporch.server.session;

import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Sign-ins and one-time addresses of a person. */
@Repository
@Order(80)
class SignInTraces implements Traces {

    private final JdbcClient jdbc;

    SignInTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from sign_in where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from device where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from sign_in_try where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from one_time_address where person_id = :person")
                .param("person", personId)
                .update();
    }
}
