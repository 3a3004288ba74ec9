package org.vastporch.server.feeds;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Map;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.vastporch.server.feeds.FeedService.Ready;

/**
 * Answers with a feed that is kept before anything is read of what its address asks for, which takes longer than the
 * answer. Feed readers ask every few minutes, and nearly always nothing has changed.
 */
@Component
class KeptFeeds implements HandlerInterceptor, WebMvcConfigurer {

    private final FeedService feeds;
    private final FeedKeyService keys;

    KeptFeeds(FeedService feeds, FeedKeyService keys) {
        this.feeds = feeds;
        this.keys = keys;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/feeds/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler)
            throws IOException {
        Ready ready = feeds.ready(FeedApi.address(request));
        if (ready == null) return true;
        ResponseEntity<byte[]> answer = FeedApi.answer(request, ready);
        response.setStatus(answer.getStatusCode().value());
        answer.getHeaders().forEach((name, values) -> values.forEach(value -> response.addHeader(name, value)));
        if (answer.getBody() != null) response.getOutputStream().write(answer.getBody());
        if (request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE) instanceof Map<?, ?> path
                && path.get("token") instanceof String token) keys.used(token);
        return false;
    }
}
