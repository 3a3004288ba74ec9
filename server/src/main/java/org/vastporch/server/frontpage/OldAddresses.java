package org.vastporch.server.frontpage;

import io.swagger.v3.oas.annotations.Hidden;
import java.util.function.Supplier;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Problem;

/**
 * The addresses inside of what anyone may read lead a stranger to its front page; members, and strangers for whom
 * nothing is there, get the page that asks who they are.
 */
@Controller
@Hidden
class OldAddresses {

    private final FrontPageReader reader;

    OldAddresses(FrontPageReader reader) {
        this.reader = reader;
    }

    @GetMapping({"/classes/{id:\\d+}", "/classes/{id:\\d+}/porch"})
    String porch(Viewer viewer, @PathVariable long id) {
        return to(viewer, () -> "/" + reader.of(id).address());
    }

    @GetMapping("/classes/{id:\\d+}/blog/{address}")
    String blog(Viewer viewer, @PathVariable long id, @PathVariable String address) {
        return to(viewer, () -> "/" + reader.of(id).address() + "/" + reader.blogAddress(reader.of(id), address));
    }

    @GetMapping({"/posts/{id:\\d+}", "/classes/{classId:\\d+}/posts/{id:\\d+}"})
    String post(Viewer viewer, @PathVariable long id) {
        return to(viewer, () -> reader.addressOf(id));
    }

    private static String to(Viewer viewer, Supplier<String> front) {
        if (viewer.isStranger())
            try {
                return "redirect:" + front.get();
            } catch (Problem nothingForStrangers) {
                // The page that asks who they are.
            }
        return "forward:/index.html";
    }
}
