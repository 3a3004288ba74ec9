package org.vastporch.demo;

import java.util.List;
import java.util.Random;

/** What the students of the demo school write. */
final class DemoTexts {

    record Text(String title, List<String> tags, String... paragraphs) {
        String html() {
            return "<p>" + String.join("</p><p>", paragraphs) + "</p>";
        }
    }

    /** The logs of the week before this one: one for each student but two, in the order of the roster. */
    static final List<Text> LAST_WEEK = List.of(
            new Text(
                    "The net that the wind took",
                    List.of("kale", "wind"),
                    "On Wednesday the net was in the hedge. I found two pegs and the rest are "
                            + "somewhere in the field. The kale had no damage, which surprised me, because "
                            + "pigeons sat on the fence the whole day.",
                    "I think they saw me measuring. Next week I will leave the net off one row on "
                            + "purpose and count leaves every morning, with nobody standing near it."),
            new Text(
                    "Radishes, twelve of them",
                    List.of("radish", "measuring"),
                    "Twelve radishes came up out of fifteen seeds. I weighed all of them: the "
                            + "heaviest was 31 grams, the lightest 9. The heavy ones stood at the edge of the "
                            + "row.",
                    "Maybe the edge gets more light, or maybe they had more room. To find out which, "
                            + "I have sown one row with wide gaps and one row close together, both at the edge."),
            new Text(
                    "A mole, or something like it",
                    List.of("soil"),
                    "There is a tunnel under row two. I put a stick into it and the stick went in up "
                            + "to my elbow. The lettuces above it lean to the left.",
                    "Mr Crake says a mole never eats leaves, so the leaning is because the roots hang"
                            + " in air. I pressed the soil down on half of them and left the others."),
            new Text(
                    "What the slugs left us",
                    List.of("slugs", "lettuce"),
                    "I counted before I watered: eleven leaves with holes, four without. The ones "
                            + "without were all on the side where we put the crushed shells.",
                    "So on Thursday we moved half of the shells to the other side, to find out "
                            + "whether it is the shells or the shade. If the holes change sides, it is the "
                            + "shells. If they stay where they are, it is the shade, and we carried a bucket "
                            + "for nothing."),
            new Text(
                    "The bean that went the wrong way",
                    List.of("beans"),
                    "It climbs round its pole to the left. All the others go right. I turned it by "
                            + "hand and by the next morning it had turned itself back.",
                    "I looked at the pole, the light and the string, and they are the same for all. I"
                            + " will keep its seeds and sow them apart, to see whether its children do the "
                            + "same."),
            new Text(
                    "How much water is a watering can",
                    List.of("water", "measuring"),
                    "We say one can for each bed, but the cans are not the same. I filled a bucket "
                            + "from each of them. The green one holds 6.2 litres, the grey one 9.",
                    "So bed 4 has been getting half as much again. I painted a line in the grey can. "
                            + "Bed 4 will be drier now, and I will write down what happens."),
            new Text(
                    "The wheelbarrow question",
                    List.of("soil", "work"),
                    "We needed forty loads to fill the new bed and there is one wheelbarrow. It took ages."),
            new Text(
                    "Carrots with legs",
                    List.of("carrots", "soil"),
                    "Four of my carrots have two legs and one has three. They grew where the path "
                            + "used to be, and when I dug there I found stones at the depth of my hand.",
                    "The straight ones grew two steps away where there are no stones. I am going to "
                            + "sieve one square and leave one square and sow both again."),
            new Text(
                    "First frost, first loss",
                    List.of("frost"),
                    "On Tuesday at 7:20 there was ice on the butt. The nasturtiums are brown mush. "
                            + "The kale next to them looks better than before.",
                    "I had covered one nasturtium with a pot because I forgot it there. It is alive. "
                            + "So it was the cold air and not the cold soil."),
            new Text(
                    "Our thermometer lies",
                    List.of("measuring"),
                    "I put three thermometers in one pot. They said 8, 9 and 11 degrees. If we "
                            + "compare beds with different thermometers we compare thermometers.",
                    "I have put stickers with the difference on them. The one from the science room "
                            + "is the one we trust."),
            new Text(
                    "Who eats the chard",
                    List.of("chard"),
                    "I sat behind the shed with a torch for twenty minutes. It was not slugs. It was "
                            + "a pigeon in the morning and a caterpillar at night, so two answers.",
                    "The holes of the pigeon are at the edge and torn. The holes of the caterpillar "
                            + "are round and in the middle. Now I can tell from the leaf alone."),
            new Text(
                    "Trading seeds with the allotments",
                    List.of("seeds"),
                    "Mr Crake let us swap two packets of our beans for his purple peas. He keeps his "
                            + "in tea tins with a paper of rice against the damp, which is exactly what we do "
                            + "not do.",
                    "Ours are in an envelope by the radiator. I have put ten of ours into a tin with "
                            + "rice and ten stay where they are, and in spring we will see which come up."),
            new Text(
                    "A letter to the person who waters on Fridays",
                    List.of("water"),
                    "Please do not water the garlic. It was dry on purpose. I know it looks thirsty "
                            + "but the leaves must go yellow or the bulbs rot.",
                    "I have put a red peg next to everything that must not be watered. If you think a"
                            + " peg is wrong, write it under this post and do not pull it out."),
            new Text(
                    "Onions stand up by themselves",
                    List.of("onions"),
                    "Last week they lay flat and I thought they were dying. This week they stand "
                            + "again. It rained on Saturday, 14 millimetres in our cup.",
                    "So a plant that lies down is not always dead. I measured how far each leaf rose,"
                            + " and the thin ones rose more than the thick ones."),
            new Text(
                    "Bed 4 has a frog",
                    List.of("animals"),
                    "It sits under the board by the water butt and it did not move when I took the "
                            + "photograph. Since Monday there are fewer slugs: I counted 19, then 12, then 5.",
                    "That could be the frog or it could be the cold. I do not know how to find out "
                            + "without taking the frog away, and I do not want to."),
            new Text(
                    "The tomatoes that would not turn",
                    List.of("tomatoes"),
                    "They are as big as they will be and still green. I hung half of them in the shed"
                            + " with an apple and left half on the plant.",
                    "The ones with the apple were red in five days. The ones without were still "
                            + "green, so it is something that the apple gives off."),
            new Text(
                    "Purple peas, first count",
                    List.of("peas"),
                    "Nine of ten came up. I marked the height of each with a thread on the pole. The "
                            + "tallest is 14 centimetres.",
                    "The one that did not come up I dug out: it had a small round hole in it. I drew the hole."),
            new Text(
                    "Rain, in cups",
                    List.of("water", "measuring"),
                    "I set out five cups, one in each corner and one in the middle. After Saturday "
                            + "they had 14, 13, 14, 6 and 12 millimetres in them.",
                    "The one with 6 stands next to the wall. So the bed by the wall is in a kind of "
                            + "umbrella, and that is why its lettuces are small."),
            new Text(
                    "Names for the beds",
                    List.of("work"),
                    "We asked everybody in bed 5 what it should be called. Three said Marsh, two said"
                            + " Compost Corner, one said nothing.",
                    "I think a bed should be called after what grows in it, but that changes. So now "
                            + "it has a board on a nail, and the name can be changed each term."),
            new Text(
                    "Mint is not a friend",
                    List.of("mint"),
                    "I pulled out one mint plant and it was eleven plants with one root. It went "
                            + "under the path and came up on the other side.",
                    "We have cut the bottom off a bucket and put the mint in it. In four weeks I will"
                            + " dig beside the bucket and look."),
            new Text(
                    "A map of where the sun is",
                    List.of("light", "measuring"),
                    "Every hour from nine to three I put a stick where the shadow of the shed ended. "
                            + "Then I joined the sticks with string.",
                    "Bed 6 gets two hours. Bed 1 gets six. If you want to know why your lettuce is "
                            + "small, look at the string before you blame the soil."),
            new Text(
                    "Our compost is 41 degrees and I can prove it",
                    List.of("compost", "measuring"),
                    "Thermometer at three depths, morning and evening, five days. The middle is "
                            + "always warmest, but on Sunday the top caught up because the sun was on the lid "
                            + "all afternoon. I thought more worms would mean more heat. The warm part has the "
                            + "fewest worms.",
                    "I think the heat comes from something smaller than worms. On Thursday I want to "
                            + "put a handful of old compost in a jar next to a handful that has been boiled, "
                            + "with the thermometer in both, and see which of the two gets warm by itself."));

    static final Text PARSNIPS = new Text(
            "Forty-one parsnips",
            List.of("harvest"),
            "We pulled forty-one parsnips out of two rows. The longest was thirty-four centimetres and broke; all "
                    + "together they weighed six kilograms and a bit. Nine had forked round stones.");

    static final Text BEETROOT = new Text(
            "Beetroot by the kilogram",
            List.of("harvest"),
            "Our bed gave eleven kilograms of beetroot, four of chard and one pumpkin that nobody planted. I weighed "
                    + "each crate twice, before and after the mud was off: the mud was almost a tenth.");

    static final Text BEETROOT_AGAIN = new Text(
            "Next year, half the chard",
            List.of("harvest", "plans"),
            "Nobody took the chard home. I would sow half of it and put the rest of the row under broad beans, since "
                    + "they came first and were gone first. And I would move the path, because we stood on the carrots.");

    static final Text PLAN_BY_THE_WALL = new Text(
            "Bed 1: the warm side and the cold side",
            List.of("plans"),
            "Tunde measured the soil at the wall and at the path for two weeks: the wall is two degrees warmer each "
                    + "morning. So the beans and the courgettes go to the wall, and the lettuce, which bolts when it is "
                    + "warm, goes to the path.",
            "The leeks stay where they are, because they are in already. Pia wants strawberries at the corner where one "
                    + "sits down. We voted, and there will be strawberries.");

    static final Text PLAN_WITH_A_PATH = new Text(
            "Bed 2 gets a path",
            List.of("plans", "work"),
            "Everybody stands on the carrots. So next spring there is a path of bricks through the middle, forty "
                    + "centimetres wide, and nobody has an excuse. It costs us two rows.",
            "Left of it: peas first, then leeks. Right of it: potatoes, since they do not mind company.");

    static final Text PLAN_FOR_BEES = new Text(
            "Bed 4, for those with six legs",
            List.of("plans", "animals"),
            "We counted visitors in September: borage had nineteen bees in ten minutes, beans four, cabbage none. A "
                    + "third of our bed will be borage and thyme, and we put the beans right beside it.",
            "If the beans set more pods than last year we shall know why, since everything else stays as it was.");

    static final Text WHEELBARROW_SECOND = new Text(
            "The wheelbarrow question",
            List.of("soil", "work"),
            "We needed forty loads to fill the new bed and there is one wheelbarrow. I timed ten "
                    + "loads: four minutes and twenty seconds each, "
                    + "so forty loads are nearly three hours. Bed 4 has offered theirs if we ring "
                    + "Ferris on 07700 900 412 before Friday. With two barrows we would finish in one "
                    + "lesson.");

    private static final List<String> PLANTS = List.of(
            "kale",
            "beetroot",
            "garlic",
            "broad beans",
            "chard",
            "leeks",
            "spinach",
            "pak choi",
            "celery",
            "turnips",
            "thyme",
            "parsley");
    private static final List<String> ASKED = List.of(
            "why the row by the path is shorter",
            "whether the covered half grows faster",
            "how deep the roots really go",
            "which of the two beds dries out first",
            "how many leaves there are, and how many were eaten",
            "whether it helps to sing to it (Natsuo's idea)",
            "what the first leaves look like before they look like anything");
    private static final List<String> DONE = List.of(
            "I measured every plant with the same ruler, from the soil to the tip",
            "I took away the mulch on one side only",
            "I drew it twice, on Monday and on Friday",
            "I asked bed 2 to do the same, so that we have twice as many",
            "I counted it three times because I got two numbers",
            "I left it alone, which was hard");
    private static final List<String> FOUND = List.of(
            "The difference is smaller than I thought: two centimetres.",
            "There was none at all. I had been sure.",
            "It was the other way round.",
            "Half of them did and half did not, so it is not so simple.",
            "It rained, so I have to begin again.",
            "Yes, and I have the numbers in the table at the shed.");

    private DemoTexts() {}

    /** A shorter log for an earlier week. */
    static Text log(int student, int week) {
        Random random = new Random(student * 31L + week * 7L);
        String plant = PLANTS.get((student * 5 + week * 3) % PLANTS.size());
        String asked = ASKED.get(random.nextInt(ASKED.size()));
        String[] titles = {
            "The " + plant + ", week " + week,
            "What I asked the " + plant,
            capital(plant) + " and one question",
            "A week with the " + plant,
            "Looking at " + plant + " again"
        };
        return new Text(
                titles[(student + week) % titles.length],
                List.of(plant.split(" ")[plant.split(" ").length - 1]),
                "This week I wanted to find out " + asked + ". " + DONE.get(random.nextInt(DONE.size()))
                        + ". There are " + (8 + random.nextInt(20)) + " plants in our part of the bed, and "
                        + (1 + random.nextInt(6)) + " of them are not doing well.",
                FOUND.get(random.nextInt(FOUND.size()))
                        + " Next week I will look at the same plants at the same time of day.");
    }

    static final List<String> COMMENTS = List.of(
            "Did you measure at the same hour each day? Ours was warmer after school than before.",
            "You should try it with the lid off for one night.",
            "We had the same in bed 2 and it was pigeons.",
            "I like the drawing of the string. Can we use it for our bed?",
            "How do you know it was not just the rain?",
            "Could you leave one row without, so that there is something to compare?",
            "That is the best title so far.",
            "What did the root look like when you dug it out?",
            "I counted mine too and I got nearly the same.",
            "Maybe do it again when it is dry.");

    private static String capital(String word) {
        return Character.toUpperCase(word.charAt(0)) + word.substring(1);
    }
}
