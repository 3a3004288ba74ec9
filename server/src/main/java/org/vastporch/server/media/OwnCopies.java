package org.vastporch.server.media;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Knowledge;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.writing.FilesInText;

/**
 * What somebody cut or copied out of one post and put into another belongs to both: the bytes are kept once, and each
 * post has its own entry.
 */
@Component
class OwnCopies implements FilesInText {

    private static final Pattern ADDRESS = Pattern.compile("(/media/|/media/files/)([0-9a-f]{8}-[0-9a-f-]{27})");

    private final MediaStore pictures;
    private final AttachmentStore files;
    private final RoomService room;
    private final DrawerService drawer;
    private final AccessService access;
    private final Clock clock;

    OwnCopies(
            MediaStore pictures,
            AttachmentStore files,
            RoomService room,
            DrawerService drawer,
            AccessService access,
            Clock clock) {
        this.pictures = pictures;
        this.files = files;
        this.room = room;
        this.drawer = drawer;
        this.access = access;
        this.clock = clock;
    }

    @Override
    public String own(Viewer viewer, PostFacts post, String html) {
        return ADDRESS.matcher(html).replaceAll(address -> {
            boolean file = address.group(1).endsWith("files/");
            String id = address.group(2);
            Optional<String> own = file ? ownFile(viewer, post, id) : ownPicture(viewer, post, id);
            return Matcher.quoteReplacement(address.group(1) + own.orElse(id));
        });
    }

    private static String idIn(PostFacts post, String id) {
        return UUID.nameUUIDFromBytes((id + " in " + post.id()).getBytes(StandardCharsets.UTF_8))
                .toString();
    }

    private Optional<String> ownPicture(Viewer viewer, PostFacts post, String id) {
        Optional<MediaStore.Picture> there =
                pictures.picture(id).filter(picture -> isToBeCopied(viewer, post, picture.postId(), id));
        if (there.isEmpty()) return Optional.empty();
        String own = idIn(post, id);
        if (pictures.picture(own).isPresent()) return Optional.of(own);
        BlogRules rules = access.allows(viewer, Act.MANAGE_CLASS, post.blog().classId())
                ? BlogRules.FREE
                : post.blog().rules();
        long bytes =
                pictures.size(there.get().sha()) + pictures.size(there.get().smallSha());
        if (pictures.picturesOf(post.id()) >= rules.mostPictures() || !fits(viewer, post, bytes))
            return Optional.empty();
        pictures.copyPicture(id, own, post.blog().classId(), post.id(), viewer.personId(), clock.instant());
        return Optional.of(own);
    }

    private Optional<String> ownFile(Viewer viewer, PostFacts post, String id) {
        Optional<AttachmentStore.Attachment> there =
                files.find(id).filter(file -> isToBeCopied(viewer, post, file.postId(), id));
        if (there.isEmpty()) return Optional.empty();
        String own = idIn(post, id);
        if (files.find(own).isPresent()) return Optional.of(own);
        if (files.count(post.id()) >= AttachmentService.MOST
                || !fits(viewer, post, there.get().size())) return Optional.empty();
        files.add(there.get().copy(own, post.blog().classId(), post.id(), viewer.personId()), clock.instant());
        return Optional.of(own);
    }

    /** @param from null for what lies in the drawer of a class */
    private boolean isToBeCopied(Viewer viewer, PostFacts post, @Nullable Long from, String id) {
        if (from == null) return drawer.knows(viewer, id);
        return from != post.id() && access.knows(viewer, access.post(from)) == Knowledge.ALL;
    }

    /** No words are refused for the sake of a picture: without room it stays with the post from which it comes. */
    private boolean fits(Viewer viewer, PostFacts post, long bytes) {
        try {
            room.take(viewer, post.blog().classId(), "html", bytes);
            return true;
        } catch (Problem full) {
            return false;
        }
    }
}
