package org.vastporch.demo;

import java.util.List;

/** What the listeners of Sound Walks write: for each walk nine spots, heard once and then again. */
final class SoundTexts {

    /** @param spots where one stands, as titles */
    record Walk(String prompt, String instructions, List<String> spots, List<String> first, List<String> then) {}

    private static final List<String> CLOSE = List.of(
            "I held the recorder at my hip, so that nobody looked at it.",
            "For the first minute I heard only my own coat.",
            "I counted the gaps, not the sounds: eleven in five minutes, the longest nine seconds.",
            "What I took for wind was the recorder's strap.",
            "I stood still until I stopped wanting to move, which took three minutes.",
            "Twice somebody asked what I was waiting for.",
            "The loudest thing was the one I had not planned to record.");

    private static final List<String> DOUBT = List.of(
            "On the recording it is half as loud as I remember it.",
            "I had written down a bell. There is no bell; it is a spoon in the café behind.",
            "Listening with the left ear alone, the whole place moves three steps to the side.",
            "I hear the same five notes in it as before, and now I cannot stop hearing them.",
            "What seemed empty is a steady hum at about a hundred hertz; I checked it against a tone.",
            "I should have stood further from the wall: everything arrives twice.",
            "Played to my brother without a word, he said \u201ca kitchen\u201d. It is not a kitchen.");

    private static final List<String> NEXT = List.of(
            "Next time I begin recording before I arrive.",
            "I want to try the same spot an hour earlier and lay the two over each other.",
            "Would it sound the same to somebody who has never been there?",
            "I would cut the first minute, and say that I did.",
            "If I leave out the voices, what is left is the building.");

    static final List<Walk> WALKS = List.of(
            new Walk(
                    "The station at six",
                    "Five minutes of the station at six in the evening, from one spot. First the portrait with its sound; then "
                            + "a second post about what you heard when you listened again, a day later.",
                    List.of(
                            "Platform two, from the footbridge",
                            "Beside the ticket machine",
                            "Under the clock",
                            "The waiting room with the door open",
                            "Where the taxis stand",
                            "Between the two lifts",
                            "The last bench of platform four",
                            "At the bicycle racks",
                            "The stairs, halfway"),
                    List.of(
                            "A train takes forty seconds to stop, and most of that is not brakes but doors and the breath after "
                                    + "them.",
                            "People walk in step without knowing it when the crowd is thick enough; it thins, and they fall out "
                                    + "of it one by one.",
                            "The announcement comes from three places, and where I stood the last one was the clearest.",
                            "Nobody talks here. They talk as soon as they are through the gate."),
                    List.of(
                            "The wheels of suitcases are what tells the floors apart: tiles, then the yellow strip, then tar.",
                            "The announcement says Marrowfield each time with a smaller voice.",
                            "There is a pigeon in it from beginning to end, and I had not seen one.")),
            new Walk(
                    "Under water",
                    "Five minutes of water that is doing something: a pipe, a gutter, a bath, the river. Say what the water "
                            + "does, then what you found when you listened again.",
                    List.of(
                            "The gutter above our back door",
                            "The river, from under the bridge",
                            "A dishwasher, ear to the side",
                            "Rain on the bus shelter",
                            "The pool before anybody is in it",
                            "A kettle that is not full",
                            "The drain in front of the gym",
                            "Ice in a glass",
                            "The lock at half past four"),
                    List.of(
                            "Water makes no sound by itself. Everything on the recording is water meeting something.",
                            "It is in three parts: a rush, a slower rush, and drops that do not keep time.",
                            "I put the recorder in a freezer bag and let it down on a string. The world goes dull and close.",
                            "The pitch climbs as the vessel fills; I could name the moment it was half full."),
                    List.of(
                            "Below the rush there is a knocking that I take for a loose stone. It keeps to about one a second.",
                            "I can hear the room more than the water: how long it goes on after each drop.",
                            "Slowed to half, it is a crowd.")),
            new Walk(
                    "A room I know",
                    "Five minutes of a room that you know well, with you not in it, or as if you were not. What does the room "
                            + "do when nobody does anything?",
                    List.of(
                            "Our kitchen at night",
                            "The music room with the lids closed",
                            "My grandmother's hall",
                            "The library, last table",
                            "The cloakroom during lessons",
                            "A car with the engine off",
                            "The chapel on a Tuesday",
                            "My room, from the cupboard",
                            "The changing room after training"),
                    List.of(
                            "The fridge starts, runs for six minutes and stops with a shiver that goes through the plates.",
                            "A room is never off. It ticks when the sun goes from the window.",
                            "I left the recorder and went away, which felt like leaving a child. On it is the sound of me going.",
                            "Somebody passes the door twice and does not come in; the handle is touched once."),
                    List.of(
                            "The longest sound is the pipes, and I have lived with it for nine years without one word for it.",
                            "There is a second clock. I looked for it for an hour and found it in a drawer.",
                            "It sounds bigger than it is, since nothing soft is left in it.")),
            new Walk(
                    "Morning without people",
                    "Five minutes of a place before anybody is there. Go early enough, and with somebody who knows where you "
                            + "are. The second post is what you hear in it when you are fully awake.",
                    List.of(
                            "The market square at half past five",
                            "The school yard before the caretaker",
                            "The towpath",
                            "Behind the bakery",
                            "The bus garage",
                            "A field with one horse",
                            "The car park roof",
                            "Our street, in the middle",
                            "The allotments"),
                    List.of(
                            "Birds do not begin together. One does, and is alone for four minutes.",
                            "Far off there is always a lorry, and it never arrives.",
                            "The street lamps hum until they go off, and then the quiet has an edge."),
                    List.of(
                            "What I took for silence is the motorway, three miles away.",
                            "My own breath is on all of it.")));

    private SoundTexts() {}

    static String spot(Walk walk, int student) {
        return walk.spots().get(student % walk.spots().size());
    }

    static String portrait(Walk walk, int student, String sound) {
        return paragraph(of(walk.first(), student) + " "
                        + of(CLOSE, student * 3 + walk.spots().get(0).length()))
                + sound
                + paragraph(of(walk.first(), student + 1 + student / 9) + " "
                        + of(NEXT, student + walk.prompt().length()));
    }

    static String again(Walk walk, int student) {
        return paragraph(of(walk.then(), student + student / 9) + " "
                        + of(DOUBT, student * 2 + walk.prompt().length()))
                + paragraph(of(DOUBT, student * 2 + walk.prompt().length() + 3) + " " + of(NEXT, student * 3 + 1));
    }

    static final List<String> COMMENTS = List.of(
            "I heard the doors as well, but I would never have called it breath.",
            "Could you say where the recorder was? It sounds as if it lay on stone.",
            "I listened before I read, and I was in a kitchen. Then I read it again.",
            "The gap after the second minute is the best thing in it. Leave it in.",
            "Mine has the same hum. Shall we compare them on Thursday?",
            "You say it is empty, but somebody coughs at the end.",
            "What would it be without the traffic? I think it would be nothing, and that is why it works.");

    private static String paragraph(String text) {
        return "<p>" + text + "</p>";
    }

    private static String of(List<String> texts, int i) {
        return texts.get(Math.floorMod(i, texts.size()));
    }
}
