package org.vastporch.e2e;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Somebody who talks to a running school as a browser does, without the browser. */
final class Visitor {

    private static final JsonMapper JSON = new JsonMapper();

    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();
    private final String address;

    Visitor(String address, String username, String password) throws IOException, InterruptedException {
        this.address = address;
        call("GET", "/api/me", "");
        call("POST", "/api/session", "{\"username\":\"" + username + "\",\"password\":\"" + password + "\"}");
        call("GET", "/api/me", "");
    }

    JsonNode get(String path) throws IOException, InterruptedException {
        return call("GET", path, "");
    }

    /** The answer to a request that must succeed; an {@link IOException} with what was said if it does not. */
    JsonNode call(String method, String path, String body) throws IOException, InterruptedException {
        String token = cookies.getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals("XSRF-TOKEN"))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("");
        HttpResponse<String> answer = http.send(
                HttpRequest.newBuilder(URI.create(address + path))
                        .header("Content-Type", "application/json")
                        .header("X-XSRF-TOKEN", token)
                        .method(method, HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        boolean isStranger = answer.statusCode() == 401 && path.equals("/api/me");
        if (answer.statusCode() >= 400 && !isStranger)
            throw new IOException(method + " " + path + ": " + answer.body());
        return JSON.readTree(answer.body().isEmpty() ? "{}" : answer.body());
    }
}
