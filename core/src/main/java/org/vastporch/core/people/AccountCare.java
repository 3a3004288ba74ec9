package org.vastporch.core.people;

import java.util.List;
import java.util.Set;
import org.vastporch.core.access.Role;

/**
 * Who looks after an account: gives new pass phrases and changes name, number and address. With a new pass phrase one
 * signs in as the person, and a changed address leads mail elsewhere; so nobody gets that for an account that has a
 * place outside their own classes.
 */
public final class AccountCare {

    private AccountCare() {}

    /** A place that lasts. */
    public record Place(long classId, Role role) {}

    /**
     * Tells whether staff look after an account; else the school keeper does.
     *
     * @param managed the classes that the asking person manages now
     * @param keepsOrTeaches whether the account is that of a keeper or teacher of the school
     * @param places all places that the account has now
     */
    public static boolean isWith(Set<Long> managed, boolean keepsOrTeaches, List<Place> places) {
        return !keepsOrTeaches
                && !places.isEmpty()
                && places.stream()
                        .allMatch(p ->
                                (p.role() == Role.STUDENT || p.role() == Role.GUEST) && managed.contains(p.classId()));
    }

    /**
     * Tells whether somebody works for the school; such people come into a class by invitation, never by a list of
     * students.
     */
    public static boolean worksHere(boolean keepsOrTeaches, List<Place> places) {
        return keepsOrTeaches
                || places.stream().anyMatch(p -> p.role().approves() || p.role().readsAsStaff());
    }
}
