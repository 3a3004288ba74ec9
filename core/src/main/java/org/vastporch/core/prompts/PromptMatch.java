package org.vastporch.core.prompts;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.text.Folding;

/** Finds the prompt that a post answers which was not written for one. */
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

    /** By what it is known which prompt a post answers. What a person set, nothing else ever changes. */
    public enum By {
        TAG,
        CATEGORY,
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

    /**
     * The prompt that a student's own post answers, as far as the prompts say that this is enough: by a tag that is the
     * prompt's own or its title; else by its category; else as the only such prompt open when it is handed in.
     *
     * @param category null for none
     * @param prompts of the post's class, the one due last first
     */
    public static Optional<Own> own(
            Collection<String> tags, @Nullable Long category, Instant at, List<Prompt> prompts) {
        List<String> folded = tags.stream().map(PromptMatch::plain).toList();
        List<Prompt> open = prompts.stream()
                .filter(p -> p.answers().posts() > 0 && p.isOpen(at) && !p.isClosed(at, Allowance.NONE))
                .toList();
        for (Prompt prompt : open)
            if (prompt.answers().also().tag()
                    && (folded.contains(plain(prompt.title()))
                            || prompt.tag() != null && folded.contains(plain(prompt.tag()))))
                return Optional.of(new Own(prompt.id(), By.TAG));
        for (Prompt prompt : open)
            if (category != null && category.equals(prompt.answers().also().category()))
                return Optional.of(new Own(prompt.id(), By.CATEGORY));
        List<Prompt> byTime =
                open.stream().filter(p -> p.answers().also().time()).toList();
        return byTime.size() == 1 ? Optional.of(new Own(byTime.get(0).id(), By.TIME)) : Optional.empty();
    }

    /** A prompt that a student's own post answers, by its number, and by what. */
    public record Own(long promptId, By by) {}

    private static String plain(String tag) {
        return Folding.fold(tag).replaceAll("[^\\p{L}\\p{N}]+", "");
    }
}
