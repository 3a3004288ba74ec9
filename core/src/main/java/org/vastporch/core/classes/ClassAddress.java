package org.vastporch.core.classes;

import java.util.Arrays;
import java.util.Set;
import java.util.function.Predicate;
import org.vastporch.core.Refusal;
import org.vastporch.core.blogs.Addresses;

/** The short name by which a class stands in the address of its front page, right behind the school's. */
public final class ClassAddress {

    /** What stands there already, as alternatives of a pattern: no class is called so. */
    public static final String TAKEN =
            "api|feeds|media|assets|classes|posts|account|school|news|subscriptions|stop|email"
                    + "|sign-in|first-password|join|invitation|index-html|porch-svg|robots-txt|actuator|error";

    private static final Set<String> NAMES = Set.copyOf(Arrays.asList(TAKEN.split("\\|")));

    private ClassAddress() {}

    /**
     * An address for a new class, with a number if it is taken or was ever another's.
     *
     * @param isGiven tells whether an address belongs, or once belonged, to another class
     */
    public static String make(String name, Predicate<String> isGiven) {
        String tidy = Addresses.tidy(name);
        return Addresses.make(tidy.isEmpty() ? "class" : tidy, a -> NAMES.contains(a) || isGiven.test(a));
    }

    /**
     * The address that somebody wishes for, made fit to stand there.
     *
     * @throws Refusal if nothing of it is left, or if it is taken
     */
    public static String wished(String typed, Predicate<String> isGiven) {
        String tidy = Addresses.tidy(typed);
        if (tidy.isEmpty())
            throw new Refusal("address", "address-empty", "Write a short name with letters, such as plot-to-plate");
        if (NAMES.contains(tidy) || isGiven.test(tidy))
            throw new Refusal("address", "address-taken", "Another page has, or had, this address");
        return tidy;
    }
}
