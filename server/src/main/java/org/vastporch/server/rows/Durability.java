package org.vastporch.server.rows;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicReference;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/**
 * Makes sure that what was committed is on the disk: an answer to a request that wrote goes out only after a sync that
 * began after its commit. One sync serves all requests that wait when it begins.
 */
@Component
public class Durability {

    private final JdbcClient jdbc;
    private final Object turn = new Object();
    private final AtomicReference<CompletableFuture<Void>> next = new AtomicReference<>(new CompletableFuture<>());

    Durability(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Returns once everything that this thread committed before the call is on the disk. */
    public void sync() {
        CompletableFuture<Void> mine = next.get();
        synchronized (turn) {
            if (!mine.isDone()) {
                next.set(new CompletableFuture<>());
                try {
                    jdbc.sql("checkpoint sync").update();
                    mine.complete(null);
                } catch (RuntimeException e) {
                    mine.completeExceptionally(e);
                }
            }
        }
        mine.join();
    }
}
