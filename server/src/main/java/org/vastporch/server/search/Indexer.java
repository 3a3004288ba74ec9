package org.vastporch.server.search;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.annotation.Order;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.vastporch.server.erasure.Traces;

/** Keeps the index as the database is: everything once after the start, then whatever an event says has changed. */
@Component
@Order(5)
public class Indexer implements Traces {

    private static final Logger log = LoggerFactory.getLogger(Indexer.class);
    /**
     * Events of transactions that run beside each other are not committed in the order of their numbers; so many are
     * looked at again.
     */
    private static final int LOOK_BACK = 200;

    private static final int REMEMBERED = 2_000;

    private final SearchIndex index;
    private final SearchStore store;
    private final Set<Long> followed = new LinkedHashSet<>();
    private long newest = -1;

    Indexer(SearchIndex index, SearchStore store) {
        this.index = index;
        this.store = store;
    }

    @Scheduled(fixedDelay = 400)
    synchronized void follow() {
        if (newest < 0) takeInAll();
        boolean changed = false;
        for (List<SearchStore.Event> events = store.events(Math.max(0, newest - LOOK_BACK));
                ;
                events = store.events(newest)) {
            for (SearchStore.Event event : events) if (followed.add(event.id())) changed |= follow(event);
            if (!events.isEmpty())
                newest = Math.max(newest, events.get(events.size() - 1).id());
            if (events.size() < 1000) break;
        }
        while (followed.size() > REMEMBERED) followed.remove(followed.iterator().next());
        if (changed) index.refresh();
    }

    /** Makes the index anew from what is in the database, for rows that came without events. */
    public synchronized void rebuild() {
        takeInAll();
    }

    private void takeInAll() {
        long before = store.newestEvent();
        long start = System.nanoTime();
        index.fill(store::forEach);
        newest = before;
        log.info("The search index was made in {} ms", (System.nanoTime() - start) / 1_000_000);
    }

    private boolean follow(SearchStore.Event event) {
        if (event.subjectId() == null) return false;
        long id = event.subjectId();
        if (event.kind().startsWith("post-")) {
            store.post(id).ifPresentOrElse(index::put, () -> index.remove("post", String.valueOf(id)));
            index.removeFiles(id);
            store.filesOf(id).forEach(index::put);
            // How far a post reaches is noted with its comments as well.
            store.commentsOf(id).forEach(index::put);
        } else if (event.kind().startsWith("comment-")) {
            store.comment(id).ifPresentOrElse(index::put, () -> index.remove("comment", String.valueOf(id)));
        } else {
            return false;
        }
        return true;
    }

    @Override
    public String what() {
        return "index";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return 0;
    }

    @Override
    public void erase(long personId) {
        List<Long> posts = store.postsThatGo(personId);
        // Until the rows are really gone, an event could bring them back into the index.
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCommit() {
                purge(personId, posts);
            }
        });
    }

    private synchronized void purge(long personId, List<Long> posts) {
        index.purge(personId, posts);
    }
}
