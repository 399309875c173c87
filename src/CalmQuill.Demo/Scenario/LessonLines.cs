namespace CalmQuill.Demo.Scenario;

/// <summary>What was written on the pages as the lesson went on, below what <see cref="ClockPages"/> begins them with. The facts are true; people and clocks are invented.</summary>
public static class LessonLines
{
    /// <summary>A word that was crossed out as soon as it was written stands between these.</summary>
    public const char Struck = '|';

    /// <summary>The first line of a notebook's page that is free, and what is written from there on; an empty text leaves a line free.</summary>
    public static readonly IReadOnlyDictionary<(string Notebook, string Page), (int First, string[] Lines)> Of = new Dictionary<
        (string, string),
        (int, string[])
    >
    {
        [("Anchor and deadbeat", "The anchor escapement")] = (
            25,
            [
                "The bob swings farther than the tooth needs:",
                "what is left over is the supplementary arc.",
                "",
                "Stop and push come from the same tooth, so a",
                "dirty train shows at once: the arc |grows| shrinks.",
                "",
                "Hall clock, measured on the scale: 4 degrees,",
                "of which the escapement uses 3.",
            ]
        ),
        [("Anchor and deadbeat", "Words for the parts")] = (
            10,
            [
                "impulse: the push that the pendulum gets",
                "lift: how far the anchor turns at each push",
                "run: the wheel's way after it has dropped",
                "span: teeth that the anchor reaches over,",
                "7 1/2 of 30 is |the rule| usual",
                "",
                "back cock: the bridge behind, carries the",
                "suspension and one end of the arbor",
                "bob: heavy, on a rod that must not bend",
                "rating nut: below the bob, moves it",
                "",
                "barrel: the drum that holds the mainspring",
                "click: keeps it from running back",
                "centre wheel: once an hour, drives the hands",
                "third wheel: in between",
                "",
                "pinion: few leaves, driven",
                "wheel: many teeth, drives",
                "A clock's train goes from wheel to pinion,",
                "so each step turns |slower| faster than the last.",
            ]
        ),
        [("Anchor and deadbeat", "Why it recoils")] = (
            18,
            [
                "Push on while it recoils: the train resists,",
                "so a stronger spring drives the clock fast.",
                "",
                "Good sides:",
                "easy to make, forgives a worn bearing,",
                "keeps going in a cold hall.",
                "",
                "Bad sides:",
                "rate follows the spring, wear at the faces,",
                "more arc than it needs.",
                "",
                "Tried with clock 16: weight |doubled| up by half,",
                "arc from 4.0 to 4.6 degrees, 9 s a day fast.",
            ]
        ),
        [("Anchor and deadbeat", "The deadbeat")] = (
            20,
            [
                "Setting out:",
                "1 the circle of the wheel's tips",
                "2 lines to the two teeth, span 7 1/2: 90 degrees",
                "3 tangents there, they meet in the arbor",
                "4 locking arcs about that point",
                "5 impulse faces: 2 degrees of lift each",
                "",
                "Drop 1 1/2 to 2 degrees, even on both sides.",
                "The faces want polish more than |oil| hardness.",
                "",
                "Seconds hand: stands, jumps, stands. No step",
                "back: that is how one tells it in a shop.",
            ]
        ),
        [("Anchor and deadbeat", "Counting beats")] = (
            7,
            [
                "each tooth passes both pallets, so always",
                "beats = 2 x teeth x turns",
                "",
                "by ear: count for a minute, twice, and take",
                "the mean. Maren 118, Tobias 121: say 120.",
                "120 x 60 = 7200 beats an hour.",
                "",
                "The pendulum for it: |0.44| 0.248 m.",
                "Measured to the middle of the bob: 0.25.",
                "It fits.",
                "",
                "No escape wheel left in the clock? Then the",
                "pendulum says how many teeth it had:",
                "beats an hour / turns an hour / 2.",
            ]
        ),
        [("Anchor and deadbeat", "In beat")] = (
            19,
            [
                "Why it matters: out of beat, one side barely",
                "unlocks. Any speck of dirt stops the clock.",
                "",
                "1 lead the bob slowly to one side: tick",
                "2 note how far past the middle",
                "3 the other side: tock",
                "4 both alike, then |stop| go on to the rate",
                "",
                "A clock that was in beat on the bench may be",
                "out of it on the wall: look again at home.",
            ]
        ),
        [("Anchor and deadbeat", "What to look for")] = (
            10,
            [
                "before anything is taken apart:",
                "does the wheel shake in its bearings",
                "is every tooth of one length: turn and watch",
                "does the anchor clear on both sides",
                "",
                "dressing a pallet: keep the |angle| face, take as",
                "little as will do, polish along the way of the",
                "tooth, never across",
                "",
                "after it: depth again, drop again, beat again",
                "",
                "clock 14: groove 0.1 mm deep, moved the anchor",
                "along its arbor by 1 mm onto fresh metal",
            ]
        ),
        [("Going train", "Module")] = (
            8,
            [
                "and the other way round:",
                "centres 21 mm, 72 and 12 teeth",
                "module = 2 x 21 / ( 72 + 12 ) = 0.5 mm",
                "",
                "outer diameter = module x ( teeth + 2 ) about,",
                "for clock teeth rather + 2.76 on wheels",
                "",
                "count twice, measure |once| twice",
                "a pinion with 6 leaves runs rough,",
                "8 is fair, 12 is smooth",
                "",
                "third wheel of clock 14:",
                "diameter over the tips 33.4 mm, 64 teeth",
                "33.4 / 66.76 = 0.50",
                "so it is module 0.5 and does belong there",
            ]
        ),
        [("Going train", "Eight days")] = (
            20,
            [
                "Half a day more is good manners: nobody",
                "winds at the minute.",
                "",
                "A month: one wheel more between barrel and",
                "centre, and a |longer| heavier weight.",
            ]
        ),
        [("Going train", "Missing wheel")] = (
            11,
            [
                "counted again with a mark of ink: 36 it is",
                "then 7200 / 72 = 100, and the train is wrong",
                "",
                "measured: second wheel 78, not 80",
                "78 x 75 / ( 8 x p ) = 100",
                "p = 7.3 no",
                "first pinion 10, not 8:",
                "78 x 75 / ( 10 x p ) = 100",
                "p = |5.8| 5.85 no",
                "",
                "so the beats: counted at Maren's, 6500 an hour",
                "6500 / 72 = 90.3",
                "80 x 75 / ( 8 x p ) = 90.3 gives p = 8.3",
                "with p = 8: 93.75 turns, 6750 beats an hour",
                "and the pendulum is 28 cm: 6780. It fits.",
            ]
        ),
        [("The pendulum", "A table of lengths")] = (
            11,
            [
                "L = g x ( 3600 / n )^2 / pi^2",
                "with n beats an hour and L in metres",
                "",
                "half the length is not half the time:",
                "a quarter of the length is",
                "",
                "L is to the centre of oscillation, near the",
                "middle of the bob, a little |above| below it when",
                "the rod is light",
                "",
                "checked on the hall clock:",
                "60 beats in 60.2 s",
                "so L = 0.994 x 1.0067 = 1.001 m",
                "ruler: 1.00. Well then.",
            ]
        ),
        [("The pendulum", "Circular error")] = (
            18,
            [
                "from a = 2 to a = 2.2 degrees: how much?",
                "6.6 x 1.21 = 8.0 s, so 1.4 s a day more",
                "",
                "A clock on a spring loses arc in the week,",
                "so it |loses| gains a little towards the end.",
                "With a weight the arc stays.",
            ]
        ),
        [("The pendulum", "Warm and cold")] = (
            8,
            [
                "kinds of it:",
                "mercury in a jar: rises as the rod sinks",
                "gridiron: brass pushes up, steel hangs down",
                "a wooden rod and a heavy bob: cheap, good",
                "an alloy of iron with 36 % nickel: grows by",
                "1 part in a million, or |less| two",
                "",
                "steel rod, hall 14 in winter and 24 in summer:",
                "10 x 0.5 = 5 s a day between them",
                "",
                "and the air: thinner, less lift, a bit faster",
                "0.01 s a day a millibar or so, not for us",
            ]
        ),
        [("The pendulum", "Rating nut")] = (
            9,
            [
                "Thursday   20 s fast    one turn down",
                "Friday        3 s slow     nothing",
                "Sunday      5 s slow     |half| an eighth up",
                "Tuesday    0 s             leave it",
                "",
                "never turn while it swings: the rod twists",
                "the suspension. Hold the bob.",
                "",
                "some have a tray for small weights: a gram on",
                "top is a finer hand than any nut",
            ]
        ),
        [("The pendulum", "Suspension spring")] = (
            6,
            [
                "how it goes wrong:",
                "bent when the clock was carried with the",
                "pendulum on. Take it off, always.",
                "",
                "two strips side by side keep the bob from",
                "turning, one |thick| wide strip does it too",
                "",
                "bends just below the chops: that is where the",
                "pendulum turns, not at the pin",
                "",
                "clock 16: 0.10 mm, 12 mm free, ordered two",
            ]
        ),
        [("Certificate preparation", "Questions on trains")] = (
            7,
            [
                "What turns once in twelve hours?",
                "the hour wheel, on the pipe",
                "",
                "Train 72, 60 on pinions 8 and 6, centre once",
                "an hour: the escape wheel turns",
                "72 x 60 / ( 8 x 6 ) = 90 times",
                "with 30 teeth: 90 x 60 = 5400 beats",
                "pendulum 442 mm",
                "",
                "Why not one large wheel instead of two?",
                "It would be as broad as the |case| table.",
                "",
                "Intermediate wheel: turns the way round,",
                "does not change the ratio.",
            ]
        ),
        [("Certificate preparation", "What is asked")] = (
            9,
            [
                "two hours, own loupe, their tools",
                "drawings in pencil, lettered",
                "",
                "from last year, as Tobias remembers:",
                "a carriage clock, out of beat, dry",
                "a third wheel with |two| one bent tooth",
                "a question on temperature",
                "",
                "practise: bush against the watch, 20 minutes",
                "Ines 31, Maren 24, Tobias 27",
            ]
        ),
        [("Certificate preparation", "Oil")] = (
            12,
            [
                "why a sink: oil stays where it has an edge to",
                "climb and a corner to sit in",
                "",
                "too much: it meets the plate and runs off,",
                "and then there is |little| none at the pivot",
                "",
                "which one: thin for fast and light pivots,",
                "thicker for the barrel",
                "write the date inside the case, in pencil",
            ]
        ),
        [("Class notebook", "First evening")] = (
            9,
            [
                "Ines: her hall clock, loses in winter",
                "Lene: a carriage clock, glass cracked",
                "",
                "rules of the house:",
                "every screw has a place in the tray",
                "no |knife| pliers on a polished face",
                "draw it before you move it",
                "what falls is looked for by all",
                "",
                "next week: letting down a mainspring, so",
                "bring a key that fits",
                "",
                "tea: Tobias. Cake: whoever broke something.",
            ]
        ),
        [("Class notebook", "Third evening")] = (
            6,
            [
                "a wheel that is free runs down slowly and",
                "turns back a little at the end",
                "if it stops at once: dirt or a bent pivot",
                "",
                "in order, from the escapement down:",
                "escape wheel   runs",
                "third                runs",
                "centre              |stiff| stops: cannon pinion tight",
                "barrel               not tried, spring is in",
                "",
                "end shake: 0.1 mm at least, felt with tweezers",
                "side shake: the wheel leans, and falls back",
                "",
                "homework: draw the third wheel, every tooth",
            ]
        ),
        [("Class notebook", "What we heard")] = (
            8,
            [
                "clock 17: even, very quick, like rain",
                "clock 18: even, then a breath, then even",
                "clock 19: good, but strikes seven at three",
                "",
                "how to listen: a screwdriver's handle at the",
                "ear, the tip on the plate near the pivot",
                "",
                "what it could be:",
                "knock once a turn: a bent tooth",
                "knock at every tooth: |shallow| deep gearing",
                "whisper: dry",
                "squeak: dry for years",
                "limp: out of beat",
                "breath: a wheel that is not round",
            ]
        ),
        [("Class notebook", "Fourth evening")] = (
            17,
            [
                "then Lene, then everyone but me",
                "",
                "with the ear: down to about 10 ms",
                "with the machine on the phone: 1 ms",
                "good ears are enough for a hall",
                "",
                "Maren's kitchen clock: in beat |for a minute| and",
                "stays so, also on its nail",
                "",
                "to do at home: level the shelf first",
            ]
        ),
        [("Oils and cleaning", "Before oiling")] = (
            7,
            [
                "pegwood: sharpen, turn, look, sharpen again",
                "ten sticks a clock are not too many",
                "",
                "pivots: pith wood, then a look through the",
                "loupe against the lamp",
                "a ring on a pivot is |dirt| wear: burnish it",
                "",
                "springs out of the barrel, wiped, straightened,",
                "never washed in a hurry",
            ]
        ),
        [("Oils and cleaning", "Where and how much")] = (
            6,
            [
                "order: barrel, centre, third, escape, pallets",
                "so that none is forgotten",
                "",
                "with a pin, ground flat: one drop, one dip",
                "look from the side: a ring, no |hill| drop",
                "",
                "hour wheel on its pipe: dry, or a trace",
                "click and its spring: a trace",
                "suspension: nothing at all",
            ]
        ),
        [("Oils and cleaning", "The washing line")] = (
            8,
            [
                "brass and steel apart: steel rusts in the wait",
                "small parts in a tea strainer",
                "nothing with |paint| varnish, nothing with glue",
                "",
                "dial: dry brush, and hands off",
                "wood: not in this room",
                "",
                "the brush goes with the grain, in rounds on",
                "wheels, chalk on it to keep it clean",
            ]
        ),
        [("Verge and cylinder", "The cylinder")] = (
            5,
            [
                "half a tube of hard steel, cut away where the",
                "tooth goes in",
                "",
                "no lever, no fork: balance and cylinder are",
                "one piece",
                "a pin keeps it from |turning| going too far",
                "",
                "oil on the shell, always: the one escapement",
                "that cannot go without",
            ]
        ),
        [("Verge and cylinder", "What came after")] = (
            5,
            [
                "what each of them asked for:",
                "verge: anybody with a file",
                "anchor: a |steady| hand and a compass",
                "deadbeat: a divided circle",
                "lever: jewels, and a lathe for them",
                "",
                "so the escapement tells of the workshop",
            ]
        ),
    };
}
