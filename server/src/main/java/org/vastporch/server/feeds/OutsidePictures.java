package org.vastporch.server.feeds;

import org.springframework.stereotype.Service;
import org.vastporch.core.feeds.WebLink;
import org.vastporch.server.http.Problem;

/** Pictures that stand on pages outside, fetched as safely as feeds are. */
@Service
public class OutsidePictures {

    private static final int LONGEST = 2_000;

    private final SafeFetcher fetcher;

    OutsidePictures(SafeFetcher fetcher) {
        this.fetcher = fetcher;
    }

    /** What stands at an address; whether it is a picture is for others to see. */
    public byte[] fetch(String address) {
        if (address.length() > LONGEST || WebLink.of(address).isEmpty())
            throw refused("This is not the address of a picture on a page.");
        try (Budget budget = Budget.ofOne()) {
            SafeFetcher.Fetched answer = fetcher.get(address, null, null, budget);
            if (answer.status() != 200 || answer.body().length == 0)
                throw refused("The picture is not there, or its server does not give it to others.");
            return answer.body();
        } catch (SafeFetcher.FetchException e) {
            throw refused(e.getMessage());
        }
    }

    private static Problem refused(String sentence) {
        return Problem.invalid("address", "picture-not-fetched", sentence);
    }
}
