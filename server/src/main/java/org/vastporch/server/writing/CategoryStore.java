package org.vastporch.server.writing;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.text.Folding;
import org.vastporch.server.writing.CategoryService.Category;
import org.vastporch.server.writing.CategoryService.Wanted;

@Repository
class CategoryStore {

    private final JdbcClient jdbc;

    CategoryStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Category> ofClass(long classId) {
        return jdbc.sql("select id, name from category where class_id = :classId order by place, id")
                .param("classId", classId)
                .query((row, n) -> new Category(row.getLong("id"), row.getString("name")))
                .list();
    }

    void set(long classId, List<Wanted> wanted) {
        Set<Long> kept = new HashSet<>();
        wanted.forEach(w -> {
            if (w.id() != null) kept.add(w.id());
        });
        for (Category c : ofClass(classId)) if (!kept.contains(c.id())) remove(c.id());
        // Names first out of each other's way: two may have been swapped.
        jdbc.sql("update category set folded = '#' || id where class_id = :classId")
                .param("classId", classId)
                .update();
        for (int place = 0; place < wanted.size(); place++) {
            Wanted w = wanted.get(place);
            String sql = w.id() == null ? """
                            insert into category (class_id, name, folded, place)
                             values (:classId, :name, :folded, :place)""" : """
                            update category
                             set name = :name, folded = :folded, place = :place
                             where class_id = :classId and id =""" + w.id().longValue();
            jdbc.sql(sql)
                    .param("classId", classId)
                    .param("name", w.name())
                    .param("folded", Folding.fold(w.name()))
                    .param("place", place)
                    .update();
        }
    }

    private void remove(long id) {
        jdbc.sql("update post set category_id = null where category_id = :id")
                .param("id", id)
                .update();
        jdbc.sql("update post_version set category_id = null where category_id = :id")
                .param("id", id)
                .update();
        jdbc.sql("delete from category where id = :id").param("id", id).update();
    }
}
