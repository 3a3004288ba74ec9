package org.vastporch.server.prompts;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.marking.Bundle;
import org.vastporch.server.http.Problem;

/** The bundles of a class: prompts that count together. */
@Repository
class BundleStore {

    /** @param best how many papers count; 0 for all */
    record Kept(long id, String name, BigDecimal weight, int best, Bundle.Never never) {}

    private final JdbcClient jdbc;

    BundleStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Kept> ofClass(long classId) {
        return jdbc.sql("select id, name, weight, best, never from bundle where class_id = :classId order by place, id")
                .param("classId", classId)
                .query((row, n) -> new Kept(
                        row.getLong("id"),
                        row.getString("name"),
                        new BigDecimal(
                                row.getBigDecimal("weight").stripTrailingZeros().toPlainString()),
                        row.getInt("best"),
                        Bundle.Never.valueOf(row.getString("never"))))
                .list();
    }

    /** Makes sure that a bundle belongs to a class. */
    void require(long classId, long id) {
        if (ofClass(classId).stream().noneMatch(b -> b.id() == id)) throw Problem.missing();
    }

    long add(long classId, Kept bundle, int place) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into bundle (class_id, name, weight, best, never, place)
                values (:classId, :name, :weight, :best, :never, :place)""")
                .param("classId", classId)
                .param("name", bundle.name())
                .param("weight", bundle.weight())
                .param("best", bundle.best())
                .param("never", bundle.never().name())
                .param("place", place)
                .update(key, "id");
        return key.getKey().longValue();
    }

    void change(Kept bundle, int place) {
        jdbc.sql("""
                update bundle set name = :name, weight = :weight, best = :best, never = :never, place = :place
                 where id = :id""")
                .param("id", bundle.id())
                .param("name", bundle.name())
                .param("weight", bundle.weight())
                .param("best", bundle.best())
                .param("never", bundle.never().name())
                .param("place", place)
                .update();
    }

    /** Its prompts stay, and are in no bundle. */
    void remove(long id) {
        jdbc.sql("delete from bundle where id = :id").param("id", id).update();
    }

    void lockClass(long classId) {
        jdbc.sql("select id from class where id = :id for update")
                .param("id", classId)
                .query(Long.class)
                .optional();
    }

    /** Which prompts are in the bundles of a class. */
    Map<Long, List<Long>> prompts(long classId) {
        Map<Long, List<Long>> found = new HashMap<>();
        jdbc.sql(
                        "select id, bundle_id from prompt where class_id = :classId and bundle_id is not null order by due_at, id")
                .param("classId", classId)
                .query(row -> {
                    found.computeIfAbsent(row.getLong("bundle_id"), id -> new ArrayList<>())
                            .add(row.getLong("id"));
                });
        return found;
    }

    /** @param bundleId null for none */
    void put(long promptId, @Nullable Long bundleId) {
        jdbc.sql("""
                update prompt set bundle_id = :bundle, rev = rev + 1
                 where id = :id and bundle_id is distinct from cast(:bundle as bigint)""").param("bundle", bundleId).param("id", promptId).update();
    }
}
