package org.vastporch.server.mail;

import java.net.URI;
import java.net.URISyntaxException;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;

/**
 * The address by which people reach this school. Links in mails, slips and feeds begin with it; never with what a
 * request says of where it went, which whoever sends it can choose.
 */
@Component
public class SchoolAddress {

    private final Environment settings;
    private final SchoolAddressStore store;
    private final ClassChanges changes;

    SchoolAddress(Environment settings, SchoolAddressStore store, ClassChanges changes) {
        this.settings = settings;
        this.store = store;
        this.changes = changes;
    }

    /** As it was configured, else as the keeper confirmed it, else on this machine; without a slash at its end. */
    public String base() {
        String set = configured();
        if (!set.isEmpty()) return set;
        return store.find().orElse("http://localhost:" + settings.getProperty("local.server.port", "8080"));
    }

    /** Whether it was configured or confirmed. */
    public boolean isSure() {
        return isConfigured() || store.find().isPresent();
    }

    public boolean isConfigured() {
        return !configured().isEmpty();
    }

    private String configured() {
        return settings.getProperty("vastporch.address", "").strip().replaceFirst("/+$", "");
    }

    /**
     * Keeps the address that the keeper confirms.
     *
     * @throws Problem if it is none, or if one is configured
     */
    public void confirm(String typed) {
        if (isConfigured())
            throw Problem.stale(
                    "address-configured", "The address is set where the school is started, and is changed there.");
        store.put(checked(typed.strip().replaceFirst("/+$", "")));
        // It stands in the feeds of every class.
        changes.noteEverywhere();
    }

    private static String checked(String address) {
        try {
            URI uri = new URI(address);
            boolean fits = ("http".equals(uri.getScheme()) || "https".equals(uri.getScheme()))
                    && uri.getHost() != null
                    && uri.getUserInfo() == null
                    && (uri.getPath() == null || uri.getPath().isEmpty())
                    && uri.getQuery() == null
                    && uri.getFragment() == null
                    && address.length() <= 200;
            if (fits) return address;
        } catch (URISyntaxException e) {
            // Said below.
        }
        throw Problem.invalid(
                "address",
                "address-wrong",
                "Write the address as people type it, such as https://porch.school.example, with nothing after it.");
    }
}
