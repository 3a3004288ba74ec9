package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What the web API says of itself; who may call what stands in {@link EndpointTableTest}. */
@ServerTest
class ContractTest {

    @Autowired
    School school;

    @Autowired
    JsonMapper json;

    @LocalServerPort
    int port;

    @Test
    void theFrontEndsDescriptionOfTheApiIsFresh() throws IOException {
        JsonNode kept = json.readTree(Files.readString(Path.of("../web/src/api/openapi.json")));
        assertTrue(
                kept.equals(
                        json.readTree(school.stranger(port).get("/api/openapi").text())),
                "Run ./porch types");
    }

    @Test
    void aRequestWithoutTheTokenIsRefused() {
        School.Made of = school.make(port);
        assertEquals(
                403,
                of.lead()
                        .call("POST", "/api/classes", Map.of(), "X-XSRF-TOKEN", "forged")
                        .status());
    }
}
