package org.vastporch.core.feeds;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.text.Folding;

/** Finds the prompt that an outside post answers. */
public final class PromptMatch {

    private PromptMatch() {}

    /**
     * A prompt as far as matching goes.
     *
     * @param tag the tag that stands for it; null for none
     * @param opens from when it is open
     * @param closes the first moment at which it no longer is; null for never
     */
    public record Candidate(
            long id,
            String title,
            @Nullable String tag,
            Instant opens,
            @Nullable Instant closes) {
        boolean isOpenAt(Instant moment) {
            return !moment.isBefore(opens) && (closes == null || moment.isBefore(closes));
        }
    }

    /** By what it is known which prompt an outside post answers. What a person set, nothing else ever changes. */
    public enum By {
        TAG,
        TIME,
        PERSON
    }

    /** A prompt that was found, and by what. */
    public record Match(Candidate prompt, By by) {}

    /** By a tag that is the prompt's own or its title; else the only prompt open at the post's date; else none. */
    public static Optional<Match> find(Collection<String> tags, Instant date, List<Candidate> prompts) {
        List<String> folded = tags.stream().map(PromptMatch::plain).toList();
        Optional<Candidate> byTag = prompts.stream()
                .filter(p -> (p.tag() != null && folded.contains(plain(p.tag()))) || folded.contains(plain(p.title())))
                .findFirst();
        if (byTag.isPresent()) return byTag.map(p -> new Match(p, By.TAG));
        List<Candidate> open = prompts.stream().filter(p -> p.isOpenAt(date)).toList();
        return open.size() == 1 ? Optional.of(new Match(open.get(0), By.TIME)) : Optional.empty();
    }

    private static String plain(String tag) {
        return Folding.fold(tag).replaceAll("[^\\p{L}\\p{N}]+", "");
    }
}
