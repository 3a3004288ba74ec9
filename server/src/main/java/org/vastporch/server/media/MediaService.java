package org.vastporch.server.media;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.util.HexFormat;
import java.util.UUID;
import java.util.function.Consumer;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.posts.Tool;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogSetupService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.ClassService;
import org.vastporch.server.posts.PostHeadings;

/** Pictures in posts. A picture can be seen by whoever can read a version of the post in which it stands. */
@Service
public class MediaService {

    public record Uploaded(String id, String address, int width, int height) {}

    record Served(String type, byte[] bytes, String etag) {}

    private final MediaStore store;
    private final PictureMaker maker;
    private final PostHeadings posts;
    private final BlogSetupService setups;
    private final ClassService classes;
    private final AccessService access;
    private final TransactionTemplate transaction;
    private final Clock clock;

    MediaService(MediaStore store, PictureMaker maker, PostHeadings posts, BlogSetupService setups, ClassService classes, AccessService access, TransactionTemplate transaction, Clock clock) {
        this.store = store;
        this.maker = maker;
        this.posts = posts;
        this.setups = setups;
        this.classes = classes;
        this.access = access;
        this.transaction = transaction;
        this.clock = clock;
    }

    public Uploaded addPicture(Viewer viewer, long postId, byte[] upload) {
        PostFacts post = access.requirePost(viewer, Act.EDIT, postId);
        if (!access.allows(viewer, Act.MANAGE_CLASS, post.blog().classId()) && !classes.get(post.blog().classId()).rules().tools().contains(Tool.PICTURE))
            throw Problem.invalid("picture", "tool-off", "Pictures are switched off in this class.");
        BlogRules rules = access.allows(viewer, Act.MANAGE_CLASS, post.blog().classId()) ? BlogRules.FREE : post.blog().rules();
        refuseMany(postId, rules);
        refuseLarge(upload, rules.mostMegabytes());
        PictureMaker.Made made = maker.make(upload);
        String id = UUID.randomUUID().toString();
        transaction.executeWithoutResult(status -> {
            // Asked again on the locked row: the picture was made meanwhile, and others came in.
            access.requireLockedPost(viewer, Act.EDIT, postId);
            refuseMany(postId, rules);
            store.add(hash(made.bytes()), made.type(), made.bytes());
            store.add(hash(made.small()), made.type(), made.small());
            store.addPicture(id, post.blog().classId(), postId, viewer.personId(), hash(made.bytes()), hash(made.small()), made.width(), made.height(), clock.instant());
        });
        return new Uploaded(id, "/media/" + id, made.width(), made.height());
    }

    private void refuseMany(long postId, BlogRules rules) {
        if (store.picturesOf(postId) >= rules.mostPictures())
            throw Problem.invalid("picture", "too-many-pictures", rules.mostPictures() == 0 ? "In this blog posts have no pictures." : "A post has at most " + rules.mostPictures() + " pictures here.");
    }

    Served serve(Viewer viewer, String id, boolean small) {
        MediaStore.Picture picture = store.picture(id).orElseThrow(Problem::missing);
        if (!posts.knowsFile(viewer, picture.postId(), id)) throw Problem.missing();
        String sha = small ? picture.smallSha() : picture.sha();
        MediaStore.Medium medium = store.medium(sha);
        return new Served(medium.type(), medium.bytes(), "\"" + sha.substring(0, 20) + "\"");
    }

    private static void refuseLarge(byte[] upload, int mostMegabytes) {
        if (upload.length > mostMegabytes * 1024L * 1024L)
            throw Problem.invalid("picture", "picture-too-large", "A picture may have " + mostMegabytes + " megabytes here; this one has " + (upload.length / (1024 * 1024) + 1) + ".");
    }

    /** Puts a picture at the head of a blog. */
    public void addHeader(Viewer viewer, long blogId, byte[] upload) {
        setups.requireLook(viewer, blogId);
        keepHeader(upload, sha -> setups.setHeader(viewer, blogId, sha));
    }

    /** Puts a picture at the head of all blogs of a set. */
    public void addHeaderOfSet(Viewer viewer, String ref, byte[] upload) {
        setups.requireManaged(viewer, ref);
        keepHeader(upload, sha -> setups.setHeaderOfSet(viewer, ref, sha));
    }

    private void keepHeader(byte[] upload, Consumer<String> set) {
        PictureMaker.Made made = maker.make(upload);
        transaction.executeWithoutResult(status -> {
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
