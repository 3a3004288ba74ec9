package org.vastporch.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.writing.ExampleUse;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.marking.PaperService;
import org.vastporch.server.marking.PromptChanges;
import org.vastporch.server.marking.RecordingService;
import org.vastporch.server.media.DrawerService;
import org.vastporch.server.media.Upload;
import org.vastporch.server.media.UploadFolder;
import org.vastporch.server.prompts.RubricService;
import org.vastporch.server.writing.ExamplePostService;
import org.vastporch.server.writing.PostService;

/**
 * What stands ready in Plot to Plate: pictures in the drawer, steps that Ms Quill keeps, a word that she spoke, a log
 * that was handed in again with her leave, and logs that stand as examples.
 */
@Component
class GardenShed {

    private final DrawerService drawer;
    private final RubricService rubrics;
    private final RecordingService recordings;
    private final PromptChanges changes;
    private final PaperService papers;
    private final PostService posts;
    private final UploadFolder uploads;
    private final ExamplePostService examples;
    private final AccessService access;

    GardenShed(
            DrawerService drawer,
            RubricService rubrics,
            RecordingService recordings,
            PromptChanges changes,
            PaperService papers,
            PostService posts,
            UploadFolder uploads,
            ExamplePostService examples,
            AccessService access) {
        this.drawer = drawer;
        this.rubrics = rubrics;
        this.recordings = recordings;
        this.changes = changes;
        this.papers = papers;
        this.posts = posts;
        this.uploads = uploads;
        this.examples = examples;
        this.access = access;
    }

    void fill(Viewer teacher, long classId, long log, long spokenTo, long mends) {
        rubrics.keep(teacher, new RubricService.WantedRubric("Weekly plot log", PlotToPlate.garden(), 0));
        try {
            putIn(teacher, classId, 31, "The six beds, seen from the bike sheds");
            putIn(teacher, classId, 44, "A leaf to draw on");
            try (Upload said = uploads.of(Sounds.walk(5), "said.wav")) {
                recordings.add(
                        teacher,
                        log,
                        spokenTo,
                        said,
                        "The second measuring is the one that counts. Keep doing that.",
                        null);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        handInAgain(teacher, log, mends);
    }

    /** One of the older logs stands as an example without its name; Wren is asked for another. */
    void showExamples(Viewer teacher, long open, long older) {
        boolean given = false;
        for (PaperService.StripView line : papers.strip(teacher, older).students()) {
            boolean isWren = line.name().equals("Wren Castellane");
            List<PaperService.PaperPost> posts =
                    papers.paper(teacher, older, line.studentId()).posts();
            if (posts.isEmpty() || !line.standing().isMarked() || given && !isWren) continue;
            ExamplePostService.AskedFor asked =
                    examples.ask(teacher, open, posts.get(0).postId(), ExampleUse.EXAMPLE);
            if (isWren) continue;
            examples.answer(access.viewer(line.studentId()), asked.id(), new ExamplePostService.Leave(true, false));
            given = true;
        }
    }

    private void putIn(Viewer teacher, long classId, int seed, String name) throws IOException {
        try (Upload upload = uploads.of(Pictures.garden(seed), "garden.png")) {
            drawer.addPicture(teacher, classId, upload, name, true);
        }
    }

    /** Released as it was; what came since waits to be gone through. */
    private void handInAgain(Viewer teacher, long log, long student) {
        PaperService.Paper paper = papers.paper(teacher, log, student);
        if (paper.posts().isEmpty()) return;
        changes.allow(teacher, log, student, new PromptChanges.WantedAllowance(null, false, true, null));
        Viewer author = access.viewer(student);
        PaperService.PaperPost post = paper.posts().get(0);
        PostService.Draft draft = posts.draft(author, post.postId());
        int rev = posts.save(
                        author,
                        post.postId(),
                        new PostService.Save(
                                draft.beside().rev(),
                                draft.title(),
                                draft.html() + "<p>I measured it again on Friday: two centimetres more.</p>",
                                draft.tags(),
                                "MY_CLASS",
                                draft.category(),
                                null))
                .rev();
        posts.handIn(author, post.postId(), new PostService.HandingIn(rev, null, "I measured it again, as you asked."));
    }
}
