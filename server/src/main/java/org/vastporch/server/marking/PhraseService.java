package org.vastporch.server.marking;

import java.time.Clock;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Phrases;
import org.vastporch.server.http.Problem;

/** What the viewer has written before when marking; nobody else's. */
@Service
public class PhraseService {

    public record PhraseView(long id, String text) {}

    private static final int OFFERED = 60;

    private final PhraseStore store;
    private final Clock clock;

    PhraseService(PhraseStore store, Clock clock) {
        this.store = store;
        this.clock = clock;
    }

    /**
     * What could be said about a criterion.
     *
     * @param criterion its name; empty for the whole
     * @param level the name of the level that is given; empty for none
     */
    public List<PhraseView> offered(Viewer viewer, String criterion, String level) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        String about = Phrases.about(criterion);
        return Phrases.offered(store.of(viewer.personId(), about), about, level, OFFERED).stream()
                .map(p -> new PhraseView(p.id(), p.text()))
                .toList();
    }

    @Transactional
    public void forget(Viewer viewer, long id) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        if (!store.forget(viewer.personId(), id)) throw Problem.missing();
    }

    /** Learns what a marker has written; whoever calls has seen to the right to mark. */
    @Transactional
    void learn(Viewer marker, String criterion, String level, String text) {
        if (Phrases.isKept(text))
            store.use(marker.personId(), Phrases.about(criterion), level, text.strip(), Phrases.MOST, clock.instant());
    }
}
