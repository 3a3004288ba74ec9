package org.vastporch.server.access;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Scope;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.moderation.State;
import org.vastporch.server.ServerTest;

/**
 * A generated school in the database: for everybody, the posts that SQL gives are just those that the engine lets them
 * read.
 */
@ServerTest
class ScopeSqlTest {

    private static final Instant NOW = Instant.parse("2026-11-24T10:00:00Z");

    @Autowired
    JdbcClient jdbc;

    @Autowired
    AccessStore store;

    private final Random random = new Random(11);

    @Test
    @Transactional
    void sqlAndEngineAgree() {
        List<Long> people = new ArrayList<>();
        for (int i = 0; i < 14; i++)
            people.add(insert("""
                            insert into person (username, title, family_name, given_name, email, school_no,
                                keeper, teacher, created_at)
                             values ('scope""" + i + "', '', 'x', 'y', '', '', " + (i == 0) + ", false, now())", "person"));
        List<Long> posts = new ArrayList<>();
        for (int c = 0; c < 3; c++) posts.addAll(makeClass(c, people));
        int read = 0;
        int kept = 0;
        List<Viewer> viewers = new ArrayList<>(
                people.stream().map(p -> store.viewer(p).orElseThrow()).toList());
        viewers.addAll(viewers.stream()
                .map(v -> v.throughLens(v.memberships().stream()
                        .mapToLong(Membership::classId)
                        .findFirst()
                        .orElse(1)))
                .toList());
        viewers.add(Viewer.STRANGER);
        for (Viewer viewer : viewers) {
            ScopeSql scope = new ScopeSql(Scope.of(viewer, NOW));
            Set<Long> bySql =
                    new HashSet<>(jdbc.sql("select p.id from " + ScopeSql.TABLES + " where " + scope.condition())
                            .params(scope.params())
                            .query(Long.class)
                            .list());
            Map<Long, String> names = namesBySql(scope);
            for (long id : posts) {
                PostFacts post = store.post(id).orElseThrow();
                assertEquals(
                        AccessEngine.keepsNames(viewer, post, NOW) + " " + AccessEngine.namesAuthor(viewer, post, NOW),
                        names.get(id),
                        () -> viewer + " " + post);
                if (names.get(id).equals("true false")) kept++;
                assertEquals(
                        AccessEngine.decide(viewer, Act.READ, post, NOW).allows(),
                        bySql.contains(id),
                        () -> viewer + " " + post);
                if (bySql.contains(id)) read++;
            }
        }
        assertEquals(
                true,
                read > 300 && read < viewers.size() * posts.size() / 2,
                "the generated school tells something: " + read);
        assertEquals(
                true,
                kept > 300 && kept < viewers.size() * posts.size() / 2,
                "names are kept back for many and not for all: " + kept);
    }

    /** For each post whether names are kept back around it, and whether its author is named. */
    private Map<Long, String> namesBySql(ScopeSql scope) {
        Map<Long, String> names = new HashMap<>();
        jdbc.sql("select p.id, " + scope.keepsNames() + " as kept, " + scope.namesAuthor() + " as named from "
                        + ScopeSql.TABLES)
                .params(scope.params())
                .query(row -> {
                    names.put(row.getLong("id"), row.getBoolean("kept") + " " + row.getBoolean("named"));
                });
        return names;
    }

    private List<Long> makeClass(int n, List<Long> people) {
        long classId = insert("""
                        insert into class (name, address, subject, level, zone, ceiling, open,
                            post_policy, comment_policy, trust_after, held_words, hold_links, created_at,
                            version)
                         values ('c', random_uuid(), '', '', 'UTC',""" + (2 + n) + ", " + (n > 0) + ", 'BEFORE', 'BEFORE', 0, '', true, now(), 1)", "class");
        List<Long> groups = List.of(
                insert("insert into class_group (class_id, name) values (" + classId + ", 'a')", "class_group"),
                insert("insert into class_group (class_id, name) values (" + classId + ", 'b')", "class_group"));
        for (long person : people)
            if (random.nextInt(3) > 0)
                jdbc.sql("""
                                        insert into membership (class_id, person_id, role, group_id, shown,
                                            joined_at, ended_at, leaving)
                                         values (:c, :p, :r, :g, 'OWN_NAME', :now, :end, case when :end is not
                                            null and :along then 'HAND_OVER' end)""")
                        .param("c", classId)
                        .param("p", person)
                        .param("r", Role.values()[random.nextInt(6)].name())
                        .param("g", maybe(groups))
                        .param("now", at(0))
                        .param("end", random.nextInt(5) == 0 ? at(-1) : null)
                        .param("along", random.nextBoolean())
                        .update();
        List<Long> prompts = new ArrayList<>();
        for (int i = 0; i < 3; i++)
            prompts.add(insert(
                    """
                            insert into prompt (class_id, title, instructions, questions, opens_at, due_at,
                                grace_minutes, late_per_day, late_cap, late_floor, points, places, asked_words,
                                asked_pictures, asked_tags, asked_links, asked_comments, answer_first,
                                names_until, created_at)
                             values ("""
                            + classId + ", 'q', '', '', now(), now(), 0, 0, 0, 0, 1, 1, 0, 0, 0, 0, 0, " + (i < 2)
                            + List.of(
                                            ", timestamp with time zone '2026-11-24 10:00:00+00'",
                                            ", null",
                                            ", timestamp with time zone '9999-12-31 00:00:00+00'")
                                    .get(i)
                            + ", now())",
                    "prompt"));
        List<Long> posts = new ArrayList<>();
        for (int b = 0; b < 10; b++) posts.addAll(makeBlog(classId, n * 10 + b, groups, people, prompts));
        return posts;
    }

    private List<Long> makeBlog(long classId, int n, List<Long> groups, List<Long> people, List<Long> prompts) {
        BlogKind kind = BlogKind.values()[n % 5];
        jdbc.sql("""
                                insert into blog (class_id, kind, title, address, about, widest, kind_widest,
                                    commenters, owner_id, group_id, only_group, opens_at, closes_at, names_until,
                                    created_at)
                                 values (:c, :kind, 't', :a, '', :w, :kw, 'CLASS', null, :g, :only, :opens,
                                    :closes, :names, :now)""")
                .param("names", random.nextInt(3) == 0 ? at(1) : null)
                .param("c", classId)
                .param("kind", kind.name())
                .param("a", "a" + n)
                .param("w", random.nextInt(5))
                .param("kw", kind.widest().ordinal())
                .param("g", kind == BlogKind.GROUP ? groups.get(n % 2) : null)
                .param("only", random.nextInt(4) == 0 ? groups.get(0) : null)
                .param("opens", random.nextInt(4) == 0 ? at(1) : null)
                .param("closes", random.nextInt(4) == 0 ? at(-1) : null)
                .param("now", at(0))
                .update();
        long blog = newest("blog");
        List<Long> posts = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            jdbc.sql("""
                                    insert into post (class_id, blog_id, author_id, prompt_id, state, audience,
                                        live, waiting_since, created_at, rev)
                                     values (:c, :b, :author, :prompt, :state, :audience, :live, :since, :now,
                                        1)""")
                    .param("since", random.nextInt(3) == 0 ? at(0) : null)
                    .param("c", classId)
                    .param("b", blog)
                    .param("author", random.nextInt(6) == 0 ? null : people.get(random.nextInt(people.size())))
                    .param("state", State.values()[random.nextInt(7)].name())
                    .param("prompt", random.nextInt(2) == 0 ? null : prompts.get(random.nextInt(3)))
                    .param("audience", Audience.values()[random.nextInt(5)].ordinal())
                    .param("live", random.nextInt(4) == 0 ? null : 1)
                    .param("now", at(0))
                    .update();
            posts.add(newest("post"));
        }
        return posts;
    }

    private Long maybe(List<Long> groups) {
        return random.nextInt(3) == 0 ? null : groups.get(random.nextInt(2));
    }

    private long insert(String sql, String table) {
        jdbc.sql(sql).update();
        return newest(table);
    }

    private long newest(String table) {
        return jdbc.sql("select max(id) from " + table).query(Long.class).single();
    }

    private static OffsetDateTime at(int hours) {
        return NOW.plusSeconds(hours * 3600L).atOffset(ZoneOffset.UTC);
    }
}
