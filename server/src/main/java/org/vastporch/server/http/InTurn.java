package org.vastporch.server.http;

import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;

/**
 * Slow work of which so much is done at once, while a few more wait their turn for some seconds. Whoever comes then, or
 * waits in vain, is told to come back, so that threads are left for everybody else.
 */
public final class InTurn {

    /** @param <E> what else can go wrong with it */
    public interface Work<T, E extends Exception> {
        T done() throws E;
    }

    private final Semaphore working;
    private final Semaphore inLine;
    private final Duration patience;
    private final Supplier<Problem> busy;

    /** @param busy what those are told who do not get their turn */
    public InTurn(int atOnce, int mayWait, Duration patience, Supplier<Problem> busy) {
        this.working = new Semaphore(atOnce, true);
        this.inLine = new Semaphore(atOnce + mayWait);
        this.patience = patience;
        this.busy = busy;
    }

    public <T, E extends Exception> T take(Work<T, E> work) throws E {
        if (!inLine.tryAcquire()) throw busy.get();
        try {
            if (!working.tryAcquire(patience.toMillis(), TimeUnit.MILLISECONDS)) throw busy.get();
            try {
                return work.done();
            } finally {
                working.release();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw busy.get();
        } finally {
            inLine.release();
        }
    }
}
