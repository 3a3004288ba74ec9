package org.vastporch.server;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.vastporch.server.Crawl.Call;
import org.vastporch.server.School.Answer;
import org.vastporch.server.search.Indexer;

/** Makes the canary school once for all proofs, and remembers what was answered before its secrets were there. */
@Component
class CanaryBuild {

    /**
     * Those who may see none of the secrets that come later, and the calls that tell of more than what one may read.
     */
    private static final List<Character> OUTSIDERS = List.of('G', 'C', 'V', 'E', 'Y', '-');
    /** The usual wait is told on purpose: it is made of decisions about texts, and says nothing of any one. */
    private static final Set<String> TELL_MORE = Set.of("GET /api/classes/{}/usual-wait");

    record Asked(char role, Call call) {}

    private final CanarySchool school;
    private final Crawl crawl;
    private final JdbcClient jdbc;
    private final Indexer indexer;
    private final Map<Asked, String> before = new LinkedHashMap<>();

    CanaryBuild(CanarySchool school, Crawl crawl, JdbcClient jdbc, Indexer indexer) {
        this.school = school;
        this.crawl = crawl;
        this.jdbc = jdbc;
        this.indexer = indexer;
    }

    synchronized void once(int port) {
        if (school.classId != 0) {
            // Another proof put the rows back behind the back of the index.
            indexer.rebuild();
            return;
        }
        school.open(port);
        indexer.rebuild();
        for (Call call : crawl.reads())
            if (!TELL_MORE.contains(call.of()))
                for (char role : OUTSIDERS) {
                    Asked asked = new Asked(role, call);
                    before.put(asked, answer(asked));
                }
        school.addSecrets();
        indexer.rebuild();
        // Signing in writes, and is not what the proofs are about.
        school.roles.values().forEach(person -> person.get("/api/me"));
    }

    Map<Asked, String> before() {
        return before;
    }

    /** An answer without what passes with the minutes. */
    String answer(Asked asked) {
        Answer answer = crawl.call(asked.role(), asked.call());
        return answer.status() + " "
                + answer.text()
                        .replaceAll("\"lastBuildDate\":[^,}]*", "")
                        .replaceAll("<lastBuildDate>[^<]*|<updated>[^<]*", "");
    }

    long placeOf(long person) {
        return jdbc.sql("select id from membership where class_id = :classId and person_id = :person")
                .param("classId", school.classId)
                .param("person", person)
                .query(Long.class)
                .single();
    }
}
