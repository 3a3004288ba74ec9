package org.vastporch.core.feeds;

import java.time.Duration;
import java.util.List;
import org.vastporch.core.feeds.EntryIdentity.Entry;

/**
 * What a feed says, of whatever family it is.
 *
 * @param title in plain words; empty if it has none
 * @param description the same
 * @param site the address of the pages that it is about; empty if it does not say, or gives only its own
 * @param entries in its order, at most {@value FeedReader#MOST_ENTRIES}
 * @param asked the shortest wait between two looks that it asks for; zero if it asks for none
 * @param cut whether its end is missing, so that its last entry may be half of one
 * @param untidy whether it is broken somewhere, so that it was read by guess
 */
public record Feed(
        String title,
        String description,
        String site,
        List<Entry> entries,
        Duration asked,
        boolean cut,
        boolean untidy) {

    public Feed {
        entries = List.copyOf(entries);
    }

    /** The entries that are surely whole. */
    public List<Entry> wholeEntries() {
        return cut ? entries.subList(0, Math.max(0, entries.size() - 1)) : entries;
    }
}
