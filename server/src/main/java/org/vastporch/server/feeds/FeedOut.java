package org.vastporch.server.feeds;

import com.rometools.rome.feed.synd.SyndCategory;
import com.rometools.rome.feed.synd.SyndCategoryImpl;
import com.rometools.rome.feed.synd.SyndContent;
import com.rometools.rome.feed.synd.SyndContentImpl;
import com.rometools.rome.feed.synd.SyndEntry;
import com.rometools.rome.feed.synd.SyndEntryImpl;
import com.rometools.rome.feed.synd.SyndFeed;
import com.rometools.rome.feed.synd.SyndFeedImpl;
import com.rometools.rome.io.FeedException;
import com.rometools.rome.io.SyndFeedOutput;
import java.util.Date;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastporch.core.text.Sayable;
import org.vastporch.server.reading.PorchService.FeedEntry;
import tools.jackson.databind.json.JsonMapper;

/** Writes feeds: RSS 2.0, Atom 1.0 and JSON Feed 1.1. */
@Component
class FeedOut {

    /**
     * @param base the address of the school, such as https://porch.example
     * @param self the address of the feed itself
     */
    record About(String title, String description, String base, String page, String self) {}

    private final JsonMapper json;

    FeedOut(JsonMapper json) {
        this.json = json;
    }

    String xml(About about, List<FeedEntry> entries, String format) {
        SyndFeed feed = new SyndFeedImpl();
        feed.setFeedType(format.equals("atom") ? "atom_1.0" : "rss_2.0");
        feed.setTitle(Sayable.of(about.title()));
        feed.setDescription(Sayable.of(about.description()));
        feed.setLink(about.base() + about.page());
        feed.setUri(about.self());
        feed.setPublishedDate(
                entries.isEmpty() ? null : Date.from(entries.get(0).publishedAt()));
        feed.setEntries(entries.stream().map(e -> entry(about, e)).toList());
        try {
            return new SyndFeedOutput().outputString(feed, false);
        } catch (FeedException e) {
            throw new IllegalStateException("A feed could not be written", e);
        }
    }

    private static SyndEntry entry(About about, FeedEntry e) {
        SyndEntry entry = new SyndEntryImpl();
        entry.setTitle(Sayable.of(e.title()));
        entry.setLink(about.base() + "/posts/" + e.id());
        entry.setUri(about.base() + "/posts/" + e.id());
        entry.setAuthor(Sayable.of(e.author()));
        entry.setPublishedDate(Date.from(e.publishedAt()));
        entry.setUpdatedDate(Date.from(e.changedAt()));
        SyndContent content = new SyndContentImpl();
        content.setType("html");
        content.setValue(Sayable.of(absolute(about, e.html())));
        // RSS carries the whole text as its description, Atom as its content.
        entry.setContents(List.of(content));
        entry.setDescription(content);
        entry.setCategories(e.tags().stream().map(FeedOut::category).toList());
        return entry;
    }

    private static SyndCategory category(String tag) {
        SyndCategory category = new SyndCategoryImpl();
        category.setName(Sayable.of(tag));
        return category;
    }

    String json(About about, List<FeedEntry> entries) {
        Map<String, Object> feed = new LinkedHashMap<>();
        feed.put("version", "https://jsonfeed.org/version/1.1");
        feed.put("title", about.title());
        feed.put("home_page_url", about.base() + about.page());
        feed.put("feed_url", about.self());
        feed.put("description", about.description());
        feed.put(
                "items",
                entries.stream()
                        .map(e -> {
                            Map<String, Object> item = new LinkedHashMap<>();
                            item.put("id", about.base() + "/posts/" + e.id());
                            item.put("url", about.base() + "/posts/" + e.id());
                            item.put("title", e.title());
                            item.put("content_html", absolute(about, e.html()));
                            item.put("date_published", e.publishedAt().toString());
                            item.put("date_modified", e.changedAt().toString());
                            item.put("authors", List.of(Map.of("name", e.author())));
                            item.put("tags", e.tags());
                            return item;
                        })
                        .toList());
        return json.writeValueAsString(feed);
    }

    private static String absolute(About about, String html) {
        return html.replace("src=\"/media/", "src=\"" + about.base() + "/media/");
    }
}
