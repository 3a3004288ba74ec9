package org.vastporch.server.agreement;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.agreement.Agreement;
import org.vastporch.core.agreement.Agreement.Verdict;
import org.vastporch.core.agreement.Comparison;
import org.vastporch.core.agreement.Severity;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Csv;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.marking.GivenReadings;
import org.vastporch.server.marking.GivenReadings.By;
import org.vastporch.server.marking.GivenReadings.GivenReading;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;

/** How far two sides agree about the papers of a class, and who is severe. All numbers come from the core. */
@Service
public class AgreementService {

    /** @param key "lead", "second", "self", "peers", or "p" and the number of somebody who marks */
    public record SideView(String key, String name) {}

    public record PromptName(long id, String title) {}

    /** So many papers were given these two levels, counted from 0. */
    public record GridCell(int first, int second, int papers) {}

    public record KappaView(double value, double low, double high) {}

    /**
     * One criterion.
     *
     * @param verdict left out, like the numbers after it, where too few papers were read by both
     * @param meanDifference in steps; above 0 if the second side gives more
     * @param exact how many pairs have the same step
     * @param withinOne how many are at most one step apart
     * @param kappa left out where the steps of a side do not vary
     */
    public record CriterionView(
            String name,
            int levels,
            int pairs,
            List<GridCell> grid,
            @Optionally Verdict verdict,
            @Optionally Double meanDifference,
            @Optionally Integer exact,
            @Optionally Integer withinOne,
            @Optionally KappaView kappa) {}

    /** Two readings worth talking about. */
    public record GapView(
            long promptId,
            String prompt,
            long studentId,
            String student,
            String criterion,
            int levels,
            int first,
            int second) {}

    /**
     * @param steps how many steps somebody gives more than all who read the same papers; below 0 if fewer
     * @param error the standard error of it
     * @param student whether it is a classmate who reviewed, which is believed the more the more they reviewed
     */
    public record SeverityView(
            String name,
            boolean student,
            int readings,
            double steps,
            @Optionally Double error) {}

    /**
     * @param sides those that can be compared
     * @param papers how many either side read
     * @param both how many both read
     * @param fewest of fewer pairs nothing is said
     */
    public record AgreementView(
            List<SideView> sides,
            List<PromptName> prompts,
            String first,
            String second,
            int papers,
            int both,
            int fewest,
            List<CriterionView> criteria,
            List<GapView> widest,
            List<SeverityView> severity) {}

    private record Key(long promptId, long studentId) {}

    private final GivenReadings readings;
    private final PromptService prompts;
    private final PeopleService people;
    private final AccessService access;

    AgreementService(GivenReadings readings, PromptService prompts, PeopleService people, AccessService access) {
        this.readings = readings;
        this.prompts = prompts;
        this.people = people;
        this.access = access;
    }

    /** @param promptId of one prompt; null for all of the class */
    public AgreementView compare(Viewer viewer, long classId, String first, String second, @Nullable Long promptId) {
        access.require(viewer, Act.MARK, classId);
        List<Prompt> all =
                prompts.all(classId).stream().filter(p -> p.rubric() != null).toList();
        List<Prompt> of =
                all.stream().filter(p -> promptId == null || p.id() == promptId).toList();
        if (promptId != null && of.isEmpty()) throw Problem.missing();
        Names names = people.names(viewer, classId);
        List<GivenReading> given = readings.of(viewer, classId, of);
        Map<Key, List<GivenReading>> papers = given.stream()
                .collect(Collectors.groupingBy(
                        r -> new Key(r.prompt().id(), r.studentId()), LinkedHashMap::new, Collectors.toList()));
        Predicate<GivenReading> one = side(first);
        Predicate<GivenReading> other = side(second);
        List<Key> keys = new ArrayList<>();
        List<Comparison.Both> both = new ArrayList<>();
        int read = 0;
        for (Map.Entry<Key, List<GivenReading>> paper : papers.entrySet()) {
            Optional<GivenReading> mine = paper.getValue().stream().filter(one).findFirst();
            Optional<GivenReading> theirs = paper.getValue().stream()
                    .filter(other)
                    .filter(r -> mine.isEmpty() || r != mine.get())
                    .findFirst();
            if (mine.isPresent() || theirs.isPresent()) read++;
            if (mine.isEmpty() || theirs.isEmpty()) continue;
            both.add(new Comparison.Both(
                    keys.size(),
                    mine.get().prompt().rubric(),
                    mine.get().marks(),
                    theirs.get().marks()));
            keys.add(paper.getKey());
        }
        Comparison compared = Comparison.of(both, classId);
        Map<Long, String> titles = of.stream().collect(Collectors.toMap(Prompt::id, Prompt::title));
        return new AgreementView(
                sides(given, names),
                all.stream().map(p -> new PromptName(p.id(), p.title())).toList(),
                first,
                second,
                read,
                both.size(),
                Agreement.FEWEST,
                compared.criteria().stream().map(AgreementService::view).toList(),
                compared.widest().stream()
                        .map(g -> gap(g, keys.get((int) g.paper()), titles, names))
                        .toList(),
                severity(papers, names));
    }

    /** The same as a table, one row a criterion. */
    public String csv(Viewer viewer, long classId, String first, String second, @Nullable Long promptId) {
        AgreementView view = compare(viewer, classId, first, second, promptId);
        List<List<?>> rows = new ArrayList<>();
        rows.add(List.of(
                "Criterion",
                "Papers read by both",
                "Mean difference (steps)",
                "Same step",
                "Within one step",
                "Kappa",
                "Kappa from",
                "Kappa to"));
        for (CriterionView c : view.criteria())
            rows.add(List.of(
                    c.name(),
                    c.pairs(),
                    number(c.meanDifference()),
                    c.exact() == null ? "" : c.exact(),
                    c.withinOne() == null ? "" : c.withinOne(),
                    c.kappa() == null ? "" : number(c.kappa().value()),
                    c.kappa() == null ? "" : number(c.kappa().low()),
                    c.kappa() == null ? "" : number(c.kappa().high())));
        return Csv.table(rows);
    }

    private static String number(@Nullable Double number) {
        return number == null ? "" : String.format(Locale.ROOT, "%.2f", number);
    }

    private static Predicate<GivenReading> side(String key) {
        return switch (key) {
            case "lead" -> r -> r.by() == By.LEAD;
            case "second" -> r -> r.by() == By.SECOND;
            case "self" -> r -> r.by() == By.SELF;
            case "peers" -> r -> r.by() == By.PEERS;
            default -> {
                if (!key.matches("p\\d{1,15}"))
                    throw Problem.invalid("side", "side-unknown", "There is no such side to compare.");
                long person = Long.parseLong(key.substring(1));
                yield r -> r.by().isMarkers() && r.readerId() == person;
            }
        };
    }

    private static List<SideView> sides(List<GivenReading> given, Names names) {
        List<SideView> sides = new ArrayList<>();
        if (given.stream().anyMatch(r -> r.by() == By.LEAD)) sides.add(new SideView("lead", "the marks that count"));
        if (given.stream().anyMatch(r -> r.by() == By.SECOND)) sides.add(new SideView("second", "second readings"));
        if (given.stream().anyMatch(r -> r.by() == By.SELF)) sides.add(new SideView("self", "students on their own"));
        if (given.stream().anyMatch(r -> r.by() == By.PEERS)) sides.add(new SideView("peers", "classmates together"));
        given.stream()
                .filter(r -> r.by().isMarkers())
                .map(GivenReading::readerId)
                .distinct()
                .sorted()
                .forEach(id -> sides.add(new SideView("p" + id, names.of(id))));
        return sides;
    }

    private static CriterionView view(Comparison.Criterion criterion) {
        Map<Agreement.Pair, Long> cells = criterion.pairs().stream()
                .collect(Collectors.groupingBy(p -> p, LinkedHashMap::new, Collectors.counting()));
        List<GridCell> grid = cells.entrySet().stream()
                .map(e -> new GridCell(
                        e.getKey().first(), e.getKey().second(), e.getValue().intValue()))
                .toList();
        int pairs = criterion.pairs().size();
        Agreement of = criterion.agreement().orElse(null);
        if (of == null)
            return new CriterionView(criterion.name(), criterion.levels(), pairs, grid, null, null, null, null, null);
        return new CriterionView(
                criterion.name(),
                criterion.levels(),
                pairs,
                grid,
                of.verdict(),
                of.meanDifference(),
                (int) Math.round(of.exact() * pairs),
                (int) Math.round(of.withinOne() * pairs),
                of.kappa().map(k -> new KappaView(k.value(), k.low(), k.high())).orElse(null));
    }

    private static GapView gap(Comparison.Gap gap, Key key, Map<Long, String> titles, Names names) {
        return new GapView(
                key.promptId(),
                titles.get(key.promptId()),
                key.studentId(),
                names.of(key.studentId()),
                gap.criterion(),
                gap.levels(),
                gap.first(),
                gap.second());
    }

    /** In steps over all criteria, of those who mark and of classmates who review. */
    private static List<SeverityView> severity(Map<Key, List<GivenReading>> papers, Names names) {
        Set<Long> students = papers.values().stream()
                .flatMap(List::stream)
                .filter(r -> r.by() == By.PEER)
                .map(GivenReading::readerId)
                .collect(Collectors.toSet());
        List<Severity.Reading> of = new ArrayList<>();
        long paper = 0;
        for (List<GivenReading> readings : papers.values()) {
            long number = paper++;
            for (GivenReading r : readings)
                if (r.by().isMarkers() || r.by() == By.PEER)
                    Comparison.meanStep(r.prompt().rubric(), r.marks())
                            .ifPresent(step ->
                                    of.add(new Severity.Reading(number, r.readerId(), step, r.by() == By.PEER)));
        }
        return Severity.of(of).stream()
                .map(s -> new SeverityView(
                        names.of(s.marker()),
                        students.contains(s.marker()),
                        s.readings(),
                        s.residual(),
                        s.error().isPresent() ? s.error().getAsDouble() : null))
                .toList();
    }
}
