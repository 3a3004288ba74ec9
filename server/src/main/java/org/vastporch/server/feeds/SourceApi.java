package org.vastporch.server.feeds;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.GonePosts;
import org.vastporch.core.feeds.OwnSources;
import org.vastporch.server.http.Optionally;

/** Outside blogs in, and single posts from elsewhere. */
@RestController
class SourceApi {

    record Address(String address) {}

    record AddedSource(long id) {}

    /** @param promptId the prompt that the post answers; left out for none */
    record FromElsewhere(String address, @Optionally Long promptId) {}

    /** The draft that was made of a post from elsewhere. */
    record BroughtIn(long postId) {}

    record NewsView(String title, String link, String source, Instant at) {}

    private final SourceService sources;
    private final OwnSourceService own;
    private final ElsewhereService elsewhere;
    private final OpmlService opml;
    private final OutsideDirectoryService directory;
    private final GonePostService gone;

    SourceApi(
            SourceService sources,
            OwnSourceService own,
            ElsewhereService elsewhere,
            OpmlService opml,
            OutsideDirectoryService directory,
            GonePostService gone) {
        this.sources = sources;
        this.own = own;
        this.elsewhere = elsewhere;
        this.opml = opml;
        this.directory = directory;
        this.gone = gone;
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

    @PutMapping("/api/sources/{id}")
    void edit(Viewer viewer, @PathVariable long id, @RequestBody SourceService.SourceEdit body) {
        sources.edit(viewer, id, body);
    }

    /** @param posts whether the posts that came from it go into the bin */
    @DeleteMapping("/api/sources/{id}")
    void remove(Viewer viewer, @PathVariable long id, @RequestParam(defaultValue = "false") boolean posts) {
        sources.remove(viewer, id, posts);
    }

    @GetMapping("/api/sources/{id}/entries")
    List<SourceService.EntryLine> entries(Viewer viewer, @PathVariable long id) {
        return sources.entries(viewer, id);
    }

    record LeftOut(String key, boolean leftOut) {}

    @PutMapping("/api/sources/{id}/entries")
    void setLeftOut(Viewer viewer, @PathVariable long id, @RequestBody LeftOut body) {
        sources.setLeftOut(viewer, id, body.key(), body.leftOut());
    }

    record OpmlText(String text) {}

    /** @param file its bytes in base 64 */
    record OpmlFile(String file) {}

    @PostMapping("/api/classes/{id}/sources/opml")
    List<OpmlService.OpmlLine> previewOpml(Viewer viewer, @PathVariable long id, @RequestBody OpmlFile body) {
        return opml.preview(viewer, id, body.file());
    }

    @GetMapping("/api/classes/{id}/sources.opml")
    ResponseEntity<byte[]> sourcesAsOpml(Viewer viewer, @PathVariable long id) {
        return file("outside-blogs.opml", opml.sources(viewer, id));
    }

    /** The blogs of the class with the viewer's secret feed addresses, which are made if there are none. */
    @PostMapping("/api/classes/{id}/blogs/opml")
    OpmlText blogsAsOpml(Viewer viewer, @PathVariable long id) {
        return new OpmlText(opml.blogs(viewer, id));
    }

    private static ResponseEntity<byte[]> file(String name, String text) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/x-opml;charset=UTF-8"))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString())
                .body(text.getBytes(StandardCharsets.UTF_8));
    }

    /** What the viewer subscribed to, each at the viewer's secret feed address, which is made if there is none. */
    @PostMapping("/api/subscriptions/opml")
    OpmlText subscriptionsAsOpml(Viewer viewer) {
        return new OpmlText(opml.subscriptions(viewer));
    }

    /** Who blogs where outside. */
    @GetMapping("/api/classes/{id}/outside-directory")
    List<OutsideDirectoryService.OutsideLine> outsideDirectory(Viewer viewer, @PathVariable long id) {
        return directory.list(viewer, id);
    }

    /** Outside posts whose pages are no longer there, and what the class does with such. */
    @GetMapping("/api/classes/{id}/gone-posts")
    GonePostService.Gone gonePosts(Viewer viewer, @PathVariable long id) {
        return gone.ofClass(viewer, id);
    }

    /** @param seen the rule that whoever changes it saw */
    record GoneRuleChange(GonePosts rule, GonePosts seen) {}

    @PutMapping("/api/classes/{id}/gone-posts")
    void setGoneRule(Viewer viewer, @PathVariable long id, @RequestBody GoneRuleChange body) {
        gone.setRule(viewer, id, body.rule(), body.seen());
    }

    record GoneSettled(boolean hide) {}

    @PostMapping("/api/posts/{id}/gone")
    void settleGone(Viewer viewer, @PathVariable long id, @RequestBody GoneSettled body) {
        gone.settle(viewer, id, body.hide());
    }

    record Noted(long id) {}

    /** Notes a blog that one has to sign in to read. */
    @PostMapping("/api/classes/{id}/private-blogs")
    Noted notePrivate(Viewer viewer, @PathVariable long id, @RequestBody OutsideDirectoryService.PrivateWish body) {
        return new Noted(directory.note(viewer, id, body));
    }

    @DeleteMapping("/api/private-blogs/{id}")
    void removePrivate(Viewer viewer, @PathVariable long id) {
        directory.remove(viewer, id);
    }

    record Refreshing(int sources) {}

    /** Has all sources of a class looked at now. */
    @PostMapping("/api/classes/{id}/sources/refresh")
    Refreshing refreshAll(Viewer viewer, @PathVariable long id) {
        return new Refreshing(sources.refreshAll(viewer, id));
    }

    /** The viewer's own outside blogs in a class. */
    @GetMapping("/api/classes/{id}/sources/mine")
    List<SourceService.SourceView> mine(Viewer viewer, @PathVariable long id) {
        return sources.ofAuthor(viewer, id);
    }

    record OwnSourcesRule(OwnSources own) {}

    /** @param seen the rule that whoever changes it saw */
    record OwnSourcesChange(OwnSources own, OwnSources seen) {}

    @GetMapping("/api/classes/{id}/sources/rule")
    OwnSourcesRule rule(Viewer viewer, @PathVariable long id) {
        return new OwnSourcesRule(own.rule(viewer, id));
    }

    @PutMapping("/api/classes/{id}/sources/rule")
    void setRule(Viewer viewer, @PathVariable long id, @RequestBody OwnSourcesChange body) {
        own.setRule(viewer, id, body.own(), body.seen());
    }

    @PostMapping("/api/classes/{id}/sources/mine/look")
    SourceFinder.Found lookOwn(Viewer viewer, @PathVariable long id, @RequestBody Address body) {
        return own.look(viewer, id, body.address());
    }

    /** Registers a blog of the viewer's own, whoever stands in the wish. */
    @PostMapping("/api/classes/{id}/sources/mine")
    AddedSource addOwn(Viewer viewer, @PathVariable long id, @RequestBody SourceService.WantedSource body) {
        return new AddedSource(own.add(viewer, id, body));
    }

    /** Takes back an own blog that still waits for a yes. */
    @DeleteMapping("/api/sources/{id}/mine")
    void takeBack(Viewer viewer, @PathVariable long id) {
        own.takeBack(viewer, id);
    }

    /** "I have just published": looks at the viewer's own outside blogs. */
    @PostMapping("/api/classes/{id}/sources/mine/refresh")
    List<SourceService.SourceView> justPublished(Viewer viewer, @PathVariable long id) {
        return sources.justPublished(viewer, id);
    }

    @PostMapping("/api/sources/{id}/refresh")
    void refresh(Viewer viewer, @PathVariable long id) {
        sources.refresh(viewer, id);
    }
}
