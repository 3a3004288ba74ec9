package org.vastporch.server.access;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.KeptNames;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.moderation.State;
import org.vastporch.server.rows.Rows;

/** Loads what the access engine decides on. */
@Repository
class AccessStore {

    /** The columns of {@link #blog}, for blog b and class c. */
    private static final String BLOG = """
        b.id as blog_id, b.class_id, c.ceiling, c.open, b.kind, b.widest, b.commenters, b.owner_id, b.group_id, b.only_group,
        b.opens_at, b.closes_at, b.settings""";

    private final JdbcClient jdbc;

    AccessStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Whether a class is there and lets strangers in. */
    boolean isOpen(long classId) {
        return jdbc.sql("select open from class where id = :id")
                .param("id", classId)
                .query(Boolean.class)
                .optional()
                .orElse(false);
    }

    /** One place of a person; without a membership if there is none at all. */
    private record Place(
            long personId, boolean keeper, @Nullable Membership membership) {}

    private static final String PLACES = """
        select p.id, p.keeper, m.class_id, m.role, m.group_id, m.ended_at
          from person p
          left join membership m on m.person_id = p.id""";

    Optional<Viewer> viewer(long personId) {
        return viewer(jdbc.sql(PLACES + " where p.id = :person").param("person", personId));
    }

    /** The same for every request, so it is asked in one go. */
    Optional<Viewer> signedIn(String tokenHash, Instant since) {
        return viewer(jdbc.sql(PLACES
                        + " join sign_in s on s.person_id = p.id where s.token_hash = :token and s.created_at > :since")
                .param("token", tokenHash)
                .param("since", Rows.utc(since)));
    }

    private Optional<Viewer> viewer(JdbcClient.StatementSpec ofPlaces) {
        List<Place> places = ofPlaces.query((row, n) -> new Place(
                        row.getLong("id"),
                        row.getBoolean("keeper"),
                        row.getString("role") == null ? null : membership(row)))
                .list();
        if (places.isEmpty()) return Optional.empty();
        List<Membership> memberships =
                places.stream().map(Place::membership).filter(Objects::nonNull).toList();
        long personId = places.get(0).personId();
        boolean answers = memberships.stream().anyMatch(m -> m.role() == Role.STUDENT);
        return Optional.of(new Viewer(
                personId, places.get(0).keeper(), memberships, answers ? answered(personId) : Set.of(), null));
    }

    /** The prompts that ask for one's own answer before others' and have it. */
    private Set<Long> answered(long personId) {
        return Set.copyOf(jdbc.sql("""
                select distinct p.prompt_id
                  from post p
                  join prompt q on q.id = p.prompt_id
                 where p.author_id = :person and q.answer_first and """ + " " + ScopeSql.UP)
                .param("person", personId)
                .query(Long.class)
                .list());
    }

    Optional<Long> personAt(long classId, long placeId) {
        return jdbc.sql("select person_id from membership where class_id = :classId and id = :place")
                .param("classId", classId)
                .param("place", placeId)
                .query(Long.class)
                .optional();
    }

    /**
     * Everybody who could read something in a class: its members; with the others of the school after them if asked
     * for.
     */
    List<Viewer> viewers(long classId, boolean wholeSchool) {
        Map<Long, List<Membership>> places = new LinkedHashMap<>();
        jdbc.sql("""
                select m.person_id, m.class_id, m.role, m.group_id, m.ended_at
                  from membership m
                  join person p on p.id = m.person_id
                 where m.class_id = :classId
                    or :school
                    or m.person_id in (select x.person_id from membership x where x.class_id = :classId)
                 order by p.family_name, p.given_name, p.id""")
                .param("classId", classId)
                .param("school", wholeSchool)
                .query((row, n) -> places.computeIfAbsent(row.getLong("person_id"), id -> new ArrayList<>())
                        .add(membership(row)))
                .list();
        return places.entrySet().stream()
                .map(e -> new Viewer(e.getKey(), false, e.getValue()))
                .toList();
    }

    Optional<BlogFacts> blog(long blogId) {
        return Optional.ofNullable(blogs(List.of(blogId)).get(blogId));
    }

    Map<Long, BlogFacts> blogs(Collection<Long> blogIds) {
        if (blogIds.isEmpty()) return Map.of();
        return jdbc
                .sql("select " + BLOG + " from blog b join class c on c.id = b.class_id where b.id in (:ids)")
                .param("ids", blogIds)
                .query((row, n) -> blog(row))
                .list()
                .stream()
                .collect(Collectors.toMap(BlogFacts::id, Function.identity()));
    }

    /** Locks the row of a post until the transaction ends, so that what is decided on it next cannot be outrun. */
    void lockPost(long postId) {
        jdbc.sql("select id from post where id = :id for update")
                .param("id", postId)
                .query(Long.class)
                .optional();
    }

    Optional<PostFacts> post(long postId) {
        return Optional.ofNullable(posts(List.of(postId)).get(postId));
    }

    Map<Long, PostFacts> posts(Collection<Long> postIds) {
        if (postIds.isEmpty()) return Map.of();
        return jdbc
                .sql("""
                select p.id, p.author_id, p.state, p.live, p.audience, p.published_at, p.waiting_since, am.group_id as
                       author_group, am.leaving, am.role as author_role, p.source_id, b.names_until,
                       answered.names_until as prompt_names_until,""" + ScopeSql.COMMENT_IN_PILE + """
                        as comment_in_pile,
                       case when answered.answer_first then p.prompt_id end as answer_first, """ + " " + BLOG + " from " + ScopeSql.TABLES
                        + " where p.id in (:ids)")
                .param("ids", postIds)
                .query((row, n) -> new PostFacts(
                        row.getLong("id"),
                        blog(row),
                        row.getLong("author_id"),
                        Rows.number(row, "author_group"),
                        State.valueOf(row.getString("state")),
                        Rows.integer(row, "live") != null,
                        Audience.values()[row.getInt("audience")],
                        Rows.instant(row, "published_at"),
                        Rows.number(row, "answer_first"),
                        "HAND_OVER".equals(row.getString("leaving")),
                        Rows.instant(row, "waiting_since") != null,
                        row.getBoolean("comment_in_pile"),
                        names(row)))
                .list()
                .stream()
                .collect(Collectors.toMap(PostFacts::id, Function.identity()));
    }

    /** Those of some blogs in which a post is up that a scope takes in. */
    Set<Long> showing(ScopeSql scope, Collection<Long> blogs) {
        if (blogs.isEmpty()) return Set.of();
        return Set.copyOf(
                jdbc.sql("select distinct p.blog_id from " + ScopeSql.TABLES + " where p.blog_id in (:blogs) and "
                                + ScopeSql.UP + " and p.published_at <= :scope_now and " + scope.condition())
                        .params(scope.params())
                        .param("blogs", blogs)
                        .query(Long.class)
                        .list());
    }

    private static KeptNames names(ResultSet row) throws SQLException {
        String role = row.getString("author_role");
        return new KeptNames(
                KeptNames.later(Rows.instant(row, "names_until"), Rows.instant(row, "prompt_names_until")),
                role != null && Role.valueOf(role).works(),
                Rows.number(row, "source_id") != null);
    }

    private static Membership membership(ResultSet row) throws SQLException {
        return new Membership(
                row.getLong("class_id"),
                Role.valueOf(row.getString("role")),
                Rows.number(row, "group_id"),
                Rows.instant(row, "ended_at"));
    }

    private static BlogFacts blog(ResultSet row) throws SQLException {
        return new BlogFacts(
                row.getLong("blog_id"),
                row.getLong("class_id"),
                Audience.values()[row.getInt("ceiling")],
                row.getBoolean("open"),
                BlogKind.valueOf(row.getString("kind")),
                Audience.values()[row.getInt("widest")],
                BlogFacts.Commenters.valueOf(row.getString("commenters")),
                Rows.number(row, "owner_id"),
                Rows.number(row, "group_id"),
                Rows.number(row, "only_group"),
                Rows.instant(row, "opens_at"),
                Rows.instant(row, "closes_at"),
                SettingsText.read(row.getString("settings")).rules());
    }

    /**
     * Those of some posts that a scope takes in and that are up. Asked by their numbers and nothing else: with texts or
     * events in the same question the database looks through whole tables.
     */
    Set<Long> readable(ScopeSql scope, Collection<Long> posts) {
        if (posts.isEmpty()) return Set.of();
        return Set.copyOf(jdbc.sql("select p.id from " + ScopeSql.TABLES + " where p.id in (:posts) and " + ScopeSql.UP
                        + " and p.published_at <= :scope_now and " + scope.condition())
                .params(scope.params())
                .param("posts", posts)
                .query(Long.class)
                .list());
    }
}
