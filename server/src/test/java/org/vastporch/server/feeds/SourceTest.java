package org.vastporch.server.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.time.Instant;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.server.http.Problem;
import org.vastporch.standins.OutsideHost;

/** Pasted addresses and hostile hosts, against the host that stands for the outside world. */
class SourceTest {

    static OutsideHost outside;
    static SourceFinder finder;

    @BeforeAll
    static void open() {
        outside = new OutsideHost(0, Instant.now());
        finder = new SourceFinder(new SafeFetcher(outside.hostAndPort()));
    }

    @AfterAll
    static void close() {
        outside.close();
    }

    @ParameterizedTest
    @CsvSource({
        "/rowlock/feed.xml, FEED, 1",
        "/rowlock/, SITE_WITH_FEEDS, 1",
        "/rowlock/rope-for-beans, SINGLE_POST, 1",
        "/clinker/, NO_FEED, 1",
        "/oakum/how-tight-is-tight/edit, EDITING_ADDRESS, 1",
        "/, NO_FEED, 0"
    })
    void saysWhatAnAddressIsAndFindsItsFeed(String path, String kind, int feeds) {
        SourceFinder.Found found = finder.look(outside.base() + path, Instant.now());
        assertEquals(kind, found.kind());
        assertEquals(feeds, found.candidates().size(), found.sentence());
    }

    @ParameterizedTest
    @CsvSource({
        "/nothing-here, not-found",
        "/hostile/loop, redirects",
        "/hostile/private, private-address",
        "/hostile/file, redirects",
        "/hostile/endless, too-large",
        "/hostile/broken.xml, broken-feed",
        "/hostile/deeper.xml, broken-feed",
        "/hostile/entity.xml, broken-feed"
    })
    void refusesHarmInWords(String path, String code) {
        Problem problem = assertThrows(Problem.class, () -> finder.look(outside.base() + path, Instant.now()));
        assertEquals(code, problem.code(), problem.getMessage());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "http://127.0.0.1:1/",
                "http://localhost:1/",
                "http://[::1]:1/",
                "http://10.0.0.1/",
                "http://169.254.169.254/",
                "http://2130706433/",
                "http://0.0.0.0/"
            })
    void neverReachesAPrivateAddress(String address) {
        Problem problem = assertThrows(Problem.class, () -> finder.look(address, Instant.now()));
        assertTrue(problem.code().equals("private-address") || problem.code().equals("not-found"), problem.code());
    }

    /** Before: two minutes for one feed of twenty thousand nested tags. */
    @Test
    @Timeout(20)
    void deepNestingHangsNothing() {
        assertEquals(
                "end",
                finder.look(outside.base() + "/hostile/deep.xml", Instant.now())
                        .candidates()
                        .get(0)
                        .preview()
                        .get(0)
                        .firstLines());
    }

    @Test
    void scriptsInAFeedDoNotGetThrough() {
        SourceFinder.Found found = finder.look(outside.base() + "/hostile/script.xml", Instant.now());
        assertEquals("Fine words", found.candidates().get(0).preview().get(0).firstLines());
    }

    @ParameterizedTest
    @CsvSource({
        "8.8.8.8, false",
        "100.64.0.1, true",
        "192.168.3.4, true",
        "172.20.0.1, true",
        "198.18.0.1, true",
        "240.0.0.1, true",
        "fd00::1, true",
        "fe80::1, true",
        "2002:7f00:1::, true",
        "::ffff:127.0.0.1, true",
        "64:ff9b::7f00:1, true",
        "2606:4700::1111, false"
    })
    void knowsPrivateNetworks(String address, boolean isPrivate) throws UnknownHostException {
        assertEquals(isPrivate, SafeFetcher.isPrivate(InetAddress.getByName(address)));
    }
}
