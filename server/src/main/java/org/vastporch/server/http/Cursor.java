package org.vastporch.server.http;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Where the next page of a list begins, as a text that nobody needs to understand. It is made from the last line of a
 * page and from nothing that does not stand there, so that it tells no more than the page.
 */
public final class Cursor {

    private static final String BETWEEN = "\n";
    private static final int LONGEST = 2_000;

    private Cursor() {}

    public static String of(Object... parts) {
        String text = Arrays.stream(parts).map(String::valueOf).collect(Collectors.joining(BETWEEN));
        return Base64.getUrlEncoder().withoutPadding().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    /**
     * Reads a cursor.
     *
     * @param read makes of the parts what they stand for; whatever it throws means that this is no cursor
     * @return empty for the first page
     * @throws Problem if it was not made here
     */
    public static <T> Optional<T> read(@Nullable String text, Function<List<String>, T> read) {
        if (text == null || text.isEmpty()) return Optional.empty();
        try {
            if (text.length() > LONGEST) throw new IllegalArgumentException("too long");
            return Optional.of(read.apply(List.of(
                    new String(Base64.getUrlDecoder().decode(text), StandardCharsets.UTF_8).split(BETWEEN, -1))));
        } catch (RuntimeException e) {
            throw Problem.invalid("after", "cursor-unknown", "This page address is broken. Go back to the first page.");
        }
    }
}
