package org.vastporch.server.session;

import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.vastporch.server.people.PeopleService;

/**
 * Says where to go when the school opens: to the keeper's one-time address as long as there is no keeper with a
 * password.
 */
@Component
class Opening {

    private final PeopleService people;
    private final SessionService sessions;
    private final String address;
    private final boolean quiet;

    Opening(
            PeopleService people,
            SessionService sessions,
            @Value("${vastporch.address:}") String address,
            @Value("${vastporch.quiet:false}") boolean quiet) {
        this.people = people;
        this.sessions = sessions;
        this.address = address;
        this.quiet = quiet;
    }

    @EventListener
    void on(ApplicationReadyEvent event) {
        if (quiet) return;
        int port = event.getApplicationContext() instanceof ServletWebServerApplicationContext web
                ? web.getWebServer().getPort()
                : 8080;
        String at = address.isBlank() ? "http://localhost:" + port : address;
        String line = people.keeperWithoutPassword()
                .map(keeper -> "Vast Porch is open at " + at + ". The school keeper sets a password at " + at
                        + "/first-password?t=" + sessions.oneTime(keeper) + " and then signs in as keeper.")
                .orElse("Vast Porch is open at " + at);
        System.out.println(line);
    }
}
