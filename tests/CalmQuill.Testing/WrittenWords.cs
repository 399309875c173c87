using CalmQuill.Core.Ink;
using CalmQuill.Demo.Hand;

namespace CalmQuill.Testing;

/// <summary>Letters and words as many hands write them: slanted, wide or narrow, printed or joined, with tremor, and with a rest of the pen at the end.</summary>
public static class WrittenWords
{
    /// <summary>How many different hands there are.</summary>
    public const int Hands = 20;

    private static readonly string[] Words =
    [
        .. "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789".Select(letter => letter.ToString()),
        "mm",
        "mmm",
        "eee",
        "nn",
        "ll",
        "ee",
        "wave",
        "minimum",
        "clock",
        "pallet",
        "wheel",
        "verge",
        "anchor",
        "lemon",
        "summer",
        "uncommon",
        "oil",
        "noon",
        "cell",
        "second",
    ];

    private static readonly SingleLineFont[] Fonts =
    [
        .. Directory.GetFiles(Path.Combine(Repository.Fonts, "svg_fonts"), "EMS*.svg").Order().Select(SingleLineFont.Load),
    ];

    /// <summary>The strokes of one word.</summary>
    /// <param name="hand">Which hand, 0 to 19.</param>
    /// <param name="height">How high it is with all that reaches up and down, mm.</param>
    /// <param name="random">Chance.</param>
    public static (string Word, List<StrokeSamples> Strokes) Write(int hand, double height, Random random)
    {
        var word = Words[random.Next(Words.Length)];
        var own = new Random(hand);
        var (slant, wide, joined, speed) = (
            own.NextDouble() * 0.7 - 0.25,
            0.75 + own.NextDouble() * 0.5,
            hand % 2 == 1,
            40 + own.NextDouble() * 60
        );
        var drawn = Fonts[hand % Fonts.Length].Lines(word, 0, 0, 10).Where(line => line.Count > 1).ToList();
        double top = drawn.SelectMany(line => line).Min(point => point.Y),
            bottom = drawn.SelectMany(line => line).Max(point => point.Y);
        var scale = height / Math.Max(bottom - top, 4);
        var lines = drawn
            .Select(line =>
                (List<Point>)
                    [
                        .. line.Select(point => new Point(
                            20 + (point.X - point.Y * slant) * wide * scale + Wobble(),
                            60 + point.Y * scale + Wobble()
                        )),
                    ]
            )
            .ToList();
        // A joined hand lifts the pen for nothing within a word: one letter runs into the next.
        if (joined && lines.Count > 1 && word.Length > 1)
            lines =
            [
                [.. lines.SelectMany(line => line)],
            ];
        var pen = new PenHand(random, speed);
        return (word, [.. lines.Select(line => Rest(pen.Follow(line)))]);

        double Wobble() => (random.NextDouble() - 0.5) * height * 0.04;
    }

    /// <summary>The pen stays where it is for most of a second, and shakes.</summary>
    private static StrokeSamples Rest(StrokeSamples stroke)
    {
        const int many = 40;
        int[] With(IReadOnlyList<int> values, Func<int, int> more) => [.. values, .. Enumerable.Range(1, many).Select(more)];
        return new StrokeSamples(
            With(stroke.X, i => stroke.X[^1] + i % 3 - 1),
            With(stroke.Y, i => stroke.Y[^1] + i % 2),
            With(stroke.Pressure, _ => stroke.Pressure[^1]),
            With(stroke.Time, i => stroke.Time[^1] + 20 * i)
        );
    }
}
