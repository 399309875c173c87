using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using CsCheck;
using Xunit;

namespace CalmQuill.Core.Tests;

public sealed class WrittenPartTests
{
    private static readonly Box Sheet = new(0, 0, 21_000, 29_700);
    private static readonly Pen Thin = new(PenKind.Ball, 10, 0x22302EFF);
    private readonly Replica hand = new(1, Guid.NewGuid());
    private readonly PageDocument page = new();
    private long now = 1_000;

    private OpId Dot(int x, int y)
    {
        var stroke = hand.Make(new Change.StrokeAdded(Thin, 1, new StrokeSamples([x], [y], [500], [0])), ++now);
        page.Apply(stroke);
        return page.Items.Single(item => item.Bounds.Meets(new Box(x, y, x, y))).Id;
    }

    [Fact]
    public void An_empty_page_and_a_full_one_are_shown_whole()
    {
        Assert.Equal(Sheet, WrittenPart.Of(page, Sheet));
        Dot(1_000, 1_000);
        Dot(20_000, 29_000);
        Assert.Equal(Sheet, WrittenPart.Of(page, Sheet));
    }

    [Fact]
    public void Three_lines_at_the_head_are_shown_twice_as_large()
    {
        Dot(2_000, 2_000);
        Dot(10_000, 6_000);
        var part = WrittenPart.Of(page, Sheet);
        Assert.Equal((10_500, 14_850), (part.Right - part.Left, part.Bottom - part.Top));
        // From a margin above the first line.
        Assert.InRange(part.Top, 1_000, 2_000);
    }

    [Fact]
    public void What_is_taken_away_or_lies_beyond_the_sheet_counts_for_nothing()
    {
        Dot(2_000, 2_000);
        var before = WrittenPart.Of(page, Sheet);
        var far = Dot(20_000, 29_000);
        Assert.Equal(Sheet, WrittenPart.Of(page, Sheet));
        page.Apply(hand.Make(new Change.ItemsRemoved([far]), ++now));
        Dot(60_000, 70_000);
        Assert.Equal(before, WrittenPart.Of(page, Sheet));
    }

    [Fact]
    public void It_lies_within_the_sheet_holds_all_ink_on_it_and_has_its_shape() =>
        Gen.Select(Gen.Int[0, 21_000], Gen.Int[0, 29_700])
            .List[1, 12]
            .Sample(spots =>
            {
                var test = new WrittenPartTests();
                foreach (var (x, y) in spots.Distinct())
                    test.page.Apply(test.hand.Make(new Change.StrokeAdded(Thin, 1, new StrokeSamples([x], [y], [500], [0])), ++test.now));
                var part = WrittenPart.Of(test.page, Sheet);
                Assert.True(part.Left >= 0 && part.Top >= 0 && part.Right <= Sheet.Right && part.Bottom <= Sheet.Bottom, $"{part}");
                Assert.All(
                    spots,
                    spot => Assert.True(part.Meets(new Box(spot.Item1, spot.Item2, spot.Item1, spot.Item2)), $"{spot} {part}")
                );
                Assert.Equal(21_000.0 / 29_700, (part.Right - part.Left) / (double)(part.Bottom - part.Top), 0.001);
            });
}
