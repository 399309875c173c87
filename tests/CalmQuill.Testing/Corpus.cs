using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;

namespace CalmQuill.Testing;

/// <summary>
/// One history of each kind of document that holds every kind of change and every field, always the same: what is stored of it today must be readable
/// for ever. New kinds are added at the end; nothing here is ever changed.
/// </summary>
public static class Corpus
{
    public static readonly IReadOnlyDictionary<DocumentKind, IReadOnlyList<Operation>> Histories = new Dictionary<
        DocumentKind,
        IReadOnlyList<Operation>
    >
    {
        [DocumentKind.Library] = Signed(LibraryChanges()),
        [DocumentKind.Notebook] = Signed(NotebookChanges()),
        [DocumentKind.Page] = Signed(PageChanges()),
        [DocumentKind.Aside] = Signed(AsideChanges()),
    };

    /// <summary>Two devices by turns, one with a large number, one whose clock goes behind.</summary>
    private static List<Operation> Signed(IEnumerable<Change> changes)
    {
        Replica[] devices = [new(0xFEDC_BA98_7654_3210, Generate.People[0]), new(2, Generate.People[1])];
        return [.. changes.Select((change, i) => devices[i % 2].Make(change, 1_790_000_000_000 + i * 37 - i % 2 * 1_000))];
    }

    private static IEnumerable<Change> LibraryChanges()
    {
        Guid folder = Generate.Node(1),
            notebook = Generate.Node(2),
            tag = Generate.Node(3),
            lens = Generate.Node(4),
            paper = Generate.Node(5),
            mark = Generate.Node(6);
        yield return new Change.NodePlaced(folder, NodeKind.Folder, Guid.Empty, "WVabcdW");
        yield return new Change.NodePlaced(notebook, NodeKind.Notebook, folder, "V");
        yield return new Change.NodePlaced(tag, NodeKind.Tag, Guid.Empty, "W");
        yield return new Change.NodePlaced(lens, NodeKind.Lens, Guid.Empty, "X");
        yield return new Change.NodePlaced(paper, NodeKind.Paper, Guid.Empty, "Y");
        yield return new Change.NodePlaced(mark, NodeKind.MarkKind, Guid.Empty, "Z");
        yield return new Change.OrdersSet([new NodeOrder(folder, "WVabcdm"), new NodeOrder(tag, "WVabcdW")]);
        foreach (
            var (property, value) in new (Property, string)[]
            {
                (Property.Name, "Übung 水 👩🏽‍🔬"),
                (Property.Colour, "spruce"),
                (Property.Cover, "waves"),
                (Property.Binned, "1790000000000"),
                (Property.Paper, "a4-ruled-710-tint.f6ead0"),
                (Property.Icon, "book"),
                (Property.Pinned, "1"),
                (Property.Jot, "1"),
                (Property.MergedInto, tag.ToString()),
                (Property.Rule, """{"any":[{"starred":true},{"titled":"escapement"}]}"""),
                (Property.Erased, "1790000000000"),
                (Property.Starred, "1"),
                (Property.View, """{"as":"list"}"""),
                (Property.JotPreset, """{"paper":"a5-plain-0"}"""),
                (Property.TodayPreset, """{"paper":"a5-plain-0"}"""),
                (Property.BinDays, "90"),
                (Property.Terms, "2026-09-07/2026-12-18"),
                (Property.LensSpace, folder.ToString()),
                (Property.Source, paper.ToString()),
                (Property.Category, "Workshop"),
                (Property.Bookmarked, notebook.ToString()),
                (Property.Tray, "[]"),
                (Property.Palettes, "{}"),
                (Property.Habits, "{}"),
            }
        )
            yield return new Change.PropertySet(notebook, property, value);
        yield return new Change.TagSet(notebook, tag, true);
        yield return new Change.TagSet(folder, tag, false);
        yield return new Change.Visited(Generate.Node(9), notebook);
        yield return new Change.PropertySet(Generate.Node(7), Property.Aside, """{"title":"Beats"}""");
        yield return new Change.PropertySet(Guid.Empty, Property.Told, "1790000000000");
    }

    private static IEnumerable<Change> NotebookChanges()
    {
        Guid section = Generate.Node(1),
            page = Generate.Node(2),
            sub = Generate.Node(3);
        yield return new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V");
        yield return new Change.PageAdded(page, "W", "a5.across-cornell-710-head.2500");
        yield return new Change.NodePlaced(sub, NodeKind.Page, page, "X");
        yield return new Change.OrdersSet([new NodeOrder(page, "A"), new NodeOrder(section, "B")]);
        foreach (
            var (property, value) in new (Property, string)[]
            {
                (Property.Name, "First bench day"),
                (Property.Colour, "madder"),
                (Property.Paper, "letter-grid-500"),
                (Property.MovedTo, ""),
                (Property.Planner, "2026-09-07/2026-12-18 monday year,term,month,week,day,notes en"),
                (Property.Entry, """{"start":"2026-10-08T09:00","end":"2026-10-08T10:30","title":"Workshop"}"""),
                (Property.Turning, "seamless"),
                (Property.Binned, "-5"),
                (Property.Erased, ""),
            }
        )
            yield return new Change.PropertySet(page, property, value);
        yield return new Change.TagSet(page, Generate.Node(8), true);
        yield return new Change.PropertySet(Generate.Node(6), Property.Moment, "1790000000000 before the exam");
    }

    private static byte[] Ink() =>
        OperationCodec.Encode(
            new Operation(
                new OpId(1, 1),
                Hlc.At(1),
                Guid.Empty,
                new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0x1F3D3AFF), 1_789_999_999_000, Generate.Wave(4))
            )
        );

    private static IEnumerable<Change> AsideChanges()
    {
        yield return new Change.StrokeAdded(new Pen(PenKind.Pencil, 50, 0x1F3D3AFF), 1_789_999_999_000, Generate.Wave(5));
        yield return new Change.ItemsAnchored(
            [new OpId(0xFEDC_BA98_7654_3210, 1)],
            new OpId(0xFEDC_BA98_7654_3210, 40),
            new Transform(0, Transform.One, -Transform.One, 0, 29700, 5)
        );
    }

    private static IEnumerable<Change> PageChanges()
    {
        Guid layer = Generate.Node(1);
        OpId first = new(0xFEDC_BA98_7654_3210, 1),
            second = new(2, 1);
        var tilted = new StrokeSamples([0, 40, 90], [10, -20, 15], [100, 512, 1023], [0, 8, 17], [0, 12, -30], [5, 5, 6]);
        yield return new Change.StrokeAdded(new Pen(PenKind.Ball, 35, 0x1F3D3AFF), 1_789_999_999_000, Generate.Wave(12));
        yield return new Change.StrokeAdded(
            new Pen(PenKind.Calligraphy, 120, 0xB4533CFF)
            {
                Line = LineStyle.Dashed,
                Tip = NibTip.Square,
                Angle = 40,
                Response = -30,
            },
            1_789_999_999_500,
            tilted
        )
        {
            Layer = layer,
        };
        foreach (var kind in new[] { PenKind.Fountain, PenKind.Brush, PenKind.Pencil, PenKind.Highlighter })
            yield return new Change.StrokeAdded(new Pen(kind, 50, 0x10203060), 0, Generate.Wave(4, 8_000, 9_000));
        yield return new Change.ItemsRemoved([second]);
        yield return new Change.ItemsShifted([first, second], 250, -75);
        yield return new Change.GapsAdded([new StrokeGaps(first, [new Interval(300, 900), new Interval(1_200, 1_300)])]);
        yield return new Change.EffectSet(new OpId(0xFEDC_BA98_7654_3210, 4), false);
        yield return new Change.EffectSet(new OpId(2, 4), true);
        yield return new Change.SpotAdded(
            Generate.Node(2),
            SpotKind.Mark,
            new Box(100, 200, 800, 900),
            [first],
            [
                new SpotValue(SpotField.Mark, "todo"),
                new SpotValue(SpotField.Note, "Ölstein\nbringen"),
                new SpotValue(SpotField.Due, "2026-10-09"),
                new SpotValue(SpotField.Person, Generate.People[1].ToString()),
            ]
        );
        yield return new Change.SpotAdded(
            Generate.Node(3),
            SpotKind.Link,
            new Box(-100, 0, 50, 60),
            [],
            [new SpotValue(SpotField.Target, "https://clock.example/"), new SpotValue(SpotField.Title, "The clock")]
        );
        yield return new Change.SpotAdded(
            Generate.Node(4),
            SpotKind.Heading,
            new Box(0, 0, 1, 1),
            [],
            [new SpotValue(SpotField.Level, "2")]
        );
        yield return new Change.SpotAdded(Generate.Node(5), SpotKind.Curtain, new Box(0, 0, 5_000, 5_000), [], []);
        yield return new Change.SpotSet(Generate.Node(2), [new SpotValue(SpotField.Done, "1"), new SpotValue(SpotField.Removed, "")]);
        yield return new Change.ItemsTransformed([first], [Generate.Node(3)], Transform.Scale(1.25, 40, -60));
        var points = new List<Corner> { new(0, 0), new(900, 0), new(900, 400), new(0, 400) };
        foreach (var kind in Enum.GetValues<ShapeKind>().Where(kind => kind <= ShapeKind.Polyline))
            yield return new Change.ShapeAdded(new Shape(kind, points, 3), new Pen(PenKind.Ball, 40, 0x224466FF), 0x7C8A4B80, [second])
            {
                Layer = layer,
            };
        yield return new Change.ItemsSet(
            [first],
            [
                new ItemValue(ItemField.Colour, "b4533cff"),
                new ItemValue(ItemField.Width, "80"),
                new ItemValue(ItemField.Pen, "3"),
                new ItemValue(ItemField.Line, "2"),
                new ItemValue(ItemField.Fill, "4f738880"),
                new ItemValue(ItemField.Shape, new Shape(ShapeKind.Rectangle, points).ToText()),
                new ItemValue(ItemField.Layer, layer.ToString()),
                new ItemValue(ItemField.Order, "-7"),
                new ItemValue(ItemField.Group, Generate.Node(7).ToString()),
                new ItemValue(ItemField.Locked, "1"),
            ]
        );
        yield return new Change.LayerSet(
            layer,
            [
                new LayerValue(LayerField.Name, "Corrections"),
                new LayerValue(LayerField.Order, "X"),
                new LayerValue(LayerField.Hidden, ""),
                new LayerValue(LayerField.Locked, "1"),
                new LayerValue(LayerField.Opacity, "60"),
                new LayerValue(LayerField.MergedInto, ""),
                new LayerValue(LayerField.Erased, ""),
            ]
        );
        yield return new Change.StepsJoined([first, new OpId(0xFEDC_BA98_7654_3210, 2)]);
        yield return new Change.AnswerAdded(Generate.Node(3), "Two beats a second: π·√(l/g)", [Generate.People[1]], Ink());
        yield return new Change.AnswerWithdrawn(new OpId(2, 9));
        yield return new Change.TextAdded(
            new Transform(0, Transform.One, -Transform.One, 0, 12_000, 3_195),
            14_000,
            710,
            new Passage(
                "Beats\nπ·√(l/g)",
                [
                    new PassageFormat(0, 6, Trait.Style, "heading"),
                    new PassageFormat(6, 7, Trait.Italic, "1"),
                    new PassageFormat(6, 15, Trait.List, "tick"),
                ]
            ),
            [
                new ItemValue(ItemField.Measure, "9000"),
                new ItemValue(ItemField.Ruling, "0"),
                new ItemValue(ItemField.Edge, "b4533cff"),
                new ItemValue(ItemField.EdgeWidth, "25"),
                new ItemValue(ItemField.Corner, "200"),
                new ItemValue(ItemField.Padding, "150"),
            ]
        )
        {
            Layer = layer,
        };
        yield return new Change.TextTyped(
            second,
            new TextChange(
                [new Insertion(LetterId.Start, false, "So "), new Insertion(new LetterId(first, 4), true, "it swings")],
                [new LetterSpan(first, 2, 3), new LetterSpan(LetterId.Own, 1, 1)],
                [
                    new Format(new Edge(LetterId.Start, true), new Edge(LetterId.End, true), Trait.Align, "justified"),
                    new Format(new Edge(new LetterId(LetterId.Own, 0), false), new Edge(new LetterId(second, 7), true), Trait.Size, "145"),
                ]
            )
        );
        yield return new Change.ThingAdded(
            ThingKind.Picture,
            new Transform(Transform.One / 2, 0, 0, Transform.One / 2, 3_000, 4_500),
            12_000,
            9_000,
            new Passage("The pallets", [new PassageFormat(0, 12, Trait.Align, "centre")]),
            [
                new ItemValue(ItemField.Source, Generate.Node(5).ToString()),
                new ItemValue(ItemField.Original, Generate.Node(6).ToString()),
                new ItemValue(ItemField.Cleared, "45"),
                new ItemValue(ItemField.Cut, "0,0 10000,0 5000,10000"),
            ]
        )
        {
            Layer = layer,
        };
        yield return new Change.ThingAdded(
            ThingKind.Slip,
            Transform.Shift(2_000, 900),
            7_000,
            5_000,
            new Passage("", []),
            [new ItemValue(ItemField.Colour, "f3e2a4ff")]
        );
        yield return new Change.ItemsSet(
            [first, second],
            [
                new ItemValue(ItemField.Opacity, "80"),
                new ItemValue(ItemField.Brightness, "-15"),
                new ItemValue(ItemField.Contrast, "30"),
                new ItemValue(ItemField.Height, "8000"),
                new ItemValue(ItemField.Folded, "1"),
                new ItemValue(ItemField.Within, first.ToString()),
            ]
        );
        yield return new Change.ThingAdded(
            ThingKind.Plot,
            Transform.Shift(2_000, 900),
            11_000,
            7_500,
            new Passage("", []),
            [
                new ItemValue(ItemField.Range, "-5 5 -2.5 1E+3"),
                new ItemValue(ItemField.Axes, "l in m\nT in s"),
                new ItemValue(ItemField.Shows, "plain marks degrees"),
                new ItemValue(ItemField.Curve1, "1f5f8bff y = 2 pi sqrt(x/9.81)"),
                new ItemValue(ItemField.Curve2, "b4533cff x² + y² = 9"),
                new ItemValue(ItemField.Curve3, "7c8a4bff sin x"),
                new ItemValue(ItemField.Curve4, "6e4a63ff x"),
                new ItemValue(ItemField.Curve5, "c08a2eff 2"),
                new ItemValue(ItemField.Curve6, "22302eff |x|"),
                new ItemValue(ItemField.Data1, "1f5f8bff 5 0.25 1.003 1 2.006"),
                new ItemValue(ItemField.Data2, "b4533cff 0"),
                new ItemValue(ItemField.Data3, "7c8a4bff 2 1 1 2 2.5"),
            ]
        );
        yield return new Change.ThingAdded(
            ThingKind.Table,
            Transform.Shift(2_000, 900),
            9_000,
            1_600,
            TableEdit.New([3_000, 0], [800, 0]),
            [new ItemValue(ItemField.Shows, "header")]
        );
        yield return new Change.TextTyped(
            first,
            new TextChange(
                [new Insertion(new LetterId(first, 4), false, "\n12.5\n")],
                [],
                [
                    Of(0, 5, Trait.Cell, "1 2"),
                    Of(0, 5, Trait.Span, "2 2"),
                    Of(0, 5, Trait.Fill, "f3e2a4ff"),
                    new Format(new Edge(new LetterId(first, 0), true), new Edge(new LetterId(first, 1), true), Trait.Gone, "1"),
                    new Format(new Edge(new LetterId(first, 2), true), new Edge(new LetterId(first, 3), true), Trait.Total, "mean"),
                ]
            )
        );
        yield return new Change.ThingAdded(
            ThingKind.File,
            Transform.Shift(1_200, 3_400),
            6_500,
            1_500,
            new Passage("", []),
            [
                new ItemValue(ItemField.Source, Generate.Node(7).ToString()),
                new ItemValue(ItemField.FileName, "drawing of the crutch.dxf"),
                new ItemValue(ItemField.FileSize, "1234567"),
            ]
        );
        yield return new Change.ShapeAdded(
            new Shape(
                ShapeKind.Connector,
                [new(0, 0), new(900, 400)],
                new ConnectorLook(ConnectorRoute.Bent, ConnectorEnd.Dot, ConnectorEnd.Arrow).Detail
            ),
            new Pen(PenKind.Ball, 40, 0x224466FF),
            0,
            []
        )
        {
            Layer = layer,
        };
        yield return new Change.ItemsSet(
            [first],
            [
                new ItemValue(ItemField.From, first.ToString()),
                new ItemValue(ItemField.To, second.ToString()),
                new ItemValue(ItemField.Holder, second.ToString()),
            ]
        );
        yield return new Change.ThingAdded(
            ThingKind.Formula,
            Transform.Shift(1_200, 5_600),
            1_000,
            1_000,
            new Passage("T = 2 pi sqrt(L/g)", []),
            [new ItemValue(ItemField.Shows, "solve steps"), new ItemValue(ItemField.Letter, "L")]
        );
        yield return new Change.ItemsSet([second], [new ItemValue(ItemField.Table, first.ToString())]);
        yield return new Change.ItemsSet([second], [new ItemValue(ItemField.Pinned, "1")]);
        yield return new Change.ItemsSet([first], [new ItemValue(ItemField.Leaf, "12")]);

        static Format Of(int from, int to, Trait trait, string value) =>
            new(new Edge(new LetterId(LetterId.Own, from), true), new Edge(new LetterId(LetterId.Own, to), true), trait, value);
    }
}
