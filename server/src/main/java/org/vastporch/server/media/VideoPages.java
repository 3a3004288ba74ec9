package org.vastporch.server.media;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.web.util.UriComponentsBuilder;

/**
 * The video pages that the school has chosen, whose videos play in place. Each is given as the address of a page and
 * that of its player, with {id} for the video: {@code https://videos.example/watch/{id} =>
 * https://videos.example/embed/{id}}, several parted by commas.
 */
@Component
public class VideoPages {

    /** @param page where the video is kept; {@code frame} what plays it in place */
    public record Video(String page, String frame) {}

    private static final int LONGEST = 2_000;
    private static final String ID = "{id}";

    private record Host(String page, String frame) {
        Optional<String> id(String address) {
            for (String pattern : new String[] {page, frame}) {
                int at = pattern.indexOf(ID);
                Matcher found = Pattern.compile(Pattern.quote(pattern.substring(0, at)) + "([A-Za-z0-9_-]{1,64})"
                                + Pattern.quote(pattern.substring(at + ID.length())) + "(?:[?&#].*)?")
                        .matcher(address);
                if (found.matches()) return Optional.of(found.group(1));
            }
            return Optional.empty();
        }
    }

    private final List<Host> hosts;

    VideoPages(@Value("${vastporch.videos:}") String configured) {
        hosts = Arrays.stream(configured.split(","))
                .map(String::strip)
                .filter(h -> !h.isEmpty())
                .map(VideoPages::host)
                .toList();
    }

    private static Host host(String configured) {
        String[] both = configured.split("\\s*=>\\s*");
        if (both.length != 2
                || !both[0].contains(ID)
                || !both[1].contains(ID)
                || !both[0].matches("https?://\\S+")
                || !both[1].matches("https?://\\S+"))
            throw new IllegalStateException(
                    "vastporch.videos is read as \"page with {id} => player with {id}\", not as \"" + configured
                            + "\"");
        return new Host(both[0], both[1]);
    }

    /** The video of a page or player that the school knows. */
    public Optional<Video> of(String address) {
        if (address.length() > LONGEST) return Optional.empty();
        for (Host host : hosts) {
            Optional<String> id = host.id(address.strip());
            if (id.isPresent())
                return Optional.of(new Video(
                        host.page().replace(ID, id.get()), host.frame().replace(ID, id.get())));
        }
        return Optional.empty();
    }

    /** Where players may come from, for the policy that every page carries. */
    public List<String> origins() {
        return hosts.stream()
                .map(h -> UriComponentsBuilder.fromUriString(h.frame().replace(ID, "id"))
                        .replacePath(null)
                        .replaceQuery(null)
                        .build()
                        .toUriString())
                .distinct()
                .toList();
    }
}
