package org.vastporch.server.marking;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.marking.OwnViewApi.OwnMark;
import org.vastporch.server.marking.OwnViewApi.OwnWord;

@RestController
class SecondReadingApi {

    /**
     * @param rev the second reading as it was seen
     * @param takesSecond whether the second reading counts, else the first does
     */
    record Settling(PaperService.Seen seen, int rev, boolean takesSecond, String reason) {}

    private final SecondReadingService readings;

    SecondReadingApi(SecondReadingService readings) {
        this.readings = readings;
    }

    @GetMapping("/api/classes/{id}/second-readings")
    List<SecondReadingService.AskedOfMe> askedOf(Viewer viewer, @PathVariable long id) {
        return readings.askedOf(viewer, id);
    }

    @GetMapping("/api/prompts/{prompt}/second-readings")
    SecondReadingService.SecondReadingsView ofPrompt(Viewer viewer, @PathVariable long prompt) {
        return readings.ofPrompt(viewer, prompt);
    }

    @PostMapping("/api/prompts/{prompt}/second-readings")
    SecondReadingService.SecondsAsked ask(
            Viewer viewer, @PathVariable long prompt, @RequestBody SecondReadingService.WantedReadings body) {
        return readings.ask(viewer, prompt, body);
    }

    @GetMapping("/api/prompts/{prompt}/second-readings/{student}")
    SecondReadingService.SecondPage page(Viewer viewer, @PathVariable long prompt, @PathVariable long student) {
        return readings.page(viewer, prompt, student);
    }

    @PutMapping("/api/prompts/{prompt}/second-readings/{student}/criteria/{criterion}")
    OwnViewService.Own mark(
            Viewer viewer,
            @PathVariable long prompt,
            @PathVariable long student,
            @PathVariable String criterion,
            @RequestBody OwnMark body) {
        return readings.mark(viewer, prompt, student, body.rev(), criterion, body.points(), body.remark());
    }

    @PutMapping("/api/prompts/{prompt}/second-readings/{student}/word")
    OwnViewService.Own word(
            Viewer viewer, @PathVariable long prompt, @PathVariable long student, @RequestBody OwnWord body) {
        return readings.word(viewer, prompt, student, body.rev(), body.word());
    }

    @PutMapping("/api/prompts/{prompt}/second-readings/{student}/by/{reader}/settled")
    SecondReadingService.SecondReadingsView settle(
            Viewer viewer,
            @PathVariable long prompt,
            @PathVariable long student,
            @PathVariable long reader,
            @RequestBody Settling body) {
        return readings.settle(
                viewer, prompt, student, body.seen(), reader, body.rev(), body.takesSecond(), body.reason());
    }

    @DeleteMapping("/api/prompts/{prompt}/second-readings/{student}/by/{reader}")
    void takeBack(Viewer viewer, @PathVariable long prompt, @PathVariable long student, @PathVariable long reader) {
        readings.takeBack(viewer, prompt, student, reader);
    }
}
