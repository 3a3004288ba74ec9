package org.vastporch.core.classes;

import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.HoldRules;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.writing.Tool;

/**
 * The rules of a class; every one has a safe value to begin with.
 *
 * @param ceiling the widest audience of what is written here
 * @param open whether strangers may come in at all
 * @param trustAfter after so many approvals in a row a student's posts go straight out, 0 to {@value #MOST_TRUST}; 0
 *     for never
 * @param heldWords words that are never published unseen; blank ones and repeated ones are left out
 * @param firstPosts how many posts of each student are held before the other rules are asked, 0 to {@value #MOST_FIRST}
 * @param reportsHide whether what a reader reported comes down until somebody has looked
 * @param tools what students find in the editor
 * @param takeOver whether what an assistant marks waits until a teacher has taken it over
 * @param apart how many steps two readings of a paper may lie apart on a criterion before they come back to both, 0 to
 *     {@value #MOST_APART}
 */
public record ClassRules(
        Audience ceiling,
        boolean open,
        Policy postPolicy,
        Policy commentPolicy,
        int trustAfter,
        List<String> heldWords,
        boolean holdLinks,
        boolean holdPictures,
        int firstPosts,
        boolean reportsHide,
        Set<Tool> tools,
        boolean takeOver,
        int apart) {

    public static final int MOST_TRUST = 100;
    public static final int MOST_FIRST = 20;
    public static final int MOST_APART = 7;

    /** Closed to the class, approval on, trust never earned. */
    public static final ClassRules SAFE = new ClassRules(
            Audience.MY_CLASS,
            false,
            Policy.BEFORE,
            Policy.BEFORE,
            0,
            List.of(),
            true,
            false,
            0,
            false,
            Tool.ALL,
            false,
            1);

    public ClassRules {
        if (trustAfter < 0 || trustAfter > MOST_TRUST)
            throw new Refusal(
                    "trustAfter",
                    "number-range",
                    "Earned trust asks for 0 to " + MOST_TRUST + " approvals, not " + trustAfter);
        if (firstPosts < 0 || firstPosts > MOST_FIRST)
            throw new Refusal(
                    "firstPosts",
                    "number-range",
                    "The first 0 to " + MOST_FIRST + " posts can be held, not " + firstPosts);
        if (apart < 0 || apart > MOST_APART)
            throw new Refusal(
                    "apart", "number-range", "Two readings may lie 0 to " + MOST_APART + " steps apart, not " + apart);
        heldWords = heldWords.stream()
                .map(String::strip)
                .filter(w -> !w.isEmpty())
                .distinct()
                .toList();
    }

    /** The rules as those may know them who are not staff: whoever knows the word list can walk around it. */
    public ClassRules withoutWords() {
        return new ClassRules(
                ceiling,
                open,
                postPolicy,
                commentPolicy,
                trustAfter,
                List.of(),
                holdLinks,
                holdPictures,
                firstPosts,
                reportsHide,
                tools,
                takeOver,
                apart);
    }

    /** What somebody finds in the editor; staff find everything. */
    public Set<Tool> toolsOf(boolean staff) {
        return staff ? Tool.ALL : tools;
    }

    /**
     * What the class holds.
     *
     * @param memberNames full names of its members, without the author's own
     */
    public HoldRules holding(List<String> memberNames) {
        return new HoldRules(heldWords, memberNames, holdLinks, holdPictures, firstPosts);
    }

    /** The policy for an author's posts, and what decided it; {@code ofBlog} is null if the blog leaves it open. */
    public Policy.InForce forPosts(Author author, @Nullable Policy ofBlog) {
        return author.ofPosts(ofBlog, postPolicy, trustAfter);
    }

    /** The same for comments. */
    public Policy.InForce forComments(Author author, @Nullable Policy ofBlog) {
        return author.ofComments(ofBlog, commentPolicy);
    }
}
