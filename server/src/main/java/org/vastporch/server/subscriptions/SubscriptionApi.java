package org.vastporch.server.subscriptions;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.core.subscriptions.MailByDefault;

@RestController
class SubscriptionApi {

    record HowOften(Cadence posts, Cadence comments) {}

    record Answers(Cadence answers) {}

    record Stop(String token) {}

    record ClassMail(MailByDefault rule) {}

    /** @param seen the rule that whoever changes it saw */
    record ClassMailChange(MailByDefault rule, MailByDefault seen) {}

    record OfferAnswer(Cadence posts) {}

    private final SubscriptionService subscriptions;
    private final NewsService news;
    private final ClassMailService classMail;

    SubscriptionApi(SubscriptionService subscriptions, NewsService news, ClassMailService classMail) {
        this.subscriptions = subscriptions;
        this.news = news;
        this.classMail = classMail;
    }

    @GetMapping("/api/news")
    NewsService.News news(Viewer viewer, @RequestParam(defaultValue = "14") int days) {
        return news.news(viewer, days);
    }

    @PostMapping("/api/news/seen")
    void seen(Viewer viewer) {
        news.seen(viewer);
    }

    @GetMapping("/api/subscriptions")
    SubscriptionService.Mine mine(Viewer viewer) {
        return subscriptions.mine(viewer);
    }

    @PostMapping("/api/subscriptions")
    SubscriptionService.SubscriptionView add(Viewer viewer, @RequestBody SubscriptionService.Wanted body) {
        return subscriptions.add(viewer, body);
    }

    @PutMapping("/api/subscriptions/answers")
    void setAnswers(Viewer viewer, @RequestBody Answers body) {
        subscriptions.setAnswers(viewer, body.answers());
    }

    @PutMapping("/api/subscriptions/{id}")
    void setCadence(Viewer viewer, @PathVariable long id, @RequestBody HowOften body) {
        subscriptions.setCadence(viewer, id, body.posts(), body.comments());
    }

    @DeleteMapping("/api/subscriptions/{id}")
    void end(Viewer viewer, @PathVariable long id) {
        subscriptions.end(viewer, id);
    }

    @PostMapping("/api/subscriptions/{id}/restore")
    void takeBack(Viewer viewer, @PathVariable long id) {
        subscriptions.takeBack(viewer, id);
    }

    /** The classes that ask whether one wants mail. */
    @GetMapping("/api/subscriptions/offers")
    List<ClassMailService.MailOffer> offers(Viewer viewer) {
        return classMail.offers(viewer);
    }

    @PostMapping("/api/subscriptions/offers/{classId}")
    void answer(Viewer viewer, @PathVariable long classId, @RequestBody OfferAnswer body) {
        classMail.answer(viewer, classId, body.posts());
    }

    @GetMapping("/api/classes/{id}/mail")
    ClassMail mail(Viewer viewer, @PathVariable long id) {
        return new ClassMail(classMail.rule(viewer, id));
    }

    @PutMapping("/api/classes/{id}/mail")
    void setMail(Viewer viewer, @PathVariable long id, @RequestBody ClassMailChange body) {
        classMail.setRule(viewer, id, body.rule(), body.seen());
    }

    /** Stops all mails; the token of a mail is enough. */
    @PostMapping("/api/stop")
    void stop(@RequestBody Stop body) {
        subscriptions.stop(body.token());
    }
}
