using System.Globalization;
using System.Text;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;
using CalmQuill.Demo.Hand;

namespace CalmQuill.Demo.Scenario;

/// <summary>Fills one page with a person's hand, as the operations that a tablet would have sent.</summary>
public sealed class PageWriter(Replica replica, SingleLineFont font, Random random, DateTimeOffset from)
{
    public const uint Ink = 0x22302EFF,
        Spruce = 0x1F3D3AFF,
        Madder = 0xB4533CFF,
        Sky = 0x4F7388FF,
        Plum = 0x6E4A63FF;
    private const double LineHeight = 7.1;
    private const double TextSize = 7.6;
    private const double FirstBaseline = 31.95 - 0.9;
    private readonly PenHand hand = new(random);
    private readonly List<Operation> operations = [];
    private double clock = from.ToUnixTimeMilliseconds();

    public IReadOnlyList<Operation> Operations => operations;

    /// <summary>Puts a mark, link or heading on what was written from an operation on.</summary>
    /// <param name="first">How many operations there were before it was written.</param>
    /// <param name="kind">What it is.</param>
    /// <param name="values">What is said of it.</param>
    public Guid Spot(int first, SpotKind kind, params SpotValue[] values)
    {
        var strokes = operations.Skip(first).Where(operation => operation.Change is Change.StrokeAdded).ToList();
        var area = strokes
            .Select(operation => ((Change.StrokeAdded)operation.Change).Samples.Bounds())
            .Aggregate((one, other) => one.With(other));
        return Add(kind, area, [.. strokes.Select(operation => operation.Id)], values);
    }

    /// <summary>Puts one on a bare part of the page, in mm.</summary>
    public Guid SpotAt(double x, double y, SpotKind kind, params SpotValue[] values) =>
        Add(kind, new Box((int)(x * 100) - 350, (int)(y * 100) - 350, (int)(x * 100) + 350, (int)(y * 100) + 350), [], values);

    /// <summary>Ticks a mark off.</summary>
    public void Done(Guid spot)
    {
        clock += 60_000;
        operations.Add(replica.Make(new Change.SpotSet(spot, [new SpotValue(SpotField.Done, "1")]), (long)clock));
    }

    /// <summary>Adds a layer in front; what is written from now on lies on it.</summary>
    public Guid Layer(string name, string order, bool hidden)
    {
        var bytes = new byte[16];
        random.NextBytes(bytes);
        On = new Guid(bytes);
        List<LayerValue> values = [new LayerValue(LayerField.Name, name), new LayerValue(LayerField.Order, order)];
        if (hidden)
            values.Add(new LayerValue(LayerField.Hidden, "1"));
        Make(new Change.LayerSet(On, values));
        return On;
    }

    /// <summary>The layer that is written on.</summary>
    public Guid On { get; set; }

    /// <summary>A drawn shape; points in mm.</summary>
    public void Shape(ShapeKind kind, uint colour, int width, uint fill, params Point[] points) =>
        Shape(
            new Shape(kind, [.. points.Select(point => Corner.At(point.X * 100, point.Y * 100))]),
            new Pen(PenKind.Ball, width, colour),
            fill
        );

    public void Shape(Shape shape, Pen pen, uint fill = 0) => Make(new Change.ShapeAdded(shape, pen, fill, []) { Layer = On });

    /// <summary>Fills the region that what was drawn so far closes in round a spot, mm.</summary>
    public void Fill(double x, double y, uint colour)
    {
        var page = new PageDocument();
        foreach (var operation in operations)
            page.Apply(operation);
        if (RegionFill.At(page, Core.Papers.Paper.Default.Sheet(null), (int)(x * 100), (int)(y * 100), 150) is { } region)
            Shape(region, new Pen(PenKind.Ball, 10, Ink), colour);
    }

    /// <summary>A box of typed text; what stands between asterisks is bold.</summary>
    /// <param name="line">The ruled line that it begins on.</param>
    /// <param name="left">Where it begins, mm.</param>
    /// <param name="width">How long its lines are, mm.</param>
    /// <param name="paragraphs">Its paragraphs, and how each looks.</param>
    public void Typed(int line, double left, double width, params (string Text, (Trait Trait, string Value)[] Looks)[] paragraphs)
    {
        const int firstRule = 3_195,
            rule = 710;
        var text = new StringBuilder();
        var formats = new List<PassageFormat>();
        foreach (var (words, looks) in paragraphs)
        {
            var start = text.Length;
            foreach (var (part, i) in words.Split('*').Select((part, i) => (part, i)))
            {
                if (i % 2 == 1)
                    formats.Add(new PassageFormat(text.Length, text.Length + part.Length, Trait.Bold, "1"));
                text.Append(part);
            }

            text.Append('\n');
            formats.AddRange(looks.Select(look => new PassageFormat(start, text.Length, look.Trait, look.Value)));
        }

        text.Length--;
        Make(
            new Change.TextAdded(
                Transform.Shift((int)(left * 100), firstRule + (line - 1) * rule),
                (int)(width * 100),
                rule,
                new Passage(text.ToString(), formats),
                []
            )
            {
                Layer = On,
            }
        );
    }

    /// <summary>The files that were laid on the page: pictures and others.</summary>
    public List<byte[]> Files { get; } = [];

    /// <summary>A photograph, mm, with words under it.</summary>
    public void Picture(byte[] file, double left, double top, double width, double height, string caption)
    {
        Files.Add(file);
        Thing(ThingKind.Picture, left, top, width, height, caption, [new ItemValue(ItemField.Source, AssetId.Of(file).ToString())]);
    }

    /// <summary>A file that is kept with the page, mm.</summary>
    public void File(byte[] file, string name, double left, double top)
    {
        Files.Add(file);
        Make(
            new Change.ThingAdded(
                ThingKind.File,
                Transform.Shift((int)(left * 100), (int)(top * 100)),
                FileContent.UsualWidth,
                FileContent.UsualHeight,
                new Passage("", []),
                [
                    new ItemValue(ItemField.Source, AssetId.Of(file).ToString()),
                    new ItemValue(ItemField.FileName, name),
                    new ItemValue(ItemField.FileSize, file.Length.ToString(CultureInfo.InvariantCulture)),
                ]
            )
            {
                Layer = On,
            }
        );
    }

    /// <summary>A slip, mm, with words on it, pinned over what lies there.</summary>
    public void Slip(double left, double top, double width, double height, string words, uint paper) =>
        Make(
            new Change.ThingAdded(
                ThingKind.Slip,
                Transform.Shift((int)(left * 100), (int)(top * 100)),
                (int)(width * 100),
                (int)(height * 100),
                new Passage(words, [new PassageFormat(0, words.Length, Trait.Family, "hand")]),
                [new ItemValue(ItemField.Colour, paper.ToString("x8", CultureInfo.InvariantCulture)), new ItemValue(ItemField.Pinned, "1")]
            )
            {
                Layer = On,
            }
        );

    /// <summary>A plot, mm, with words under it.</summary>
    public OpId Plot(double left, double top, double width, double height, string caption, params ItemValue[] values) =>
        Thing(ThingKind.Plot, left, top, width, height, caption, values);

    /// <summary>A plot goes with a table from now on.</summary>
    public void Follow(OpId plot, OpId table) => Make(new Change.ItemsSet([plot], [new ItemValue(ItemField.Table, table.ToString())]));

    /// <summary>A table, mm, with a heading; what stands under its columns by their places.</summary>
    public OpId Table(double left, double top, int[] widths, int row, string cells, params (int Column, string Total)[] totals)
    {
        var rows = TableSheet.Read(cells);
        int[] heights = [.. rows.Select(_ => row)];
        var passage = TableEdit.New(
            widths,
            heights,
            edit =>
            {
                edit.Paste(0, 0, rows);
                foreach (var (column, total) in totals)
                    edit.SetTotal(column, total);
            }
        );
        return Make(
            new Change.ThingAdded(
                ThingKind.Table,
                Transform.Shift((int)(left * 100), (int)(top * 100)),
                widths.Sum(),
                heights.Sum(),
                passage,
                [new ItemValue(ItemField.Shows, TableLayout.Header)]
            )
            {
                Layer = On,
            }
        );
    }

    /// <summary>A shape, mm, with words in its middle.</summary>
    public OpId Box(ShapeKind kind, double left, double top, double width, double height, string words, uint fill = 0)
    {
        var shape = ShapeTool.Between(kind, left * 100, top * 100, (left + width) * 100, (top + height) * 100, false);
        var id = Make(new Change.ShapeAdded(shape, new Pen(PenKind.Ball, 40, Ink), fill, []) { Layer = On });
        var page = new PageDocument();
        page.Apply(operations[^1]);
        var added = ShapeWords.In(id, LabelRoom.Of((ShapeContent)page.Find(id)!.Content)!.Value, [], On);
        Make(added with { Passage = added.Passage with { Text = words } });
        return id;
    }

    /// <summary>A connector between two things.</summary>
    public void Connect(OpId from, OpId to, ConnectorRoute route)
    {
        var shape = Connecting.Between(0, 0, 100, 100, new ConnectorLook(route, ConnectorEnd.None, ConnectorEnd.Arrow));
        var id = Make(new Change.ShapeAdded(shape, new Pen(PenKind.Ball, 40, Sky), 0, []) { Layer = On });
        Make(new Change.ItemsSet([id], [new ItemValue(ItemField.From, from.ToString()), new ItemValue(ItemField.To, to.ToString())]));
    }

    private OpId Thing(ThingKind kind, double left, double top, double width, double height, string caption, ItemValue[] values) =>
        Make(
            new Change.ThingAdded(
                kind,
                Transform.Shift((int)(left * 100), (int)(top * 100)),
                (int)(width * 100),
                (int)(height * 100),
                new Passage(
                    caption,
                    [
                        new PassageFormat(0, caption.Length + 1, Trait.Style, "small"),
                        new PassageFormat(0, caption.Length + 1, Trait.Align, "centre"),
                    ]
                ),
                values
            )
            {
                Layer = On,
            }
        );

    /// <summary>A formula that begins on a line.</summary>
    /// <param name="left">Where it begins, mm.</param>
    /// <param name="line">The line.</param>
    /// <param name="typed">What is typed.</param>
    /// <param name="shows">Words that say what is done with it.</param>
    /// <param name="letter">The letter that it is worked out for; empty for the first that fits.</param>
    public void Formula(double left, double line, string typed, string shows, string letter = "") =>
        Make(
            new Change.ThingAdded(
                ThingKind.Formula,
                Transform.Shift((int)(left * 100), (int)Math.Round(Baseline(line) * 100)),
                ThingRules.LeastSide,
                ThingRules.LeastSide,
                new Passage(typed, []),
                [
                    new ItemValue(ItemField.Shows, shows),
                    .. letter.Length > 0 ? [new ItemValue(ItemField.Letter, letter)] : Array.Empty<ItemValue>(),
                ]
            )
            {
                Layer = On,
            }
        );

    /// <summary>A curtain over a part of the page, mm, with the question on it.</summary>
    public void Curtain(double left, double top, double right, double bottom, string question) =>
        Add(
            SpotKind.Curtain,
            new Box((int)(left * 100), (int)(top * 100), (int)(right * 100), (int)(bottom * 100)),
            [],
            [new SpotValue(SpotField.Note, question)]
        );

    /// <summary>A straight pass of the highlighter over a ruled line, mm.</summary>
    public void Highlight(double line, double from, double to, uint colour = 0xE3B23C66) =>
        Stroke(
            [new Point(from, Baseline(line) - 1.9), new Point((from + to) / 2, Baseline(line) - 1.8), new Point(to, Baseline(line) - 1.9)],
            new Pen(PenKind.Highlighter, 450, colour) { Tip = NibTip.Square },
            false
        );

    private OpId Make(Change change)
    {
        clock += 500;
        operations.Add(replica.Make(change, (long)clock));
        return operations[^1].Id;
    }

    private Guid Add(SpotKind kind, Box area, IReadOnlyList<OpId> items, SpotValue[] values)
    {
        var bytes = new byte[16];
        random.NextBytes(bytes);
        var spot = new Guid(bytes);
        clock += 800;
        operations.Add(replica.Make(new Change.SpotAdded(spot, kind, area, items, values), (long)clock));
        return spot;
    }

    /// <summary>The heading, in the head room above the first line.</summary>
    public void Title(string text) => Text(text, 21, 22, 14.5, new Pen(PenKind.Fountain, 72, Ink));

    /// <summary>A text on one of the ruled lines, counted from 1.</summary>
    public void Line(double line, string text, uint colour = Ink, double x = 21) =>
        Text(text, x, FirstBaseline + (line - 1) * LineHeight, TextSize, new Pen(PenKind.Fountain, 52, colour));

    /// <summary>A text on one of the ruled lines, in which what stands between <see cref="LessonLines.Struck"/> was crossed out at once.</summary>
    public void Lesson(double line, string text)
    {
        var x = 21.0;
        var struck = false;
        foreach (var part in text.Split(LessonLines.Struck, StringSplitOptions.None))
        {
            var words = part.Trim();
            var wide = words.Split(' ').Sum(word => font.Width(word) + 0.3) * TextSize;
            if (words.Length > 0)
            {
                Line(line, words, Ink, x);
                if (struck)
                    Write(
                        [
                            new Point(x - 1, Baseline(line) - 1.6),
                            new Point(x + wide / 2, Baseline(line) - 2.1),
                            new Point(x + wide - 1, Baseline(line) - 1.8),
                        ],
                        new Pen(PenKind.Fountain, 52, Ink)
                    );
                x += wide;
            }

            struck = !struck;
        }
    }

    public void Text(string text, double x, double y, double size, Pen pen)
    {
        foreach (var word in Words(text))
        {
            foreach (var line in font.Lines(word.Text, x + word.Offset * size + hand.Wobble(0.25), y + hand.Wobble(0.3), size))
                Stroke(line, pen, true);
            clock += 180 + random.Next(200);
        }

        clock += 600 + random.Next(900);
    }

    public void Draw(IEnumerable<Point> line, uint colour = Sky, int width = 45, bool rounded = false) =>
        Stroke([.. line], new Pen(PenKind.Ball, width, colour), rounded);

    /// <summary>One stroke with any pen.</summary>
    public void Write(IEnumerable<Point> line, Pen pen) => Stroke([.. line], pen, true);

    public void DrawAll(IEnumerable<List<Point>> lines, uint colour = Sky, int width = 45)
    {
        foreach (var line in lines)
            Draw(line, colour, width);
    }

    /// <summary>The height of a ruled line's baseline, mm.</summary>
    public static double Baseline(double line) => FirstBaseline + (line - 1) * LineHeight;

    private void Stroke(IReadOnlyList<Point> line, Pen pen, bool rounded)
    {
        var samples = hand.Follow(line, rounded);
        var startedAt = (long)clock;
        clock += samples.Time[^1] + 60 + random.Next(90);
        operations.Add(replica.Make(new Change.StrokeAdded(pen, startedAt, samples) { Layer = On }, (long)clock));
    }

    /// <summary>The words of a text with where each begins, in ems.</summary>
    private IEnumerable<(string Text, double Offset)> Words(string text)
    {
        var offset = 0.0;
        foreach (var word in text.Split(' '))
        {
            yield return (word, offset);
            offset += font.Width(word) + 0.3;
        }
    }
}
