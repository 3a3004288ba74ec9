package org.vastporch.core.reports;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.stream.Stream;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;
import org.vastporch.core.Refusal;
import org.vastporch.core.reports.ReportFacts.Scope;
import org.vastporch.core.reports.ReportField.Each;
import org.vastporch.core.reports.ReportField.When;

/**
 * A text with fields. A field is an element with {@code data-field}, a part for each of something one with
 * {@code data-each}, a part that stands only if something is so one with {@code data-if}. A div or span that is such a
 * part is not there itself; any other element is, such as an item of a list for each of something.
 *
 * @param key a name that stays the same
 * @param name what its reader calls it
 * @param html clean HTML with the elements of {@link ReportField}
 */
public record ReportTemplate(String key, String name, String html) {

    private static final String FIELD = "data-field";
    private static final String EACH = "data-each";
    private static final String WHEN = "data-if";
    private static final int LONGEST = 100_000;
    private static final int FIRST_WORDS = 40;

    /**
     * This template, if every field in it means something where it stands.
     *
     * @throws Refusal that says which does not, and where
     */
    public ReportTemplate checked() {
        if (html.length() > LONGEST)
            throw new Refusal("html", "template-too-long", "A template has at most 100,000 characters.");
        Element body = body();
        if (body.select("[" + FIELD + "]").isEmpty())
            throw new Refusal(
                    "html", "no-field", "This template has no field, so every student would get the same report.");
        check(body, new ArrayDeque<>());
        return this;
    }

    /**
     * What it says of one student: HTML in which every word of a person is text. A note for which it has no place
     * stands at its end, so that none is lost.
     */
    public String fill(ReportFacts facts) {
        Document filled = Document.createShell("");
        filled.outputSettings().prettyPrint(false);
        Element body = body();
        fill(body, filled.body(), List.of(facts.scope()));
        boolean hasPlace = !body.select("[" + FIELD + "=" + ReportField.key(ReportField.NOTE) + "]")
                .isEmpty();
        if (!hasPlace && !facts.note().isEmpty())
            filled.body().appendElement("p").text(facts.note());
        return filled.body().html();
    }

    private Element body() {
        return Jsoup.parseBodyFragment(html).body();
    }

    private static void check(Element in, Deque<Each> open) {
        for (Element child : in.children()) {
            Each each = null;
            if (child.hasAttr(FIELD)) {
                ReportField field = ReportField.named(ReportField.class, child.attr(FIELD))
                        .orElseThrow(() -> unknown("field", child.attr(FIELD), child));
                if (field.within() != null && !open.contains(field.within()))
                    throw misplaced(child.attr(FIELD), field.within(), child);
            } else if (child.hasAttr(WHEN)) {
                When when = ReportField.named(When.class, child.attr(WHEN))
                        .orElseThrow(() -> unknown("condition", child.attr(WHEN), child));
                if (when.within() != null && !open.contains(when.within()))
                    throw misplaced("if " + child.attr(WHEN), when.within(), child);
            } else if (child.hasAttr(EACH)) {
                each = ReportField.named(Each.class, child.attr(EACH))
                        .orElseThrow(() -> unknown("repeated part", child.attr(EACH), child));
                if (each.within() != null && !open.contains(each.within()))
                    throw misplaced("each " + child.attr(EACH), each.within(), child);
            }
            if (each != null) open.push(each);
            check(child, open);
            if (each != null) open.pop();
        }
    }

    private static Refusal unknown(String kind, String name, Element at) {
        return new Refusal(
                "html",
                "field-unknown",
                "There is no " + kind + " “" + name + "” any more; it stands " + place(at) + ".");
    }

    private static Refusal misplaced(String name, Each within, Element at) {
        return new Refusal(
                "html",
                "field-misplaced",
                "“" + name + "” means something only within “each " + ReportField.key(within) + "”; it stands "
                        + place(at) + ".");
    }

    /** Where something stands, as a person finds it: by the words around it. */
    private static String place(Element at) {
        for (Element around = at; around != null && !around.nameIs("body"); around = around.parent())
            if (!around.text().isBlank()) {
                String words = around.text();
                return "at “"
                        + (words.length() > FIRST_WORDS
                                ? words.substring(0, FIRST_WORDS).strip() + "…"
                                : words) + "”";
            }
        return "at the beginning";
    }

    /** @param scopes the innermost part last */
    private static void fill(Element from, Element into, List<Scope> scopes) {
        Scope here = scopes.get(scopes.size() - 1);
        for (Node node : from.childNodes()) {
            if (!(node instanceof Element element)) {
                into.appendChild(node.clone());
            } else if (element.hasAttr(FIELD)) {
                ReportField.named(ReportField.class, element.attr(FIELD))
                        .ifPresent(field -> into.appendChild(new TextNode(value(field, scopes))));
            } else if (element.hasAttr(EACH)) {
                ReportField.named(Each.class, element.attr(EACH))
                        .map(each -> here.parts().getOrDefault(each, List.of()))
                        .orElse(List.of())
                        .forEach(part -> fill(element, place(element, into), and(scopes, part)));
            } else if (element.hasAttr(WHEN)) {
                if (ReportField.named(When.class, element.attr(WHEN))
                        .filter(when -> scopes.stream().anyMatch(s -> s.holds().contains(when)))
                        .isPresent()) fill(element, place(element, into), scopes);
            } else {
                fill(element, place(element, into), scopes);
            }
        }
    }

    /** Where what is in an element goes: into a copy of it, or for a mere part right into what is around it. */
    private static Element place(Element element, Element into) {
        boolean part = element.hasAttr(EACH) || element.hasAttr(WHEN);
        if (part && (element.nameIs("div") || element.nameIs("span"))) return into;
        Element copy = element.shallowClone();
        copy.removeAttr(EACH).removeAttr(WHEN);
        into.appendChild(copy);
        return copy;
    }

    private static List<Scope> and(List<Scope> scopes, Scope inner) {
        return Stream.concat(scopes.stream(), Stream.of(inner)).toList();
    }

    private static String value(ReportField field, List<Scope> scopes) {
        for (int i = scopes.size() - 1; i >= 0; i--) {
            String value = scopes.get(i).values().get(field);
            if (value != null) return value;
        }
        return "";
    }
}
