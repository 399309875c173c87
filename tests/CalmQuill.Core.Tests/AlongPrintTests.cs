using CalmQuill.Core.Printed;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>A highlighter that is drawn along printed words lies on them.</summary>
public sealed class AlongPrintTests
{
    /// <summary>Two lines of five words each, 10 mm long and 2 mm apart, of type of 5 mm.</summary>
    private static readonly PrintedWord[] Words =
    [
        .. Enumerable
            .Range(0, 10)
            .Select(i => new PrintedWord(1_000 + i % 5 * 1_200, 2_000 + i / 5 * 700, 2_000 + i % 5 * 1_200, 2_000 + i / 5 * 700, 500)),
    ];

    [Fact]
    public void It_lies_straight_over_the_words_it_went_over_as_high_as_they_are()
    {
        // From the middle of the second word to the middle of the fourth, not quite straight, a little too high.
        var along = AlongPrint.Of([2_650, 1_800, 3_500, 1_740, 4_400, 1_830, 5_150, 1_790], Words)!;
        Assert.Equal([1, 2, 3], along.Words);
        Assert.Equal((2_200.0, 5_600.0), (along.X1, along.X2));
        Assert.Equal(along.Y1, along.Y2);
        Assert.Equal(2_000 - 500 * 0.26, along.Y1, 6);
        Assert.Equal(525, along.Width, 6);
    }

    [Fact]
    public void Drawn_backwards_it_is_the_same() =>
        Assert.Equal(AlongPrint.Of([2_650, 1_800, 5_150, 1_790], Words)!.Words, AlongPrint.Of([5_150, 1_790, 2_650, 1_800], Words)!.Words);

    [Theory]
    // A dot, a line across the lines, one between them that touches neither, one beyond all words, a scribble.
    [InlineData(2_650, 1_800, 2_700, 1_800)]
    [InlineData(2_650, 1_800, 2_700, 2_900)]
    [InlineData(1_000, 3_400, 6_000, 3_400)]
    [InlineData(7_900, 1_900, 9_900, 1_900)]
    [InlineData(1_200, 1_800, 4_000, 3_000, 1_400, 1_700, 4_200, 1_800)]
    public void What_was_not_drawn_along_words_stays_as_it_is(params double[] stroke) => Assert.Null(AlongPrint.Of(stroke, Words));

    [Fact]
    public void Of_two_lines_it_takes_the_nearer_and_no_word_of_the_other()
    {
        Assert.Equal([5, 6, 7, 8, 9], AlongPrint.Of([1_000, 2_500, 6_800, 2_520], Words)!.Words);
        Assert.Equal([0, 1, 2, 3, 4], AlongPrint.Of([1_000, 1_800, 6_800, 1_950], Words)!.Words);
    }

    [Fact]
    public void However_the_page_is_turned_it_lies_on_the_same_words() =>
        Gen.Select(Gen.Double[-Math.PI, Math.PI], Gen.Double[0.3, 4], Gen.Double[-3_000, 3_000], Gen.Double[-3_000, 3_000])
            .Sample(
                (angle, size, x, y) =>
                {
                    var (cos, sin) = (Math.Cos(angle) * size, Math.Sin(angle) * size);
                    (double X, double Y) Turned(double a, double b) => (a * cos - b * sin + x, a * sin + b * cos + y);
                    var words = Words
                        .Select(word =>
                        {
                            var ((x1, y1), (x2, y2)) = (Turned(word.X1, word.Y1), Turned(word.X2, word.Y2));
                            return new PrintedWord(x1, y1, x2, y2, word.Height * size);
                        })
                        .ToList();
                    double[] plain = [2_650, 1_800, 3_500, 1_740, 4_400, 1_830, 5_150, 1_790];
                    List<double> stroke = [];
                    for (var i = 0; i < plain.Length; i += 2)
                    {
                        var (a, b) = Turned(plain[i], plain[i + 1]);
                        stroke.AddRange([a, b]);
                    }

                    var along = AlongPrint.Of(stroke, words)!;
                    Assert.Equal([1, 2, 3], along.Words);
                    var (begin, end) = (Turned(2_200, 1_870), Turned(5_600, 1_870));
                    Assert.Equal(
                        0,
                        Math.Abs(along.X1 - begin.X)
                            + Math.Abs(along.Y1 - begin.Y)
                            + Math.Abs(along.X2 - end.X)
                            + Math.Abs(along.Y2 - end.Y),
                        3
                    );
                }
            );

    [Fact]
    public void Whatever_is_printed_and_drawn_nothing_breaks() =>
        Gen.Select(
                Gen.Double.Array[0, 12],
                Gen.Select(
                    Gen.Double[-1e7, 1e7],
                    Gen.Double[-1e7, 1e7],
                    Gen.Double[-1e7, 1e7],
                    Gen.Double[-1e7, 1e7],
                    Gen.Double[-10, 1e5],
                    (a, b, c, d, h) => new PrintedWord(a, b, c, d, h)
                ).Array[0, 8]
            )
            .Sample((stroke, words) => Assert.True(AlongPrint.Of(stroke, words) is null or { Words.Count: > 0 }));
}
