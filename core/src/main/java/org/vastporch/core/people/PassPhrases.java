package org.vastporch.core.people;

import java.util.random.RandomGenerator;

/** Pass phrases that can be read aloud and typed: three short words of {@link FriendlyWords}. */
public final class PassPhrases {

    private PassPhrases() {}

    /** A new phrase such as "candle meadow trumpet"; more than 2^30 are possible. Give it a secure source of chance. */
    public static String make(RandomGenerator random) {
        return FriendlyWords.make(3, random);
    }
}
