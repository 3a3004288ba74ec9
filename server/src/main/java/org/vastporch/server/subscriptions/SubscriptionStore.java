package org.vastporch.server.subscriptions;

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
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** What people subscribed to, and how they want to be written to. */
@Repository
@Order(15)
class SubscriptionStore implements Traces {

    /** What one can subscribe to: a class's posts, a blog, a person's posts, a tag, the comments of a post. */
    enum Kind {
        CLASS,
        BLOG,
        PERSON,
        TAG,
        THREAD
    }

    record Subscription(
            long id,
            long personId,
            long classId,
            Kind kind,
            @Nullable Long targetId,
            @Nullable String tag,
            Cadence posts,
            Cadence comments,
            @Nullable Instant endedAt) {}

    /** How somebody wants to be told of answers to what they wrote. */
    record MailWish(Cadence answers, String stopToken, Instant newsSeenAt) {}

    record Reader(long personId, String email, String zone) {}

    private static final String COLUMNS = "id, person_id, class_id, kind, target_id, tag, posts, comments, ended_at";

    private final JdbcClient jdbc;

    SubscriptionStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Subscription> of(long personId) {
        return jdbc.sql("select " + COLUMNS
                        + " from subscription where person_id = :person and ended_at is null "
                        + "order by class_id, kind, id")
                .param("person", personId)
                .query((row, n) -> subscription(row))
                .list();
    }

    Optional<Subscription> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from subscription where id = :id")
                .param("id", id)
                .query((row, n) -> subscription(row))
                .optional();
    }

    Optional<Subscription> same(Subscription s) {
        return jdbc.sql("select " + COLUMNS + """
                 from subscription
                where person_id = :person and class_id = :classId and kind = :kind and target_id is not distinct from
                       :target and tag is not distinct from :tag""")
                .param("person", s.personId())
                .param("classId", s.classId())
                .param("kind", s.kind().name())
                .param("target", s.targetId())
                .param("tag", s.tag())
                .query((row, n) -> subscription(row))
                .optional();
    }

    long add(Subscription s, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into subscription (person_id, class_id, kind, target_id, tag, posts, comments, created_at)
                values (:person, :classId, :kind, :target, :tag, :posts, :comments, :now)""")
                .param("person", s.personId())
                .param("classId", s.classId())
                .param("kind", s.kind().name())
                .param("target", s.targetId())
                .param("tag", s.tag())
                .param("posts", s.posts().name())
                .param("comments", s.comments().name())
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    void end(long id, @Nullable Instant at) {
        jdbc.sql("update subscription set ended_at = :at, by_class = false where id = :id")
                .param("at", Rows.utc(at))
                .param("id", id)
                .update();
    }

    void setCadence(long id, Cadence posts, Cadence comments) {
        jdbc.sql("update subscription set posts = :posts, comments = :comments, by_class = false where id = :id")
                .param("posts", posts.name())
                .param("comments", comments.name())
                .param("id", id)
                .update();
    }

    Optional<MailWish> wish(long personId) {
        return jdbc.sql("select answers, stop_token, news_seen_at from person_mail where person_id = :person")
                .param("person", personId)
                .query((row, n) -> new MailWish(
                        Cadence.valueOf(row.getString("answers")),
                        row.getString("stop_token"),
                        Rows.instant(row, "news_seen_at")))
                .optional();
    }

    void putWish(long personId, MailWish wish) {
        jdbc.sql("""
                                merge into person_mail (person_id, answers, stop_token, news_seen_at) key
                                    (person_id)
                                 values (:person, :answers, :token, :seen)""")
                .param("person", personId)
                .param("answers", wish.answers().name())
                .param("token", wish.stopToken())
                .param("seen", Rows.utc(wish.newsSeenAt()))
                .update();
    }

    Optional<Long> byStopToken(String token) {
        return jdbc.sql("select person_id from person_mail where stop_token = :token")
                .param("token", token)
                .query(Long.class)
                .optional();
    }

    /**
     * Ends all mails to a person, those of classes that write by themselves too; what was subscribed to stays, and
     * shows in the news.
     */
    void stopMails(long personId) {
        jdbc.sql("update person_mail set answers = 'NEVER', stopped = true where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql(
                        "update subscription set posts = 'NEVER', comments = 'NEVER', by_class = false where person_id = :person")
                .param("person", personId)
                .update();
    }

    /** Everybody with an address who wants mail of a cadence. */
    List<Reader> readers(Cadence cadence) {
        return jdbc.sql("""
                select x.id, x.email, coalesce((select min(c.zone) from membership m join class c on c.id = m.class_id
                       where m.person_id = x.id and m.ended_at is null), 'UTC') as zone
                  from person x
                 where x.email <> ''
                   and (exists (select 1 from person_mail w where w.person_id = x.id and w.answers = :cadence)
                        or exists (select 1 from subscription s where s.person_id = x.id and s.ended_at is null and
                               (s.posts = :cadence or s.comments = :cadence)))
                 order by x.id""")
                .param("cadence", cadence.name())
                .query((row, n) -> new Reader(row.getLong("id"), row.getString("email"), row.getString("zone")))
                .list();
    }

    Optional<Instant> upto(long personId, Cadence cadence) {
        return jdbc.sql("select upto from digest where person_id = :person and cadence = :cadence")
                .param("person", personId)
                .param("cadence", cadence.name())
                .query((row, n) -> Rows.instant(row, "upto"))
                .optional();
    }

    void setUpto(long personId, Cadence cadence, Instant upto) {
        jdbc.sql("""
                                merge into digest (person_id, cadence, upto) key (person_id, cadence)
                                 values (:person, :cadence, :upto)""")
                .param("person", personId)
                .param("cadence", cadence.name())
                .param("upto", Rows.utc(upto))
                .update();
    }

    private static Subscription subscription(ResultSet row) throws SQLException {
        return new Subscription(
                row.getLong("id"),
                row.getLong("person_id"),
                row.getLong("class_id"),
                Kind.valueOf(row.getString("kind")),
                Rows.number(row, "target_id"),
                row.getString("tag"),
                Cadence.valueOf(row.getString("posts")),
                Cadence.valueOf(row.getString("comments")),
                Rows.instant(row, "ended_at"));
    }

    @Override
    public String what() {
        return "subscriptions";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return 0;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("""
                delete from subscription
                 where person_id = :person or kind = 'PERSON' and target_id = :person
                    or kind = 'BLOG' and target_id in (select b.id from blog b where b.owner_id = :person)
                    or kind = 'THREAD' and target_id in (""" + Traces.POSTS_THAT_GO + ")").param("person", personId).update();
        jdbc.sql("delete from person_mail where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from digest where person_id = :person")
                .param("person", personId)
                .update();
    }
}
