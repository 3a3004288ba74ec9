package org.vastporch.demo;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;

/** A clock that stands where it is set while the demo school's past is made, and then runs on with the real one. */
public final class DemoClock extends Clock {

    private final Clock real = Clock.tick(Clock.systemUTC(), Duration.ofNanos(1000));
    private volatile Instant set;

    public void set(Instant moment) {
        set = moment;
    }

    /** From now on the time of day is the real one. */
    public void run() {
        set = null;
    }

    @Override
    public Instant instant() {
        Instant standing = set;
        return standing != null ? standing : real.instant();
    }

    @Override
    public ZoneId getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return this;
    }
}
