package org.vastporch.server.frontpage;

import java.net.URI;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.media.AttachmentService;
import org.vastporch.server.media.AttachmentService.FileView;
import org.vastporch.server.media.VideoPages;

/**
 * Puts into a clean text what is read and played where it stands, without a script: the pages of a document and the
 * player of a video lie folded up, and nothing of them is fetched before somebody unfolds them.
 */
@Component
class MediaInPlace {

    private final AttachmentService files;
    private final VideoPages videos;

    MediaInPlace(AttachmentService files, VideoPages videos) {
        this.files = files;
        this.videos = videos;
    }

    /** The text of a post with its documents, sounds and videos, as a stranger may have them. */
    String ofPost(long postId, String html) {
        return html.contains("data-kind") ? put(html, files.ofPost(Viewer.STRANGER, postId)) : html;
    }

    /** A text that has no files of its own, with its videos. */
    String of(String html) {
        return html.contains("data-kind") ? put(html, List.of()) : html;
    }

    private String put(String html, List<FileView> files) {
        Document text = Jsoup.parseBodyFragment(html);
        text.outputSettings().prettyPrint(false);
        for (Element figure : text.select("figure[data-kind]")) {
            Element link = figure.selectFirst("> a[href]");
            if (link == null) continue;
            String address = link.attr("href");
            Optional<FileView> file =
                    files.stream().filter(f -> f.address().equals(address)).findFirst();
            switch (figure.attr("data-kind")) {
                case "card" -> putVideo(figure, link, address);
                case "document" -> file.ifPresent(f -> putDocument(figure, link, f));
                case "sound" -> file.ifPresent(f -> putPlayer("audio", link, f));
                case "video" -> file.ifPresent(f -> putPlayer("video", link, f));
                default -> {}
            }
        }
        return text.body().html();
    }

    private void putVideo(Element figure, Element link, String address) {
        link.before(new Element("span").text("A video at " + host(address)));
        link.after(new Element("small").text("It is kept elsewhere. Nothing of it is loaded before you open it."));
        videos.of(address).ifPresent(video -> folded(figure, "Play it here")
                .appendElement("iframe")
                .attr("src", video.frame())
                .attr("loading", "lazy")
                .attr("title", "Video at " + host(video.frame()))
                .attr("referrerpolicy", "no-referrer")
                .attr("allow", "fullscreen")
                // A player runs, and reaches nothing of this page.
                .attr("sandbox", "allow-scripts allow-same-origin allow-presentation"));
    }

    private static void putDocument(Element figure, Element link, FileView file) {
        link.before(new Element("span").text(ending(file.name()) + " · " + size(file.size())));
        if (file.pages() == 0) return;
        Element pages = folded(figure, file.pages() == 1 ? "Read it here" : "Read its " + file.pages() + " pages here");
        for (int no = 1; no <= file.pages(); no++)
            pages.appendElement("img")
                    .attr("loading", "lazy")
                    .attr("src", file.address() + "/pages/" + no)
                    .attr("alt", "Page " + no + " of " + file.pages() + " of " + file.name());
    }

    private static void putPlayer(String tag, Element link, FileView file) {
        link.before(new Element(tag)
                .attr("controls", true)
                .attr("preload", "metadata")
                .attr("src", file.address())
                .attr("aria-label", file.name()));
        link.remove();
    }

    private static Element folded(Element figure, String words) {
        Element details = figure.appendElement("details");
        details.appendElement("summary").text(words);
        return details;
    }

    /** The host of an address; nothing of an odd one that got in before addresses were looked at. */
    private static String host(String address) {
        try {
            String host = URI.create(address).getHost();
            return host == null ? "another place" : host;
        } catch (IllegalArgumentException odd) {
            return "another place";
        }
    }

    private static String ending(String name) {
        return name.substring(name.lastIndexOf('.') + 1).toUpperCase(Locale.ROOT);
    }

    private static String size(long bytes) {
        return bytes < 1_000_000
                ? Math.max(1, Math.round(bytes / 1000.0)) + " kB"
                : String.format(Locale.ROOT, "%.1f MB", bytes / 1_000_000.0);
    }
}
