package org.vastporch.core.feeds;

import java.io.StringReader;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;
import org.jspecify.annotations.Nullable;

/**
 * The XML of a feed as a tree, by a reader that takes whatever comes: bare signs, unknown entities, ends that are
 * missing, anything before and after. Well-formed documents come out as they are; a strict reading only says whether
 * this is one.
 *
 * @param root the element under which the feed is
 * @param cut whether it ends within an entry
 * @param untidy whether it is not well-formed
 */
record FeedTree(Element root, boolean cut, boolean untidy) {

    private static final int DEEPEST = 100;
    private static final int MOST_TAGS = 100_000;
    private static final int MOST_QUOTED = 150_000;
    private static final int MOST_ENTITIES = 64;
    private static final int LONGEST_ENTITY = 200;
    /** So much a text may grow by the entities that it declares itself. */
    private static final int MOST_GROWTH = 500_000;

    private static final Pattern ROOT =
            Pattern.compile("<(?:[\\w.-]+:)?(rss|feed|rdf|channel)\\b", Pattern.CASE_INSENSITIVE);
    private static final Pattern PAGE =
            Pattern.compile("<(!doctype\\s+html|html|head|body)\\b", Pattern.CASE_INSENSITIVE);
    private static final Pattern ENTRY =
            Pattern.compile("<(?:[\\w.-]+:)?(?:item|entry)(?=[\\s>])", Pattern.CASE_INSENSITIVE);
    private static final Pattern ENTRY_OR_ALL = Pattern.compile(
            "<(/?)(?:[\\w.-]+:)?(item|entry|channel|rss|feed|rdf)\\b([^<>]*)", Pattern.CASE_INSENSITIVE);
    private static final Pattern ENTITY =
            Pattern.compile("<!ENTITY\\s+([A-Za-z][\\w.-]*)\\s+(?:\"([^\"<&%]*)\"|'([^'<&%]*)')\\s*>");
    private static final Pattern DOCTYPE =
            Pattern.compile("<!DOCTYPE\\s[^\\[>]*(\\[[^\\]]*\\]\\s*)?>", Pattern.CASE_INSENSITIVE);
    private static final Pattern REFERENCE = Pattern.compile("&([A-Za-z][\\w.-]*);");

    /** Names of vocabularies, by what their addresses have in common and by the prefixes that people use for them. */
    private static final Map<String, String> VOCABULARIES = vocabularies();

    /** The tree of a text; null if it is no feed. */
    static @Nullable FeedTree of(String text) {
        int at = rootOf(text);
        if (at < 0) return null;
        String prolog = text.substring(0, at);
        Part part = firstOf(text.substring(at));
        String feed = withEntities(part.text(), prolog);
        Parser parser = Parser.xmlParser().setMaxDepth(DEEPEST);
        Document document = Jsoup.parse(feed, "", parser);
        document.outputSettings().prettyPrint(false);
        Element root = document.firstElementChild();
        return root == null
                ? null
                : new FeedTree(root, part.cut() || isCut(part.text()) && !part.whole(), !isWellFormed(text));
    }

    /**
     * As much of a feed as is read.
     *
     * @param whole whether it ends with a whole entry, however much comes behind it
     * @param cut whether it ends anywhere
     */
    private record Part(String text, boolean whole, boolean cut) {}

    /**
     * A tree is many times as large as its text, so what stands behind the last entry that counts is not built at all.
     */
    private static Part firstOf(String feed) {
        Matcher entry = ENTRY.matcher(feed);
        int entries = 0;
        while (entry.find())
            if (++entries > FeedReader.MOST_ENTRIES) return new Part(feed.substring(0, entry.start()), true, false);
        int tags = 0;
        int quoted = 0;
        int quote = -1;
        for (int i = feed.indexOf('<'); i >= 0; i = feed.indexOf('<', i + 1)) {
            // What is quoted is one text, whatever stands in it; but not all that looks so is quoted.
            if (quote < i && feed.startsWith("<![CDATA[", i)) {
                int end = feed.indexOf("]]>", i);
                quote = end < 0 ? feed.length() : end;
            }
            if (i < quote ? ++quoted > MOST_QUOTED : ++tags > MOST_TAGS)
                return new Part(feed.substring(0, i), false, true);
        }
        return new Part(feed, false, false);
    }

    /** Whether the last entry is not ended, and nothing that is around it either. */
    private static boolean isCut(String text) {
        Matcher tags = ENTRY_OR_ALL.matcher(text);
        boolean open = false;
        while (tags.find()) open = tags.group(1).isEmpty() && !tags.group(3).endsWith("/");
        return open;
    }

    /** Where the feed begins; -1 if a page does before it, or nothing does. */
    private static int rootOf(String text) {
        String start = text.substring(0, Math.min(text.length(), 20_000));
        // What stands in comments and document types begins nothing.
        String bare = blankedOut(start);
        Matcher root = ROOT.matcher(bare);
        if (!root.find()) return -1;
        Matcher page = PAGE.matcher(bare);
        return page.find() && page.start() < root.start() ? -1 : root.start();
    }

    private static String blankedOut(String start) {
        StringBuilder bare = new StringBuilder(start);
        for (int from = start.indexOf("<!--"); from >= 0; ) {
            int end = start.indexOf("-->", from);
            for (int i = from; i < (end < 0 ? start.length() : end); i++) bare.setCharAt(i, ' ');
            from = end < 0 ? -1 : start.indexOf("<!--", end);
        }
        Matcher doctype = DOCTYPE.matcher(bare.toString());
        if (doctype.find() && !PAGE.matcher(doctype.group()).lookingAt())
            for (int i = doctype.start(); i < doctype.end(); i++) bare.setCharAt(i, ' ');
        return bare.toString();
    }

    /** Plain entities that the document declares are put in; such that lead to others, or out of it, are not. */
    private static String withEntities(String feed, String prolog) {
        Map<String, String> entities = new LinkedHashMap<>();
        Matcher entity = ENTITY.matcher(prolog);
        while (entity.find() && entities.size() < MOST_ENTITIES) {
            String value = entity.group(2) != null ? entity.group(2) : entity.group(3);
            if (value.length() <= LONGEST_ENTITY) entities.put(entity.group(1), value);
        }
        if (entities.isEmpty()) return feed;
        StringBuilder out = new StringBuilder();
        Matcher reference = REFERENCE.matcher(feed);
        while (reference.find()) {
            String value = out.length() - reference.start() > MOST_GROWTH ? null : entities.get(reference.group(1));
            reference.appendReplacement(out, Matcher.quoteReplacement(value == null ? reference.group() : value));
        }
        return reference.appendTail(out).toString();
    }

    private static boolean isWellFormed(String text) {
        XMLInputFactory factory = XMLInputFactory.newInstance();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
        int depth = 0;
        boolean hasType = false;
        try {
            XMLStreamReader reader = factory.createXMLStreamReader(new StringReader(text));
            while (reader.hasNext()) {
                int event = reader.next();
                if (event == XMLStreamConstants.START_ELEMENT && ++depth > DEEPEST) return false;
                if (event == XMLStreamConstants.END_ELEMENT) depth--;
                if (event == XMLStreamConstants.DTD) hasType = true;
                if (event == XMLStreamConstants.ENTITY_REFERENCE && !hasType) return false;
            }
            return true;
        } catch (XMLStreamException e) {
            return false;
        }
    }

    /** The name of an element with its vocabulary before it, such as "dc:date"; those of RSS have none before them. */
    static String name(Element element) {
        String local = element.tag().localName().toLowerCase(Locale.ROOT);
        String prefix = element.tag().prefix().toLowerCase(Locale.ROOT);
        String vocabulary = VOCABULARIES.get(stem(element.tag().namespace()));
        if (vocabulary == null) vocabulary = VOCABULARIES.getOrDefault(prefix, prefix.isEmpty() ? "" : "other");
        return vocabulary.isEmpty() ? local : vocabulary + ":" + local;
    }

    /** The address by which links in an element are completed: what it and those around it say, else the given one. */
    static String base(Element element, String around) {
        Element above = element.parent();
        String base = above == null ? around : base(above, around);
        return resolved(base, element.attr("xml:base"));
    }

    private static String resolved(String base, String said) {
        return said.isBlank() ? base : WebLink.of(said, base);
    }

    private static String stem(String namespace) {
        int from = namespace.startsWith("http://") ? 7 : namespace.startsWith("https://") ? 8 : 0;
        if (namespace.startsWith("www.", from)) from += 4;
        int to = namespace.length();
        while (to > from && (namespace.charAt(to - 1) == '/' || namespace.charAt(to - 1) == '#')) to--;
        return namespace.substring(from, to).toLowerCase(Locale.ROOT);
    }

    private static Map<String, String> vocabularies() {
        Map<String, String> found = new LinkedHashMap<>();
        for (String rss : new String[] {
            "",
            "purl.org/rss/1.0",
            "my.netscape.com/rdf/simple/0.9",
            "channel.netscape.com/rdf/simple/0.9",
            "backend.userland.com/rss",
            "backend.userland.com/rss2",
            "blogs.law.harvard.edu/tech/rss",
            "purl.org/net/rss1.1",
            "rss"
        }) found.put(rss, "");
        for (String atom :
                new String[] {"w3.org/2005/atom", "purl.org/atom/ns", "purl.org/atom", "atom", "atom10", "atom03", "a10"
                }) found.put(atom, "atom");
        for (String dc : new String[] {"purl.org/dc/elements/1.1", "purl.org/dc/elements/1.0", "dc"})
            found.put(dc, "dc");
        for (String terms : new String[] {"purl.org/dc/terms", "dcterms", "dcterm"}) found.put(terms, "dcterms");
        found.put("purl.org/rss/1.0/modules/content", "content");
        found.put("content", "content");
        found.put("purl.org/rss/1.0/modules/syndication", "sy");
        found.put("sy", "sy");
        found.put("w3.org/1999/xhtml", "xhtml");
        found.put("xhtml", "xhtml");
        found.put("w3.org/1999/02/22-rdf-syntax-ns", "rdf");
        found.put("rdf", "rdf");
        return found;
    }
}
