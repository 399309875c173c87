using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Planner;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Writing;
using CsCheck;

namespace CalmQuill.Testing;

/// <summary>Changes at the very boundary of what the rules let in: longest texts, most points, largest numbers, widest characters.</summary>
public static class Boundaries
{
    /// <summary>A character that a reader sees as one, put together of seven: 25 bytes.</summary>
    private const string Family = "\U0001F468\u200D\U0001F469\u200D\U0001F467\u200D\U0001F466";

    private static readonly Gen<string> Letter = One(
        "a",
        "é",
        "ß",
        "水",
        "𝔔",
        "\u200F",
        "e\u0301",
        Family,
        "👩🏽‍🔬",
        "”",
        "\\",
        "\"",
        "\u2028"
    );

    /// <summary>Texts of every length up to beyond what is allowed, of characters of every width.</summary>
    public static readonly Gen<string> Text = Gen.OneOf(
        Letter.Array[0, 12].Select(string.Concat),
        Gen.Select(
                Letter,
                One(1, 10, 40, 41, 68, 180, 199, 200, 201, 399, 400, 401, 999, 1_000, 1_001, 1_999, 2_000, 2_001, 3_899, 3_900, 3_901)
            )
            .Select((letter, count) => string.Concat(Enumerable.Repeat(letter, count))),
        // Half of a character of two.
        One("\uD83D", "a\uDC00b", "\u0000", "a\tb", "a\nb")
    );

    private static readonly Gen<Guid> Id = Gen.OneOf(Gen.Guid, Gen.Const(Guid.Empty), Gen.Int[1, 5].Select(Generate.Node));

    private static readonly Gen<OpId> OpId = Gen.Select(
            Gen.ULong,
            Gen.OneOf(
                Gen.ULong[0, 1UL << 48],
                Gen.ULong[0, 1UL << 48],
                Gen.ULong[0, 1UL << 48],
                One(0UL, 1UL << 48, (1UL << 48) + 1, ulong.MaxValue)
            )
        )
        .Select((replica, counter) => new OpId(replica, counter));

    /// <summary>What may be said of letters and paragraphs, at its boundaries and beyond.</summary>
    private static Gen<(Trait Trait, string Value)> Look =>
        One(
            (Trait.Bold, "1"),
            (Trait.Size, "40"),
            (Trait.Size, "4001"),
            (Trait.Family, "hand"),
            (Trait.Link, "https://clock.example/" + new string('a', 1_900)),
            (Trait.Style, "quotation"),
            (Trait.Indent, "8"),
            (Trait.Indent, "9"),
            (Trait.List, ""),
            (Trait.Cell, "r:1"),
            (Trait.Cell, "1 2"),
            (Trait.Cell, "x"),
            (Trait.Place, "a0"),
            (Trait.Extent, "299"),
            (Trait.Span, "c:1"),
            (Trait.Total, "median"),
            ((Trait)47, "1")
        );

    private static Gen<LetterId> LetterName =>
        Gen.OneOf(
            One(LetterId.Start, LetterId.End),
            Gen.Select(Gen.OneOf(OpId, Gen.Const(LetterId.Own)), Coordinate).Select((operation, index) => new LetterId(operation, index))
        );

    private static readonly Gen<OpId[]> Items = OpId.Array[0, 6];

    private static readonly Gen<int> Coordinate = Gen.OneOf(
        Gen.Int[-3_000_000, 3_000_000],
        One(0, StrokeSamples.MostCoordinate, -StrokeSamples.MostCoordinate, StrokeSamples.MostCoordinate + 1, int.MinValue, int.MaxValue)
    );

    private static readonly Gen<string> Order = Gen.OneOf(
        One("V", "0", "a0", new string('z', OrderKey.MostLength), new string('z', OrderKey.MostLength + 1)),
        Gen.ULong.Select(device => OrderKey.Between(null, null, device)),
        Text
    );

    /// <summary>Values that one or another register takes, and many that none does.</summary>
    private static readonly Gen<string> Value = Gen.OneOf(
        Text,
        Id.Select(id => id.ToString()),
        One(
            "",
            "1",
            "0",
            "7",
            "30",
            "90",
            "100",
            "-5",
            "sideways",
            "seamless",
            "spruce",
            "2026-09-07/2026-12-18",
            "999999999999999",
            "2026-10-25"
        ),
        Gen.Int[1, 45].Select(terms => string.Join(' ', Enumerable.Repeat("2026-09-07/2026-12-18", terms))),
        One("a4-ruled-710", "a5.across-cornell-710-tint.f6ead0-head.2500-own.0123456789abcdef0123456789abcdef"),
        One("2026-09-07/2026-12-18 monday year,term,month,week,day,notes en", "day/2026-10-08", "notes/500", "https://clock.example/"),
        Gen.Int[0, 100].Select(LongRule),
        Text.Select(title =>
            new CalendarEntry(
                Guid.Empty,
                new DateTime(2026, 3, 29, 2, 30, 0),
                new DateTime(2026, 3, 29, 3, 30, 0),
                false,
                title,
                title
            ).Write()
        ),
        Gen.Select(One(2, 3, 899, 900, 901, Shape.MostPoints, Shape.MostPoints + 1), Coordinate)
            .Select((points, at) => ShapeOf(points, at).ToText()),
        Gen.UInt.Select(colour => colour.ToString("x8", System.Globalization.CultureInfo.InvariantCulture)),
        Gen.Int.Select(number => number.ToString(System.Globalization.CultureInfo.InvariantCulture))
    );

    /// <summary>One change of any kind; whether the rules let it in is for them to say.</summary>
    public static readonly Gen<Change> Change = Gen.OneOf(
        Gen.Select(Id, Gen.Byte[0, 9], Id, Order)
            .Select((node, kind, parent, order) => (Change)new Change.NodePlaced(node, (NodeKind)kind, parent, order)),
        Gen.Select(Id, Gen.Byte[0, 31], Value)
            .Select((target, property, value) => (Change)new Change.PropertySet(target, (Property)property, value)),
        // Each register has its own longest value, so it is drawn more often.
        Gen.Select(Id, Gen.Byte[1, 32], Value)
            .Select((target, property, value) => (Change)new Change.PropertySet(target, (Property)property, value)),
        Gen.Select(Id, Order, Value).Select((page, order, paper) => (Change)new Change.PageAdded(page, order, paper)),
        Gen.Select(Id, Order)
            .Array[0, 5]
            .Select(orders => (Change)new Change.OrdersSet([.. orders.Select(one => new NodeOrder(one.Item1, one.Item2))])),
        Gen.Select(Generate.Pen, Gen.Long, Samples, Id)
            .Select((pen, at, samples, layer) => (Change)new Change.StrokeAdded(pen, at, samples) { Layer = layer }),
        Items.Select(items => (Change)new Change.ItemsRemoved(items)),
        Gen.Select(Items, Coordinate, Coordinate).Select((items, dx, dy) => (Change)new Change.ItemsShifted(items, dx, dy)),
        Gen.Select(OpId, Gen.Select(Gen.Int, Gen.Int).Array[0, 4])
            .Array[0, 4]
            .Select(gaps =>
                (Change)
                    new Change.GapsAdded([
                        .. gaps.Select(gap => new StrokeGaps(gap.Item1, [.. gap.Item2.Select(one => new Interval(one.Item1, one.Item2))])),
                    ])
            ),
        Gen.Select(OpId, Gen.Bool).Select((target, on) => (Change)new Change.EffectSet(target, on)),
        Gen.Select(Id, Id, Gen.Bool).Select((target, tag, on) => (Change)new Change.TagSet(target, tag, on)),
        Gen.Select(Id, Id).Select((space, target) => (Change)new Change.Visited(space, target)),
        Gen.Select(Id, Gen.Byte[0, 7], Coordinate.Array[4], Items, SpotValues)
            .Select(
                (spot, kind, box, items, values) =>
                    (Change)new Change.SpotAdded(spot, (SpotKind)kind, new Box(box[0], box[1], box[2], box[3]), items, values)
            ),
        Gen.Select(Id, SpotValues).Select((spot, values) => (Change)new Change.SpotSet(spot, values)),
        Gen.Select(Items, Id.Array[0, 4], Gen.Int.Array[6])
            .Select(
                (items, spots, m) => (Change)new Change.ItemsTransformed(items, spots, new Transform(m[0], m[1], m[2], m[3], m[4], m[5]))
            ),
        Gen.Select(One(0, 1, 2, 4, 5, Shape.MostPoints, Shape.MostPoints + 1), Coordinate, Generate.Pen, Gen.UInt, Items)
            .Select((points, at, pen, fill, replaces) => (Change)new Change.ShapeAdded(ShapeOf(points, at), pen, fill, replaces)),
        Gen.Select(Items, Gen.Select(Gen.Byte[0, 18], Value).Array[0, 4])
            .Select(
                (items, values) =>
                    (Change)new Change.ItemsSet(items, [.. values.Select(one => new ItemValue((ItemField)one.Item1, one.Item2))])
            ),
        Gen.Select(Id, Gen.Select(Gen.Byte[0, 9], Value).Array[0, 4])
            .Select(
                (layer, values) =>
                    (Change)new Change.LayerSet(layer, [.. values.Select(one => new LayerValue((LayerField)one.Item1, one.Item2))])
            ),
        Items.Select(steps => (Change)new Change.StepsJoined(steps)),
        Gen.Select(Items, OpId, One(1, Transform.One, Transform.One * Transform.MostScale, int.MaxValue), Coordinate)
            .Select((items, on, scale, by) => (Change)new Change.ItemsAnchored(items, on, new Transform(scale, 0, 0, scale, by, by))),
        Gen.Select(Id, Text, Id.Array[0, 3])
            .Select((spot, text, people) => (Change)new Change.AnswerAdded(spot, text, people, ReadOnlyMemory<byte>.Empty)),
        OpId.Select(answer => (Change)new Change.AnswerWithdrawn(answer)),
        Gen.Select(
                Coordinate,
                One(499, 500, 9_000, 200_000, 200_001),
                One(0, 710, 20_000, 20_001),
                Text,
                Gen.Select(One(0, 1, 13), One(1, 2, 14, 15), Look).Array[0, 2]
            )
            .Select(
                (at, width, ruling, text, looks) =>
                    (Change)
                        new Change.TextAdded(
                            Transform.Scale(0.5 + width / 9_000.0, at, at),
                            width,
                            ruling,
                            new Passage(
                                text,
                                [.. looks.Select(one => new PassageFormat(one.Item1, one.Item2, one.Item3.Trait, one.Item3.Value))]
                            ),
                            looks.Length == 0 ? [] : [new ItemValue(ItemField.Edge, "ffffffff")]
                        )
            ),
        Gen.Select(Gen.Byte[0, 6], Coordinate, One(99, 100, 9_000, 200_000, 200_001), Text, Gen.Select(Gen.Byte[16, 45], Value).Array[0, 2])
            .Select(
                (thing, at, side, text, values) =>
                    (Change)
                        new Change.ThingAdded(
                            (ThingKind)thing,
                            Transform.Shift(at, at),
                            side,
                            9_000,
                            new Passage(text, []),
                            [
                                .. values.Select(one => new ItemValue((ItemField)one.Item1, one.Item2)),
                                new ItemValue(ItemField.Source, Guid.Empty.ToString()),
                            ]
                        )
            ),
        Gen.Select(
                OpId,
                LetterName,
                Gen.Bool,
                Text,
                Gen.Select(LetterName, Coordinate).Array[0, 3],
                Gen.Select(LetterName, LetterName, Look).Array[0, 3]
            )
            .Select(
                (text, at, before, typed, removed, looks) =>
                    (Change)
                        new Change.TextTyped(
                            text,
                            new TextChange(
                                [new Insertion(at, before, typed)],
                                [.. removed.Select(one => new LetterSpan(one.Item1.Operation, one.Item1.Index, one.Item2))],
                                [
                                    .. looks.Select(one => new Format(
                                        new Edge(one.Item1, before),
                                        new Edge(one.Item2, !before),
                                        one.Item3.Trait,
                                        one.Item3.Value
                                    )),
                                ]
                            )
                        )
            ),
        Spot,
        Item
    );

    /// <summary>Signs on a page that say what they must, and at most one thing more.</summary>
    private static Gen<Change> Spot =>
        Gen.Select(Gen.Int[1, 5].Select(Generate.Node), Gen.Int[1, 4], Coordinate, Items, Text)
            .Select(
                (spot, kind, at, items, text) =>
                {
                    SpotValue[] needed =
                    [
                        (SpotKind)kind switch
                        {
                            SpotKind.Mark => new SpotValue(SpotField.Mark, "todo"),
                            SpotKind.Link => new SpotValue(SpotField.Target, "https://clock.example/"),
                            _ => new SpotValue(SpotField.Level, "1"),
                        },
                        new SpotValue((SpotKind)kind == SpotKind.Mark ? SpotField.Note : SpotField.Title, text),
                    ];
                    return (Change)
                        new Change.SpotAdded(
                            spot,
                            (SpotKind)kind,
                            new Box(at, at, at, at),
                            items,
                            kind == (int)SpotKind.Curtain ? [] : needed
                        );
                }
            );

    /// <summary>One thing said of items, of a form that fits it, at its boundaries.</summary>
    private static Gen<Change> Item =>
        Gen.Select(
                Gen.ULong[1, 1UL << 48].Array[1, 5],
                Gen.Int[0, 37],
                One(2, 899, 900, Shape.MostPoints),
                Gen.Int[-StrokeSamples.MostCoordinate, StrokeSamples.MostCoordinate]
            )
            .Select(
                (counters, which, points, at) =>
                    (Change)
                        new Change.ItemsSet(
                            [.. counters.Select(counter => new OpId(7, counter))],
                            [
                                which switch
                                {
                                    0 => new ItemValue(ItemField.Colour, "ffffffff"),
                                    1 => new ItemValue(ItemField.Width, "2000"),
                                    2 => new ItemValue(ItemField.Pen, "6"),
                                    3 => new ItemValue(ItemField.Line, "2"),
                                    4 => new ItemValue(ItemField.Fill, "00000000"),
                                    5 => new ItemValue(ItemField.Shape, ShapeOf(points, at).ToText()),
                                    6 => new ItemValue(ItemField.Layer, Guid.Empty.ToString("X")),
                                    7 => new ItemValue(ItemField.Order, "-1000000"),
                                    8 => new ItemValue(ItemField.Group, Guid.Empty.ToString("B")),
                                    9 => new ItemValue(ItemField.Measure, "200000"),
                                    10 => new ItemValue(ItemField.Ruling, "20000"),
                                    11 => new ItemValue(ItemField.Edge, "00000000"),
                                    12 => new ItemValue(ItemField.EdgeWidth, "2000"),
                                    13 => new ItemValue(ItemField.Corner, "2000"),
                                    14 => new ItemValue(ItemField.Padding, "0"),
                                    15 => new ItemValue(ItemField.Source, Guid.Empty.ToString("N")),
                                    16 => new ItemValue(ItemField.Opacity, "100"),
                                    17 => new ItemValue(ItemField.Brightness, "-100"),
                                    18 => new ItemValue(ItemField.Contrast, "100"),
                                    19 => new ItemValue(ItemField.Cut, CutOf(points)),
                                    20 => new ItemValue(ItemField.Cleared, "100"),
                                    21 => new ItemValue(ItemField.Height, "200000"),
                                    22 => new ItemValue(ItemField.Original, Guid.Empty.ToString("B")),
                                    23 => new ItemValue(ItemField.Folded, "1"),
                                    24 => new ItemValue(ItemField.Within, new OpId(ulong.MaxValue, 1UL << 48).ToString()),
                                    31 => new ItemValue(ItemField.From, new OpId(0, 0).ToString()),
                                    32 => new ItemValue(ItemField.To, new OpId(ulong.MaxValue, 1UL << 48).ToString()),
                                    33 => new ItemValue(ItemField.Holder, new OpId(1, 1).ToString()),
                                    34 => new ItemValue(ItemField.Letter, new string('λ', 20)),
                                    35 => new ItemValue(ItemField.Table, new OpId(ulong.MaxValue, 1).ToString()),
                                    36 => new ItemValue(ItemField.Pinned, "1"),
                                    37 => new ItemValue(ItemField.Leaf, "10000"),
                                    25 => new ItemValue(ItemField.Range, "-1E+12 1E+12 0 1E-09"),
                                    26 => new ItemValue(ItemField.Axes, "x\ny"),
                                    27 => new ItemValue(ItemField.Shows, "plain"),
                                    28 => new ItemValue(ItemField.Curve6, "ffffffff " + new string('x', 591)),
                                    29 => new ItemValue(ItemField.Data3, "ffffffff 6" + string.Concat(Enumerable.Repeat(" 1 -1", points))),
                                    _ => new ItemValue(ItemField.Locked, "1"),
                                },
                            ]
                        )
            );

    private static Gen<SpotValue[]> SpotValues =>
        Gen.Select(Gen.Byte[0, 11], Value)
            .Array[0, 4]
            .Select(values => values.Select(one => new SpotValue((SpotField)one.Item1, one.Item2)).ToArray());

    private static Gen<StrokeSamples> Samples =>
        Gen.OneOf(
            Generate.Samples,
            One(1, 2, StrokeSamples.MostSamples, StrokeSamples.MostSamples + 1).Select(count => Generate.Wave(count))
        );

    /// <summary>A cut of as many corners as there may be, or one more.</summary>
    private static string CutOf(int corners) =>
        string.Join(' ', Enumerable.Repeat("10000,10000", Math.Clamp(corners, 3, PictureCut.MostCorners + 1)));

    private static Shape ShapeOf(int points, int at) =>
        new(
            points > 4 ? ShapeKind.Area : ShapeKind.Rectangle,
            [.. Enumerable.Range(0, points).Select(i => new Corner(at, unchecked(at - i * 7)))]
        );

    private static string LongRule(int terms) =>
        RuleJson.Write(new Rule.Any([.. Enumerable.Range(0, terms).Select(i => new Rule.Titled($"título {i} {Family}"))]));

    private static Gen<T> One<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(i => values[i]);
}
