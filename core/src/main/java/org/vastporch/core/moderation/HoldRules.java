package org.vastporch.core.moderation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a class holds.
 *
 * @param words       words that are never published unseen
 * @param memberNames full names of the members, for the rule about personal data; the author's own is not held
 * @param holdLinks   whether links to other places are held
 * @param holdPictures whether texts with pictures, sound, video or files are held
 * @param firstPosts  how many posts of an author are held before any other rule is asked; 0 for none
 */
public record HoldRules(List<String> words, List<String> memberNames, boolean holdLinks, boolean holdPictures, int firstPosts) {

    public HoldRules {
        words = List.copyOf(words);
        memberNames = List.copyOf(memberNames);
    }

    /** All that is held in a plain text, in the order of its places. */
    public List<Hold> find(String plain) {
        List<Hold> holds = new ArrayList<>();
        holds.addAll(PersonalData.find(plain));
        holds.addAll(WordList.find(plain, words));
        holds.addAll(PersonalData.findNames(plain, memberNames));
        if (holdLinks) holds.addAll(PersonalData.findLinks(plain));
        holds.sort(Comparator.comparingInt(Hold::start));
        return List.copyOf(holds);
    }

    /**
     * What is held of a text as a whole, apart from its words.
     *
     * @param pictures  how many pictures, sounds, videos and files would be new to readers
     * @param published how many posts of its author were up before; null for a comment
     */
    public List<Hold> findWhole(int pictures, @Nullable Integer published) {
        List<Hold> holds = new ArrayList<>();
        if (holdPictures && pictures > 0) holds.add(Hold.ofWhole(Hold.Rule.PICTURE, ""));
        if (published != null && published < firstPosts) holds.add(Hold.ofWhole(Hold.Rule.FIRST_POST, ""));
        return holds;
    }

    /** What is held in a text of which an earlier version was approved: only what was not in that version. */
    public List<Hold> findNew(String plain, String approved) {
        Set<String> seen = new HashSet<>();
        for (Hold hold : find(approved)) seen.add(hold.rule() + " " + hold.found());
        return find(plain).stream().filter(hold -> !seen.contains(hold.rule() + " " + hold.found())).toList();
    }
}
