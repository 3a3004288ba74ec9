package org.vastporch.server.session;

import static org.junit.jupiter.api.Assertions.*;

import jakarta.servlet.FilterChain;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.vastporch.core.access.Viewer;

/** Files that come in at the same moment; each comes while the one before is still on its way. */
class UploadGateTest {

    private final UploadGate gate = new UploadGate();

    private MockHttpServletResponse send(long person, FilterChain meanwhile) throws Exception {
        MockHttpServletRequest request = new MockHttpServletRequest("POST", "/api/posts/1/files");
        request.setContentType("multipart/form-data; boundary=b");
        request.setAttribute(Viewer.class.getName(), new Viewer(person, false, List.of()));
        MockHttpServletResponse response = new MockHttpServletResponse();
        gate.doFilter(request, response, meanwhile);
        return response;
    }

    @Test
    void onePersonSendsThreeAtATimeAndOthersAreNotHeldUp() throws Exception {
        int[] fourth = {0};
        int[] other = {0};
        send(
                1,
                (a, b) -> sending(() -> send(
                        1,
                        (c, d) -> sending(() -> send(
                                1,
                                (e, f) -> sending(() -> {
                                    MockHttpServletResponse refused = send(1, (g, h) -> fail("it came in"));
                                    fourth[0] = refused.getStatus();
                                    assertEquals("3", refused.getHeader("Retry-After"));
                                    other[0] = send(2, (g, h) -> {}).getStatus();
                                }))))));
        assertEquals(429, fourth[0]);
        assertEquals(200, other[0]);
        assertEquals(200, send(1, (a, b) -> {}).getStatus(), "afterwards there is room again");
    }

    @Test
    void notMoreThanSixteenComeInAtOnce() throws Exception {
        assertEquals(16, depth(1, 0));
        assertEquals(16, depth(100, 0), "nothing is kept of those that ended");
    }

    private int depth(long person, int inside) throws Exception {
        int[] reached = {inside};
        MockHttpServletResponse response =
                send(person, (a, b) -> sending(() -> reached[0] = depth(person + 1, inside + 1)));
        return response.getStatus() == 429 ? inside : reached[0];
    }

    private interface Sending {
        void go() throws Exception;
    }

    private static void sending(Sending sending) {
        try {
            sending.go();
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }
}
