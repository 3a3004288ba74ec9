package org.vastporch.server.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.Instant;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.server.http.Problem;
import org.vastporch.standins.OutsideHost;

/** Pictures that come along with what somebody pasted. */
class OutsidePicturesTest {

    private final OutsideHost outside = new OutsideHost(0, Instant.parse("2026-11-26T10:00:00Z"));
    private final OutsidePictures pictures = new OutsidePictures(new SafeFetcher(outside.hostAndPort()));

    @AfterEach
    void close() {
        outside.close();
    }

    @Test
    void anOwnCopyIsFetched() throws IOException {
        assertEquals(
                320,
                ImageIO.read(new ByteArrayInputStream(pictures.fetch(outside.base() + "/picture.png")))
                        .getWidth());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "http://127.0.0.1:9/leaf.png",
                "http://10.0.0.1/leaf.png",
                "http://169.254.169.254/latest",
                "http://[::1]/leaf.png",
                "file:///etc/passwd",
                "javascript:alert(1)",
                "leaf.png",
                "",
                "http://"
            })
    void nothingIsFetchedFromWithin(String address) {
        Problem refused = assertThrows(Problem.class, () -> pictures.fetch(address));
        assertEquals("picture-not-fetched", refused.code());
        assertFalse(refused.getMessage().isBlank());
    }

    @Test
    void whatIsNotThereIsSaid() {
        assertEquals(
                "The picture is not there, or its server does not give it to others.",
                assertThrows(Problem.class, () -> pictures.fetch(outside.base() + "/nothing/here.png"))
                        .getMessage());
    }
}
