package org.vastporch.server.session;

import java.time.Duration;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/** Lets time pass before an answer goes out. */
interface Pause {

    void last(Duration wait);

    /** On the clock of this machine. */
    @Component
    class Real implements Pause {
        @Override
        public void last(Duration wait) {
            try {
                new CountDownLatch(1).await(wait.toMillis(), TimeUnit.MILLISECONDS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }
}
