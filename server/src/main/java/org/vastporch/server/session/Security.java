package org.vastporch.server.session;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.csrf.CsrfFilter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.vastporch.server.media.VideoPages;

/**
 * The outer wall: session cookie, CSRF header, content security policy. What a signed-in person may do is not decided
 * here but by the access engine, which every service asks.
 */
@Configuration
class Security {

    /**
     * Styles may stand in the page (the component kit sets sizes so); scripts may not, and nothing comes from
     * elsewhere.
     */
    private static final String POLICY = String.join(
            "; ",
            List.of(
                    "default-src 'self'",
                    "script-src 'self'",
                    "style-src 'self' 'unsafe-inline'",
                    "img-src 'self' data: blob:",
                    "font-src 'self'",
                    "connect-src 'self'",
                    "media-src 'self' blob:",
                    "object-src 'none'",
                    "base-uri 'none'",
                    "form-action 'self'",
                    "frame-ancestors 'none'"));

    @Bean
    SecurityFilterChain chain(HttpSecurity http, SessionFilter sessions, UploadGate uploads, VideoPages videos)
            throws Exception {
        return http.csrf(csrf -> csrf.spa())
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .httpBasic(AbstractHttpConfigurer::disable)
                .formLogin(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                .requestCache(AbstractHttpConfigurer::disable)
                .anonymous(AbstractHttpConfigurer::disable)
                // Looking for the token of a form would read what a stranger sends: who it is, and whether it may come
                // in, is asked before.
                .addFilterBefore(sessions, CsrfFilter.class)
                .addFilterAfter(uploads, SessionFilter.class)
                .headers(h -> h.contentSecurityPolicy(c -> c.policyDirectives(policy(videos.origins())))
                        .referrerPolicy(r -> r.policy(ReferrerPolicy.SAME_ORIGIN))
                        .cacheControl(c -> c.disable()))
                .exceptionHandling(e -> e.accessDeniedHandler((request, response, denied) -> forbid(response)))
                .build();
    }

    /** Frames hold nothing but the players of the video pages that the school has chosen. */
    private static String policy(List<String> players) {
        return POLICY + "; frame-src " + (players.isEmpty() ? "'none'" : String.join(" ", players));
    }

    @Bean
    PasswordEncoder passwords() {
        return new BCryptPasswordEncoder(10);
    }

    private static void forbid(HttpServletResponse response) throws IOException {
        refuse(
                response,
                HttpServletResponse.SC_FORBIDDEN,
                "csrf",
                "This page was open for too long. Please load it again; what you typed is kept.");
    }

    /** Refuses in the form of all problems, before anything of the request is read. */
    static void refuse(HttpServletResponse response, int status, String code, String sentence) throws IOException {
        response.setStatus(status);
        response.setContentType("application/problem+json;charset=UTF-8");
        response.getWriter()
                .write("{\"status\":" + status + ",\"code\":\"" + code + "\",\"detail\":\"" + sentence + "\"}");
    }
}
