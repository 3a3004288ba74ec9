package org.vastporch.server.http;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.vastporch.core.access.Reason;

/** A refusal with a stable code and a sentence that a teacher understands; becomes an RFC 9457 problem. */
public final class Problem extends RuntimeException {

    private final HttpStatus status;
    private final String code;
    private transient @Nullable Duration retryAfter;
    private final transient Map<String, Object> facts = new LinkedHashMap<>();

    private Problem(HttpStatus status, String code, String sentence) {
        super(sentence);
        this.status = status;
        this.code = code;
    }

    /** Something that was sent is not right; {@code field} names the field to mark. */
    public static Problem invalid(String field, String code, String sentence) {
        return new Problem(HttpStatus.UNPROCESSABLE_CONTENT, code, sentence).with("field", field);
    }

    /** Something that must be sent was not. */
    static Problem incomplete(String field) {
        return new Problem(HttpStatus.BAD_REQUEST, "field-missing", "Something is missing here: " + field + ".")
                .with("field", field);
    }

    /** Something is not there, or not for the one who asks. */
    public static Problem missing() {
        return missing("This page is not there, or it is not for you.");
    }

    public static Problem missing(String sentence) {
        return new Problem(HttpStatus.NOT_FOUND, "not-there", sentence);
    }

    /** Somebody was faster. */
    public static Problem stale(String code, String sentence) {
        return new Problem(HttpStatus.CONFLICT, code, sentence);
    }

    public static Problem tooMany(String sentence) {
        return new Problem(HttpStatus.TOO_MANY_REQUESTS, "too-many-tries", sentence);
    }

    public static Problem unauthorised(String code, String sentence) {
        return new Problem(HttpStatus.UNAUTHORIZED, code, sentence);
    }

    /** What the access engine refused, in words. */
    public static Problem refused(Reason reason) {
        return switch (reason) {
            case SIGN_IN_FIRST -> unauthorised("sign-in-first", "Please sign in first.");
            case NOT_A_MEMBER, NOT_PUBLISHED, AUDIENCE_TOO_NARROW, FOR_A_GROUP -> missing();
            default ->
                new Problem(HttpStatus.FORBIDDEN, reason.name().toLowerCase().replace('_', '-'), sentence(reason));
        };
    }

    /** Throws unless the engine allowed it. */
    public static void unlessAllowed(Reason reason) {
        if (!reason.allows()) throw refused(reason);
    }

    /** Adds a fact to the problem's body. */
    public Problem with(String name, Object fact) {
        facts.put(name, fact);
        return this;
    }

    /** Says when it is worth while to ask again. */
    public Problem retryAfter(Duration wait) {
        retryAfter = wait;
        return this;
    }

    @Nullable
    Duration retryAfter() {
        return retryAfter;
    }

    HttpStatus status() {
        return status;
    }

    public String code() {
        return code;
    }

    Map<String, Object> facts() {
        return facts;
    }

    private static String sentence(Reason reason) {
        return switch (reason) {
            case NOT_OPEN_YET -> "This blog is not open yet.";
            case CLOSED -> "This blog is closed.";
            case STAFF_ONLY -> "Only the staff of this class can do this.";
            case APPROVERS_ONLY -> "Only those who approve in this class can do this.";
            case AUTHOR_ONLY -> "Only its author and the staff can do this.";
            case COMMENTS_OFF -> "Comments are switched off here.";
            case COMMENTS_CLOSED -> "Comments on this post are closed.";
            case COMMENTS_FOR_CLASS -> "Only members of the class comment here.";
            case ANSWER_FIRST -> "You can read this once your own answer to the prompt is published.";
            case EDIT_OVER -> "In this blog, what is published can no longer be changed. Ask your teacher.";
            case DELETE_OVER -> "In this blog, what is published can no longer be deleted. Ask your teacher.";
            case ONLY_EYES ->
                "You are looking through somebody's eyes, and can only read. Go back to being yourself to do this.";
            case NOT_YOUR_BLOG -> "You cannot write in this blog now. What you wrote is kept; ask a teacher.";
            default -> "This is not for you.";
        };
    }
}
