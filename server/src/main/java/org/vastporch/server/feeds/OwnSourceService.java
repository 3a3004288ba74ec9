package org.vastporch.server.feeds;

import java.time.Clock;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.OwnSources;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassSettings;
import org.vastporch.server.classes.ClassSettings.Setting;
import org.vastporch.server.feeds.SourceService.WantedSource;
import org.vastporch.server.feeds.SourceStore.Source;
import org.vastporch.server.http.Allowance;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;

/** Outside blogs that students register themselves, where their class lets them. */
@Service
class OwnSourceService {

    private static final Setting<OwnSources> RULE =
            new Setting<>("own_sources", OwnSources.class, OwnSources.STAFF_ONLY);
    private static final int LOOKS = 20;

    private final SourceStore store;
    private final SourceService sources;
    private final SourceFinder finder;
    private final ClassSettings settings;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;
    private final Allowance looks = new Allowance(LOOKS);

    OwnSourceService(
            SourceStore store,
            SourceService sources,
            SourceFinder finder,
            ClassSettings settings,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.sources = sources;
        this.finder = finder;
        this.settings = settings;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** What the class says, for everybody who reads there. */
    OwnSources rule(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        return settings.get(classId, RULE);
    }

    /** @param seen the rule that whoever changes it saw */
    void setRule(Viewer viewer, long classId, OwnSources rule, OwnSources seen) {
        settings.change(viewer, classId, RULE, rule, seen);
    }

    /** What stands behind an address, for a student who may register it. */
    SourceFinder.Found look(Viewer viewer, long classId, String address) {
        requireRegistering(viewer, classId);
        if (!looks.take(String.valueOf(viewer.personId())))
            throw Problem.tooMany("You have looked at very many addresses. Please try again in an hour.");
        return finder.look(address, clock.instant());
    }

    /**
     * Registers a blog of the viewer's own. Where the class asks its staff first, nothing comes in before they agree.
     */
    long add(Viewer viewer, long classId, WantedSource wanted) {
        requireRegistering(viewer, classId);
        if (!looks.take(String.valueOf(viewer.personId())))
            throw Problem.tooMany("You have looked at very many addresses. Please try again in an hour.");
        WantedSource own = new WantedSource(
                wanted.feedAddress(),
                wanted.siteAddress(),
                wanted.title(),
                wanted.description(),
                viewer.personId(),
                wanted.from(),
                wanted.without(),
                false);
        return sources.gather(
                viewer,
                classId,
                own,
                () -> requireRegistering(access.viewer(viewer.personId()), classId) == OwnSources.ASKED);
    }

    /** Takes back what still waits for a yes. */
    @Transactional
    public void takeBack(Viewer viewer, long sourceId) {
        Source source = store.lock(sourceId).orElseThrow(Problem::missing);
        access.require(viewer, Act.READ_CLASS, source.classId());
        Problem.unlessAllowed(AccessEngine.own(viewer));
        if (source.personId() == null || source.personId() != viewer.personId()) throw Problem.missing();
        if (!source.asked())
            throw Problem.stale("source-added", "It is gathered in the class now. Ask a teacher to take it out.");
        store.remove(sourceId, clock.instant());
        events.add(source.classId(), "source-removed", sourceId, viewer.personId());
    }

    private OwnSources requireRegistering(Viewer viewer, long classId) {
        OwnSources rule = settings.get(classId, RULE);
        Problem.unlessAllowed(AccessEngine.registerSource(viewer, classId, rule.letStudents(), clock.instant()));
        return rule;
    }
}
