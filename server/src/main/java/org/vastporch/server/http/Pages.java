package org.vastporch.server.http;

import java.time.Duration;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Serves the front end: hashed files for ever, and the one page for every address that people can see. */
@Configuration
class Pages implements WebMvcConfigurer {

    private static final String[] PLACES = {
        "",
        "/sign-in",
        "/first-password",
        "/join",
        "/invitation",
        "/account/**",
        "/school/**",
        "/classes/**",
        "/posts/**",
        "/news",
        "/subscriptions",
        "/stop",
        "/email"
    };

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/assets/**")
                .addResourceLocations("classpath:/static/assets/")
                .setCacheControl(
                        CacheControl.maxAge(Duration.ofDays(365)).cachePublic().immutable());
        registry.addResourceHandler("/index.html", "/porch.svg")
                .addResourceLocations("classpath:/static/")
                .setCacheControl(CacheControl.noCache());
    }

    @Override
    public void addViewControllers(ViewControllerRegistry registry) {
        for (String place : PLACES)
            registry.addViewController(place.isEmpty() ? "/" : place).setViewName("forward:/index.html");
    }
}
