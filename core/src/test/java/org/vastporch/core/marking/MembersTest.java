package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastporch.core.marking.Members.Member;

class MembersTest {

    @Test
    void aGroupHandsInTogetherAndWhoIsApartHasMarksOfTheirOwn() {
        Members members = new Members(List.of(
                new Member(1, 7L, false), new Member(2, 7L, true), new Member(3, 7L, false), new Member(4, 8L, false)));
        assertEquals(List.of(1L, 2L, 3L), members.authors(2));
        assertEquals(List.of(1L, 3L), members.markedWith(3));
        assertEquals(List.of(2L), members.markedWith(2));
        assertEquals(List.of(4L), members.authors(4));
        assertEquals(7L, members.group(2));
        assertTrue(members.isApart(2));
    }

    @Test
    void whoIsInNoGroupIsAlone() {
        Members members = new Members(List.of(new Member(1, null, false), new Member(2, null, false)));
        assertEquals(List.of(1L), members.authors(1));
        assertEquals(List.of(2L), members.markedWith(2));
        assertNull(members.group(1));
        assertEquals(List.of(9L), members.markedWith(9), "and so is who is not known");
        assertEquals(List.of(9L), Members.ALONE.authors(9));
        assertFalse(Members.ALONE.isApart(9));
    }

    /** Of any class: each has part in one paper, marks go to nobody twice, and all who share marks share the paper. */
    @Test
    void papersAndMarksPartTheClass() {
        Random random = new Random(20261127);
        for (int world = 0; world < 300; world++) {
            List<Member> all = new ArrayList<>();
            int n = 1 + random.nextInt(30);
            for (long s = 1; s <= n; s++) {
                long group = random.nextInt(6);
                all.add(new Member(s, group == 0 ? null : group, random.nextInt(5) == 0));
            }
            Members members = new Members(all);
            Set<Long> marked = new HashSet<>();
            for (Member member : all) {
                long s = member.student();
                List<Long> authors = members.authors(s);
                List<Long> alike = members.markedWith(s);
                assertTrue(authors.contains(s) && alike.contains(s) && authors.containsAll(alike));
                for (long other : authors) assertEquals(authors, members.authors(other));
                for (long other : alike) assertEquals(alike, members.markedWith(other));
                if (alike.get(0) == s) alike.forEach(other -> assertTrue(marked.add(other)));
            }
            assertEquals(n, marked.size());
        }
    }
}
