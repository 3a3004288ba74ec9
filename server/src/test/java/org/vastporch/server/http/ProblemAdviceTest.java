package org.vastporch.server.http;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.vastporch.core.Refusal;

/** What goes wrong, and how it is told. */
class ProblemAdviceTest {

    private final ProblemAdvice advice = new ProblemAdvice();

    @Test
    void aRefusalOfTheCoreMarksItsField() {
        ProblemDetail told = advice.on(new Refusal("tags", "tag-too-long", "A tag has at most 40 characters."));
        assertEquals(422, told.getStatus());
        assertEquals(Map.of("code", "tag-too-long", "field", "tags"), told.getProperties());
        assertEquals("A tag has at most 40 characters.", told.getDetail());
        assertFalse(
                advice.on(new Refusal("", "busy", "Not now.")).getProperties().containsKey("field"));
    }

    /** What nobody expected is a fault of ours: it says nothing of itself but a number that stands in the log, too. */
    @Test
    void anUnexpectedArgumentIsAFaultOfOurs() {
        ProblemDetail told = advice.on((Exception) new IllegalArgumentException("select * from person"));
        assertEquals(500, told.getStatus());
        String id = (String) told.getProperties().get("id");
        assertTrue(id.matches("[0-9a-f]{8}"), id);
        assertTrue(told.getDetail().contains(id));
        assertFalse(told.toString().contains("select"));
        assertNotEquals(
                id,
                advice.on((Exception) new IllegalStateException())
                        .getProperties()
                        .get("id"));
    }

    @Test
    void whoeverHasToWaitHearsHowLong() {
        ResponseEntity<ProblemDetail> told = advice.on(Problem.tooMany("Later.").retryAfter(Duration.ofSeconds(5)));
        assertEquals(429, told.getStatusCode().value());
        assertEquals("5", told.getHeaders().getFirst("Retry-After"));
        assertNull(advice.on(Problem.missing()).getHeaders().getFirst("Retry-After"));
    }
}
