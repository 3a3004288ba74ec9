package org.vastporch.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Somebody who signs in to the school and asks it over HTTP. */
final class Person {

    private static final JsonMapper JSON = new JsonMapper();

    private final String address;
    private final HttpClient http;
    private final Map<String, String> cookies = new HashMap<>();

    /** Signs in with the password of the demo school. */
    Person(String address, HttpClient http, String username) throws IOException, InterruptedException {
        this.address = address;
        this.http = http;
        send("GET", "/api/me", null, "application/json");
        send(
                "POST",
                "/api/session",
                JSON.writeValueAsBytes(Map.of("username", username, "password", "porch-demo")),
                "application/json");
    }

    HttpResponse<byte[]> send(String method, String path, byte[] body, String type)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", type)
                .method(
                        method,
                        body == null
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofByteArray(body));
        if (!cookies.isEmpty()) request.header("Cookie", cookie());
        if (cookies.containsKey("XSRF-TOKEN")) request.header("X-XSRF-TOKEN", cookies.get("XSRF-TOKEN"));
        HttpResponse<byte[]> answer = http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
        for (String set : answer.headers().allValues("Set-Cookie"))
            cookies.put(set.split("=", 2)[0], set.split("=", 2)[1].split(";")[0]);
        return answer;
    }

    JsonNode json(String method, String path, Object body) throws IOException, InterruptedException {
        HttpResponse<byte[]> answer =
                send(method, path, body == null ? null : JSON.writeValueAsBytes(body), "application/json");
        String text = new String(answer.body(), StandardCharsets.UTF_8);
        return JSON.readTree(text.startsWith("{") || text.startsWith("[") ? text : "{}");
    }

    HttpResponse<byte[]> get(String path) throws IOException, InterruptedException {
        return send("GET", path, null, "application/json");
    }

    HttpResponse<byte[]> post(String path, Object body) throws IOException, InterruptedException {
        return send("POST", path, JSON.writeValueAsBytes(body), "application/json");
    }

    HttpResponse<byte[]> put(String path, Object body) throws IOException, InterruptedException {
        return send("PUT", path, JSON.writeValueAsBytes(body), "application/json");
    }

    /** What the requests of this person carry to be known by. */
    String cookie() {
        return String.join(
                "; ",
                cookies.entrySet().stream()
                        .map(c -> c.getKey() + "=" + c.getValue())
                        .toList());
    }

    HttpResponse<byte[]> upload(String path, String name, byte[] file) throws IOException, InterruptedException {
        ByteArrayOutputStream form = new ByteArrayOutputStream();
        form.writeBytes(("--b\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + name
                        + "\"\r\nContent-Type: application/octet-stream\r\n\r\n")
                .getBytes(StandardCharsets.UTF_8));
        form.writeBytes(file);
        form.writeBytes("\r\n--b--\r\n".getBytes(StandardCharsets.UTF_8));
        return send("POST", path, form.toByteArray(), "multipart/form-data; boundary=b");
    }
}
