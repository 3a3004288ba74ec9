package org.vastporch.server.moderation;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.access.Role;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.server.rows.Rows;

/** The decisions that were made, never changed but for an undo, and the holds on what waits. */
@Repository
class DecisionStore {

    /** One decision with where the text stood before it. */
    record Decision(
            long id,
            long classId,
            String subject,
            long subjectId,
            int version,
            Step step,
            String note,
            long by,
            Instant at,
            Standing before,
            @Nullable Instant waitingBefore,
            @Nullable Instant publishedBefore,
            int afterRev,
            boolean undone) {}

    /** A text of any kind. */
    record Key(String subject, long id) {

        static Key of(ResultSet row) throws SQLException {
            return new Key(row.getString("subject"), row.getLong("subject_id"));
        }

        static List<Object[]> pairs(Collection<Key> keys) {
            return keys.stream().map(k -> new Object[] {k.subject(), k.id()}).toList();
        }
    }

    /** A person in a class. */
    record InClass(long classId, long personId) {}

    private static final String COLUMNS = """
        id, class_id, subject, subject_id, version_no, step, note, decided_by, decided_at, before_state, before_live, before_working,
        before_waiting, before_published, after_rev, undone_at""";

    private final JdbcClient jdbc;

    DecisionStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(Moderated.Text text, String subject, Step step, String note, long by, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        Standing before = text.standing();
        jdbc.sql("""
                insert into decision (class_id, subject, subject_id, author_id, version_no, step, note, decided_by,
                       decided_at, before_state,
                                      before_live, before_working, before_waiting, before_published, after_rev)
                values (:classId, :subject, :id, :author, :version, :step, :note, :by, :now, :state, :live, :working,
                       :waiting, :published, :rev)""")
                .param("classId", text.classId())
                .param("subject", subject)
                .param("id", text.id())
                .param("author", text.authorId())
                .param("version", before.judged())
                .param("step", step.name())
                .param("note", note)
                .param("by", by)
                .param("now", Rows.utc(now))
                .param("state", before.state().name())
                .param("live", before.live())
                .param("working", before.working())
                .param("waiting", Rows.utc(text.course().waitingSince()))
                .param("published", Rows.utc(text.course().publishedAt()))
                .param("rev", text.rev() + 1)
                .update(key, "id");
        return key.getKey().longValue();
    }

    Optional<Decision> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from decision where id = :id")
                .param("id", id)
                .query((row, n) -> decision(row))
                .optional();
    }

    /** The decisions about a text, the newest first, without those that were undone. */
    List<Decision> about(String subject, long subjectId) {
        Key key = new Key(subject, subjectId);
        return about(List.of(key)).getOrDefault(key, List.of());
    }

    Map<Key, List<Decision>> about(Collection<Key> texts) {
        Map<Key, List<Decision>> about = new HashMap<>();
        if (texts.isEmpty()) return about;
        jdbc.sql("select " + COLUMNS + " from decision where (subject, subject_id) in (:texts) and undone_at is null"
                        + " order by id desc")
                .param("texts", Key.pairs(texts))
                .query(row -> {
                    about.computeIfAbsent(Key.of(row), key -> new ArrayList<>()).add(decision(row));
                });
        return about;
    }

    /** The decisions of a class, the newest first, taken back or not. */
    List<DecisionLog.Row> log(long classId, @Nullable Step step, @Nullable Long before, int most) {
        return jdbc.sql("""
                select d.id, d.decided_at, d.decided_by, d.step, d.subject, d.author_id, d.version_no, d.note,
                       d.undone_at,
                       coalesce(p.id, q.id, 0) as post_id, coalesce(v.title, w.title, hb.title, rq.title, '') as title
                  from decision d
                  left join post p on d.subject = 'post' and p.id = d.subject_id
                  left join post_version v on v.post_id = p.id and v.no = d.version_no
                  left join comment k on d.subject = 'comment' and k.id = d.subject_id
                  left join post q on q.id = k.post_id
                  left join post_version w on w.post_id = q.id and w.no = coalesce(q.live, q.working)
                  left join blog_header h on d.subject = 'header' and h.id = d.subject_id
                  left join blog hb on hb.id = h.blog_id
                  left join review rv on d.subject = 'review' and rv.id = d.subject_id
                  left join prompt rq on rq.id = rv.prompt_id
                 where d.class_id = :classId and d.id < :before and (:step is null or d.step = :step)
                 order by d.class_id desc, d.id desc
                 limit :most""")
                .param("classId", classId)
                .param("before", before == null ? Long.MAX_VALUE : before)
                .param("step", step == null ? null : step.name())
                .param("most", most)
                .query((row, n) -> new DecisionLog.Row(
                        row.getLong("id"),
                        Rows.instant(row, "decided_at"),
                        row.getLong("decided_by"),
                        Step.valueOf(row.getString("step")),
                        row.getString("subject"),
                        row.getLong("post_id"),
                        row.getString("title"),
                        Rows.number(row, "author_id"),
                        row.getInt("version_no"),
                        row.getString("note"),
                        Rows.instant(row, "undone_at")))
                .list();
    }

    void undo(long id, Instant now) {
        jdbc.sql("update decision set undone_at = :now where id = :id")
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    /**
     * What is known of people who write in classes. Approvals in a row are those of posts, without return or hide after
     * them, since the rule was changed last.
     */
    Map<InClass, Author> authors(Collection<Long> classIds, Collection<Long> personIds, Instant now) {
        Map<InClass, Author> authors = new HashMap<>();
        if (classIds.isEmpty() || personIds.isEmpty()) return authors;
        jdbc.sql("""
                select m.class_id, m.person_id, m.role, m.ended_at, m.post_policy, m.comment_policy,
                       (select count(*)
                          from decision d
                         where d.class_id = m.class_id and d.author_id = m.person_id and d.subject = 'post'
                           and d.step = 'APPROVE' and d.undone_at is null
                           and d.decided_at > coalesce(c.trust_since, timestamp with time zone '2000-01-01 00:00:00+00:00')
                           and d.id > coalesce((select max(x.id)
                                                  from decision x
                                                 where x.class_id = m.class_id and x.author_id = m.person_id
                                                   and x.subject = 'post' and x.step in ('RETURN', 'HIDE')
                                                   and x.undone_at is null), 0)) as approvals,
                       (select count(*)
                          from post p
                         where p.class_id = m.class_id and p.author_id = m.person_id and p.published_at is not null
                           and p.source_id is null) as published
                  from membership m
                  join class c on c.id = m.class_id
                 where m.class_id in (:classes) and m.person_id in (:persons)""").param("classes", classIds).param("persons", personIds).query(row -> {
            authors.put(
                    new InClass(row.getLong("class_id"), row.getLong("person_id")),
                    new Author(
                            place(row, now),
                            policy(row.getString("post_policy")),
                            policy(row.getString("comment_policy")),
                            row.getInt("approvals"),
                            row.getInt("published")));
        });
        return authors;
    }

    private static Author.Place place(ResultSet row, Instant now) throws SQLException {
        Instant ended = Rows.instant(row, "ended_at");
        if (ended != null && !ended.isAfter(now)) return Author.Place.NONE;
        Role role = Role.valueOf(row.getString("role"));
        if (role.readsAsStaff()) return Author.Place.STAFF;
        return role == Role.GUEST ? Author.Place.GUEST : Author.Place.MEMBER;
    }

    /** How long the latest texts of a class waited for their decision. */
    List<Duration> waits(long classId, int most) {
        return jdbc.sql("""
                select before_waiting, decided_at
                  from decision
                 where class_id = :classId and before_waiting is not null and before_state = 'WAITING' and undone_at
                        is null
                 order by class_id desc, id desc
                 limit :most""")
                .param("classId", classId)
                .param("most", most)
                .query((row, n) ->
                        Duration.between(Rows.instant(row, "before_waiting"), Rows.instant(row, "decided_at")))
                .list();
    }

    void setOfStudent(long classId, long personId, @Nullable Policy posts, @Nullable Policy comments) {
        jdbc.sql("""
                                update membership
                                 set post_policy = :posts, comment_policy = :comments
                                 where class_id = :classId and person_id = :person""")
                .param("posts", posts == null ? null : posts.name())
                .param("comments", comments == null ? null : comments.name())
                .param("classId", classId)
                .param("person", personId)
                .update();
    }

    private static @Nullable Policy policy(@Nullable String name) {
        return name == null ? null : Policy.valueOf(name);
    }

    /** How many texts of each class wait, and of which sort they are. */
    List<PileService.PileCount> counts(List<Long> classIds) {
        if (classIds.isEmpty()) return List.of();
        String held = "case when exists (select 1 from hold h where h.subject = '%1$s' and h.subject_id = "
                + "t.id) then 1 else 0 end as held,"
                + " case when exists (select 1 from report r where r.subject = '%1$s' and "
                + "r.subject_id = t.id and r.decision_id is null) then 1 else 0 end as reported";
        String of = " from %1$s t where " + PileFilter.waiting() + " and t.class_id in (:classes)";
        return jdbc.sql(
                        """
                select w.class_id, c.name, count(*) as n, sum(w.post) as posts, sum(w.comment) as comments,
                       sum(w.review) as reviews, sum(w.outside) as outside, sum(w.held) as held,
                       sum(w.reported) as reported, sum(w.up) as up
                  from (select t.class_id, case when t.source_id is null then 1 else 0 end as post, 0 as comment, 0 as
                         review, case when t.source_id is null then 0 else 1 end as outside,
                """ + "case when " + PileFilter.UP + " then 1 else 0 end as up, " + held.formatted("post")
                                + of.formatted("post")
                                + " union all select t.class_id, 0, 1, 0, 0, case when " + PileFilter.UP
                                + " then 1 else 0 end, "
                                + held.formatted("comment") + of.formatted("comment")
                                + " union all select t.class_id, 0, 0, 0, 0, 0, " + held.formatted("header")
                                + " from blog_header t where " + PileFilter.waiting() + " and t.class_id in (:classes)"
                                + " union all select q.class_id, 0, 0, 1, 0, case when " + PileFilter.UP
                                + " then 1 else 0 end, " + held.formatted("review")
                                + " from review t join prompt q on q.id = t.prompt_id where " + PileFilter.waiting()
                                + " and q.class_id in (:classes)) w join class c on c.id = w.class_id group by w.class_id, c.name order by c.name")
                .param("classes", classIds)
                .query((row, n) -> new PileService.PileCount(
                        row.getLong("class_id"),
                        row.getString("name"),
                        row.getInt("n"),
                        row.getInt("posts"),
                        row.getInt("comments"),
                        row.getInt("reviews"),
                        row.getInt("outside"),
                        row.getInt("held"),
                        row.getInt("reported"),
                        row.getInt("up")))
                .list();
    }

    void addHold(String subject, long subjectId, Hold hold) {
        jdbc.sql("""
                                insert into hold (subject, subject_id, rule, starts, ends, found)
                                 values (:subject, :id, :rule, -1, -1, :found)""")
                .param("subject", subject)
                .param("id", subjectId)
                .param("rule", hold.rule().name())
                .param("found", hold.found())
                .update();
    }

    void setHolds(String subject, long subjectId, List<Hold> holds) {
        jdbc.sql("delete from hold where subject = :subject and subject_id = :id")
                .param("subject", subject)
                .param("id", subjectId)
                .update();
        for (Hold hold : holds)
            jdbc.sql("""
                                    insert into hold (subject, subject_id, rule, starts, ends, found)
                                     values (:subject, :id, :rule, :starts, :ends, :found)""")
                    .param("subject", subject)
                    .param("id", subjectId)
                    .param("rule", hold.rule().name())
                    .param("starts", hold.start())
                    .param("ends", hold.end())
                    .param("found", hold.found().length() > 400 ? hold.found().substring(0, 400) : hold.found())
                    .update();
    }

    /** What holds texts; of each in the order of its places. */
    Map<Key, List<Hold>> holds(Collection<Key> texts) {
        Map<Key, List<Hold>> holds = new HashMap<>();
        if (texts.isEmpty()) return holds;
        jdbc.sql("""
                select subject, subject_id, rule, starts, ends, found
                  from hold
                 where (subject, subject_id) in (:texts)
                 order by starts""").param("texts", Key.pairs(texts)).query(row -> {
            holds.computeIfAbsent(Key.of(row), key -> new ArrayList<>())
                    .add(new Hold(
                            Hold.Rule.valueOf(row.getString("rule")),
                            row.getInt("starts"),
                            row.getInt("ends"),
                            row.getString("found")));
        });
        return holds;
    }

    private static Decision decision(ResultSet row) throws SQLException {
        return new Decision(
                row.getLong("id"),
                row.getLong("class_id"),
                row.getString("subject"),
                row.getLong("subject_id"),
                row.getInt("version_no"),
                Step.valueOf(row.getString("step")),
                row.getString("note"),
                row.getLong("decided_by"),
                Rows.instant(row, "decided_at"),
                new Standing(
                        State.valueOf(row.getString("before_state")),
                        Rows.integer(row, "before_live"),
                        Rows.integer(row, "before_working")),
                Rows.instant(row, "before_waiting"),
                Rows.instant(row, "before_published"),
                row.getInt("after_rev"),
                row.getObject("undone_at") != null);
    }
}
