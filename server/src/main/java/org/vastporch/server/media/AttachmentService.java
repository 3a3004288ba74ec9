package org.vastporch.server.media;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.writing.Tool;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.writing.Posts;

/**
 * Sound, video and documents in posts. A file can be had by whoever can read a version of the post in which it stands.
 */
@Service
public class AttachmentService {

    static final int MOST = 10;

    /** @param kind SOUND, VIDEO or DOCUMENT; {@code pages} how many of its pages are shown in place */
    public record FileView(String id, String address, String name, String kind, String type, long size, int pages) {}

    private final AttachmentStore store;
    private final DrawerService drawer;
    private final MediaStore media;
    private final RoomService room;
    private final PdfPages pages;
    private final UploadFolder uploads;
    private final Posts posts;
    private final ClassService classes;
    private final AccessService access;
    private final TransactionTemplate transaction;
    private final Clock clock;

    AttachmentService(
            AttachmentStore store,
            DrawerService drawer,
            MediaStore media,
            RoomService room,
            PdfPages pages,
            UploadFolder uploads,
            Posts posts,
            ClassService classes,
            AccessService access,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.drawer = drawer;
        this.media = media;
        this.room = room;
        this.pages = pages;
        this.uploads = uploads;
        this.posts = posts;
        this.classes = classes;
        this.access = access;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** Keeps a file for a post. The size and number allowed are those of its blog. */
    public FileView add(Viewer viewer, long postId, Upload upload) throws IOException {
        PostFacts post = access.requirePost(viewer, Act.EDIT, postId);
        long classId = post.blog().classId();
        boolean staff = access.allows(viewer, Act.MANAGE_CLASS, classId);
        BlogRules rules = staff ? BlogRules.FREE : post.blog().rules();
        if (upload.size() > rules.mostMegabytes() * 1024L * 1024L)
            throw Problem.invalid(
                    "file",
                    "file-too-large",
                    "A file may have " + rules.mostMegabytes() + " megabytes here; this one has "
                            + (upload.size() / (1024 * 1024) + 1) + ".");
        FileKind.Known known = FileKind.of(upload);
        Set<Tool> tools = classes.get(classId).rules().toolsOf(staff);
        if (!tools.contains(Tool.valueOf(known.kind().name())))
            throw Problem.invalid("file", "tool-off", "Files of this kind are switched off in this class.");
        refuseMany(postId);
        room.requireRoom(viewer, classId, "file", upload.size());
        String id = UUID.randomUUID().toString();
        String sha = upload.sha();
        int pages = known.type().equals("application/pdf") ? this.pages.count(sha, upload) : 0;
        // Its bytes come first, so that no row is locked while they are written; what is refused after that goes with
        // the next clearing.
        transaction.executeWithoutResult(status -> keepBytes(sha, upload));
        transaction.executeWithoutResult(status -> {
            access.requireLockedPost(viewer, Act.EDIT, postId);
            refuseMany(postId);
            room.take(viewer, classId, "file", upload.size());
            store.add(
                    new AttachmentStore.Attachment(
                            id,
                            classId,
                            postId,
                            viewer.personId(),
                            sha,
                            known.name(),
                            known.kind().name(),
                            known.type(),
                            upload.size(),
                            pages),
                    clock.instant());
        });
        return view(store.find(id).orElseThrow());
    }

    private void keepBytes(String sha, Upload upload) {
        try (InputStream in = upload.open()) {
            media.add(sha, "application/octet-stream", upload.size(), in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void refuseMany(long postId) {
        if (store.count(postId) >= MOST)
            throw Problem.invalid("file", "too-many-files", "A post has at most " + MOST + " files.");
    }

    /** The files that were put into a post, for whoever may read it. */
    public List<FileView> ofPost(Viewer viewer, long postId) {
        access.requirePost(viewer, Act.READ, postId);
        return store.ofPost(postId).stream()
                .filter(file -> posts.knowsFile(viewer, postId, file.id()))
                .map(AttachmentService::view)
                .toList();
    }

    AttachmentStore.Attachment require(Viewer viewer, String id) {
        AttachmentStore.Attachment file = store.find(id).orElseThrow(Problem::missing);
        // A file that so far stands in a draft or a version that waits is not for those who read what is up.
        boolean knows = file.postId() == null ? drawer.knows(viewer, id) : posts.knowsFile(viewer, file.postId(), id);
        if (!knows) throw Problem.missing();
        return file;
    }

    /** A page of a PDF as a picture, counted from 1, for whoever may have the file. */
    byte[] page(Viewer viewer, String id, int no) {
        AttachmentStore.Attachment file = require(viewer, id);
        if (no < 1 || no > file.pages()) throw Problem.missing();
        return pages.draw(file.sha(), no, () -> {
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            write(file, 0, file.size() - 1, bytes);
            return uploads.of(bytes.toByteArray(), file.name());
        });
    }

    /** Writes the bytes from {@code first} to {@code last}, both counted in, chunk by chunk. */
    void write(AttachmentStore.Attachment file, long first, long last, OutputStream out) throws IOException {
        for (long no = first / MediaStore.CHUNK; no <= last / MediaStore.CHUNK; no++) {
            byte[] chunk = media.chunk(file.sha(), no);
            int from = (int) Math.max(0, first - no * MediaStore.CHUNK);
            int to = (int) Math.min(chunk.length, last + 1 - no * MediaStore.CHUNK);
            out.write(chunk, from, to - from);
        }
    }

    private static FileView view(AttachmentStore.Attachment a) {
        return new FileView(a.id(), "/media/files/" + a.id(), a.name(), a.kind(), a.type(), a.size(), a.pages());
    }
}
