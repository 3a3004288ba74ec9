package org.vastporch.core.people;

import java.util.List;
import java.util.random.RandomGenerator;

/**
 * Pass phrases that can be read aloud and typed: three short words and a number from 10 to 99. The words are built from
 * syllables (a list of {@value #WORDS} of our own making that reads the same in many languages).
 */
public final class PassPhrases {

    private static final List<String> HEADS = List.of(
        "ba", "be", "bi", "bo", "bu", "da", "de", "di", "do", "du", "fa", "fe", "fi", "fo", "ga", "go", "gu", "ha", "he", "hu",
        "ka", "ki", "ko", "ku", "la", "le", "li", "lo", "lu", "ma", "me", "mi", "mo", "mu", "na", "ne", "ni", "no", "nu",
        "pa", "pe", "po", "ra", "re", "ri", "ro", "ru", "sa", "so", "su", "ta", "te", "ti", "to", "tu", "va", "ve", "vi", "wa", "wi");
    private static final List<String> TAILS = List.of(
        "bel", "den", "dor", "gan", "kin", "ler", "lin", "lok", "mar", "men", "min", "mon", "nel", "nor", "pan", "per", "ram", "ren",
        "ril", "rok", "san", "sel", "tam", "tar", "ten", "van", "ver", "win", "yor", "zen");
    static final int WORDS = 1800;

    private PassPhrases() {}

    /** A new phrase such as "balin mokar tiven 47"; more than 2^38 are possible. Give it a secure source of chance. */
    public static String make(RandomGenerator random) {
        return word(random) + " " + word(random) + " " + word(random) + " " + random.nextInt(10, 100);
    }

    private static String word(RandomGenerator random) {
        return HEADS.get(random.nextInt(HEADS.size())) + TAILS.get(random.nextInt(TAILS.size()));
    }
}
