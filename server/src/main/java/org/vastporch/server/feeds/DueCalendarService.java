package org.vastporch.server.feeds;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.DueCalendar;
import org.vastporch.core.comments.CommentsAsked;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.prompts.Peers;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;

/** What is due in a class, as its reader's calendar: papers, comments and reviews, for a student by the own dates. */
@Service
class DueCalendarService {

    private final PromptService prompts;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final SchoolName school;
    private final SchoolAddress address;
    private final Clock clock;

    DueCalendarService(
            PromptService prompts,
            ClassService classes,
            PeopleService people,
            AccessService access,
            SchoolName school,
            SchoolAddress address,
            Clock clock) {
        this.prompts = prompts;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.school = school;
        this.address = address;
        this.clock = clock;
    }

    /** As iCalendar. Guests, of whom nothing is asked, get an empty one. */
    String text(Viewer reader, long classId) {
        access.require(reader, Act.READ_CLASS, classId);
        String name = classes.get(classId).name();
        boolean staff = access.allows(reader, Act.MARK, classId);
        long me = reader.personId();
        List<DueCalendar.Entry> entries = new ArrayList<>();
        if (staff || people.students(classId).contains(me)) {
            List<Prompt> all = prompts.ofClass(reader, classId).stream()
                    .sorted(Comparator.comparing(Prompt::due).thenComparing(Prompt::id))
                    .toList();
            Map<Long, PromptService.OwnAllowance> own = staff ? Map.of() : prompts.ownAllowances(all, me);
            for (Prompt prompt : all)
                entries.addAll(
                        ofPrompt(prompt, name, me, own.getOrDefault(prompt.id(), PromptService.OwnAllowance.NONE)));
        }
        return new DueCalendar(name, entries).text(clock.instant());
    }

    private List<DueCalendar.Entry> ofPrompt(Prompt prompt, String in, long reader, PromptService.OwnAllowance own) {
        Allowance allowance = own.allowance();
        int sequence = prompt.rev() + own.changes();
        boolean letOff = allowance.letOff();
        String link = address.base() + "/classes/" + prompt.classId() + "/prompt/" + prompt.id();
        List<DueCalendar.Entry> entries = new ArrayList<>();
        if (prompt.answers().posts() > 0)
            entries.add(new DueCalendar.Entry(
                    uid("due", prompt, reader),
                    sequence,
                    prompt.deadline(allowance).due(),
                    prompt.title(),
                    allowance.due() == null ? "To be handed in, " + in : "To be handed in, " + in + ": your own date",
                    link,
                    letOff));
        CommentsAsked asked = prompt.commentsAsked(allowance);
        if (asked.number() > 0)
            entries.add(new DueCalendar.Entry(
                    uid("comments-due", prompt, reader),
                    sequence,
                    asked.due() == null ? prompt.deadline(allowance).due() : asked.due(),
                    prompt.title() + ": comments",
                    (asked.number() == 1 ? "One comment" : asked.number() + " comments")
                            + " to be given to classmates, "
                            + in,
                    link,
                    letOff));
        Peers peers = prompt.reviews().peers();
        if (peers != null)
            entries.add(new DueCalendar.Entry(
                    uid("reviews-due", prompt, reader),
                    sequence,
                    peers.due(),
                    prompt.title() + ": reviews",
                    "Classmates' papers to be reviewed, " + in,
                    link,
                    letOff));
        return entries;
    }

    private String uid(String kind, Prompt prompt, long reader) {
        return school.urn(kind, prompt.id(), reader);
    }
}
