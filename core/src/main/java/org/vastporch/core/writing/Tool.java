package org.vastporch.core.writing;

import java.util.EnumSet;
import java.util.Set;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/**
 * A tool of the editor. A class chooses which of them its students get; what the others make is left out of what they
 * save.
 */
public enum Tool {
    BOLD("strong"),
    ITALIC("em"),
    UNDERLINE("u"),
    STRIKE("s"),
    HEADING("h2, h3"),
    LIST("ul, ol, li"),
    QUOTE("blockquote"),
    LINK("a[href]:not(figure > a)"),
    ALIGN("[data-align]"),
    PICTURE("figure:has(img), img"),
    SOUND("figure[data-kind=sound]"),
    VIDEO("figure[data-kind=video], figure[data-kind=card]"),
    DOCUMENT("figure[data-kind=document]");

    public static final Set<Tool> ALL = Set.copyOf(EnumSet.allOf(Tool.class));

    private final String makes;

    Tool(String makes) {
        this.makes = makes;
    }

    /**
     * Clean HTML with only what the tools in {@code allowed} make. Words stay; what a heading or a list was becomes
     * plain paragraphs.
     */
    public static String keepOnly(String cleanHtml, Set<Tool> allowed) {
        if (allowed.containsAll(ALL)) return cleanHtml;
        Document page = Jsoup.parseBodyFragment(cleanHtml);
        page.outputSettings(new Document.OutputSettings().prettyPrint(false));
        for (Tool tool : values())
            if (!allowed.contains(tool)) for (Element made : page.select(tool.makes)) tool.undo(made);
        return page.body().html();
    }

    private void undo(Element made) {
        switch (this) {
            case HEADING -> made.tagName("p");
            case LIST -> {
                if (made.nameIs("li") && made.select("> p").isEmpty()) made.tagName("p");
                else made.unwrap();
            }
            case ALIGN -> made.removeAttr("data-align");
            case PICTURE, SOUND, VIDEO, DOCUMENT -> made.remove();
            default -> made.unwrap();
        }
    }
}
