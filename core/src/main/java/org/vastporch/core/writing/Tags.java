package org.vastporch.core.writing;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.vastporch.core.Refusal;
import org.vastporch.core.text.Folding;
import org.vastporch.core.text.Sayable;

/** The tags of a post. */
public final class Tags {

    public static final int LONGEST = 40;
    public static final int MOST = 12;

    private Tags() {}

    /**
     * Tidies typed tags: blanks and leading # off, the same tag once whatever its case and accents, at most
     * {@link #MOST}.
     *
     * @throws Refusal if a tag is longer than {@link #LONGEST} characters
     */
    public static List<String> tidy(List<String> typed) {
        List<String> tags = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        for (String raw : typed) {
            String tag = Sayable.of(raw)
                    .replaceAll("[\\p{Cntrl}\\p{Cf}]", "")
                    .replaceFirst("^[#\\s]+", "")
                    .replaceAll("\\s+", " ")
                    .strip();
            if (tag.isEmpty()) continue;
            if (tag.length() > LONGEST)
                throw new Refusal(
                        "tags",
                        "tag-too-long",
                        "A tag has at most " + LONGEST + " characters; this one has " + tag.length() + ".");
            if (seen.add(Folding.fold(tag))) tags.add(tag);
        }
        return List.copyOf(tags.subList(0, Math.min(tags.size(), MOST)));
    }
}
