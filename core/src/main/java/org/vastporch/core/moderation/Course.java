package org.vastporch.core.moderation;

import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.moderation.ModerationTable.Step;

/**
 * Where a text stands, and since when. Every step of a text is one pure step from one course to the next; who takes it
 * has locked the row, decides here and stores what comes out. A step that is not possible from where the text stands
 * gives nothing.
 *
 * @param waitingSince since when somebody is asked to look at it; null if nobody is
 * @param publishedAt when it went up first; null if it never did. It never changes after that
 * @param handedInAt when it was handed in first; approving makes nobody late. Of an outside post the day on which it
 *     was written
 * @param publishAt when its author wants it to go up; null for as soon as it may
 */
public record Course(
        Standing standing,
        @Nullable Instant waitingSince,
        @Nullable Instant publishedAt,
        @Nullable Instant handedInAt,
        @Nullable Instant publishAt) {

    /**
     * What else counts at a step.
     *
     * @param policy the policy in force for its author
     * @param held whether something holds the text that would go up
     * @param reported whether a reader has reported it and nobody has decided about that
     * @param fromOutside whether it came in by a feed: it stands at the day on which it was written
     */
    public record Circumstances(Instant now, Policy policy, boolean held, boolean reported, boolean fromOutside) {

        /** Where neither policy nor holds nor reports matter. */
        public static Circumstances at(Instant now) {
            return new Circumstances(now, Policy.BEFORE, false, false, false);
        }
    }

    /** A new text. */
    public static Course draft() {
        return new Course(Standing.draft(), null, null, null, null);
    }

    /** Whether a text goes to somebody who approves before readers get it. */
    public static boolean wouldWait(Policy policy, boolean held) {
        return ModerationTable.after(Standing.draft(), Step.HAND_IN, policy, held)
                .orElseThrow()
                .state()
                .waits();
    }

    /**
     * Its author, or staff who mend it, write on. What is up and is still to be looked at stays in the pile while a
     * newer version is worked on.
     *
     * @param mends whether staff mend what waits
     * @param sameHand whether the newest version is by whoever writes now
     * @param anew whether a version of its own begins in any case
     */
    public Optional<Course> written(boolean mends, boolean sameHand, boolean anew) {
        Optional<Standing> after = mends && sameHand
                ? Optional.of(standing)
                : ModerationTable.after(standing, mends ? Step.EDIT : Step.SAVE, Policy.BEFORE, false);
        boolean lookedAt = standing.live() != null && !standing.state().waits();
        return after.map(s -> s.newest() == standing.newest() && (anew || !sameHand)
                        ? new Standing(s.state(), s.live(), s.newest() + 1)
                        : s)
                .map(s -> to(s, s.state().waits() || lookedAt ? waitingSince : null, publishedAt));
    }

    /** The same text, known to have been written on a day; the first day that was said stays. */
    public Course writtenOn(Instant day) {
        return new Course(standing, waitingSince, publishedAt, handedInAt != null ? handedInAt : day, publishAt);
    }

    /**
     * It is handed in: it waits, goes up, or goes up by itself at the time that was asked for.
     *
     * @param at when it is to go up; null for as soon as it may
     */
    public Optional<Course> handedIn(@Nullable Instant at, Circumstances of) {
        Instant first = handedInAt != null ? handedInAt : of.now();
        return ModerationTable.after(standing, Step.HAND_IN, of.policy(), of.held())
                .map(s -> s.state() == State.PUBLISHED && at != null
                        ? ModerationTable.after(standing, Step.SCHEDULE, of.policy(), of.held())
                                .orElseThrow()
                        : s)
                .map(s -> {
                    boolean up = s.state() == State.PUBLISHED;
                    boolean waits = s.state().waits() || up && of.policy().looksAfter();
                    return new Course(
                            s,
                            waits ? of.now() : null,
                            up ? firstUp(of.fromOutside() ? first : of.now()) : publishedAt,
                            first,
                            at);
                });
    }

    /** Somebody approves, returns, hides or bins it. What is approved before its time goes up by itself then. */
    public Optional<Course> decided(Step step, Circumstances of) {
        return ModerationTable.after(standing, step, Policy.BEFORE, false)
                .map(s -> s.state() == State.PUBLISHED && standing.state() == State.WAITING && isAhead(of.now())
                        ? ModerationTable.after(standing, Step.SCHEDULE, Policy.NONE, false)
                                .orElseThrow()
                        : s)
                .map(s -> {
                    Instant out = of.fromOutside() && handedInAt != null ? handedInAt : of.now();
                    return to(
                            s,
                            s.state().waits() ? waitingSince : null,
                            s.state() == State.PUBLISHED ? firstUp(out) : publishedAt);
                });
    }

    /**
     * A reader reported it: somebody is asked to look at it.
     *
     * @param comesDown whether readers do not get it any more until then
     */
    public Course reported(boolean comesDown, Instant now) {
        Standing after = comesDown
                ? ModerationTable.after(standing, Step.REPORT, Policy.NONE, true)
                        .orElseThrow()
                : standing;
        return to(after, waitingSince == null ? now : waitingSince, publishedAt);
    }

    /** The time has come at which it was to go up: it counts as published at that very time. */
    public Optional<Course> due(Circumstances of) {
        if (publishAt == null || isAhead(of.now())) return Optional.empty();
        return ModerationTable.after(standing, Step.PUBLISH, Policy.NONE, false)
                .map(s -> to(s, of.policy().looksAfter() ? of.now() : null, firstUp(publishAt)));
    }

    /** What was to go up by itself waits for a person instead. */
    public Course heldBack(Instant now) {
        return to(
                ModerationTable.after(standing, Step.HOLD_BACK, Policy.BEFORE, true)
                        .orElseThrow(),
                now,
                publishedAt);
    }

    /** It goes into the bin, or what was hidden is shown again. */
    public Optional<Course> moved(Step step, Circumstances of) {
        return ModerationTable.after(standing, step, Policy.BEFORE, false).map(s -> moved(s, of));
    }

    /**
     * It is taken out of the bin.
     *
     * @param before the state in which it was thrown away; null if that is not known
     */
    public Optional<Course> restored(@Nullable State before, Circumstances of) {
        return ModerationTable.restored(standing, before).map(s -> moved(s, of));
    }

    private Course moved(Standing after, Circumstances of) {
        boolean isUp = after.live() != null && after.state() != State.HIDDEN && after.state() != State.BINNED;
        return to(after, after.state().waits() || isUp && of.reported() ? of.now() : null, publishedAt);
    }

    /** As it stood before a decision that is taken back. */
    public Course backTo(Standing before, @Nullable Instant waited, @Nullable Instant published) {
        return to(before, waited, published);
    }

    /** Whether it lies in the pile. */
    public boolean inPile() {
        return standing.inPile(waitingSince != null);
    }

    private Course to(Standing after, @Nullable Instant waiting, @Nullable Instant published) {
        return new Course(after, waiting, published, handedInAt, publishAt);
    }

    private Instant firstUp(Instant now) {
        return publishedAt != null ? publishedAt : now;
    }

    private boolean isAhead(Instant now) {
        return publishAt != null && publishAt.isAfter(now);
    }
}
