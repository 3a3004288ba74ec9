package org.vastporch.core.subscriptions;

/** Whether a class writes to its members about new posts before they ask for it. */
public enum MailByDefault {
    /** Who wants mail subscribes. */
    OFF,
    /** Each member is asked once, and nothing is sent before the answer. */
    OFFERED,
    /** Each member who has an address gets mail until they switch it off. */
    ON;

    /** How often a class writes that does so without being asked. */
    public static final Cadence CADENCE = Cadence.DAILY;
}
