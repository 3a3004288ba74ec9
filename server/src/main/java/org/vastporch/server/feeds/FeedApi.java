package org.vastporch.server.feeds;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.util.DigestUtils;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.request.ServletWebRequest;
import org.springframework.web.context.request.WebRequest;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.reading.PorchService;

/** Feeds out, secret feed addresses, and outside blogs in. */
@RestController
class FeedApi {

    record Address(String address) {}

    record FeedAddress(String path) {}

    record AddedSource(long id) {}

    /** @param promptId the prompt that the post answers; left out for none */
    record FromElsewhere(String address, @Optionally Long promptId) {}

    /** The draft that was made of a post from elsewhere. */
    record BroughtIn(long postId) {}

    record NewsView(String title, String link, String source, Instant at) {}

    private static final int ENTRIES = 50;

    private final FeedOut out;
    private final FeedKeyService keys;
    private final SourceService sources;
    private final ElsewhereService elsewhere;
    private final PorchService porch;
    private final ClassService classes;
    private final BlogService blogs;
    private final AccessService access;
    private final SchoolAddress school;

    FeedApi(
            FeedOut out,
            FeedKeyService keys,
            SourceService sources,
            ElsewhereService elsewhere,
            PorchService porch,
            ClassService classes,
            BlogService blogs,
            AccessService access,
            SchoolAddress school) {
        this.out = out;
        this.keys = keys;
        this.sources = sources;
        this.elsewhere = elsewhere;
        this.porch = porch;
        this.classes = classes;
        this.blogs = blogs;
        this.access = access;
        this.school = school;
    }

    /** The public feed of a class: what a stranger may read, whoever asks. */
    @GetMapping("/feeds/classes/{id}.{format:rss|atom|json}")
    ResponseEntity<byte[]> ofClass(@PathVariable long id, @PathVariable String format, WebRequest request) {
        ClassService.ClassRecord of = classes.get(id);
        FeedTitle title = of.rules().open()
                ? new FeedTitle(of.name(), "Posts of " + of.name())
                : new FeedTitle("A class on Vast Porch", "This class shows nothing to strangers.");
        return feed(Viewer.STRANGER, id, null, title, format, request);
    }

    /** The public feed of a blog: what a stranger may read, whoever asks. */
    @GetMapping("/feeds/blogs/{id}.{format:rss|atom|json}")
    ResponseEntity<byte[]> ofBlog(@PathVariable long id, @PathVariable String format, WebRequest request) {
        BlogFacts blog = access.blog(id);
        FeedTitle title = access.mayOpenBlog(Viewer.STRANGER, id)
                ? titleOf(Viewer.STRANGER, id)
                : new FeedTitle("A blog on Vast Porch", "This blog shows nothing to strangers.");
        return feed(Viewer.STRANGER, blog.classId(), id, title, format, request);
    }

    /** A reader's own feed at a secret address: just what this reader may read at this moment. */
    @GetMapping("/feeds/mine/{token}.{format:rss|atom|json}")
    ResponseEntity<byte[]> ofReader(@PathVariable String token, @PathVariable String format, WebRequest request) {
        FeedKeyService.Reader reader = keys.reader(token);
        String name = classes.get(reader.classId()).name();
        return feed(reader.viewer(), reader.classId(), null, new FeedTitle(name, "Posts of " + name), format, request);
    }

    /** One blog as a reader of its class may read it, at that reader's secret address. */
    @GetMapping("/feeds/mine/{token}/blogs/{id}.{format:rss|atom|json}")
    ResponseEntity<byte[]> blogOfReader(
            @PathVariable String token, @PathVariable long id, @PathVariable String format, WebRequest request) {
        FeedKeyService.Reader reader = keys.reader(token);
        if (access.requireBlog(reader.viewer(), id).classId() != reader.classId()) throw Problem.missing();
        return feed(reader.viewer(), reader.classId(), id, titleOf(reader.viewer(), id), format, request);
    }

    private record FeedTitle(String title, String says) {}

    private FeedTitle titleOf(Viewer viewer, long blogId) {
        String title = blogs.view(viewer, blogId).title();
        return new FeedTitle(title, "Posts of " + title);
    }

    private ResponseEntity<byte[]> feed(
            Viewer viewer, long classId, @Nullable Long blogId, FeedTitle title, String format, WebRequest request) {
        List<PorchService.FeedEntry> entries = porch.feed(viewer, classId, blogId, ENTRIES);
        String base = school.base();
        String self = base + ((ServletWebRequest) request).getRequest().getRequestURI();
        FeedOut.About about =
                new FeedOut.About(title.title(), title.says(), base, "/classes/" + classId + "/porch", self);
        String text = format.equals("json") ? out.json(about, entries) : out.xml(about, entries, format);
        byte[] body = text.getBytes(StandardCharsets.UTF_8);
        String etag = "\"" + DigestUtils.md5DigestAsHex(body) + "\"";
        long changed = entries.stream()
                .map(PorchService.FeedEntry::changedAt)
                .mapToLong(Instant::toEpochMilli)
                .max()
                .orElse(0);
        if (changed > 0 ? request.checkNotModified(etag, changed) : request.checkNotModified(etag))
            return ResponseEntity.status(304).build();
        MediaType type = MediaType.parseMediaType(
                format.equals("json") ? "application/feed+json" : "application/" + format + "+xml;charset=UTF-8");
        return ResponseEntity.ok()
                .contentType(type)
                .cacheControl(CacheControl.noCache())
                .body(body);
    }

    /** The viewer's secret feed address in a class, made at the first asking. */
    @PostMapping("/api/classes/{id}/feed-key")
    FeedAddress feedKey(Viewer viewer, @PathVariable long id) {
        return new FeedAddress("/feeds/mine/" + keys.of(viewer, id) + ".rss");
    }

    @DeleteMapping("/api/classes/{id}/feed-key")
    void revoke(Viewer viewer, @PathVariable long id) {
        keys.revoke(viewer, id);
    }

    @GetMapping("/api/classes/{id}/news")
    List<NewsView> news(Viewer viewer, @PathVariable long id) {
        return sources.news(viewer, id).stream()
                .map(n -> new NewsView(n.title(), n.link(), n.source(), n.at()))
                .toList();
    }

    @PostMapping("/api/classes/{id}/sources/look")
    SourceFinder.Found look(Viewer viewer, @PathVariable long id, @RequestBody Address body) {
        return sources.look(viewer, id, body.address());
    }

    @PostMapping("/api/blogs/{id}/elsewhere/look")
    ElsewhereService.Elsewhere lookElsewhere(Viewer viewer, @PathVariable long id, @RequestBody Address body) {
        return elsewhere.look(viewer, id, body.address());
    }

    @PostMapping("/api/blogs/{id}/elsewhere")
    BroughtIn bringIn(Viewer viewer, @PathVariable long id, @RequestBody FromElsewhere body) {
        return new BroughtIn(elsewhere.bring(viewer, id, body.promptId(), body.address()));
    }

    @PostMapping("/api/classes/{id}/sources")
    AddedSource add(Viewer viewer, @PathVariable long id, @RequestBody SourceService.WantedSource body) {
        return new AddedSource(sources.add(viewer, id, body));
    }

    @GetMapping("/api/classes/{id}/sources")
    List<SourceService.SourceView> list(Viewer viewer, @PathVariable long id) {
        return sources.ofClass(viewer, id);
    }

    record Paused(boolean paused) {}

    @PutMapping("/api/sources/{id}/paused")
    void setPaused(Viewer viewer, @PathVariable long id, @RequestBody Paused body) {
        sources.setPaused(viewer, id, body.paused());
    }

    @DeleteMapping("/api/sources/{id}")
    void remove(Viewer viewer, @PathVariable long id) {
        sources.remove(viewer, id);
    }

    @PostMapping("/api/sources/{id}/refresh")
    void refresh(Viewer viewer, @PathVariable long id) {
        sources.refresh(viewer, id);
    }
}
