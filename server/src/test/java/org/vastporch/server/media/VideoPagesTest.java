package org.vastporch.server.media;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.server.media.VideoPages.Video;

class VideoPagesTest {

    private final VideoPages pages =
            new VideoPages("https://v.example/watch/{id} => https://play.v.example/embed/{id}, "
                    + "http://localhost:8101/w?v={id} => http://localhost:8101/e/{id}");

    @ParameterizedTest
    @ValueSource(
            strings = {
                "https://v.example/watch/bean-1",
                "https://play.v.example/embed/bean-1",
                "https://v.example/watch/bean-1?t=30",
                " https://v.example/watch/bean-1#x"
            })
    void aVideoIsKnownByItsPageAndByItsPlayer(String address) {
        assertEquals(
                Optional.of(new Video("https://v.example/watch/bean-1", "https://play.v.example/embed/bean-1")),
                pages.of(address));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "https://v.example/watch/",
                "https://v.example/watch/a/b",
                "https://v.example.evil.example/watch/a",
                "http://v.example/watch/a",
                "https://v.example/watch/<script>",
                "javascript:alert(1)",
                "",
                "https://vxexample/watch/a"
            })
    void nothingElseIsPlayed(String address) {
        assertTrue(pages.of(address).isEmpty());
    }

    @Test
    void theWholeAddressIsReadWhereTheNumberStandsInTheQuery() {
        assertEquals(
                "http://localhost:8101/e/b1",
                pages.of("http://localhost:8101/w?v=b1&list=x").orElseThrow().frame());
    }

    @Test
    void framesMayComeFromPlayersAlone() {
        assertEquals(List.of("https://play.v.example", "http://localhost:8101"), pages.origins());
        assertEquals(List.of(), new VideoPages("").origins());
        assertThrows(IllegalStateException.class, () -> new VideoPages("https://v.example/watch"));
        assertThrows(IllegalStateException.class, () -> new VideoPages("https://v.example/{id} => javascript:{id}"));
    }
}
