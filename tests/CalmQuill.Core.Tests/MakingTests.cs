using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Words;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>A step is made whole or not at all.</summary>
public sealed class MakingTests
{
    private static readonly Pen Ball = new(PenKind.Ball, 40, 0xFF);
    private readonly Replica device = new(7, Generate.People[0]);
    private readonly PageDocument page = new();

    [Fact]
    public void Of_a_step_with_one_change_against_the_rules_nothing_is_made()
    {
        var making = new Making(device, DocumentKind.Page);
        var last = device.LastId;
        var problem = Assert.Throws<SentenceException>(() =>
            making.All([Stroke(0), Stroke(StrokeSamples.MostCoordinate + 1), Stroke(100)], 1, joined: true)
        );
        Assert.Contains("20 metres", problem.Message, StringComparison.Ordinal);
        Assert.Equal(last, device.LastId);
        Assert.Throws<SentenceException>(() => making.One(new Change.ItemsRemoved([]), 1));
        Assert.Equal(last, device.LastId);
        // A change that belongs into another document is against the rules as well.
        Assert.Throws<SentenceException>(() => new Making(device, DocumentKind.Library).One(Stroke(0), 1));
    }

    [Fact]
    public void A_step_of_several_changes_is_taken_back_as_one()
    {
        var operations = new Making(device, DocumentKind.Page).All([Stroke(0), Stroke(50), Stroke(100)], 1, joined: true);
        Assert.Equal(4, operations.Count);
        foreach (var operation in operations)
            page.Apply(operation);
        foreach (var change in page.Undo(Generate.People[0]))
            page.Apply(device.Make(change, 2));
        Assert.DoesNotContain(page.Items, item => item.Shown);
    }

    [Fact]
    public void A_piece_that_would_not_fit_whole_is_tried_before_any_of_it_is_laid()
    {
        foreach (var operation in new Making(device, DocumentKind.Page).All([Stroke(0), Stroke(900_000), Stroke(1_900_000)], 1))
            page.Apply(operation);
        var piece = Cutting.Of(page, page.Items.Select(item => item.Id).ToHashSet());
        var making = new Making(device, DocumentKind.Page);
        var laying = new Laying(piece, 200_000, 0, Guid.Empty);
        Assert.Throws<SentenceException>(() => laying.Try(making.Check));
        Assert.Equal(0, laying.Done);
        var fitting = new Laying(piece, 50_000, 0, Guid.Empty);
        fitting.Try(making.Check);
        // Trying has made nothing, and all of it is still to be made.
        Assert.Equal((0, 3), (fitting.Done, fitting.Count));
        while (fitting.Next(change => Applied(making.One(change, 2)))) { }
        Assert.Equal(6, page.Items.Count);
    }

    [Fact]
    public void Groups_are_tried_with_what_they_hold()
    {
        foreach (var operation in new Making(device, DocumentKind.Page).All([Stroke(0), Stroke(500)], 1))
            page.Apply(operation);
        var ids = page.Items.Select(item => item.Id).ToArray();
        page.Apply(device.Make(new Change.ItemsSet(ids, [new ItemValue(ItemField.Group, Guid.NewGuid().ToString())]), 2));
        var laying = new Laying(Cutting.Of(page, ids.ToHashSet()), 100, 100, Guid.Empty);
        var making = new Making(device, DocumentKind.Page);
        laying.Try(making.Check);
        while (laying.Next(change => Applied(making.One(change, 3)))) { }
        var copies = laying.Items.Select(id => page.Find(id)!.Group).Distinct().ToList();
        Assert.NotEqual(page.Find(ids[0])!.Group, Assert.Single(copies));
    }

    [Fact]
    public void A_clock_set_right_keeps_later_changes_later_than_those_that_were_taken_already()
    {
        const long now = 1_790_000_000_000;
        // Half a minute ahead is let through; two minutes ahead is not.
        var taken = device.Make(Stroke(0), now + 30_000);
        Assert.Null(OperationRules.Check(taken, DocumentKind.Page, Access.Role.Writer, Generate.People[0], now));
        var ahead = device.Make(Stroke(10), now + 120_000);
        Assert.Equal(
            Refusal.ClockAheadCode,
            OperationRules.Check(ahead, DocumentKind.Page, Access.Role.Writer, Generate.People[0], now)?.Code
        );
        device.CorrectClock(now, now + 120_000);
        var again = device.Restamp(ahead, now + 120_000);
        Assert.True(again.Stamp > taken.Stamp);
        Assert.Null(OperationRules.Check(again, DocumentKind.Page, Access.Role.Writer, Generate.People[0], now));
        Assert.True(device.Make(Stroke(20), now + 120_001).Stamp > again.Stamp);
    }

    private OpId Applied(Operation operation)
    {
        page.Apply(operation);
        return operation.Id;
    }

    private static Change.StrokeAdded Stroke(int x) => new(Ball, 0, Generate.Wave(1, x, 0));
}
