package org.vastporch.server.session;

import static org.junit.jupiter.api.Assertions.*;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.vastporch.server.http.Problem;

class SlowHashesTest {

    private static final int HALF = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);

    /** However many come, half of the processors compare; everybody gets an answer, or is told to come back. */
    @Test
    void halfOfTheProcessorsCompareAndNobodyIsForgotten() throws Exception {
        AtomicInteger now = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        CountDownLatch open = new CountDownLatch(1);
        PasswordEncoder encoder = mock();
        when(encoder.matches(any(), any())).thenAnswer(call -> {
            most.accumulateAndGet(now.incrementAndGet(), Math::max);
            open.await();
            now.decrementAndGet();
            return true;
        });
        SlowHashes hashes = new SlowHashes(encoder);
        ExecutorService threads = Executors.newFixedThreadPool(130 + HALF);
        CountDownLatch refused = new CountDownLatch(30);
        List<Future<Boolean>> answers = new ArrayList<>();
        for (int i = 0; i < 130 + HALF; i++)
            answers.add(threads.submit(() -> {
                try {
                    return hashes.matches("a", "b");
                } catch (Problem busy) {
                    assertEquals("too-many-tries", busy.code());
                    refused.countDown();
                    return false;
                }
            }));
        refused.await();
        open.countDown();
        int right = 0;
        for (Future<Boolean> answer : answers) if (answer.get()) right++;
        threads.shutdown();
        assertEquals(100 + HALF, right);
        assertEquals(HALF, most.get());
    }
}
