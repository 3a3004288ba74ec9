package org.vastporch.demo;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Import;
import org.springframework.context.annotation.Primary;
import org.vastporch.server.VastPorch;
import org.vastporch.server.start.Doors;
import org.vastporch.server.start.StartFault;
import org.vastporch.standins.OutsideHost;
import org.vastporch.standins.PostOffice;

/** The demo: the server with the made-up school in it and the outside world in small beside it. */
@SpringBootApplication
@Import(VastPorch.class)
public class Demo {

    private static final int HOST_BESIDE = 11;
    private static final int POST_BESIDE = 12;

    /** A demo that runs: the server and the outside host. */
    public record Running(ConfigurableApplicationContext server, OutsideHost outside, PostOffice post, int port)
            implements AutoCloseable {

        public String address() {
            return "http://localhost:" + port;
        }

        @Override
        public void close() {
            server.close();
            outside.close();
            post.close();
        }
    }

    @Bean
    @Primary
    Clock demoClock() {
        return new DemoClock();
    }

    /**
     * Starts the demo.
     *
     * @param port 0 for any free one
     * @param data the data folder; filled with the demo school if it has none
     * @param settings further settings of the server
     */
    public static Running start(int port, String data, Map<String, Object> settings) {
        OutsideHost outside = new OutsideHost(port == 0 ? 0 : port + HOST_BESIDE, Instant.now());
        PostOffice post = new PostOffice(port == 0 ? 0 : port + POST_BESIDE);
        Map<String, Object> properties = new HashMap<>(settings);
        properties.put("spring.mail.host", "127.0.0.1");
        properties.put("spring.mail.port", Integer.getInteger("vastporch.demo.post", post.smtpPort()));
        properties.put("server.port", port);
        properties.put("vastporch.data", data);
        properties.put("vastporch.quiet", true);
        properties.put("vastporch.videos", outside.base() + "/watch/{id} => " + outside.base() + "/embed/{id}");
        properties.merge(
                "vastporch.feeds.allowed-private-hosts", outside.hostAndPort(), (others, own) -> others + "," + own);
        SpringApplication application = new SpringApplication(Demo.class);
        try {
            ConfigurableApplicationContext server = application.run(properties.entrySet().stream()
                    .map(p -> "--" + p.getKey() + "=" + p.getValue())
                    .toArray(String[]::new));
            server.getBean(DemoSchool.class).make(outside.base());
            outside.publishEvery(Duration.ofMinutes(20));
            return new Running(
                    server,
                    outside,
                    post,
                    Integer.parseInt(server.getEnvironment().getProperty("local.server.port")));
        } catch (RuntimeException e) {
            outside.close(); // or their threads would keep a demo alive that has no server
            post.close();
            throw e;
        }
    }

    public static void main(String[] args) {
        StartFault.told(Demo::open);
    }

    private static void open() {
        int port = Integer.getInteger("vastporch.port", 8080);
        String data = System.getProperty("vastporch.data", "./data/demo");
        Doors.checkPort(System.getProperty("vastporch.listen", VastPorch.LISTEN), port);
        if (port != 0)
            for (int beside : new int[] {HOST_BESIDE, POST_BESIDE}) Doors.checkPort(VastPorch.LISTEN, port + beside);
        Doors.checkData(Path.of(data));
        if (Boolean.getBoolean("vastporch.fresh")) {
            Doors.empty(Path.of(data));
            Doors.checkData(Path.of(data));
        }
        Doors.noteMadeUp(Path.of(data));
        Running running = start(port, data, Map.of());
        System.out.println("Vast Porch is open at " + running.address()
                + " · sign in as quill (teacher), wren.c (student), hester (keeper), fennimore, ardizzone or crake"
                + " · password porch-demo · outside blogs at "
                + running.outside().base() + " · letters at " + running.post().base());
    }
}
