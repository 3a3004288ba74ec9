package org.vastporch.server.media;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.rows.Rows;

/** Pictures and files of a class that stand in no post. */
@Repository
class DrawerStore {

    /** @param kind PICTURE, SOUND, VIDEO or DOCUMENT */
    record Item(
            String id, long classId, String kind, String name, String type, long size, int pages, boolean offered) {}

    private static final String ITEMS = """
            select *
              from (select p.id, p.class_id, 'PICTURE' as kind, p.name, m.type, m.size, 0 as pages, p.offered,
                           p.created_at
                      from picture p
                      join medium m on m.sha = p.sha
                     where p.post_id is null
                    union all
                    select a.id, a.class_id, a.kind, a.name, a.type, a.size, a.pages, a.offered, a.created_at
                      from attachment a
                     where a.post_id is null) i
            """;

    private final JdbcClient jdbc;

    DrawerStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** What the drawer of a class offers, the newest first. */
    List<Item> offered(long classId) {
        return jdbc.sql(ITEMS + " where i.class_id = :class and i.offered order by i.created_at desc, i.id")
                .param("class", classId)
                .query(Item.class)
                .list();
    }

    Optional<Item> find(String id) {
        return jdbc.sql(ITEMS + " where i.id = :id")
                .param("id", id)
                .query(Item.class)
                .optional();
    }

    /** How many a class has, recordings of feedback left out. */
    int count(long classId) {
        return jdbc.sql("select count(*) from (" + ITEMS + """
                        ) c where c.class_id = :class and not exists (select 1 from recording r where r.file_id = c.id)""")
                .param("class", classId)
                .query(Integer.class)
                .single();
    }

    /**
     * Whether a prompt of its class that students see by now shows it, a paper to warm up on once papers are given out,
     * or a post that stands with one by its author's leave.
     */
    boolean isShown(Item item, Instant now) {
        return jdbc.sql("""
                select exists (select 1
                                 from prompt p
                                where p.class_id = :class and p.opens_at <= :now
                                  and (locate(:id, p.instructions) > 0 or locate(:id, p.example) > 0))
                       or exists (select 1
                                    from warm_up w
                                    join prompt q on q.id = w.prompt_id
                                   where q.class_id = :class and q.peers_given_at <= :now
                                     and locate(:id, w.html) > 0)
                       or exists (select 1
                                    from example_post e
                                    join prompt q on q.id = e.prompt_id
                                    join post p on p.id = e.post_id
                                   where q.class_id = :class and e.given
                                     and case e.used_as when 'WARM_UP' then q.peers_given_at else q.opens_at end <= :now
                                     and locate(:id, e.html) > 0 and """ + " " + ScopeSql.UP + ")")
                .param("class", item.classId())
                .param("now", Rows.utc(now))
                .param("id", item.id())
                .query(Boolean.class)
                .single();
    }

    /** Removes some that the class does not find in its drawer, and that no example post shows. */
    void remove(long classId, List<String> ids) {
        if (ids.isEmpty()) return;
        for (String table : List.of("picture", "attachment"))
            jdbc.sql("delete from " + table
                            + " f where f.id in (:ids) and f.class_id = :class and f.post_id is null and not f.offered"
                            + " and not exists (select 1 from example_post e where locate(f.id, e.html) > 0)")
                    .param("ids", ids)
                    .param("class", classId)
                    .update();
    }

    void set(Item item, String name, boolean offered) {
        jdbc.sql("update " + (item.kind().equals("PICTURE") ? "picture" : "attachment")
                        + " set name = :name, offered = :offered where id = :id")
                .param("name", name)
                .param("offered", offered)
                .param("id", item.id())
                .update();
    }
}
