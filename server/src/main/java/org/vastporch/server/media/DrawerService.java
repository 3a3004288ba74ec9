package org.vastporch.server.media;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.FileFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.text.OneLine;
import org.vastporch.core.writing.Tool;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.prompts.FilesInPrompt;

/**
 * The drawer of a class: pictures and files that its teachers put there, to be used in posts and in prompts. What is
 * offered can be had by everybody who reads the class; what only stands in a prompt, by those who see that prompt. Who
 * puts something from it into a post gets a copy of their own there.
 */
@Service
public class DrawerService implements FilesInPrompt {

    /**
     * @param kind PICTURE, SOUND, VIDEO or DOCUMENT
     * @param offered whether the class finds it in its drawer
     */
    public record DrawerItem(
            String id, String address, String kind, String name, String type, long size, int pages, boolean offered) {}

    public record WantedItem(String name, boolean offered) {}

    private static final int MOST = 300;
    private static final int LONGEST_NAME = 200;
    private static final Pattern ADDRESS = Pattern.compile("(/media/|/media/files/)([0-9a-f]{8}-[0-9a-f-]{27})");

    private final DrawerStore store;
    private final MediaStore media;
    private final AttachmentStore files;
    private final PictureMaker maker;
    private final PdfPages pages;
    private final RoomService room;
    private final FilesElsewhere elsewhere;
    private final ClassService classes;
    private final AccessService access;
    private final EventStore events;
    private final TransactionTemplate transaction;
    private final Clock clock;

    DrawerService(
            DrawerStore store,
            MediaStore media,
            AttachmentStore files,
            PictureMaker maker,
            PdfPages pages,
            RoomService room,
            FilesElsewhere elsewhere,
            ClassService classes,
            AccessService access,
            EventStore events,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.media = media;
        this.files = files;
        this.maker = maker;
        this.pages = pages;
        this.room = room;
        this.elsewhere = elsewhere;
        this.classes = classes;
        this.access = access;
        this.events = events;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** What the class finds in its drawer: of the kinds that the viewer may put into a text. */
    public List<DrawerItem> of(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        Set<Tool> tools = classes.get(classId).rules().toolsOf(access.allows(viewer, Act.MANAGE_CLASS, classId));
        return store.offered(classId).stream()
                .filter(i -> tools.contains(Tool.valueOf(i.kind())))
                .map(DrawerService::view)
                .toList();
    }

    /** @param offered whether the class is to find it; else it is for a prompt alone */
    public DrawerItem addPicture(Viewer viewer, long classId, Upload upload, String name, boolean offered)
            throws IOException {
        refuse(viewer, classId, upload);
        PictureMaker.Made made = maker.make(upload);
        String id = UUID.randomUUID().toString();
        String sha = MediaService.hash(made.bytes());
        String small = MediaService.hash(made.small());
        return transaction.execute(status -> {
            access.require(viewer, Act.MANAGE_CLASS, classId);
            room.take(viewer, classId, "picture", made.bytes().length + made.small().length);
            media.add(sha, made.type(), made.bytes());
            media.add(small, made.type(), made.small());
            media.addPicture(
                    id, classId, null, viewer.personId(), sha, small, made.width(), made.height(), clock.instant());
            return kept(viewer, id, name, offered);
        });
    }

    public DrawerItem addFile(Viewer viewer, long classId, Upload upload, boolean offered) throws IOException {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (store.count(classId) >= MOST) throw full();
        DrawerItem item =
                keep(viewer, classId, upload, Set.of(), () -> access.require(viewer, Act.MANAGE_CLASS, classId));
        return offered ? change(viewer, classId, item.id(), new WantedItem(item.name(), true)) : item;
    }

    /**
     * Keeps a file of a class that stands in no post; whoever calls has asked whether the viewer may.
     *
     * @param kinds that are taken; all, if it is empty
     * @param stillMay refuses if the viewer may not any more by the time at which it is kept
     */
    public DrawerItem keep(Viewer viewer, long classId, Upload upload, Set<String> kinds, Runnable stillMay)
            throws IOException {
        refuseLarge(viewer, classId, upload);
        FileKind.Known known = FileKind.of(upload);
        if (!kinds.isEmpty() && !kinds.contains(known.kind().name()))
            throw Problem.invalid("file", "file-not-taken", "Only sound and video are taken here.");
        String id = UUID.randomUUID().toString();
        String sha = upload.sha();
        int shown = known.type().equals("application/pdf") ? pages.count(sha, upload) : 0;
        transaction.executeWithoutResult(status -> {
            try (InputStream in = upload.open()) {
                media.add(sha, "application/octet-stream", upload.size(), in);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        return transaction.execute(status -> {
            stillMay.run();
            room.take(viewer, classId, "file", upload.size());
            files.add(
                    new AttachmentStore.Attachment(
                            id,
                            classId,
                            null,
                            viewer.personId(),
                            sha,
                            known.name(),
                            known.kind().name(),
                            known.type(),
                            upload.size(),
                            shown),
                    clock.instant());
            return kept(viewer, id, known.name(), false);
        });
    }

    private void refuse(Viewer viewer, long classId, Upload upload) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (store.count(classId) >= MOST) throw full();
        refuseLarge(viewer, classId, upload);
    }

    private static Problem full() {
        return Problem.invalid("file", "drawer-full", "The drawer holds at most " + MOST + " pictures and files.");
    }

    private void refuseLarge(Viewer viewer, long classId, Upload upload) {
        int most = BlogRules.FREE.mostMegabytes();
        if (upload.size() > most * 1024L * 1024L)
            throw Problem.invalid("file", "file-too-large", "A file may have " + most + " megabytes.");
        room.requireRoom(viewer, classId, "file", upload.size());
    }

    private DrawerItem kept(Viewer viewer, String id, String name, boolean offered) {
        DrawerStore.Item item = store.find(id).orElseThrow();
        store.set(item, named(name), offered);
        if (offered) events.add(item.classId(), "drawer-filled", null, viewer.personId());
        return view(store.find(id).orElseThrow());
    }

    private static String named(String name) {
        String line = OneLine.of(name).strip();
        return line.length() > LONGEST_NAME ? line.substring(0, LONGEST_NAME) : line;
    }

    /** Names something in the drawer, or takes it out and puts it back. What stands in a prompt stays there. */
    @Transactional
    public DrawerItem change(Viewer viewer, long classId, String id, WantedItem wanted) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        DrawerStore.Item item =
                store.find(id).filter(i -> i.classId() == classId).orElseThrow(Problem::missing);
        store.set(item, named(wanted.name()), wanted.offered());
        events.add(classId, "drawer-changed", null, viewer.personId());
        return view(store.find(id).orElseThrow());
    }

    /** Whether somebody may have what stands in no post. */
    boolean knows(Viewer viewer, String id) {
        return store.find(id)
                .map(i -> access.readsFile(
                        viewer,
                        new FileFacts(
                                i.classId(),
                                i.offered(),
                                store.isShown(i, clock.instant()),
                                elsewhere.isShown(viewer, id))))
                .orElse(false);
    }

    /**
     * A prompt that is copied into another class gets copies of what stands in it, as far as its teacher knows that.
     */
    @Override
    public String own(Viewer viewer, long classId, String html) {
        return ADDRESS.matcher(html).replaceAll(address -> {
            String id = address.group(2);
            Optional<DrawerStore.Item> item = store.find(id).filter(i -> i.classId() != classId && knows(viewer, id));
            return Matcher.quoteReplacement(
                    address.group(1) + item.map(i -> copy(viewer, classId, i)).orElse(id));
        });
    }

    @Override
    public String ofPost(Viewer author, long classId, String html) {
        return ADDRESS.matcher(html).replaceAll(address -> {
            boolean isFile = address.group(1).endsWith("files/");
            String id = address.group(2);
            String own = UUID.nameUUIDFromBytes(
                            (id + " as example in class " + classId).getBytes(StandardCharsets.UTF_8))
                    .toString();
            boolean isThere = store.find(own).isPresent()
                    || (isFile ? fileOfPost(author, classId, id, own) : pictureOfPost(author, classId, id, own));
            return Matcher.quoteReplacement(address.group(1) + (isThere ? own : id));
        });
    }

    private boolean pictureOfPost(Viewer author, long classId, String id, String own) {
        Optional<MediaStore.Picture> picture = media.picture(id).filter(p -> isOwnPost(author, p.postId()));
        if (picture.isEmpty()) return false;
        long bytes = media.size(picture.get().sha()) + media.size(picture.get().smallSha());
        room.take(author, classId, "given", bytes);
        putCopy(author, classId, true, id, own);
        return true;
    }

    private boolean fileOfPost(Viewer author, long classId, String id, String own) {
        Optional<AttachmentStore.Attachment> file = files.find(id).filter(f -> isOwnPost(author, f.postId()));
        if (file.isEmpty()) return false;
        room.take(author, classId, "given", file.get().size());
        putCopy(author, classId, false, id, own);
        return true;
    }

    private boolean isOwnPost(Viewer author, @Nullable Long postId) {
        return postId != null && access.post(postId).authorId() == author.personId();
    }

    @Override
    public void forget(long classId, String html) {
        store.remove(
                classId, ADDRESS.matcher(html).results().map(a -> a.group(2)).toList());
    }

    private String copy(Viewer viewer, long classId, DrawerStore.Item item) {
        String own = UUID.nameUUIDFromBytes((item.id() + " in class " + classId).getBytes(StandardCharsets.UTF_8))
                .toString();
        if (store.find(own).isPresent()) return own;
        room.take(viewer, classId, "instructions", item.size());
        putCopy(viewer, classId, item.kind().equals("PICTURE"), item.id(), own);
        store.set(store.find(own).orElseThrow(), item.name(), false);
        return own;
    }

    private void putCopy(Viewer owner, long classId, boolean isPicture, String id, String own) {
        if (isPicture) media.copyPicture(id, own, classId, null, owner.personId(), clock.instant());
        else files.add(files.find(id).orElseThrow().copy(own, classId, null, owner.personId()), clock.instant());
    }

    private static DrawerItem view(DrawerStore.Item i) {
        return new DrawerItem(
                i.id(),
                (i.kind().equals("PICTURE") ? "/media/" : "/media/files/") + i.id(),
                i.kind(),
                i.name(),
                i.type(),
                i.size(),
                i.pages(),
                i.offered());
    }
}
