using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tests;

/// <summary>A box of text as a thing on a page.</summary>
public sealed class TextContentTests : OnPage
{
    private const int Left = 4_000,
        Foot = 9_585,
        Width = 6_000;

    [Fact]
    public void It_reaches_from_its_first_line_down_to_its_last_and_is_found_selected_and_rubbed_out_as_a_whole()
    {
        var text = Put("one\ntwo");
        var box = Item(text).Bounds;
        Assert.Equal((Left, Left + Width), (box.Left, box.Right));
        // Letters of 12 pt reach 0.95 of 4.23 mm up from the first line and 0.3 down from the second, 7.1 mm below.
        Assert.InRange(box.Top, Foot - 404, Foot - 401);
        Assert.InRange(box.Bottom, Foot + 710 + 126, Foot + 710 + 129);
        Assert.Equal(text, Assert.Single(Selecting.At(Page, Left + 5_000, Foot + 300, 0, ItemFilter.All)).Id);
        Assert.Empty(Selecting.At(Page, Left + 5_000, Foot - 600, 0, ItemFilter.All));
        Assert.Empty(Selecting.At(Page, Left + 5_000, Foot + 300, 0, ItemFilter.All with { Kinds = ItemKinds.Ink }));
        var pass = new EraserPass(Page, 100, false);
        pass.MoveTo(Left + 100, Foot);
        Assert.Null(pass.End());
        pass = new EraserPass(Page, 100, true);
        pass.MoveTo(Left + 100, Foot);
        Do(Tobias, pass.End()!);
        Assert.False(Item(text).Shown);
    }

    [Fact]
    public void It_grows_with_what_is_typed_and_is_nothing_while_it_is_empty()
    {
        var text = Put("");
        Assert.Empty(Item(text).Visible());
        var typed = Type(text, 0, "a\nb\nc");
        Assert.NotEmpty(Item(text).Visible());
        var tall = Item(text).Bounds;
        Assert.InRange(tall.Bottom, Foot + 2 * 710 + 120, Foot + 2 * 710 + 130);
        Do(Ines, new Change.EffectSet(typed, false));
        Assert.Empty(Item(text).Visible());
        Do(Ines, new Change.EffectSet(typed, true));
        Assert.Equal(tall, Item(text).Bounds);
        // A box that is filled is seen also when nothing stands in it.
        var box = Put("", new ItemValue(ItemField.Fill, "e3b23cff"));
        Assert.NotEmpty(Item(box).Visible());
    }

    [Fact]
    public void What_is_typed_before_its_text_has_arrived_is_there_when_it_has()
    {
        var text = Ines.Make(Added("swings"), Now);
        var typed = Tobias.Make(
            new Change.TextTyped(text.Id, new TextChange([new Insertion(new LetterId(text.Id, 5), false, " slowly")], [], [])),
            Now
        );
        Page.Apply(typed);
        Assert.Empty(Page.Items);
        Page.Apply(text);
        Assert.Equal("swings slowly", Item(text.Id).Content.Words);
        // What is taken back before it has arrived is never seen.
        var other = Tobias.Make(new Change.TextTyped(text.Id, new TextChange([new Insertion(LetterId.Start, false, "It ")], [], [])), Now);
        Page.Apply(Tobias.Make(new Change.EffectSet(other.Id, false), Now));
        Page.Apply(other);
        Assert.Equal("swings slowly", Item(text.Id).Content.Words);
    }

    [Fact]
    public void Longer_lines_another_ruling_and_another_place_are_fields_and_steps_as_of_anything()
    {
        var text = Put("one two three four five six");
        var content = (TextContent)Item(text).Content;
        var lines = content.Set.Paragraphs[0].Paragraph.Lines.Count;
        Do(Tobias, new Change.ItemsSet([text], [new ItemValue(ItemField.Measure, "2000"), new ItemValue(ItemField.Ruling, "0")]));
        Assert.True(content.Set.Paragraphs[0].Paragraph.Lines.Count > lines);
        Assert.Equal(Left + 2_000, Item(text).Bounds.Right);
        Do(Ines, new Change.ItemsTransformed([text], [], new Transform(0, Transform.One, -Transform.One, 0, 20_000, 0)));
        // Turned by a right angle about the sheet's corner and moved: x' = 20000 − y, y' = x.
        Assert.Equal(20_000 - Foot, Item(text).Content is TextContent turned ? turned.Place.E : 0, 0.5);
        Assert.Equal(Left, Item(text).Bounds.Top, 1.0);
        Assert.Equal(2_000, Item(text).Bounds.Bottom - Item(text).Bounds.Top, 1.0);
    }

    [Fact]
    public void Carets_and_what_is_selected_lie_on_the_page_where_the_letters_do()
    {
        var text = Put("ab\ncdef");
        var content = (TextContent)Item(text).Content;
        var letter = Lengths.OfType(60) / (double)Lengths.PerUnit;
        var (top, foot) = content.RoomOf(0).CaretAt(4);
        Assert.Equal(Left + letter, top.X, 1.0);
        Assert.Equal((top.X, Foot + 710 - 402), (foot.X, Math.Round(top.Y)));
        Assert.True(top.Y < Foot + 710 && Foot + 710 < foot.Y);
        // Behind a line break a line begins; behind all letters the last one ends.
        Assert.Equal(Left, content.RoomOf(0).CaretAt(3).Top.X, 1.0);
        Assert.Equal(Left + 4 * letter, content.RoomOf(0).CaretAt(7).Top.X, 2.0);
        var behind = content.RoomOf(0).Behind(1, 5).ToList();
        Assert.Equal(2, behind.Count);
        Assert.Equal((Left + letter, Left + 2 * letter), (behind[0][0].X, behind[0][1].X), new Near());
        Assert.Equal((Left, Left + 2 * letter), (behind[1][0].X, behind[1][1].X), new Near());
        Assert.Empty(content.RoomOf(0).Behind(2, 2));
        // Moved and turned the box takes them along.
        Do(Ines, new Change.ItemsTransformed([text], [], new Transform(0, Transform.One, -Transform.One, 0, 20_000, 0)));
        Assert.Equal(Left + letter, content.RoomOf(0).CaretAt(4).Top.Y, 1.0);
    }

    private sealed class Near : IEqualityComparer<(double, double)>
    {
        public bool Equals((double, double) one, (double, double) other) =>
            Math.Abs(one.Item1 - other.Item1) + Math.Abs(one.Item2 - other.Item2) < 3;

        public int GetHashCode((double, double) pair) => 0;
    }

    [Fact]
    public void Its_boxes_are_found_where_they_are_ticked()
    {
        var text = Put("oil\nwind", new PassageFormat(0, 9, Trait.List, "tick"));
        var content = (TextContent)Item(text).Content;
        Assert.Equal(0, content.RoomOf(0).TickAt(Left + 150, Foot - 150));
        Assert.Equal(4, content.RoomOf(0).TickAt(Left + 150, Foot + 710 - 150));
        Assert.Null(content.RoomOf(0).TickAt(Left + 2_000, Foot - 150));
        // One outline holds them all: they have the letters' colour.
        Assert.Equal(1, content.Coats);
        Assert.Equal(TextContent.Ink, content.Coat(0).Colour);
    }

    [Fact]
    public void Somebody_to_whom_the_past_is_closed_gets_no_letter_that_was_removed_nor_a_link_that_was_another()
    {
        var text = Put("the code is 4711 here");
        Do(Ines, new Change.TextTyped(text, new TextChange([], [new LetterSpan(text, 12, 4)], [])));
        var typed = Type(text, 12, "secret");
        Do(Ines, new Change.EffectSet(typed, false));
        Do(Tobias, new Change.TextTyped(text, new TextChange([], [], [Link("https://first.example/")])));
        Do(Tobias, new Change.TextTyped(text, new TextChange([], [], [Link("https://second.example/")])));
        var standing = StandingPage.Of(Page);
        var told = System.Text.Encoding.UTF8.GetString(OperationCodec.Encode(standing));
        foreach (var gone in new[] { "4711", "secret", "first.example" })
            Assert.DoesNotContain(gone, told, StringComparison.Ordinal);
        var again = new PageDocument();
        foreach (var operation in standing)
            again.Apply(operation);
        Assert.Equal("the code is  here", again.Find(text)!.Content.Words);
        Assert.Equal(Item(text).Typed.Spans(), again.Find(text)!.Typed.Spans());
        // What is typed from now on finds its place there, too.
        foreach (var page in new[] { Page, again })
            Assert.Equal("the code is  here", page.Find(text)!.Content.Words);
        var later = Tobias.Make(
            new Change.TextTyped(text, new TextChange([new Insertion(new LetterId(text, 16), true, "gone")], [], [])),
            Now
        );
        Page.Apply(later);
        again.Apply(later);
        Assert.Equal("the code is gone here", Item(text).Content.Words);
        Assert.Equal("the code is gone here", again.Find(text)!.Content.Words);

        Format Link(string address) =>
            new(new Edge(new LetterId(text, 0), false), new Edge(new LetterId(text, 2), true), Trait.Link, address);
    }

    [Fact]
    public void As_it_was_at_a_moment_it_is_had_back_also_letter_by_letter()
    {
        var text = Put("the anchor", new PassageFormat(4, 10, Trait.Bold, "1"));
        Type(text, 10, " swings");
        var then = Page.Operations();
        Do(Ines, new Change.TextTyped(text, new TextChange([], [new LetterSpan(text, 0, 10)], [])));
        Type(text, 0, "Now: ");
        var history = new PageHistory(Page);
        history.MoveTo(then.Count, int.MaxValue);
        Assert.Equal("the anchor swings", history.Page.Find(text)!.Content.Words);
        Assert.Equal(Difference.Changed, Comparing.Of(history.Page.Find(text), Page.Find(text)));
        var back = HavingBack.Of(history, Page, null, Ines.Author);
        var laying = back.Laying;
        while (laying.Next(change => Do(Ines, change).Id)) { }
        Assert.Equal((1, 0), (back.Things, back.Left));
        Assert.Equal("the anchor swings", Item(text).Content.Words);
        Assert.Equal(Passage.Of(history.Page.Find(text)!.Typed.Paragraphs()).Formats, Passage.Of(Item(text).Typed.Paragraphs()).Formats);
    }

    [Theory]
    // Paper.Default is ruled from 31.95 mm on, every 7.1 mm.
    [InlineData(5_000, 3_195 + 3 * 710 - 200, 3_195 + 3 * 710, 710)]
    [InlineData(5_000, 3_195 + 3 * 710 + 100, 3_195 + 3 * 710, 710)]
    [InlineData(5_000, 3_195 + 3 * 710 + 400, 3_195 + 4 * 710, 710)]
    [InlineData(5_000, 3_000, 3_195, 710)]
    [InlineData(5_000, 1_000, 1_000, 0)]
    public void A_line_of_text_stands_on_the_papers_line_below_a_press(int x, int y, int foot, int pitch)
    {
        var sheet = new Box(0, 0, Paper.Default.Width, Paper.Default.Height);
        var row = PaperRows.At(Paper.Default.Draw(sheet), sheet, x, y);
        Assert.Equal((foot, pitch), (row.Foot, row.Pitch));
        Assert.InRange(row.Right, x + 1, sheet.Right);
    }

    [Fact]
    public void Every_paper_has_a_place_for_a_line_of_text()
    {
        foreach (var design in PaperDesigns.All)
        {
            var paper = new Paper(PaperSize.A4, design, design.Spacing);
            var sheet = paper.Sheet(null);
            foreach (var y in new[] { 100, 5_000, 14_000, 29_000 })
            {
                var row = PaperRows.At(paper.Draw(sheet), sheet, 6_000, y);
                Assert.True(Math.Abs(row.Foot - y) <= Math.Max(row.Pitch, 0), $"{design.Name}: {row} at {y}");
                Assert.True(row.Right > 6_000, $"{design.Name}: {row}");
            }
        }
    }

    private static Change.TextAdded Added(string text, params PassageFormat[] formats) =>
        new(Transform.Shift(Left, Foot), Width, 710, new Passage(text, formats), []);

    private OpId Put(string text, params PassageFormat[] formats) => Do(Ines, Added(text, formats)).Id;

    private OpId Put(string text, ItemValue value) => Do(Ines, Added(text) with { Values = [value] }).Id;

    private OpId Type(OpId text, int position, string letters) =>
        Do(Ines, new Change.TextTyped(text, new TextChange([Item(text).Typed.InsertionAt(position, letters)], [], []))).Id;
}
