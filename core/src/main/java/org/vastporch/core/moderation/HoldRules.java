package org.vastporch.core.moderation;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;

/**
 * What a class holds.
 *
 * @param words words that are never published unseen
 * @param memberNames full names of the members, for the rule about personal data; the author's own is not held
 * @param holdLinks whether links to other places are held
 * @param holdPictures whether texts with pictures, sound, video or files are held
 * @param firstPosts how many posts of an author are held before any other rule is asked; 0 for none
 */
public record HoldRules(
        List<String> words, List<String> memberNames, boolean holdLinks, boolean holdPictures, int firstPosts) {

    public HoldRules {
        words = List.copyOf(words);
        memberNames = List.copyOf(memberNames);
    }

    /** So many places of a text are marked; whoever looks at it sees the rest anyway. */
    public static final int MOST = 50;

    /**
     * All that is held in a plain text, in the order of its places; after {@link #MOST} one more that says there is
     * more.
     */
    public List<Hold> find(String plain) {
        return find(plain, hold -> true, MOST);
    }

    private List<Hold> find(String plain, Predicate<Hold> counts, int most) {
        Finds finds = new Finds(plain, counts, most);
        PersonalData.find(finds);
        WordList.find(finds, words);
        PersonalData.findNames(finds, memberNames);
        if (holdLinks) PersonalData.findLinks(finds);
        return finds.inOrder();
    }

    /**
     * All that holds a text of an author: words and places in it, of those only what is new since a version was
     * approved; then what holds it as a whole. Nothing holds what staff write.
     */
    public List<Hold> find(TextToReview text, Author author) {
        if (author.place() == Author.Place.STAFF) return List.of();
        List<Hold> holds =
                new ArrayList<>(text.approved() == null ? find(text.plain()) : findNew(text.plain(), text.approved()));
        if (holdPictures && text.media() > 0) holds.add(Hold.ofWhole(Hold.Rule.PICTURE, ""));
        if (text.isPost() && text.approved() == null && author.published() < firstPosts)
            holds.add(Hold.ofWhole(Hold.Rule.FIRST_POST, ""));
        if (isFromOutside(text, author)) holds.add(Hold.ofWhole(Hold.Rule.GUEST, ""));
        if (text.reported()) holds.add(Hold.ofWhole(Hold.Rule.REPORT, ""));
        return holds;
    }

    /** A comment of whoever is not of the class is looked at like a guest's. */
    private static boolean isFromOutside(TextToReview text, Author author) {
        return author.place() == Author.Place.GUEST || author.place() == Author.Place.NONE && !text.isPost();
    }

    /** What is held in a text of which an earlier version was approved: only what was not in that version. */
    public List<Hold> findNew(String plain, String approved) {
        Set<String> seen = new HashSet<>();
        find(approved, hold -> seen.add(key(hold)), Integer.MAX_VALUE);
        return find(plain, hold -> !seen.contains(key(hold)), MOST);
    }

    private static String key(Hold hold) {
        return hold.rule() + " " + hold.found();
    }
}
