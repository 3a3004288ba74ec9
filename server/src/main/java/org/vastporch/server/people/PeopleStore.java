package org.vastporch.server.people;

import java.security.SecureRandom;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.access.Role;
import org.vastporch.core.enrolment.RosterCheck;
import org.vastporch.core.people.AccountCare;
import org.vastporch.core.people.Leaving;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.rows.Rows;

/** People and their places in classes. */
@Repository
class PeopleStore {

    /** One member of a class as staff know them. {@code place} is the number of the place in the class. */
    record Member(
            long id,
            long place,
            String title,
            PersonName name,
            String username,
            String email,
            String schoolNo,
            Role role,
            @Nullable Long groupId,
            @Nullable String group,
            PersonName.Shown shown,
            @Nullable String penName,
            @Nullable Instant signedInAt,
            @Nullable Instant endedAt,
            @Nullable Leaving leaving,
            @Nullable String slipPhrase,
            boolean nameAsked) {
        boolean isStudent() {
            return role == Role.STUDENT && endedAt == null;
        }
    }

    /** One place that a person has or had. */
    record Place(
            long classId,
            String className,
            String level,
            Role role,
            Instant joinedAt,
            @Nullable Instant endedAt,
            boolean ownPasswords) {}

    /** An account without its places. */
    record Person(
            long id,
            String title,
            PersonName name,
            String username,
            String email,
            String schoolNo,
            boolean keeper,
            boolean teacher,
            boolean hasPassword) {}

    private static final String PERSON =
            "id, title, family_name, given_name, username, email, school_no, keeper, teacher, "
                    + "password_hash is not null as ready ";

    /** Numbers of places are drawn from so many; browsers keep them whole. */
    private static final long MOST_PLACES = 1L << 53;

    private final SecureRandom random = new SecureRandom();
    private final JdbcClient jdbc;

    PeopleStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    boolean isUsername(String username) {
        return jdbc.sql("select count(*) from person where username = :username")
                        .param("username", username)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** Adds a person without a password and gives the new id. */
    long add(
            String username,
            String title,
            PersonName name,
            String email,
            String schoolNo,
            boolean keeper,
            boolean teacher,
            Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into person (username, title, family_name, given_name, email, school_no, keeper, teacher,
                       created_at)
                values (:username, :title, :family, :given, :email, :schoolNo, :keeper, :teacher, :now)""")
                .param("username", username)
                .param("title", title)
                .param("family", name.family())
                .param("given", name.given())
                .param("email", email)
                .param("schoolNo", schoolNo)
                .param("keeper", keeper)
                .param("teacher", teacher)
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** Sets a password; one-time addresses of the person end with it. */
    void setPassword(long id, String hash, @Nullable String slipPhrase) {
        jdbc.sql("delete from one_time_address where person_id = :id")
                .param("id", id)
                .update();
        jdbc.sql("update person set password_hash = :hash, slip_phrase = :slip where id = :id")
                .param("hash", hash)
                .param("slip", slipPhrase)
                .param("id", id)
                .update();
    }

    /** Notes a sign-in; the pass phrase of the slip is forgotten with the first one. */
    void signedIn(long id, Instant now) {
        jdbc.sql("update person set signed_in_at = :now, slip_phrase = null where id = :id")
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    Optional<PeopleService.Credentials> credentials(String username) {
        return jdbc.sql("select id, password_hash from person where username = :username and password_hash is not null")
                .param("username", username)
                .query((row, n) -> new PeopleService.Credentials(row.getLong("id"), row.getString("password_hash")))
                .optional();
    }

    Optional<Person> person(long id) {
        return jdbc.sql("select " + PERSON + " from person where id = :id")
                .param("id", id)
                .query((row, n) -> person(row))
                .optional();
    }

    List<Person> staffOfSchool() {
        return jdbc.sql("select " + PERSON + " from person where keeper or teacher order by family_name, given_name")
                .query((row, n) -> person(row))
                .list();
    }

    List<Member> members(long classId) {
        return jdbc.sql("""
                select p.id, p.title, p.family_name, p.given_name, p.username, p.email, p.school_no, p.signed_in_at,
                       p.slip_phrase,
                       m.id as place, m.role, m.group_id, g.name as group_name, m.shown, m.pen_name, m.ended_at,
                              m.leaving, m.name_asked
                  from membership m
                  join person p on p.id = m.person_id
                  left join class_group g on g.id = m.group_id
                 where m.class_id = :classId
                 order by p.family_name, p.given_name, g.name, p.id""")
                .param("classId", classId)
                .query((row, n) -> member(row))
                .list();
    }

    /** Since when the students of a class have been there. */
    Map<Long, Instant> joined(long classId) {
        Map<Long, Instant> joined = new HashMap<>();
        jdbc.sql("""
                select person_id, joined_at
                  from membership
                 where class_id = :classId and role = 'STUDENT' and ended_at is null""").param("classId", classId).query(row -> {
            joined.put(row.getLong("person_id"), Rows.instant(row, "joined_at"));
        });
        return joined;
    }

    /** @param classId the class of the place, {@code className} its name */
    record Named(Member member, long classId, String className) {}

    /**
     * The members of a class, and those of other classes who commented in it, each with the newest place they have now.
     */
    List<Named> named(long classId) {
        return jdbc.sql("""
                select p.id, p.title, p.family_name, p.given_name, p.username, p.email, p.school_no, p.signed_in_at,
                       p.slip_phrase, m.id as place, m.role, m.group_id, g.name as group_name, m.shown, m.pen_name,
                       m.ended_at, m.leaving, m.name_asked, m.class_id, c.name as class_name
                  from (select id from membership where class_id = :classId
                        union all
                        select (select x.id from membership x where x.person_id = o.person_id and x.ended_at is null
                                 order by x.joined_at desc, x.id fetch first row only)
                          from other_commenter o
                         where o.class_id = :classId
                           and not exists (select 1 from membership y where y.class_id = :classId and y.person_id =
                               o.person_id)) w
                  join membership m on m.id = w.id
                  join person p on p.id = m.person_id
                  join class c on c.id = m.class_id
                  left join class_group g on g.id = m.group_id
                 order by p.family_name, p.given_name, g.name, p.id""")
                .param("classId", classId)
                .query((row, n) -> new Named(member(row), row.getLong("class_id"), row.getString("class_name")))
                .list();
    }

    void commented(long classId, long personId) {
        try {
            jdbc.sql("""
                    insert into other_commenter (class_id, person_id)
                    select :classId, :person
                     where not exists (select 1 from membership where class_id = :classId and person_id = :person)
                       and not exists (select 1 from other_commenter where class_id = :classId and person_id = :person)""").param("classId", classId).param("person", personId).update();
        } catch (DuplicateKeyException noted) {
            // Another comment of theirs came at the same moment and has said so.
        }
    }

    /** All places of a person, the newest first. */
    List<Place> places(long personId) {
        return jdbc.sql("""
                select m.class_id, c.name, c.level, m.role, m.joined_at, m.ended_at, c.own_passwords
                  from membership m
                  join class c on c.id = m.class_id
                 where m.person_id = :person
                 order by m.joined_at desc, m.class_id desc""")
                .param("person", personId)
                .query((row, n) -> new Place(
                        row.getLong("class_id"),
                        row.getString("name"),
                        row.getString("level"),
                        Role.valueOf(row.getString("role")),
                        Rows.instant(row, "joined_at"),
                        Rows.instant(row, "ended_at"),
                        row.getBoolean("own_passwords")))
                .list();
    }

    /**
     * People of the school whose name or username begins like a text, the first {@code most} by name after a cursor (a
     * name, and an id).
     */
    List<Person> find(String begins, String afterName, long afterId, int most) {
        return jdbc.sql("select " + PERSON + """
                 from person
                where (lower(family_name) like :begins or lower(given_name) like :begins or username like :begins)
                  and (family_name, id) > (:afterName, :afterId)
                order by family_name, id
                limit :most""")
                .param(
                        "begins",
                        begins.toLowerCase(Locale.ROOT)
                                        .replace("\\", "\\\\")
                                        .replace("%", "\\%")
                                        .replace("_", "\\_") + "%")
                .param("afterName", afterName)
                .param("afterId", afterId)
                .param("most", most)
                .query((row, n) -> person(row))
                .list();
    }

    /**
     * Everybody in the school with a mark to know them by, and the members of the class.
     *
     * @param managed the classes that whoever asks manages
     */
    List<RosterCheck.Known> known(long classId, Set<Long> managed) {
        Map<Long, List<AccountCare.Place>> places = new HashMap<>();
        jdbc.sql("select person_id, class_id, role from membership where ended_at is null")
                .query((row, n) -> places.computeIfAbsent(row.getLong("person_id"), id -> new ArrayList<>())
                        .add(new AccountCare.Place(row.getLong("class_id"), Role.valueOf(row.getString("role")))))
                .list();
        return jdbc.sql("""
                select p.id, p.given_name, p.family_name, p.email, p.school_no, p.keeper or p.teacher as works,
                       coalesce(g.name, '') as group_name, m.role
                  from person p
                  left join membership m on m.person_id = p.id and m.class_id = :classId and m.ended_at is null
                  left join class_group g on g.id = m.group_id
                 where m.class_id is not null or p.email <> '' or p.school_no <> ''""")
                .param("classId", classId)
                .query((row, n) -> {
                    List<AccountCare.Place> now = places.getOrDefault(row.getLong("id"), List.of());
                    return new RosterCheck.Known(
                            row.getLong("id"),
                            row.getString("family_name"),
                            row.getString("given_name"),
                            row.getString("email"),
                            row.getString("school_no"),
                            row.getString("group_name"),
                            row.getString("role") != null,
                            Role.STUDENT.name().equals(row.getString("role")),
                            AccountCare.isWith(managed, row.getBoolean("works"), now),
                            AccountCare.worksHere(row.getBoolean("works"), now));
                })
                .list();
    }

    /** Gives a person a place in a class; one that ended is taken up again. */
    void enrol(long classId, long personId, Role role, @Nullable Long groupId, PersonName.Shown shown, Instant now) {
        int again = jdbc.sql("""
                update membership
                   set role = :role, group_id = :groupId, ended_at = null, leaving = null
                 where class_id = :classId and person_id = :personId""")
                .param("classId", classId)
                .param("personId", personId)
                .param("role", role.name())
                .param("groupId", groupId)
                .update();
        if (again > 0) return;
        jdbc.sql("""
                insert into membership (id, class_id, person_id, role, group_id, shown, pen_name, joined_at)
                values (:place, :classId, :personId, :role, :groupId, :shown, null, :now)""")
                .param("place", random.nextLong(1, MOST_PLACES))
                .param("classId", classId)
                .param("personId", personId)
                .param("role", role.name())
                .param("groupId", groupId)
                .param("shown", shown.name())
                .param("now", Rows.utc(now))
                .update();
    }

    /** Whether staff have still to look at the name before it shows. */
    void setNameAsked(long classId, long personId, boolean asked) {
        jdbc.sql("update membership set name_asked = :asked where class_id = :classId and person_id = :person")
                .param("asked", asked)
                .param("classId", classId)
                .param("person", personId)
                .update();
    }

    /** The names of all who work for the school, with and without their titles. */
    List<String> namesOfStaff() {
        return jdbc
                .sql("""
                select p.title, p.given_name, p.family_name
                  from person p
                 where p.keeper or p.teacher
                    or exists (select 1 from membership m where m.person_id = p.id and m.ended_at is null and m.role
                           not in ('STUDENT', 'GUEST'))""")
                .query((row, n) -> Stream.of(
                        row.getString("given_name") + " " + row.getString("family_name"),
                        row.getString("title") + " " + row.getString("family_name"),
                        row.getString("family_name")))
                .list()
                .stream()
                .flatMap(names -> names)
                .map(String::strip)
                .toList();
    }

    /** Counts one more try at somebody's password that did not work. */
    void addTry(long personId, Instant now) {
        int counted = jdbc.sql("update sign_in_try set count = count + 1, last_at = :now where person_id = :person")
                .param("now", Rows.utc(now))
                .param("person", personId)
                .update();
        if (counted == 0)
            jdbc.sql("merge into sign_in_try (person_id, count, last_at) key (person_id) values (:person, 1, :now)")
                    .param("person", personId)
                    .param("now", Rows.utc(now))
                    .update();
    }

    Optional<PeopleService.TriesView> tries(long personId) {
        return jdbc.sql("select count, last_at from sign_in_try where person_id = :person")
                .param("person", personId)
                .query((row, n) -> new PeopleService.TriesView(row.getInt("count"), Rows.instant(row, "last_at")))
                .optional();
    }

    void forgetTries(long personId) {
        jdbc.sql("delete from sign_in_try where person_id = :person")
                .param("person", personId)
                .update();
    }

    void setEmail(long id, String email) {
        jdbc.sql("update person set email = :email where id = :id")
                .param("email", email)
                .param("id", id)
                .update();
    }

    void change(long id, PersonName name, String email, String schoolNo) {
        jdbc.sql("""
                                update person
                                 set family_name = :family, given_name = :given, email = :email, school_no =
                                    :schoolNo
                                 where id = :id""")
                .param("family", name.family())
                .param("given", name.given())
                .param("email", email)
                .param("schoolNo", schoolNo)
                .param("id", id)
                .update();
    }

    void setGroup(long classId, List<Long> personIds, @Nullable Long groupId) {
        if (personIds.isEmpty()) return;
        jdbc.sql("update membership set group_id = :groupId where class_id = :classId and person_id in (:persons)")
                .param("groupId", groupId)
                .param("classId", classId)
                .param("persons", personIds)
                .update();
    }

    /** Whether a class sorts its people by their given names. */
    boolean sortsByGivenName(long classId) {
        return jdbc.sql("select by_given from class where id = :id")
                .param("id", classId)
                .query(Boolean.class)
                .single();
    }

    /** How those appear to readers who come into a class from now on. */
    void setShownOfNew(long classId, PersonName.Shown shown) {
        jdbc.sql("update class set shown = :shown where id = :id")
                .param("shown", shown.name())
                .param("id", classId)
                .update();
    }

    void setRole(long classId, long personId, Role role) {
        jdbc.sql("""
                                update membership
                                 set role = :role, group_id = null
                                 where class_id = :classId and person_id = :person""")
                .param("role", role.name())
                .param("classId", classId)
                .param("person", personId)
                .update();
    }

    void setShown(long classId, long personId, PersonName.Shown shown, @Nullable String penName) {
        jdbc.sql("""
                                update membership
                                 set shown = :shown, pen_name = :penName
                                 where class_id = :classId and person_id = :person""")
                .param("shown", shown.name())
                .param("penName", penName)
                .param("classId", classId)
                .param("person", personId)
                .update();
    }

    void end(long classId, long personId, Leaving leaving, Instant now) {
        jdbc.sql("""
                                update membership
                                 set ended_at = :now, leaving = :leaving
                                 where class_id = :classId and person_id = :personId and ended_at is null""")
                .param("now", Rows.utc(now))
                .param("leaving", leaving.name())
                .param("classId", classId)
                .param("personId", personId)
                .update();
    }

    void takeBack(long classId, long personId) {
        jdbc.sql("""
                                update membership
                                 set ended_at = null, leaving = null
                                 where class_id = :classId and person_id = :person""").param("classId", classId).param("person", personId).update();
    }

    /** Removes a person whose other traces are gone. */
    void remove(long personId) {
        jdbc.sql("delete from other_commenter where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from membership where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from person where id = :person")
                .param("person", personId)
                .update();
    }

    long groupId(long classId, String name) {
        Optional<Long> known = jdbc.sql("select id from class_group where class_id = :classId and name = :name")
                .param("classId", classId)
                .param("name", name)
                .query(Long.class)
                .optional();
        if (known.isPresent()) return known.get();
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("insert into class_group (class_id, name) values (:classId, :name)")
                .param("classId", classId)
                .param("name", name)
                .update(key, "id");
        return key.getKey().longValue();
    }

    List<PeopleService.Group> groups(long classId) {
        return jdbc.sql("select id, name from class_group where class_id = :classId order by name")
                .param("classId", classId)
                .query((row, n) -> new PeopleService.Group(row.getLong("id"), row.getString("name")))
                .list();
    }

    private static Person person(ResultSet row) throws SQLException {
        return new Person(
                row.getLong("id"),
                row.getString("title"),
                new PersonName(row.getString("family_name"), row.getString("given_name")),
                row.getString("username"),
                row.getString("email"),
                row.getString("school_no"),
                row.getBoolean("keeper"),
                row.getBoolean("teacher"),
                row.getBoolean("ready"));
    }

    private static Member member(ResultSet row) throws SQLException {
        String leaving = row.getString("leaving");
        return new Member(
                row.getLong("id"),
                row.getLong("place"),
                row.getString("title"),
                new PersonName(row.getString("family_name"), row.getString("given_name")),
                row.getString("username"),
                row.getString("email"),
                row.getString("school_no"),
                Role.valueOf(row.getString("role")),
                Rows.number(row, "group_id"),
                row.getString("group_name"),
                PersonName.Shown.valueOf(row.getString("shown")),
                row.getString("pen_name"),
                Rows.instant(row, "signed_in_at"),
                Rows.instant(row, "ended_at"),
                leaving == null ? null : Leaving.valueOf(leaving),
                row.getString("slip_phrase"),
                row.getBoolean("name_asked"));
    }
}
