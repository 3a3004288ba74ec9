package org.vastporch.server.subscriptions;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.server.rows.Rows;

/** What happened for one reader between two moments. Whether the reader may read it is not asked here. */
@Repository
class NewsStore {

    /** A stretch of time: after {@code since}, up to {@code until}. */
    record Between(Instant since, Instant until) {}

    /**
     * @param kind POST, COMMENT, ANSWER, WORD, RETURNED, HIDDEN, APPROVED, SOURCE, SCORE, RESCORED, OWN_DATE, LET_OFF,
     *     AGAIN, PROMPT_CHOSEN, EXAMPLE_ASKED, WARM_UP_ASKED, FEEDBACK_WORD, FEEDBACK_ANSWERED, TO_REVIEW,
     *     REVIEW_REMINDER, SECOND_ASKED, REVIEW_RETURNED or REVIEWED
     * @param postId 0 for none
     * @param html a text; of a score the reason, of a question the answer, in plain words
     * @param byId 0 for nobody with an account
     * @param comment the number of the comment, of a question that of its prompt; null for none
     */
    record Happened(
            String kind,
            long classId,
            long postId,
            @Nullable Long comment,
            String title,
            long byId,
            @Nullable String visitor,
            Instant at,
            String html) {}

    private static final int MOST = 200;

    /** A subscription u of the reader that takes in post p. */
    private static final String TAKES_IN = """
        u.person_id = :me and u.ended_at is null and u.class_id = p.class_id
        and (u.kind = 'CLASS' or u.kind = 'BLOG' and u.target_id = p.blog_id or u.kind = 'PERSON' and u.target_id = p.author_id or u.kind = 'THREAD' and u.target_id = p.id
             or u.kind = 'TAG' and exists (select 1 from post_tag t where t.post_id = p.id and t.folded = u.tag))""";

    private static final String TEXT = " join post_version v on v.post_id = p.id and v.no = p.live ";
    private static final String COMMENT = """
                    select '%s' as kind, p.class_id, p.id as post_id, k.id as comment, v.title,
                        coalesce(k.author_id, 0) as by_id, k.visitor, k.published_at as at, k.html"""
            + " from comment k join post p on p.id = k.post_id " + TEXT
            + "where k.state = 'PUBLISHED' and k.published_at > :since and k.published_at <= "
            + ":until and coalesce(k.author_id, 0) <> :me";

    private final JdbcClient jdbc;

    NewsStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * Posts of a class that first went up in a stretch of time, and that the reader subscribed to; who may read them is
     * asked afterwards.
     *
     * @param cadence only for subscriptions whose posts are told so often; null for all
     */
    List<Happened> posts(long classId, long me, Between between, @Nullable Cadence cadence) {
        return jdbc.sql("""
                                select 'POST' as kind, p.class_id, p.id as post_id, null as comment, v.title,
                                    p.author_id as by_id, null as visitor, e.at, v.html
                                 from event e
                                 join post p on p.id = e.subject_id"""
                        + TEXT + """
                  where e.class_id = :classId and e.kind = 'post-published' and e.at > :since and e.at <= :until
                   and coalesce(p.author_id, 0) <> :me
                   and not exists (select 1 from event x where x.subject_id = p.id and x.kind = 'post-published' and x.id < e.id)
                   and exists (select 1 from subscription u where""" + " " + TAKES_IN + " and u.kind <> 'THREAD'"
                        + (cadence == null ? "" : " and u.posts = :cadence") + ") order by e.at desc limit "
                        + MOST)
                .params(params(me, between, cadence))
                .param("classId", classId)
                .query((row, n) -> happened(row))
                .list();
    }

    /**
     * Comments in a class on what was subscribed to; without a cadence those of threads alone, which is what shows in
     * the news.
     */
    List<Happened> comments(long classId, long me, Between between, @Nullable Cadence cadence) {
        return jdbc.sql(COMMENT.formatted("COMMENT")
                        + " and k.class_id = :classId and not (coalesce(p.author_id, 0) = :me or exists"
                        + " (select 1 from comment q where q.id = k.parent_id and q.author_id = :me))"
                        + " and exists (select 1 from subscription u where " + TAKES_IN
                        + (cadence == null ? " and u.kind = 'THREAD'" : " and u.comments = :cadence")
                        + ") order by k.published_at desc limit " + MOST)
                .params(params(me, between, cadence))
                .param("classId", classId)
                .query((row, n) -> happened(row))
                .list();
    }

    /**
     * Those of some posts that the reader finds by something else than having subscribed to their author.
     *
     * @param comments whether it is about the comments on them, and not about the posts themselves
     * @param cadence only by subscriptions that tell so often; null for all
     */
    Set<Long> notByName(Collection<Long> posts, boolean comments, long me, @Nullable Cadence cadence) {
        if (posts.isEmpty()) return Set.of();
        String told = comments ? "u.comments" : "u.posts";
        String which = cadence != null ? told + " = :cadence" : comments ? "u.kind = 'THREAD'" : "u.kind <> 'THREAD'";
        JdbcClient.StatementSpec found = jdbc.sql("select p.id from post p where p.id in (:posts)"
                        + " and exists (select 1 from subscription u where " + TAKES_IN
                        + " and u.kind <> 'PERSON' and " + which + ")")
                .param("posts", posts)
                .param("me", me);
        return Set.copyOf((cadence == null ? found : found.param("cadence", cadence.name()))
                .query(Long.class)
                .list());
    }

    /** Comments on what the reader wrote, and replies. */
    List<Happened> answers(long me, Between between) {
        String newest = " order by k.published_at desc limit " + MOST;
        List<Happened> answers =
                new ArrayList<>(jdbc.sql(COMMENT.formatted("ANSWER") + " and p.author_id = :me" + newest)
                        .params(params(me, between, null))
                        .query((row, n) -> happened(row))
                        .list());
        answers.addAll(jdbc.sql(COMMENT.formatted("ANSWER")
                        + " and coalesce(p.author_id, 0) <> :me and k.parent_id in (select q.id from "
                        + "comment q where q.author_id = :me)"
                        + newest)
                .params(params(me, between, null))
                .query((row, n) -> happened(row))
                .list());
        return answers;
    }

    /** Private words to the reader; their text is never part of it. */
    List<Happened> words(long me, Between between) {
        return jdbc.sql("""
                select 'WORD' as kind, a.class_id, p.id as post_id, null as comment, v.title, a.author_id as by_id,
                       null as visitor, a.created_at as at, '' as html
                  from aside a
                  left join comment k on a.subject = 'comment' and k.id = a.subject_id
                  join post p on p.id = case when a.subject = 'post' then a.subject_id else k.post_id end
                  join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working)
                 where a.kind = 'WORD' and a.created_at > :since and a.created_at <= :until
                   and (a.subject = 'post' and p.author_id = :me or a.subject = 'comment' and k.author_id = :me)
                 order by a.created_at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    /** Words about the marks of a paper: of the staff to the reader, and of students to the reader, who marked them. */
    List<Happened> wordsOnPapers(long me, Between between) {
        return jdbc.sql("""
                select case when a.student_id = :me then 'FEEDBACK_WORD' else 'FEEDBACK_ANSWERED' end as kind,
                       q.class_id, 0 as post_id, q.id as comment, q.title, a.author_id as by_id, null as visitor,
                       a.created_at as at, '' as html
                  from aside a
                  join prompt q on q.id = a.subject_id
                  left join marking m on m.prompt_id = q.id and m.student_id = a.student_id
                 where a.subject = 'paper' and a.created_at > :since and a.created_at <= :until and a.author_id <> :me
                   and (a.student_id = :me and m.released_at is not null and not m.awaits_own
                        or a.author_id = a.student_id and m.marker_id = :me)
                 order by a.created_at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    /** What was decided about the reader's posts. */
    List<Happened> decisions(long me, Between between) {
        return jdbc.sql("""
                select case d.step when 'RETURN' then 'RETURNED' when 'HIDE' then 'HIDDEN' else 'APPROVED' end as
                       kind, d.class_id, p.id as post_id, null as comment, v.title,
                       d.decided_by as by_id, null as visitor, d.decided_at as at, '' as html
                  from decision d
                  join post p on p.id = d.subject_id
                  join post_version v on v.post_id = p.id and v.no = coalesce(p.working, p.live)
                 where d.subject = 'post' and d.author_id = :me and d.decided_by <> :me and d.undone_at is null and
                        d.decided_at > :since and d.decided_at <= :until
                 order by d.decided_at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    /** Outside blogs that falter in the classes of the reader, each by whose it is. */
    List<Happened> faltering(long me, Between between) {
        return jdbc.sql("""
                select 'SOURCE' as kind, s.class_id, 0 as post_id, null as comment, s.title,
                       coalesce(s.person_id, 0) as by_id, null as visitor, e.at, '' as html
                  from event e
                  join source s on s.id = e.subject_id
                  join membership m on m.class_id = s.class_id and m.person_id = :me and m.ended_at is null
                 where e.kind = 'source-faltering' and e.at > :since and e.at <= :until and s.removed_at is null
                 order by e.at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    /** Scores of the reader that were released, or changed after that, as far as they stand released. */
    List<Happened> scores(long me, Between between) {
        return jdbc.sql("""
                select case e.kind when 'RELEASED' then 'SCORE' else 'RESCORED' end as kind, q.class_id, 0 as post_id,
                       null as comment, q.title, coalesce(e.by_id, 0) as by_id, null as visitor, e.happened_at as at,
                       e.reason as html
                  from score_event e
                  join prompt q on q.id = e.prompt_id
                  join marking m on m.prompt_id = e.prompt_id and m.student_id = e.student_id
                 where e.student_id = :me and e.kind in ('RELEASED', 'CHANGED') and e.happened_at >= m.released_at and not m.awaits_own
                   and e.happened_at > :since and e.happened_at <= :until
                   and not exists (select 1 from allowance a where a.prompt_id = e.prompt_id
                                   and a.student_id = e.student_id and a.let_off)
                 order by e.happened_at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    /** Dates of the reader's own, being let off, and handing in again. */
    List<Happened> allowances(long me, Between between) {
        return jdbc.sql("""
                select case when a.let_off then 'LET_OFF' when a.again then 'AGAIN' else 'OWN_DATE' end as kind,
                       q.class_id, 0 as post_id, q.id as comment, q.title, 0 as by_id, null as visitor, a.set_at as at, '' as html
                  from allowance a
                  join prompt q on q.id = a.prompt_id
                 where a.student_id = :me and q.opens_at <= :until and a.set_at > :since and a.set_at <= :until
                   and (a.let_off or a.again or a.due_at is not null)
                 order by a.set_at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    /** Questions of the reader that were answered, by the title of the prompt under which they stand. */
    List<Happened> answeredQuestions(long me, Between between) {
        return jdbc.sql("""
                select 'QUESTION_ANSWERED' as kind, p.class_id, 0 as post_id, p.id as comment, p.title,
                       coalesce(q.answered_by, 0) as by_id, null as visitor, q.answered_at as at, q.answer as html
                  from prompt_question q
                  join prompt p on p.id = q.prompt_id
                 where q.asker_id = :me and q.answered_at > :since and q.answered_at <= :until
                 order by q.answered_at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    /**
     * What classmates and colleagues are asked to review, and what came of it: by prompt, without names, since these
     * may be kept back. Of a review that came back, by the number of the review.
     */
    List<Happened> reviews(long me, Between between) {
        return jdbc.sql("""
                select 'TO_REVIEW' as kind, q.class_id, 0 as post_id, q.id as comment, q.title, 0 as by_id,
                       null as visitor, max(t.begun_at) as at, '' as html
                  from review t
                  join prompt q on q.id = t.prompt_id
                 where t.reader_id = :me and t.kind = 'PEER' and t.ended_at is null and t.begun_at > :since
                   and t.begun_at <= :until and q.peers is not null
                 group by q.class_id, q.id, q.title
                union all
                select 'REVIEW_REMINDER', q.class_id, 0, q.id, q.title, 0, null, q.peers_reminded_at, ''
                  from prompt q
                 where q.peers_reminded_at > :since and q.peers_reminded_at <= :until and q.peers is not null
                   and exists (select 1 from review t where t.prompt_id = q.id and t.reader_id = :me and t.kind = 'PEER'
                               and t.ended_at is null and t.state in ('DRAFT', 'RETURNED'))
                union all
                select 'REVIEWED', q.class_id, 0, q.id, q.title, 0, null, max(t.published_at), ''
                  from review t
                  join prompt q on q.id = t.prompt_id
                 where t.student_id = :me and t.kind = 'PEER' and t.state = 'PUBLISHED' and t.published_at > :since
                   and t.published_at <= :until and q.peers is not null
                 group by q.class_id, q.id, q.title
                union all
                select 'SECOND_ASKED', q.class_id, 0, q.id, q.title, t.asked_by, null, max(t.begun_at), ''
                  from review t
                  join prompt q on q.id = t.prompt_id
                 where t.reader_id = :me and t.kind = 'SECOND' and t.asked_by <> :me and t.begun_at > :since
                   and t.begun_at <= :until
                 group by q.class_id, q.id, q.title, t.asked_by
                union all
                select 'REVIEW_RETURNED', q.class_id, 0, t.id, q.title, d.decided_by, null, d.decided_at, ''
                  from decision d
                  join review t on t.id = d.subject_id
                  join prompt q on q.id = t.prompt_id
                 where d.subject = 'review' and d.step = 'RETURN' and d.author_id = :me and d.undone_at is null
                   and t.state = 'RETURNED' and t.ended_at is null and q.peers is not null
                   and d.decided_at > :since and d.decided_at <= :until
                 order by at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    /** Posts of the reader of which somebody else said which prompt they answer. */
    List<Happened> chosenPrompts(long me, Between between) {
        return jdbc.sql("""
                select 'PROMPT_CHOSEN' as kind, p.class_id, p.id as post_id, null as comment, v.title,
                       coalesce(e.actor_id, 0) as by_id, null as visitor, e.at, '' as html
                  from post p
                  join event e on e.subject_id = p.id and e.kind = 'answered-prompt-set'
                  join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working)
                 where p.author_id = :me and coalesce(e.actor_id, 0) <> :me and e.at > :since and e.at <= :until
                 order by e.at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    /** Posts of the reader that somebody would like to show as examples, or to let reviewers warm up on. */
    List<Happened> askedExamples(long me, Between between) {
        return jdbc.sql("""
                select concat(e.used_as, '_ASKED') as kind, p.class_id, p.id as post_id, null as comment, v.title,
                       coalesce(e.asked_by, 0) as by_id, null as visitor, e.asked_at as at, '' as html
                  from example_post e
                  join post p on p.id = e.post_id
                  join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working)
                 where e.author_id = :me and e.given is null and e.asked_at > :since and e.asked_at <= :until
                 order by e.asked_at desc
                 limit 50""")
                .param("me", me)
                .param("since", Rows.utc(between.since()))
                .param("until", Rows.utc(between.until()))
                .query((row, n) -> happened(row))
                .list();
    }

    private static Map<String, Object> params(long me, Between between, @Nullable Cadence cadence) {
        Map<String, Object> params = new HashMap<>();
        params.put("me", me);
        params.put("since", Rows.utc(between.since()));
        params.put("until", Rows.utc(between.until()));
        if (cadence != null) params.put("cadence", cadence.name());
        return params;
    }

    private static Happened happened(ResultSet row) throws SQLException {
        return new Happened(
                row.getString("kind"),
                row.getLong("class_id"),
                row.getLong("post_id"),
                Rows.number(row, "comment"),
                row.getString("title"),
                row.getLong("by_id"),
                row.getString("visitor"),
                Rows.instant(row, "at"),
                row.getString("html"));
    }
}
