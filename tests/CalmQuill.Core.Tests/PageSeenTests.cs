using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Links;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Seen;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>What is seen in all that is typed on a page, and what is laid down of an address.</summary>
public sealed class PageSeenTests : OnPage
{
    [Fact]
    public void What_is_seen_lies_where_its_letters_do_and_days_go_by_when_they_were_written()
    {
        // 14 November 2023, in the evening by UTC: a Tuesday, and in Tokyo a Wednesday.
        var text = Write("Ring Ines tomorrow\nat www.example.org");
        var seen = Seen();
        Assert.Equal(["2023-11-15", "https://www.example.org"], seen.Select(one => one.Part.Value));
        Assert.Equal(["tomorrow", "www.example.org"], seen.Select(one => one.Words));
        Assert.Equal("Ring Ines tomorrow", seen[0].Line);
        Assert.Equal((10, 18), (seen[0].Part.From, seen[0].Part.To));
        var (left, top, right, bottom) = Item(text).Bounds;
        Assert.All(
            seen.SelectMany(one => one.Corners).SelectMany(corners => corners),
            corner =>
                Assert.True(corner.X >= left - 1 && corner.X <= right + 1 && corner.Y >= top - 1 && corner.Y <= bottom + 1, $"{corner}")
        );
        Assert.True(seen[0].Corners.Single()[2].Y < seen[1].Corners.Single()[2].Y);
    }

    [Fact]
    public void Somewhere_else_it_may_be_another_day() =>
        Assert.Equal("2023-11-16", Seen(Write("tomorrow"), TimeSpan.FromHours(9)).Single().Part.Value);

    [Fact]
    public void It_follows_what_is_typed_and_what_is_gone_is_not_seen()
    {
        var text = Write("12 + 30");
        Assert.Equal("42", Seen().Single().Part.Value);
        Do(Tobias, new Change.TextTyped(text, new TextChange([Item(text).Typed.InsertionAt(7, "0")], [], [])));
        Assert.Equal("312", Seen().Single().Part.Value);
        UndoAll(Tobias);
        Assert.Equal("42", Seen().Single().Part.Value);
        Do(Ines, new Change.ItemsRemoved([text]));
        Assert.Empty(Seen());
    }

    [Fact]
    public void Formulas_are_no_sums_and_captions_are_read()
    {
        Do(Ines, new Change.ThingAdded(ThingKind.Formula, Transform.Shift(0, 0), 2_000, 1_000, new Passage("12 + 30", []), []));
        Assert.Empty(Seen());
        Do(
            Ines,
            new Change.ThingAdded(
                ThingKind.Picture,
                Transform.Shift(0, 9_000),
                2_000,
                1_000,
                new Passage("from example.org", []),
                [new ItemValue(ItemField.Source, Generate.Node(5).ToString())]
            )
        );
        Assert.Equal("https://example.org", Seen().Single().Part.Value);
    }

    [Fact]
    public void What_an_address_says_of_itself_is_laid_down_as_a_card_that_leads_there()
    {
        var card = new PreviewCard("https://example.org/verge", "The verge", "Clock room", "How pallets are cut.");
        var text = Do(Ines, card.At(1_000, 2_000, Guid.Empty, 0, 0)).Id;
        Assert.Equal("The verge\nClock room\nHow pallets are cut.", Item(text).Content.Words);
        var seen = Seen().Single();
        Assert.Equal(("The verge", "https://example.org/verge"), (seen.Words, seen.Part.Value));
        Assert.Equal(1_000, Item(text).Bounds.Left, 60.0);
        Assert.Equal(2_000, Item(text).Bounds.Top, 400.0);
        var picture = Do(Ines, card.At(1_000, 2_000, Generate.Node(5), 1_200, 630)).Id;
        var content = Assert.IsType<PictureContent>(Item(picture).Content);
        Assert.Equal("The verge\nClock room\nHow pallets are cut.", content.Typed.Text);
    }

    [Theory]
    [InlineData(1, 100_000)]
    [InlineData(100_000, 1)]
    [InlineData(0, 10)]
    [InlineData(10, -1)]
    public void A_picture_of_any_shape_can_be_laid_down(int across, int down)
    {
        var card = new PreviewCard("https://example.org", new string('T', 200), "", "a\nb\u0007c");
        Assert.True(Item(Do(Ines, card.At(0, 0, Generate.Node(5), across, down)).Id).Shown);
    }

    private List<SeenThing> Seen(OpId text = default, TimeSpan offset = default) =>
        [.. PageSeen.On(Page, offset).Where(one => text == default || one.Item == text)];

    private OpId Write(string words) =>
        Do(Ines, new Change.TextAdded(Transform.Shift(2_000, 3_000), 9_000, 0, new Passage(words, []), [])).Id;
}
