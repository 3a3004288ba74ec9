package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What the web API says of itself, and that no part of it talks to strangers. */
@ServerTest
class ContractTest {

    private static final Set<String> OPEN = Set.of("/api/session", "/api/first-password", "/api/join", "/api/join/class", "/api/invitation", "/api/invitation/accept");

    @Autowired School school;
    @Autowired JsonMapper json;
    @LocalServerPort int port;

    @Test
    void theFrontEndsDescriptionOfTheApiIsFresh() throws IOException {
        JsonNode kept = json.readTree(Files.readString(Path.of("../web/src/api/openapi.json")));
        assertTrue(kept.equals(json.readTree(school.stranger(port).get("/api/openapi").text())),
            "Write the answer of /api/openapi to web/src/api/openapi.json and run npm run types in web");
    }

    /** The list of endpoints comes from the description, so that a new one cannot be forgotten. */
    @Test
    void everyEndpointRefusesStrangers() {
        School.Made of = school.make(port);
        School.Person stranger = school.stranger(port);
        List<String> talked = new ArrayList<>();
        stranger.get("/api/openapi").body().get("paths").properties().forEach(path -> path.getValue().properties().forEach(method -> {
            if (OPEN.contains(path.getKey()) || method.getValue().toString().contains("multipart")) return;
            String address = path.getKey().replace("/classes/{id}", "/classes/" + of.classId()).replaceAll("\\{[a-z]+}", "1");
            String verb = method.getKey().toUpperCase();
            int status = stranger.call(verb, address, verb.equals("GET") || verb.equals("DELETE") ? null : Map.of()).status();
            if (status != 401 && status != 404 && status != 400) talked.add(verb + " " + address + " " + status);
        }));
        assertEquals(List.of(), talked);
    }

    @Test
    void aRequestWithoutTheTokenIsRefused() {
        School.Made of = school.make(port);
        assertEquals(403, of.lead().call("POST", "/api/classes", Map.of(), "X-XSRF-TOKEN", "forged").status());
    }
}
