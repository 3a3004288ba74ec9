package org.vastporch.server.writing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.access.SettingsText;
import org.vastporch.server.moderation.ApprovingBlogs;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.rows.Rows;

/** Reads the posts of the pile. */
@Repository
class PostPileStore {

    private final JdbcClient jdbc;

    PostPileStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * A post that waits, with what the pile says of its blog and its prompt.
     *
     * @param prompt null if it answers none
     * @param word what its author says with it; null if nothing is said
     */
    record InPile(
            PostRow post,
            ApprovingBlogs.Approving blog,
            @Nullable DuePrompt prompt,
            @Nullable String word) {}

    record DuePrompt(long id, String title, Instant due, Duration grace) {}

    List<InPile> waiting(List<Long> classIds, PileFilter filter) {
        String sort = PileFilter.of(filter.sort(), "post");
        if (classIds.isEmpty() || sort == null) return List.of();
        return jdbc.sql("""
                select p.*, b.title as blog_title, b.settings, q.title as prompt_title, q.due_at, q.grace_minutes,
                       w.word
                  from (select %s from post t where %s and t.class_id in (:classes) and %s
                         order by t.waiting_since, t.id limit :most) p
                  join blog b on b.id = p.blog_id
                  left join prompt q on q.id = p.prompt_id
                  left join hand_in_word w on w.post_id = p.id
                 order by p.waiting_since, p.id""".formatted(PostStore.COLUMNS, PileFilter.waiting(), sort))
                .param("classes", classIds)
                .param("most", filter.most())
                .query((row, n) -> new InPile(
                        PostStore.post(row),
                        ApprovingBlogs.Approving.of(
                                row.getString("blog_title"), SettingsText.read(row.getString("settings"))),
                        row.getString("prompt_title") == null ? null : prompt(row),
                        row.getString("word")))
                .list();
    }

    private static DuePrompt prompt(ResultSet row) throws SQLException {
        return new DuePrompt(
                row.getLong("prompt_id"),
                row.getString("prompt_title"),
                Rows.instant(row, "due_at"),
                Duration.ofMinutes(row.getLong("grace_minutes")));
    }
}
