package org.vastporch.core.marking;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Who hands in a paper together for one prompt, and whose marks are the same. Whoever is in no group is alone; whoever
 * is marked apart has part in the group's paper, and marks of their own.
 */
public final class Members {

    /**
     * @param group null for a paper alone
     * @param apart whether this student is marked apart from the group
     */
    public record Member(long student, @Nullable Long group, boolean apart) {}

    /** Of a prompt that asks for a paper of each. */
    public static final Members ALONE = new Members(List.of());

    private final Map<Long, Member> byStudent = new HashMap<>();
    private final Map<Long, List<Member>> byGroup = new HashMap<>();

    public Members(Collection<Member> all) {
        for (Member member : all) {
            byStudent.put(member.student(), member);
            if (member.group() != null)
                byGroup.computeIfAbsent(member.group(), id -> new ArrayList<>()).add(member);
        }
    }

    /** Whose posts make up the paper of a student: everybody's of the group, in the order that was given. */
    public List<Long> authors(long student) {
        return groupOf(student).stream().map(Member::student).toList();
    }

    /** Who has the marks that are given to a student's paper, the student among them. */
    public List<Long> markedWith(long student) {
        if (isApart(student)) return List.of(student);
        return groupOf(student).stream()
                .filter(m -> !m.apart())
                .map(Member::student)
                .toList();
    }

    public boolean isApart(long student) {
        Member member = byStudent.get(student);
        return member != null && member.apart();
    }

    /** The group whose paper it is; null for a paper alone. */
    public @Nullable Long group(long student) {
        Member member = byStudent.get(student);
        return member == null ? null : member.group();
    }

    private List<Member> groupOf(long student) {
        Long group = group(student);
        return group == null ? List.of(new Member(student, null, false)) : byGroup.get(group);
    }
}
