package org.vastporch.server.erasure;

import org.jspecify.annotations.Nullable;

/**
 * What one feature keeps of a person: counted before somebody leaves, removed without remainder when somebody is
 * erased.
 */
public interface Traces {

    /** The posts that go with a person: those that :person wrote, and all in blogs of their own. */
    String POSTS_THAT_GO = """
                    select p.id
                     from post p
                     where p.author_id = :person or p.blog_id in (select b.id from blog b where b.owner_id =
                        :person)""";

    /**
     * What is counted: "posts", "comments", "marks", "outside-blogs", "mentions", "" for what nobody needs to be told
     * of.
     */
    default String what() {
        return "";
    }

    /**
     * How many there are.
     *
     * @param classId in one class; null for all
     */
    default int count(long personId, @Nullable Long classId) {
        return 0;
    }

    /** Removes them for ever. */
    void erase(long personId);
}
