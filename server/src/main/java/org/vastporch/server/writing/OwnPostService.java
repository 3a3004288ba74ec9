package org.vastporch.server.writing;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.State;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.ApprovingBlogs;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.PostStore.VersionKey;

/** What people wrote themselves, wherever it stands; and what goes up by itself. */
@Service
public class OwnPostService {

    /**
     * One of a student's own posts, wherever it stands.
     *
     * @param mayDelete whether the rules of its blog let it go into the bin
     * @param daysLeft for how many days it can still be taken out of the bin; left out if it is not there
     * @param publishAt when it goes up by itself
     */
    public record OwnPost(
            long id,
            String title,
            State state,
            boolean isUp,
            boolean mayDelete,
            String blog,
            @Optionally Long promptId,
            @Optionally String prompt,
            @Optionally String note,
            @Optionally String noteBy,
            Instant at,
            @Optionally Integer daysLeft,
            @Optionally Instant publishAt) {}

    /** A post that goes up by itself later. */
    public record ScheduledPost(long id, String title, String author, Instant at) {}

    private final PostStore posts;
    private final BlogService blogs;
    private final PromptService prompts;
    private final PeopleService people;
    private final ReviewService reviews;
    private final AccessService access;
    private final Clock clock;

    OwnPostService(
            PostStore posts,
            BlogService blogs,
            PromptService prompts,
            PeopleService people,
            ReviewService reviews,
            AccessService access,
            Clock clock) {
        this.posts = posts;
        this.blogs = blogs;
        this.prompts = prompts;
        this.people = people;
        this.reviews = reviews;
        this.access = access;
        this.clock = clock;
    }

    /**
     * All that the viewer wrote in a class, with where each piece stands. What one wrote stays one's own, also when one
     * has left.
     */
    public List<OwnPost> own(Viewer viewer, long classId) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        if (viewer.lens() != null) access.require(viewer, Act.READ_CLASS, classId);
        List<PostRow> rows = posts.ofAuthor(viewer.personId(), classId);
        List<Long> ids = rows.stream().map(PostRow::id).toList();
        Map<VersionKey, Version> newest = newest(rows);
        Map<Long, PostFacts> facts = access.posts(ids);
        Map<Long, ApprovingBlogs.Approving> in =
                blogs.approving(rows.stream().map(PostRow::blogId).collect(Collectors.toSet()));
        Map<Long, Prompt> answered = prompts.byId(
                rows.stream().map(PostRow::promptId).filter(Objects::nonNull).collect(Collectors.toSet()));
        Map<Long, List<PileItem.Past>> notes = reviews.histories(
                "post",
                rows.stream()
                        .filter(row -> row.standing().state() == State.RETURNED)
                        .map(PostRow::id)
                        .toList(),
                people.names(viewer, classId));
        return rows.stream()
                .map(row -> {
                    Version version = newest.get(key(row));
                    List<PileItem.Past> history = notes.getOrDefault(row.id(), List.of());
                    boolean up = row.standing().live() != null
                            && row.standing().state() != State.HIDDEN
                            && row.standing().state() != State.BINNED;
                    return new OwnPost(
                            row.id(),
                            version.title(),
                            row.standing().state(),
                            up,
                            access.allows(viewer, Act.DELETE, facts.get(row.id())),
                            in.get(row.blogId()).title(),
                            row.promptId(),
                            row.promptId() == null
                                    ? null
                                    : answered.get(row.promptId()).title(),
                            history.isEmpty() ? null : history.get(0).note(),
                            history.isEmpty() ? null : history.get(0).by(),
                            row.publishedAt() != null ? row.publishedAt() : version.savedAt(),
                            daysLeft(row),
                            row.publishAt());
                })
                .toList();
    }

    /** What the staff have set to go up later in a class, the next one first. */
    public List<ScheduledPost> scheduled(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        Names names = people.names(viewer, classId);
        List<PostRow> rows = posts.scheduled(classId);
        Map<VersionKey, Version> newest = newest(rows);
        return rows.stream()
                .map(row -> new ScheduledPost(
                        row.id(), newest.get(key(row)).title(), names.of(row.authorId()), row.publishAt()))
                .toList();
    }

    private Map<VersionKey, Version> newest(List<PostRow> rows) {
        return posts.versions(rows.stream().map(OwnPostService::key).toList());
    }

    private static VersionKey key(PostRow row) {
        return new VersionKey(row.id(), row.standing().newest());
    }

    private @Nullable Integer daysLeft(PostRow row) {
        if (row.binnedAt() == null) return null;
        return (int) Math.max(
                0,
                Duration.between(clock.instant(), row.binnedAt().plus(PostJobs.BIN))
                                .toDays()
                        + 1);
    }
}
