package org.vastporch.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.blogs.BlogSetup;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.feeds.SourceService;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.PileService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.PlaceService;
import org.vastporch.server.writing.PostService;

/**
 * Three terms of Thursday evenings in a boat shed: what the class shows to anyone, what it says among itself, what its
 * learners keep to themselves, and what three of them write on blogs of their own.
 */
@Component
class RiverBoats {

    /** Something written: when it was, by whom and where, and what others said to it. */
    private record Written(
            int term, int week, int day, String who, String where, String title, List<String> tags, String html) {}

    /** @param days after the text; a visitor is nobody of the class */
    private record Said(String who, int days, String text) {}

    private static final Map<String, String> PEN_NAMES = Map.of(
            "Agnethe Rosenkilde", "Second Oar",
            "Юлия Сорокина", "Low Water",
            "Hyacinth Marlowe-Diaz", "Copper Rove",
            "Cho Min-seo", "Tarred Twine");

    private final DemoClock clock;
    private final PeopleService people;
    private final PlaceService places;
    private final BlogService blogs;
    private final PostService posts;
    private final CommentService comments;
    private final PileService pile;
    private final SourceService sources;
    private final AccessService access;

    RiverBoats(
            Clock clock,
            PeopleService people,
            PlaceService places,
            BlogService blogs,
            PostService posts,
            CommentService comments,
            PileService pile,
            SourceService sources,
            AccessService access) {
        this.clock = (DemoClock) clock;
        this.people = people;
        this.places = places;
        this.blogs = blogs;
        this.posts = posts;
        this.comments = comments;
        this.pile = pile;
        this.sources = sources;
        this.access = access;
    }

    void makeBlogs(Viewer teacher, long classId) {
        blogs.create(
                teacher,
                classId,
                BlogSetup.of(
                        BlogKind.SHARED,
                        "What the river gave back",
                        "What happens in the shed by the slip, for whoever walks past.",
                        Audience.ANYONE,
                        Commenters.ANYONE));
        blogs.create(
                teacher,
                classId,
                BlogSetup.of(
                        BlogKind.SHARED, "In the shed", "For the twelve of us.", Audience.MY_CLASS, Commenters.CLASS));
        blogs.create(
                teacher,
                classId,
                BlogSetup.of(
                        BlogKind.JOURNAL,
                        "Bench book of {name}",
                        "For you and me.",
                        Audience.STAFF_AND_ME,
                        Commenters.CLASS));
    }

    /**
     * Writes all of it.
     *
     * @param terms the Mondays on which the terms begin
     */
    void fill(Viewer teacher, long classId, List<LocalDate> terms, Instant now) {
        Map<String, Viewer> who = who(teacher, classId);
        PEN_NAMES.forEach((name, pen) ->
                places.setShown(teacher, classId, who.get(name).personId(), PersonName.Shown.PEN_NAME, pen));
        Map<String, Long> shared = new HashMap<>();
        for (BlogService.BlogView blog : blogs.writable(teacher, classId)) shared.put(blog.title(), blog.id());
        Map<Written, List<Said>> all = read();
        all.forEach((text, said) -> {
            Instant at = DemoSchool.at(
                    terms.get(text.term() - 1).plusWeeks(text.week() - 1L).plusDays(text.day() - 1L), 21, 10);
            if (at.isAfter(now)) return;
            clock.set(at);
            Viewer author = who.get(text.who());
            Long blog =
                    switch (text.where()) {
                        case "river" -> shared.get("What the river gave back");
                        case "shed" -> shared.get("In the shed");
                        default -> journal(author, classId);
                    };
            String audience =
                    switch (text.where()) {
                        case "river" -> "ANYONE";
                        case "shed" -> "MY_CLASS";
                        default -> "STAFF_AND_ME";
                    };
            long post = write(author, blog, text, audience);
            clock.set(at.plus(Duration.ofHours(1)));
            approve(teacher);
            for (Said one : said) {
                Instant then = at.plus(Duration.ofDays(one.days())).minus(Duration.ofMinutes(95));
                clock.set(then.isBefore(now) ? then : now);
                answer(who.get(one.who()), one, post);
                approve(teacher);
            }
        });
        clock.set(now);
    }

    /** Everybody by the name on the roster. */
    private Map<String, Viewer> who(Viewer teacher, long classId) {
        Map<String, Viewer> who = new HashMap<>();
        for (long student : people.students(classId))
            who.put(people.names(teacher, classId).of(student), access.viewer(student));
        who.put("Mr Osric Vantongeren", teacher);
        return who;
    }

    private long journal(Viewer author, long classId) {
        return blogs.writable(author, classId).stream()
                .filter(b -> b.kind() == BlogKind.JOURNAL)
                .findFirst()
                .orElseThrow()
                .id();
    }

    private long write(Viewer author, long blog, Written text, String audience) {
        long id = posts.begin(author, blog, null);
        int rev = posts.draft(author, id).beside().rev();
        rev = posts.save(
                        author,
                        id,
                        new PostService.Save(rev, text.title(), text.html(), text.tags(), audience, null, null))
                .rev();
        posts.handIn(author, id, new PostService.HandingIn(rev, null, null));
        return id;
    }

    private void answer(@Nullable Viewer by, Said said, long post) {
        if (by != null) comments.add(by, post, said.text(), null);
        else
            comments.addByVisitor(
                    post, said.text(), null, said.who().replace("visitor ", ""), "", "127.0.0." + said.days());
    }

    private void approve(Viewer teacher) {
        for (PileItem item : pile.pile(teacher, new PileFilter(null, "", 200)).items())
            pile.decide(
                    teacher,
                    new PileService.Deciding(
                            Step.APPROVE,
                            "",
                            List.of(new PileService.Seen(item.subject(), item.id(), item.version(), item.rev()))));
    }

    /** Three learners write elsewhere; the river's news come in for all. */
    void gather(Viewer teacher, long classId, String outside) {
        Map<String, Viewer> who = who(teacher, classId);
        gather(teacher, classId, outside, "slowtide", "The Slow Tide", "River weather and levels", null);
        gather(teacher, classId, outside, "clinker", "Clinker Notes", "Planks and rivets", who.get("Emrys Gwilt"));
        gather(teacher, classId, outside, "oakum", "Oakum Days", "Caulking", who.get("Delphine Achterberg"));
        gather(teacher, classId, outside, "rowlock", "Rowlock", "A skiff and an allotment", who.get("Kenji Aldous"));
    }

    private void gather(
            Viewer teacher,
            long classId,
            String outside,
            String site,
            String title,
            String description,
            @Nullable Viewer whose) {
        sources.add(
                teacher,
                classId,
                SourceService.WantedSource.of(
                        outside + "/" + site + "/feed.xml",
                        outside + "/" + site + "/",
                        title,
                        description,
                        whose == null ? null : whose.personId()));
    }

    private static Map<Written, List<Said>> read() {
        Map<Written, List<Said>> all = new LinkedHashMap<>();
        String text;
        try (InputStream file = RiverBoats.class.getResourceAsStream("/river-boats.txt")) {
            text = new String(file.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        for (String piece : text.split("(?m)^== ")) {
            if (piece.startsWith("#") || piece.isBlank()) continue;
            List<String> lines = piece.lines().filter(l -> !l.isBlank()).toList();
            String[] head = lines.get(0).split(" \\| ");
            int[] when = Arrays.stream(head[0].split(" "))
                    .mapToInt(Integer::parseInt)
                    .toArray();
            StringBuilder html = new StringBuilder();
            List<Said> said = new ArrayList<>();
            for (String line : lines.subList(1, lines.size()))
                if (line.startsWith("> ")) {
                    int colon = line.indexOf(": ");
                    String[] by = line.substring(2, colon).split(", ");
                    said.add(new Said(by[0], Integer.parseInt(by[1]), line.substring(colon + 2)));
                } else
                    html.append("<p>")
                            .append(line.replaceAll("\\*(.+?)\\*", "<em>$1</em>"))
                            .append("</p>");
            all.put(
                    new Written(
                            when[0],
                            when[1],
                            when[2],
                            head[1],
                            head[2],
                            head[3],
                            List.of(head[4].split(", ")),
                            html.toString()),
                    said);
        }
        return all;
    }
}
