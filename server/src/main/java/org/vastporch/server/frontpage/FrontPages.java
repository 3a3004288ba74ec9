package org.vastporch.server.frontpage;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.Refusal;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.classes.ClassAddress;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.frontpage.FrontPageReader.Narrowing;
import org.vastporch.server.frontpage.FrontPageStore.Front;
import org.vastporch.server.http.Problem;

/**
 * The pages that anyone may read: of an open class, of what is open of its blogs, and of single posts, at addresses
 * that can be said. They are whole as they come, without a script.
 */
@RestController
@Hidden
class FrontPages {

    private static final String CLASS = "/{at:(?!(?:" + ClassAddress.TAKEN + ")$)[A-Za-z0-9-]+}";
    private static final String BLOG = CLASS + "/{blog:[A-Za-z0-9-]+}";
    private static final String POST = BLOG + "/{post:\\d+}";
    /** The form under a post sends nothing longer; {@code CommentService} says how long a comment may be. */
    private static final int LONGEST = 100_000;

    private final FrontPageReader reader;
    private final CommentService comments;
    private final Templates templates;
    private final FrontPageStore store;

    FrontPages(FrontPageReader reader, CommentService comments, Templates templates, FrontPageStore store) {
        this.reader = reader;
        this.comments = comments;
        this.templates = templates;
        this.store = store;
    }

    @GetMapping(CLASS)
    ResponseEntity<String> ofClass(@PathVariable String at, Narrowing by) {
        Front front = reader.at(at.toLowerCase());
        if (!front.address().equals(at)) return moved("/" + front.address());
        FrontView.OfClass view = reader.ofClass(front, by);
        return page(view.frame(), templates.fill("class", view));
    }

    @GetMapping(BLOG)
    ResponseEntity<String> ofBlog(@PathVariable String at, @PathVariable String blog, Narrowing by) {
        Front front = reader.at(at.toLowerCase());
        String address = reader.blogAddress(front, blog.toLowerCase());
        if (!front.address().equals(at) || !address.equals(blog)) return moved("/" + front.address() + "/" + address);
        FrontView.OfBlog view = reader.ofBlog(front, blog, by);
        return page(view.frame(), templates.fill("blog", view));
    }

    @GetMapping(POST)
    ResponseEntity<String> ofPost(
            Viewer viewer,
            @PathVariable String at,
            @PathVariable String blog,
            @PathVariable long post,
            @RequestParam(defaultValue = "false") boolean said,
            @RequestParam(required = false) Long answer,
            HttpServletRequest request) {
        Front front = reader.at(at.toLowerCase());
        String address = reader.addressOf(post);
        if (!address.equals(request.getRequestURI())) return moved(address);
        FrontView.Form form = new FrontView.Form("", "", answer, null, csrf(request));
        FrontView.OfPost view = reader.ofPost(front, post, !viewer.isStranger(), said, form);
        return page(view.frame(), templates.fill("post", view));
    }

    /**
     * A visitor's comment, which waits until somebody has looked at it.
     *
     * @param website a field that people do not see
     */
    @PostMapping(path = POST, consumes = MediaType.APPLICATION_FORM_URLENCODED_VALUE)
    ResponseEntity<String> comment(
            @PathVariable String at,
            @PathVariable long post,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "") String website,
            @RequestParam(required = false) Long answer,
            HttpServletRequest request) {
        Front front = reader.at(at.toLowerCase());
        String address = reader.addressOf(post);
        String wrong;
        try {
            if (text.length() > LONGEST)
                throw Problem.invalid("text", "comment-too-long", "This is too long for a comment.");
            comments.addByVisitor(post, text, answer, name, website, request.getRemoteAddr());
            return ResponseEntity.status(HttpStatus.SEE_OTHER)
                    .location(URI.create(address + "?said=true#comments"))
                    .build();
        } catch (Problem | Refusal e) {
            wrong = e.getMessage();
        }
        FrontView.Form form = new FrontView.Form(text, name, answer, wrong, csrf(request));
        FrontView.OfPost view = reader.ofPost(front, post, false, false, form);
        return page(HttpStatus.UNPROCESSABLE_CONTENT, view.frame(), templates.fill("post", view));
    }

    @GetMapping(path = "/robots.txt", produces = MediaType.TEXT_PLAIN_VALUE)
    String robots() {
        // A page that may be found says so itself; everything else says that it may not, where it is asked.
        return store.isSchoolFindable()
                ? "User-agent: *\nDisallow: /api/\nDisallow: /feeds/\nDisallow: /classes/\n"
                : "User-agent: *\nDisallow: /\n";
    }

    /** What is not there and what is not for anyone are the same. */
    @ExceptionHandler({Problem.class, Refusal.class})
    ResponseEntity<String> nothing() {
        FrontView.Nothing view = reader.nothing();
        return page(HttpStatus.NOT_FOUND, view.frame(), templates.fill("nothing", view));
    }

    private static String csrf(HttpServletRequest request) {
        return request.getAttribute(CsrfToken.class.getName()) instanceof CsrfToken token ? token.getToken() : "";
    }

    private static ResponseEntity<String> moved(String to) {
        return ResponseEntity.status(HttpStatus.FOUND)
                .location(URI.create(to))
                .cacheControl(CacheControl.noCache())
                .build();
    }

    private static ResponseEntity<String> page(FrontView.Frame frame, String html) {
        return page(HttpStatus.OK, frame, html);
    }

    private static ResponseEntity<String> page(HttpStatus status, FrontView.Frame frame, String html) {
        HttpHeaders headers = new HttpHeaders();
        headers.setContentType(new MediaType(MediaType.TEXT_HTML, StandardCharsets.UTF_8));
        headers.setCacheControl(CacheControl.noCache());
        if (!frame.findable()) headers.set("X-Robots-Tag", "noindex, nofollow");
        return new ResponseEntity<>(html, headers, status);
    }
}
