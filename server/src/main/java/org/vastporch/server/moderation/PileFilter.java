package org.vastporch.server.moderation;

import org.jspecify.annotations.Nullable;

/**
 * What of the pile is looked at.
 *
 * @param classId one class only; null for all
 * @param sort posts, comments, reviews, outside, held, reported or up; empty for everything
 * @param most how many at most
 */
public record PileFilter(@Nullable Long classId, String sort, int most) {

    /** The condition on a text t that waits: it is not up yet, or is up and is to be looked at. */
    public static String waiting() {
        return "t.waiting_since > timestamp with time zone '2000-01-01 00:00:00+00:00' and t.state <> 'BINNED'";
    }

    /** The condition on a text of the pile that is up. */
    static final String UP = "t.state not in ('WAITING', 'HIDDEN')";

    /** The condition of a sort on texts t of a kind; null if no text of the kind is of that sort. */
    public static @Nullable String of(String sort, String kind) {
        boolean post = kind.equals("post");
        boolean comment = kind.equals("comment");
        return switch (sort) {
            case "" -> "true";
            case "posts" -> post ? "t.source_id is null" : null;
            case "comments" -> comment ? "true" : null;
            case "reviews" -> kind.equals("review") ? "true" : null;
            case "outside" -> post ? "t.source_id is not null" : null;
            case "held" -> "exists (select 1 from hold h where h.subject = '" + kind + "' and h.subject_id = t.id)";
            case "reported" ->
                "exists (select 1 from report r where r.subject = '" + kind
                        + "' and r.subject_id = t.id and r.decision_id is null)";
            case "up" -> UP;
            default -> null;
        };
    }
}
