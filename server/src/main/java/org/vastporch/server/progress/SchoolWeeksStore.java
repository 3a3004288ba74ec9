package org.vastporch.server.progress;

import static java.util.stream.Collectors.groupingBy;
import static java.util.stream.Collectors.mapping;
import static java.util.stream.Collectors.toList;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.progress.LastWeeks.Moment;
import org.vastporch.server.rows.Rows;

/** How much happens in each class of the school: numbers alone. */
@Repository
class SchoolWeeksStore {

    record OfSchool(long id, String name, ZoneId zone) {}

    private record Counted(long classId, Moment moment) {}

    private record Waited(long classId, Duration lasted) {}

    private final JdbcClient jdbc;

    SchoolWeeksStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<OfSchool> classes() {
        return jdbc.sql("select id, name, zone from class order by name, id")
                .query((row, n) ->
                        new OfSchool(row.getLong("id"), row.getString("name"), ZoneId.of(row.getString("zone"))))
                .list();
    }

    /** Posts that are up, by their class and quarters of an hour; announcements are none. */
    Map<Long, List<Moment>> posts(Instant from) {
        return moments("""
                post where author_id is not null and not announcement and live is not null
                       and state not in ('HIDDEN', 'BINNED')""", from);
    }

    Map<Long, List<Moment>> comments(Instant from) {
        return moments("comment where state = 'PUBLISHED'", from);
    }

    private Map<Long, List<Moment>> moments(String which, Instant from) {
        return jdbc
                .sql("select class_id, floor(extract(epoch from published_at) / 900) as quarter, count(*) as c from "
                        + which + " and published_at >= :from group by class_id, quarter")
                .param("from", Rows.utc(from))
                .query((row, n) -> new Counted(
                        row.getLong("class_id"),
                        new Moment(Instant.ofEpochSecond(row.getLong("quarter") * 900), row.getInt("c"))))
                .list()
                .stream()
                .collect(groupingBy(Counted::classId, mapping(Counted::moment, toList())));
    }

    /** How long texts waited for their decisions, by class. */
    Map<Long, List<Duration>> waits(Instant from) {
        return jdbc
                .sql("""
                select class_id, before_waiting, decided_at
                  from decision
                 where decided_at >= :from and before_waiting is not null and before_state = 'WAITING'
                   and undone_at is null""")
                .param("from", Rows.utc(from))
                .query((row, n) -> new Waited(
                        row.getLong("class_id"),
                        Duration.between(Rows.instant(row, "before_waiting"), Rows.instant(row, "decided_at"))))
                .list()
                .stream()
                .collect(groupingBy(Waited::classId, mapping(Waited::lasted, toList())));
    }

    /** Since when what waits longest waits, by class. */
    Map<Long, Instant> oldest() {
        Map<Long, Instant> oldest = new HashMap<>();
        jdbc.sql("""
                select class_id, min(waiting_since) as since
                  from (select class_id, waiting_since from post where state <> 'BINNED' and waiting_since is not null
                        union all
                        select class_id, waiting_since from comment where state <> 'BINNED' and waiting_since is not null)
                 group by class_id""").query(row -> {
            oldest.put(row.getLong("class_id"), Rows.instant(row, "since"));
        });
        return oldest;
    }
}
