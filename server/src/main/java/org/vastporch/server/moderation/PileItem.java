package org.vastporch.server.moderation;

import java.time.Instant;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.access.Sightline;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Revision;
import org.vastporch.server.http.Optionally;

/**
 * One text that waits.
 *
 * @param version the version that would become live; a decision names it
 * @param rev changes with every change of the text; a decision names it too
 * @param place the number of the author's place in the class
 * @param besides what goes up with it and is not in the text
 * @param readers who will read it once it is approved
 * @param readersNow who reads the version that is up, if a decision changes that
 * @param changes what changed since the version that was approved or returned before; left out if there is none
 * @param publishAt when it goes up by itself once it is approved; left out for at once
 * @param state WAITING; PUBLISHED for what is up and is to be looked at; HIDDEN for what came down because it was
 *     reported
 * @param because why somebody looks at texts of this author
 * @param daysLate started days after due and grace; 0 if on time
 */
public record PileItem(
        String subject,
        long id,
        long classId,
        String className,
        int version,
        int rev,
        String author,
        long place,
        @Optionally String group,
        String title,
        String html,
        Besides besides,
        Instant since,
        @Optionally String blog,
        @Optionally AnsweredPrompt prompt,
        @Optionally Outside outside,
        @Optionally Under under,
        List<Hold> holds,
        @Optionally Revision changes,
        List<Past> history,
        Readers readers,
        @Optionally Readers readersNow,
        int approvalsInRow,
        int trustAfter,
        @Optionally Instant publishAt,
        State state,
        Policy.InForce because,
        List<Report> reports) {

    /**
     * @param works the sources, each as a line of the reference list
     * @param word what its author says with it to whoever decides; left out if nothing is said
     */
    public record Besides(
            @Optionally String category,
            List<String> tags,
            List<String> works,
            @Optionally String word) {

        public static final Besides NOTHING = new Besides(null, List.of(), List.of(), null);

        /** All of it that readers get, one after the other. */
        public List<String> lines() {
            return Stream.of(Stream.ofNullable(category), tags.stream(), works.stream())
                    .flatMap(s -> s)
                    .toList();
        }
    }

    public record AnsweredPrompt(long id, String title, boolean onTime, int daysLate) {}

    /**
     * Where an outside post comes from.
     *
     * @param excerpt left out if its feed carries the whole text
     */
    public record Outside(
            String title, String link, @Optionally @Nullable Excerpt excerpt) {}

    /** The post that a comment answers. */
    public record Under(long postId, String title, String author) {}

    /**
     * @param people how many of the school
     * @param strangers whether anybody on the internet can, too
     */
    public record Readers(int people, boolean strangers) {

        public static Readers of(Sightline line) {
            return new Readers(line.readers().size(), line.strangers());
        }
    }

    /** What a reader said about a text. */
    public record Report(String by, String reason, Instant at) {}

    /** A decision of before. */
    public record Past(Step step, String by, Instant at, String note, int version) {}
}
