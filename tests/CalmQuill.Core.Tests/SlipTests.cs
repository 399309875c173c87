using CalmQuill.Core.Changing;
using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tests;

/// <summary>Paper slips, and what lies on them.</summary>
public sealed class SlipTests : OnPage
{
    [Fact]
    public void What_is_written_on_a_slip_is_taken_with_it_and_what_lies_under_it_is_not()
    {
        var under = Line(500, 500, 3_000, 500);
        var slip = Lay(0, 0, 6_000, 4_000);
        var on = Line(1_000, 1_000, 3_000, 1_000);
        var beside = Line(5_500, 2_000, 9_000, 2_000);
        Assert.Equal([slip, on], Taken(slip));
        Assert.DoesNotContain(under, Taken(slip));
        Assert.DoesNotContain(beside, Taken(slip));
        // A slip on the slip takes along what lies on that.
        var small = Lay(4_000, 2_500, 1_500, 1_200);
        var word = Line(4_200, 3_000, 5_200, 3_000);
        Assert.Equal([slip, on, small, word], Taken(slip));
        Assert.Equal([small, word], Taken(small));
    }

    [Fact]
    public void Folded_it_shows_its_edge_alone_and_all_that_lies_on_it_comes_back_unfolded()
    {
        var slip = Lay(0, 0, 6_000, 4_000);
        var on = Line(1_000, 1_000, 3_000, 1_000);
        Fold(slip, true);
        Assert.Equal([slip], Shown());
        Assert.True(Item(slip).Bounds.Bottom < 600);
        // What is written over its edge meanwhile is not folded away with it.
        var later = Line(500, 3_000, 2_000, 3_000);
        Assert.Equal([slip, later], Shown());
        Fold(slip, false);
        Assert.Equal([slip, on, later], Shown());
        // Step by step back: unfolded, the line over it, folded.
        for (var step = 0; step < 5; step++)
            UndoAll(Ines);
        Assert.Equal([slip, on], Shown());
        Assert.Equal(4_000, Item(slip).Bounds.Bottom);
    }

    [Fact]
    public void A_folded_slip_is_moved_copied_and_removed_with_what_is_in_it()
    {
        var slip = Lay(0, 0, 6_000, 4_000);
        var on = Line(1_000, 1_000, 3_000, 1_000);
        Fold(slip, true);
        Assert.Equal(new[] { slip, on }.Order(), Chosen.Open(Page, [slip]).Order());
        Do(Ines, new Change.ItemsShifted(Chosen.Open(Page, [slip]), 1_000, 2_000));
        var copy = new Laying(Cutting.Of(Page, new HashSet<OpId> { slip }), 0, 8_000, Guid.Empty);
        while (copy.Done < copy.Count)
            copy.Next(change => Do(Tobias, change).Id);
        // The copy lies unfolded.
        Assert.Equal(2, copy.Items.Count(id => Item(id).Shown));
        Fold(slip, false);
        Assert.Equal(1_000, Item(on).Dx);
        Fold(slip, true);
        Do(Ines, new Change.ItemsRemoved(Chosen.Open(Page, [slip])));
        Assert.Equal(copy.Items.Order(), Shown().Order());
    }

    [Fact]
    public void Who_removes_a_folded_slip_without_knowing_what_is_in_it_loses_nothing_of_that()
    {
        var slip = Lay(0, 0, 6_000, 4_000);
        var on = Line(1_000, 1_000, 3_000, 1_000);
        Fold(slip, true);
        Do(Tobias, new Change.ItemsRemoved([slip]));
        Assert.Equal([on], Shown());
    }

    [Fact]
    public void Slips_that_two_people_fold_into_each_other_are_seen()
    {
        var one = Lay(0, 0, 6_000, 4_000);
        var other = Lay(500, 500, 3_000, 2_000);
        Do(Ines, new Change.ItemsSet([other], [new ItemValue(ItemField.Within, one.ToString())]));
        Do(Tobias, new Change.ItemsSet([one], [new ItemValue(ItemField.Within, other.ToString())]));
        Do(Ines, new Change.ItemsSet([one, other], [new ItemValue(ItemField.Folded, "1")]));
        Assert.Equal([one, other], Shown());
        Do(Ines, new Change.ItemsSet([one], [new ItemValue(ItemField.Within, one.ToString())]));
        Assert.True(Item(one).Shown);
    }

    [Fact]
    public void Folding_is_told_to_whoever_shows_the_page_and_stands_without_the_past()
    {
        var slip = Lay(0, 0, 6_000, 4_000);
        var on = Line(1_000, 1_000, 3_000, 1_000);
        Page.TakeChanged();
        Fold(slip, true);
        Assert.Equal(new[] { slip, on }.Order(), Page.TakeChanged().Order());
        var read = new PageDocument();
        foreach (var operation in StandingPage.Of(Page))
            read.Apply(operation);
        Assert.Equal(Page.EncodeState(), read.EncodeState());
        Assert.False(read.Find(on)!.Shown);
        Fold(slip, false);
        Assert.Equal(new[] { slip, on }.Order(), Page.TakeChanged().Order());
    }

    [Fact]
    public void A_copied_page_folds_its_own_slips()
    {
        var slip = Lay(0, 0, 6_000, 4_000);
        Line(1_000, 1_000, 3_000, 1_000);
        Fold(slip, true);
        var copy = new PageDocument();
        var device = new Replica(9, Testing.Generate.People[2]);
        foreach (var operation in PageCopy.Of(Page, device, Now + 1_000))
            copy.Apply(operation);
        Assert.Single(copy.Items, item => item.Shown);
        var copied = copy.Items.Single(item => item.Content is SlipContent);
        foreach (var change in OnSlips.Fold(copy, copied, false))
            copy.Apply(device.Make(change, Now + 2_000));
        Assert.Equal(2, copy.Items.Count(item => item.Shown));
    }

    [Fact]
    public void It_grows_with_what_is_typed_on_it_and_then_keeps_the_form_of_its_letters()
    {
        var slip = Lay(0, 0, 6_000, 1_000);
        Assert.Equal(Reshaping.Freely, Item(slip).Content.Reshaping);
        Assert.Equal(1_000, Item(slip).Bounds.Bottom);
        Do(Tobias, new Change.TextTyped(slip, new TextChange([new Insertion(LetterId.Start, false, "one\ntwo\nthree")], [], [])));
        Assert.Equal(Reshaping.InProportion, Item(slip).Content.Reshaping);
        Assert.True(Item(slip).Bounds.Bottom > 1_800);
        Assert.Equal("one\ntwo\nthree", Item(slip).Content.Words);
        Fold(slip, true);
        Assert.False(((WrittenContent)Item(slip).Content).ShowsLetters);
    }

    [Fact]
    public void Pinned_it_goes_along_with_the_question_that_it_lies_over_folded_or_not_and_with_nothing_else()
    {
        var question = Line(1_000, 1_000, 3_000, 1_000);
        var long_ = Line(1_000, 3_000, 15_000, 3_000);
        var slip = Lay(500, 500, 6_000, 4_000);
        var answer = Line(1_000, 2_000, 3_000, 2_000);
        Assert.Equal([question], Taken(question));
        Pin(slip, true);
        Assert.Equal([question, slip, answer], Taken(question));
        // What it does not cover for the most part leads nowhere, nor does what lies on it; and it goes alone.
        Assert.Equal([long_], Taken(long_));
        Assert.Equal([answer], Taken(answer));
        Assert.Equal([slip, answer], Taken(slip));
        Fold(slip, true);
        Assert.Equal([question, slip, answer], Taken(question).Union([answer]));
        Do(Ines, new Change.ItemsShifted(Chosen.Open(Page, [.. Taken(question)]), 0, 9_000));
        Fold(slip, false);
        Assert.Equal((9_000.0, 9_000.0, 9_000.0), (Item(question).Dy, Item(slip).Dy, Item(answer).Dy));
        Assert.Equal([question, slip, answer], Taken(question));
        Pin(slip, false);
        Assert.Equal([question], Taken(question));
        UndoAll(Ines);
        Assert.Equal([question, slip, answer], Taken(question));
    }

    [Fact]
    public void Its_pin_is_seen_copied_and_pressed_and_what_another_says_of_it_meanwhile_stands()
    {
        var slip = Lay(0, 0, 6_000, 4_000);
        var coats = Item(slip).Content.Coats;
        Pin(slip, true);
        Assert.True(Item(slip).Content.Coats > coats);
        Assert.Equal(slip, OnSlips.PinnedAt(Page, 3_000, 2_000)?.Id);
        Assert.Null(OnSlips.PinnedAt(Page, 7_000, 2_000));
        Do(Tobias, new Change.ItemsSet([slip], [new ItemValue(ItemField.Colour, "c5d8e0ff")]));
        Fold(slip, true);
        // Folded only its edge is there to be pressed.
        Assert.Equal((slip, null), (OnSlips.PinnedAt(Page, 3_000, 200)?.Id, OnSlips.PinnedAt(Page, 3_000, 2_000)?.Id));
        var copy = Do(Tobias, Item(slip).Content.Copy()).Id;
        Assert.True(((SlipContent)Item(copy).Content).IsPinned);
        // Another slip over it is not pinned, and takes the press.
        Lay(0, 0, 3_000, 2_000);
        Assert.Null(OnSlips.PinnedAt(Page, 1_000, 1_000));
        Assert.Null(OnSlips.Pin([Item(slip)], true));
        Assert.NotNull(ItemRules.Check(new Change.ItemsSet([slip], [new ItemValue(ItemField.Pinned, "yes")])));
    }

    private void Pin(OpId slip, bool pinned) => Do(Ines, OnSlips.Pin([Item(slip)], pinned)!);

    private IEnumerable<OpId> Taken(OpId slip) => OnSlips.With(Page, [Item(slip)]).Select(item => item.Id);

    private void Fold(OpId slip, bool folded)
    {
        foreach (var change in OnSlips.Fold(Page, Item(slip), folded))
            Do(Ines, change);
    }

    private OpId Lay(int x, int y, int width, int height) =>
        Do(Ines, new Change.ThingAdded(ThingKind.Slip, Transform.Shift(x, y), width, height, new Passage("", []), [])).Id;
}
