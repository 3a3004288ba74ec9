package org.vastporch.core.marking;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;

/** The order of papers for a marker who is not to know whose they are: not that of the names, and always the same. */
public final class BlindOrder {

    private BlindOrder() {}

    /** @param seed another one for each prompt, so that no place stands for a person */
    public static <T> List<T> of(List<T> papers, long seed) {
        List<T> order = new ArrayList<>(papers);
        Collections.shuffle(order, new Random(seed * 0x9E3779B97F4A7C15L));
        return order;
    }
}
