package org.vastporch.server.feeds;

import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.vastporch.core.feeds.EntryIdentity;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.feeds.WebPage;
import org.vastporch.server.feeds.SafeFetcher.FetchException;
import org.vastporch.server.feeds.SafeFetcher.Fetched;

/** Completes entries whose feed carries only their beginnings, from their own pages: each once, within the budget. */
@Component
class ExcerptPages {

    private static final Logger log = LoggerFactory.getLogger(ExcerptPages.class);

    private final SafeFetcher fetcher;

    ExcerptPages(SafeFetcher fetcher) {
        this.fetcher = fetcher;
    }

    /**
     * The whole texts of beginnings, as far as they can be had, by the links of their entries; the newest come first.
     *
     * @param entries those that are new or have changed
     * @param mayAsk waits until the server of a page may be asked; false if that would take too long
     */
    Map<String, String> whole(List<Entry> entries, Instant now, Budget budget, Predicate<String> mayAsk) {
        Map<String, String> whole = new HashMap<>();
        List<Entry> beginnings = entries.stream()
                .filter(e -> Excerpt.look(e) != Excerpt.Look.WHOLE)
                .sorted(Comparator.comparing((Entry e) -> EntryIdentity.dateOf(e, now))
                        .reversed())
                .toList();
        for (Entry entry : beginnings) {
            if (budget.isSpent() || !mayAsk.test(entry.link())) break;
            page(entry, budget).ifPresent(text -> whole.put(entry.link(), text));
        }
        return whole;
    }

    private Optional<String> page(Entry entry, Budget budget) {
        try {
            Fetched page = fetcher.get(entry.link(), null, null, budget);
            if (page.status() != 200) return Optional.empty();
            return WebPage.read(page.body(), page.contentType(), page.address())
                    .article()
                    .flatMap(article -> Excerpt.whole(entry, article.html()));
        } catch (FetchException e) {
            return Optional.empty();
        } catch (RuntimeException e) {
            log.warn("The page {} could not be read", entry.link(), e);
            return Optional.empty();
        }
    }
}
