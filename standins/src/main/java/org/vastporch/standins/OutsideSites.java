package org.vastporch.standins;

import java.time.Instant;
import java.util.List;
import java.util.Map;

/** What stands on the outside blogs of the demo school. */
final class OutsideSites {

    private OutsideSites() {}

    static List<Site> all(Instant now) {
        return List.of(
                new Site("saltwort", "Saltwort & Sorrel", "A seed keeper on the tidal flats", true)
                        .with(
                                now,
                                0.3,
                                "Sowing by the moon, tested twice",
                                "<p>Two trays, the same seed, the same window. One sown at the full "
                                        + "moon, one a fortnight later.</p>",
                                "seeds")
                        .with(
                                now,
                                6,
                                "Frost and the late beans",
                                "<p>The last pods stay on the plant until they rattle.</p>",
                                "beans")
                        .with(
                                now,
                                13,
                                "A drawer for every bean",
                                "<p>How I label what I keep, and for how long it stays good.</p>",
                                "seeds"),
                new Site("slowtide", "The Slow Tide", "River weather and levels, twice a week", true)
                        .with(
                                now,
                                0.9,
                                "Frost is likely on Friday night",
                                "<p>Clear sky, no wind, the river at 4 degrees. Cover what is tender.</p>")
                        .with(
                                now,
                                4,
                                "Spring tide on Sunday morning",
                                "<p>High water 5.9 metres at 07:40. Keep off the lower path.</p>"),
                new Site("clinker", "Clinker Notes", "Planks, rivets and what went wrong with them", false)
                        .with(
                                now,
                                2,
                                "Eleven rivets and a mistake",
                                "<p>I drove eleven rivets before I saw that the plank had crept. Out they came.</p>",
                                "planks")
                        .with(
                                now,
                                9,
                                "Steam and patience",
                                "<p>An hour for each inch of thickness, they say. It is not quite true.</p>",
                                "planks"),
                new Site("oakum", "Oakum Days", "Caulking on Thursday evenings", true)
                        .with(
                                now,
                                3,
                                "Pitch smells like winter",
                                "<p>We warmed the pitch on a camping stove, outside, with a lid.</p>",
                                "caulking")
                        .with(
                                now,
                                10,
                                "How tight is tight",
                                "<p>A seam that is too full will push the planks apart when they swell.</p>",
                                "caulking"),
                new Site("netshed", "The Net Shed", "Knots, floats and the people who know them", true)
                        .with(
                                now,
                                1.6,
                                "A bowline for every day",
                                "<p>It does not slip and it does not jam, and that is the whole of it: a knot that"
                                        + " one can trust and undo. I tied forty on Tuesday, ten of them behind my"
                                        + " back, and the last three held.</p><p>The others I do not speak of.</p>",
                                "knots")
                        .with(
                                now,
                                8,
                                "What corks remember",
                                "<p>Every float in the shed has a cut for the winter in which it was made. The oldest"
                                        + " has nineteen, and still swims.</p>",
                                "floats"),
                new Site("rowlock", "Rowlock", "An allotment by the boat shed, and a skiff in it", true)
                        .with(
                                now,
                                1.1,
                                "A bed where the skiff stood",
                                "<p>When the skiff went back into the water it left a strip of bare "
                                        + "earth, four metres by one. I measured the light "
                                        + "there for a week: six hours at the river end, two at the "
                                        + "wall.</p><p>So the leeks go to the river end and the mint "
                                        + "may have the wall.</p>",
                                "Week 7 log",
                                "light")
                        .with(
                                now,
                                5.2,
                                "Rope for beans",
                                "<p>Old mooring rope makes a better bean frame than string: the beans"
                                        + " hold on to it, and it does not slip in rain. "
                                        + "I counted the turns of ten plants on rope and on string. On "
                                        + "rope they made four turns in the time in which they made "
                                        + "three on string.</p>",
                                "Week 6 log",
                                "beans")
                        .with(
                                now,
                                12.4,
                                "What the tide brings",
                                "<p>Seaweed from the slip, washed twice in rain water, on half of the"
                                        + " bed. The other half gets none, so that I can see whether it "
                                        + "helps.</p>",
                                "Week 5 log",
                                "compost"));
    }

    /** An entry that its author publishes while others watch. */
    record Later(String site, String title, String text, String tag) {
        void into(Map<String, Site> sites) {
            sites.get(site).add(title, "<p>" + Site.text(text) + "</p>", List.of(tag), Instant.now());
        }
    }

    static List<Later> later() {
        return List.of(
                new Later(
                        "slowtide",
                        "Fog until noon",
                        "The bridge cannot be seen from the slip. Ring before you cast off.",
                        "weather"),
                new Later(
                        "rowlock",
                        "A robin and the fork",
                        "It waits on the handle until I stop, takes what I turned up, and waits again. I turned the"
                                + " same square three times to see whether it counts.",
                        "birds"),
                new Later(
                        "clinker",
                        "The thirteenth rivet",
                        "I bought a dozen and one rolled under the bench. It is still there, and the plank holds.",
                        "planks"),
                new Later("saltwort", "First sea kale", "Three shoots under the pot, white as paper.", "seeds"),
                new Later("oakum", "Two threads, then three", "Three hold longer. They also take longer.", "caulking"),
                new Later(
                        "netshed",
                        "A visitor with a shuttle",
                        "She had not mended for thirty years and her hands had not been told.",
                        "nets"));
    }

    /** The page of a video, with its player in it and the code to put the player elsewhere. */
    static String videoPage(String id, String base) {
        String code = "<iframe src=\"" + base + "/embed/" + id + "\" width=\"560\" height=\"315\"></iframe>";
        return Site.page("Video " + id, "") + "<h1>Beans in three minutes (" + Site.text(id) + ")</h1>" + code
                + "<p>To show it elsewhere: <code>" + Site.text(code) + "</code></p>";
    }

    /** A player: a bean that grows, over and over. */
    static String player(String id) {
        return "<!doctype html><title>Player " + Site.text(id)
                + "</title><body style='margin:0;background:#1d2a2f'><svg viewBox='0 0 560 315' "
                + "role='img' aria-label='A bean grows' style='display:block;width:100%;height:100vh'>"
                + "<rect y='250' width='560' height='65' fill='#5a4230'/><rect x='276' y='250' "
                + "width='8' height='0' fill='#7fae5d'><animate attributeName='height' values='0;180' "
                + "dur='6s' repeatCount='indefinite'/>"
                + "<animate attributeName='y' values='250;70' dur='6s' repeatCount='indefinite'/></rect></svg>";
    }
}
