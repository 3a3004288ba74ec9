package org.vastporch.bench;

import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Classes of 35 students with their blogs, posts and comments, written straight into the tables: a school of any size
 * in a minute or two.
 */
final class LargeSchool {

    static final int STUDENTS = 35;

    private final int students;
    private static final String[] WORDS =
            ("bed leaf frost slug kale chard rain water soil spade frog seed bean root stem shade wall"
                            + " hedge Tuesday morning measured counted eleven twelve "
                            + "centimetres because think maybe again tomorrow colder warmer wet dry "
                            + "grew died moved shell bucket string jar compost heap worm robin wind net"
                            + " glass ice")
                    .split(" ");

    private final JdbcTemplate jdbc;
    private final TransactionTemplate transaction;
    private final Random random = new Random(11);

    LargeSchool(JdbcTemplate jdbc, TransactionTemplate transaction) {
        this(jdbc, transaction, STUDENTS);
    }

    /** @param students how many there are in each class */
    LargeSchool(JdbcTemplate jdbc, TransactionTemplate transaction, int students) {
        this.students = students;
        this.jdbc = jdbc;
        this.transaction = transaction;
    }

    /** @param reader the username of its first student, whose password is that of the demo school */
    record OneClass(long id, String reader, long place) {}

    /** Adds a class with so many published posts, three comments to each. */
    OneClass add(int no, int posts) {
        return transaction.execute(status -> addOne(no, posts));
    }

    private OneClass addOne(int no, int posts) {
        Instant now = Instant.now();
        long classId = next("class");
        jdbc.update(
                """
                        insert into class (id, name, address, subject, level, zone, ceiling, open,
                            post_policy, comment_policy, trust_after, held_words, hold_links, created_at,
                            version)"""
                        + " select ?, ?, random_uuid(), '', '', zone, 2, false, 'NONE', 'NONE', 0,"
                        + " '', false, created_at, 1 from class where id = 1",
                classId,
                "Large " + no);
        jdbc.update(
                "insert into class_term (class_id, first_day, last_day, name) select ?, first_day, last_day, name"
                        + " from class_term where class_id = 1",
                classId);
        String hash = jdbc.queryForObject("select password_hash from person where username = 'wren.c'", String.class);
        long person = next("person");
        long blog = next("blog");
        List<Object[]> people = new ArrayList<>();
        List<Object[]> places = new ArrayList<>();
        List<Object[]> blogs = new ArrayList<>();
        for (int i = 0; i < students; i++) {
            people.add(new Object[] {
                person + i, "large." + no + "." + i, hash, "Family" + i, "Given" + no, Timestamp.from(now)
            });
            places.add(new Object[] {
                classId, person + i, classId * 1000 + i + 1, Timestamp.from(now.minus(Duration.ofDays(80)))
            });
            blogs.add(new Object[] {
                blog + i, classId, "Log of Given" + no + " Family" + i, "log-" + i, person + i, Timestamp.from(now)
            });
        }
        jdbc.batchUpdate("""
                        insert into person (id, username, password_hash, title, family_name, given_name, email,
                            school_no, keeper, teacher, created_at)
                         values (?, ?, ?, '', ?, ?, '', '', false, false, ?)""", people);
        jdbc.batchUpdate("""
                        insert into membership (class_id, person_id, id, role, shown, joined_at)
                         values (?, ?, ?, 'STUDENT', 'OWN_NAME', ?)""", places);
        jdbc.batchUpdate("""
                        insert into blog (id, class_id, kind, title, address, about, widest, kind_widest,
                            commenters, owner_id, created_at)
                         values (?, ?, 'ONE_EACH', ?, ?, '', 2, 4, 'CLASS', ?, ?)""", blogs);
        jdbc.batchUpdate(
                """
                        insert into subscription (person_id, class_id, kind, posts, comments, created_at)
                         values (?, ?, 'CLASS', 'NEVER', 'NEVER', ?)""",
                people.stream()
                        .map(p -> new Object[] {p[0], classId, Timestamp.from(now)})
                        .toList());
        write(classId, person, blog, posts, now);
        return new OneClass(classId, "large." + no + ".0", classId * 1000 + 1);
    }

    private void write(long classId, long person, long blog, int posts, Instant now) {
        long post = next("post");
        long comment = next("comment");
        List<Object[]> rows = new ArrayList<>();
        List<Object[]> versions = new ArrayList<>();
        List<Object[]> tags = new ArrayList<>();
        List<Object[]> events = new ArrayList<>();
        List<Object[]> comments = new ArrayList<>();
        for (int i = 0; i < posts; i++) {
            int author = random.nextInt(students);
            Timestamp at = Timestamp.from(now.minus(Duration.ofMinutes(random.nextInt(70 * 24 * 60))));
            rows.add(new Object[] {post + i, classId, blog + author, person + author, at, at, at});
            versions.add(new Object[] {
                post + i,
                words(5),
                "<p>" + words(60) + ".</p><p>" + words(50) + ".</p>",
                words(35),
                person + author,
                at,
                at
            });
            events.add(new Object[] {classId, post + i, person + author, at});
            tags.add(new Object[] {classId, WORDS[i % 20], WORDS[i % 20], post + i});
            for (int c = 0; c < 3; c++)
                comments.add(new Object[] {
                    comment + 3L * i + c,
                    classId,
                    post + i,
                    person + random.nextInt(students),
                    "<p>" + words(14) + ".</p>",
                    at,
                    at
                });
            if (rows.size() < 2000 && i < posts - 1) continue;
            jdbc.batchUpdate("""
                            insert into post (id, class_id, blog_id, author_id, state, audience, live,
                                handed_in_at, published_at, created_at, rev)
                             values (?, ?, ?, ?, 'PUBLISHED', 2, 1, ?, ?, ?, 1)""", rows);
            jdbc.batchUpdate("""
                            insert into post_version (post_id, no, title, html, tags, audience, words,
                                first_lines, first_picture, saved_by, saved_at, begun_at)
                             values (?, 1, ?, ?, '', 2, 110, ?, '', ?, ?, ?)""", versions);
            jdbc.batchUpdate("insert into post_tag (class_id, tag, folded, post_id) values (?, ?, ?, ?)", tags);
            jdbc.batchUpdate("""
                            insert into comment (id, class_id, post_id, author_id, state, html, words,
                                published_at, created_at, rev)
                             values (?, ?, ?, ?, 'PUBLISHED', ?, 14, ?, ?, 1)""", comments);
            jdbc.batchUpdate("""
                            insert into event (class_id, kind, subject_id, actor_id, at)
                             values (?, 'post-published', ?, ?, ?)""", events);
            Stream.of(rows, versions, tags, events, comments).forEach(List::clear);
        }
    }

    private long next(String table) {
        return jdbc.queryForObject("select coalesce(max(id), 0) + 1000 from " + table, Long.class);
    }

    private String words(int number) {
        return Stream.generate(() -> WORDS[random.nextInt(WORDS.length)])
                .limit(number)
                .collect(Collectors.joining(" "));
    }
}
