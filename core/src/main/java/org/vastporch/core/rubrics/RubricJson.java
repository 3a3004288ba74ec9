package org.vastporch.core.rubrics;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A rubric as JSON (RFC 8259), in the form that docs/rubric.md describes. Read back it is the same rubric, numbers
 * digit by digit. Fields that are not known are left.
 */
public final class RubricJson {

    /** Of the form; a reader refuses a later one. */
    private static final int VERSION = 1;

    private static final int LONGEST = 300_000;
    private static final JsonMapper JSON = JsonMapper.builder()
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .enable(SerializationFeature.INDENT_OUTPUT)
            .build();

    private RubricJson() {}

    /** Whether a text that somebody brings is meant as JSON rather than as a table. */
    public static boolean looksLikeOne(String text) {
        return bare(text).startsWith("{");
    }

    /** Without the mark of byte order that some put before a text. */
    private static String bare(String text) {
        String bare = text.strip();
        return bare.startsWith("\uFEFF") ? bare.substring(1).strip() : bare;
    }

    public static String write(Rubric rubric) {
        ObjectNode all = JSON.createObjectNode();
        all.put("rubric", VERSION);
        ArrayNode criteria = all.putArray("criteria");
        for (Criterion criterion : rubric.criteria()) {
            ObjectNode of = criteria.addObject();
            of.put("id", criterion.id());
            of.put("name", criterion.name());
            of.put("weight", criterion.weight());
            ArrayNode levels = of.putArray("levels");
            for (Level level : criterion.levels())
                levels.addObject()
                        .put("name", level.name())
                        .put("points", level.points())
                        .put("descriptor", level.descriptor());
            ArrayNode counted = of.putArray("counted");
            for (Measure measure : criterion.counted()) {
                ObjectNode what = counted.addObject().put("what", measure.what().word());
                ArrayNode atLeast = what.putArray("atLeast");
                measure.atLeast().forEach(atLeast::add);
            }
        }
        return JSON.writeValueAsString(all);
    }

    /** @throws Refusal that says what is wrong and where, if it cannot be a rubric */
    public static Rubric read(String text) {
        if (text.length() > LONGEST) throw wrong("rubric-too-long", "This is longer than any rubric.");
        JsonNode all;
        try {
            all = JSON.readTree(bare(text));
        } catch (JacksonException e) {
            throw wrong("rubric-unreadable", "This cannot be read as JSON.");
        }
        JsonNode version = all.path("rubric");
        if (!version.isInt())
            throw wrong("rubric-unreadable", "This is no rubric in JSON: it does not begin with \"rubric\": 1.");
        if (version.asInt() > VERSION)
            throw wrong("rubric-newer", "This rubric is in a later form than is known here.");
        if (!all.path("criteria").isArray() || all.path("criteria").isEmpty())
            throw wrong("rubric-empty", "A rubric needs at least one criterion.");
        List<Criterion> criteria = new ArrayList<>();
        for (JsonNode of : all.path("criteria")) {
            if (criteria.size() == Rubric.MOST_CRITERIA)
                throw wrong("rubric-criteria", "A rubric has at most " + Rubric.MOST_CRITERIA + " criteria.");
            criteria.add(criterion(of, "Criterion " + (criteria.size() + 1)));
        }
        return new Rubric(criteria);
    }

    private static Criterion criterion(JsonNode of, String where) {
        if (!of.path("levels").isArray()) throw wrong("criterion-levels", where + " has no levels.");
        List<Level> levels = new ArrayList<>();
        for (JsonNode level : of.path("levels"))
            levels.add(new Level(
                    word(level, "name", where),
                    number(level, "points", "Level " + (levels.size() + 1) + " of " + where),
                    word(level, "descriptor", where)));
        List<Measure> counted = new ArrayList<>();
        for (JsonNode measure : of.path("counted")) {
            String what = word(measure, "what", where);
            List<Integer> atLeast = new ArrayList<>();
            for (JsonNode least : measure.path("atLeast")) {
                if (!least.isInt()) throw wrong("rubric-number", where + " counts from a number that is no whole one.");
                atLeast.add(least.asInt());
            }
            counted.add(new Measure(
                    Counted.called(what)
                            .orElseThrow(() ->
                                    wrong("measure-unknown", "Nothing is counted that is called \"" + what + "\".")),
                    atLeast));
        }
        return new Criterion(
                word(of, "id", where),
                word(of, "name", where),
                of.has("weight") ? number(of, "weight", where) : BigDecimal.ONE,
                levels,
                counted);
    }

    private static String word(JsonNode of, String field, String where) {
        JsonNode word = of.path(field);
        if (word.isMissingNode() || word.isNull()) return "";
        if (!word.isString()) throw wrong("rubric-unreadable", where + ": \"" + field + "\" is no text.");
        return word.asString();
    }

    private static BigDecimal number(JsonNode of, String field, String where) {
        JsonNode number = of.path(field);
        if (!number.isNumber()) throw wrong("rubric-number", where + " has no " + field + ".");
        BigDecimal exact = number.decimalValue();
        // A number of a million digits is none that anybody gave.
        if (Math.abs((long) exact.scale()) > 100 || exact.precision() > 100)
            throw wrong("points-range", where + ": " + field + " must be at most 10,000.");
        return exact;
    }

    private static Refusal wrong(String code, String sentence) {
        return new Refusal("rubric", code, sentence);
    }
}
