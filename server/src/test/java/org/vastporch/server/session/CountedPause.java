package org.vastporch.server.session;

import java.time.Duration;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.context.annotation.Primary;
import org.springframework.stereotype.Component;

/** Waits nothing, and remembers how long it was to have been. */
@Component
@Primary
public class CountedPause implements Pause {

    private final List<Duration> waits = new CopyOnWriteArrayList<>();

    @Override
    public void last(Duration wait) {
        waits.add(wait);
    }

    /** The seconds of all waits since this was asked last. */
    public List<Long> taken() {
        List<Long> taken = waits.stream().map(Duration::toSeconds).toList();
        waits.clear();
        return taken;
    }
}
