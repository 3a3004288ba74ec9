package org.vastporch.server.prompts;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.marking.Members.Member;
import org.vastporch.server.rows.Rows;

/** Who hands in a paper with whom, where that is not simply who is in which group now. */
@Repository
class PaperMemberStore {

    record Kept(long promptId, Member member) {}

    private final JdbcClient jdbc;

    PaperMemberStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Kept> ofPrompts(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select prompt_id, student_id, group_id, apart
                  from paper_member
                 where prompt_id in (:prompts)
                 order by prompt_id, student_id""")
                .param("prompts", promptIds)
                .query((row, n) -> new Kept(
                        row.getLong("prompt_id"),
                        new Member(row.getLong("student_id"), Rows.number(row, "group_id"), row.getBoolean("apart"))))
                .list();
    }

    void set(long promptId, Member member) {
        jdbc.sql("""
                merge into paper_member (prompt_id, student_id, group_id, apart, by_hand)
                key (prompt_id, student_id) values (:prompt, :student, :group, :apart, true)""")
                .param("prompt", promptId)
                .param("student", member.student())
                .param("group", member.group())
                .param("apart", member.apart())
                .update();
    }

    /** Prompts for groups that are due, and whose groups were not kept yet. */
    List<Long> due(Instant now) {
        return jdbc.sql("select id from prompt where by_groups and not members_kept and due_at <= :now")
                .param("now", Rows.utc(now))
                .query(Long.class)
                .list();
    }

    /** Keeps the groups of a prompt as they are now, for all of whom nobody said otherwise. */
    void keep(long promptId) {
        jdbc.sql("""
                insert into paper_member (prompt_id, student_id, group_id, apart, by_hand)
                select q.id, m.person_id, m.group_id, false, false
                  from prompt q
                  join membership m on m.class_id = q.class_id and m.role = 'STUDENT' and m.ended_at is null
                 where q.id = :prompt and m.group_id is not null
                   and not exists (select 1 from paper_member k where k.prompt_id = q.id and k.student_id = m.person_id)""").param("prompt", promptId).update();
        jdbc.sql("update prompt set members_kept = true where id = :prompt")
                .param("prompt", promptId)
                .update();
    }

    /** Lets the groups of a prompt be those of now again, since it is due later. */
    void letGo(long promptId) {
        jdbc.sql("delete from paper_member where prompt_id = :prompt and not by_hand")
                .param("prompt", promptId)
                .update();
        jdbc.sql("update prompt set members_kept = false where id = :prompt")
                .param("prompt", promptId)
                .update();
    }

    /** Those of some prompts whose groups were kept. */
    Set<Long> kept(Collection<Long> promptIds) {
        return Set.copyOf(jdbc.sql("select id from prompt where id in (:prompts) and members_kept")
                .param("prompts", promptIds)
                .query(Long.class)
                .list());
    }
}
