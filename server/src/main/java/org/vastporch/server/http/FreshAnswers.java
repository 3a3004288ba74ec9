package org.vastporch.server.http;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** What the API answers is for one person at one moment: no browser and nothing on the way keeps it. */
@Component
class FreshAnswers extends OncePerRequestFilter {

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (request.getRequestURI().startsWith("/api/"))
            response.setHeader(HttpHeaders.CACHE_CONTROL, "private, no-store");
        chain.doFilter(request, response);
    }
}
