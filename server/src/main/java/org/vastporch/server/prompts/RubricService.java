package org.vastporch.server.prompts;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.RubricCsv;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;

/** Rubrics apart from their prompts: those that one has used before, and as tables. */
@Service
public class RubricService {

    /** A rubric by the prompt that it was used for last. */
    public record KnownRubric(String prompt, String className, Rubric rubric) {}

    private static final int MOST = 40;

    private final PromptService prompts;
    private final ClassService classes;
    private final AccessService access;

    RubricService(PromptService prompts, ClassService classes, AccessService access) {
        this.prompts = prompts;
        this.classes = classes;
        this.access = access;
    }

    /** The rubrics of all classes that the viewer leads, each once, those of the prompts due last first. */
    public List<KnownRubric> known(Viewer viewer) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        Set<Long> led = viewer.memberships().stream()
                .map(Membership::classId)
                .filter(id -> access.allows(viewer, Act.MANAGE_CLASS, id))
                .collect(Collectors.toSet());
        Map<Long, String> names = led.stream()
                .collect(Collectors.toMap(id -> id, id -> classes.get(id).name()));
        Set<Rubric> seen = new HashSet<>();
        List<KnownRubric> known = new ArrayList<>();
        for (Prompt prompt : prompts.ofClasses(led))
            if (prompt.rubric() != null && known.size() < MOST && seen.add(prompt.rubric()))
                known.add(new KnownRubric(prompt.title(), names.get(prompt.classId()), prompt.rubric()));
        return known;
    }

    /** The rubric of a prompt as a table, for those who mark by it. */
    public String csv(Viewer viewer, long promptId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        if (prompt.rubric() == null) throw Problem.missing();
        return RubricCsv.write(prompt.rubric());
    }

    /** A table read as a rubric; nothing is kept. */
    public Rubric read(Viewer viewer, long classId, String table) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return RubricCsv.read(table);
    }
}
