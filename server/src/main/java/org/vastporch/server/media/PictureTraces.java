package org.vastporch.server.media;

import java.util.List;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Pictures in posts that go with a person, and the bytes that no other picture shares. */
@Repository
@Order(30)
class PictureTraces implements Traces {

    private final JdbcClient jdbc;
    private final MediaStore media;

    PictureTraces(JdbcClient jdbc, MediaStore media) {
        this.jdbc = jdbc;
        this.media = media;
    }

    @Override
    public void erase(long personId) {
        List<String> files = media.shasOf(personId);
        jdbc.sql("""
                delete from picture
                 where owner_id = :person
                    or post_id in (""" + Traces.POSTS_THAT_GO + ")").param("person", personId).update();
        jdbc.sql("""
                delete from attachment
                 where owner_id = :person
                    or post_id in (""" + Traces.POSTS_THAT_GO + ")").param("person", personId).update();
        jdbc.sql("""
                                delete
                                 from hold
                                 where subject = 'header' and subject_id in (select h.id from blog_header h
                                    where h.author_id = :person)""").param("person", personId).update();
        jdbc.sql("""
                                delete
                                 from decision
                                 where subject = 'header' and subject_id in (select h.id from blog_header h
                                    where h.author_id = :person)""").param("person", personId).update();
        jdbc.sql("""
                                delete
                                 from blog_header
                                 where author_id = :person or blog_id in (select b.id from blog b where
                                    b.owner_id = :person)""").param("person", personId).update();
        jdbc.sql("update blog set header_sha = null where owner_id = :person")
                .param("person", personId)
                .update();
        media.dropUnused(files);
    }
}
