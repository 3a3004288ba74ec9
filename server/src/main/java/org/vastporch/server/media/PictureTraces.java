package org.vastporch.server.media;

import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Pictures in posts that go with a person, and the bytes that no other picture shares. */
@Repository
@Order(30)
class PictureTraces implements Traces {

    private final JdbcClient jdbc;

    PictureTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("""
                delete from picture
                 where owner_id = :person
                    or post_id in (""" + Traces.POSTS_THAT_GO + ")")
            .param("person", personId).update();
        jdbc.sql("""
                delete from attachment
                 where owner_id = :person
                    or post_id in (""" + Traces.POSTS_THAT_GO + ")")
            .param("person", personId).update();
        jdbc.sql("delete from hold where subject = 'header' and subject_id in (select h.id from blog_header h where h.author_id = :person)").param("person", personId).update();
        jdbc.sql("delete from decision where subject = 'header' and subject_id in (select h.id from blog_header h where h.author_id = :person)").param("person", personId).update();
        jdbc.sql("delete from blog_header where author_id = :person or blog_id in (select b.id from blog b where b.owner_id = :person)").param("person", personId).update();
        jdbc.sql("update blog set header_sha = null where owner_id = :person").param("person", personId).update();
        dropUnused(jdbc);
    }

    /** Throws away files that nothing shows any more. */
    static void dropUnused(JdbcClient jdbc) {
        String unused = """
            select m.sha
              from medium m
             where not exists (select 1 from picture p where p.sha = m.sha or p.small_sha = m.sha)
               and not exists (select 1 from blog b where b.header_sha = m.sha)
               and not exists (select 1 from attachment a where a.sha = m.sha)
               and not exists (select 1 from blog_header h where h.sha = m.sha)
               and not exists (select 1 from blog_set s where s.header_sha = m.sha)""";
        jdbc.sql("delete from medium_chunk where sha in (" + unused + ")").update();
        jdbc.sql("delete from medium where sha in (" + unused + ")").update();
    }
}
