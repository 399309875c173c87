using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>When the pen rests, words stay words, and what was drawn as a shape of some size comes out true.</summary>
public sealed class HandwritingTests : OnPage
{
    [Theory]
    [InlineData(11)]
    [InlineData(21)]
    [InlineData(31)]
    [InlineData(41)]
    [InlineData(51)]
    [InlineData(91)]
    [InlineData(81)]
    [InlineData(71)]
    [InlineData(61)]
    public void None_of_2000_words_and_letters_of_20_hands_becomes_a_shape_when_the_pen_rests(int seed)
    {
        const int words = 2_000;
        var random = new Random(seed);
        var wrong = new List<string>();
        for (var i = 0; i < words; i++)
        {
            // 3 to 12 mm, all hands alike often.
            var (hand, height) = (i % WrittenWords.Hands, 3 + 9 * random.NextDouble());
            var (word, strokes) = WrittenWords.Write(hand, height, random);
            // What of the word is written already lies on the page, as a shaft or barb might.
            var page = new PageDocument();
            foreach (var stroke in strokes)
            {
                if (
                    (
                        Tidying.AtRest(stroke, page, Ines.Author, 0, Handwriting.UsualLeast) ?? Tidying.AtLift(stroke, page, Ines.Author, 0)
                    ) is
                    { } result
                )
                    wrong.Add($"{word} of hand {hand}, {height:F1} mm: {result.Shape.Kind}");
                page.Apply(Ines.Make(new Change.StrokeAdded(Ball, 0, stroke), 0));
            }
        }

        Assert.True(wrong.Count == 0, $"{wrong.Count} were changed: {string.Join("; ", wrong.Take(20))}");
    }

    [Fact]
    public void What_is_drawn_as_a_shape_comes_out_true_when_the_pen_rests_but_for_lines_with_corners_and_curves()
    {
        var random = new Random(12);
        foreach (var kind in RoughShapes.Kinds)
        {
            var (large, taken) = (0, 0);
            for (var i = 0; i < 300; i++)
            {
                var strokes = RoughShapes.Draw(kind, random);
                if (strokes.Count > 1)
                    continue;
                var box = strokes[0].Bounds();
                // Larger than what might as well be a large letter.
                if (Math.Max(box.Right - box.Left, box.Bottom - box.Top) < Handwriting.UsualLeast * 1.6)
                    continue;
                large++;
                if (Tidying.AtRest(strokes[0], Page, Ines.Author, 0, Handwriting.UsualLeast) is not null)
                    taken++;
            }

            if (kind is ShapeKind.Polyline or ShapeKind.Curve)
                Assert.InRange(taken / (double)large, 0, 0.03);
            else
                Assert.True(taken >= large * 0.9, $"{kind}: {taken} of {large}");
        }
    }

    [Fact]
    public void How_large_a_shape_must_be_is_the_persons_choice_and_a_head_drawn_to_a_shaft_may_be_small()
    {
        StrokeSamples Ring(int radius) =>
            new(
                [.. Enumerable.Range(0, 60).Select(i => (int)(5_000 + radius * Math.Cos(i * Math.PI * 2 / 59)))],
                [.. Enumerable.Range(0, 60).Select(i => (int)(5_000 + radius * Math.Sin(i * Math.PI * 2 / 59)))],
                [.. Enumerable.Repeat(500, 60)],
                [.. Enumerable.Range(0, 60).Select(i => i * 8)]
            );
        ShapeKind? AtRest(StrokeSamples stroke, int least) => Tidying.AtRest(stroke, Page, Ines.Author, Now, least)?.Shape.Kind;
        Assert.Null(AtRest(Ring(500), 1_500));
        Assert.Equal(ShapeKind.Circle, AtRest(Ring(500), 800));
        Assert.Equal(ShapeKind.Circle, AtRest(Ring(950), 1_500));
        Assert.Null(AtRest(Ring(900), 4_000));
        // A shaft of 20 mm, and a head of 5.
        var shaft = Put(new Shape(ShapeKind.Line, [At(1_000, 1_000), At(3_000, 1_000)]));
        var head = new StrokeSamples(
            [.. Enumerable.Range(0, 41).Select(i => 2_650 + (i <= 20 ? i : 40 - i) * 17)],
            [.. Enumerable.Range(0, 41).Select(i => 700 + i * 15)],
            [.. Enumerable.Repeat(500, 41)],
            [.. Enumerable.Range(0, 41).Select(i => i * 8)]
        );
        var result = Tidying.AtRest(head, Page, Ines.Author, Item(shaft).StartedAt + 1_000, 1_500);
        Assert.Equal((ShapeKind.Arrow, shaft), (result?.Shape.Kind, result?.Replaces[0]));
    }
}
