package org.vastporch.server.prompts;

import java.time.LocalDateTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.prompts.Peers;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.server.http.Optionally;

/**
 * Who is to read papers by the rubric besides whoever marks them; see {@link Reviews}.
 *
 * @param peers left out if classmates do not
 */
public record WantedReviews(
        Reviews.Self self, int selfShare, @Optionally WantedPeers peers) {

    /**
     * How classmates are to; see {@link Peers}. Times are the class's own time of day.
     *
     * @param at left out unless papers are given out at a time
     */
    public record WantedPeers(
            int each,
            Peers.When when,
            @Optionally LocalDateTime at,
            LocalDateTime due,
            boolean authorsKept,
            boolean reviewersKept,
            List<String> criteria,
            List<String> questions,
            int share,
            boolean answered) {

        private Peers rules(Term term, @Nullable Peers before) {
            return new Peers(
                    each,
                    when,
                    PromptService.moment(term, at, before == null ? null : before.at()),
                    PromptService.moment(term, due, before == null ? null : before.due()),
                    authorsKept,
                    reviewersKept,
                    criteria,
                    questions,
                    share,
                    answered);
        }
    }

    static WantedReviews of(Reviews reviews, Term term) {
        Peers p = reviews.peers();
        return new WantedReviews(
                reviews.self(),
                reviews.selfShare(),
                p == null
                        ? null
                        : new WantedPeers(
                                p.each(),
                                p.when(),
                                p.at() == null ? null : term.timeOf(p.at()),
                                term.timeOf(p.due()),
                                p.authorsKept(),
                                p.reviewersKept(),
                                p.criteria(),
                                p.questions(),
                                p.share(),
                                p.answered()));
    }

    /** @param before as they were; null for a prompt that is set */
    Reviews rules(Term term, @Nullable Reviews before) {
        return new Reviews(
                self, selfShare, peers == null ? null : peers.rules(term, before == null ? null : before.peers()));
    }

    /** The same so many weeks later. */
    WantedReviews moved(long weeks) {
        if (peers == null) return this;
        return new WantedReviews(
                self,
                selfShare,
                new WantedPeers(
                        peers.each(),
                        peers.when(),
                        peers.at() == null ? null : peers.at().plusWeeks(weeks),
                        peers.due().plusWeeks(weeks),
                        peers.authorsKept(),
                        peers.reviewersKept(),
                        peers.criteria(),
                        peers.questions(),
                        peers.share(),
                        peers.answered()));
    }
}
