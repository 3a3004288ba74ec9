package org.vastporch.server.blogs;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.core.simple.JdbcClient.StatementSpec;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.server.access.SettingsText;
import org.vastporch.server.rows.Rows;

/** Blogs, the sets "one each" that later arrivals get theirs by, and every address a blog ever had. */
@Repository
class BlogStore {

    private static final String COLUMNS = """
        b.id, b.class_id, b.kind, b.title, b.address, b.intro, b.about, b.widest, b.commenters, b.only_group, b.opens_at, b.closes_at, b.names_until, b.settings,
        b.owner_id, b.group_id, b.set_id, coalesce(b.header_sha, s.header_sha) as header_sha, b.version""";

    private static final String FROM = " from blog b left join blog_set s on s.id = b.set_id ";

    private static final String SET_COLUMNS =
            "id, class_id, kind, pattern, intro, about, widest, commenters, only_group, opens_at, "
                    + "closes_at, names_until, settings, header_sha, version";

    private final JdbcClient jdbc;

    BlogStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param headerSha the picture at the head of those of its blogs that have none of their own */
    record BlogSet(
            long id,
            long classId,
            BlogSetup setup,
            @Nullable String headerSha,
            int version) {}

    /**
     * @param setup what its staff set; its title is the blog's own
     * @param headerSha the picture at its head, its own or that of its set
     */
    record BlogRow(
            long id,
            long classId,
            BlogSetup setup,
            String address,
            @Nullable Long ownerId,
            @Nullable Long setId,
            @Nullable String headerSha,
            int version) {}

    long add(long classId, BlogSetup setup, String address, @Nullable Long ownerId, @Nullable Long setId, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        bound(jdbc.sql("""
                insert into blog (class_id, kind, title, address, intro, about, widest, kind_widest, commenters,
                       only_group, opens_at, closes_at, names_until, settings,
                                  owner_id, group_id, set_id, created_at)
                values (:classId, :kind, :title, :address, :intro, :about, :widest, :kindWidest, :commenters,
                       :onlyGroup, :opens, :closes, :names, :settings,
                        :ownerId, :groupId, :setId, :now)"""), setup)
                .param("classId", classId)
                .param("address", address)
                .param("kindWidest", setup.kind().widest().ordinal())
                .param("ownerId", ownerId)
                .param("groupId", setup.groupId())
                .param("setId", setId)
                .param("now", Rows.utc(now))
                .update(key, "id");
        long id = key.getKey().longValue();
        giveAddress(classId, address, id);
        return id;
    }

    long addSet(long classId, BlogSetup setup) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        bound(jdbc.sql("""
                insert into blog_set (class_id, kind, pattern, intro, about, widest, commenters, only_group, opens_at,
                       closes_at, names_until, settings)
                values (:classId, :kind, :title, :intro, :about, :widest, :commenters, :onlyGroup, :opens, :closes,
                       :names, :settings)"""), setup).param("classId", classId).update(key, "id");
        return key.getKey().longValue();
    }

    /** Changes a blog; false if somebody else changed it since {@code version}. */
    boolean change(long id, BlogSetup setup, int version) {
        return bound(jdbc.sql("""
                update blog
                   set kind = :kind, title = :title, intro = :intro, about = :about, widest = :widest, kind_widest =
                          :kindWidest, commenters = :commenters,
                       only_group = :onlyGroup, opens_at = :opens, closes_at = :closes, names_until = :names, settings = :settings, group_id
                              = :groupId, version = version + 1
                 where id = :id and version = :version"""), setup)
                        .param("kindWidest", setup.kind().widest().ordinal())
                        .param("groupId", setup.groupId())
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }

    boolean changeSet(long id, BlogSetup setup, int version) {
        return bound(jdbc.sql("""
                update blog_set
                   set kind = :kind, pattern = :title, intro = :intro, about = :about, widest = :widest, commenters =
                          :commenters,
                       only_group = :onlyGroup, opens_at = :opens, closes_at = :closes, names_until = :names, settings = :settings, version
                              = version + 1
                 where id = :id and version = :version"""), setup)
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }

    private static StatementSpec bound(StatementSpec sql, BlogSetup setup) {
        return sql.param("kind", setup.kind().name())
                .param("title", setup.title())
                .param("intro", setup.intro())
                .param("about", setup.about())
                .param("widest", setup.widest().ordinal())
                .param("commenters", setup.commenters().name())
                .param("onlyGroup", setup.onlyGroup())
                .param("opens", Rows.utc(setup.opensAt()))
                .param("closes", Rows.utc(setup.closesAt()))
                .param("names", Rows.utc(setup.namesUntil()))
                .param("settings", SettingsText.write(setup.settings()));
    }

    void setHeader(long id, @Nullable String sha) {
        jdbc.sql("update blog set header_sha = :sha where id = :id")
                .param("sha", sha)
                .param("id", id)
                .update();
    }

    /** Puts a picture at the head of all blogs of a set, those of later arrivals too. */
    void setHeaderOfSet(long setId, @Nullable String sha) {
        jdbc.sql("update blog_set set header_sha = :sha where id = :id")
                .param("sha", sha)
                .param("id", setId)
                .update();
    }

    /** Takes the blogs of a set the pictures of their own. */
    void dropHeadersOf(long setId) {
        jdbc.sql("update blog set header_sha = null where set_id = :id and header_sha is not null")
                .param("id", setId)
                .update();
    }

    /** Gives a blog another address; the ones before go on leading to it. */
    void setAddress(long classId, long id, String address) {
        jdbc.sql("update blog set address = :address, version = version + 1 where id = :id")
                .param("address", address)
                .param("id", id)
                .update();
        giveAddress(classId, address, id);
    }

    private void giveAddress(long classId, String address, long id) {
        jdbc.sql("""
                                merge into blog_address (class_id, address, blog_id) key (class_id, address)
                                 values (:classId, :address, :id)""")
                .param("classId", classId)
                .param("address", address)
                .param("id", id)
                .update();
    }

    /** An address that must not be read any more, and can still be told from others. */
    private static final String HASHED = "'#' || lower(rawtohex(hash('SHA-256', stringtoutf8(%s), 1)))";

    /**
     * Lets the earlier addresses of a blog lead nowhere: they say a name that is now hidden, and are kept as hashes so
     * that no other blog gets them.
     */
    void forgetEarlierAddresses(long id) {
        jdbc.sql("update blog_address set blog_id = null, address = " + HASHED.formatted("address")
                        + " where blog_id = :id and address not in (select b.address from blog b where b.id = :id)")
                .param("id", id)
                .update();
    }

    /** Whether an address is or was given in a class, to a blog other than {@code except}. */
    boolean isGiven(long classId, String address, long except) {
        return jdbc.sql("select count(*) from blog_address where class_id = :classId and address in (:address, "
                                + HASHED.formatted(":address") + ") and blog_id is distinct from :except")
                        .param("classId", classId)
                        .param("address", address)
                        .param("except", except)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    Optional<BlogRow> at(long classId, String address) {
        return jdbc.sql("select " + COLUMNS + FROM
                        + "join blog_address a on b.id = a.blog_id where a.class_id = :classId "
                        + "and a.address = :address")
                .param("classId", classId)
                .param("address", address)
                .query((row, n) -> blog(row))
                .optional();
    }

    boolean hasOwnBlog(long setId, long personId) {
        return jdbc.sql("select count(*) from blog where set_id = :setId and owner_id = :personId")
                        .param("setId", setId)
                        .param("personId", personId)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    Optional<BlogRow> find(long id) {
        return jdbc.sql("select " + COLUMNS + FROM + "where b.id = :id")
                .param("id", id)
                .query((row, n) -> blog(row))
                .optional();
    }

    List<BlogRow> all(Collection<Long> ids) {
        if (ids.isEmpty()) return List.of();
        return jdbc.sql("select " + COLUMNS + FROM + "where b.id in (:ids)")
                .param("ids", ids)
                .query((row, n) -> blog(row))
                .list();
    }

    List<BlogRow> ofClass(long classId) {
        return jdbc.sql("select " + COLUMNS + FROM
                        + "where b.class_id = :classId order by b.set_id nulls first, b.title, b.id")
                .param("classId", classId)
                .query((row, n) -> blog(row))
                .list();
    }

    List<BlogRow> ofOwner(long classId, long personId) {
        return jdbc.sql("select " + COLUMNS + FROM
                        + "where b.class_id = :classId and b.owner_id = :person order by b.id")
                .param("classId", classId)
                .param("person", personId)
                .query((row, n) -> blog(row))
                .list();
    }

    List<BlogRow> ofSet(long setId) {
        return jdbc.sql("select " + COLUMNS + FROM + "where b.set_id = :setId order by b.id")
                .param("setId", setId)
                .query((row, n) -> blog(row))
                .list();
    }

    List<BlogSet> sets(long classId) {
        return jdbc.sql("select " + SET_COLUMNS + " from blog_set where class_id = :classId order by id")
                .param("classId", classId)
                .query((row, n) -> set(row))
                .list();
    }

    Optional<BlogSet> set(long id) {
        return jdbc.sql("select " + SET_COLUMNS + " from blog_set where id = :id")
                .param("id", id)
                .query((row, n) -> set(row))
                .optional();
    }

    private static BlogSet set(ResultSet row) throws SQLException {
        return new BlogSet(
                row.getLong("id"),
                row.getLong("class_id"),
                setup(row, row.getString("pattern"), null),
                row.getString("header_sha"),
                row.getInt("version"));
    }

    private static BlogRow blog(ResultSet row) throws SQLException {
        return new BlogRow(
                row.getLong("id"),
                row.getLong("class_id"),
                setup(row, row.getString("title"), Rows.number(row, "group_id")),
                row.getString("address"),
                Rows.number(row, "owner_id"),
                Rows.number(row, "set_id"),
                row.getString("header_sha"),
                row.getInt("version"));
    }

    private static BlogSetup setup(ResultSet row, String title, @Nullable Long groupId) throws SQLException {
        return new BlogSetup(
                BlogKind.valueOf(row.getString("kind")),
                title,
                row.getString("intro"),
                row.getString("about"),
                Audience.values()[row.getInt("widest")],
                Commenters.valueOf(row.getString("commenters")),
                groupId,
                Rows.number(row, "only_group"),
                Rows.instant(row, "opens_at"),
                Rows.instant(row, "closes_at"),
                Rows.instant(row, "names_until"),
                SettingsText.read(row.getString("settings")));
    }
}
