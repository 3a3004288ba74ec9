package org.vastporch.server.frontpage;

import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.classes.ClassAddress;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.frontpage.FrontPageStore.Front;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.people.PeopleService;

/** What staff set about the front page of their class, and the keeper about all of them. */
@Service
class FrontPageService {

    /**
     * The front page of a class as its staff see it.
     *
     * @param whole the address as people type it
     * @param open whether strangers may come in, which is one of the rules of the class
     * @param schoolFindable whether the keeper lets search engines find any
     * @param peoplePages whether all that one person wrote for anyone has a page of its own
     */
    record FrontPage(
            String address,
            String whole,
            boolean open,
            boolean findable,
            boolean schoolFindable,
            boolean peoplePages,
            int version) {}

    record FrontPageWish(String address, boolean findable, boolean peoplePages, int version) {}

    private final FrontPageStore store;
    private final AccessService access;
    private final PeopleService people;
    private final SchoolAddress school;
    private final EventStore events;

    FrontPageService(
            FrontPageStore store, AccessService access, PeopleService people, SchoolAddress school, EventStore events) {
        this.store = store;
        this.access = access;
        this.people = people;
        this.school = school;
        this.events = events;
    }

    FrontPage get(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        Front front = store.of(classId).orElseThrow(Problem::missing);
        return new FrontPage(
                front.address(),
                school.base() + "/" + front.address(),
                front.open(),
                front.findable(),
                store.isSchoolFindable(),
                front.peoplePages(),
                front.version());
    }

    @Transactional
    public FrontPage change(Viewer viewer, long classId, FrontPageWish wish) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        String address = ClassAddress.wished(wish.address(), a -> store.isGiven(a, classId));
        try {
            if (!store.change(classId, address, wish.findable(), wish.peoplePages(), wish.version()))
                throw Problem.stale(
                        "class-changed",
                        "Somebody else changed this class meanwhile. Load the page again to see how it is now.");
        } catch (DuplicateKeyException takenMeanwhile) {
            throw Problem.invalid("address", "address-taken", "Another page has, or had, this address.");
        }
        events.add(classId, "class-changed", classId, viewer.personId());
        return get(viewer, classId);
    }

    boolean isSchoolFindable(Viewer viewer) {
        people.requireKeeper(viewer);
        return store.isSchoolFindable();
    }

    @Transactional
    public void setSchoolFindable(Viewer viewer, boolean findable) {
        people.requireKeeper(viewer);
        store.setSchoolFindable(findable);
    }
}
