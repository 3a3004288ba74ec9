package org.vastporch.server.blogs;

import java.security.SecureRandom;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.Sightline;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Addresses;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.blogs.BlogSettings;
import org.vastporch.core.blogs.TitlePattern;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.access.Sightlines;
import org.vastporch.server.blogs.BlogStore.BlogRow;
import org.vastporch.server.blogs.BlogStore.BlogSet;
import org.vastporch.server.blogs.HeaderPile.WantedHeader;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.moderation.ApprovingBlogs;
import org.vastporch.server.people.MembersArrived;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.NamesChanged;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.SightlineView;

/** Blogs of a class, of the five kinds: making them, finding them, reading their heads. */
@Service
public class BlogService implements ApprovingBlogs {

    /**
     * @param ref how a prompt names it: "b" and its number, or "s" and that of the set that it belongs to
     * @param mayWrite whether the viewer may write here
     * @param audience how far a new post reaches unless its author chooses otherwise
     */
    public record BlogView(
            long id,
            String ref,
            BlogKind kind,
            String title,
            String address,
            String about,
            boolean mayWrite,
            String audience) {}

    /**
     * The head of a blog's page.
     *
     * @param address the address it has now; the one asked for may be an earlier one
     * @param header the address of the picture at its head
     * @param doors what is said of its opening times; left out while it is open
     * @param mayLook whether the viewer may choose its look
     * @param manages whether the viewer may change all of it
     * @param wantedHeader a picture that its owner chose and that waits or came back; for the owner and the staff
     */
    public record BlogPage(
            long id,
            BlogKind kind,
            String title,
            String address,
            String intro,
            @Optionally String owner,
            @Optionally Long ownerPlace,
            BlogSettings.Look look,
            @Optionally String header,
            boolean newestFirst,
            int perPage,
            BlogSettings.Grouping grouping,
            boolean mayWrite,
            boolean mayLook,
            boolean manages,
            @Optionally String doors,
            SightlineView sightline,
            @Optionally WantedHeader wantedHeader) {}

    /** A blog in a list of them. {@code readers}: how many can read a post in it. */
    public record BlogHead(
            long id,
            BlogKind kind,
            String title,
            String address,
            BlogSettings.Look look,
            @Optionally String owner,
            int readers,
            boolean strangers) {}

    private final BlogStore store;
    private final HeaderPile headers;
    private final AccessService access;
    private final PeopleService people;
    private final EventStore events;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();

    BlogService(
            BlogStore store,
            HeaderPile headers,
            AccessService access,
            PeopleService people,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.headers = headers;
        this.access = access;
        this.people = people;
        this.events = events;
        this.clock = clock;
    }

    /**
     * Makes a blog, or a blog for every student now and for each who comes later, or one for a group or for each group.
     */
    @Transactional
    public void create(Viewer viewer, long classId, BlogSetup wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        BlogSetup setup = wanted.checked(people.groups(classId));
        if (setup.kind().isForEach()) {
            BlogSet set = store.set(store.addSet(classId, setup)).orElseThrow();
            Names names = people.namesForReaders(classId);
            for (long student : inAnyOrder(people.students(classId))) addOwn(set, student, names);
        } else if (setup.kind() == BlogKind.GROUP) {
            List<PeopleService.Group> groups = people.groups(classId).stream()
                    .filter(g -> setup.groupId() == null || setup.groupId() == g.id())
                    .toList();
            if (groups.isEmpty())
                throw Problem.invalid(
                        "kind", "no-groups", "There is no group in this class yet. Make groups first, under People.");
            for (PeopleService.Group group : groups)
                add(classId, setup.withTitle(named(setup.title(), group.name())).withGroup(group.id()), null, null);
        } else {
            add(classId, setup, null, null);
        }
        events.add(classId, "blog-created", null, viewer.personId());
    }

    private static String named(String title, String name) {
        return TitlePattern.fill(TitlePattern.isPattern(title) ? title : title + " {name}", name);
    }

    /** Later arrivals get their own blogs. */
    @EventListener
    @Transactional
    public void on(MembersArrived arrival) {
        Names names = people.namesForReaders(arrival.classId());
        for (BlogSet set : store.sets(arrival.classId()))
            for (long person : inAnyOrder(arrival.personIds())) addOwn(set, person, names);
    }

    /** Blogs are numbered as they are made: numbers in the order of a roster would tell whose pen name is whose. */
    private List<Long> inAnyOrder(List<Long> people) {
        List<Long> shuffled = new ArrayList<>(people);
        Collections.shuffle(shuffled, random);
        return shuffled;
    }

    /**
     * Titles and addresses carry the name that readers see: when that changes, they change, and earlier addresses no
     * longer tell the old one.
     */
    @EventListener
    @Transactional
    public void on(NamesChanged change) {
        Names names = people.namesForReaders(change.classId());
        for (long person : change.personIds())
            for (BlogRow blog : store.ofOwner(change.classId(), person)) {
                BlogSet set =
                        blog.setId() == null ? null : store.set(blog.setId()).orElse(null);
                if (set == null) continue;
                BlogSetup setup =
                        blog.setup().withTitle(TitlePattern.fill(set.setup().title(), names.of(person)));
                if (setup.title().equals(blog.setup().title())) continue;
                store.change(blog.id(), setup, blog.version());
                store.setAddress(
                        change.classId(),
                        blog.id(),
                        Addresses.make(setup.title(), a -> store.isGiven(change.classId(), a, blog.id())));
                store.forgetEarlierAddresses(blog.id());
            }
    }

    /** The blogs in which the viewer may write. */
    public List<BlogView> writable(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        boolean manages = access.allows(viewer, Act.MANAGE_CLASS, classId);
        return store.ofClass(classId).stream()
                .filter(b -> !manages || b.ownerId() == null)
                .filter(b -> access.mayWrite(viewer, b.id()))
                .map(b -> view(b, true))
                .toList();
    }

    public BlogView view(Viewer viewer, long blogId) {
        return view(store.find(blogId).orElseThrow(Problem::missing), access.mayWrite(viewer, blogId));
    }

    /** The page of the blog that has, or had, an address. */
    public BlogPage page(Viewer viewer, long classId, String address) {
        BlogRow blog = store.at(classId, address).orElseThrow(Problem::missing);
        access.requireBlog(viewer, blog.id());
        Names names = people.names(viewer, classId);
        BlogSetup setup = blog.setup();
        boolean manages = access.allows(viewer, Act.MANAGE_CLASS, classId);
        boolean owns = blog.ownerId() != null && blog.ownerId() == viewer.personId() && viewer.isInPerson();
        return new BlogPage(
                blog.id(),
                setup.kind(),
                setup.title(),
                blog.address(),
                setup.intro(),
                blog.ownerId() == null ? null : names.of(blog.ownerId()),
                blog.ownerId() == null ? null : names.placeOf(blog.ownerId()),
                setup.settings().look(),
                picture(String.valueOf(blog.id()), blog.headerSha()),
                setup.settings().newestFirst(),
                setup.settings().perPage(),
                setup.settings().grouping(),
                access.mayWrite(viewer, blog.id()),
                manages || owns && !setup.settings().lookLocked(),
                manages,
                doors(setup),
                SightlineView.of(
                        access.sightline(access.blog(blog.id())), names, access.sightlineDetail(viewer, classId)),
                owns || manages ? headers.wanted(viewer, blog).orElse(null) : null);
    }

    /** The blogs of a class that the viewer may open. */
    public List<BlogHead> heads(Viewer viewer, long classId) {
        Names names = people.names(viewer, classId);
        List<BlogRow> blogs = store.ofClass(classId);
        Map<Long, BlogFacts> open =
                access.openable(viewer, blogs.stream().map(BlogRow::id).toList());
        Sightlines sightlines = access.sightlines();
        return blogs.stream()
                .filter(b -> open.containsKey(b.id()))
                .map(b -> {
                    Sightline line = sightlines.of(open.get(b.id()));
                    return new BlogHead(
                            b.id(),
                            b.setup().kind(),
                            b.setup().title(),
                            b.address(),
                            b.setup().settings().look(),
                            b.ownerId() == null ? null : names.of(b.ownerId()),
                            line.readers().size(),
                            line.strangers());
                })
                .toList();
    }

    /** Whether it is open now, in a word for the screen. */
    @Nullable
    String doors(BlogSetup setup) {
        if (setup.opensAt() != null && clock.instant().isBefore(setup.opensAt())) return "NOT_OPEN_YET";
        return setup.closesAt() != null && !clock.instant().isBefore(setup.closesAt()) ? "CLOSED" : null;
    }

    public Approving approving(long blogId) {
        return Optional.ofNullable(approving(List.of(blogId)).get(blogId)).orElseThrow(Problem::missing);
    }

    @Override
    public Map<Long, Approving> approving(Collection<Long> blogIds) {
        Map<Long, Approving> approving = new HashMap<>();
        for (BlogRow blog : store.all(blogIds))
            approving.put(
                    blog.id(), Approving.of(blog.setup().title(), blog.setup().settings()));
        return approving;
    }

    public BlogRules rules(long blogId) {
        return store.find(blogId)
                .orElseThrow(Problem::missing)
                .setup()
                .settings()
                .rules();
    }

    /** The blog in which a student's outside posts stand: the own one, else the first shared one. */
    public Optional<Long> homeOf(long classId, long personId) {
        List<BlogRow> blogs = store.ofClass(classId);
        return blogs.stream()
                .filter(b -> b.setup().kind() == BlogKind.ONE_EACH && Objects.equals(b.ownerId(), personId))
                .map(BlogRow::id)
                .findFirst()
                .or(() -> blogs.stream()
                        .filter(b -> b.setup().kind() == BlogKind.SHARED)
                        .map(BlogRow::id)
                        .findFirst());
    }

    /**
     * The address of a picture at the head of a blog; null if there is none. It changes with the picture, so that an
     * old one is not shown.
     */
    static @Nullable String picture(String of, @Nullable String sha) {
        return sha == null ? null : "/media/headers/" + of + "?v=" + sha.substring(0, 12);
    }

    private static BlogView view(BlogRow blog, boolean mayWrite) {
        BlogSetup setup = blog.setup();
        return new BlogView(
                blog.id(),
                blog.setId() == null ? "b" + blog.id() : "s" + blog.setId(),
                setup.kind(),
                setup.title(),
                blog.address(),
                setup.about(),
                mayWrite,
                setup.kind().usual().cutTo(setup.widest()).name());
    }

    private void addOwn(BlogSet set, long person, Names names) {
        if (!store.hasOwnBlog(set.id(), person))
            add(
                    set.classId(),
                    set.setup().withTitle(TitlePattern.fill(set.setup().title(), names.of(person))),
                    person,
                    set.id());
    }

    private void add(long classId, BlogSetup setup, @Nullable Long owner, @Nullable Long setId) {
        store.add(
                classId,
                setup,
                Addresses.make(setup.title(), address -> store.isGiven(classId, address, 0)),
                owner,
                setId,
                clock.instant());
    }
}
