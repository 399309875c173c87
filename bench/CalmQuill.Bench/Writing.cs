using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Demo.Hand;
using CalmQuill.Testing;

namespace CalmQuill.Bench;

/// <summary>Five thousand strokes of ordinary writing with sensor jitter, about 95,000 points, the same in every run.</summary>
public static class Writing
{
    public const int StrokeCount = 5000;
    private const string Text =
        "one tooth passes at each swing the pallets stop the wheel then give the bob a small push longer rod slower beat ";

    public static List<Operation> Strokes(Guid author, int count = StrokeCount)
    {
        var random = new Random(5480);
        var hand = new PenHand(random);
        var font = SingleLineFont.Load(Path.Combine(Repository.Fonts, "svg_fonts/EMSReadability.svg"));
        var replica = new Replica(99, author);
        var clock = 1_700_000_000_000L;
        var strokes = new List<Operation>(count);
        for (double x = 15, y = 12; ; x += 3.2)
        {
            foreach (var letter in Text)
            {
                foreach (var line in font.Lines(letter.ToString(), x, y, 6.2))
                {
                    var samples = hand.Follow(line);
                    strokes.Add(
                        replica.Make(
                            new Change.StrokeAdded(new Pen(PenKind.Fountain, 55, 0x22302EFF), clock, samples),
                            clock + samples.Time[^1]
                        )
                    );
                    clock += samples.Time[^1] + 80 + random.Next(120);
                    if (strokes.Count == count)
                        return strokes;
                }

                x += font.Width(letter.ToString()) * 6.2 + 0.2;
                if (x > 195)
                    (x, y) = (15 + hand.Wobble(0.5), y + 5 > 290 ? 12.6 : y + 5);
            }
        }
    }
}
