package org.vastporch.server.posts;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.text.Folding;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;

/** The categories of a class: few, kept by its teachers, one to a post. */
@Service
public class CategoryService {

    private static final int MOST = 40;
    private static final int LONGEST = 60;

    public record Category(long id, String name) {}

    /** A category as its teachers want it; without a number it is a new one. */
    public record Wanted(@Optionally Long id, String name) {}

    private final CategoryStore store;
    private final AccessService access;
    private final EventStore events;

    CategoryService(CategoryStore store, AccessService access, EventStore events) {
        this.store = store;
        this.access = access;
        this.events = events;
    }

    public List<Category> ofClass(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        return store.ofClass(classId);
    }

    void require(long classId, long id) {
        if (store.ofClass(classId).stream().noneMatch(c -> c.id() == id))
            throw Problem.invalid(
                    "category", "category-unknown", "This category is not there any more. Choose another.");
    }

    /** Sets all categories in their order. One that is left out goes; posts that stood in it stand in none. */
    @Transactional
    public List<Category> set(Viewer viewer, long classId, List<Wanted> wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        List<Wanted> tidy = wanted.stream()
                .map(w -> new Wanted(w.id(), w.name().replaceAll("\\s+", " ").strip()))
                .filter(w -> !w.name().isEmpty())
                .toList();
        if (tidy.size() > MOST)
            throw Problem.invalid("categories", "too-many-categories", "A class has at most " + MOST + " categories.");
        Set<String> seen = new HashSet<>();
        for (Wanted w : tidy) {
            if (w.name().length() > LONGEST)
                throw Problem.invalid(
                        "categories",
                        "category-too-long",
                        "The name of a category has at most " + LONGEST + " characters.");
            if (!seen.add(Folding.fold(w.name())))
                throw Problem.invalid("categories", "category-twice", "\"" + w.name() + "\" stands there twice.");
        }
        store.set(classId, tidy);
        events.add(classId, "categories-changed", null, viewer.personId());
        return store.ofClass(classId);
    }

    @Repository
    static class CategoryStore {

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
}
