package org.vastporch.server.classes;

import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;

/** Rules of a class of which one choice holds, each changed by itself. */
@Service
public class ClassSettings {

    /**
     * A rule that stands in a column of its own.
     *
     * @param otherwise what holds where there is no class
     */
    public record Setting<E extends Enum<E>>(String column, Class<E> choices, E otherwise) {}

    private final ClassStore store;
    private final AccessService access;
    private final EventStore events;

    ClassSettings(ClassStore store, AccessService access, EventStore events) {
        this.store = store;
        this.access = access;
        this.events = events;
    }

    public <E extends Enum<E>> E get(long classId, Setting<E> setting) {
        return store.choice(classId, setting.column())
                .map(name -> Enum.valueOf(setting.choices(), name))
                .orElse(setting.otherwise());
    }

    /** @param seen what whoever changes it saw, so that nobody writes over a colleague's choice */
    @Transactional
    public <E extends Enum<E>> void change(Viewer viewer, long classId, Setting<E> setting, E to, E seen) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (!store.choose(classId, setting.column(), to.name(), seen.name()))
            throw Problem.stale("rule-changed", "Somebody else has just changed this. Here it is as it stands now.");
        events.add(classId, "rules-changed", classId, viewer.personId());
    }
}
