package org.vastporch.server.feeds;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.web.util.UriUtils;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.Opml;
import org.vastporch.core.feeds.Opml.Line;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.reading.PorchService;
import org.vastporch.server.subscriptions.SubscriptionService;

/** Lists of feeds in and out: the outside blogs of a class, and the blogs in it as their reader may read them. */
@Service
class OpmlService {

    private static final int LARGEST = 1_000_000;

    /**
     * A line of a list that somebody has, before anything is added.
     *
     * @param feedAddress empty if the line has none
     * @param says what hinders that it is added; empty if nothing does
     */
    record OpmlLine(String title, String feedAddress, String siteAddress, String folder, String says) {}

    private final SourceStore sources;
    private final FeedKeyService keys;
    private final PorchService porch;
    private final SubscriptionService subscriptions;
    private final ClassService classes;
    private final AccessService access;
    private final SchoolAddress school;

    OpmlService(
            SourceStore sources,
            FeedKeyService keys,
            PorchService porch,
            SubscriptionService subscriptions,
            ClassService classes,
            AccessService access,
            SchoolAddress school) {
        this.sources = sources;
        this.keys = keys;
        this.porch = porch;
        this.subscriptions = subscriptions;
        this.classes = classes;
        this.access = access;
        this.school = school;
    }

    /** What stands in a list. Nothing is fetched and nothing is saved. */
    List<OpmlLine> preview(Viewer viewer, long classId, String file) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        List<Line> lines = Opml.read(bytes(file));
        if (lines.isEmpty())
            throw Problem.invalid(
                    "file", "no-opml", "This is not a list of feeds. Such a file usually ends with .opml or .xml.");
        Set<String> known = sources.ofClass(classId).stream()
                .map(s -> s.checks().feedAddress())
                .collect(Collectors.toSet());
        return lines.stream()
                .map(line -> new OpmlLine(line.title(), line.feed(), line.site(), line.folder(), says(line, known)))
                .toList();
    }

    private static byte[] bytes(String file) {
        if (file.length() > LARGEST * 4 / 3 + 4)
            throw Problem.invalid("file", "opml-too-large", "This file is larger than any list of feeds.");
        try {
            return Base64.getDecoder().decode(file);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("file", "no-opml", "This is not a list of feeds.");
        }
    }

    private static String says(Line line, Set<String> known) {
        if (line.feed().isEmpty()) return "“" + line.said() + "” is not the address of a feed.";
        if (line.again()) return "It stands further up already.";
        return known.contains(line.feed()) ? "It is gathered in this class already." : "";
    }

    /** The outside blogs of a class. */
    String sources(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        return Opml.write(
                "Outside blogs of " + classes.get(classId).name(),
                sources.ofClass(classId).stream()
                        .map(s -> line(
                                s.title(),
                                s.checks().feedAddress(),
                                s.siteAddress(),
                                s.personId() == null ? "News" : "Students"))
                        .toList());
    }

    /** The blogs of a class that a reader may open, each at the reader's secret feed address. */
    String blogs(Viewer viewer, long classId) {
        String mine = school.base() + "/feeds/mine/" + keys.of(viewer, classId) + "/blogs/";
        String pages = school.base() + "/classes/" + classId + "/blog/";
        return Opml.write(
                "Blogs of " + classes.get(classId).name(),
                porch.directory(viewer, classId).stream()
                        .map(b -> line(b.title(), mine + b.id() + ".rss", pages + b.address(), ""))
                        .toList());
    }

    /** What a reader subscribed to, each at the reader's secret feed address, by class. */
    String subscriptions(Viewer viewer) {
        Map<Long, String> tokens = new HashMap<>();
        return Opml.write(
                "My subscriptions",
                subscriptions.mine(viewer).list().stream()
                        .map(s -> line(
                                s.label(),
                                school.base() + "/feeds/mine/"
                                        + tokens.computeIfAbsent(s.classId(), id -> keys.of(viewer, id))
                                        + feed(s),
                                school.base() + s.to(),
                                s.className()))
                        .toList());
    }

    private static String feed(SubscriptionService.SubscriptionView s) {
        return switch (s.kind()) {
            case "BLOG" -> "/blogs/" + s.target() + ".rss";
            case "PERSON" -> ".rss?place=" + s.target();
            case "TAG" -> ".rss?tag=" + UriUtils.encodeQueryParam(s.tag(), StandardCharsets.UTF_8);
            case "THREAD" -> "/comments.rss?post=" + s.target();
            default -> ".rss";
        };
    }

    private static Line line(String title, String feed, String site, String folder) {
        return new Line(title, feed, feed, site, folder, false);
    }
}
