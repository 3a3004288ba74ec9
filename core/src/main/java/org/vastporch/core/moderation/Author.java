package org.vastporch.core.moderation;

import org.jspecify.annotations.Nullable;

/**
 * What is known of an author when it is decided whether somebody looks at a text first.
 *
 * @param place what the author is in the class at this moment
 * @param posts the policy that was set for this author's posts alone; null for none
 * @param comments the same for comments
 * @param approvals posts approved in a row, without return or hide, since the rule of earned trust was changed last
 * @param published how many posts of this author were up before, outside posts apart
 */
public record Author(
        Place place, @Nullable Policy posts, @Nullable Policy comments, int approvals, int published) {

    /** What an author is in a class, as far as approval goes. */
    public enum Place {
        /** Reads as staff do: nobody looks at these texts first. */
        STAFF,
        MEMBER,
        /** Was let in from outside: somebody always looks. */
        GUEST,
        /** Has no place, or one that has ended. */
        NONE
    }

    /** Somebody without a place in the class. */
    public static final Author OUTSIDE = new Author(Place.NONE, null, null, 0, 0);

    /** The policy in force for the author's posts in a blog, and what decided it. */
    public Policy.InForce ofPosts(@Nullable Policy blog, Policy ofClass, int trustAfter) {
        if (place == Place.STAFF) return new Policy.InForce(Policy.NONE, Policy.Source.STAFF);
        return Policy.inForce(posts, blog, ofClass, Policy.isTrusted(trustAfter, approvals));
    }

    /** The same for comments, for which trust is not earned. */
    public Policy.InForce ofComments(@Nullable Policy blog, Policy ofClass) {
        if (place == Place.STAFF) return new Policy.InForce(Policy.NONE, Policy.Source.STAFF);
        return Policy.inForce(comments, blog, ofClass, false);
    }
}
