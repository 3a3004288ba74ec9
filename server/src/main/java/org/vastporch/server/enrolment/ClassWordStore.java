package org.vastporch.server.enrolment;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.enrolment.ClassWord;
import org.vastporch.server.rows.Rows;

/** The class word of each class. */
@Repository
class ClassWordStore {

    private final JdbcClient jdbc;

    ClassWordStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param word null to switch it off */
    void set(long classId, @Nullable ClassWord word) {
        jdbc.sql("update class set word = :word, word_until = :until, word_left = :left where id = :id")
                .param("word", word == null ? null : word.word())
                .param("until", word == null ? null : Rows.utc(word.until()))
                .param("left", word == null ? null : word.left())
                .param("id", classId)
                .update();
    }

    /** The class with a class word, its row locked so that the number of those who may come is kept. */
    Optional<Long> lock(String word) {
        return jdbc.sql("select id from class where word = :word for update")
                .param("word", word)
                .query(Long.class)
                .optional();
    }
}
