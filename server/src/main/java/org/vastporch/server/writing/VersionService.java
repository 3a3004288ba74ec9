package org.vastporch.server.writing;

import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.core.text.WordDiff;
import org.vastporch.core.writing.WorkUsed;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.writing.DraftCheck.CheckedDraft;

/** The versions of a post: looked at, compared by words, brought back. For its author and the staff. */
@Service
public class VersionService {

    /** @param live whether it is the one that readers get */
    public record VersionView(
            int no, String title, int words, @Optionally String by, Instant at, boolean live, boolean newest) {}

    /** @param changes what the newest version has otherwise, by words: SAME and REMOVED stand in this one */
    public record OneVersion(
            int no,
            String title,
            String html,
            List<String> tags,
            List<WorkUsed.Reference> references,
            List<WordDiff.Stretch> changes,
            int rev) {}

    private final PostStore store;
    private final PostService posts;
    private final PeopleService people;
    private final AccessService access;

    VersionService(PostStore store, PostService posts, PeopleService people, AccessService access) {
        this.store = store;
        this.posts = posts;
        this.people = people;
        this.access = access;
    }

    public List<VersionView> ofPost(Viewer viewer, long postId) {
        PostRow row = readable(viewer, postId);
        Names names = people.names(viewer, row.classId());
        int newest = row.standing().newest();
        return store.versions(postId).stream()
                .filter(v -> v.no() <= newest)
                .map(v -> new VersionView(
                        v.no(),
                        v.title(),
                        v.words(),
                        v.savedBy() == null ? null : names.of(v.savedBy()),
                        v.savedAt(),
                        row.standing().live() != null && row.standing().live() == v.no(),
                        v.no() == newest))
                .toList();
    }

    public OneVersion one(Viewer viewer, long postId, int no) {
        PostRow row = readable(viewer, postId);
        Version version = store.version(postId, no).orElseThrow(Problem::missing);
        Version newest = store.version(postId, row.standing().newest()).orElseThrow();
        return new OneVersion(
                no,
                version.title(),
                Sanitiser.post(version.html()),
                version.tags(),
                WorkUsed.references(version.content().works()),
                WordDiff.of(whole(version), whole(newest)),
                row.rev());
    }

    /** Makes an earlier version the newest; the one that was newest stays among the versions. */
    @Transactional
    public CheckedDraft bringBack(Viewer viewer, long postId, int no, int rev) {
        access.requireLockedPost(viewer, Act.EDIT, postId);
        PostRow row = store.find(postId).orElseThrow(Problem::missing);
        posts.refuseOtherTab(row, rev);
        Version version = store.version(postId, no).orElseThrow(Problem::missing);
        return posts.keep(viewer, row, version.content(), true);
    }

    private PostRow readable(Viewer viewer, long postId) {
        access.requireAllOf(viewer, postId);
        return store.find(postId).orElseThrow(Problem::missing);
    }

    private static String whole(Version version) {
        return version.title() + "\n" + TextFacts.of(version.html()).plain();
    }
}
