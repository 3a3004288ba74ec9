package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import javax.sql.DataSource;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.server.Crawl.Call;
import org.vastporch.server.School.Answer;
import org.vastporch.server.log.ClassChanges;

/**
 * Nothing is written by a call that is refused, and a call that is allowed writes only rows of the kinds that
 * proof/ledger.txt names. No answer to a write, given or refused, holds a secret that its reader may not see. What was
 * read before a write is never given out as what is there after it. Every call begins from the same rows.
 */
@ProofTest
class WriteLedgerTest {

    /** One of so many calls in a run of all tests; all of them in the long proof. */
    private static final int ONE_OF = Proof.isWhole() ? 1 : 6;

    @Autowired
    CanaryBuild build;

    @Autowired
    CanarySchool school;

    @Autowired
    Crawl crawl;

    @Autowired
    DataSource source;

    @Autowired
    ClassChanges changes;

    @LocalServerPort
    int port;

    private record Tried(char role, Call call) {}

    @BeforeEach
    void makeSchool() {
        build.once(port);
    }

    @Test
    void aRefusedCallWritesNothingAndAnAllowedOneOnlyWhatTheLedgerNames() {
        Map<String, String> ledger = Table.read("ledger.txt");
        Map<String, String> allowed = Table.read("canaries.txt");
        Map<String, String> wrong = new TreeMap<>();
        DatabaseCopy copy = DatabaseCopy.of(source);
        List<Tried> tries = tries();
        List<Tried> keeps = keeps();
        Random chance = new Random(Proof.seed());
        Proof.Progress progress = Proof.progress("write ledger", tries.size());
        for (Tried tried : tries) {
            Tried kept = keeps.get(chance.nextInt(keeps.size()));
            crawl.call(kept.role(), kept.call());
            Answer answer = crawl.call(tried.role(), tried.call());
            assertTrue(answer.status() < 500, () -> tried + ": " + answer.text());
            TreeSet<String> changed = copy.changedTo(DatabaseCopy.of(source));
            if (!changed.isEmpty() && isStale(kept))
                wrong.putIfAbsent(kept + " after " + tried.call().of(), tried.role() + " " + tried.call());
            copy.putBack(source, changed);
            changes.noteEverywhere();
            boolean refused = answer.status() >= 400
                    || answer.body().isArray() && answer.body().path(0).has("problem");
            Set<String> may = refused
                    ? Set.of()
                    : mayWrite(ledger.getOrDefault(tried.call().of(), ""), tried.role());
            if (tried.call().never().indexOf(tried.role()) >= 0 && !changed.isEmpty())
                wrong.putIfAbsent(
                        tried.call().of() + " is nobody's or not theirs",
                        tried.role() + " " + tried.call() + " wrote " + changed);
            if (!may.containsAll(changed))
                wrong.putIfAbsent(
                        tried.call().of() + (refused ? " refused" : ""),
                        tried.role() + " " + tried.call() + " wrote " + changed);
            for (Canary canary : crawl.seenIn(tried.call(), answer))
                if (allowed.getOrDefault(canary.kind(), "").indexOf(tried.role()) < 0)
                    wrong.putIfAbsent(
                            canary.kind() + " as " + tried.role(), tried.call() + " answers " + answer.text());
            progress.step();
        }
        assertEquals(Map.of(), wrong);
    }

    /** What is given out again as long as nothing happens in the class. */
    private List<Tried> keeps() {
        String porch = "/api/classes/" + school.classId + "/porch";
        String feed = "/feeds/classes/" + school.classId + ".atom";
        List<Tried> keeps = new ArrayList<>();
        for (char reader : "L2SGCV".toCharArray())
            keeps.add(new Tried(reader, new Call(porch, "GET", porch, null, "")));
        keeps.add(new Tried('-', new Call(feed, "GET", feed, null, "")));
        return keeps;
    }

    private boolean isStale(Tried kept) {
        String given = crawl.call(kept.role(), kept.call()).text();
        changes.noteEverywhere();
        return !given.equals(crawl.call(kept.role(), kept.call()).text());
    }

    /** The tables of a line of the ledger; none for whom it does not name, if it names anybody. */
    private static Set<String> mayWrite(String line, char role) {
        boolean named = line.startsWith("(");
        if (named && line.substring(0, line.indexOf(')')).indexOf(role) < 0) return Set.of();
        return new TreeSet<>(
                Arrays.asList((named ? line.substring(line.indexOf(')') + 1).strip() : line).split(" ")));
    }

    /**
     * Everything as everybody, in an order of chance; a seeded part of it, and always what somebody would begin with
     * who wants in.
     */
    private List<Tried> tries() {
        List<Tried> all = new ArrayList<>();
        for (Call call : crawl.writes()) for (char role : school.roles.keySet()) all.add(new Tried(role, call));
        Collections.shuffle(all, new Random(Proof.seed()));
        int part = all.size() / ONE_OF;
        List<Tried> tries = new ArrayList<>(all.subList(0, part));
        all.subList(part, all.size()).stream().filter(WriteLedgerTest::wantsIn).forEach(tries::add);
        return tries;
    }

    /** Judging as a moderator, a refusal of which once held the difference; and taking somebody's account. */
    private static boolean wantsIn(Tried tried) {
        return tried.role() == 'M' && tried.call().of().equals("POST /api/pile/decisions")
                || tried.call().takesAnAccount();
    }
}
