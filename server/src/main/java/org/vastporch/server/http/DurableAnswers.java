package org.vastporch.server.http;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.ContentCachingResponseWrapper;
import org.vastporch.server.rows.Durability;

/** Holds back the answer to every request that may have written until it is on the disk. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class DurableAnswers extends OncePerRequestFilter {

    private static final Set<String> READING = Set.of("GET", "HEAD", "OPTIONS", "TRACE");

    private final Durability durability;

    DurableAnswers(Durability durability) {
        this.durability = durability;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (READING.contains(request.getMethod())) {
            chain.doFilter(request, response);
            return;
        }
        ContentCachingResponseWrapper held = new ContentCachingResponseWrapper(response);
        chain.doFilter(request, held);
        if (held.getStatus() < 400) durability.sync();
        held.copyBodyToResponse();
    }
}
