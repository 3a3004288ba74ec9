package org.vastporch.server.classes;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.calendar.Terms;
import org.vastporch.core.classes.ClassRules;
import org.vastporch.core.enrolment.ClassWord;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.writing.Tool;
import org.vastporch.server.classes.ClassService.ClassRecord;
import org.vastporch.server.rows.Rows;

@Repository
class ClassStore {

    private final JdbcClient jdbc;

    ClassStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(String name, String address, String subject, String level, Terms terms, ClassRules rules, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into class (name, address, subject, level, zone, ceiling, open, post_policy,
                       comment_policy,
                                   trust_after, held_words, hold_links, hold_pictures, first_posts, reports_hide,
                                          tools, take_over, apart, created_at, version)
                values (:name, :address, :subject, :level, :zone, :ceiling, :open, :postPolicy, :commentPolicy,
                        :trustAfter, :heldWords, :holdLinks, :holdPictures, :firstPosts, :reportsHide, :tools, :takeOver, :apart, :now,
                               1)""")
                .param("name", name)
                .param("address", address)
                .param("subject", subject)
                .param("level", level)
                .param("zone", terms.get(0).zone().getId())
                .param("ceiling", rules.ceiling().ordinal())
                .param("open", rules.open())
                .param("postPolicy", rules.postPolicy().name())
                .param("commentPolicy", rules.commentPolicy().name())
                .param("trustAfter", rules.trustAfter())
                .param("heldWords", String.join("\n", rules.heldWords()))
                .param("holdLinks", rules.holdLinks())
                .param("holdPictures", rules.holdPictures())
                .param("firstPosts", rules.firstPosts())
                .param("reportsHide", rules.reportsHide())
                .param("tools", toolsText(rules.tools()))
                .param("takeOver", rules.takeOver())
                .param("apart", rules.apart())
                .param("now", Rows.utc(now))
                .update(key, "id");
        long id = key.getKey().longValue();
        addTerms(id, terms);
        jdbc.sql("insert into class_address (address, class_id) values (:address, :id)")
                .param("address", address)
                .param("id", id)
                .update();
        return id;
    }

    /** Whether an address belongs, or once belonged, to a class. */
    boolean isAddressGiven(String address) {
        return jdbc.sql("select count(*) from class_address where address = :address")
                        .param("address", address)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /**
     * The class with its terms and breaks: one row for each, and the last one has seen them all.
     *
     * @param now by which one term is the present one
     */
    Optional<ClassRecord> find(long id, Instant now) {
        List<Terms.Days> terms = new ArrayList<>();
        List<Term.Break> breaks = new ArrayList<>();
        return jdbc
                .sql("""
                select c.id, c.name, c.address, c.subject, c.level, c.zone, c.ceiling, c.open,
                       c.post_policy, c.comment_policy, c.trust_after, c.held_words, c.hold_links, c.hold_pictures,
                       c.first_posts, c.reports_hide, c.tools, c.take_over, c.apart, c.own_passwords, c.by_given, c.shown, c.word,
                       c.word_until, c.word_left, c.version, d.term, d.from_day, d.to_day
                  from class c
                  join (select class_id, name as term, first_day as from_day, last_day as to_day from class_term
                        union all
                        select class_id, null, from_day, to_day from class_break) d on d.class_id = c.id
                 where c.id = :id
                 order by d.from_day""")
                .param("id", id)
                .query((row, n) -> {
                    LocalDate from = row.getObject("from_day", LocalDate.class);
                    LocalDate to = row.getObject("to_day", LocalDate.class);
                    String term = row.getString("term");
                    if (term == null) breaks.add(new Term.Break(from, to));
                    else terms.add(new Terms.Days(term, from, to));
                    return row.isLast() ? record(row, terms, breaks, now) : null;
                })
                .list()
                .stream()
                .filter(Objects::nonNull)
                .findFirst();
    }

    /** Changes the rules; false if somebody else changed the class since {@code version}. */
    boolean setRules(long id, ClassRules rules, int version) {
        return jdbc.sql("""
                update class
                   set ceiling = :ceiling, open = :open, post_policy = :postPolicy, comment_policy = :commentPolicy,
                       trust_after = :trustAfter, held_words = :heldWords, hold_links = :holdLinks, hold_pictures =
                              :holdPictures,
                       first_posts = :firstPosts, reports_hide = :reportsHide, tools = :tools,
                       take_over = :takeOver, apart = :apart, version = version + 1
                 where id = :id and version = :version""")
                        .param("ceiling", rules.ceiling().ordinal())
                        .param("open", rules.open())
                        .param("postPolicy", rules.postPolicy().name())
                        .param("commentPolicy", rules.commentPolicy().name())
                        .param("trustAfter", rules.trustAfter())
                        .param("heldWords", String.join("\n", rules.heldWords()))
                        .param("holdLinks", rules.holdLinks())
                        .param("holdPictures", rules.holdPictures())
                        .param("firstPosts", rules.firstPosts())
                        .param("reportsHide", rules.reportsHide())
                        .param("tools", toolsText(rules.tools()))
                        .param("takeOver", rules.takeOver())
                        .param("apart", rules.apart())
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }

    /** From now on approvals count towards earned trust anew. */
    void beginTrustAnew(long id, Instant now) {
        jdbc.sql("update class set trust_since = :now where id = :id")
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    /** Changes what the class is and when; false if somebody else changed the class since {@code version}. */
    boolean change(
            long id,
            String name,
            String subject,
            String level,
            Terms terms,
            boolean ownPasswords,
            boolean byGiven,
            int version) {
        boolean changed = jdbc.sql("""
                update class
                   set name = :name, subject = :subject, level = :level, zone = :zone,
                       own_passwords = :ownPasswords, by_given = :byGiven, version = version + 1
                 where id = :id and version = :version""")
                        .param("name", name)
                        .param("subject", subject)
                        .param("level", level)
                        .param("zone", terms.get(0).zone().getId())
                        .param("ownPasswords", ownPasswords)
                        .param("byGiven", byGiven)
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
        if (changed) {
            for (String days : List.of("class_term", "class_break"))
                jdbc.sql("delete from " + days + " where class_id = :id")
                        .param("id", id)
                        .update();
            addTerms(id, terms);
        }
        return changed;
    }

    private void addTerms(long id, Terms terms) {
        for (Terms.Named of : terms.inOrder())
            jdbc.sql("""
                    insert into class_term (class_id, first_day, last_day, name)
                    values (:id, :first, :last, :name)""")
                    .param("id", id)
                    .param("first", of.term().first())
                    .param("last", of.term().last())
                    .param("name", of.name())
                    .update();
        for (Term.Break b : terms.breaks())
            jdbc.sql("insert into class_break (class_id, from_day, to_day) values (:id, :from, :to)")
                    .param("id", id)
                    .param("from", b.from())
                    .param("to", b.to())
                    .update();
    }

    private static String toolsText(Set<Tool> tools) {
        return tools.stream().sorted().map(Tool::name).collect(Collectors.joining(" "));
    }

    private static ClassRecord record(ResultSet row, List<Terms.Days> days, List<Term.Break> breaks, Instant now)
            throws SQLException {
        Terms terms = Terms.of(days, breaks, ZoneId.of(row.getString("zone")));
        ClassRules rules = new ClassRules(
                Audience.values()[row.getInt("ceiling")],
                row.getBoolean("open"),
                Policy.valueOf(row.getString("post_policy")),
                Policy.valueOf(row.getString("comment_policy")),
                row.getInt("trust_after"),
                row.getString("held_words").lines().filter(w -> !w.isBlank()).toList(),
                row.getBoolean("hold_links"),
                row.getBoolean("hold_pictures"),
                row.getInt("first_posts"),
                row.getBoolean("reports_hide"),
                Arrays.stream(row.getString("tools").split(" "))
                        .filter(t -> !t.isEmpty())
                        .map(Tool::valueOf)
                        .collect(Collectors.toCollection(() -> EnumSet.noneOf(Tool.class))),
                row.getBoolean("take_over"),
                row.getInt("apart"));
        String word = row.getString("word");
        return new ClassRecord(
                row.getLong("id"),
                row.getString("name"),
                row.getString("address"),
                row.getString("subject"),
                row.getString("level"),
                terms,
                terms.at(now),
                rules,
                row.getBoolean("own_passwords"),
                row.getBoolean("by_given"),
                PersonName.Shown.valueOf(row.getString("shown")),
                word == null
                        ? null
                        : new ClassWord(word, Rows.instant(row, "word_until"), Rows.integer(row, "word_left")),
                row.getInt("version"));
    }

    /** What is chosen in a column of a class's row; nothing if there is no such class. */
    Optional<String> choice(long classId, String column) {
        return jdbc.sql("select " + column + " from class where id = :id")
                .param("id", classId)
                .query(String.class)
                .optional();
    }

    /** Chooses something else if what was seen still is what is chosen. */
    boolean choose(long classId, String column, String to, String seen) {
        return jdbc.sql("update class set " + column + " = :to where id = :id and " + column + " = :seen")
                        .param("to", to)
                        .param("id", classId)
                        .param("seen", seen)
                        .update()
                == 1;
    }
}
