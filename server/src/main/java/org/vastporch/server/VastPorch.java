package org.vastporch.server;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Locale;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import org.springframework.scheduling.annotation.EnableScheduling;
import org.vastporch.server.start.Doors;
import org.vastporch.server.start.StartFault;

/** The application. */
@SpringBootApplication
@EnableScheduling
public class VastPorch {

    /** Unless told otherwise the server is there for this machine alone. */
    public static final String LISTEN = "127.0.0.1";

    public static void main(String[] args) {
        StartFault.told(() -> {
            Doors.checkPort(setting("vastporch.listen", LISTEN), Integer.parseInt(setting("server.port", "8080")));
            Doors.checkData(Path.of(setting("vastporch.data", "./data")));
            SpringApplication.run(VastPorch.class, args);
        });
    }

    /** A setting as it is given to the server: on the command line of Java, else by the environment. */
    private static String setting(String name, String usual) {
        String environment = System.getenv(name.toUpperCase(Locale.ROOT).replace('.', '_'));
        return System.getProperty(name, environment == null ? usual : environment);
    }

    /** The time of day, cut to the microseconds that the database keeps. */
    @Bean
    Clock clock() {
        return Clock.tick(Clock.systemUTC(), Duration.ofNanos(1000));
    }
}
