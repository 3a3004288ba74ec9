package org.vastporch.server;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.springframework.boot.test.context.SpringBootTest;

/** The real server on a free port, with a database in memory that all such tests share. */
@Target(ElementType.TYPE)
@Retention(RetentionPolicy.RUNTIME)
@SpringBootTest(
        webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT,
        properties = {
            "spring.datasource.url=jdbc:h2:mem:school;DB_CLOSE_DELAY=-1",
            "vastporch.data=target/test-data",
            "vastporch.quiet=true",
            "vastporch.videos=https://films.example/watch/{id} => https://films.example/embed/{id}",
            "vastporch.counts.kept=PT0S",
            "vastporch.feeds.check-every=PT1H",
            "vastporch.feeds.between=PT0S",
            "vastporch.proxies=127.0.0.1,10.9.9.9",
            "vastporch.mail.send-every=PT1H",
            "vastporch.peers.every=PT1H",
            "vastporch.reports.every=PT1H",
            "vastporch.mail.digest-every=PT1H"
        })
public @interface ServerTest {}
