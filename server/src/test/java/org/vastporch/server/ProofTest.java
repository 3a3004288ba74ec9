package org.vastporch.server;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.springframework.boot.test.context.SpringBootTest;

/** The real server with a database that only the proofs use, so that they know every row of it. */
@Target(ElementType.TYPE)
@Retention(RetentionPolicy.RUNTIME)
@SpringBootTest(
        webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT,
        properties = {
            "spring.datasource.url=jdbc:h2:mem:proof;DB_CLOSE_DELAY=-1",
            "vastporch.data=target/proof-data",
            "vastporch.quiet=true",
            "vastporch.counts.kept=PT0S",
            "vastporch.feeds.check-every=PT1H",
            "vastporch.feeds.between=PT0S",
            "vastporch.mail.send-every=PT1H",
            "vastporch.mail.digest-every=PT1H",
            "spring.datasource.hikari.maximum-pool-size=16"
        })
public @interface ProofTest {}
