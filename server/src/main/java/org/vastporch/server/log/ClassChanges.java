package org.vastporch.server.log;

import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * How often something happened in a class since the server started. What is asked for at every moment is counted anew
 * only when this number is another one.
 */
@Component
public class ClassChanges {

    private final ConcurrentHashMap<Long, AtomicLong> changes = new ConcurrentHashMap<>();

    private final AtomicLong everywhere = new AtomicLong();

    /** Read this first, then what is to be counted: a change in between makes it count again. */
    public long of(long classId) {
        return counter(classId).get() + everywhere.get();
    }

    /** Something happens that may concern every class. */
    public void noteEverywhere() {
        note(everywhere);
    }

    /** Something happens in a class; it counts once the transaction is over and everybody can see it. */
    public void note(long classId) {
        note(counter(classId));
    }

    private static void note(AtomicLong counter) {
        if (!TransactionSynchronizationManager.isSynchronizationActive()) {
            counter.incrementAndGet();
            return;
        }
        TransactionSynchronizationManager.registerSynchronization(new TransactionSynchronization() {
            @Override
            public void afterCompletion(int status) {
                counter.incrementAndGet();
            }
        });
    }

    private AtomicLong counter(long classId) {
        return changes.computeIfAbsent(classId, id -> new AtomicLong());
    }
}
