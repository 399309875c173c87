using System.Text;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Writing;
using CalmQuill.Demo.Hand;
using static CalmQuill.Demo.Hand.Drawings;

namespace CalmQuill.Demo.Scenario;

/// <summary>What stands on the pages. The formulas and facts are true; the people and the clocks on the bench are invented.</summary>
public static class ClockPages
{
    /// <summary>A notebook: where it lies, how it looks, and its pages with who writes each.</summary>
    public sealed record Notebook(string Folder, string Name, string Colour, string Cover, IReadOnlyList<Page> Pages);

    /// <param name="Title">The page's title and heading.</param>
    /// <param name="Who">Index of the writer among the scenario's people.</param>
    /// <param name="Squared">Whether the paper is squared instead of ruled.</param>
    /// <param name="Lines">
    /// Texts by ruled line. The first letter says what becomes of one: “?” is written in madder and marked Ask, “!” marked Key point, “~” marked To do, “=” marked with the
    /// group's own kind, “#” taken into the contents, and “&gt;notebook/page|text” links to that page.
    /// </param>
    /// <param name="Draw">What is drawn.</param>
    public sealed record Page(string Title, int Who, bool Squared, (double Line, string Text)[] Lines, Action<PageWriter>? Draw = null)
    {
        /// <summary>Its paper, where it is neither ruled nor squared.</summary>
        public string Paper { get; init; } = "";
    }

    private const int Ines = 0,
        Tobias = 1,
        Maren = 2;

    public static readonly Notebook[] Group =
    [
        new(
            "Escapements",
            "Anchor and deadbeat",
            "spruce",
            "rings",
            [
                P(
                    "The anchor escapement",
                    Ines,
                    [
                        (1, "One tooth passes at each swing. The pallets"),
                        (2, "stop the wheel, then give the bob a push."),
                        (18, "?recoil at each beat - why"),
                        (20, "T = 2 pi sqrt( L / g )"),
                        (21, "one second beat: L = 0.994 m"),
                        (23, ">The pendulum/Length and time|see The pendulum, page 1"),
                    ],
                    DrawAnchor
                ),
                P(
                    "Words for the parts",
                    Ines,
                    [
                        (1, "!escape wheel: 30 teeth for a seconds hand"),
                        (2, "pallets: entry and exit"),
                        (3, "arbor: the axle of a wheel or the anchor"),
                        (4, "crutch: passes the push to the pendulum"),
                        (5, "drop: how far the wheel runs free"),
                        (6, "lock: how deep the tooth rests"),
                        (8, "?ask for a worn pallet to look at"),
                    ]
                ),
                P(
                    "Why it recoils",
                    Tobias,
                    [
                        (1, "The pallet face is not concentric with the"),
                        (2, "anchor arbor. After the drop the pendulum"),
                        (3, "swings on and the face turns the wheel back."),
                        (5, "Seen on the seconds hand: a small step back."),
                        (16, "Wears a groove into the pallet faces."),
                    ],
                    DrawRecoil
                ),
                P(
                    "The deadbeat",
                    Ines,
                    [
                        (1, "Locking faces are arcs about the anchor arbor,"),
                        (2, "!so the wheel stands still while it is locked."),
                        (3, "Impulse only on the sloping end faces."),
                        (17, "needs less arc, and care in setting out"),
                        (18, "?how deep should the lock be"),
                    ],
                    DrawDeadbeat
                ),
                P(
                    "Depth and drop",
                    Maren,
                    [
                        (1, "#too deep: tooth cannot clear, the clock stops"),
                        (2, "#too shallow: no lock, the wheel runs through"),
                        (4, "even drop on both sides first,"),
                        (5, "then the depth, then the crutch"),
                    ],
                    w =>
                    {
                        w.DrawAll(Arrow(new(60, 110), new(60, 140)));
                        w.DrawAll(Arrow(new(120, 140), new(120, 110)), PageWriter.Madder);
                        w.Line(11, "lower", PageWriter.Sky, 64);
                        w.Line(11, "raise", PageWriter.Madder, 124);
                    }
                ),
                P(
                    "Counting beats",
                    Tobias,
                    [
                        (1, "30 teeth, two beats a tooth: 60 beats a turn"),
                        (2, "one turn a minute: 3600 beats an hour"),
                        (4, "40 teeth and 5400 beats an hour:"),
                        (5, "5400 / 80 = 67.5 turns an hour"),
                    ]
                ),
                P(
                    "In beat",
                    Maren,
                    [
                        (1, "Tick and tock must be equally long."),
                        (2, "Bend the crutch, or move the clock's foot."),
                        (4, "beat error = half the difference of the two"),
                        (15, "under 1 ms is good work"),
                        (17, ">Class notebook/Fourth evening|as heard on the fourth evening"),
                    ],
                    w =>
                    {
                        DrawBeat(w);
                        TypeBeat(w);
                    }
                ),
                P(
                    "What to look for",
                    Ines,
                    [
                        (1, "worn pallets: dress, or turn to fresh metal"),
                        (2, "bent teeth: wheel runs, then trips"),
                        (3, "loose crutch: beats, but weakly"),
                        (4, "bushes: anchor arbor must not shake"),
                        (8, ">Certificate preparation/Bushing, step by step|how to bush: see there"),
                        (6, "?bring the small lamp"),
                    ]
                ),
            ]
        ),
        new(
            "Gear trains",
            "Going train",
            "madder",
            "dots",
            [
                P(
                    "From barrel to escape wheel",
                    Ines,
                    [
                        (14, "64 x 60 / ( 8 x 8 ) = 60"),
                        (15, "so the escape wheel turns"),
                        (16, "60 times an hour"),
                        (18, ">Certificate preparation/Questions on trains|the questions on it"),
                    ],
                    DrawTrain,
                    true
                ),
                P("Set out by pitch circles", Tobias, [], InkPages.SetOut, true),
                P(
                    "Motion work",
                    Maren,
                    [(1, "minute hand to hour hand: 12 to 1"), (3, "36 / 12 = 3   and   40 / 10 = 4"), (4, "3 x 4 = 12")],
                    w =>
                    {
                        Pair(w, new(70, 110), 22, 36, 40);
                        w.Line(15, "minute wheel and hour wheel", PageWriter.Sky);
                    },
                    true
                ),
                P(
                    "Module",
                    Tobias,
                    [
                        (1, "module = pitch diameter / number of teeth"),
                        (2, "wheel 64, module 0.5 mm: 32 mm"),
                        (3, "pinion 8, module 0.5 mm: 4 mm"),
                        (4, "centres: ( 32 + 4 ) / 2 = 18 mm"),
                        (6, "=measure the third wheel again"),
                    ]
                ),
                P(
                    "Eight days",
                    Ines,
                    [
                        (1, "great wheel 96 on a centre pinion of 8: 12 hours"),
                        (2, "16 turns of the barrel: 192 hours"),
                        (3, "192 / 24 = 8 days"),
                    ],
                    w => w.Draw(Spiral(new(105, 120), 30, 5), PageWriter.Sky)
                ),
                P(
                    "Missing wheel",
                    Maren,
                    [
                        (1, "count the beats: 7200 an hour wanted"),
                        (2, "escape wheel 36: 7200 / 72 = 100 turns an hour"),
                        (3, "known: 80 and 75, pinions 8 and ?"),
                        (9, ">Going train/From barrel to escape wheel|compare with page 1"),
                        (4, "80 x 75 / ( 8 x p ) = 100"),
                        (5, "p = 7.5 cannot be, so look again"),
                        (7, "?is it really 36 teeth"),
                    ]
                ),
            ]
        ),
        new(
            "Escapements",
            "The pendulum",
            "sky",
            "waves",
            [
                P(
                    "Length and time",
                    Ines,
                    [
                        (16, "T = 2 pi sqrt( L / g )"),
                        (17, "small swings only"),
                        (19, "!longer rod, slower beat"),
                        (22, ">Anchor and deadbeat/The anchor escapement|what it drives"),
                        (20, "1 mm on a seconds pendulum: 43 s a day"),
                    ],
                    w => w.DrawAll(Pendulum(new(100, 40), 75, 14))
                ),
                P(
                    "A table of lengths",
                    Tobias,
                    [
                        (1, "beats an hour      length"),
                        (2, "3600                 994 mm"),
                        (3, "4800                 559 mm"),
                        (4, "5400                 442 mm"),
                        (5, "7200                 248 mm"),
                        (6, "9000                 159 mm"),
                        (8, "all with g = 9.81"),
                        (9, ">The pendulum/Rating nut|and how to reach them"),
                    ]
                ),
                P(
                    "Circular error",
                    Maren,
                    [
                        (1, "Wide swings take longer than small ones."),
                        (2, "T is longer by about a*a / 16, a in radians"),
                        (3, "a = 2 degrees: 6.6 s a day slow"),
                        (16, "so keep the arc small and steady"),
                    ],
                    w => w.DrawAll(Graph(new(40, 125), 110, 50, x => x * x * 0.9))
                ),
                P(
                    "Warm and cold",
                    Ines,
                    [
                        (1, "steel grows 11.5 parts in a million a kelvin"),
                        (2, "one kelvin warmer: 0.5 s a day slow"),
                        (3, "wood, dry and varnished: about a third of that"),
                        (4, "brass: more, 19 parts in a million"),
                        (6, "~compensation: next week"),
                    ]
                ),
                P(
                    "Rating nut",
                    Tobias,
                    [
                        (1, "thread pitch 0.5 mm, one turn: 0.5 mm"),
                        (2, "seconds pendulum: about 22 s a day a turn"),
                        (3, "up is faster, down is slower"),
                        (5, "note the turns, wait a day, then again"),
                        (7, ">The pendulum/A table of lengths|the table"),
                    ]
                ),
                P(
                    "Suspension spring",
                    Maren,
                    [
                        (1, "thin, straight, without a kink"),
                        (2, "a kink makes the bob wobble"),
                        (3, "replace with the same thickness"),
                        (4, "a thicker one is a faster clock"),
                    ]
                ),
                P(
                    "Measured, not believed",
                    Ines,
                    [
                        (1, "A bob on a thread, seven lengths, each timed"),
                        (2, "over fifty swings and divided."),
                        (15, "The curve through it is a root: four times the"),
                        (16, "length, twice the time. And 2 pi / sqrt( g ) = 2.006"),
                    ],
                    DrawMeasured
                ),
                P(
                    "Worked out, then measured",
                    Maren,
                    [
                        (1, "The period tells the length: get L alone,"),
                        (2, "doing the same to both sides."),
                        (15, "A beat a second, so two for there and back:"),
                        (22.6, "A weight falls 0.9 m if the line breaks. How soon?"),
                        (33.6, "And where does a train of 64 and 60 come out?"),
                    ],
                    WorkedFormulas.Draw
                ),
            ]
        ),
        new(
            "Repairs at home",
            "Bench log, autumn",
            "plum",
            "lattice",
            [
                Log(
                    "Bracket clock no. 14",
                    Tobias,
                    [
                        ("click spring replaced", true),
                        ("pivot 0.62 to 0.60 mm", true),
                        ("bushed, reamed, tried", true),
                        ("beat error under 1 ms", true),
                        ("second wheel end shake", false),
                        ("0.08 mm after shim", false),
                    ],
                    "?ask about the crown wheel"
                ),
                Log(
                    "Kitchen clock no. 15",
                    Maren,
                    [
                        ("let the mainspring down", true),
                        ("taken apart, drawn", true),
                        ("washed and dried", true),
                        ("new mainspring measured", false),
                    ],
                    "18 wide, 0.40 thick"
                ),
                Log(
                    "Wall clock no. 16",
                    Ines,
                    [("stops after an hour", true), ("hands touch: bent back", true), ("runs a day", true), ("rated: 20 s fast", false)],
                    "one turn of the nut down"
                ),
                Log(
                    "Carriage clock no. 17",
                    Tobias,
                    [
                        ("glass out first", true),
                        ("platform off, kept apart", true),
                        ("oil is old and green", true),
                        ("clean the train", false),
                    ],
                    "?who has the small tweezers"
                ),
                Log(
                    "Cuckoo no. 18",
                    Maren,
                    [("bellows torn", true), ("chain jumps: stretched", true), ("new chain, count the links", false)],
                    "47 links in 30 cm"
                ),
                Log(
                    "Mantel clock no. 19",
                    Ines,
                    [("strike runs on", true), ("count wheel sits one slot off", true), ("strikes right for a day", true)],
                    "78 blows in twelve hours"
                ),
                Log(
                    "Alarm clock no. 20",
                    Tobias,
                    [
                        ("balance swings poorly", true),
                        ("hairspring magnetised", true),
                        ("demagnetised, better", true),
                        ("timing tomorrow", false),
                    ],
                    "18000 beats an hour"
                ),
            ]
        ),
        new(
            "Certificate, level 2",
            "Certificate preparation",
            "gold",
            "rays",
            [
                P(
                    "What is asked",
                    Ines,
                    [
                        (1, "1 name the parts of the movement"),
                        (2, ">Anchor and deadbeat/Depth and drop|2 set out the depth of an escapement"),
                        (3, ">Certificate preparation/Bushing, step by step|3 bush a worn hole"),
                        (4, "4 put a clock in beat, by ear"),
                        (5, ">Going train/Missing wheel|5 work out a missing wheel"),
                        (7, "?is the file allowed"),
                    ]
                ),
                P(
                    "Questions on trains",
                    Ines,
                    [
                        (1, "Which way does the centre wheel turn?"),
                        (2, "Why has a pinion few leaves?"),
                        (3, "What turns once an hour?"),
                        (4, "How many blows in a day, with one at"),
                        (5, "each half hour? 2 x ( 78 + 12 ) = 180"),
                    ]
                ),
                P(
                    "Bushing, step by step",
                    Maren,
                    [
                        (1, "mark the side that is worn"),
                        (2, "draw the hole back with a round file"),
                        (3, "ream from the inside, upright"),
                        (4, "press the bush, cut the oil sink"),
                        (5, "try the pivot: it must lean evenly"),
                    ],
                    w =>
                    {
                        w.Draw(Circle(new(80, 115), 12), PageWriter.Sky);
                        w.Draw(Circle(new(83, 118), 7), PageWriter.Madder);
                        w.DrawAll(Arrow(new(125, 100), new(95, 112)));
                        w.Line(11, "the worn side", PageWriter.Sky, 127);
                    }
                ),
                P("Ask yourself", Ines, [], InkPages.AskYourself),
                P(
                    "Oil",
                    Ines,
                    [
                        (1, "pivots: a little, in the sink"),
                        (2, "pallet faces: a trace"),
                        (3, "never on wheel teeth and leaves"),
                        (4, "mainspring: grease, thin"),
                        (6, "every three to five years"),
                        (8, "!Less is more: oil that spreads is lost."),
                        (10, ">Oils and cleaning/Where and how much|more on it"),
                    ]
                ),
                P(
                    "Drawing from memory",
                    Tobias,
                    [(18, "motion work, going train, escapement")],
                    w =>
                    {
                        Pair(w, new(62, 80), 24, 40, 24);
                        w.Draw(EscapeWheel(new(150, 90), 20, 30), PageWriter.Madder);
                        w.DrawAll(Anchor(new(150, 90), 20), PageWriter.Ink);
                    },
                    true
                ),
                P("When a clock stops", Tobias, [(30, "Ask one thing at a time, and write down the answer.")], DrawFaults),
            ]
        ),
        new(
            "Wednesday class",
            "Class notebook",
            "lichen",
            "rings",
            [
                P(
                    "First evening",
                    Ines,
                    [
                        (1, "Everyone brings one clock that does not run."),
                        (2, "Nobody takes it apart in the first week:"),
                        (3, "look, listen, draw, write down."),
                        (5, "Maren: kitchen clock"),
                        (6, "Tobias: alarm clock"),
                        (7, "~Oskar: a box of parts"),
                    ]
                ),
                P(
                    "Second evening",
                    Tobias,
                    [
                        (1, "letting down a mainspring"),
                        (2, "hold the key, lift the click, let it slip"),
                        (3, "through the hand, tooth by tooth"),
                        (5, "?gloves for next time"),
                    ],
                    w =>
                    {
                        w.Draw(Spiral(new(70, 125), 24, 4));
                        w.Draw(Circle(new(70, 125), 26), PageWriter.Ink);
                    }
                ),
                P(
                    "Third evening",
                    Maren,
                    [
                        (1, "wheels by hand: spin each and listen"),
                        (2, "a dry pivot whispers, a bent one knocks"),
                        (4, ">Class notebook/What we heard|table of what we heard, page after this"),
                    ]
                ),
                P(
                    "What we heard",
                    Maren,
                    [
                        (1, "clock 14: knocks at every turn, third wheel"),
                        (2, "clock 15: whispers, all"),
                        (3, "clock 16: silent, but stops"),
                        (4, "clock 20: ticks as if limping"),
                        (6, ">Anchor and deadbeat/In beat|limping = out of beat"),
                    ]
                ),
                P("Every pen on one page", Maren, [], InkPages.EveryPen),
                P(
                    "Fourth evening",
                    Ines,
                    [
                        (1, "setting in beat by ear"),
                        (2, "close the eyes, tap the foot, then move the"),
                        (3, "crutch a hair at a time"),
                        (15, "Oskar heard it first"),
                    ],
                    DrawBeat
                ),
            ]
        ),
        new(
            "Finishing",
            "Oils and cleaning",
            "gold",
            "rays",
            [
                P(
                    "Before oiling",
                    Maren,
                    [
                        (1, "clean first: old oil is a grinding paste"),
                        (2, "pegwood into every hole until it comes out"),
                        (3, "white"),
                        (5, "never oil what should run dry"),
                    ]
                ),
                P(
                    "Where and how much",
                    Ines,
                    [
                        (1, "pivots: fill half the sink"),
                        (2, "pallet faces: a trace"),
                        (3, "crutch slot: a touch of grease"),
                        (4, "wheel teeth and pinions: none"),
                    ]
                ),
                P(
                    "The washing line",
                    Tobias,
                    [
                        (1, "1 warm soapy water"),
                        (2, "2 clear water, twice"),
                        (3, "3 spirit"),
                        (4, "4 sawdust, then the brush"),
                        (6, "?no spirit near shellac"),
                    ]
                ),
            ]
        ),
        new(
            "Escapements",
            "Verge and cylinder",
            "sky",
            "waves",
            [
                P(
                    "The verge",
                    Tobias,
                    [
                        (1, "#crown wheel, odd number of teeth"),
                        (2, "two pallets, about 100 degrees apart"),
                        (3, "always some recoil, wide arcs"),
                    ],
                    w => w.Draw(EscapeWheel(new(105, 120), 30, 15))
                ),
                P(
                    "The cylinder",
                    Maren,
                    [
                        (1, "teeth stand on posts and rest on the shell"),
                        (2, "inside, then outside: friction at rest"),
                        (3, "wears a groove where the tooth rests"),
                    ]
                ),
                P(
                    "What came after",
                    Ines,
                    [
                        (1, "anchor: smaller arcs, longer pendulums"),
                        (2, "deadbeat: no recoil"),
                        (3, "lever: free of the train but for the push"),
                    ]
                ),
            ]
        ),
        new(
            "Repairs at home",
            "Repair sheets",
            "spruce",
            "gears",
            [
                new Page(
                    "Mantel clock no. 21",
                    Tobias,
                    false,
                    [],
                    w =>
                    {
                        Fill(
                            w,
                            ("21", 152, 22),
                            ("Mantel, black slate", 34, 31.3),
                            ("Maren's aunt", 133, 31.3),
                            ("strikes, but never the hour", 34, 40.6)
                        );
                    }
                )
                {
                    Paper = "a4-repair-710",
                },
                new Page(
                    "Bracket clock no. 22",
                    Maren,
                    false,
                    [],
                    w =>
                    {
                        Fill(w, ("22", 152, 22), ("Bracket, walnut", 34, 31.3), ("the school", 133, 31.3), ("stops at ten past", 34, 40.6));
                        w.Draw(Circle(new(70, 250), 14), PageWriter.Sky);
                        w.Draw(Circle(new(92, 250), 8), PageWriter.Madder);
                    }
                )
                {
                    Paper = "a4-repair-710",
                },
            ]
        ),
        new(
            "Certificate, level 2",
            "Plans and lists",
            "madder",
            "label",
            [
                new Page("What I know, what I ask", Ines, false, [(1, "                Depth"), (2, "                Drop")], null)
                {
                    Paper = "a4-cornell-710",
                },
                new Page(
                    "To bring on the day",
                    Ines,
                    false,
                    [],
                    w =>
                    {
                        w.Text("own loupe", 27, 30.5, 7.6, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 52, PageWriter.Ink));
                        w.Text("two screwdrivers, ground", 27, 39.2, 7.6, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 52, PageWriter.Ink));
                        w.Text("pegwood", 27, 47.9, 7.6, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 52, PageWriter.Ink));
                    }
                )
                {
                    Paper = "a5-checklist-870-tint.f6ead0",
                },
                new Page(
                    "Escape wheel, set out",
                    Tobias,
                    false,
                    [],
                    w =>
                    {
                        w.Draw(EscapeWheel(new(148, 105), 50, 30), PageWriter.Madder);
                        w.Draw(Circle(new(148, 105), 50), PageWriter.Sky);
                        w.Draw(Circle(new(148, 105), 8), PageWriter.Sky);
                    }
                )
                {
                    Paper = "a4.across-millimetre-100",
                },
                new Page(
                    "Ideas at night",
                    Maren,
                    false,
                    [],
                    w =>
                    {
                        w.Text("a clock that tells", 18, 30, 8, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 55, 0xE7D9A8FF));
                        w.Text("only the tide", 18, 40, 8, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 55, 0xE7D9A8FF));
                        w.Draw(Spiral(new(74, 110), 30, 5), 0xE7D9A8FF);
                    }
                )
                {
                    Paper = "a5-dotted-500-tint.2f3140",
                },
                new Page(
                    "How a repair goes",
                    Ines,
                    false,
                    [],
                    w =>
                    {
                        string[] steps =
                        [
                            "look and listen",
                            "let the spring down",
                            "take apart, draw",
                            "clean, bush, polish",
                            "try for a week",
                        ];
                        for (var i = 0; i < steps.Length; i++)
                            w.Text(steps[i], 46, 50 + i * 52, 8, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 55, PageWriter.Ink));
                    }
                )
                {
                    Paper = "a4-flow-710-count.5",
                },
            ]
        ),
        new("Repairs at home", "First tries", "plum", "lattice", [P("A spring flew", Maren, [(1, "it is behind the cupboard")])]),
    ];

    /// <summary>A notebook of Ines's that is locked.</summary>
    public static readonly Notebook[] Locked =
    [
        new(
            "",
            "Prices and addresses",
            "plum",
            "rays",
            [
                P(
                    "What the work costs",
                    Ines,
                    [
                        (1, "cleaning a mantel clock: an evening and a half"),
                        (2, "bushing: a quarter of an hour a hole"),
                        (3, "never for money, always for cake"),
                    ]
                ),
            ]
        ),
    ];

    /// <summary>Jots that wait to be filed; their names come from when they were written.</summary>
    public static readonly Notebook[] Jots =
    [
        new("", "", "gold", "dots", [P("", Ines, [(1, "Oskar has a box of old click springs"), (2, "ask for the two wide ones")])]),
        new(
            "",
            "",
            "gold",
            "dots",
            [P("", Ines, [(1, "hall clock: 12 s fast since Thursday"), (2, "half a turn down"), (4, "?next: Sunday morning")])]
        ),
    ];

    public static readonly Notebook[] Personal =
    [
        new(
            "",
            "At my own bench",
            "spruce",
            "waves",
            [
                P(
                    "For the spring",
                    Ines,
                    [(1, "a second lamp"), (2, "a finer file"), (3, "brass wire, 1 and 2 mm"), (5, "ask Tobias for the name of the shop")]
                ),
                P(
                    "The hall clock",
                    Ines,
                    [(1, "loses four minutes a week"), (2, "240 / 7 = 34 s a day"), (3, "one and a half turns up, wait a week")],
                    w => w.DrawAll(Pendulum(new(100, 90), 60, 9))
                ),
            ]
        ),
    ];

    /// <summary>What the keepers of the harbour tower's clock write: Tobias is one of them.</summary>
    public static readonly Notebook[] Keepers =
    [
        new(
            "Tower clock",
            "Weekly rounds",
            "gold",
            "dots",
            [
                P(
                    "Winding, week 46",
                    Tobias,
                    [
                        (1, "going train 38 turns, striking train 92"),
                        (2, "both lines dry, no frayed strand"),
                        (4, "gains 3 s a day since the frost"),
                        (5, "one penny off the tray, look again Friday"),
                    ]
                ),
                P(
                    "Winding, week 47",
                    Tobias,
                    [
                        (1, "rate is right: 0.4 s a day"),
                        (2, "oil on the fan bearings, one drop each"),
                        (3, "the hammer spring is tired, order one"),
                    ],
                    w => w.DrawAll(Pendulum(new(120, 100), 55, 7))
                ),
            ]
        ),
        new(
            "Tower clock",
            "The hammer spring",
            "gold",
            "waves",
            [
                P(
                    "Measured",
                    Tobias,
                    [(1, "leaf 212 long, 31 wide, 2.6 thick"), (2, "lifts 18 mm, rests 2 mm off the bell"), (4, "who knows a smith?")]
                ),
            ]
        ),
    ];

    private static void Fill(PageWriter writer, params (string Text, double X, double Y)[] fields)
    {
        foreach (var (text, x, y) in fields)
            writer.Text(text, x, y, 7, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 50, PageWriter.Ink));
    }

    private static Page P(string title, int who, (double, string)[] lines, Action<PageWriter>? draw = null, bool squared = false) =>
        new(title, who, squared, lines, draw);

    private static Page Log(string title, int who, (string Text, bool Done)[] steps, string note) =>
        new(
            title,
            who,
            false,
            [.. steps.Select((step, i) => (i + 1.0, (step.Done ? "   " : "~  ") + step.Text)), (steps.Length + 2, note)],
            writer =>
            {
                for (var i = 0; i < steps.Length; i++)
                    writer.DrawAll(Box(new Point(21, PageWriter.Baseline(i + 1) - 3.6), steps[i].Done), PageWriter.Spruce, 35);
            }
        );

    private static void DrawAnchor(PageWriter writer)
    {
        var centre = new Point(92, 112);
        writer.Draw(EscapeWheel(centre, 33, 30));
        writer.Draw(Circle(centre, 6));
        writer.DrawAll(Anchor(centre, 33), PageWriter.Madder, 60);
        writer.Line(5.5, "entry", PageWriter.Madder, 36);
        writer.Line(5.5, "exit", PageWriter.Madder, 138);
        writer.Line(14.6, "30 teeth", PageWriter.Sky, 82);
    }

    private static void DrawRecoil(PageWriter writer)
    {
        var centre = new Point(100, 105);
        writer.Draw(EscapeWheel(centre, 24, 30));
        writer.DrawAll(Arrow(centre.Polar(28, -30), centre.Polar(28, 5)), PageWriter.Madder);
        writer.DrawAll(Arrow(centre.Polar(34, 0), centre.Polar(34, -18)), PageWriter.Plum);
        writer.Line(11, "back", PageWriter.Plum, 140);
    }

    private static void DrawDeadbeat(PageWriter writer)
    {
        var centre = new Point(92, 105);
        writer.Draw(EscapeWheel(centre, 28, 30));
        writer.DrawAll(Anchor(centre, 28), PageWriter.Spruce, 55);
        writer.Draw(Circle(centre + new Point(0, -40), 45, 55, 30), PageWriter.Madder);
        writer.Draw(Circle(centre + new Point(0, -40), 45, 95, 30), PageWriter.Madder);
    }

    /// <summary>Seven lengths of a pendulum and the periods that were measured.</summary>
    private const string Lengths =
        "l in m\tT in s\n0.10\t0.634\n0.20\t0.898\n0.30\t1.099\n0.50\t1.419\n0.75\t1.738\n1.00\t2.006\n1.25\t2.243";

    private static void DrawMeasured(PageWriter writer)
    {
        var (hook, bob) = (new Point(50, 8), new Point(50, 58));
        writer.Picture(
            Photograph.Of(
                100,
                74,
                [
                    [new Point(30, 8), new Point(70, 8)],
                    [hook, bob],
                    Circle(bob + new Point(0, 5), 5),
                    [hook, hook.Polar(46, 112)],
                    Circle(hook.Polar(51, 112), 5),
                    Circle(hook, 36, 90, 22),
                    .. Arrow(new Point(62, 10), new Point(62, 62)),
                    .. Arrow(new Point(62, 62), new Point(62, 10)),
                ]
            ),
            20,
            46,
            72,
            53,
            "How it hung, from the blackboard"
        );
        // What the slip asks lies under it.
        writer.Text("0.994 m", 112, 78, 9, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 50, PageWriter.Ink));
        writer.Slip(100, 50, 62, 36, "Which length beats once a second? Work it out before you look.", 0xD5DFB8FF);
        var table = writer.Table(136, 152.65, [2_700, 2_700], 710, Lengths, (1, "count"));
        writer.File(Encoding.UTF8.GetBytes(Lengths.Replace('\t', ',') + '\n'), "seven lengths.csv", 136, 224);
        var plot = writer.Plot(
            20,
            150,
            110,
            84,
            "Period over length, fifty swings each",
            new ItemValue(
                ItemField.Data1,
                $"1f5f8bff {(int)FitKind.Power} 0.1 0.634 0.2 0.898 0.3 1.099 0.5 1.419 0.75 1.738 1 2.006 1.25 2.243"
            ),
            new ItemValue(ItemField.Range, "0 1.4 0 2.6"),
            new ItemValue(ItemField.Axes, "length in m\nperiod in s")
        );
        writer.Follow(plot, table);
    }

    private static void DrawFaults(PageWriter writer)
    {
        const uint question = 0x4F73881F,
            answer = 0xD5DFB866;
        var stops = writer.Box(ShapeKind.Ellipse, 80, 40, 50, 20, "It stops");
        var wound = writer.Box(ShapeKind.Rhombus, 68, 70, 74, 34, "Is it wound?", question);
        var wind = writer.Box(ShapeKind.Rectangle, 20, 79, 32, 16, "Wind it", answer);
        var even = writer.Box(ShapeKind.Rhombus, 68, 116, 74, 34, "Even beat?", question);
        var crutch = writer.Box(ShapeKind.Rectangle, 20, 125, 32, 16, "Set the crutch", answer);
        var free = writer.Box(ShapeKind.Rhombus, 68, 162, 74, 34, "Train free?", question);
        var power = writer.Box(ShapeKind.Rectangle, 158, 171, 32, 16, "Oil, pivots, bent teeth", answer);
        var drop = writer.Box(ShapeKind.Rectangle, 89, 206, 32, 16, "Look at the drop", answer);
        writer.Connect(stops, wound, ConnectorRoute.Straight);
        writer.Connect(wound, wind, ConnectorRoute.Straight);
        writer.Connect(wound, even, ConnectorRoute.Straight);
        writer.Connect(even, crutch, ConnectorRoute.Straight);
        writer.Connect(even, free, ConnectorRoute.Straight);
        writer.Connect(free, power, ConnectorRoute.Straight);
        writer.Connect(free, drop, ConnectorRoute.Straight);
        foreach (
            var (word, x, y) in new[]
            {
                ("no", 57.0, 85.0),
                ("no", 57, 131),
                ("no", 146, 177),
                ("yes", 108, 111),
                ("yes", 108, 157),
                ("yes", 108, 202),
            }
        )
            writer.Text(word, x, y, 5, new Pen(PenKind.Ball, 35, PageWriter.Madder));
    }

    private static void TypeBeat(PageWriter writer) =>
        writer.Typed(
            30,
            21,
            150,
            ("Still to be set in beat", [(Trait.Style, "heading")]),
            ("hall clock: crutch moved by *half the difference*", [(Trait.List, "tick"), (Trait.Ticked, "1")]),
            ("kitchen clock, after oiling, by 4 December", [(Trait.List, "tick")]),
            ("Oskar’s travelling clock: ring 030 5550142", [(Trait.List, "tick")]),
            ("Whoever hears the limp need not see it.", [(Trait.Style, "quotation")])
        );

    private static void DrawBeat(PageWriter writer)
    {
        var origin = new Point(30, 105);
        writer.Draw([origin, origin + new Point(140, 0)], PageWriter.Ink);
        foreach (var at in new[] { 0.0, 31, 66, 97, 132 })
            writer.Draw([origin + new Point(at, -14), origin + new Point(at + 0.3, 3)], PageWriter.Madder, 60);
        writer.Line(10, "tick", PageWriter.Madder, 28);
        writer.Line(10, "tock", PageWriter.Madder, 60);
    }

    private static void DrawTrain(PageWriter writer)
    {
        writer.Draw(Gear(new(58, 72), 26, 64, 2), PageWriter.Sky);
        writer.Draw(Gear(new(92, 62), 9, 8, 3), PageWriter.Madder);
        writer.Draw(Gear(new(118, 85), 24, 60, 2), PageWriter.Sky);
        writer.Draw(Gear(new(150, 66), 9, 8, 3), PageWriter.Plum);
        writer.Text("64", 54, 74, 9, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 45, PageWriter.Ink));
        writer.Text("60", 114, 87, 9, new Core.Ink.Pen(Core.Ink.PenKind.Fountain, 45, PageWriter.Ink));
    }

    private static void Pair(PageWriter writer, Point centre, double radius, int teeth, int second)
    {
        writer.Draw(Gear(centre, radius, teeth, 2), PageWriter.Sky);
        writer.Draw(Circle(centre, 3), PageWriter.Sky);
        var other = centre + new Point(radius + radius * second / teeth - 1.5, 4);
        writer.Draw(Gear(other, radius * second / teeth, second, 2), PageWriter.Madder);
        writer.Draw(Circle(other, 3), PageWriter.Madder);
    }
}
