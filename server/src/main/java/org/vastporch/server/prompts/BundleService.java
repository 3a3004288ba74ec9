package org.vastporch.server.prompts;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Bundle;
import org.vastporch.core.rubrics.Fraction;
import org.vastporch.core.text.OneLine;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;

/** The bundles of a class: which prompts count together, how much, and how many of them. */
@Service
public class BundleService {

    /**
     * @param id left out for a new one
     * @param best how many papers count; 0 for all
     * @param never what a paper that never came counts
     * @param prompts those that are in it
     */
    public record BundleView(
            @Optionally Long id, String name, BigDecimal weight, int best, Bundle.Never never, List<Long> prompts) {

        public Bundle rule() {
            return new Bundle(Fraction.of(weight), best, never);
        }
    }

    /** @param seen names the bundles as they stand; a change names what it was made on */
    public record BundlesView(List<BundleView> bundles, String seen) {}

    private static final int MOST = 20;

    private final BundleStore store;
    private final PromptStore prompts;
    private final AccessService access;
    private final EventStore events;

    BundleService(BundleStore store, PromptStore prompts, AccessService access, EventStore events) {
        this.store = store;
        this.prompts = prompts;
        this.access = access;
        this.events = events;
    }

    /** For those who mark there. */
    public BundlesView ofClass(Viewer viewer, long classId) {
        access.require(viewer, Act.MARK, classId);
        return view(classId);
    }

    /** Puts other bundles in place of those that are there. A prompt that is in none counts nowhere. */
    @Transactional
    public BundlesView set(Viewer viewer, long classId, BundlesView wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        store.lockClass(classId);
        BundlesView before = view(classId);
        if (!before.seen().equals(wanted.seen()))
            throw Problem.stale(
                    "bundles-changed", "Somebody has changed the bundles since you opened them. Yours were not kept.");
        check(classId, before, wanted.bundles());
        Set<Long> stay = new HashSet<>();
        Set<Long> bundled = new HashSet<>();
        int place = 0;
        for (BundleView bundle : wanted.bundles()) {
            BundleStore.Kept kept = new BundleStore.Kept(
                    bundle.id() == null ? 0 : bundle.id(),
                    OneLine.of(bundle.name()),
                    bundle.weight(),
                    bundle.best(),
                    bundle.never());
            long id = kept.id();
            if (id == 0) id = store.add(classId, kept, place);
            else store.change(kept, place);
            place++;
            stay.add(id);
            for (long prompt : bundle.prompts()) {
                store.put(prompt, id);
                bundled.add(prompt);
            }
        }
        for (BundleView bundle : before.bundles())
            for (long prompt : bundle.prompts()) if (!bundled.contains(prompt)) store.put(prompt, null);
        for (BundleView bundle : before.bundles()) if (!stay.contains(bundle.id())) store.remove(bundle.id());
        events.add(classId, "bundles-set", classId, viewer.personId());
        return view(classId);
    }

    private void check(long classId, BundlesView before, List<BundleView> wanted) {
        if (wanted.size() > MOST) throw Problem.invalid("bundles", "too-many", "A class has at most 20 bundles.");
        Set<Long> known = new HashSet<>();
        for (BundleView bundle : before.bundles()) known.add(bundle.id());
        Set<Long> ofClass = new HashSet<>(prompts.idsOf(classId));
        Set<Long> taken = new HashSet<>();
        for (BundleView bundle : wanted) {
            String name = OneLine.of(bundle.name());
            if (name.isEmpty() || name.length() > 80)
                throw Problem.invalid("name", "bundle-name", "Give each bundle a name of at most 80 characters.");
            bundle.rule();
            if (bundle.weight().compareTo(BigDecimal.valueOf(10_000)) > 0
                    || bundle.weight().stripTrailingZeros().scale() > 4)
                throw Problem.invalid("weight", "bundle-weight", "A weight is a number up to 10,000.");
            if (bundle.id() != null && !known.remove(bundle.id())) throw Problem.missing();
            for (long prompt : bundle.prompts()) {
                if (!ofClass.contains(prompt)) throw Problem.missing();
                if (!taken.add(prompt))
                    throw Problem.invalid("bundles", "bundled-twice", "A prompt can be in one bundle only.");
            }
        }
    }

    private BundlesView view(long classId) {
        Map<Long, List<Long>> in = store.prompts(classId);
        List<BundleView> bundles = new ArrayList<>();
        for (BundleStore.Kept kept : store.ofClass(classId))
            bundles.add(new BundleView(
                    kept.id(),
                    kept.name(),
                    kept.weight(),
                    kept.best(),
                    kept.never(),
                    in.getOrDefault(kept.id(), List.of())));
        return new BundlesView(bundles, Integer.toHexString(bundles.toString().hashCode()));
    }
}
