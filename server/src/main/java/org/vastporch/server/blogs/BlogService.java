package org.vastporch.server.blogs;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Audience;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.people.Usernames;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogStore.BlogRow;
import org.vastporch.server.blogs.BlogStore.BlogSet;
import org.vastporch.server.blogs.BlogStore.NewBlog;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.ClassService;
import org.vastporch.server.people.MembersArrived;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.SightlineView;

/** Blogs of a class, of the five kinds. */
@Service
public class BlogService {

    /** @param title for "one each" and journals a pattern in which {name} stands for the student */
    public record WantedBlog(BlogKind kind, String title, String about, Audience widest, Commenters commenters, @Optionally Long groupId) {}

    /** @param mayWrite whether the viewer may write here */
    public record BlogView(long id, String kind, String title, String about, @Optionally Long ownerId, @Optionally String owner, boolean mayWrite, String audience) {}

    /** A set "one each" counts as one line. */
    public record BlogLine(String kind, String title, int blogs, SightlineView sightline) {}

    /** What the rules of one blog say about approving; null where the class decides. */
    public record Policies(@Nullable Policy posts, @Nullable Policy comments) {}

    private final BlogStore store;
    private final AccessService access;
    private final PeopleService people;
    private final ClassService classes;
    private final EventStore events;
    private final Clock clock;

    BlogService(BlogStore store, AccessService access, PeopleService people, ClassService classes, EventStore events, Clock clock) {
        this.store = store;
        this.access = access;
        this.people = people;
        this.classes = classes;
        this.events = events;
        this.clock = clock;
    }

    /** Makes a blog, or a blog for every student, now and for each who comes later. */
    @Transactional
    public void create(Viewer viewer, long classId, WantedBlog wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        String title = wanted.title().strip();
        if (title.isEmpty()) throw Problem.invalid("title", "title-missing", "Give the blog a title.");
        if (title.length() > 120) throw Problem.invalid("title", "title-too-long", "A blog's title has at most 120 characters; this one has " + title.length() + ".");
        Audience widest = wanted.widest().cutTo(wanted.kind().widest());
        if (isForEach(wanted.kind())) {
            if (!title.contains("{name}")) title = title + " of {name}";
            long set = store.addSet(classId, wanted.kind(), title, wanted.about().strip(), widest, wanted.commenters());
            for (long student : people.students(classId)) addOwn(find(classId, set), student, people.names(viewer, classId));
        } else if (wanted.kind() == BlogKind.GROUP) {
            for (PeopleService.Group group : people.groups(classId))
                if (wanted.groupId() == null || wanted.groupId() == group.id())
                    add(new NewBlog(classId, wanted.kind(), title.contains("{name}") ? title.replace("{name}", group.name()) : title + " " + group.name(),
                        "", wanted.about().strip(), widest, wanted.commenters(), null, group.id(), null));
        } else {
            add(new NewBlog(classId, wanted.kind(), title, "", wanted.about().strip(), widest, wanted.commenters(), null, null, null));
        }
        events.add(classId, "blog-created", null, viewer.personId());
    }

    /** Later arrivals get their own blogs. */
    @EventListener
    @Transactional
    public void on(MembersArrived arrival) {
        // Titles carry the name that readers see, so a pen name stays one.
        Names names = people.names(Viewer.STRANGER, arrival.classId());
        for (BlogSet set : store.sets(arrival.classId()))
            for (long person : arrival.personIds()) addOwn(set, person, names);
    }

    /** Who could read and write in a blog that is not saved yet. */
    public SightlineView sightline(Viewer viewer, long classId, WantedBlog wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        ClassService.ClassRecord of = classes.get(classId);
        boolean each = isForEach(wanted.kind());
        List<Long> students = people.students(classId);
        Long owner = each ? (students.isEmpty() ? Long.valueOf(-1) : students.get(0)) : null;
        Long group = wanted.kind() == BlogKind.GROUP
            ? Optional.ofNullable(wanted.groupId()).orElse(people.groups(classId).stream().map(PeopleService.Group::id).findFirst().orElse(null)) : null;
        BlogFacts facts = new BlogFacts(0, classId, of.rules().ceiling(), of.rules().open(), wanted.kind(), wanted.widest(), wanted.commenters(), owner, group, null, null, null);
        return SightlineView.of(access.sightline(facts), people.names(viewer, classId));
    }

    /** The blogs of a class for its staff: sets first said as one line. */
    public List<BlogLine> lines(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        Names names = people.names(viewer, classId);
        List<BlogLine> lines = new ArrayList<>();
        List<BlogRow> blogs = store.ofClass(classId);
        for (BlogRow blog : blogs)
            if (blog.setId() == null)
                lines.add(new BlogLine(blog.kind().name(), blog.title(), 1, SightlineView.of(access.sightline(access.blog(blog.id())), names)));
        for (BlogSet set : store.sets(classId)) {
            List<BlogRow> own = blogs.stream().filter(b -> Objects.equals(b.setId(), set.id())).toList();
            BlogFacts facts = own.isEmpty() ? null : access.blog(own.get(0).id());
            WantedBlog wanted = new WantedBlog(set.kind(), set.pattern(), set.about(), set.widest(), set.commenters(), null);
            lines.add(new BlogLine(set.kind().name(), set.pattern(), own.size(),
                facts == null ? sightline(viewer, classId, wanted) : SightlineView.of(access.sightline(facts), names)));
        }
        return lines;
    }

    /** The blogs in which the viewer may write. */
    public List<BlogView> writable(Viewer viewer, long classId) {
        access.require(viewer, Act.ENTER_CLASS, classId);
        boolean manages = access.allows(viewer, Act.MANAGE_CLASS, classId);
        Names names = people.names(viewer, classId);
        return store.ofClass(classId).stream().filter(b -> !manages || b.ownerId() == null).filter(b -> access.mayWrite(viewer, b.id()))
            .map(b -> view(b, names, true)).toList();
    }

    public BlogView view(Viewer viewer, long blogId) {
        BlogRow blog = store.find(blogId).orElseThrow(Problem::missing);
        return view(blog, people.names(viewer, blog.classId()), access.mayWrite(viewer, blogId));
    }

    public Policies policies(long blogId) {
        BlogRow blog = store.find(blogId).orElseThrow(Problem::missing);
        return new Policies(blog.postPolicy(), blog.commentPolicy());
    }

    /** The blog in which a student's outside posts stand: the own one, else the first shared one. */
    public Optional<Long> homeOf(long classId, long personId) {
        List<BlogRow> blogs = store.ofClass(classId);
        return blogs.stream().filter(b -> b.kind() == BlogKind.ONE_EACH && Objects.equals(b.ownerId(), personId)).map(BlogRow::id).findFirst()
            .or(() -> blogs.stream().filter(b -> b.kind() == BlogKind.SHARED).map(BlogRow::id).findFirst());
    }

    private static BlogView view(BlogRow blog, Names names, boolean mayWrite) {
        return new BlogView(blog.id(), blog.kind().name(), blog.title(), blog.about(), blog.ownerId(),
            blog.ownerId() == null ? null : names.of(blog.ownerId()), mayWrite, blog.kind().usual().cutTo(blog.widest()).name());
    }

    private BlogSet find(long classId, long setId) {
        return store.sets(classId).stream().filter(s -> s.id() == setId).findFirst().orElseThrow();
    }

    private void addOwn(BlogSet set, long person, Names names) {
        if (store.hasOwnBlog(set.id(), person)) return;
        add(new NewBlog(set.classId(), set.kind(), set.pattern().replace("{name}", names.of(person)), "", set.about(), set.widest(), set.commenters(), person, null, set.id()));
    }

    private void add(NewBlog blog) {
        String base = Usernames.latin(blog.title().replace(' ', '0')).replace('0', '-').replaceAll("^-+|-+$", "");
        if (base.isEmpty()) base = "blog";
        if (base.length() > 60) base = base.substring(0, 60);
        String address = base;
        for (int number = 2; store.isAddress(blog.classId(), address); number++) address = base + "-" + number;
        store.add(new NewBlog(blog.classId(), blog.kind(), blog.title(), address, blog.about(), blog.widest(), blog.commenters(), blog.ownerId(), blog.groupId(), blog.setId()),
            clock.instant());
    }

    private static boolean isForEach(BlogKind kind) {
        return kind == BlogKind.ONE_EACH || kind == BlogKind.JOURNAL;
    }
}
