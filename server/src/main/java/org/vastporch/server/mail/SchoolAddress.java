package org.vastporch.server.mail;

import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/** The address by which people reach this school, for mail that is written while nobody asks. */
@Component
public class SchoolAddress {

    private final Environment settings;

    SchoolAddress(Environment settings) {
        this.settings = settings;
    }

    /** As it was set, else on this machine; without a slash at its end. */
    public String base() {
        String set = settings.getProperty("vastporch.address", "");
        return set.isBlank() ? "http://localhost:" + settings.getProperty("local.server.port", "8080") : set.replaceFirst("/+$", "");
    }
}
