package org.vastporch.server.peers;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.peers.GivingOut.Review;
import org.vastporch.core.peers.PeerRound;
import org.vastporch.core.peers.PeerRound.Given;
import org.vastporch.core.peers.PeerRound.Participant;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.marking.HandedPapers;
import org.vastporch.server.marking.HandedPapers.HandedPaper;
import org.vastporch.server.peers.PeerReviewStore.Row;
import org.vastporch.server.people.PeopleService;

/** Loads who could read whose paper for a prompt at this moment. */
@Component
class PeerRounds {

    /**
     * A round as it could be now.
     *
     * @param papers of all students
     * @param shut students whose papers are handed in, and of which no classmate may read anything
     */
    record Loaded(PeerRound round, List<HandedPaper> papers, List<Long> shut) {

        boolean isIn(long student) {
            return round.participants().stream().anyMatch(p -> p.id() == student);
        }
    }

    private final HandedPapers papers;
    private final PeerReviewStore store;
    private final AccessService access;
    private final PeopleService people;

    PeerRounds(HandedPapers papers, PeerReviewStore store, AccessService access, PeopleService people) {
        this.papers = papers;
        this.store = store;
        this.access = access;
        this.people = people;
    }

    Loaded of(Prompt prompt) {
        List<HandedPaper> all = papers.of(prompt);
        Map<Long, PostFacts> posts = access.posts(
                all.stream().flatMap(p -> p.posts().stream()).distinct().toList());
        Map<Long, Viewer> viewers = access.membersOf(prompt.classId());
        Map<Long, Optional<Long>> groups = people.studentGroups(prompt.classId());
        List<HandedPaper> there = all.stream()
                .filter(p -> !p.letOff() && !p.posts().isEmpty() && viewers.containsKey(p.studentId()))
                .toList();
        Set<Review> unreadable = new HashSet<>();
        Map<Long, Integer> readers = new HashMap<>();
        for (HandedPaper paper : there)
            for (HandedPaper reader : there) {
                if (paper.together().contains(reader.studentId())) continue;
                if (mayReview(viewers.get(reader.studentId()), paper.posts(), posts)
                        .isEmpty()) unreadable.add(new Review(reader.studentId(), paper.studentId()));
                else readers.merge(paper.studentId(), 1, Integer::sum);
            }
        List<Participant> participants = new ArrayList<>();
        List<Long> shut = new ArrayList<>();
        for (HandedPaper paper : there) {
            long id = paper.studentId();
            if (there.size() > 1 && readers.getOrDefault(id, 0) == 0) shut.add(id);
            else
                participants.add(new Participant(
                        id, groups.getOrDefault(id, Optional.empty()).orElse(null), paper.together()));
        }
        return new Loaded(
                new PeerRound(
                        participants,
                        all.stream().map(HandedPaper::studentId).collect(Collectors.toSet()),
                        unreadable,
                        Set.copyOf(store.earlier(prompt.classId(), prompt.id()))),
                all,
                shut);
    }

    boolean areAllIn(Prompt prompt) {
        return papers.areAllIn(prompt);
    }

    /** Those posts of a paper that can be given to somebody now. */
    List<Long> readable(Viewer viewer, Prompt prompt, long studentId) {
        List<Long> ids = papers.of(prompt, studentId).posts();
        return mayReview(viewer, ids, access.posts(ids));
    }

    private List<Long> mayReview(Viewer viewer, Collection<Long> ids, Map<Long, PostFacts> posts) {
        return ids.stream()
                .filter(id -> posts.containsKey(id) && access.mayReview(viewer, posts.get(id)))
                .toList();
    }

    static Given given(Row row) {
        return new Given(row.id(), row.readerId(), row.studentId(), row.isBegun(), row.isSent());
    }
}
