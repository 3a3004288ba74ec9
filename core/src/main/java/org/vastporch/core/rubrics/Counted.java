package org.vastporch.core.rubrics;

import java.util.Locale;
import java.util.Optional;

/** What the program counts in the posts of a paper, as evidence beside a criterion. */
public enum Counted {
    WORDS,
    HEADINGS,
    PICTURES,
    /** Pictures that are described in words. */
    DESCRIBED,
    SOUNDS,
    VIDEOS,
    LINKS,
    /** Works that the author says were used. */
    WORKS,
    TAGS,
    /** Posts with a category. */
    CATEGORY,
    /** Comments given to others. */
    COMMENTS,
    /** 1 for a paper that is on time, 0 for a late one. */
    ON_TIME;

    /** The word that stands for it in a table. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    /** @return empty if no such thing is counted */
    public static Optional<Counted> called(String word) {
        for (Counted counted : values()) if (counted.word().equalsIgnoreCase(word.strip())) return Optional.of(counted);
        return Optional.empty();
    }
}
