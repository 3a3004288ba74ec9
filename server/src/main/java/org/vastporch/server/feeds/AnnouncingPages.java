package org.vastporch.server.feeds;

import io.swagger.v3.oas.annotations.Hidden;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.function.Supplier;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.util.HtmlUtils;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.reading.ReadingService;

/**
 * The pages of classes, blogs and posts that anyone may read say so in their heads: what they are called, what they are
 * about, and which feeds belong to them. A program that looks for feeds reads no scripts. Whoever asks, the head is
 * that of a stranger; where a stranger may read nothing it says nothing.
 */
@RestController
@Hidden
class AnnouncingPages {

    private static final String PAGE = "static/index.html";
    private static final int LONGEST_DESCRIPTION = 200;

    private final ClassService classes;
    private final BlogService blogs;
    private final ReadingService reading;

    AnnouncingPages(ClassService classes, BlogService blogs, ReadingService reading) {
        this.classes = classes;
        this.blogs = blogs;
        this.reading = reading;
    }

    @GetMapping(path = "/classes/{id:\\d+}/porch", produces = MediaType.TEXT_HTML_VALUE)
    ResponseEntity<String> porch(@PathVariable long id) {
        return page(() -> {
            ClassService.ClassRecord of = classes.get(id);
            if (!of.rules().open()) throw Problem.missing();
            return about(of.name(), "")
                    + feeds("/feeds/classes/" + id, "", of.name())
                    + feeds("/feeds/classes/" + id + "/comments", "", "Comments: " + of.name());
        });
    }

    @GetMapping(path = "/classes/{id:\\d+}/blog/{address}", produces = MediaType.TEXT_HTML_VALUE)
    ResponseEntity<String> blog(@PathVariable long id, @PathVariable String address) {
        return page(() -> {
            BlogService.BlogPage blog = blogs.page(Viewer.STRANGER, id, address);
            return about(blog.title(), TextFacts.of(blog.intro()).firstLines(LONGEST_DESCRIPTION))
                    + feeds("/feeds/blogs/" + blog.id(), "", blog.title())
                    + feeds("/feeds/classes/" + id + "/comments", "?blog=" + blog.id(), "Comments: " + blog.title());
        });
    }

    @GetMapping(
            path = {"/posts/{id:\\d+}", "/classes/{classId:\\d+}/posts/{id:\\d+}"},
            produces = MediaType.TEXT_HTML_VALUE)
    ResponseEntity<String> post(@PathVariable long id) {
        return page(() -> {
            ReadingService.PostView post = reading.post(Viewer.STRANGER, id);
            return about(post.title(), TextFacts.of(post.html()).firstLines(LONGEST_DESCRIPTION))
                    + feeds(
                            "/feeds/classes/" + post.classId() + "/comments",
                            "?post=" + id,
                            "Comments: " + post.title());
        });
    }

    private static ResponseEntity<String> page(Supplier<String> head) {
        String said;
        try {
            said = head.get();
        } catch (Problem nothingForStrangers) {
            said = "";
        }
        return ResponseEntity.ok()
                .contentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8))
                .cacheControl(CacheControl.noCache())
                .header("X-Robots-Tag", "noindex, nofollow")
                .body(page().replace("</head>", said + "</head>"));
    }

    private static String page() {
        try {
            return new ClassPathResource(PAGE).getContentAsString(StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw Problem.missing();
        }
    }

    private static String about(String title, String description) {
        return "<meta property=\"og:title\" content=\"" + HtmlUtils.htmlEscape(title) + "\">"
                + (description.isBlank()
                        ? ""
                        : "<meta name=\"description\" content=\"" + HtmlUtils.htmlEscape(description) + "\">");
    }

    private static String feeds(String path, String query, String title) {
        StringBuilder links = new StringBuilder();
        for (String[] format : new String[][] {
            {"rss", "application/rss+xml"}, {"atom", "application/atom+xml"}, {"json", "application/feed+json"}
        })
            links.append("<link rel=\"alternate\" type=\"")
                    .append(format[1])
                    .append("\" title=\"")
                    .append(HtmlUtils.htmlEscape(title))
                    .append("\" href=\"")
                    .append(path)
                    .append('.')
                    .append(format[0])
                    .append(query)
                    .append("\">");
        return links.toString();
    }
}
