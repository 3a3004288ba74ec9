package org.vastporch.server;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Function;
import tools.jackson.core.json.JsonWriteFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Requests as careless or hostile programs send them, made from the description of the web API: each is right but for
 * one thing of a wrong kind.
 */
final class OddRequests {

    /**
     * @param path with everything filled in
     * @param body the text that is sent, JSON or not; null for none
     */
    record Odd(String method, String path, String body) {}

    /** What stands where a number belongs, in an address. */
    private static final List<String> NO_NUMBERS = List.of(
            "word",
            "0",
            "-1",
            "1.5",
            "99999999999999999999",
            "9223372036854775807",
            "%00",
            "%ED%A0%80",
            "%FF",
            "1%2F2",
            "%F0%9F%8C%B1",
            "NaN");
    /** Bodies that are no bodies. */
    private static final List<String> NO_BODIES = List.of(
            "",
            "{",
            "null",
            "[]",
            "[null]",
            "{}",
            "\"word\"",
            "7",
            "[".repeat(3_000),
            "{\"a\":".repeat(600),
            "{\"\\ud800\":1}");

    private static final String LONE_SURROGATE = "\ud800";
    /** What stands in the place of one part of a body. */
    private static final List<Object> NO_PARTS = Arrays.asList(
            null,
            "",
            " ",
            "word",
            0,
            -1,
            1.5,
            Long.MAX_VALUE,
            Integer.MIN_VALUE,
            1e300,
            true,
            List.of(),
            Arrays.asList((Object) null),
            Map.of(),
            "\u0000",
            LONE_SURROGATE,
            "a" + LONE_SURROGATE + "b",
            "\u202eback",
            "x".repeat(73),
            "ü".repeat(72),
            "x".repeat(5_000),
            "http//no",
            "://",
            "http:",
            "javascript:x",
            "a@b\r\nBcc: c@d",
            "<b",
            "&#0;",
            "+999999999-12-31T23:59:59Z",
            "-9999-01-01",
            "2026-02-30",
            "25:61",
            "%",
            "${x}",
            "Europe/Nowhere");

    private static final JsonMapper ASCII =
            JsonMapper.builder().enable(JsonWriteFeature.ESCAPE_NON_ASCII).build();

    private final JsonNode description;
    private final Random random;
    /** A number of a thing that is there, by the part of an address before it. */
    private final Function<String, Object> thing;

    OddRequests(JsonNode description, Random random, Function<String, Object> thing) {
        this.description = description;
        this.random = random;
        this.thing = thing;
    }

    /** So many variants of one call of the description. */
    List<Odd> of(String path, String method, int variants) {
        JsonNode call = description.get("paths").get(path).get(method);
        JsonNode body = call.path("requestBody")
                .path("content")
                .path("application/json")
                .path("schema");
        List<Odd> all = new ArrayList<>();
        for (int i = 0; i < variants; i++) {
            // In every fourth the address is odd; in the others something behind it.
            boolean oddPath = i % 4 == 3
                    || body.isMissingNode()
                            && call.path("parameters")
                                    .valueStream()
                                    .noneMatch(p -> p.get("in").asString().equals("query"));
            all.add(new Odd(
                    method.toUpperCase(),
                    path(path, oddPath) + query(call),
                    body.isMissingNode() ? null : body(body, i)));
        }
        return all;
    }

    private String path(String template, boolean odd) {
        String[] parts = template.split("/");
        StringBuilder path = new StringBuilder();
        for (int i = 1; i < parts.length; i++) {
            boolean names = parts[i].startsWith("{");
            path.append('/')
                    .append(
                            !names
                                    ? parts[i]
                                    : odd && random.nextBoolean()
                                            ? one(NO_NUMBERS)
                                            : String.valueOf(thing.apply(parts[i - 1])));
        }
        return path.toString();
    }

    private String query(JsonNode call) {
        List<String> query = new ArrayList<>();
        for (JsonNode parameter : call.path("parameters"))
            if (parameter.get("in").asString().equals("query") && random.nextInt(3) > 0)
                query.add(parameter.get("name").asString() + "=" + one(NO_NUMBERS));
        return query.isEmpty() ? "" : "?" + String.join("&", query);
    }

    private String body(JsonNode schema, int variant) {
        if (variant % 5 == 4) return one(NO_BODIES);
        int[] left = {random.nextInt(Math.max(1, parts(schema, 0)))};
        return ASCII.writeValueAsString(value(schema, left, 0));
    }

    /** How many parts a body has in which something odd can stand. */
    private int parts(JsonNode schema, int depth) {
        JsonNode of = resolved(schema);
        if (depth > 6) return 1;
        int all = 1;
        for (Map.Entry<String, JsonNode> part : of.path("properties").properties())
            all += parts(part.getValue(), depth + 1);
        return of.has("items") ? all + parts(of.get("items"), depth + 1) : all;
    }

    /** A right value, but for the part to which the count comes down. */
    private Object value(JsonNode schema, int[] left, int depth) {
        if (left[0]-- == 0) return one(NO_PARTS);
        JsonNode of = resolved(schema);
        if (of.has("enum"))
            return one(of.get("enum").valueStream().map(JsonNode::asString).toList());
        if (of.has("properties") && depth <= 6) {
            Map<String, Object> object = new LinkedHashMap<>();
            of.get("properties")
                    .properties()
                    .forEach(part -> object.put(part.getKey(), value(part.getValue(), left, depth + 1)));
            return object;
        }
        return switch (type(of)) {
            case "integer" -> thing.apply(one(List.of("posts", "classes", "people", "blogs", "prompts", "groups")));
            case "number" -> 1.5;
            case "boolean" -> random.nextBoolean();
            case "array" ->
                of.has("items") ? Collections.singletonList(value(of.get("items"), left, depth + 1)) : List.of();
            case "string" ->
                switch (of.path("format").asString("")) {
                    case "date-time" -> "2026-11-26T10:00:00Z";
                    case "date" -> "2026-11-26";
                    case "time-local" -> "10:00:00";
                    default -> "Leaves";
                };
            default -> Map.of();
        };
    }

    private JsonNode resolved(JsonNode schema) {
        if (!schema.has("$ref")) return schema;
        String ref = schema.get("$ref").asString();
        return description.get("components").get("schemas").get(ref.substring(ref.lastIndexOf('/') + 1));
    }

    private static String type(JsonNode schema) {
        JsonNode type = schema.path("type");
        if (!type.isArray()) return type.asString("");
        return type.valueStream()
                .map(JsonNode::asString)
                .filter(t -> !t.equals("null"))
                .findFirst()
                .orElse("");
    }

    private <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }
}
