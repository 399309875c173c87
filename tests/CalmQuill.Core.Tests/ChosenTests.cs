using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>What is done to chosen things leaves alone what is locked; widths are those that are seen.</summary>
public sealed class ChosenTests : OnPage
{
    private static readonly ItemValue Lock = new(ItemField.Locked, "1"),
        Unlock = new(ItemField.Locked, "");

    [Fact]
    public void What_is_locked_is_not_hit_by_a_press_but_by_one_that_is_held_and_nothing_but_unlocking_changes_it()
    {
        var (locked, open) = (Line(0, 0, 2000, 0), Line(0, 500, 2000, 500));
        Do(Ines, Chosen.Set(Page, [locked], [Lock])!);
        Assert.Empty(Selecting.At(Page, 1000, 0, 50, ItemFilter.All));
        Assert.Equal([locked], Selecting.LockedAt(Page, 1000, 0, 50, ItemFilter.All).Select(item => item.Id));
        Assert.Equal([open], Selecting.At(Page, 1000, 500, 50, ItemFilter.All).Select(item => item.Id));
        Assert.Empty(Selecting.LockedAt(Page, 1000, 500, 50, ItemFilter.All));

        Assert.Equal([open], Chosen.Open(Page, [locked, open]));
        Assert.Null(Chosen.Set(Page, [locked], [new ItemValue(ItemField.Colour, "b4533cff")]));
        Assert.Null(Chosen.Set(Page, [locked], [Unlock, new ItemValue(ItemField.Colour, "b4533cff")]));
        Assert.Empty(Chosen.Width(Page, [locked], 200));
        var change = Assert.IsType<Change.ItemsSet>(Chosen.Set(Page, [locked, open], [new ItemValue(ItemField.Colour, "b4533cff")]));
        Assert.Equal([open], change.Items);
        Do(Ines, Chosen.Set(Page, [locked], [Unlock])!);
        Assert.Equal([locked], Selecting.At(Page, 1000, 0, 50, ItemFilter.All).Select(item => item.Id));
    }

    [Fact]
    public void On_a_locked_or_hidden_layer_nothing_is_changed_nor_unlocked()
    {
        var line = Line(0, 0, 2000, 0);
        foreach (var field in new[] { LayerField.Locked, LayerField.Hidden })
        {
            Do(Ines, new Change.LayerSet(Guid.Empty, [new LayerValue(field, "1")]));
            Assert.Empty(Chosen.Open(Page, [line]));
            Assert.Null(Chosen.Set(Page, [line], [Lock]));
            Assert.Empty(Selecting.At(Page, 1000, 0, 50, ItemFilter.All));
            Assert.Empty(Selecting.LockedAt(Page, 1000, 0, 50, ItemFilter.All));
            Do(Ines, new Change.LayerSet(Guid.Empty, [new LayerValue(field, "")]));
        }

        Assert.Empty(Chosen.Open(Page, [new OpId(99, 99)]));
    }

    [Fact]
    public void A_width_is_the_one_that_is_seen_however_things_were_scaled_before()
    {
        var (plain, doubled, halved, turned) = (
            Line(0, 0, 2000, 0),
            Line(0, 500, 2000, 500),
            Line(0, 900, 2000, 900),
            Line(0, 1400, 2000, 1400)
        );
        void Map(OpId id, double scale, double angle = 0)
        {
            var (sin, cos) = Math.SinCos(angle);
            int Part(double number) => (int)Math.Round(number * scale * Transform.One);
            Do(Ines, new Change.ItemsTransformed([id], [], new Transform(Part(cos), Part(sin), Part(-sin), Part(cos), 300, 200)));
        }

        Map(doubled, 2);
        Map(halved, 0.5);
        Map(halved, 0.5);
        Map(turned, 1.5, 0.7);
        OpId[] all = [plain, doubled, halved, turned];
        Assert.Equal([40, 80, 10, 60], all.Select(id => Item(id).Line.Pen.Width));
        foreach (var change in Chosen.Width(Page, all, 120))
            Do(Ines, change);
        Assert.All(all, id => Assert.InRange(Item(id).Line.Pen.Width, 119, 121));
        // Beyond what pens are, it is as near as they come.
        foreach (var change in Chosen.Width(Page, [halved], 2000))
            Do(Ines, change);
        Assert.Equal(Pen.MostWidth / 4, Item(halved).Line.Pen.Width);
        // A later scaling goes on from there.
        Map(doubled, 0.5);
        Assert.InRange(Item(doubled).Line.Pen.Width, 59, 61);
    }
}
