package org.vastporch.core.people;

import java.util.List;
import java.util.Set;
import java.util.random.RandomGenerator;
import java.util.stream.Collectors;

/**
 * A list of our own of words that a child can read aloud, hear and type: three to eight letters, none that hurts, no
 * name that somebody bears, no two that sound alike or differ by one letter alone.
 */
public final class FriendlyWords {

    static final List<String> ALL = List.of("""
        acorn acrobat airship album alder algebra almond aloe alphabet alpine anchor anise anthem antler apple apricot
        apron aquarium arbour arch armchair aroma arrow artist aspen aster atlas attic avenue avocado awning backdrop
        backpack badger bagel baker balcony balsam bamboo banjo banner barge barley barn basket beacon beanbag bedrock
        beeswax bellows bench biplane birdsong bison blanket blazer blossom bluebell bluebird bobbin bonfire bonus
        bookcase bookmark border botanist bracelet braid bramble branch brass breadbin brick bridge brightly broccoli
        bronze brush bubble bucket buckle buffet bugle bundle bunting bustle button buzzard cabin cabinet cable cactus
        cake calculus calico calm camera campfire campsite canal candle canoe canopy canvas canyon capers caption
        caramel caravan cardigan carnival carpet cart cascade cashew castle catkin catmint cedar celery cello chalk
        chamber chapter charcoal charm cheddar cheese chestnut chickpea chicory chimney chisel chive chorus chutney
        cinders cinema cinnamon circle circus citrus clamp clarinet clarity clay cliff clipper cloak cloud clover
        coast cobalt cobbler cobweb coconut colander collage collie column comet comfort compass compost concert
        confetti conifer conker convoy copper copse copybook coracle cordial corduroy corncob corner cosmic cosmos
        cottage cousin coverlet cowslip crackle crane crest cricket crimson crispy crocus crouton cruise crumble
        cubicle cucumber cupboard cupcake curlew curry curtain cushion custard cutlery cycle cypress dabble daffodil
        damask damson dapper daylight dazzle decimal deckhand delta denim desk detour dewdrop dewy diagram dial
        diamond diary dinghy dinner discus dolphin dome domino doodle doorbell doormat dormouse downhill dragon drawer
        dreamer drizzle drum duckling duet dulcimer dune eager eagle earmuff earnest earring earth easel echo eclipse
        edge eggshell elastic elegant elm ember emerald emporium enamel encore endive engraver envelope equator
        evening explorer fabric falafel falcon fanfare farmer farmyard fathom feather fennel fernery fescue festival
        fiddle field fiesta fig fillet filter finch firefly fireside flag flagpole flame flamenco flamingo flannel
        flapjack flask fleece flicker flint float floral florist flotilla flutter foam focus foghorn folklore footpath
        forecast forest forge fortune fossil foundry fountain foxglove foxtrot freight fresco fresh friendly frill
        fritter frolic frost fruitful furrow gadget galaxy gallery gallop garden gardener garland garlic gate gazebo
        gazelle gentle giggle gingham giraffe glacier glade glass gleam glen glimmer glitter globe goblet goggles
        golden goldfish gondola gorse gosling gourd grain granary granite granola grape gravel greet griddle grocer
        grove guava guitar gumboot gumdrop gymnast habit haiku hallway halo hamlet hammock hamper handbell handcart
        handmade harebell harp harpist harvest hatbox hatch hawthorn hayloft haystack headland heath heaven hedgehog
        heirloom helium helmet heron hexagon hickory highland highway hillside hilltop hinge hobby holiday homemade
        homespun honey honeybee honeydew hopeful horizon hornbeam hornpipe hotplate hotpot house huddle icicle icing
        idea iguana impala impulse ink inkblot inkwell inlet invent inventor iron island ivory jackdaw jacket jaunty
        jelly jersey jetty jigsaw jingle journal journey joyful jubilee juggler juice jukebox jumble jumper junction
        kangaroo kelp kestrel ketchup kettle keystone kiln kindness kindred kingdom kiosk kitchen kite kitten kiwi
        knapsack label lace ladder ladle ladybird lagoon lakeside landmark lantern laptop lapwing lark laser lather
        latitude lattice laundry lavender lawn leaf leaflet leapfrog ledger legend lemon lemonade lentil leopard level
        library lido lifeboat lifelong lilac limerick limpet linden litmus lizard locket lodge loft lollipop longboat
        loom lounge lovage loyal lucky luggage lullaby lunar lunch lyric macaroon magazine magenta magical magnet
        magnolia magpie mailbag mailbox mainland mallard mandolin mango maple marathon marble margin marigold marimba
        mariner market maroon marsh marvel marzipan matinee mauve meadow medley mellow melodic memory mild mimosa
        mineral minstrel mirror mocha model modest molehill moment moonbeam moonrise moorhen morning mortar mosaic
        motor muffler mulberry mulch mural museum mushroom muslin napkin nature nautilus nearby nectar needle nest
        nickel nightjar nimble nimbus nook notebook notepad novel nutmeg nutshell oak oasis oatcake oatmeal oboe ocean
        octagon octave octopus offshoot oilskin omelette onion onward onyx open opera orange orbit orchard orchid
        oregano origami ornament osprey ostrich otter outing oval overture oxbow oxlip oxygen paddle paddock page
        pageant paint paintbox paisley pamphlet pancake panel papaya paper paprika parade parasol parcel parka parsnip
        passport pastel pastry pasture path pathway patio pattern pavement peaceful peanut pelican pencil pendant
        penguin penknife peony perch perfume pergola piccolo picnic picture pigeon pillow pilot pinball pinecone
        pinnacle pinwheel pipette pitcher pixel pizza plaid planet plankton plantain plaster platypus playful playtime
        plaza pleasant plimsoll plywood podium poem poetry polka pollen polygon pompom pontoon popcorn poplar portal
        portrait postbag postcard potato pottery prairie present pretzel primrose printer prism promise prompt proverb
        puffin pullover pumice pumpkin purple pyramid quadrant quartet quaver quilt quince quintet quiz quoits rabbit
        radar radiant radio radish raft railway rainbow raindrop rainfall raisin ranger rapids rattan ravioli recipe
        recital redwood reef reflect regatta reindeer relay relish repair research restful rhubarb ribbon rigging
        ripple river riverbed roadside rockery rocky roller rooftop rosehip rosette rosewood rosy round ruby rucksack
        ruffle runway rustic saga salad salsa samba sandal sandbank sandpit sandwich sandy sapling sapphire satchel
        satin saturn saucer savanna scallop scarf scarlet scenic scholar school science scone scooter scout scroll
        seabird seahorse seashell seaside season seaweed seedling sequin serenade sesame shallot shamrock shape shelf
        shelter shepherd shield shimmer shingle shiny shoelace shore shovel showcase shrub shuttle sidecar signal
        signpost silent silk silver siskin sketch skiff skillet skipper skittle skylark skyline slate sledge slice
        smile smoothie snippet snooze snorkel snowball snowdrop soapbox sofa solstice sonata sorrel soup spacious
        spaniel spark sparkle sparrow speckle spectrum sphere spinach spindle spinner spiral splash splendid sponge
        spoon sporty spring sprout spruce spyglass squash squirrel stable stadium stamina stamp star starfish starling
        starlit station statue steam steamer stencil stitch stork stove street strudel suede sugar suitcase summit
        sunbeam sundown sunhat sunlight sunrise sunset sunshade supper swan sweater swift sycamore tablet tabletop
        tailwind talent tangram tapestry tapioca target tartan tassel teacup teapot teaspoon teatime tempo tennis
        terrace terrier textile thermos thicket thimble thistle thread thrift thunder tiger timber tinsel tiptoe
        toaster toffee toggle tomato tombola tonic topaz torch tortilla tortoise towpath toybox tractor trail trapeze
        treacle treasure treble treetop trellis triangle tricycle trifle trinket triplet trombone trophy tropic
        trumpet trust tuba tugboat tulip tundra tunnel turnip turtle tweed twig twilight twine twinkle twirl twist
        typist umbrella unicorn uniform unison upbeat upland upstream utensil valley varnish vase velvet venture
        veranda verse vertex vibrant victory village vinegar vineyard vintage violin visitor visor vivid vocal volume
        voyage waffle wagon walkway wallaby wallet walnut waltz wander wanderer warbler wardrobe warm warmth warren
        water waterway waxwing weaver weekend welcome wetland wheat wheel whisk whisker wicker windfall windmill
        window windsock wingspan wintry wisdom wisteria wombat woodwind workshop wreath wren yacht yearbook yonder
        yurt zebra zenith zesty zigzag zinc zinnia zither zodiac
        """.strip().split("\\s+"));

    private static final Set<String> KNOWN = Set.copyOf(ALL);

    private FriendlyWords() {}

    public static boolean has(String word) {
        return KNOWN.contains(word);
    }

    /**
     * Words that differ from each other, with blanks between them.
     *
     * @param random a secure source of chance
     */
    public static String make(int count, RandomGenerator random) {
        return random.ints(0, ALL.size())
                .distinct()
                .limit(count)
                .mapToObj(ALL::get)
                .collect(Collectors.joining(" "));
    }
}
