package org.vastporch.server.blogs;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Sightline.Detail;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Addresses;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogSettings.Look;
import org.vastporch.core.blogs.TitlePattern;
import org.vastporch.core.calendar.Term;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogStore.BlogRow;
import org.vastporch.server.blogs.BlogStore.BlogSet;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.SightlineView;

/** What staff set for the blogs of a class; a set "one each" is set as one. */
@Service
public class BlogSetupService {

    /**
     * A blog, or a set that counts as one line.
     *
     * @param ref "b" and the number of a blog, or "s" and that of a set
     * @param blogs how many blogs the line stands for
     * @param first the address of the first of them
     * @param doors NOT_OPEN_YET or CLOSED; left out while it is open
     */
    public record BlogLine(
            String ref,
            BlogKind kind,
            String title,
            int blogs,
            @Optionally String first,
            @Optionally String doors,
            SightlineView sightline) {}

    /** @param address the address of a single blog */
    public record Current(
            BlogForm setup,
            int version,
            @Optionally String address,
            @Optionally String header,
            List<BlogKind> kinds,
            SightlineView sightline) {}

    private final BlogStore store;
    private final HeaderPile headers;
    private final BlogService blogs;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;

    BlogSetupService(
            BlogStore store,
            HeaderPile headers,
            BlogService blogs,
            ClassService classes,
            PeopleService people,
            AccessService access,
            EventStore events) {
        this.store = store;
        this.headers = headers;
        this.blogs = blogs;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.events = events;
    }

    /** The blogs of a class for its staff. */
    public List<BlogLine> lines(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        Names names = people.names(viewer, classId);
        List<BlogLine> lines = new ArrayList<>();
        List<BlogRow> all = store.ofClass(classId);
        for (BlogRow blog : all)
            if (blog.setId() == null)
                lines.add(new BlogLine(
                        "b" + blog.id(),
                        blog.setup().kind(),
                        blog.setup().title(),
                        1,
                        blog.address(),
                        blogs.doors(blog.setup()),
                        SightlineView.of(access.sightline(access.blog(blog.id())), names, Detail.NAMES)));
        for (BlogSet set : store.sets(classId)) {
            List<BlogRow> own = all.stream()
                    .filter(b -> Objects.equals(b.setId(), set.id()))
                    .toList();
            lines.add(new BlogLine(
                    "s" + set.id(),
                    set.setup().kind(),
                    set.setup().title(),
                    own.size(),
                    own.isEmpty() ? null : own.get(0).address(),
                    blogs.doors(set.setup()),
                    sightline(viewer, classId, set.setup())));
        }
        return lines;
    }

    /** A new blog as its form begins, one of each kind. */
    public List<BlogForm> fresh(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        Term term = termOf(classId);
        return Arrays.stream(BlogKind.values())
                .map(kind -> BlogForm.of(BlogSetup.fresh(kind), term))
                .toList();
    }

    public void create(Viewer viewer, long classId, BlogForm wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        blogs.create(viewer, classId, wanted.in(termOf(classId)));
    }

    /** Who could read and write in a blog that is set up so. */
    public SightlineView sightline(Viewer viewer, long classId, BlogForm wanted) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        return sightline(viewer, classId, wanted.in(termOf(classId)));
    }

    private Term termOf(long classId) {
        return classes.get(classId).term();
    }

    private SightlineView sightline(Viewer viewer, long classId, BlogSetup setup) {
        Long owner = setup.kind().isForEach()
                ? people.students(classId).stream().findFirst().orElse(-1L)
                : null;
        Long group = setup.kind() != BlogKind.GROUP
                ? null
                : Optional.ofNullable(setup.groupId())
                        .orElse(people.groups(classId).stream()
                                .map(PeopleService.Group::id)
                                .findFirst()
                                .orElse(null));
        return SightlineView.of(
                access.sightline(setup.withGroup(group).facts(classes.get(classId), owner)),
                people.names(viewer, classId),
                Detail.NAMES);
    }

    public Current current(Viewer viewer, String ref) {
        if (isSet(ref)) {
            BlogSet set = requireSet(viewer, ref);
            return new Current(
                    BlogForm.of(set.setup(), termOf(set.classId())),
                    set.version(),
                    null,
                    BlogService.picture("sets/" + set.id(), set.headerSha()),
                    kinds(set.setup()),
                    sightline(viewer, set.classId(), set.setup()));
        }
        BlogRow blog = requireBlog(viewer, number(ref));
        return new Current(
                BlogForm.of(blog.setup(), termOf(blog.classId())),
                blog.version(),
                blog.address(),
                BlogService.picture(String.valueOf(blog.id()), blog.headerSha()),
                kinds(blog.setup()),
                SightlineView.of(
                        access.sightline(access.blog(blog.id())), people.names(viewer, blog.classId()), Detail.NAMES));
    }

    private static List<BlogKind> kinds(BlogSetup setup) {
        return List.of(BlogKind.values()).stream()
                .filter(setup.kind()::canBecome)
                .toList();
    }

    /**
     * Changes a blog, or all blogs of a set. What a set says of looks leaves a look that a student chose, unless it is
     * fixed for all.
     */
    @Transactional
    public void change(Viewer viewer, String ref, BlogForm wanted, int version) {
        if (isSet(ref)) {
            BlogSet set = requireSet(viewer, ref);
            BlogSetup setup = wanted.in(termOf(set.classId())).checked(people.groups(set.classId()));
            requireKind(set.setup(), setup);
            if (!store.changeSet(set.id(), setup, version)) throw changedMeanwhile();
            Names names = people.namesForReaders(set.classId());
            for (BlogRow blog : store.ofSet(set.id())) {
                BlogSetup own = setup.withTitle(TitlePattern.fill(setup.title(), names.of(blog.ownerId())));
                boolean keepsLook = !setup.settings().lookLocked()
                        && setup.settings().look() == set.setup().settings().look();
                if (keepsLook)
                    own = own.withSettings(
                            setup.settings().withLook(blog.setup().settings().look()));
                store.change(blog.id(), own, blog.version());
            }
            events.add(set.classId(), "blog-changed", null, viewer.personId());
            return;
        }
        BlogRow blog = requireBlog(viewer, number(ref));
        BlogSetup setup = wanted.in(termOf(blog.classId())).checked(people.groups(blog.classId()));
        requireKind(blog.setup(), setup);
        if (setup.kind() == BlogKind.GROUP && setup.groupId() == null)
            throw Problem.invalid("groupId", "group-missing", "Say which group's blog it is.");
        if (!store.change(
                blog.id(),
                setup.kind().isForEach() ? setup.withTitle(blog.setup().title()) : setup,
                version)) throw changedMeanwhile();
        events.add(blog.classId(), "blog-changed", blog.id(), viewer.personId());
    }

    private static void requireKind(BlogSetup before, BlogSetup after) {
        if (!before.kind().canBecome(after.kind()))
            throw Problem.invalid(
                    "kind",
                    "kind-not-possible",
                    before.kind().isForEach()
                            ? "Blogs that belong to one student each cannot become a common one: their "
                                    + "posts would change hands. Make a new blog instead."
                            : "A common blog cannot become one for each student: its posts belong to "
                                    + "many. Make a new blog instead.");
    }

    /** Gives a blog another address and tells it. The addresses before go on leading to it. */
    @Transactional
    public String setAddress(Viewer viewer, long blogId, String wanted) {
        BlogRow blog = requireBlog(viewer, blogId);
        String address = Addresses.tidy(wanted);
        if (address.isEmpty()) throw Problem.invalid("address", "address-missing", "An address has letters or digits.");
        if (store.isGiven(blog.classId(), address, blogId))
            throw Problem.invalid(
                    "address",
                    "address-given",
                    "\"" + address + "\" belongs, or once belonged, to another blog of this class. Choose another.");
        store.setAddress(blog.classId(), blogId, address);
        events.add(blog.classId(), "blog-address", blogId, viewer.personId());
        return address;
    }

    /** Chooses the look of one blog: its staff, or its owner where the look is not fixed. */
    @Transactional
    public void setLook(Viewer viewer, long blogId, Look look) {
        BlogRow blog = lookedAt(viewer, blogId);
        store.change(blogId, blog.setup().withSettings(blog.setup().settings().withLook(look)), blog.version());
    }

    /**
     * Puts a picture at the head of a blog, or takes it away; where the class holds pictures, one that a student chose
     * waits in the pile.
     */
    @Transactional
    public void setHeader(Viewer viewer, long blogId, @Nullable String sha) {
        headers.choose(viewer, lookedAt(viewer, blogId), sha);
    }

    /** A picture that waits to stand at the head of a blog. */
    public String wantedHeader(Viewer viewer, long id) {
        return headers.sha(viewer, id);
    }

    /**
     * Puts a picture at the head of all blogs of a set, or takes it away. Where the look is fixed for all it replaces
     * those that students chose.
     */
    @Transactional
    public void setHeaderOfSet(Viewer viewer, String ref, @Nullable String sha) {
        BlogSet set = requireSet(viewer, ref);
        store.setHeaderOfSet(set.id(), sha);
        if (set.setup().settings().lookLocked()) store.dropHeadersOf(set.id());
    }

    public String headerOfSet(Viewer viewer, String ref) {
        return Optional.ofNullable(requireSet(viewer, ref).headerSha()).orElseThrow(Problem::missing);
    }

    /** The picture at the head of a blog, for whoever may open its page. */
    public String header(Viewer viewer, long blogId) {
        access.requireBlog(viewer, blogId);
        return store.find(blogId).map(BlogRow::headerSha).orElseThrow(Problem::missing);
    }

    /** The blog if the viewer may choose its look: staff, or its owner where the look is not fixed. */
    public void requireLook(Viewer viewer, long blogId) {
        lookedAt(viewer, blogId);
    }

    private BlogRow lookedAt(Viewer viewer, long blogId) {
        BlogRow blog = store.find(blogId).orElseThrow(Problem::missing);
        access.requireBlog(viewer, blogId);
        boolean owns = blog.ownerId() != null && blog.ownerId() == viewer.personId() && access.mayWrite(viewer, blogId);
        if (!owns || blog.setup().settings().lookLocked()) {
            if (owns) throw Problem.stale("look-fixed", "Your teacher has fixed the look of these blogs.");
            access.require(viewer, Act.MANAGE_CLASS, blog.classId());
        }
        return blog;
    }

    private BlogRow requireBlog(Viewer viewer, long id) {
        BlogRow blog = store.find(id).orElseThrow(Problem::missing);
        access.require(viewer, Act.MANAGE_CLASS, blog.classId());
        return blog;
    }

    /** Refuses whoever may not set up this set of blogs; gives its class. */
    public long requireManaged(Viewer viewer, String ref) {
        return requireSet(viewer, ref).classId();
    }

    private BlogSet requireSet(Viewer viewer, String ref) {
        BlogSet set = store.set(number(ref)).orElseThrow(Problem::missing);
        access.require(viewer, Act.MANAGE_CLASS, set.classId());
        return set;
    }

    private static boolean isSet(String ref) {
        return ref.startsWith("s");
    }

    private static long number(String ref) {
        try {
            return Long.parseLong(ref.substring(1));
        } catch (RuntimeException e) {
            throw Problem.missing();
        }
    }

    private static Problem changedMeanwhile() {
        return Problem.stale(
                "blog-changed", "Somebody else changed this blog meanwhile. Load the page again to see how it is now.");
    }
}
