package org.vastporch.server.writing;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
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
}
