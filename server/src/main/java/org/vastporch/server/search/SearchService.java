package org.vastporch.server.search;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.text.Folding;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Cursor;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.search.SearchIndex.Place;

/** Searching all that the reader may read, and only that: nothing else shows, in counts or snippets either. */
@Service
public class SearchService {

    /**
     * What was found in the reader's own classes comes first and is nearly all theirs to read; only what comes after it
     * is gone through in larger parts.
     */
    private static final int FIRST_BATCH = 60;

    private static final int BATCH = 1_000;
    private static final int MOST_NAMED = 6;
    private static final int LONGEST = 200;

    /**
     * A text that has the words.
     *
     * @param kind post, comment or file
     * @param source the outside blog that it came from
     */
    public record Hit(
            String kind,
            long postId,
            @Optionally String file,
            long classId,
            String className,
            String title,
            String author,
            @Optionally String source,
            Instant at,
            List<Words.Marked> snippet) {}

    /** A person, a blog or a prompt whose name begins so. */
    public record NamedHit(String kind, String name, String more, String to) {}

    /**
     * @param next where the next page begins, from what stands on this one; left out on the last
     * @param complete false while texts are still being taken in after a start of the server
     */
    public record SearchResult(
            List<NamedHit> named,
            List<Hit> hits,
            @Optionally String next,
            boolean complete) {}

    private final SearchIndex index;
    private final SearchStore store;
    private final ClassService classes;
    private final PeopleService people;
    private final BlogService blogs;
    private final PromptService prompts;
    private final AccessService access;
    private final Clock clock;

    SearchService(
            SearchIndex index,
            SearchStore store,
            ClassService classes,
            PeopleService people,
            BlogService blogs,
            PromptService prompts,
            AccessService access,
            Clock clock) {
        this.index = index;
        this.store = store;
        this.classes = classes;
        this.people = people;
        this.blogs = blogs;
        this.prompts = prompts;
        this.access = access;
        this.clock = clock;
    }

    /**
     * @param classId one class only; null for all
     * @param kind post, comment or file; empty for all
     * @param begins where the page begins; empty for the first
     */
    public SearchResult search(
            Viewer viewer, String typed, @Nullable Long classId, String kind, String begins, int most) {
        if (classId != null) access.require(viewer, Act.READ_CLASS, classId);
        return found(viewer, typed, classId, kind, text -> true, begins, most);
    }

    /**
     * Posts that anyone may read in an open class.
     *
     * @param blogId one blog of it only; null for all
     */
    public SearchResult searchFrontPage(long classId, @Nullable Long blogId, String typed, String begins, int most) {
        access.requireFrontPage(classId);
        return found(
                Viewer.STRANGER,
                typed,
                classId,
                "post",
                post -> blogId == null || post.blogId() == blogId,
                begins,
                most);
    }

    private SearchResult found(
            Viewer viewer,
            String typed,
            @Nullable Long classId,
            String kind,
            Predicate<SearchStore.Found> wanted,
            String begins,
            int most) {
        if (typed.length() > LONGEST)
            throw Problem.invalid(
                    "q", "search-too-long", "Search for fewer words: at most " + LONGEST + " characters.");
        Optional<Place> start = Cursor.read(
                begins, parts -> new Place(Float.parseFloat(parts.get(0)), Long.parseLong(parts.get(1)), parts.get(2)));
        List<Words.Word> words = Words.of(typed);
        List<Long> near = classId != null
                ? List.of(classId)
                : viewer.memberships().stream()
                        .filter(m -> m.isActiveAt(clock.instant()))
                        .map(Membership::classId)
                        .filter(id -> access.allows(viewer, Act.READ_CLASS, id))
                        .toList();
        SearchIndex.Field field = classId != null
                ? new SearchIndex.Field(near, 0, false)
                : new SearchIndex.Field(near, viewer.personId(), true);
        Map<Long, Names> names = new HashMap<>();
        List<Hit> hits = new ArrayList<>();
        Place at = start.orElse(null);
        Place last = null;
        // One more than asked for tells whether there is a next page, from what may be read alone.
        for (int size = FIRST_BATCH; hits.size() <= most; size = BATCH) {
            List<SearchIndex.Candidate> candidates = index.find(words, kind, field, at, size);
            Set<Long> posts = access.readable(
                    viewer,
                    candidates.stream()
                            .map(SearchIndex.Candidate::postId)
                            .distinct()
                            .toList());
            Map<String, SearchStore.Found> readable = store.found(
                    candidates.stream().filter(c -> posts.contains(c.postId())).toList());
            Map<Long, PostFacts> facts = access.posts(posts);
            for (SearchIndex.Candidate candidate : candidates) {
                at = candidate.place();
                SearchStore.Found found = readable.get(candidate.kind() + candidate.id());
                if (found == null || !wanted.test(found) || hits.size() > most) continue;
                if (hits.size() == most - 1) last = at;
                hits.add(hit(viewer, found, facts.get(found.postId()), words, names));
            }
            if (candidates.size() < size) break;
        }
        String next = hits.size() > most ? Cursor.of(last.score(), last.at(), last.key()) : null;
        return new SearchResult(
                start.isPresent() || viewer.isStranger() ? List.of() : named(viewer, typed, near),
                hits.subList(0, Math.min(most, hits.size())),
                next,
                index.isComplete());
    }

    private Hit hit(
            Viewer viewer, SearchStore.Found found, PostFacts post, List<Words.Word> words, Map<Long, Names> known) {
        Names all = known.computeIfAbsent(found.classId(), id -> people.names(viewer, id));
        boolean isNamed =
                found.kind().equals("comment") ? !access.keepsNames(viewer, post) : access.namesAuthor(viewer, post);
        Names names = isNamed ? all : all.keptFrom(viewer.personId());
        String plain = found.kind().equals("file")
                ? found.html()
                : TextFacts.of(found.html()).plain();
        List<Words.Marked> snippet = Words.snippet(plain, words);
        if (snippet.isEmpty())
            snippet = List.of(new Words.Marked(plain.length() > 200 ? plain.substring(0, 200) + "…" : plain, false));
        String author = found.visitor() != null ? found.visitor() + " (visitor)" : names.of(found.authorId());
        return new Hit(
                found.kind(),
                found.postId(),
                found.kind().equals("file") ? found.id() : null,
                found.classId(),
                classes.get(found.classId()).name(),
                found.title(),
                author,
                found.source(),
                found.at(),
                snippet);
    }

    /** People as this reader sees them, blogs and prompts, by the beginnings of the words of their names. */
    private List<NamedHit> named(Viewer viewer, String typed, List<Long> classIds) {
        String[] wanted = Folding.fold(typed.strip()).split("\\s+");
        List<NamedHit> hits = new ArrayList<>();
        if (wanted[0].isEmpty()) return hits;
        for (long classId : classIds) {
            String in = classes.get(classId).name();
            people.names(viewer, classId).byId().values().stream()
                    .filter(p -> begins(p.name(), wanted))
                    .sorted((a, b) -> a.name().compareTo(b.name()))
                    .limit(MOST_NAMED)
                    .forEach(p -> hits.add(new NamedHit(
                            "person",
                            p.name(),
                            p.group() == null ? in : in + ", " + p.group(),
                            "/classes/" + classId + "/persons/" + p.place())));
            blogs.heads(viewer, classId).stream()
                    .filter(b -> begins(b.title(), wanted))
                    .limit(MOST_NAMED)
                    .forEach(b -> hits.add(
                            new NamedHit("blog", b.title(), in, "/classes/" + classId + "/blog/" + b.address())));
            prompts.ofClass(viewer, classId).stream()
                    .filter(p -> begins(p.title(), wanted))
                    .limit(MOST_NAMED)
                    .forEach(p -> hits.add(
                            new NamedHit("prompt", p.title(), in, "/classes/" + classId + "/porch?prompt=" + p.id())));
        }
        return hits.subList(0, Math.min(hits.size(), 3 * MOST_NAMED));
    }

    private static boolean begins(String name, String[] wanted) {
        String[] words = Folding.fold(name).split("[^\\p{L}\\p{N}]+");
        for (String begun : wanted) {
            boolean found = false;
            for (String word : words) found |= word.startsWith(begun);
            if (!found) return false;
        }
        return true;
    }
}
