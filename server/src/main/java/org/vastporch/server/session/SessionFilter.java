package org.vastporch.server.session;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.vastporch.core.access.Viewer;

/** Finds out who is asking, by the session cookie. Sessions are rows, so a restart signs nobody out. */
@Component
class SessionFilter extends OncePerRequestFilter {

    static final String COOKIE = "porch_session";

    private final SessionService sessions;

    SessionFilter(SessionService sessions) {
        this.sessions = sessions;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        request.setAttribute(Viewer.class.getName(), sessions.viewerOf(tokenOf(request)));
        chain.doFilter(request, response);
    }

    static String tokenOf(HttpServletRequest request) {
        return cookie(request, COOKIE);
    }

    /** The value of a cookie; empty for none, and for one that is longer than any of ours. */
    static String cookie(HttpServletRequest request, String name) {
        if (request.getCookies() == null) return "";
        for (Cookie cookie : request.getCookies())
            if (cookie.getName().equals(name)) return cookie.getValue().length() > 100 ? "" : cookie.getValue();
        return "";
    }

    /** The security chain calls the filter; the container must not do so a second time. */
    @Component
    static class NotTwice {
        @Bean
        FilterRegistrationBean<SessionFilter> sessionFilterRegistration(SessionFilter filter) {
            FilterRegistrationBean<SessionFilter> registration = new FilterRegistrationBean<>(filter);
            registration.setEnabled(false);
            return registration;
        }
    }
}
