using System.Globalization;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;
using CsCheck;

namespace CalmQuill.Testing;

/// <summary>Generators of strokes and of whole histories of operations by several people.</summary>
public static class Generate
{
    public static readonly Guid[] People =
    [
        new("00000000-0000-8000-8000-00000000000a"),
        new("00000000-0000-8000-8000-00000000000b"),
        new("00000000-0000-8000-8000-00000000000c"),
    ];

    /// <summary>Pens of every kind; half of them with nothing unusual.</summary>
    public static readonly Gen<Pen> Pen = Gen.Select(Gen.Int[1, 6], Gen.Int[Core.Ink.Pen.LeastWidth, 300], Gen.UInt, Gen.Int[0, 1000])
        .Select(
            (kind, width, colour, chance) =>
            {
                var pen = new Pen((PenKind)kind, width, kind == 6 ? (colour & ~0xFFu) | 0x60 : colour);
                return chance % 2 == 0
                    ? pen
                    : pen with
                    {
                        Line = (LineStyle)(chance % 3),
                        Tip = (NibTip)(chance / 3 % 2),
                        Angle = chance % 180,
                        Response = chance % 201 - 100,
                    };
            }
        );

    /// <summary>A wandering line of 1 to 30 samples.</summary>
    public static readonly Gen<StrokeSamples> Samples =
        from count in Gen.Int[1, 30]
        from start in Gen.Int[0, 20_000].Array[2]
        from steps in Gen.Int[-300, 300].Array[count * 2]
        from pressure in Gen.Int[0, 1023].Array[count]
        from pace in Gen.Int[0, 20].Array[count]
        from tilt in Gen.Bool
        select Walk(count, start, steps, pressure, pace, tilt);

    /// <summary>What three people did to a page from three devices, each knowing what stands before in the list.</summary>
    public static readonly Gen<List<Operation>> PageHistory = Gen.Select(
            Gen.Int[0, 22],
            Gen.Int[0, 2],
            Gen.Int[0, 1000],
            Gen.Int[0, 1000],
            Samples,
            Pen
        )
        .Array[1, 40]
        .Select(steps =>
        {
            var devices = People.Select((person, i) => new Replica((ulong)i * 16 + 7, person)).ToArray();
            var history = new List<Operation>();
            foreach (var (what, who, a, b, samples, pen) in steps)
            {
                var strokes = history
                    .Where(operation =>
                        operation.Change is Change.StrokeAdded or Change.ShapeAdded or Change.ThingAdded or Change.TextAdded
                    )
                    .ToList();
                var own = history
                    .Where(operation => operation.Author == People[who] && operation.Change is not (Change.EffectSet or Change.StepsJoined))
                    .ToList();
                Change change = new Change.StrokeAdded(pen, 1_700_000_000_000 + a, samples) { Layer = Node(a % 4) };
                if (what == 1 && strokes.Count > 0)
                    change = new Change.ItemsRemoved([strokes[a % strokes.Count].Id]);
                if (what == 2 && strokes.Count > 0)
                    change = new Change.ItemsShifted([strokes[a % strokes.Count].Id], b - 500, a - 500);
                if (what == 3 && strokes.Count > 0)
                    change = new Change.GapsAdded([new StrokeGaps(strokes[a % strokes.Count].Id, [new Interval(b, b + a)])]);
                if (what is 4 or 5 && own.Count > 0)
                    change = new Change.EffectSet(own[a % own.Count].Id, what == 5);
                if (what == 6)
                    change = new Change.SpotAdded(
                        Node(1 + a % 4),
                        (SpotKind)(1 + b % 3),
                        new Box(a, b, a + 200, b + 100),
                        strokes.Count > 0 && b % 2 == 0 ? [strokes[a % strokes.Count].Id] : [],
                        Values(a)
                    );
                if (what == 7)
                    change = new Change.SpotSet(
                        Node(1 + a % 4),
                        b % 7 == 0 ? [new SpotValue(SpotField.Removed, "1")]
                            : b % 3 == 0 ? [new SpotValue(SpotField.Done, a % 2 == 0 ? "1" : "")]
                            : [new SpotValue(SpotField.Note, $"note {b}")]
                    );
                if (what is 8 or 9)
                    change = new Change.ItemsTransformed(
                        strokes.Count > 0 ? [strokes[a % strokes.Count].Id] : [],
                        [Node(1 + b % 4)],
                        what == 8
                            ? Transform.Scale(0.5 + a / 700.0, b - 500, a)
                            : new Transform(0, Transform.One, -Transform.One, 0, 29700, a)
                    );
                if (what == 10)
                    change = new Change.ShapeAdded(
                        ShapeOf(a, b),
                        pen,
                        b % 2 == 0 ? 0u : 0x7C8A4B80u,
                        strokes.Count > 0 && a % 3 == 0 ? [strokes[a % strokes.Count].Id] : []
                    )
                    {
                        Layer = Node(b % 4),
                    };
                if (what == 11 && strokes.Count > 0)
                    change = new Change.ItemsSet(
                        [strokes[a % strokes.Count].Id, strokes[b % strokes.Count].Id],
                        [b % 3 == 0 ? LeanOf(strokes[(a + b) % strokes.Count].Id, a, b) : ItemValueOf(a, b)]
                    );
                if (what == 12)
                    change = new Change.LayerSet(Node(1 + a % 3), [LayerValueOf(a, b)]);
                if (what == 13 && own.Count > 1)
                    change = new Change.StepsJoined([own[^1].Id, own[^2].Id]);
                if (what is 15 or 16 or 17 && Typed(history, what, a, b) is { } typed)
                    change = typed;
                if (what is 18 or 19)
                    change = Thing(
                        what == 18 ? ThingKind.Picture
                            : b % 3 == 0 ? ThingKind.Plot
                            : b % 3 == 1 ? ThingKind.Table
                            : b % 5 == 0 ? ThingKind.File
                            : b % 5 == 1 ? ThingKind.Formula
                            : ThingKind.Slip,
                        a,
                        b
                    );
                if (what is 20 or 21 && strokes.Count > 0)
                    change = new Change.ItemsSet([strokes[a % strokes.Count].Id], [ThingValueOf(strokes[b % strokes.Count].Id, a, b)]);
                // Clocks that disagree by up to a second make the stamps' order differ from the list's.
                history.Add(devices[who].Make(change, 1_700_000_000_000 + history.Count * 50 + b));
            }

            return history;
        });

    private static Change.ThingAdded Thing(ThingKind kind, int a, int b) =>
        new(
            kind,
            Transform.Scale(0.5 + a / 1000.0, b * 10, a * 10),
            1_000 + a * 5,
            1_000 + b * 5,
            kind == ThingKind.Table ? TableEdit.New([0, 2_000 + a, 900], [0, 600])
                : kind == ThingKind.Formula ? new Passage(a % 3 == 0 ? "x^2 - 5x + 6 = 0" : "T = 2 pi sqrt(L/g", [])
                : new Passage(a % 3 == 0 ? "pallets" : "", []),
            kind switch
            {
                ThingKind.Picture => [new ItemValue(ItemField.Source, Node(a % 5).ToString())],
                ThingKind.File =>
                [
                    new ItemValue(ItemField.Source, Node(a % 5).ToString()),
                    new ItemValue(ItemField.FileName, "wheel count.ods"),
                    new ItemValue(ItemField.FileSize, (a * 999).ToString(CultureInfo.InvariantCulture)),
                ],
                ThingKind.Formula => [new ItemValue(ItemField.Shows, a % 2 == 0 ? "solve steps" : "value")],
                _ => [],
            }
        )
        {
            Layer = Node(b % 4),
        };

    /// <summary>Something said of pictures and slips; of what is neither it makes no difference, but that anything can be folded away with a slip.</summary>
    private static ItemValue ThingValueOf(OpId other, int a, int b) =>
        (b % 14) switch
        {
            13 => new ItemValue(ItemField.Leaf, a % 2 == 0 ? (1 + a % 900).ToString(CultureInfo.InvariantCulture) : ""),
            12 => new ItemValue(ItemField.Pinned, a % 2 == 0 ? "1" : ""),
            0 => new ItemValue(ItemField.Folded, a % 2 == 0 ? "1" : ""),
            1 => new ItemValue(ItemField.Within, a % 3 == 0 ? "" : other.ToString()),
            2 => new ItemValue(ItemField.Cut, "0,0 10000,0 5000,10000"),
            3 => new ItemValue(ItemField.Height, (1_000 + a).ToString(CultureInfo.InvariantCulture)),
            4 => new ItemValue(ItemField.Opacity, (1 + a % 100).ToString(CultureInfo.InvariantCulture)),
            7 => new ItemValue(
                ItemField.Curve1,
                "1f5f8bff "
                    + (
                        a % 3 == 0 ? "tan x"
                        : a % 3 == 1 ? "x² + y² = 9"
                        : "no formula"
                    )
            ),
            8 => new ItemValue(ItemField.Data1, "b4533cff 2 0 1 1 " + (a % 7).ToString(CultureInfo.InvariantCulture)),
            9 => new ItemValue(ItemField.Range, a % 2 == 0 ? "" : "0 10 -5 5"),
            11 => new ItemValue(ItemField.Table, other.ToString()),
            10 => new ItemValue(ItemField.Letter, a % 2 == 0 ? "L" : "x_1"),
            5 => new ItemValue(ItemField.Order, (a % 5 - 2).ToString(CultureInfo.InvariantCulture)),
            _ => new ItemValue(ItemField.Source, Node(a % 5).ToString()),
        };

    /// <summary>Something said of a table, wherever it lands.</summary>
    private static Format OfTable(Edge from, Edge to, int a)
    {
        var (trait, value) = (a % 7) switch
        {
            0 => (Trait.Cell, "r:1"),
            1 => (Trait.Cell, "c:2"),
            2 => (Trait.Gone, a % 2 == 0 ? "1" : ""),
            3 => (Trait.Span, "2 3"),
            4 => (Trait.Place, "m" + (char)('a' + a % 26)),
            5 => (Trait.Total, "sum"),
            _ => (Trait.Cell, "1 2"),
        };
        return new Format(from, to, trait, value);
    }

    /// <summary>A text, or something that is typed into one: at letters of any operation on it, which may have been removed or taken back.</summary>
    private static Change? Typed(List<Operation> history, int what, int a, int b)
    {
        var words = new[] { "pendulum", "a\nb", "Unruh 😀", "\n", "- wheel", "שלום 12" };
        var texts = history
            .Where(operation => operation.Change is Change.TextAdded or Change.ThingAdded { Thing: ThingKind.Table })
            .ToList();
        if (what == 15 || texts.Count == 0)
            return new Change.TextAdded(
                Transform.Shift(a * 10, b * 10),
                2_000 + a * 10,
                a % 2 * 700,
                new Passage(words[b % words.Length], a % 3 == 0 ? [new PassageFormat(0, 1, Trait.Bold, "1")] : []),
                b % 4 == 0 ? [new ItemValue(ItemField.Fill, "e3b23c80")] : []
            )
            {
                Layer = Node(a % 4),
            };
        var text = texts[a % texts.Count].Id;
        var letters = history
            .Where(operation => operation.Id == text || (operation.Change is Change.TextTyped typed && typed.Text == text))
            .SelectMany(operation =>
                Enumerable
                    .Range(
                        0,
                        operation.Change is Change.TextTyped typed
                            ? typed.Typed.Letters
                            : ((Change.WrittenAdded)operation.Change).Passage.Text.Length
                    )
                    .Select(index => new LetterId(operation.Id, index))
            )
            .ToList();
        LetterId Letter(int which) => letters.Count == 0 ? LetterId.Start : letters[which % letters.Count];
        var (one, other) = (Letter(a), Letter(b));
        return new Change.TextTyped(
            text,
            (b % 4) switch
            {
                0 or 1 => new TextChange([new Insertion(one, one != LetterId.Start && b % 2 == 0, words[a % words.Length])], [], []),
                2 when letters.Count > 0 => new TextChange([], [new LetterSpan(one.Operation, one.Index, 1)], []),
                _ => new TextChange(
                    [new Insertion(one, false, "x")],
                    [],
                    [
                        new Format(
                            new Edge(b % 5 == 0 ? LetterId.Start : one, a % 2 == 0 || b % 5 == 0),
                            new Edge(a % 5 == 0 ? LetterId.End : other, b % 2 == 0),
                            a % 2 == 0 ? Trait.Bold : Trait.List,
                            a % 7 == 0 ? ""
                                : a % 2 == 0 ? "1"
                                : "bullet"
                        ),
                        b % 3 == 0
                            ? OfTable(new Edge(one, true), new Edge(other, true), a)
                            : new Format(
                                new Edge(new LetterId(LetterId.Own, 0), false),
                                new Edge(new LetterId(LetterId.Own, 0), true),
                                Trait.Link,
                                "https://clock.example/"
                            ),
                    ]
                ),
            }
        );
    }

    private static Shape ShapeOf(int a, int b) =>
        (a % 5) switch
        {
            4 => new Shape(ShapeKind.Connector, [new Corner(a, b), new Corner(b + 900, a)], ConnectorOf(a, b).Detail),
            0 => new Shape(ShapeKind.Line, [new Corner(a, b), new Corner(b + 500, a)]),
            1 => new Shape(ShapeKind.Circle, [new Corner(a, b), new Corner(a + 300, b)]),
            2 => new Shape(
                ShapeKind.Rectangle,
                [new Corner(a, b), new Corner(a + 900, b), new Corner(a + 900, b + 400), new Corner(a, b + 400)]
            ),
            _ => new Shape(ShapeKind.Wave, [new Corner(a, b), new Corner(a + 2000, b), new Corner(a + 100, b - 200)], 1 + a % 9)
            {
                Pressure = b % 2 == 0 ? [] : [a, b, 1023, 0],
            },
        };

    private static ConnectorLook ConnectorOf(int a, int b) =>
        new((ConnectorRoute)(a % 3), (ConnectorEnd)(b % 3), (ConnectorEnd)((a + b) % 3));

    /// <summary>Something is joined to something, whatever either is, itself among it.</summary>
    private static ItemValue LeanOf(OpId other, int a, int b) =>
        new((ItemField)((int)ItemField.From + b % 3), a % 4 == 0 ? "" : other.ToString());

    private static ItemValue ItemValueOf(int a, int b) =>
        (b % 8) switch
        {
            0 => new ItemValue(ItemField.Colour, "b4533cff"),
            1 => new ItemValue(ItemField.Width, (10 + a).ToString(System.Globalization.CultureInfo.InvariantCulture)),
            2 => new ItemValue(ItemField.Pen, (1 + a % 6).ToString(System.Globalization.CultureInfo.InvariantCulture)),
            3 => new ItemValue(ItemField.Layer, a % 5 == 0 ? "" : Node(a % 4).ToString()),
            4 => new ItemValue(ItemField.Order, (a - 500).ToString(System.Globalization.CultureInfo.InvariantCulture)),
            5 => new ItemValue(ItemField.Shape, ShapeOf(b, a).ToText()),
            6 => new ItemValue(ItemField.Locked, a % 2 == 0 ? "1" : ""),
            _ => new ItemValue(ItemField.Fill, a % 2 == 0 ? "4f738880" : ""),
        };

    private static LayerValue LayerValueOf(int a, int b) =>
        (b % 7) switch
        {
            0 => new LayerValue(LayerField.Hidden, a % 2 == 0 ? "1" : ""),
            1 => new LayerValue(LayerField.Order, OrderKey.Between(null, null, (ulong)a)),
            2 => new LayerValue(LayerField.Opacity, (1 + a % 100).ToString(System.Globalization.CultureInfo.InvariantCulture)),
            3 => new LayerValue(LayerField.MergedInto, a % 3 == 0 ? "" : Node(1 + (a + 1) % 3).ToString()),
            4 => new LayerValue(LayerField.Erased, a % 2 == 0 ? "1" : ""),
            _ => new LayerValue(LayerField.Name, $"layer {a}"),
        };

    private static SpotValue[] Values(int chance) =>
        [
            new SpotValue(SpotField.Mark, MarkKinds.All[chance % 4]),
            new SpotValue(SpotField.Target, "https://clock.example/"),
            new SpotValue(SpotField.Level, "1"),
            new SpotValue(SpotField.Note, $"first {chance}"),
        ];

    /// <summary>
    /// What three people did to a library: folders, notebooks and tags made, moved into each other, named, tagged, merged, binned, erased, visited.
    /// </summary>
    public static readonly Gen<List<Operation>> LibraryHistory = Gen.Select(
            Gen.Int[0, 12],
            Gen.Int[0, 2],
            Gen.Int[1, 13],
            Gen.Int[0, 13],
            Gen.Int[0, 1000]
        )
        .Array[1, 60]
        .Select(steps =>
        {
            var devices = People.Select((person, i) => new Replica((ulong)i * 16 + 7, person)).ToArray();
            var history = new List<Operation>();
            foreach (var (what, who, node, parent, chance) in steps)
            {
                Change change = what switch
                {
                    0 => new Change.PropertySet(Node(node), Property.Name, $"name {chance}"),
                    1 => new Change.PropertySet(Node(node), Property.Binned, chance % 2 == 0 ? "" : "1700000000000"),
                    2 => new Change.TagSet(Node(node), Node(10 + chance % 4), chance % 3 > 0),
                    3 => new Change.PropertySet(
                        Node(10 + node % 4),
                        Property.MergedInto,
                        chance % 5 == 0 ? "" : Node(10 + chance % 4).ToString()
                    ),
                    4 when chance % 4 == 0 => new Change.PropertySet(Node(node), Property.Erased, "1700000000000"),
                    5 => new Change.Visited(Node(99), Node(node)),
                    _ => new Change.NodePlaced(
                        Node(node),
                        KindOf(node),
                        Node(
                            node < 10 ? Math.Min(parent, 5)
                            : parent < 10 ? 0
                            : parent
                        ),
                        OrderKey.Between(null, null, (ulong)chance)
                    ),
                };
                history.Add(devices[who].Make(change, 1_700_000_000_000 + history.Count * 50 + chance));
            }

            return history;
        });

    /// <summary>What three people did to a notebook: sections and pages made, moved into each other, titled, tagged, binned, moved away.</summary>
    public static readonly Gen<List<Operation>> NotebookHistory = Gen.Select(
            Gen.Int[0, 9],
            Gen.Int[0, 2],
            Gen.Int[1, 12],
            Gen.Int[0, 12],
            Gen.Int[0, 1000]
        )
        .Array[1, 50]
        .Select(steps =>
        {
            var devices = People.Select((person, i) => new Replica((ulong)i * 16 + 7, person)).ToArray();
            var history = new List<Operation>();
            foreach (var (what, who, entry, parent, chance) in steps)
            {
                Change change = what switch
                {
                    0 => new Change.PropertySet(Node(entry), Property.Name, $"title {chance}"),
                    1 => new Change.PropertySet(Node(entry), Property.Binned, chance % 2 == 0 ? "" : "1700000000000"),
                    2 => new Change.TagSet(Node(entry), Node(50 + chance % 3), chance % 3 > 0),
                    3 when chance % 4 == 0 => new Change.PropertySet(Node(entry), Property.MovedTo, Node(98).ToString()),
                    4 when entry > 4 => new Change.PageAdded(Node(entry), OrderKey.Between(null, null, (ulong)chance), "a4-ruled-710"),
                    _ => new Change.NodePlaced(
                        Node(entry),
                        entry <= 4 ? NodeKind.Section : NodeKind.Page,
                        Node(parent),
                        OrderKey.Between(null, null, (ulong)chance)
                    ),
                };
                history.Add(devices[who].Make(change, 1_700_000_000_000 + history.Count * 50 + chance));
            }

            return history;
        });

    /// <summary>In a generated library, nodes 1 to 5 are folders, 6 to 9 notebooks, 10 to 13 tags.</summary>
    public static NodeKind KindOf(int node) =>
        node < 6 ? NodeKind.Folder
        : node < 10 ? NodeKind.Notebook
        : NodeKind.Tag;

    /// <summary>A question to a generated library.</summary>
    public static readonly Gen<Rule> Rule = RuleOf(3);

    private static Gen<Rule> RuleOf(int depth)
    {
        var leaf = Gen.Select(Gen.Int[0, 7], Gen.Int[0, 12])
            .Select(
                (what, which) =>
                    (Rule)(
                        what switch
                        {
                            0 => new Rule.Tagged(Node(10 + which % 5)),
                            1 => new Rule.OfKind((EntryKind)(1 + which % 4)),
                            2 => new Rule.Written(new Span(Span.Names[which % Span.Names.Length])),
                            3 => new Rule.Created(new Span(which % 2 == 0 ? "2023-11-01/2023-11-30" : "/2023-11-14")),
                            4 => new Rule.Starred(),
                            5 => new Rule.By(People[which % 3]),
                            6 => new Rule.Within(Node(which % 6)),
                            _ => new Rule.Titled(which.ToString(System.Globalization.CultureInfo.InvariantCulture)),
                        }
                    )
            );
        if (depth == 0)
            return leaf;
        var inner = RuleOf(depth - 1);
        return Gen.Select(Gen.Int[0, 5], leaf, inner.Array[0, 3])
            .Select(
                (what, one, more) =>
                    what switch
                    {
                        0 => new Rule.All(more),
                        1 => new Rule.Any(more),
                        2 when more.Length > 0 => new Rule.Not(more[0]),
                        _ => one,
                    }
            );
    }

    /// <summary>Node 0 is the root.</summary>
    public static Guid Node(int number) => number == 0 ? Guid.Empty : new Guid(number, 0, 0x4000, 0x80, 0, 0, 0, 0, 0, 0, 1);

    /// <summary>An ordinary handwritten wave of so many samples, for tests that need one stroke.</summary>
    public static StrokeSamples Wave(int count, int x = 3000, int y = 5000) =>
        new(
            [.. Enumerable.Range(0, count).Select(i => x + i * 40)],
            [.. Enumerable.Range(0, count).Select(i => y + (int)(250 * Math.Sin(i * 0.35)))],
            [.. Enumerable.Range(0, count).Select(i => 400 + (int)(200 * Math.Sin(i * 0.2)))],
            [.. Enumerable.Range(0, count).Select(i => i * 8)]
        );

    private static StrokeSamples Walk(int count, int[] start, int[] steps, int[] pressure, int[] pace, bool tilt)
    {
        int[] x = new int[count],
            y = new int[count],
            time = new int[count];
        for (var i = 0; i < count; i++)
        {
            x[i] = (i == 0 ? start[0] : x[i - 1]) + steps[2 * i];
            y[i] = (i == 0 ? start[1] : y[i - 1]) + steps[2 * i + 1];
            time[i] = i == 0 ? 0 : time[i - 1] + pace[i];
        }

        return tilt
            ? new StrokeSamples(x, y, pressure, time, [.. pace.Select(p => p - 10)], [.. pace.Select(p => 10 - p)])
            : new StrokeSamples(x, y, pressure, time);
    }
}
