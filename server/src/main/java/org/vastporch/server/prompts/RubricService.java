package org.vastporch.server.prompts;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.RubricCsv;
import org.vastporch.core.rubrics.RubricJson;
import org.vastporch.core.text.OneLine;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;

/** Rubrics apart from their prompts: those that one has used before, and as tables. */
@Service
public class RubricService {

    /** A rubric by the prompt that it was used for last. */
    public record KnownRubric(String prompt, String className, Rubric rubric) {}

    /**
     * One that is kept by a name.
     *
     * @param by whose it is; left out for the viewer's own, which they alone change
     */
    public record KeptRubric(
            long id, String name, @Optionally String by, Rubric rubric, int rev) {}

    /**
     * The library of a teacher.
     *
     * @param kept their own and those of whoever teaches a class with them, by name
     * @param used those of prompts
     */
    public record Rubrics(List<KeptRubric> kept, List<KnownRubric> used) {}

    /** @param rev of the one that is changed, as it was seen; 0 for a new one */
    public record WantedRubric(String name, Rubric rubric, int rev) {}

    private static final int MOST = 40;
    private static final int MOST_KEPT = 200;
    private static final int LONGEST_NAME = 80;

    private final KeptRubricStore store;
    private final Clock clock;
    private final PromptService prompts;
    private final ClassService classes;
    private final AccessService access;

    RubricService(
            KeptRubricStore store, Clock clock, PromptService prompts, ClassService classes, AccessService access) {
        this.store = store;
        this.clock = clock;
        this.prompts = prompts;
        this.classes = classes;
        this.access = access;
    }

    /** What a teacher can take a rubric from; empty for whoever teaches no class. */
    public Rubrics of(Viewer viewer) {
        Set<Long> led = led(viewer);
        if (led.isEmpty()) return new Rubrics(List.of(), List.of());
        return new Rubrics(
                store.of(viewer.personId(), led).stream()
                        .map(k -> view(viewer, k))
                        .toList(),
                used(led));
    }

    private static KeptRubric view(Viewer viewer, KeptRubricStore.Kept kept) {
        return new KeptRubric(
                kept.id(),
                kept.name(),
                kept.ownerId() == viewer.personId() ? null : kept.owner(),
                kept.rubric(),
                kept.rev());
    }

    /** Keeps a rubric by a name. */
    @Transactional
    public KeptRubric keep(Viewer viewer, WantedRubric wanted) {
        requireTeaching(viewer);
        String name = checkedName(wanted.name());
        if (store.count(viewer.personId()) >= MOST_KEPT)
            throw Problem.stale("rubrics-full", "At most " + MOST_KEPT + " rubrics are kept. Take one away first.");
        long id = store.add(viewer.personId(), name, wanted.rubric(), clock.instant());
        return new KeptRubric(id, name, null, wanted.rubric(), 1);
    }

    /** Changes the name or the steps of one's own; prompts that took it before keep what they have. */
    @Transactional
    public KeptRubric change(Viewer viewer, long id, WantedRubric wanted) {
        requireTeaching(viewer);
        KeptRubricStore.Kept kept = store.lock(id, viewer.personId()).orElseThrow(Problem::missing);
        requireAsSeen(viewer, kept, wanted.rev());
        String name = checkedName(wanted.name());
        store.change(id, name, wanted.rubric(), clock.instant());
        return new KeptRubric(id, name, null, wanted.rubric(), kept.rev() + 1);
    }

    @Transactional
    public void remove(Viewer viewer, long id, int rev) {
        requireTeaching(viewer);
        KeptRubricStore.Kept kept = store.lock(id, viewer.personId()).orElseThrow(Problem::missing);
        requireAsSeen(viewer, kept, rev);
        store.remove(id);
    }

    private static void requireAsSeen(Viewer viewer, KeptRubricStore.Kept kept, int rev) {
        if (rev != kept.rev())
            throw Problem.stale("rubric-meanwhile", "This rubric was changed in another window since you opened it.")
                    .with("rubric", view(viewer, kept));
    }

    private static String checkedName(String name) {
        String stripped = OneLine.of(name).strip();
        if (stripped.isEmpty() || stripped.length() > LONGEST_NAME)
            throw Problem.invalid(
                    "name", "rubric-name", "Give the rubric a name of 1 to " + LONGEST_NAME + " characters.");
        return stripped;
    }

    private void requireTeaching(Viewer viewer) {
        if (led(viewer).isEmpty()) throw Problem.missing();
    }

    private Set<Long> led(Viewer viewer) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        return viewer.memberships().stream()
                .map(Membership::classId)
                .filter(id -> access.allows(viewer, Act.MANAGE_CLASS, id))
                .collect(Collectors.toSet());
    }

    /** The rubrics of prompts of classes, each once, those of the prompts due last first. */
    private List<KnownRubric> used(Set<Long> led) {
        Map<Long, String> names = led.stream()
                .collect(Collectors.toMap(id -> id, id -> classes.get(id).name()));
        Set<Rubric> seen = new HashSet<>();
        List<KnownRubric> known = new ArrayList<>();
        for (Prompt prompt : prompts.ofClasses(led))
            if (prompt.rubric() != null && known.size() < MOST && seen.add(prompt.rubric()))
                known.add(new KnownRubric(prompt.title(), names.get(prompt.classId()), prompt.rubric()));
        return known;
    }

    /** The rubric of a prompt, for those who mark by it. */
    public Rubric ofPrompt(Viewer viewer, long promptId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        if (prompt.rubric() == null) throw Problem.missing();
        return prompt.rubric();
    }

    /** A table, or the JSON form, read as a rubric; nothing is kept. */
    public Rubric read(Viewer viewer, long classId, String text) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return RubricJson.looksLikeOne(text) ? RubricJson.read(text) : RubricCsv.read(text);
    }
}
