package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.rubrics.Fraction;

class TrendTest {

    private static List<Fraction> shares(String text) {
        return Stream.of(text.split(" "))
                .map(s -> Fraction.of(new BigDecimal(s)))
                .toList();
    }

    @ParameterizedTest
    @CsvSource(textBlock = """
        0,                   TOO_FEW
        0 1,                 TOO_FEW
        0 0 1,               UP
        0 1 0,               STEADY
        1 1 0,               DOWN
        0.5 1 0.7,           UP
        0.5 1 0.699,         STEADY
        0.7 0 0.5,           DOWN
        0.5 0.5 0.5 0.9,     UP
        0.5 0.5 0.5 0.89,    STEADY
        0.9 0.5 0.5 0.5,     DOWN
        """)
    void comparesTheLaterHalfWithTheEarlier(String shares, Trend trend) {
        assertEquals(trend, Trend.of(shares(shares)));
    }

    /** Read backwards, what went up goes down. */
    @Test
    void turnsAroundWithTime() {
        Map<Trend, Trend> turned = Map.of(
                Trend.UP, Trend.DOWN, Trend.DOWN, Trend.UP, Trend.STEADY, Trend.STEADY, Trend.TOO_FEW, Trend.TOO_FEW);
        Random random = new Random(16);
        for (int i = 0; i < 500; i++) {
            Fraction[] shares = new Fraction[random.nextInt(9)];
            Arrays.setAll(shares, k -> Fraction.of(BigDecimal.valueOf(random.nextInt(11), 1)));
            List<Fraction> forth = List.of(shares);
            List<Fraction> back = new ArrayList<>(forth);
            Collections.reverse(back);
            assertEquals(turned.get(Trend.of(forth)), Trend.of(back));
        }
    }
}
