using CalmQuill.Core.Ink;
using CalmQuill.Demo.Hand;

namespace CalmQuill.Testing;

/// <summary>Pages of lines as ten hands write them, with which stroke belongs to which line and word: printed letters of single strokes, slopes, lines that wander, i-dots and dashes.</summary>
public static class WrittenPages
{
    public const int Hands = 10;

    private static readonly string[] Words =
    [
        .. "the clock in our hall will still tell if all little bells fall silent at night while oil and levers ills lull it until a jig of springs jumps, and Lily fills William's gallery: ink, quill, lamp; twelve o'clock - light falls lightly on yellow pages which I hold still".Split(
            ' '
        ),
    ];

    private static readonly SingleLineFont[] Fonts =
    [
        .. Directory.GetFiles(Path.Combine(Repository.Fonts, "svg_fonts"), "EMS*.svg").Order().Select(SingleLineFont.Load),
    ];

    /// <summary>A stroke with the line and the word it belongs to, counted on the page.</summary>
    public readonly record struct Stroke(StrokeSamples Samples, int Line, int Word);

    /// <summary>A page of eight lines in one hand, the lines sloping by so many degrees, down to the right where positive.</summary>
    public static List<Stroke> Write(int hand, double slope, Random random)
    {
        var own = new Random(hand * 17 + 1);
        double size = 4.2 + own.NextDouble() * 1.6,
            slant = own.NextDouble() * 0.5 - 0.15,
            wide = 0.85 + own.NextDouble() * 0.35,
            spacing = size * (1.55 + own.NextDouble() * 0.5),
            space = size * (0.42 + own.NextDouble() * 0.2);
        var joined = hand % 5 == 4;
        var (font, pen) = (Fonts[hand % Fonts.Length], new PenHand(random, 50 + own.NextDouble() * 40));
        var strokes = new List<Stroke>();
        var word = 0;
        for (var line = 0; line < 8; line++)
        {
            // Each line begins a little elsewhere, slopes a little otherwise, and wanders.
            double begin = 20 + (random.NextDouble() - 0.5) * 3,
                foot = 40 + line * spacing + (random.NextDouble() - 0.5) * spacing * 0.16,
                tilt = Math.Tan((slope + (random.NextDouble() - 0.5) * 0.8) * Math.PI / 180),
                phase = random.NextDouble() * 6,
                wander = spacing * 0.05 * random.NextDouble();
            var count = 5 + random.Next(4);
            for (var i = 0; i < count; i++, word++)
            {
                var drawn = font.Lines(Words[random.Next(Words.Length)], 0, 0, size).Where(way => way.Count > 1).ToList();
                var hop = (random.NextDouble() - 0.5) * size * 0.08;
                Point Placed(Point p)
                {
                    var x = begin + (p.X - p.Y * slant) * wide;
                    return new Point(x, foot + p.Y + hop + wander * Math.Sin(x / 25 + phase) + (x - 20) * tilt);
                }

                List<List<Point>> ways = [.. drawn.Select(way => way.Select(Placed).ToList())];
                // A joined hand lifts the pen for dots and bars alone.
                if (joined)
                {
                    var bodies = ways.Where(way => Extent(way) > size * 0.22).ToList();
                    ways =
                    [
                        [.. bodies.SelectMany(way => way)],
                        .. ways.Where(way => Extent(way) <= size * 0.22),
                    ];
                    ways.RemoveAll(way => way.Count < 2);
                }

                strokes.AddRange(ways.Select(way => new Stroke(pen.Follow(way), line, word)));
                if (ways.Count > 0)
                    begin = ways.Max(way => way.Max(p => p.X)) + space * (0.75 + random.NextDouble() * 0.6);
            }
        }

        return strokes;
    }

    private static double Extent(List<Point> way) => Math.Max(way.Max(p => p.X) - way.Min(p => p.X), way.Max(p => p.Y) - way.Min(p => p.Y));
}
