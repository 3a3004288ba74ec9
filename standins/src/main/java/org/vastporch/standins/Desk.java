package org.vastporch.standins;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.vastporch.standins.Site.Entry;

/** Where the author of an outside blog writes, changes and takes away, and where one sets what is wrong with it. */
final class Desk {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss");

    private Desk() {}

    static String page(Site site) {
        StringBuilder html = new StringBuilder(Site.page("The desk of " + site.title, "")
                + "<h1>The desk of " + Site.text(site.title) + "</h1><p><a href=\"/" + site.name
                + "/\">Its pages</a> · <a href=\"/" + site.name + "/feed.xml\">Its feed</a></p>");
        html.append("<h2>Write</h2>")
                .append(form(site, "publish"))
                .append("<label>Title <input name=\"title\" required></label>"
                        + "<label>Text <textarea name=\"text\" rows=\"6\" required></textarea></label>"
                        + "<label>Tags, with commas between <input name=\"tags\"></label>"
                        + "<p><button>Publish</button></p></form>")
                .append("<h2>Who fetched its feed</h2><ul>");
        if (site.fetches().isEmpty()) html.append("<li>nobody so far</li>");
        for (Site.Fetch fetch : site.fetches())
            html.append("<li>")
                    .append(TIME.format(fetch.at().atZone(ZoneId.systemDefault())))
                    .append(", ")
                    .append(Site.text(fetch.by()))
                    .append(fetch.status() == 304 ? ": nothing new" : " (" + fetch.status() + ")")
                    .append("</li>");
        html.append("</ul><p class=\"foot\"><a href=\"/" + site.name + "/desk\">Look again</a></p>")
                .append("<h2>What stands there</h2><ul>");
        for (Entry entry : site.newestFirst())
            html.append("<li><a href=\"/" + site.name + "/" + entry.slug() + "\">" + Site.text(entry.title()) + "</a> ")
                    .append("<a href=\"/" + site.name + "/" + entry.slug() + "/edit\">Change</a> ")
                    .append(form(site, "take-away").replace("<form", "<form class=\"line\""))
                    .append("<input type=\"hidden\" name=\"slug\" value=\"" + entry.slug() + "\">")
                    .append("<button aria-label=\"Take away: " + Site.text(entry.title()) + "\">Take away</button>")
                    .append("</form></li>");
        html.append("</ul><h2>What is wrong with it</h2>").append(form(site, "trouble"));
        for (Trouble trouble : Trouble.values())
            html.append("<label><input type=\"radio\" name=\"trouble\" value=\"" + trouble + "\""
                    + (site.trouble() == trouble ? " checked" : "") + ">" + trouble.words() + "</label>");
        return html.append("<p><button>Set it</button></p></form>").toString();
    }

    static String editing(Site site, Entry entry) {
        return Site.page("Change: " + entry.title(), "") + "<h1>Change “" + Site.text(entry.title()) + "”</h1>"
                + form(site, "change") + "<input type=\"hidden\" name=\"slug\" value=\"" + entry.slug() + "\">"
                + "<label>Text <textarea name=\"html\" rows=\"10\">" + Site.text(entry.html())
                + "</textarea></label><p><button>Keep</button></p></form>";
    }

    private static String form(Site site, String act) {
        return "<form method=\"post\" action=\"/" + site.name + "/" + act + "\">";
    }

    /** Does what a form of the desk asks for; tells whether it is one. */
    static boolean does(Site site, String act, Map<String, String> form) {
        switch (act) {
            case "publish" ->
                site.add(
                        form.getOrDefault("title", "Without a title"),
                        "<p>"
                                + Site.text(form.getOrDefault("text", ""))
                                        .strip()
                                        .replaceAll("(\\r?\\n){2,}", "</p><p>")
                                + "</p>",
                        tags(form.getOrDefault("tags", "")),
                        Instant.now());
            case "change" -> site.change(form.getOrDefault("slug", ""), form.getOrDefault("html", ""));
            case "take-away" -> site.takeAway(form.getOrDefault("slug", ""));
            case "trouble" -> site.trouble(Trouble.valueOf(form.getOrDefault("trouble", "NONE")));
            default -> {
                return false;
            }
        }
        return true;
    }

    private static List<String> tags(String said) {
        return Arrays.stream(said.split(","))
                .map(String::strip)
                .filter(tag -> !tag.isEmpty())
                .toList();
    }
}
