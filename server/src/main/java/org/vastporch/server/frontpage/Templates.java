package org.vastporch.server.frontpage;

import com.samskivert.mustache.Mustache;
import com.samskivert.mustache.Template;
import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Component;

/** Fills the templates of the front pages. Whatever is put in is escaped, but for texts that were cleaned. */
@Component
class Templates {

    private static final Pattern STYLE =
            Pattern.compile("\"src/frontpage/front\\.css\": \\{\\s*\"file\": \"([^\"]+)\"");

    private final String style = "/" + style();
    private final Mustache.Compiler compiler = Mustache.compiler()
            .escapeHTML(true)
            .emptyStringIsFalse(true)
            .nullValue("")
            .withLoader(name -> new StringReader(read(name)));
    private final Map<String, Template> compiled = new ConcurrentHashMap<>();

    String fill(String name, Object view) {
        return compiled.computeIfAbsent(name, n -> compiler.compile(read(n))).execute(view);
    }

    private String read(String name) {
        try {
            return new ClassPathResource("frontpage/" + name + ".html")
                    .getContentAsString(StandardCharsets.UTF_8)
                    .replace("STYLE", style);
        } catch (IOException e) {
            throw new IllegalStateException("The template " + name + " is missing", e);
        }
    }

    /** The name that the style sheet got when it was built. */
    private static String style() {
        try {
            Matcher found = STYLE.matcher(
                    new ClassPathResource("static/.vite/manifest.json").getContentAsString(StandardCharsets.UTF_8));
            return found.find() ? found.group(1) : "";
        } catch (IOException withoutFrontEnd) {
            return "";
        }
    }
}
