package org.vastporch.server.prompts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.marking.LateRule;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.prompts.PromptService.PromptRecord;
import org.vastporch.server.rows.Rows;
import tools.jackson.databind.json.JsonMapper;

@Repository
class PromptStore {

    private static final String COLUMNS = """
        p.id, p.class_id, p.title, p.instructions, p.questions, p.tag, p.opens_at, p.due_at, p.grace_minutes, p.late_per_day, p.late_cap, p.late_floor,
        p.points, p.places, p.asked_words, p.asked_pictures, p.asked_tags, p.asked_links, p.asked_comments, p.asked_category, p.asked_sources,
        p.comments_due_at, p.comments_words, p.starter, p.answer_first, r.definition""";

    private final JdbcClient jdbc;
    private final JsonMapper json;

    PromptStore(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    long addRubric(long classId, String name, Rubric rubric, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                                insert into rubric (class_id, name, definition, created_at)
                                 values (:classId, :name, :definition, :now)""")
                .param("classId", classId)
                .param("name", name)
                .param("definition", json.writeValueAsString(rubric))
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    long add(PromptRecord prompt, @Nullable Long rubricId, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into prompt (class_id, title, instructions, questions, tag, opens_at, due_at, grace_minutes,
                       late_per_day, late_cap, late_floor,
                                    points, places, rubric_id, asked_words, asked_pictures, asked_tags, asked_links,
                                           asked_comments, asked_category, asked_sources,
                                    comments_due_at, comments_words, starter, answer_first, created_at)
                values (:classId, :title, :instructions, :questions, :tag, :opens, :due, :grace, :perDay, :cap, :floor,
                        :points, :places, :rubric, :words, :pictures, :tags, :links, :comments, :category, :sources,
                               :commentsDue, :commentsWords, :starter, :answerFirst, :now)""")
                .param("classId", prompt.classId())
                .param("title", prompt.title())
                .param("instructions", prompt.instructions())
                .param("questions", String.join("\n", prompt.questions()))
                .param("tag", prompt.tag())
                .param("opens", Rows.utc(prompt.opens()))
                .param("due", Rows.utc(prompt.due()))
                .param("grace", prompt.grace().toMinutes())
                .param("perDay", prompt.late().perDay())
                .param("cap", prompt.late().cap())
                .param("floor", prompt.late().floor())
                .param("points", prompt.points())
                .param("places", prompt.places())
                .param("rubric", rubricId)
                .param("words", prompt.asked().words())
                .param("pictures", prompt.asked().pictures())
                .param("tags", prompt.asked().tags())
                .param("links", prompt.asked().links())
                .param("comments", prompt.asked().comments())
                .param("category", prompt.asked().category())
                .param("sources", prompt.asked().sources())
                .param("commentsDue", Rows.utc(prompt.commentsDue()))
                .param("commentsWords", prompt.commentsWords())
                .param("starter", prompt.starter())
                .param("answerFirst", prompt.answerFirst())
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    Optional<PromptRecord> find(long id) {
        return jdbc.sql("select " + COLUMNS
                        + " from prompt p left join rubric r on r.id = p.rubric_id where p.id = :id")
                .param("id", id)
                .query((row, n) -> prompt(row))
                .optional();
    }

    List<PromptRecord> all(Collection<Long> ids) {
        if (ids.isEmpty()) return List.of();
        return jdbc.sql("select " + COLUMNS
                        + " from prompt p left join rubric r on r.id = p.rubric_id where p.id in (:ids)")
                .param("ids", ids)
                .query((row, n) -> prompt(row))
                .list();
    }

    List<PromptRecord> ofClass(long classId) {
        return jdbc.sql("select " + COLUMNS
                        + " from prompt p left join rubric r on r.id = p.rubric_id where "
                        + "p.class_id = :classId order by p.due_at desc, p.id desc")
                .param("classId", classId)
                .query((row, n) -> prompt(row))
                .list();
    }

    List<PromptService.Named> answerFirst(long classId, Instant openAt) {
        return jdbc.sql("""
                select id, title from prompt where class_id = :classId and answer_first and opens_at <= :now
                 order by due_at desc, id desc""")
                .param("classId", classId)
                .param("now", Rows.utc(openAt))
                .query((row, n) -> new PromptService.Named(row.getLong("id"), row.getString("title")))
                .list();
    }

    /** @param openAt only of those that are open then; null for all */
    List<Instant> dueTimes(long classId, @Nullable Instant openAt) {
        return jdbc.sql("select due_at from prompt where class_id = :classId"
                        + (openAt == null ? "" : " and opens_at <= :now") + " order by due_at desc, id desc")
                .param("classId", classId)
                .param("now", Rows.utc(openAt))
                .query((row, n) -> Rows.instant(row, "due_at"))
                .list();
    }

    boolean hasAny(long classId) {
        return jdbc.sql("select exists (select 1 from prompt where class_id = :classId)")
                .param("classId", classId)
                .query(Boolean.class)
                .single();
    }

    private PromptRecord prompt(ResultSet row) throws SQLException {
        String rubric = row.getString("definition");
        return new PromptRecord(
                row.getLong("id"),
                row.getLong("class_id"),
                row.getString("title"),
                row.getString("instructions"),
                row.getString("questions").lines().filter(q -> !q.isBlank()).toList(),
                row.getString("tag"),
                Rows.instant(row, "opens_at"),
                Rows.instant(row, "due_at"),
                Duration.ofMinutes(row.getInt("grace_minutes")),
                new LateRule(
                        row.getBigDecimal("late_per_day"),
                        row.getBigDecimal("late_cap"),
                        row.getBigDecimal("late_floor")),
                row.getBigDecimal("points").stripTrailingZeros(),
                row.getInt("places"),
                new HandIn.Asked(
                        row.getInt("asked_words"),
                        row.getInt("asked_pictures"),
                        row.getInt("asked_tags"),
                        row.getInt("asked_category"),
                        row.getInt("asked_links"),
                        row.getInt("asked_sources"),
                        row.getInt("asked_comments")),
                Rows.instant(row, "comments_due_at"),
                row.getInt("comments_words"),
                row.getString("starter"),
                row.getBoolean("answer_first"),
                rubric == null ? null : json.readValue(rubric, Rubric.class));
    }
}
