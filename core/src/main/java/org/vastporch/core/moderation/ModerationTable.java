package org.vastporch.core.moderation;

import static org.vastporch.core.moderation.State.*;

import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What becomes of a text when somebody acts on it, as a table that is read from the top: the first row that fits
 * decides. A combination without a row is not possible from where the text stands.
 */
public final class ModerationTable {

    /**
     * What a person does with a text. SAVE starts or goes on with the author's working version; EDIT is staff mending
     * what waits. SCHEDULE takes the place of handing in or approving where a later moment was asked for, and PUBLISH
     * is that moment. REPORT takes down what a reader reported, where the class wants that before anybody has looked.
     * HOLD_BACK keeps what was to go up by itself where its author may not write any more. SHOW lets what was hidden be
     * read again; RESTORE takes a text out of the bin, see {@link #restored}.
     */
    public enum Step {
        SAVE,
        EDIT,
        HAND_IN,
        APPROVE,
        SCHEDULE,
        PUBLISH,
        HOLD_BACK,
        RETURN,
        HIDE,
        REPORT,
        SHOW,
        BIN,
        RESTORE
    }

    /** What happens to the two versions. */
    public enum Effect {
        /** Both stay. */
        KEEP,
        /**
         * Both stay, and readers get the live one again; a newer one is worked on from then, so that it is never left
         * outside of both pile and desk.
         */
        UP,
        /** The working version becomes the live one. */
        PROMOTE,
        /** The live version comes down and is worked on again, unless a newer one is. */
        TAKE_DOWN,
        /** A new working version begins, unless there is one. */
        BEGIN
    }

    /**
     * One row.
     *
     * @param policy the policies for which it holds; empty for any
     * @param held whether a hold must be there; null for no matter
     * @param live whether an approved version must be up; null for no matter
     */
    public record Row(
            Step step,
            Set<State> from,
            Set<Policy> policy,
            @Nullable Boolean held,
            @Nullable Boolean live,
            State to,
            Effect effect) {}

    private static final Set<Policy> ANY = Set.of();

    static final List<Row> ROWS = List.of(
            new Row(
                    Step.SAVE,
                    EnumSet.of(DRAFT, WAITING, RETURNED, PUBLISHED, SCHEDULED),
                    ANY,
                    null,
                    null,
                    DRAFT,
                    Effect.BEGIN),
            new Row(Step.EDIT, EnumSet.of(WAITING), ANY, null, null, WAITING, Effect.BEGIN),
            new Row(Step.HAND_IN, EnumSet.of(DRAFT, RETURNED), Set.of(Policy.BEFORE), null, null, WAITING, Effect.KEEP),
            new Row(Step.HAND_IN, EnumSet.of(DRAFT, RETURNED), ANY, true, null, WAITING, Effect.KEEP),
            new Row(
                    Step.HAND_IN,
                    EnumSet.of(DRAFT, RETURNED),
                    Set.of(Policy.AFTER, Policy.NONE),
                    false,
                    null,
                    PUBLISHED,
                    Effect.PROMOTE),
            new Row(Step.APPROVE, EnumSet.of(WAITING), ANY, null, null, PUBLISHED, Effect.PROMOTE),
            new Row(Step.APPROVE, EnumSet.of(PUBLISHED), ANY, null, null, PUBLISHED, Effect.KEEP),
            // What is up and is looked at afterwards stays up while its author works on the next version.
            new Row(Step.APPROVE, EnumSet.of(DRAFT), ANY, null, true, DRAFT, Effect.KEEP),
            new Row(Step.APPROVE, EnumSet.of(RETURNED), ANY, null, true, RETURNED, Effect.KEEP),
            new Row(Step.APPROVE, EnumSet.of(SCHEDULED), ANY, null, true, SCHEDULED, Effect.KEEP),
            new Row(Step.RETURN, EnumSet.of(DRAFT), ANY, null, true, RETURNED, Effect.TAKE_DOWN),
            new Row(Step.HIDE, EnumSet.of(DRAFT, SCHEDULED), ANY, null, true, HIDDEN, Effect.KEEP),
            new Row(
                    Step.SCHEDULE,
                    EnumSet.of(DRAFT, RETURNED),
                    Set.of(Policy.AFTER, Policy.NONE),
                    false,
                    null,
                    SCHEDULED,
                    Effect.KEEP),
            new Row(Step.SCHEDULE, EnumSet.of(WAITING), ANY, null, null, SCHEDULED, Effect.KEEP),
            new Row(Step.PUBLISH, EnumSet.of(SCHEDULED), ANY, null, null, PUBLISHED, Effect.PROMOTE),
            new Row(Step.HOLD_BACK, EnumSet.of(SCHEDULED), ANY, null, null, WAITING, Effect.KEEP),
            new Row(Step.RETURN, EnumSet.of(SCHEDULED), ANY, null, null, RETURNED, Effect.KEEP),
            new Row(Step.RETURN, EnumSet.of(WAITING), ANY, null, null, RETURNED, Effect.KEEP),
            new Row(Step.RETURN, EnumSet.of(PUBLISHED), ANY, null, null, RETURNED, Effect.TAKE_DOWN),
            new Row(Step.HIDE, EnumSet.of(WAITING, PUBLISHED, RETURNED, HIDDEN), ANY, null, null, HIDDEN, Effect.KEEP),
            new Row(
                    Step.REPORT,
                    EnumSet.of(PUBLISHED, DRAFT, RETURNED, SCHEDULED),
                    ANY,
                    null,
                    true,
                    HIDDEN,
                    Effect.KEEP),
            new Row(Step.APPROVE, EnumSet.of(HIDDEN), ANY, null, true, PUBLISHED, Effect.UP),
            new Row(Step.RETURN, EnumSet.of(HIDDEN), ANY, null, true, RETURNED, Effect.TAKE_DOWN),
            new Row(
                    Step.BIN,
                    EnumSet.of(DRAFT, WAITING, RETURNED, PUBLISHED, SCHEDULED, HIDDEN),
                    ANY,
                    null,
                    null,
                    BINNED,
                    Effect.KEEP),
            new Row(Step.SHOW, EnumSet.of(HIDDEN), ANY, null, true, PUBLISHED, Effect.UP),
            new Row(Step.SHOW, EnumSet.of(HIDDEN), ANY, null, false, WAITING, Effect.KEEP));

    private ModerationTable() {}

    /**
     * Where the text stands after the step.
     *
     * @param policy the policy in force for its author, see {@link Policy#inForce}
     * @param held whether a hold was found in the text that would become live
     * @return empty if the step is not possible from here
     */
    public static Optional<Standing> after(Standing now, Step step, Policy policy, boolean held) {
        return ROWS.stream()
                .filter(row -> row.step() == step
                        && row.from().contains(now.state())
                        && (row.policy().isEmpty() || row.policy().contains(policy))
                        && (row.held() == null || row.held() == held)
                        && (row.live() == null || row.live() == (now.live() != null)))
                .findFirst()
                .map(row -> apply(row, now));
    }

    /**
     * Where a text stands once it is taken out of the bin: where it stood before. What was hidden stays hidden, what
     * waited waits again; what was to go up by itself is a draft again, since its time may be over.
     *
     * @param before the state in which it was thrown away; null if that is not known
     * @return empty if the text does not lie in the bin
     */
    public static Optional<Standing> restored(Standing now, @Nullable State before) {
        if (now.state() != BINNED) return Optional.empty();
        State back = before != null ? before : now.live() != null && now.working() == null ? PUBLISHED : DRAFT;
        return Optional.of(new Standing(back == SCHEDULED ? DRAFT : back, now.live(), now.working()));
    }

    private static Standing apply(Row row, Standing now) {
        Integer newest = now.newest();
        return switch (row.effect()) {
            case KEEP -> new Standing(row.to(), now.live(), now.working());
            case UP -> new Standing(now.working() == null ? row.to() : DRAFT, now.live(), now.working());
            case PROMOTE -> new Standing(row.to(), newest, null);
            case TAKE_DOWN -> new Standing(row.to(), null, newest);
            case BEGIN -> {
                // A version that waits or was looked at is never written over: an approval covers just what was seen.
                boolean goesOn = now.state() == DRAFT && now.working() != null;
                yield new Standing(row.to(), now.live(), goesOn ? newest : Integer.valueOf(newest + 1));
            }
        };
    }
}
