package org.vastporch.server.subscriptions;

import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.core.subscriptions.MailByDefault;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.classes.ClassSettings;
import org.vastporch.server.classes.ClassSettings.Setting;
import org.vastporch.server.http.Problem;

/** Whether a class writes to its members about new posts before they ask for it. */
@Service
class ClassMailService {

    private static final Logger log = LoggerFactory.getLogger(ClassMailService.class);

    private static final Setting<MailByDefault> RULE =
            new Setting<>("mail_by_default", MailByDefault.class, MailByDefault.OFF);

    /** A class that asks whether one wants mail. */
    record MailOffer(long classId, String className) {}

    private final ClassMailStore store;
    private final SubscriptionService subscriptions;
    private final ClassService classes;
    private final AccessService access;
    private final ClassSettings settings;
    private final TransactionTemplate transaction;

    ClassMailService(
            ClassMailStore store,
            SubscriptionService subscriptions,
            ClassService classes,
            AccessService access,
            ClassSettings settings,
            TransactionTemplate transaction) {
        this.store = store;
        this.subscriptions = subscriptions;
        this.classes = classes;
        this.access = access;
        this.settings = settings;
        this.transaction = transaction;
    }

    MailByDefault rule(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return settings.get(classId, RULE);
    }

    /**
     * What came of the rule alone ends with it; what a person wished stays.
     *
     * @param seen the rule that whoever changes it saw
     */
    @Transactional
    public void setRule(Viewer viewer, long classId, MailByDefault rule, MailByDefault seen) {
        settings.change(viewer, classId, RULE, rule, seen);
        if (rule != MailByDefault.ON) store.removeByClass(classId);
    }

    /** The classes that ask the viewer, until there is an answer. */
    List<MailOffer> offers(Viewer viewer) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        return store.offering(viewer.personId()).stream()
                .map(id -> new MailOffer(id, classes.get(id).name()))
                .toList();
    }

    /** The answer to an offer; never is one too, and it is not asked again. */
    @Transactional
    public void answer(Viewer viewer, long classId, Cadence posts) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        store.lockPerson(viewer.personId());
        if (!store.offering(viewer.personId()).contains(classId)) throw Problem.missing();
        long id = subscribe(viewer, classId, posts);
        if (posts == Cadence.NEVER) subscriptions.end(viewer, id);
    }

    private long subscribe(Viewer viewer, long classId, Cadence posts) {
        long id = subscriptions
                .add(viewer, new SubscriptionService.Wanted(classId, SubscriptionStore.Kind.CLASS.name(), null, null))
                .id();
        subscriptions.setCadence(viewer, id, posts, Cadence.NEVER);
        return id;
    }

    /** Subscribes those whom their class writes to without being asked; what was published before is not told. */
    void subscribeTheUndecided() {
        for (ClassMailStore.Undecided undecided : store.undecided()) {
            try {
                transaction.executeWithoutResult(status -> subscribe(undecided));
            } catch (RuntimeException e) {
                log.warn("{} could not be subscribed to their class; it is tried again", undecided.personId(), e);
            }
        }
    }

    private void subscribe(ClassMailStore.Undecided undecided) {
        store.lockPerson(undecided.personId());
        // The rule or the person may have changed their mind meanwhile.
        if (store.isUndecided(undecided))
            store.setByClass(
                    subscribe(access.viewer(undecided.personId()), undecided.classId(), MailByDefault.CADENCE));
    }
}
