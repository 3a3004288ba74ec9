package org.vastporch.server.feeds;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.feeds.Faltering;
import org.vastporch.core.feeds.Presence;
import org.vastporch.core.feeds.SourceChecks;
import org.vastporch.server.rows.Rows;

@Repository
class SourceStore {

    /**
     * @param personId whose posts its entries are; null for news of the class
     * @param asked whether it waits for a yes of staff, and rests meanwhile
     */
    record Source(
            long id,
            long classId,
            @Nullable Long personId,
            @Nullable Long blogId,
            String siteAddress,
            String title,
            String description,
            boolean paused,
            boolean asked,
            @Nullable LocalDate beginsOn,
            SourceChecks checks) {}

    record KnownEntry(
            String key,
            String contentHash,
            String cleanLink,
            boolean leftOut,
            @Nullable Long postId) {}

    /** @param postId the post that was made of it; null for news and for what is left out */
    record FreshEntry(
            String key,
            String contentHash,
            String link,
            String cleanLink,
            String title,
            Instant published,
            boolean leftOut,
            @Nullable Long postId) {}

    record News(String title, String link, String source, Instant at) {}

    private static final String COLUMNS = """
        id, class_id, person_id, blog_id, feed_address, site_address, title, description, paused, asked, begins_on, etag, last_modified, body_hash, untidy,
        asked_seconds, failures, faltering_since, faltering_told, not_found, not_found_since, moved_to, moved_seen, stopped, last_error, last_check_at, next_check_at""";

    private final JdbcClient jdbc;

    SourceStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(
            long classId,
            @Nullable Long personId,
            @Nullable Long blogId,
            String feed,
            String site,
            String title,
            String description,
            @Nullable LocalDate beginsOn,
            boolean asked,
            Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into source (class_id, person_id, blog_id, feed_address, site_address, title, description, begins_on,
                       paused, asked, asked_seconds, failures, not_found,
                                    moved_seen, stopped, next_check_at, created_at)
                values (:classId, :personId, :blogId, :feed, :site, :title, :description, :beginsOn, :asked, :asked, 0, 0, 0, 0, false, :now,
                       :now)""")
                .param("classId", classId)
                .param("personId", personId)
                .param("blogId", blogId)
                .param("feed", feed)
                .param("site", site)
                .param("title", title)
                .param("description", description)
                .param("beginsOn", beginsOn)
                .param("asked", asked)
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** How many a student has in a class. */
    int countOf(long classId, long personId) {
        return jdbc.sql("select count(*) from source where class_id = :classId and person_id = :person"
                        + " and removed_at is null")
                .param("classId", classId)
                .param("person", personId)
                .query(Integer.class)
                .single();
    }

    /** Until the transaction ends the class's rule stays as it is, and what is added is counted one after the other. */
    void lockClass(long classId) {
        jdbc.sql("select id from class where id = :id for update")
                .param("id", classId)
                .query(Long.class)
                .single();
    }

    boolean isKnown(long classId, String feed) {
        return jdbc.sql("select count(*) from source where class_id = :classId and feed_address = :feed"
                                + " and removed_at is null")
                        .param("classId", classId)
                        .param("feed", feed)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    Optional<Source> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from source where id = :id and removed_at is null")
                .param("id", id)
                .query((row, n) -> source(row))
                .optional();
    }

    /** The same with its row locked until the transaction ends, so that it is not taken out meanwhile. */
    Optional<Source> lock(long id) {
        return jdbc.sql("select " + COLUMNS + " from source where id = :id and removed_at is null for update")
                .param("id", id)
                .query((row, n) -> source(row))
                .optional();
    }

    /** @param next when it is looked at next if it does not rest */
    void setPaused(long id, boolean paused, Instant next) {
        jdbc.sql("update source set paused = :paused, asked = asked and :paused, next_check_at = :next where id = :id")
                .param("paused", paused)
                .param("next", Rows.utc(next))
                .param("id", id)
                .update();
    }

    /**
     * Takes a source out. Its row stays, so that what came from it still says from where; its address is free to be
     * gathered anew.
     */
    void remove(long id, Instant now) {
        jdbc.sql("update source set removed_at = :now, feed_address = feed_address || ' removed ' || id where id = :id")
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    /** @param home the blog in which its posts stand; null for news */
    void edit(long id, String title, @Nullable Long personId, @Nullable Long home, @Nullable LocalDate beginsOn) {
        // What was read is forgotten, since it may be taken in another way now.
        jdbc.sql("""
                update source
                   set title = :title, person_id = :person, blog_id = :home, begins_on = :beginsOn, etag = null,
                       last_modified = null, body_hash = null
                 where id = :id""")
                .param("title", title)
                .param("person", personId)
                .param("home", home)
                .param("beginsOn", beginsOn)
                .param("id", id)
                .update();
    }

    /** Makes the sources of a class due now; tells how many. */
    int setAllDue(long classId, Instant now) {
        return jdbc.sql("""
                update source
                   set next_check_at = :now
                 where class_id = :classId and removed_at is null and not paused and not stopped""")
                .param("now", Rows.utc(now))
                .param("classId", classId)
                .update();
    }

    void setDue(long id, Instant now) {
        jdbc.sql("update source set next_check_at = :now where id = :id")
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    /** Marks entries that are not to come in, before they did. */
    void leaveOut(long sourceId, List<String> keys, Instant now) {
        addEntries(
                sourceId,
                keys.stream()
                        .map(key -> new FreshEntry(key, "", "", "", "", now, true, null))
                        .toList(),
                now);
    }

    void setLeftOut(long sourceId, String key, boolean leftOut) {
        // Its text is taken in anew when it comes back.
        jdbc.sql(
                        "update source_entry set left_out = :leftOut, content_hash = '' where source_id = :source and entry_key = :key")
                .param("leftOut", leftOut)
                .param("source", sourceId)
                .param("key", key)
                .update();
        jdbc.sql("update source set etag = null, last_modified = null, body_hash = null where id = :source")
                .param("source", sourceId)
                .update();
    }

    List<SourceService.EntryLine> newestEntries(long sourceId, int most) {
        return jdbc.sql("""
                select e.entry_key, e.title, e.link, e.published_at, e.left_out, e.post_id, q.title as prompt
                  from source_entry e
                  left join post p on p.id = e.post_id
                  left join prompt q on q.id = p.prompt_id
                 where e.source_id = :source
                 order by e.source_id, e.published_at desc, e.entry_key
                 limit :most""")
                .param("source", sourceId)
                .param("most", most)
                .query((row, n) -> new SourceService.EntryLine(
                        row.getString("entry_key"),
                        row.getString("title"),
                        row.getString("link"),
                        Rows.instant(row, "published_at"),
                        row.getBoolean("left_out"),
                        Rows.number(row, "post_id"),
                        row.getString("prompt")))
                .list();
    }

    /** The posts that came from a source and are not in the bin. */
    List<Long> posts(long sourceId) {
        return jdbc.sql("select id from post where source_id = :source and state <> 'BINNED' order by id")
                .param("source", sourceId)
                .query(Long.class)
                .list();
    }

    List<Source> ofClass(long classId) {
        return jdbc.sql("select " + COLUMNS
                        + " from source where class_id = :classId and removed_at is null order by title, id")
                .param("classId", classId)
                .query((row, n) -> source(row))
                .list();
    }

    List<Source> due(Instant now, int most) {
        return jdbc.sql(
                        "select " + COLUMNS
                                + " from source where not stopped and not paused and removed_at is null and next_check_at <= :now order by next_check_at limit :most")
                .param("now", Rows.utc(now))
                .param("most", most)
                .query((row, n) -> source(row))
                .list();
    }

    /** Others that gather the same address, in whatever class, and are looked at now and then. */
    List<Source> sharing(Source source) {
        return jdbc.sql("select " + COLUMNS + " from source where feed_address = :feed and id <> :id"
                        + " and not stopped and not paused and removed_at is null order by id")
                .param("feed", source.checks().feedAddress())
                .param("id", source.id())
                .query((row, n) -> source(row))
                .list();
    }

    /** Writes what the last check found out. */
    void checked(long id, SourceChecks s) {
        jdbc.sql("""
                update source
                   set feed_address = :feed, etag = :etag, last_modified = :modified, body_hash = :body, untidy = :untidy,
                       asked_seconds = :asked, failures
                          = :failures, faltering_since = :faltering, faltering_told = :told, not_found = :notFound,
                       not_found_since = :notFoundSince, moved_to = :movedTo, moved_seen = :movedSeen, stopped =
                              :stopped, last_error = :error,
                       last_check_at = :last, next_check_at = :next
                 where id = :id""")
                .param("feed", s.feedAddress())
                .param("etag", s.etag())
                .param("modified", s.lastModified())
                .param("body", s.bodyHash())
                .param("untidy", s.untidy())
                .param("asked", s.asked().toSeconds())
                .param("failures", s.failures())
                .param(
                        "faltering",
                        s.faltering() == null ? null : Rows.utc(s.faltering().since()))
                .param("told", s.faltering() != null && s.faltering().told())
                .param("notFound", s.notFound())
                .param("notFoundSince", Rows.utc(s.notFoundSince()))
                .param("movedTo", s.movedTo())
                .param("movedSeen", s.movedSeen())
                .param("stopped", s.stopped())
                .param("error", s.lastError())
                .param("last", Rows.utc(s.lastCheck()))
                .param("next", Rows.utc(s.nextCheck()))
                .param("id", id)
                .update();
    }

    /** What is kept under some keys. */
    Map<String, KnownEntry> entries(long sourceId, List<String> keys) {
        Map<String, KnownEntry> found = new HashMap<>();
        jdbc.sql("""
                select entry_key, content_hash, clean_link, left_out, post_id
                  from source_entry
                 where source_id = :source and entry_key = any(:keys)""")
                .param("source", sourceId)
                .param("keys", keys.toArray(String[]::new))
                .query(row -> {
                    KnownEntry entry = new KnownEntry(
                            row.getString("entry_key"),
                            row.getString("content_hash"),
                            row.getString("clean_link"),
                            row.getBoolean("left_out"),
                            Rows.number(row, "post_id"));
                    found.put(entry.key(), entry);
                });
        return found;
    }

    /** The post that another source of the same student made of an entry with the same link. */
    Map<String, Long> postsOfLinks(long classId, long personId, long exceptSource, Collection<String> cleanLinks) {
        Map<String, Long> posts = new HashMap<>();
        if (cleanLinks.isEmpty()) return posts;
        jdbc.sql("""
                select e.clean_link, e.post_id
                  from source_entry e
                  join source s on s.id = e.source_id
                 where s.class_id = :classId and s.person_id = :person and s.id <> :except and e.clean_link in (:links)
                       and e.post_id is not null""")
                .param("classId", classId)
                .param("person", personId)
                .param("except", exceptSource)
                .param("links", cleanLinks)
                .query(row -> {
                    posts.putIfAbsent(row.getString("clean_link"), row.getLong("post_id"));
                });
        return posts;
    }

    void changeEntry(long sourceId, FreshEntry entry) {
        jdbc.sql("""
                update source_entry
                   set content_hash = :hash, title = :title, link = :link, clean_link = :clean, left_out = :leftOut,
                       post_id = coalesce(post_id, :post),
                       published_at = case when content_hash = '' then :published else published_at end
                 where source_id = :source and entry_key = :key""")
                .param("hash", entry.contentHash())
                .param("title", entry.title())
                .param("link", entry.link())
                .param("clean", entry.cleanLink())
                .param("leftOut", entry.leftOut())
                .param("published", Rows.utc(entry.published()))
                .param("post", entry.postId())
                .param("source", sourceId)
                .param("key", entry.key())
                .update();
    }

    /** Adds new entries, however many, in one statement. */
    void addEntries(long sourceId, List<FreshEntry> entries, Instant now) {
        if (entries.isEmpty()) return;
        jdbc.sql("""
                insert into source_entry (source_id, first_seen, look_at, entry_key, content_hash, link, clean_link, title,
                       published_at, left_out, post_id)
                select :source, :now, :look, n.*
                  from unnest(:keys, :hashes, :links, :cleanLinks, :titles, :dates, :leftOut, :posts) n""")
                .param("source", sourceId)
                .param("now", Rows.utc(now))
                .param("look", Rows.utc(Presence.THERE.nextLook(now)))
                .param("keys", column(entries, FreshEntry::key, String[]::new))
                .param("hashes", column(entries, FreshEntry::contentHash, String[]::new))
                .param("links", column(entries, FreshEntry::link, String[]::new))
                .param("cleanLinks", column(entries, FreshEntry::cleanLink, String[]::new))
                .param("titles", column(entries, FreshEntry::title, String[]::new))
                .param("dates", column(entries, e -> Rows.utc(e.published()), OffsetDateTime[]::new))
                .param("leftOut", column(entries, FreshEntry::leftOut, Boolean[]::new))
                .param("posts", column(entries, FreshEntry::postId, Long[]::new))
                .update();
    }

    private static <T> T[] column(
            List<FreshEntry> entries, Function<FreshEntry, @Nullable T> of, IntFunction<T[]> array) {
        return entries.stream().map(of).toArray(array);
    }

    /** The dates of the newest ten entries. */
    List<Instant> lastDates(long sourceId) {
        return jdbc.sql("""
                                select published_at
                                 from source_entry
                                 where source_id = :source
                                 order by source_id, published_at desc
                                 limit 10""")
                .param("source", sourceId)
                .query((row, n) -> Rows.instant(row, "published_at"))
                .list();
    }

    /** How many entries came from each source of a class; none are not named. */
    Map<Long, Integer> countEntries(long classId) {
        Map<Long, Integer> counts = new HashMap<>();
        jdbc.sql("""
                select e.source_id, count(*) as entries
                  from source_entry e
                  join source s on s.id = e.source_id
                 where s.class_id = :classId and s.removed_at is null and not e.left_out
                 group by e.source_id""").param("classId", classId).query(row -> {
            counts.put(row.getLong("source_id"), row.getInt("entries"));
        });
        return counts;
    }

    /** When the entries of each source of a class were published: the newest ten, and all since a moment. */
    Map<Long, List<Instant>> dates(long classId, Instant since) {
        Map<Long, List<Instant>> dates = new HashMap<>();
        jdbc.sql("""
                select source_id, published_at
                  from (select e.source_id, e.published_at,
                               row_number() over (partition by e.source_id order by e.published_at desc) as n
                          from source_entry e
                          join source s on s.id = e.source_id
                         where s.class_id = :classId and s.removed_at is null)
                 where n <= 10 or published_at >= :since
                 order by source_id, published_at desc""").param("classId", classId).param("since", Rows.utc(since)).query(row -> {
            dates.computeIfAbsent(row.getLong("source_id"), id -> new ArrayList<>())
                    .add(Rows.instant(row, "published_at"));
        });
        return dates;
    }

    List<News> news(long classId, int most) {
        return jdbc.sql("""
                select e.title, e.link, s.title as source, e.published_at
                  from source_entry e
                  join source s on s.id = e.source_id
                 where s.class_id = :classId and s.person_id is null and s.removed_at is null and not e.left_out
                 order by e.published_at desc
                 limit :most""")
                .param("classId", classId)
                .param("most", most)
                .query((row, n) -> new News(
                        row.getString("title"),
                        row.getString("link"),
                        row.getString("source"),
                        Rows.instant(row, "published_at")))
                .list();
    }

    private static Source source(ResultSet row) throws SQLException {
        return new Source(
                row.getLong("id"),
                row.getLong("class_id"),
                Rows.number(row, "person_id"),
                Rows.number(row, "blog_id"),
                row.getString("site_address"),
                row.getString("title"),
                row.getString("description"),
                row.getBoolean("paused"),
                row.getBoolean("asked"),
                row.getObject("begins_on", LocalDate.class),
                new SourceChecks(
                        row.getString("feed_address"),
                        row.getString("etag"),
                        row.getString("last_modified"),
                        row.getString("body_hash"),
                        row.getBoolean("untidy"),
                        Duration.ofSeconds(row.getLong("asked_seconds")),
                        row.getInt("failures"),
                        faltering(row),
                        row.getInt("not_found"),
                        Rows.instant(row, "not_found_since"),
                        row.getString("moved_to"),
                        row.getInt("moved_seen"),
                        row.getBoolean("stopped"),
                        row.getString("last_error"),
                        Rows.instant(row, "last_check_at"),
                        Rows.instant(row, "next_check_at")));
    }

    private static @Nullable Faltering faltering(ResultSet row) throws SQLException {
        Instant since = Rows.instant(row, "faltering_since");
        return since == null ? null : new Faltering(since, row.getBoolean("faltering_told"));
    }
}
