package org.vastporch.standins;

/** What can be wrong with an outside blog. */
public enum Trouble {
    NONE("All is well"),
    SLOW("It answers after eight seconds"),
    DRIPPING("It sends its feed one sign at a time, and is never done"),
    BROKEN("Its feed ends in its middle"),
    UNTIDY("Its feed is badly made"),
    BEGINNINGS("Its feed carries only the beginnings"),
    BEGINNINGS_OF_LOST_PAGES("Its feed carries only the beginnings, and its pages are not to be had"),
    PAGE("Where its feed was stands a page"),
    LYING("It says that its feed is a picture"),
    HUGE("Its feed has nine megabytes"),
    MOVED("It says to have moved for good"),
    MISSING("Its feed is not found (404)"),
    GONE("It says to be gone for good (410)"),
    PRIVATE("It asks one to sign in");

    private final String words;

    Trouble(String words) {
        this.words = words;
    }

    String words() {
        return words;
    }
}
