package org.vastporch.server.reading;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Knowledge;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Sightline;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.writing.WorkUsed;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.access.NamesKept;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.SightlineView;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.PostRow;
import org.vastporch.server.writing.Posts;
import org.vastporch.server.writing.Version;

/** One post as it is read, with its place in its blog. */
@Service
public class ReadingService {

    /** How a post is pinned and stands in a series; the neighbours are those that this reader may read. */
    public record Arranged(
            boolean pinned,
            @Optionally String series,
            @Optionally Integer part,
            @Optionally PorchService.SeriesPart before,
            @Optionally PorchService.SeriesPart after,
            boolean mayArrange) {}

    /** A wish to pin a post and to give it a place in a series; without a name it is in none. */
    public record Arrange(
            boolean pinned,
            @Optionally String series,
            @Optionally Integer part) {}

    /**
     * @param commentsShut why the viewer cannot comment, if the blog or the hour is the reason
     * @param namesKept that names are kept from classmates here; left out if they are not
     */
    public record PostView(
            long id,
            long classId,
            String title,
            String html,
            List<String> tags,
            long place,
            boolean own,
            String author,
            @Optionally String group,
            String blog,
            String blogAddress,
            @Optionally Long promptId,
            @Optionally String prompt,
            @Optionally String outsideLink,
            boolean gathered,
            @Optionally Excerpt excerpt,
            @Optionally Instant goneAt,
            @Optionally String source,
            State state,
            boolean isUp,
            @Optionally Instant publishedAt,
            @Optionally Instant handedInAt,
            boolean mayEdit,
            boolean mayComment,
            @Optionally String commentsShut,
            boolean commentsStay,
            SightlineView sightline,
            List<PileItem.Past> history,
            Arranged arranged,
            @Optionally String category,
            List<WorkUsed.Reference> references,
            boolean announcement,
            @Optionally Instant publishAt,
            @Optionally NamesKept namesKept) {}

    private final Posts posts;
    private final PorchStore porch;
    private final BlogService blogs;
    private final PromptService prompts;
    private final PeopleService people;
    private final ReviewService reviews;
    private final AccessService access;
    private final Clock clock;

    ReadingService(
            Posts posts,
            PorchStore porch,
            BlogService blogs,
            PromptService prompts,
            PeopleService people,
            ReviewService reviews,
            AccessService access,
            Clock clock) {
        this.posts = posts;
        this.porch = porch;
        this.blogs = blogs;
        this.prompts = prompts;
        this.people = people;
        this.reviews = reviews;
        this.access = access;
        this.clock = clock;
    }

    /** Pins a post and gives it its place in a series, for whoever keeps the blog. */
    @Transactional
    public void arrange(Viewer viewer, long postId, Arrange wish) {
        PostFacts facts = access.requireLockedPost(viewer, Act.READ, postId);
        access.requireArranging(viewer, facts.blog().id());
        PostRow row = posts.find(postId).orElseThrow(Problem::missing);
        String series = wish.series() == null || wish.series().isBlank()
                ? null
                : wish.series().strip();
        if (series != null && series.length() > 120)
            throw Problem.invalid("series", "series-too-long", "The name of a series has at most 120 characters.");
        int part = wish.part() == null ? 1 : wish.part();
        if (part < 1 || part > 999) throw Problem.invalid("part", "part-range", "A part has a number from 1 to 999.");
        Instant pinned = !wish.pinned() ? null : row.pinnedAt() != null ? row.pinnedAt() : clock.instant();
        porch.arrange(postId, pinned, series, series == null ? null : part);
    }

    private Arranged arranged(Viewer viewer, PostRow row, PostFacts facts) {
        boolean may = access.mayArrange(viewer, facts.blog());
        if (row.series() == null) return new Arranged(row.pinnedAt() != null, null, null, null, null, may);
        List<PorchStore.Part> parts = porch.parts(access.scope(viewer), row.classId(), row.blogId()).stream()
                .filter(p -> p.series().equals(row.series()))
                .toList();
        int here = 0;
        while (here < parts.size() && parts.get(here).postId() != row.id()) here++;
        return new Arranged(
                row.pinnedAt() != null, row.series(), row.part(), part(parts, here - 1), part(parts, here + 1), may);
    }

    private static PorchService.@Nullable SeriesPart part(List<PorchStore.Part> parts, int index) {
        if (index < 0 || index >= parts.size()) return null;
        PorchStore.Part part = parts.get(index);
        return new PorchService.SeriesPart(part.part(), part.postId(), part.title());
    }

    /**
     * One post as the viewer may read it: the approved version; whoever may see it gets the one that waits instead if
     * none is up.
     */
    @Transactional
    public PostView post(Viewer viewer, long id) {
        PostFacts facts = access.requirePost(viewer, Act.READ, id);
        PostRow row = posts.find(id).orElseThrow(Problem::missing);
        Knowledge knows = access.knows(viewer, facts);
        boolean whole = knows == Knowledge.ALL;
        Reason comment = access.decide(viewer, Act.COMMENT, facts);
        int no = knows == Knowledge.JUDGED
                ? row.standing().judged()
                : facts.isUp() ? row.standing().live() : row.standing().newest();
        Version version = posts.version(id, no).orElseThrow();
        boolean keeps = access.keepsNames(viewer, facts);
        Names all = people.names(viewer, row.classId());
        Names names = access.namesAuthor(viewer, facts) ? all : all.keptFrom(viewer.personId());
        BlogService.BlogView blog = blogs.view(viewer, row.blogId());
        if (!viewer.isStranger() && viewer.isInPerson() && facts.isUp())
            porch.markSeen(viewer.personId(), id, clock.instant());
        return new PostView(
                id,
                row.classId(),
                version.title(),
                Sanitiser.post(version.html()),
                version.tags(),
                names.placeOf(facts.authorId()),
                !viewer.isStranger() && facts.authorId() == viewer.personId(),
                names.of(facts.authorId()),
                names.groupOf(facts.authorId()),
                blog.title(),
                blog.address(),
                row.promptId(),
                row.promptId() == null ? null : prompts.get(row.promptId()).title(),
                row.outsideLink(),
                row.sourceId() != null,
                row.excerpt(),
                row.goneAt(),
                row.sourceId() == null
                        ? null
                        : porch.sourceTitle(row.sourceId()).orElse(null),
                state(row, knows),
                facts.isUp(),
                row.publishedAt(),
                row.handedInAt(),
                row.sourceId() == null && access.allows(viewer, Act.EDIT, facts),
                comment.allows(),
                commentsShut(comment),
                !facts.blog().rules().deleteComments(),
                // Whose group reads it, or that one classmate more does than the audience says, would tell its author.
                SightlineView.of(
                        access.sightline(facts),
                        all,
                        keeps ? Sightline.Detail.AUDIENCE : access.sightlineDetail(viewer, row.classId())),
                whole ? reviews.history("post", id, names) : List.of(),
                arranged(viewer, row, facts),
                posts.categories(Stream.ofNullable(version.content().categoryId())
                                .toList())
                        .get(version.content().categoryId()),
                WorkUsed.references(version.content().works()),
                row.announcement(),
                whole ? row.publishAt() : null,
                NamesKept.at(facts.names().until(), clock.instant()));
    }

    /** Where a post stands, as far as somebody may know that its author works on a newer version. */
    private static State state(PostRow row, Knowledge knows) {
        if (knows == Knowledge.ALL) return row.standing().state();
        return knows == Knowledge.JUDGED ? row.standing().asJudged() : State.PUBLISHED;
    }

    private static @Nullable String commentsShut(Reason comment) {
        return switch (comment) {
            case COMMENTS_OFF, COMMENTS_CLOSED, COMMENTS_FOR_CLASS ->
                Problem.refused(comment).getMessage();
            default -> null;
        };
    }
}
