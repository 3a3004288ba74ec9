package org.vastporch.server.prompts;

import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.marking.Members;
import org.vastporch.core.marking.Members.Member;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.people.PeopleService;

/**
 * Who hands in a paper together: the groups of the class, as they are until the prompt is due, as they were from then
 * on; and whatever staff say of one paper.
 */
@Service
public class PaperMembers {

    private final PaperMemberStore store;
    private final PeopleService people;
    private final Clock clock;

    PaperMembers(PaperMemberStore store, PeopleService people, Clock clock) {
        this.store = store;
        this.people = people;
        this.clock = clock;
    }

    /** Of prompts of one class, by prompt; prompts that ask for a paper of each are left out. */
    public Map<Long, Members> of(long classId, List<Prompt> of) {
        List<Prompt> together = of.stream().filter(p -> p.answers().byGroups()).toList();
        Map<Long, Members> members = new HashMap<>();
        if (together.isEmpty()) return members;
        List<Long> ids = together.stream().map(Prompt::id).toList();
        Map<Long, Map<Long, Member>> said = new HashMap<>();
        for (PaperMemberStore.Kept k : store.ofPrompts(ids))
            said.computeIfAbsent(k.promptId(), id -> new TreeMap<>())
                    .put(k.member().student(), k.member());
        Set<Long> kept = store.kept(ids);
        Map<Long, Optional<Long>> groups = people.studentGroups(classId);
        for (long id : ids) {
            Map<Long, Member> all = said.getOrDefault(id, new TreeMap<>());
            // Who came into a group after it was due has no part in what it did before.
            groups.forEach((student, group) -> all.putIfAbsent(
                    student, new Member(student, kept.contains(id) ? null : group.orElse(null), false)));
            members.put(id, new Members(all.values()));
        }
        return members;
    }

    public Members of(Prompt prompt) {
        return of(prompt.classId(), List.of(prompt)).getOrDefault(prompt.id(), Members.ALONE);
    }

    /** Says who hands in with whom, and who is marked apart; whoever asks has seen to the right to do so. */
    @Transactional
    public void set(long promptId, List<Member> members) {
        members.forEach(member -> store.set(promptId, member));
    }

    /** Lets the groups be those of the class again, if a prompt is due later than it was. */
    @Transactional
    public void dueMoved(Prompt after) {
        if (after.due().isAfter(clock.instant())) store.letGo(after.id());
    }

    /** Keeps the groups of prompts that are due by now. */
    @Scheduled(fixedDelay = 5_000)
    public void keepWhatIsDue() {
        for (long id : store.due(clock.instant())) store.keep(id);
    }
}
