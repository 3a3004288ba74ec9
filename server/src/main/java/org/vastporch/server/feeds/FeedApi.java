package org.vastporch.server.feeds;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.ServletWebRequest;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.feeds.FeedService.Ready;

/**
 * Feeds out: those of a class and of whatever the Porch can be narrowed to, and those of its comments; at public
 * addresses as a stranger may read them, at a secret one as its reader may.
 */
@RestController
class FeedApi {

    record FeedAddress(String path) {}

    private final FeedService feeds;
    private final DueCalendarService calendar;
    private final FeedKeyService keys;
    private final AccessService access;

    FeedApi(FeedService feeds, DueCalendarService calendar, FeedKeyService keys, AccessService access) {
        this.feeds = feeds;
        this.calendar = calendar;
        this.keys = keys;
        this.access = access;
    }

    /** The public feed of a class: what a stranger may read, whoever asks. */
    @GetMapping("/feeds/classes/{id}.{format:rss|atom|json}")
    ResponseEntity<byte[]> ofClass(
            @PathVariable long id,
            @PathVariable String format,
            @ParameterObject @ModelAttribute FeedFilter filter,
            HttpServletRequest request) {
        return answer(
                request,
                feeds.make(
                        address(request),
                        id,
                        format,
                        () -> feeds.posts(Viewer.STRANGER, null, id, filter, request.getRequestURI(), query(request))));
    }

    /** The public feed of a blog: what a stranger may read, whoever asks. */
    @GetMapping("/feeds/blogs/{id}.{format:rss|atom|json}")
    ResponseEntity<byte[]> ofBlog(@PathVariable long id, @PathVariable String format, HttpServletRequest request) {
        long classId = access.blog(id).classId();
        return answer(
                request,
                feeds.make(
                        address(request),
                        classId,
                        format,
                        () -> feeds.posts(
                                Viewer.STRANGER,
                                null,
                                classId,
                                FeedFilter.ofBlog(id),
                                request.getRequestURI(),
                                query(request))));
    }

    /** Public comments: of a class, of one blog of it, or on one post. */
    @GetMapping("/feeds/classes/{id}/comments.{format:rss|atom|json}")
    ResponseEntity<byte[]> commentsOfClass(
            @PathVariable long id,
            @PathVariable String format,
            @RequestParam(required = false) @Nullable Long blog,
            @RequestParam(required = false) @Nullable Long post,
            HttpServletRequest request) {
        return answer(
                request,
                feeds.make(
                        address(request),
                        id,
                        format,
                        () -> feeds.comments(
                                Viewer.STRANGER, null, id, blog, post, request.getRequestURI(), query(request))));
    }

    /** A reader's own feed at a secret address: just what this reader may read at this moment. */
    @GetMapping("/feeds/mine/{token}.{format:rss|atom|json}")
    ResponseEntity<byte[]> ofReader(
            @PathVariable String token,
            @PathVariable String format,
            @ParameterObject @ModelAttribute FeedFilter filter,
            HttpServletRequest request) {
        return secret(
                request,
                token,
                format,
                reader -> feeds.posts(
                        reader.viewer(),
                        reader.key(),
                        reader.classId(),
                        filter,
                        request.getRequestURI(),
                        query(request)));
    }

    /** One blog as a reader of its class may read it, at that reader's secret address. */
    @GetMapping("/feeds/mine/{token}/blogs/{id}.{format:rss|atom|json}")
    ResponseEntity<byte[]> blogOfReader(
            @PathVariable String token,
            @PathVariable long id,
            @PathVariable String format,
            HttpServletRequest request) {
        return secret(
                request,
                token,
                format,
                reader -> feeds.posts(
                        reader.viewer(),
                        reader.key(),
                        reader.classId(),
                        FeedFilter.ofBlog(id),
                        request.getRequestURI(),
                        query(request)));
    }

    /** Comments as a reader may read them, at that reader's secret address. */
    @GetMapping("/feeds/mine/{token}/comments.{format:rss|atom|json}")
    ResponseEntity<byte[]> commentsOfReader(
            @PathVariable String token,
            @PathVariable String format,
            @RequestParam(required = false) @Nullable Long blog,
            @RequestParam(required = false) @Nullable Long post,
            HttpServletRequest request) {
        return secret(
                request,
                token,
                format,
                reader -> feeds.comments(
                        reader.viewer(),
                        reader.key(),
                        reader.classId(),
                        blog,
                        post,
                        request.getRequestURI(),
                        query(request)));
    }

    /** What is due for a reader of a class, as a calendar, at that reader's secret address. */
    @GetMapping(value = "/feeds/mine/{token}.ics", produces = "text/calendar")
    ResponseEntity<byte[]> due(@PathVariable String token) {
        FeedKeyService.Reader reader = keys.reader(token);
        byte[] text = calendar.text(reader.viewer(), reader.classId()).getBytes(StandardCharsets.UTF_8);
        keys.used(token);
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "calendar", StandardCharsets.UTF_8))
                .cacheControl(CacheControl.noCache().cachePrivate())
                .body(text);
    }

    /**
     * A picture or file that stands in a secret feed, at an address that is signed for its reader and this file. It is
     * asked again whether that reader may have it.
     */
    @GetMapping({"/feeds/files/{key}/{signature}/{id}", "/feeds/files/{key}/{signature}/files/{id}/{name}"})
    void file(
            @PathVariable long key,
            @PathVariable String signature,
            @PathVariable String id,
            @PathVariable(required = false) @Nullable String name,
            HttpServletRequest request,
            HttpServletResponse response)
            throws ServletException, IOException {
        String file = name == null ? id : "files/" + id;
        FeedKeyService.Reader reader = keys.readerOfFile(key, signature, file);
        request.setAttribute(Viewer.class.getName(), reader.viewer());
        request.getRequestDispatcher("/media/" + file).forward(request, response);
    }

    private interface Made {
        FeedDocument of(FeedKeyService.Reader reader);
    }

    private ResponseEntity<byte[]> secret(HttpServletRequest request, String token, String format, Made made) {
        FeedKeyService.Reader reader = keys.reader(token);
        ResponseEntity<byte[]> answer =
                answer(request, feeds.make(address(request), reader.classId(), format, () -> made.of(reader)));
        keys.used(token);
        return answer;
    }

    /** A feed for who asks, or that it is as it was. */
    static ResponseEntity<byte[]> answer(HttpServletRequest request, Ready feed) {
        // Kept nowhere on the way: each time it is asked again, which is cheap.
        CacheControl cache = request.getRequestURI().startsWith("/feeds/mine/")
                ? CacheControl.noCache().cachePrivate()
                : CacheControl.noCache().cachePublic();
        ServletWebRequest asked = new ServletWebRequest(request);
        if (asked.checkNotModified(feed.etag(), feed.updated().toEpochMilli()))
            return ResponseEntity.status(304)
                    .cacheControl(cache)
                    .eTag(feed.etag())
                    .build();
        return ResponseEntity.ok()
                .contentType(feed.type())
                .cacheControl(cache)
                .eTag(feed.etag())
                .lastModified(feed.updated())
                .body(feed.body());
    }

    /** What a feed is asked for by. */
    static String address(HttpServletRequest request) {
        return request.getRequestURI() + "?" + query(request);
    }

    private static String query(HttpServletRequest request) {
        return request.getQueryString() == null ? "" : request.getQueryString();
    }

    /** The viewer's secret feed address in a class, made at the first asking. */
    @PostMapping("/api/classes/{id}/feed-key")
    FeedAddress feedKey(Viewer viewer, @PathVariable long id) {
        return addressOf(keys.of(viewer, id));
    }

    /** A new one; the one before works no more. */
    @PutMapping("/api/classes/{id}/feed-key")
    FeedAddress renew(Viewer viewer, @PathVariable long id) {
        return addressOf(keys.renew(viewer, id));
    }

    private static FeedAddress addressOf(String token) {
        return new FeedAddress("/feeds/mine/" + token + ".rss");
    }

    @DeleteMapping("/api/classes/{id}/feed-key")
    void revoke(Viewer viewer, @PathVariable long id) {
        keys.revoke(viewer, id);
    }

    /** Who reads the class by a feed address, for its staff. */
    @GetMapping("/api/classes/{id}/feed-readers")
    List<FeedKeyService.FeedReader> readers(Viewer viewer, @PathVariable long id) {
        return keys.ofClass(viewer, id);
    }

    @DeleteMapping("/api/classes/{id}/feed-readers/{person}")
    void revoke(Viewer viewer, @PathVariable long id, @PathVariable long person) {
        keys.revoke(viewer, id, person);
    }
}
