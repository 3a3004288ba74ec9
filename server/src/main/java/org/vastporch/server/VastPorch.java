package org.vastporch.server;

import java.time.Clock;
import java.time.Duration;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import org.springframework.scheduling.annotation.EnableScheduling;

/** The application. */
@SpringBootApplication
@EnableScheduling
public class VastPorch {

    public static void main(String[] args) {
        SpringApplication.run(VastPorch.class, args);
    }

    /** The time of day, cut to the microseconds that the database keeps. */
    @Bean
    Clock clock() {
        return Clock.tick(Clock.systemUTC(), Duration.ofNanos(1000));
    }
}
