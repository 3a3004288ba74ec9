package org.vastporch.server.prompts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.prompts.Questions;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** Questions under prompts, and what was answered. */
@Repository
@Order(11)
class QuestionStore implements Traces {

    record QuestionRow(
            long id,
            long promptId,
            String question,
            Instant askedAt,
            @Nullable Long answeredBy,
            Questions.Question is,
            int rev) {}

    private static final String COLUMNS =
            "id, prompt_id, asker_id, question, asked_at, answer, answered_by, for_all, rev";

    private final JdbcClient jdbc;

    QuestionStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The questions under a prompt, in the order in which they were asked. */
    List<QuestionRow> ofPrompt(long promptId) {
        return jdbc.sql("select " + COLUMNS + " from prompt_question where prompt_id = :prompt order by id")
                .param("prompt", promptId)
                .query(QuestionStore::row)
                .list();
    }

    /** A question, its row locked until the transaction ends. */
    Optional<QuestionRow> lock(long id) {
        return jdbc.sql("select " + COLUMNS + " from prompt_question where id = :id for update")
                .param("id", id)
                .query(QuestionStore::row)
                .optional();
    }

    /** How many of somebody's questions under a prompt have no answer. */
    int waiting(long promptId, long askerId) {
        return jdbc.sql("""
                        select count(*)
                          from prompt_question
                         where prompt_id = :prompt and asker_id = :asker and answer is null""")
                .param("prompt", promptId)
                .param("asker", askerId)
                .query(Integer.class)
                .single();
    }

    /** The prompts of a class under which something waits for an answer, and how much. */
    List<PromptQuestions.Waiting> waiting(long classId) {
        return jdbc.sql("""
                select p.id, p.title, count(*) as questions
                  from prompt_question q
                  join prompt p on p.id = q.prompt_id
                 where p.class_id = :classId and q.answer is null
                 group by p.id, p.title
                 order by p.id desc""")
                .param("classId", classId)
                .query((row, n) ->
                        new PromptQuestions.Waiting(row.getLong("id"), row.getString("title"), row.getInt("questions")))
                .list();
    }

    long add(long promptId, long askerId, String question, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into prompt_question (prompt_id, asker_id, question, asked_at)
                values (:prompt, :asker, :question, :now)""")
                .param("prompt", promptId)
                .param("asker", askerId)
                .param("question", question)
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    void answer(long id, String answer, long by, boolean forAll, Instant now) {
        jdbc.sql("""
                update prompt_question
                   set answer = :answer, answered_by = :by, answered_at = :now, for_all = :forAll, rev = rev + 1
                 where id = :id""")
                .param("answer", answer)
                .param("by", by)
                .param("now", Rows.utc(now))
                .param("forAll", forAll)
                .param("id", id)
                .update();
    }

    void remove(long id) {
        jdbc.sql("delete from prompt_question where id = :id").param("id", id).update();
    }

    private static QuestionRow row(ResultSet row, int n) throws SQLException {
        return new QuestionRow(
                row.getLong("id"),
                row.getLong("prompt_id"),
                row.getString("question"),
                Rows.instant(row, "asked_at"),
                Rows.number(row, "answered_by"),
                new Questions.Question(row.getLong("asker_id"), row.getString("answer"), row.getBoolean("for_all")),
                row.getInt("rev"));
    }

    @Override
    public String what() {
        return "questions";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return jdbc.sql("""
                select count(*)
                  from prompt_question q
                  join prompt p on p.id = q.prompt_id
                 where q.asker_id = :person and (:classId is null or p.class_id = :classId)""")
                .param("person", personId)
                .param("classId", classId)
                .query(Integer.class)
                .single();
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from prompt_question where asker_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("update prompt_question set answered_by = null where answered_by = :person")
                .param("person", personId)
                .update();
    }
}
