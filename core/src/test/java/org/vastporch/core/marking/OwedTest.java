package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.marking.Owed.Part;

class OwedTest {

    private static final LateRule RULE = new LateRule(new BigDecimal("0.05"), new BigDecimal("0.2"), BigDecimal.ZERO);

    @ParameterizedTest
    @CsvSource(textBlock = """
        # posts asked, there, open,  comments asked, there, open,  days | posts, comments, days, lost
        1,             0,     true,  2,              1,     true,  0,     1,     1,        0,    0
        1,             1,     true,  2,              2,     true,  3,     0,     0,        0,    0
        1,             2,     true,  0,              0,     false, 3,     0,     0,        0,    0
        3,             1,     true,  0,              5,     true,  2,     2,     0,        2,    0.10
        3,             1,     true,  0,              5,     true,  9,     2,     0,        9,    0.2
        1,             0,     false, 2,              0,     false, 2,     0,     0,        0,    0
        1,             1,     true,  2,              0,     true,  2,     0,     2,        0,    0
        """)
    void isWhatIsAskedAndNotThereWhileItComesIn(
            int askedPosts,
            int posts,
            boolean open,
            int askedComments,
            int comments,
            boolean commentsOpen,
            int days,
            int owedPosts,
            int owedComments,
            int daysLate,
            BigDecimal lost) {
        Owed owed =
                Owed.of(new Part(askedPosts, posts, open), new Part(askedComments, comments, commentsOpen), RULE, days);
        assertEquals(owedPosts, owed.posts());
        assertEquals(owedComments, owed.comments());
        assertEquals(daysLate, owed.daysLate());
        assertEquals(0, lost.compareTo(owed.shareLost()));
        assertEquals(owedPosts + owedComments == 0, owed.isNothing());
    }
}
