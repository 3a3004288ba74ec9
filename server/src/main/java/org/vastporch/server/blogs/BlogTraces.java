package org.vastporch.server.blogs;

import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** The own blogs of a person with their addresses. */
@Repository
@Order(60)
class BlogTraces implements Traces {

    private final JdbcClient jdbc;

    BlogTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from blog_address where blog_id in (select b.id from blog b where b.owner_id = :person)")
                .param("person", personId)
                .update();
        jdbc.sql("delete from blog where owner_id = :person")
                .param("person", personId)
                .update();
    }
}
