using CalmQuill.Documents.Pdf;
using SkiaSharp;

namespace CalmQuill.Demo.Hand;

/// <summary>PDF files as other programs make them: the slides of a lesson, and the leaflet that came with a movement. What they say of clocks is true, the rest is made up.</summary>
public static class PrintedSheets
{
    private static readonly SKColor Ink = new(0x22, 0x30, 0x2E),
        Accent = new(0xB4, 0x53, 0x3C),
        Soft = new(0x6B, 0x6A, 0x5E),
        Ground = new(0xF3, 0xEE, 0xE1);

    /// <summary>So wide and high slides are, points.</summary>
    public const int SlideWidth = 720,
        SlideHeight = 405;

    private static readonly (string Title, string[] Words, Action<SKCanvas, SKPaint>? Draw)[] Slides =
    [
        ("How an escapement counts", ["Wednesday class, lesson 7", "Contents: a wheel of 30 teeth, recoil, deadbeat"], null),
        (
            "What it does",
            [
                "It lets the train go on by one tooth at a time.",
                "It gives the pendulum a small push at each beat.",
                "The pendulum counts: two beats to a tooth.",
            ],
            null
        ),
        (
            "A wheel of 30 teeth",
            [
                "A pendulum that beats seconds",
                "lets one tooth go in two seconds:",
                "30 teeth, 60 seconds.",
                "Its arbor can carry the seconds hand.",
            ],
            (canvas, line) => Wheel(canvas, line, 560, 235, 110, 30)
        ),
        (
            "Recoil",
            [
                "The tooth has dropped onto the pallet,",
                "and the pendulum swings on.",
                "The slanting face pushes the wheel",
                "back a little: the seconds hand trembles.",
            ],
            (canvas, line) => Pallet(canvas, line, back: true)
        ),
        (
            "Deadbeat",
            [
                "The locking face is part of a circle",
                "about the arbor of the pallets.",
                "While the pendulum swings on",
                "the wheel stands still.",
            ],
            (canvas, line) => Pallet(canvas, line, back: false)
        ),
        (
            "To take home",
            [
                "Count the teeth of your escape wheel.",
                "Beats an hour = 2 × teeth × its turns an hour.",
                "Does it agree with the length of the pendulum?",
            ],
            null
        ),
    ];

    /// <summary>How many slides there are.</summary>
    public static int SlideCount => Slides.Length;

    /// <summary>The slides as a PDF file.</summary>
    public static byte[] Lesson() =>
        File(
            "How an escapement counts",
            document =>
            {
                using var title = Font("serif-bold", 34);
                using var words = Font("sans", 20);
                using var small = Font("sans", 12);
                for (var i = 0; i < Slides.Length; i++)
                {
                    var slide = Slides[i];
                    var canvas = document.BeginPage(SlideWidth, SlideHeight);
                    using var ground = Fill(Ground);
                    using var band = Fill(Accent);
                    using var ink = Fill(Ink);
                    using var soft = Fill(Soft);
                    using var line = Line(Accent, 4);
                    canvas.DrawRect(0, 0, SlideWidth, 10, ground);
                    canvas.DrawRect(48, 92, 72, 4, band);
                    canvas.DrawText(slide.Title, 48, 76, SKTextAlign.Left, title, ink);
                    for (var k = 0; k < slide.Words.Length; k++)
                        canvas.DrawText(slide.Words[k], 48, 142 + 34 * k, SKTextAlign.Left, words, ink);
                    slide.Draw?.Invoke(canvas, line);
                    canvas.DrawText($"{i + 1}", SlideWidth - 48, SlideHeight - 24, SKTextAlign.Right, small, soft);
                    canvas.DrawNamedDestinationAnnotation(new SKPoint(0, 0), $"slide{i}");
                    if (i == 0)
                        canvas.DrawLinkDestinationAnnotation(new SKRect(48, 156, 560, 184), "slide2");
                    document.EndPage();
                }
            }
        );

    /// <summary>The leaflet, two pages of A5.</summary>
    public static byte[] Leaflet() =>
        File(
            "Movement LS 21",
            document =>
            {
                using var title = Font("serif-bold", 26);
                using var head = Font("sans-bold", 12);
                using var words = Font("serif", 11.5f);
                using var ink = Fill(Ink);
                using var line = Line(Soft, 0.6f);
                const float left = 40,
                    right = 380;
                var canvas = document.BeginPage(420, 595);
                canvas.DrawText("Movement LS 21", left, 70, SKTextAlign.Left, title, ink);
                canvas.DrawText("Eight days, striking on a bell", left, 92, SKTextAlign.Left, words, ink);
                string[][] rows =
                [
                    ["Beats an hour", "7,200"],
                    ["Length of the pendulum, as it counts", "248 mm"],
                    ["Centre wheel, third wheel", "72, 64 teeth"],
                    ["Their pinions", "8, 8 leaves"],
                    ["Escape wheel", "50 teeth"],
                    ["Turns of the escape wheel an hour", "72"],
                ];
                canvas.DrawText("In figures", left, 140, SKTextAlign.Left, head, ink);
                for (var i = 0; i < rows.Length; i++)
                {
                    var y = 168 + 26 * i;
                    canvas.DrawText(rows[i][0], left, y, SKTextAlign.Left, words, ink);
                    canvas.DrawText(rows[i][1], right, y, SKTextAlign.Right, words, ink);
                    canvas.DrawLine(left, y + 8, right, y + 8, line);
                }

                using (var drawn = Line(Ink, 1.2f))
                    Wheel(canvas, drawn, 210, 450, 80, 50);
                document.EndPage();
                canvas = document.BeginPage(420, 595);
                canvas.DrawText("Setting it up", left, 70, SKTextAlign.Left, title, ink);
                string[] steps =
                [
                    "1.  Stand it level, and hang the pendulum on its spring.",
                    "2.  Listen: both beats are to be as long as each other.",
                    "     If they are not, move the crutch to the longer side.",
                    "3.  One turn of the nut below the bob is half a minute a day.",
                    "     To the right it goes faster.",
                    "4.  Oil the pivots and the pallets, a drop each, never the teeth.",
                ];
                for (var i = 0; i < steps.Length; i++)
                    canvas.DrawText(steps[i], left, 110 + 24 * i, SKTextAlign.Left, words, ink);
                document.EndPage();
            }
        );

    private static byte[] File(string title, Action<SKDocument> draw)
    {
        using var stream = new MemoryStream();
        var about = new SKDocumentPdfMetadata
        {
            Title = title,
            Author = "Lantern Street",
            Creation = DateTime.UnixEpoch,
            Modified = DateTime.UnixEpoch,
        };
        using (var document = SKDocument.CreatePdf(stream, about))
        {
            draw(document);
            document.Close();
        }

        return stream.ToArray();
    }

    private static SKFont Font(string name, float size) =>
        new(SKTypeface.FromStream(typeof(PdfExport).Assembly.GetManifestResourceStream(name)), size);

    private static SKPaint Fill(SKColor colour) => new() { Color = colour, IsAntialias = true };

    private static SKPaint Line(SKColor colour, float width) =>
        new()
        {
            Color = colour,
            StrokeWidth = width,
            IsStroke = true,
            IsAntialias = true,
            StrokeJoin = SKStrokeJoin.Round,
            StrokeCap = SKStrokeCap.Round,
        };

    /// <summary>An escape wheel: pointed teeth that lean forward, a rim, and spokes.</summary>
    private static void Wheel(SKCanvas canvas, SKPaint line, float x, float y, float radius, int teeth)
    {
        SKPoint At(double turn, double share) =>
            new(x + (float)(Math.Sin(turn * Math.Tau) * radius * share), y - (float)(Math.Cos(turn * Math.Tau) * radius * share));
        using var outline = new SKPathBuilder();
        outline.MoveTo(At(0, 0.84));
        for (var i = 0; i < teeth; i++)
        {
            outline.LineTo(At((i + 0.55) / teeth, 1));
            outline.LineTo(At((i + 0.7) / teeth, 0.84));
            outline.LineTo(At((i + 1.0) / teeth, 0.84));
        }

        outline.Close();
        using var path = outline.Detach();
        canvas.DrawPath(path, line);
        canvas.DrawCircle(x, y, radius * 0.7f, line);
        canvas.DrawCircle(x, y, radius * 0.12f, line);
        for (var i = 0; i < 4; i++)
            canvas.DrawLine(At(i / 4.0 + 0.125, 0.12), At(i / 4.0 + 0.125, 0.7), line);
    }

    /// <summary>A tooth against a pallet, and which way the wheel is pushed.</summary>
    private static void Pallet(SKCanvas canvas, SKPaint line, bool back)
    {
        canvas.DrawLine(500, 330, 560, 210, line);
        canvas.DrawLine(560, 210, 575, 330, line);
        using var face = new SKPathBuilder();
        face.MoveTo(540, 120);
        if (back)
            face.LineTo(610, 240);
        else
            face.QuadTo(585, 170, 570, 240);
        face.LineTo(650, 215);
        face.LineTo(600, 105);
        face.Close();
        using var path = face.Detach();
        canvas.DrawPath(path, line);
        if (!back)
            return;
        canvas.DrawLine(600, 360, 520, 360, line);
        canvas.DrawLine(520, 360, 534, 352, line);
        canvas.DrawLine(520, 360, 534, 368, line);
    }
}
