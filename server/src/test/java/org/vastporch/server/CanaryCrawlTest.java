package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.server.Crawl.Call;
import org.vastporch.server.School.Answer;

/**
 * Nothing that can be read holds a secret of somebody who may not see it. The school is asked everything as everybody;
 * who may see what stands in proof/canaries.txt, for people to read.
 */
@ProofTest
class CanaryCrawlTest {

    @Autowired
    CanaryBuild build;

    @Autowired
    CanarySchool school;

    @Autowired
    Crawl crawl;

    @LocalServerPort
    int port;

    @BeforeEach
    void makeSchool() {
        build.once(port);
    }

    @Test
    void nobodySeesWhatTheTableDoesNotAllow() {
        Map<String, String> allowed = Table.read("canaries.txt");
        Map<String, String> leaks = new TreeMap<>();
        TreeSet<String> seen = new TreeSet<>();
        for (Call call : crawl.reads())
            for (char role : school.roles.keySet()) {
                Answer answer = crawl.call(role, call);
                assertTrue(answer.status() < 500, () -> call + " as " + role + ": " + answer.text());
                note(leaks, seen, allowed, role, call, answer);
            }
        assertEquals(Map.of(), leaks);
        assertEquals(
                List.of(),
                unseen(allowed, seen),
                "whatever the table allows is seen somewhere: else the crawl would prove nothing");
    }

    /**
     * What anyone may read is the same for everybody, and holds nothing that a stranger may not see; but for the way in
     * of those who are in.
     */
    @Test
    void frontPagesShowEverybodyWhatAStrangerSees() {
        Map<String, String> allowed = Table.read("canaries.txt");
        Map<String, String> leaks = new TreeMap<>();
        Map<String, String> different = new TreeMap<>();
        TreeSet<String> seen = new TreeSet<>();
        for (Call call : crawl.frontPages()) {
            Answer strangers = crawl.call('-', call);
            assertTrue(strangers.status() < 500, () -> call + ": " + strangers.text());
            for (char role : school.roles.keySet()) {
                Answer answer = crawl.call(role, call);
                note(leaks, seen, allowed, '-', call, answer);
                if (!what(answer).equals(what(strangers))) different.putIfAbsent(call.path(), "as " + role);
            }
        }
        assertEquals(Map.of(), leaks);
        assertEquals(Map.of(), different);
        assertTrue(seen.contains("for-anyone -"), "the front pages show what is for anyone");
    }

    private static String what(Answer answer) {
        return answer.status()
                + answer.text()
                        .replaceAll("(?s)<form method=\"post\".*?</form>", "")
                        .replaceAll("(?m)^.*(Comment on it inside|\">Answer ).*$", "")
                        .replaceAll("\\s+", " ");
    }

    /** Through borrowed eyes one sees what the person sees. */
    @Test
    void borrowedEyesSeeWhatThePersonSees() {
        Map<String, String> allowed = Table.read("canaries.txt");
        Map<String, String> leaks = new TreeMap<>();
        String classmate = school.classId + "/" + build.placeOf(school.who('C').id);
        Map<Character, String> eyes =
                Map.of('C', classmate, 'V', school.classId + "/guest", '-', school.classId + "/stranger");
        for (Call call : crawl.reads()) {
            if (!call.path().startsWith("/api/") || call.path().equals("/api/me")) continue;
            eyes.forEach((role, whose) ->
                    note(leaks, new TreeSet<>(), allowed, role, call, crawl.call('L', call, "X-Porch-Eyes", whose)));
        }
        assertEquals(Map.of(), leaks);
    }

    private void note(
            Map<String, String> leaks,
            TreeSet<String> seen,
            Map<String, String> allowed,
            char role,
            Call call,
            Answer answer) {
        for (Canary canary : crawl.seenIn(call, answer)) {
            // A page that finds nothing says what was looked for.
            if (call.path().contains(canary.token()) && answer.text().contains("Nothing here has these words"))
                continue;
            seen.add(canary.kind() + " " + role);
            if (allowed.getOrDefault(canary.kind(), "").indexOf(role) < 0)
                leaks.putIfAbsent(canary.kind() + " as " + role, call.toString());
        }
    }

    private List<String> unseen(Map<String, String> allowed, TreeSet<String> seen) {
        List<String> unseen = new ArrayList<>();
        allowed.forEach((kind, roles) -> {
            // The address of one's own feed is told once, by the call that makes it.
            if (kind.equals("feed-key")) return;
            for (char role : roles.replace(".", "").toCharArray())
                if (!seen.contains(kind + " " + role)) unseen.add(kind + " as " + role);
        });
        return unseen;
    }

    /**
     * Every number, cursor and order is the same whether the secrets are there or not: what those who may see none of
     * them are answered now, is what they were answered before they were there.
     */
    @Test
    void secretsChangeNothingForThoseWhoMayNotSeeThem() {
        Map<String, String> changed = new LinkedHashMap<>();
        build.before().forEach((asked, answered) -> {
            String now = build.answer(asked);
            if (!now.equals(answered))
                changed.put(asked.role() + " " + asked.call(), answered + "\n instead of\n" + now);
        });
        assertEquals(Map.of(), changed);
    }
}
