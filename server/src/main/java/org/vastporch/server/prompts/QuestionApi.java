package org.vastporch.server.prompts;

import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class QuestionApi {

    record NewQuestion(String question) {}

    private final PromptQuestions questions;

    QuestionApi(PromptQuestions questions) {
        this.questions = questions;
    }

    @GetMapping("/api/prompts/{id}/questions")
    PromptQuestions.QuestionList ofPrompt(Viewer viewer, @PathVariable long id) {
        return questions.ofPrompt(viewer, id);
    }

    @PostMapping("/api/prompts/{id}/questions")
    PromptQuestions.QuestionView ask(Viewer viewer, @PathVariable long id, @RequestBody NewQuestion body) {
        return questions.ask(viewer, id, body.question());
    }

    @PutMapping("/api/questions/{id}/answer")
    PromptQuestions.QuestionView answer(
            Viewer viewer, @PathVariable long id, @RequestBody PromptQuestions.WantedAnswer body) {
        return questions.answer(viewer, id, body);
    }

    @DeleteMapping("/api/questions/{id}")
    void remove(Viewer viewer, @PathVariable long id) {
        questions.remove(viewer, id);
    }
}
