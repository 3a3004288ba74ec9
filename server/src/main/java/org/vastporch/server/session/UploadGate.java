package org.vastporch.server.session;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.vastporch.core.access.Viewer;

/** Lets few files come in at once, and fewer of one person, before a byte of them is read. Strangers send none. */
@Component
class UploadGate extends OncePerRequestFilter {

    private static final int AT_ONCE = 16;
    private static final int OF_ONE_PERSON = 3;
    private static final int COME_BACK = 3;

    private final Semaphore all = new Semaphore(AT_ONCE);
    private final Map<Long, Integer> byPerson = new ConcurrentHashMap<>();

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        String type = request.getContentType();
        return type == null || !type.toLowerCase().startsWith("multipart/");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!(request.getAttribute(Viewer.class.getName()) instanceof Viewer viewer) || viewer.isStranger()) {
            Security.refuse(response, 401, "sign-in-first", "Please sign in first.");
            return;
        }
        if (!enter(viewer.personId())) {
            response.setHeader("Retry-After", String.valueOf(COME_BACK));
            Security.refuse(
                    response,
                    429,
                    "too-many-tries",
                    "Many files are coming in at this moment. Please try again in a few seconds.");
            return;
        }
        try {
            chain.doFilter(request, response);
        } finally {
            byPerson.computeIfPresent(viewer.personId(), (id, n) -> n > 1 ? n - 1 : null);
            all.release();
        }
    }

    private boolean enter(long person) {
        if (!all.tryAcquire()) return false;
        if (byPerson.merge(person, 1, Integer::sum) <= OF_ONE_PERSON) return true;
        byPerson.computeIfPresent(person, (id, n) -> n - 1);
        all.release();
        return false;
    }

    /** The security chain calls the filter; the container must not do so a second time. */
    @Component
    static class NotTwice {
        @Bean
        FilterRegistrationBean<UploadGate> uploadGateRegistration(UploadGate gate) {
            FilterRegistrationBean<UploadGate> registration = new FilterRegistrationBean<>(gate);
            registration.setEnabled(false);
            return registration;
        }
    }
}
