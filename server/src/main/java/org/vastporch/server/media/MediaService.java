package org.vastporch.server.media;

import java.io.IOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Duration;
import java.util.HexFormat;
import java.util.UUID;
import java.util.function.Consumer;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.writing.Tool;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogSetupService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.feeds.OutsidePictures;
import org.vastporch.server.http.Allowance;
import org.vastporch.server.http.Problem;
import org.vastporch.server.writing.Posts;

/** Pictures in posts. A picture can be seen by whoever can read a version of the post in which it stands. */
@Service
public class MediaService {

    public record Uploaded(String id, String address, int width, int height) {}

    record Served(String type, byte[] bytes, String etag) {}

    private static final int HEADER_MEGABYTES = 10;

    private final MediaStore store;
    private final DrawerService drawer;
    private final PictureMaker maker;
    private final RoomService room;
    /** Enough for a class trip; not for a program that sends them without end. */
    private final Allowance pictures = new Allowance(150);

    private final Allowance fetches = new Allowance(150);
    private final OutsidePictures outside;
    private final UploadFolder uploads;
    private final Posts posts;
    private final BlogSetupService setups;
    private final ClassService classes;
    private final AccessService access;
    private final TransactionTemplate transaction;
    private final Clock clock;

    MediaService(
            MediaStore store,
            DrawerService drawer,
            PictureMaker maker,
            RoomService room,
            OutsidePictures outside,
            UploadFolder uploads,
            Posts posts,
            BlogSetupService setups,
            ClassService classes,
            AccessService access,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.drawer = drawer;
        this.maker = maker;
        this.room = room;
        this.outside = outside;
        this.uploads = uploads;
        this.posts = posts;
        this.setups = setups;
        this.classes = classes;
        this.access = access;
        this.transaction = transaction;
        this.clock = clock;
    }

    public Uploaded addPicture(Viewer viewer, long postId, Upload upload) throws IOException {
        PostFacts post = access.requirePost(viewer, Act.EDIT, postId);
        BlogRules rules = requirePictures(viewer, post);
        refuseLarge(upload, rules.mostMegabytes());
        long classId = post.blog().classId();
        PictureMaker.Made made = make(viewer, classId, upload);
        String id = UUID.randomUUID().toString();
        transaction.executeWithoutResult(status -> {
            // Asked again on the locked row: the picture was made meanwhile, and others came in.
            access.requireLockedPost(viewer, Act.EDIT, postId);
            refuseMany(postId, rules);
            room.take(viewer, classId, "picture", made.bytes().length + made.small().length);
            store.add(hash(made.bytes()), made.type(), made.bytes());
            store.add(hash(made.small()), made.type(), made.small());
            store.addPicture(
                    id,
                    classId,
                    postId,
                    viewer.personId(),
                    hash(made.bytes()),
                    hash(made.small()),
                    made.width(),
                    made.height(),
                    clock.instant());
        });
        return new Uploaded(id, "/media/" + id, made.width(), made.height());
    }

    /** Keeps an own copy of a picture that stands on a page outside: it came along with what somebody pasted. */
    public Uploaded addPictureFrom(Viewer viewer, long postId, String address) throws IOException {
        // Nothing is fetched for a picture that could not be put in.
        requirePictures(viewer, access.requirePost(viewer, Act.EDIT, postId));
        if (!fetches.take(String.valueOf(viewer.personId())))
            throw Problem.tooMany(
                            "Very many pictures were fetched for you within an hour. Please go on a little later.")
                    .retryAfter(Duration.ofMinutes(2));
        try (Upload upload = uploads.of(outside.fetch(address), "picture")) {
            return addPicture(viewer, postId, upload);
        }
    }

    /** The rules for pictures in a post; refuses if one more cannot be put in. */
    private BlogRules requirePictures(Viewer viewer, PostFacts post) {
        boolean staff = access.allows(viewer, Act.MANAGE_CLASS, post.blog().classId());
        if (!staff && !classes.get(post.blog().classId()).rules().tools().contains(Tool.PICTURE))
            throw Problem.invalid("picture", "tool-off", "Pictures are switched off in this class.");
        BlogRules rules = staff ? BlogRules.FREE : post.blog().rules();
        refuseMany(post.id(), rules);
        return rules;
    }

    private PictureMaker.Made make(Viewer viewer, long classId, Upload upload) throws IOException {
        room.requireRoom(viewer, classId, "picture", 0);
        if (!pictures.take(String.valueOf(viewer.personId())))
            throw Problem.tooMany("You have put in very many pictures within an hour. Please go on a little later.")
                    .retryAfter(Duration.ofMinutes(2));
        return maker.make(upload);
    }

    private void refuseMany(long postId, BlogRules rules) {
        if (store.picturesOf(postId) >= rules.mostPictures())
            throw Problem.invalid(
                    "picture",
                    "too-many-pictures",
                    rules.mostPictures() == 0
                            ? "In this blog posts have no pictures."
                            : "A post has at most " + rules.mostPictures() + " pictures here.");
    }

    Served serve(Viewer viewer, String id, boolean small) {
        MediaStore.Picture picture = store.picture(id).orElseThrow(Problem::missing);
        boolean knows =
                picture.postId() == null ? drawer.knows(viewer, id) : posts.knowsFile(viewer, picture.postId(), id);
        if (!knows) throw Problem.missing();
        String sha = small ? picture.smallSha() : picture.sha();
        MediaStore.Medium medium = store.medium(sha);
        return new Served(medium.type(), medium.bytes(), "\"" + sha.substring(0, 20) + "\"");
    }

    private static void refuseLarge(Upload upload, int mostMegabytes) {
        if (upload.size() > mostMegabytes * 1024L * 1024L)
            throw Problem.invalid(
                    "picture",
                    "picture-too-large",
                    "A picture may have " + mostMegabytes + " megabytes here; this one has "
                            + (upload.size() / (1024 * 1024) + 1) + ".");
    }

    /** Puts a picture at the head of a blog. */
    public void addHeader(Viewer viewer, long blogId, Upload upload) throws IOException {
        setups.requireLook(viewer, blogId);
        keepHeader(viewer, access.blog(blogId).classId(), upload, sha -> setups.setHeader(viewer, blogId, sha));
    }

    /** Puts a picture at the head of all blogs of a set. */
    public void addHeaderOfSet(Viewer viewer, String ref, Upload upload) throws IOException {
        keepHeader(viewer, setups.requireManaged(viewer, ref), upload, sha -> setups.setHeaderOfSet(viewer, ref, sha));
    }

    private void keepHeader(Viewer viewer, long classId, Upload upload, Consumer<String> set) throws IOException {
        refuseLarge(
                upload,
                access.allows(viewer, Act.MANAGE_CLASS, classId) ? BlogRules.FREE.mostMegabytes() : HEADER_MEGABYTES);
        PictureMaker.Made made = make(viewer, classId, upload);
        transaction.executeWithoutResult(status -> {
            room.take(viewer, classId, "picture", made.bytes().length);
            store.add(hash(made.bytes()), made.type(), made.bytes());
            set.accept(hash(made.bytes()));
        });
    }

    public void removeHeader(Viewer viewer, long blogId) {
        setups.setHeader(viewer, blogId, null);
    }

    public void removeHeaderOfSet(Viewer viewer, String ref) {
        setups.setHeaderOfSet(viewer, ref, null);
    }

    Served header(Viewer viewer, long blogId) {
        return header(setups.header(viewer, blogId));
    }

    Served wantedHeader(Viewer viewer, long id) {
        return header(setups.wantedHeader(viewer, id));
    }

    Served headerOfSet(Viewer viewer, String ref) {
        return header(setups.headerOfSet(viewer, ref));
    }

    private Served header(String sha) {
        MediaStore.Medium medium = store.medium(sha);
        return new Served(medium.type(), medium.bytes(), "\"" + sha.substring(0, 20) + "\"");
    }

    static String hash(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("Every JDK has SHA-256", e);
        }
    }
}
