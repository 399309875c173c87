using CalmQuill.Core.Access;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tests;

/// <summary>Boxes to be ticked in typed words, as marks.</summary>
public sealed class TaskTests : OnPage
{
    [Fact]
    public void Every_paragraph_with_a_box_that_says_something_is_a_mark_that_waits()
    {
        var text = Write("Before the lesson\noil the pallets\n\n  \nring the maker by 4.12.2026", 18, 61);
        var tasks = Tasks();
        Assert.Equal(["oil the pallets", "ring the maker by 4.12.2026"], tasks.Select(task => task[SpotField.Note]));
        Assert.Equal(["", "2026-12-04"], tasks.Select(task => task[SpotField.Due]));
        // The clock of this test stands in November 2023.
        Write("by 9 October, not tomorrow", 0, 26);
        Assert.Equal("2024-10-09", Tasks()[^1][SpotField.Due]);
        UndoAll(Ines);
        Assert.All(
            tasks,
            task =>
            {
                Assert.True(task.IsOpen);
                Assert.Equal((SpotKind.Mark, MarkKinds.ToDo, Ines.Author), (task.Kind, task[SpotField.Mark], task.Author));
                Assert.Equal(Item(text).Stamp.Time.UnixMilliseconds, task.CreatedAt);
                var box = Item(text).Bounds;
                Assert.True(
                    task.Area.Top >= box.Top - 50 && task.Area.Bottom <= box.Bottom + 50 && task.Area.Left >= box.Left - 50,
                    $"{task.Area} in {box}"
                );
            }
        );
        Assert.True(tasks[0].Area.Bottom <= tasks[1].Area.Top + 10);
        // They are no signs of their own, and nothing of them is state.
        Assert.Empty(Page.Spots());
    }

    [Fact]
    public void Who_ticked_it_and_when_is_told_and_it_is_taken_back_by_undo()
    {
        Write("oil the pallets\nwind it", 0, 23);
        var task = Tasks()[1];
        var ticked = Do(Tobias, PageTasks.Tick(Page, task.Task!.Value, true)!);
        var done = Tasks()[1];
        Assert.Equal((task.Id, Tobias.Author, ticked.Time.UnixMilliseconds), (done.Id, done.DoneBy, done.DoneAt));
        Assert.Equal(Ines.Author, done.Author);
        Assert.False(done.IsOpen);
        Assert.True(Tasks()[0].IsOpen);
        Assert.Null(PageTasks.Tick(Page, task.Task!.Value, true));
        UndoAll(Tobias);
        Assert.True(Tasks()[1].IsOpen);
    }

    [Fact]
    public void It_stays_the_same_whatever_is_typed_before_and_in_it()
    {
        var text = Write("wind it", 0, 7);
        var before = Tasks().Single();
        Type(Tobias, text, 7, " every Sunday");
        Type(Tobias, text, 0, "First of all\n");
        var now = Tasks().Single(task => task.Id == before.Id);
        Assert.Equal("wind it every Sunday", now[SpotField.Note]);
        Assert.Equal(Ines.Author, now.Author);
        // What was typed before it is a paragraph of the same list, by somebody else.
        Assert.Equal(Tobias.Author, Tasks().Single(task => task.Id != before.Id).Author);
        Do(Ines, PageTasks.Tick(Page, before.Task!.Value, true)!);
        Assert.Equal([true, false], Tasks().Select(task => task.IsOpen));
    }

    [Fact]
    public void Two_who_tick_it_at_once_both_ticked_it_and_what_is_gone_is_not_ticked()
    {
        var text = Write("wind it", 0, 7);
        var place = Tasks().Single().Task!.Value;
        var (one, other) = (PageTasks.Tick(Page, place, true)!, PageTasks.Tick(Page, place, true)!);
        Do(Ines, one);
        Do(Tobias, other);
        Assert.Equal(Tobias.Author, Tasks().Single().DoneBy);
        UndoAll(Tobias);
        Assert.Equal(Ines.Author, Tasks().Single().DoneBy);
        Do(Tobias, new Change.ItemsRemoved([text]));
        Assert.Empty(Tasks());
        Assert.Null(PageTasks.Tick(Page, place, false));
    }

    [Fact]
    public void Boxes_in_the_cells_of_a_table_and_on_slips_count_too_and_other_lists_do_not()
    {
        Write("one\ntwo", 0, 7, "bullet");
        Assert.Empty(Tasks());
        var slip = Do(
            Ines,
            new Change.ThingAdded(ThingKind.Slip, Ink.Transform.Shift(0, 9_000), 5_000, 4_000, Listed("ask Ines", 0, 8, "tick"), [])
        ).Id;
        Assert.Equal([slip], Tasks().Select(task => task.Task!.Value.Item));
    }

    [Fact]
    public void What_comes_with_a_box_is_told_from_what_cannot_bring_one()
    {
        var text = Write("wind it", 0, 0);
        Assert.False(PageTasks.MayBring(Typing(text, 0, "x")));
        var list = new Change.TextTyped(text, new TextChange([], [], [Item(text).Typed.FormatOfParagraphs(0, 0, Trait.List, "tick")]));
        Assert.True(PageTasks.MayBring(list));
        Assert.Empty(Tasks());
        Do(Ines, list);
        Assert.Single(Tasks());
        Assert.True(PageTasks.MayBring(Page.OperationOf(Write("a", 0, 1))!.Change));
    }

    /// <summary>Whatever order operations come in, the same tasks stand.</summary>
    [Fact]
    public void The_same_tasks_stand_whatever_order_operations_come_in()
    {
        var text = Write("oil the pallets\nwind it\nset the beat", 0, 36);
        var chance = new Random(3);
        for (var round = 0; round < 30; round++)
        {
            var (device, length) = (chance.Next(2) == 0 ? Ines : Tobias, Item(text).Typed.Length);
            if (chance.Next(3) > 0)
                Type(device, text, chance.Next(length + 1), chance.Next(4) == 0 ? "\n" : "word ");
            else if (Tasks() is { Count: > 0 } some && some[chance.Next(some.Count)] is var task)
                Do(device, PageTasks.Tick(Page, task.Task!.Value, task.IsOpen)!);
        }

        var expected = Tasks().Select(Told).ToList();
        Assert.True(expected.Count > 2);
        var operations = Page.Operations();
        for (var round = 0; round < 5; round++)
        {
            var again = new PageDocument();
            foreach (var operation in operations.OrderBy(_ => chance.Next()))
                again.Apply(operation);
            Assert.Equal(expected, PageTasks.Of(again).Select(Told));
        }
    }

    private static (Guid, string, long, Guid, long?, Guid) Told(Spot task) =>
        (task.Id, task[SpotField.Note], task.CreatedAt, task.Author, task.DoneAt, task.DoneBy);

    private List<Spot> Tasks() => [.. PageTasks.Of(Page)];

    private OpId Write(string words, int from, int to, string list = "tick") =>
        Do(Ines, new Change.TextAdded(Ink.Transform.Shift(2_000, 3_000), 9_000, 0, Listed(words, from, to, list), [])).Id;

    private static Passage Listed(string words, int from, int to, string list) =>
        new(words, to > from ? [new PassageFormat(from, to + 1, Trait.List, list)] : []);

    private Change.TextTyped Typing(OpId text, int at, string letters) =>
        new(text, new TextChange([Item(text).Typed.InsertionAt(at, letters)], [], []));

    private void Type(Replica device, OpId text, int at, string letters) => Do(device, Typing(text, at, letters));
}
