package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import javax.sql.DataSource;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.server.OddRequests.Odd;
import org.vastporch.server.School.Answer;
import tools.jackson.databind.JsonNode;

/**
 * Whatever is sent to whichever call of the web API, by a teacher, a student or a stranger: it is answered in our form,
 * and never as a fault of ours.
 */
@ProofTest
class OddRequestsTest {

    private static final int VARIANTS = Proof.isWhole() ? 20 : 5;

    @Autowired
    CanaryBuild build;

    @Autowired
    CanarySchool school;

    @Autowired
    DataSource source;

    @LocalServerPort
    int port;

    @BeforeEach
    void makeSchool() {
        build.once(port);
    }

    @Test
    void noRequestIsAFaultOfOurs() {
        JsonNode description = school.who('-').get("/api/openapi").body();
        Random random = new Random(Proof.seed());
        OddRequests odd = new OddRequests(description, random, before -> thing(before, random));
        Map<String, String> wrong = new TreeMap<>();
        DatabaseCopy copy = DatabaseCopy.of(source);
        description.get("paths").properties().forEach(path -> path.getValue()
                .propertyNames()
                .forEach(method -> {
                    for (Odd request : odd.of(path.getKey(), method, VARIANTS))
                        for (char role : new char[] {'L', 'S', '-'}) {
                            // Whoever signs out asks nothing more.
                            if (path.getKey().equals("/api/session") && role != '-') continue;
                            Answer answer = school.who(role).callText(request.method(), request.path(), request.body());
                            if (answer.status() >= 500)
                                wrong.putIfAbsent(
                                        method + " " + path.getKey(),
                                        answer.status() + " as " + role + " to " + shortened(request) + ": "
                                                + answer.text());
                            if (answer.status() >= 400
                                    && answer.status() < 500
                                    && answer.code().isEmpty()
                                    && answer.text().startsWith("{"))
                                wrong.putIfAbsent(
                                        method + " " + path.getKey(),
                                        "no code in " + answer.text() + " to " + shortened(request));
                        }
                    copy.putBack(source, copy.changedTo(DatabaseCopy.of(source)));
                }));
        assertEquals(Map.of(), wrong);
    }

    private Object thing(String before, Random random) {
        List<Object> things = school.things.getOrDefault(Crawl.AFTER.get(before), List.of(0));
        return things.get(random.nextInt(things.size()));
    }

    private static String shortened(Odd request) {
        String all = request.toString();
        return all.length() > 300 ? all.substring(0, 300) + "…" : all;
    }
}
