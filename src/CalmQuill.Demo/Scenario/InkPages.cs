using CalmQuill.Core.Ink;
using CalmQuill.Core.Shapes;
using CalmQuill.Demo.Hand;
using static CalmQuill.Demo.Hand.Drawings;

namespace CalmQuill.Demo.Scenario;

/// <summary>Pages that show what ink can do: every pen, drawings of true shapes with joined ends and fills, layers with hidden answers, curtains.</summary>
internal static class InkPages
{
    private const uint Gold = 0xC08A2EFF,
        Lichen = 0x7C8A4BFF,
        GoldFill = 0xE3B23C55,
        SkyFill = 0x4F738840,
        MadderFill = 0xB4533C38;

    /// <summary>Two wheels in mesh by their pitch circles, with centre lines, measures and a table whose lines meet.</summary>
    public static void SetOut(PageWriter writer)
    {
        Point one = new(68, 92),
            other = new(116, 92);
        writer.Shape(ShapeKind.Circle, PageWriter.Sky, 45, SkyFill, one, one + new Point(32, 0));
        writer.Shape(ShapeKind.Circle, PageWriter.Madder, 45, MadderFill, other, other + new Point(16, 0));
        writer.Shape(ShapeKind.Circle, PageWriter.Sky, 35, 0, one, one + new Point(4, 0));
        writer.Shape(ShapeKind.Circle, PageWriter.Madder, 35, 0, other, other + new Point(3, 0));
        writer.Shape(
            new Shape(ShapeKind.Line, [Corner.At(3000, 9200), Corner.At(14200, 9200)]),
            new Pen(PenKind.Ball, 30, PageWriter.Ink) { Line = LineStyle.Dashed }
        );
        writer.Shape(
            new Shape(ShapeKind.Line, [Corner.At(6800, 5400), Corner.At(6800, 13000)]),
            new Pen(PenKind.Ball, 30, PageWriter.Ink) { Line = LineStyle.Dashed }
        );
        writer.Shape(
            new Shape(ShapeKind.DoubleArrow, [Corner.At(6800, 13400), Corner.At(11600, 13400)]),
            new Pen(PenKind.Ball, 35, PageWriter.Ink)
        );
        writer.Shape(ShapeKind.Arrow, PageWriter.Plum, 45, 0, new Point(146, 64), new Point(124, 82));
        writer.Text("64", 52, 84, 8, Hand(PageWriter.Sky));
        writer.Text("32", 111, 85, 8, Hand(PageWriter.Madder));
        writer.Text("48 mm", 84, 132, 6.5, Hand(PageWriter.Ink));
        writer.Text("pitch circles touch", 132, 62, 6.5, Hand(PageWriter.Plum));
        // A table whose ruled lines meet its frame.
        writer.Shape(
            ShapeKind.Rectangle,
            PageWriter.Ink,
            40,
            0,
            new Point(30, 160),
            new Point(170, 160),
            new Point(170, 200),
            new Point(30, 200)
        );
        foreach (var x in new[] { 80.0, 125 })
            writer.Shape(ShapeKind.Line, PageWriter.Ink, 35, 0, new Point(x, 160), new Point(x, 200));
        foreach (var y in new[] { 172.0, 186 })
            writer.Shape(ShapeKind.Line, PageWriter.Ink, 35, 0, new Point(30, y), new Point(170, y));
        writer.Fill(50, 166, GoldFill);
        writer.Fill(100, 166, GoldFill);
        writer.Fill(150, 166, GoldFill);
        (string, double, double)[] cells =
        [
            ("wheel", 34, 169),
            ("teeth", 84, 169),
            ("diameter", 129, 169),
            ("great", 34, 183),
            ("64", 84, 183),
            ("64 mm", 129, 183),
            ("second", 34, 197),
            ("32", 84, 197),
            ("32 mm", 129, 197),
        ];
        foreach (var (text, x, y) in cells)
            writer.Text(text, x, y, 6.8, Hand(PageWriter.Ink));
        writer.Text("diameter = teeth x module, here 1 mm", 30, 216, 7, Hand(PageWriter.Ink));
        writer.Shape(ShapeKind.Triangle, Lichen, 45, 0x7C8A4B40, new Point(40, 250), new Point(75, 250), new Point(75, 230));
        writer.Shape(
            ShapeKind.RegularPolygon,
            Gold,
            45,
            GoldFill,
            [.. Enumerable.Range(0, 6).Select(i => new Point(105, 240).Polar(13, i * 60))]
        );
        writer.Shape(
            ShapeKind.Star,
            PageWriter.Madder,
            40,
            MadderFill,
            [.. Enumerable.Range(0, 10).Select(i => new Point(148, 241).Polar(i % 2 == 0 ? 14 : 5.4, i * 36 - 90))]
        );
    }

    /// <summary>A line of writing with each pen, and broken lines below.</summary>
    public static void EveryPen(PageWriter writer)
    {
        (PenKind Kind, int Width, uint Colour, string Words)[] pens =
        [
            (PenKind.Ball, 45, PageWriter.Ink, "ball pen: even, whatever the hand"),
            (PenKind.Fountain, 60, PageWriter.Spruce, "fountain pen: swells with the hand"),
            (PenKind.Brush, 140, PageWriter.Madder, "brush: tapers, thins when hurried"),
            (PenKind.Pencil, 60, PageWriter.Ink, "pencil: takes to the paper's grain"),
            (PenKind.Calligraphy, 130, PageWriter.Plum, "calligraphy pen: broad and fine"),
        ];
        for (var i = 0; i < pens.Length; i++)
        {
            var (kind, width, colour, words) = pens[i];
            writer.Text(
                words,
                21,
                PageWriter.Baseline(2 + i * 2.2),
                9.5,
                new Pen(kind, width, colour) { Angle = kind == PenKind.Calligraphy ? 140 : 0 }
            );
        }

        writer.Line(13, "the highlighter lies behind the words, and two passes darken a little");
        writer.Highlight(13, 30, 118);
        writer.Highlight(13, 84, 150, 0x7FB8C966);
        foreach (var (style, y) in new[] { (LineStyle.Dashed, 15.2), (LineStyle.Dotted, 16.4) })
            writer.Shape(
                new Shape(
                    ShapeKind.Wave,
                    [
                        Corner.At(2100, PageWriter.Baseline(y) * 100),
                        Corner.At(16000, PageWriter.Baseline(y) * 100),
                        Corner.At(2700, PageWriter.Baseline(y) * 100 - 300),
                    ],
                    12
                ),
                new Pen(PenKind.Ball, 60, PageWriter.Sky) { Line = style }
            );
        writer.Write(Spiral(new(50, 185), 20, 4), new Pen(PenKind.Pencil, 90, PageWriter.Ink));
        writer.Write(Spiral(new(102, 185), 20, 4), new Pen(PenKind.Brush, 180, PageWriter.Spruce));
        writer.Write(Spiral(new(154, 185), 20, 4), new Pen(PenKind.Calligraphy, 170, PageWriter.Plum) { Angle = 140 });
        writer.Line(26, "mainsprings, drawn with pencil, brush and flat nib");
    }

    /// <summary>Questions on the page, answers on a layer that is hidden, and two curtains.</summary>
    public static void AskYourself(PageWriter writer)
    {
        writer.Line(1, "How many turns does the escape wheel make in an hour?");
        writer.Line(2, "64 x 60 over 8 x 8, once an hour at the centre");
        writer.Line(7, "How long is a seconds pendulum?");
        writer.Line(13, "Name the parts:");
        writer.Draw(EscapeWheel(new(92, 172), 26, 30));
        writer.DrawAll(Anchor(new(92, 172), 26), PageWriter.Madder, 60);
        writer.Shape(ShapeKind.Arrow, PageWriter.Plum, 40, 0, new Point(146, 150), new Point(121, 158));
        writer.Shape(ShapeKind.Arrow, PageWriter.Plum, 40, 0, new Point(40, 196), new Point(66, 184));
        writer.Layer("Answers", "k", true);
        writer.Line(4, "60 turns", PageWriter.Madder, 30);
        writer.Text("exit pallet", 148, 150, 7.6, Hand(PageWriter.Madder));
        writer.Text("escape wheel", 22, 203, 7.6, Hand(PageWriter.Madder));
        writer.On = Guid.Empty;
        writer.Line(9, "L = g x T x T / ( 4 x pi x pi ) = 0.994 m", PageWriter.Spruce, 26);
        writer.Curtain(22, PageWriter.Baseline(8) - 5, 186, PageWriter.Baseline(10) + 2, "Its T is two seconds. And L?");
        writer.Line(27, "beat error = half the difference", PageWriter.Spruce, 26);
        writer.Curtain(22, PageWriter.Baseline(26) - 4, 150, PageWriter.Baseline(28) + 2, "What is beat error?");
    }

    private static Pen Hand(uint colour) => new(PenKind.Fountain, 45, colour);
}
