package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;

/** What is due as a calendar at a secret address: each by their own dates, changes with a higher number. */
@ServerTest
class DueCalendarFeedTest extends Assessing {

    private String address(Person of) {
        return of.post("/api/classes/" + this.of.classId() + "/feed-key", null)
                .body()
                .get("path")
                .asString()
                .replace(".rss", ".ics");
    }

    private String read(String address) {
        Answer answer = school.stranger(port).get(address);
        assertEquals(200, answer.status(), answer.text());
        assertEquals(
                "text/calendar;charset=UTF-8",
                answer.raw().headers().firstValue("content-type").orElse(""));
        return answer.text().replace("\r\n ", "");
    }

    private static String utc(LocalDateTime time) {
        return DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss'Z'")
                .format(time.withNano(0).atZone(LONDON).withZoneSameInstant(ZoneOffset.UTC));
    }

    private static List<String> all(String text, String property) {
        return text.lines()
                .filter(l -> l.startsWith(property + ":"))
                .map(l -> l.substring(property.length() + 1))
                .toList();
    }

    private void allow(long prompt, Map<String, Object> allowance) {
        Answer answer = of.lead().put("/api/prompts/" + prompt + "/allowances/" + of.first().id, allowance);
        assertTrue(answer.status() < 300, answer.text());
    }

    @Test
    void eachReadsTheirOwnDates() {
        LocalDateTime due = in(5).withSecond(0).withNano(0);
        long prompt = set(open("Slugs; and snails", due));
        set(wanted("Not open yet", in(9)));
        String first = address(of.first());
        String lead = address(of.lead());
        assertEquals(List.of("Slugs\\; and snails"), all(read(first), "SUMMARY"));
        assertEquals(List.of(utc(due)), all(read(first), "DTSTART"));
        assertEquals(2, all(read(lead), "SUMMARY").size(), "staff know what is to come");
        assertEquals(List.of(), all(read(address(of.guest())), "SUMMARY"));
        String uid = all(read(first), "UID").get(0);
        int sequence = Integer.parseInt(all(read(first), "SEQUENCE").get(0));

        LocalDateTime own = due.plusDays(2);
        allow(prompt, Map.of("due", own.toString(), "letOff", false, "again", false));
        assertEquals(List.of(utc(own)), all(read(first), "DTSTART"));
        assertEquals(List.of(utc(due)), all(read(address(of.other())), "DTSTART"), "a date of one's own is one's own");
        assertEquals(List.of(uid), all(read(first), "UID"));
        int moved = Integer.parseInt(all(read(first), "SEQUENCE").get(0));
        assertTrue(moved > sequence);
        allow(prompt, Map.of("letOff", true, "again", false));
        assertEquals(List.of("CANCELLED"), all(read(first), "STATUS"));
        allow(prompt, Map.of("letOff", false, "again", false));
        assertEquals(List.of("CONFIRMED"), all(read(first), "STATUS"));
        int back = Integer.parseInt(all(read(first), "SEQUENCE").get(0));
        assertTrue(back > moved + 1, "taking back is a change too: " + moved + ", " + back);
    }

    @Test
    void commentsAndReviewsAreDueToo() {
        Map<String, Object> wanted = new HashMap<>(open("Slugs", in(5)));
        Map<String, Object> asked = new HashMap<>(
                Map.of("words", 0, "pictures", 0, "tags", 0, "category", 0, "links", 0, "sources", 0, "comments", 2));
        wanted.put("asked", asked);
        wanted.put("commentsDue", in(8).toString());
        Map<String, Object> reviews = new HashMap<>(Map.of("self", "NOT_ASKED", "selfShare", 0));
        reviews.put("peers", peers(2));
        wanted.put("reviews", reviews);
        set(wanted);
        assertEquals(List.of("Slugs", "Slugs: comments", "Slugs: reviews"), all(read(address(of.first())), "SUMMARY"));
    }

    @Test
    void itEndsWithTheAddressAndWithThePlace() {
        set(open("Slugs", in(5)));
        String first = address(of.first());
        read(first);
        of.first().call("DELETE", "/api/classes/" + of.classId() + "/feed-key", null);
        assertEquals(404, school.stranger(port).get(first).status());
        String other = address(of.other());
        of.lead()
                .post(
                        "/api/classes/" + of.classId() + "/people/" + of.other().id + "/leaving",
                        Map.of("leaving", "KEEP"));
        Answer gone = school.stranger(port).get(other);
        assertTrue(gone.status() >= 400, gone.text());
        assertFalse(gone.text().contains("Slugs"), gone.text());
        assertEquals(404, school.stranger(port).get("/feeds/mine/nobody.ics").status());
    }
}
