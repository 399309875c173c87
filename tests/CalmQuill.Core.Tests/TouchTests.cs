using CalmQuill.Core.Access;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>What a group lets its writers do to what others wrote.</summary>
public sealed class TouchTests
{
    private static readonly Guid Me = Generate.People[0],
        Other = Generate.People[1];

    [Theory]
    [InlineData(Touch.Everything, Role.Writer, true, true)]
    [InlineData(Touch.Everything, Role.Writer, false, true)]
    [InlineData(Touch.Own, Role.Writer, true, true)]
    [InlineData(Touch.Own, Role.Writer, false, false)]
    [InlineData(Touch.Add, Role.Writer, true, false)]
    [InlineData(Touch.Add, Role.Writer, false, false)]
    [InlineData(Touch.Own, Role.Owner, false, true)]
    [InlineData(Touch.Add, Role.Owner, false, true)]
    public void Who_may_change_what(Touch touch, Role role, bool isTheirs, bool may) =>
        Assert.Equal(may, TouchRules.May(touch, role, isTheirs));

    /// <summary>Whatever somebody does on a page that others wrote on too, by the tools that go by the rule: it is never refused, and nothing of the others' is another than before.</summary>
    [Fact]
    public void Tools_offer_nothing_that_would_be_refused() =>
        Gen.Select(Generate.PageHistory, Gen.Enum<Touch>(), Gen.Int[0, 6])
            .Sample(
                (history, touch, tool) =>
                {
                    var page = new PageDocument();
                    foreach (var operation in history)
                        page.Apply(operation);
                    page.Guarding.Set(touch, Role.Writer, Me);
                    var all = page.Items.Select(item => item.Id).ToList();
                    var others = page.Items.Where(item => item.HasArrived && item.Author != Me).ToDictionary(item => item.Id, Sight);
                    var open = Chosen.Open(page, all);
                    List<Change?> made = tool switch
                    {
                        0 => [open.Count > 0 ? new Change.ItemsRemoved(open) : null],
                        1 => [open.Count > 0 ? new Change.ItemsShifted(open, 100, 50) : null],
                        2 => [Chosen.Set(page, all, [new ItemValue(ItemField.Colour, "AA2233FF")])],
                        3 => [Chosen.Set(page, all, [new ItemValue(ItemField.Locked, "1")])],
                        4 => [.. Chosen.Width(page, all, 60)],
                        5 =>
                        [
                            Chosen.Open(page, Selecting.Inside(page, Everywhere, 0.1, ItemFilter.All).Select(item => item.Id))
                                is { Count: > 0 } taken
                                ? new Change.ItemsRemoved(taken)
                                : null,
                        ],
                        _ => [Rubbed(page)],
                    };
                    var device = new Replica(999, Me);
                    foreach (var operation in history)
                        device.Observe(operation.Time);
                    foreach (var change in made.OfType<Change>())
                    {
                        Assert.Null(TouchRules.CheckPage(touch, Role.Writer, change, id => page.Find(id)?.Author == Me));
                        page.Apply(device.Make(change, 1));
                    }

                    if (touch is not Touch.Everything)
                        Assert.All(others, entry => Assert.Equal(entry.Value, Sight(page.Find(entry.Key)!)));
                }
            );

    /// <summary>Each change that alters something, of what another wrote and of one's own.</summary>
    [Fact]
    public void What_alters_others_things_is_refused_and_what_only_leans_on_them_is_not()
    {
        var (theirs, mine) = (new OpId(1, 1), new OpId(2, 1));
        bool IsMine(OpId id) => id == mine;
        var shape = new Core.Shapes.Shape(Core.Shapes.ShapeKind.Line, [new(0, 0), new(100, 0)]);
        foreach (
            var alters in new Func<OpId, Change>[]
            {
                id => new Change.ItemsRemoved([id]),
                id => new Change.ItemsShifted([mine, id], 1, 1),
                id => new Change.GapsAdded([new StrokeGaps(id, [new Interval(0, 5)])]),
                id => new Change.ItemsTransformed([id], [], Transform.Identity),
                id => new Change.ItemsSet([id], [new ItemValue(ItemField.Colour, "AA2233FF")]),
                id => new Change.ShapeAdded(shape, new Pen(PenKind.Ball, 40, 0xFF), 0, [id]),
                id => new Change.EffectSet(id, false),
            }
        )
        {
            Assert.NotNull(TouchRules.CheckPage(Touch.Own, Role.Writer, alters(theirs), IsMine));
            Assert.Null(TouchRules.CheckPage(Touch.Own, Role.Writer, alters(mine), IsMine));
            Assert.Null(TouchRules.CheckPage(Touch.Everything, Role.Writer, alters(theirs), IsMine));
            Assert.Null(TouchRules.CheckPage(Touch.Add, Role.Owner, alters(theirs), IsMine));
            // Where one only adds, one takes one's own back, and that is all.
            Assert.Equal(alters(mine) is Change.EffectSet, TouchRules.CheckPage(Touch.Add, Role.Writer, alters(mine), IsMine) is null);
        }

        var mark = new Change.SpotAdded(Guid.NewGuid(), Core.Spots.SpotKind.Mark, new(0, 0, 10, 10), [theirs], []);
        Assert.Null(TouchRules.CheckPage(Touch.Add, Role.Writer, mark, IsMine));
        Assert.Null(
            TouchRules.CheckPage(
                Touch.Add,
                Role.Writer,
                new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(20)),
                IsMine
            )
        );
    }

    [Fact]
    public void Pages_are_binned_by_who_made_them_and_anybody_has_them_back()
    {
        var (theirs, mine) = (Guid.NewGuid(), Guid.NewGuid());
        foreach (var property in new[] { Property.Binned, Property.Erased, Property.MovedTo })
        {
            Assert.NotNull(Check(Touch.Own, new Change.PropertySet(theirs, property, "5")));
            Assert.Null(Check(Touch.Own, new Change.PropertySet(mine, property, "5")));
            Assert.NotNull(Check(Touch.Add, new Change.PropertySet(mine, property, "5")));
            Assert.Null(Check(Touch.Own, new Change.PropertySet(theirs, property, "")));
        }

        Assert.Null(Check(Touch.Own, new Change.PropertySet(theirs, Property.Name, "Depth and drop")));
        Refusal? Check(Touch touch, Change change) => TouchRules.CheckPlaces(touch, Role.Writer, change, id => id == mine);
    }

    /// <summary>Who made a page is whose making was received first: a later one with an earlier stamp does not take it over.</summary>
    [Fact]
    public void No_stamp_makes_a_page_anothers()
    {
        var page = Guid.NewGuid();
        var notebook = new Notebooks.NotebookDocument();
        notebook.Apply(new Replica(1, Other).Make(new Change.PageAdded(page, "V", "a4-ruled-710"), 1_000));
        notebook.Apply(new Replica(2, Me).Make(new Change.NodePlaced(page, NodeKind.Page, Guid.Empty, "A"), 1));
        Assert.Equal(Other, notebook.MakerOf(page));
        Assert.Equal([page], notebook.Made(Other));
        Assert.Empty(notebook.Made(Me));
    }

    private static readonly double[] Everywhere = [-1e6, -1e6, 1e6, -1e6, 1e6, 1e6, -1e6, 1e6];

    private static Change? Rubbed(PageDocument page)
    {
        var pass = new EraserPass(page, 500, whole: false);
        foreach (var item in page.Items.Where(item => item.HasArrived).Take(20).ToList())
        {
            pass.MoveTo(item.Bounds.Left, item.Bounds.Top);
            pass.MoveTo(item.Bounds.Right, item.Bounds.Bottom);
        }

        return pass.End();
    }

    private static string Sight(PageItem item) =>
        $"{item.Shown} {item.IsLocked} {item.Dx} {item.Dy} {item.Growth} {string.Join(',', item.Visible())} {string.Join(',', Enumerable.Range(0, item.Content.Coats).Select(i => item.Content.Coat(i)))}";
}
