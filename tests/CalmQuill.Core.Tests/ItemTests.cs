using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Fields of items, groups, layers, and steps of several operations.</summary>
public sealed class ItemTests : OnPage
{
    [Fact]
    public void A_dot_is_rubbed_out_whole_by_an_eraser_that_takes_what_it_touches_and_undo_has_it_back()
    {
        var dot = Do(Ines, new Change.StrokeAdded(Ball, Now, new StrokeSamples([4000], [4000], [500], [0]))).Id;
        var pass = new EraserPass(Page, 100, false);
        Assert.Equal([dot], pass.MoveTo(4050, 4000));
        Assert.Empty(pass.Remaining(Item(dot)));
        Do(Ines, pass.End()!);
        Assert.Empty(Item(dot).Visible());
        var copy = new Laying(Cutting.Of(Page, new HashSet<OpId> { dot }), 100, 0, Guid.Empty);
        while (copy.Done < copy.Count)
            copy.Next(change => Do(Tobias, change).Id);
        Assert.Empty(Item(copy.Items[0]).Visible());
        UndoAll(Ines);
        Assert.Equal([new Interval(0, 0)], Item(dot).Visible());
    }

    [Fact]
    public void A_gap_of_no_length_parts_nothing()
    {
        var line = Line(0, 0, 2000, 0);
        Do(Ines, new Change.GapsAdded([new StrokeGaps(line, [new Interval(500, 500)])]));
        Assert.Single(Item(line).Visible());
    }

    [Fact]
    public void A_shape_that_is_turned_squeezed_or_slanted_lies_where_its_line_does()
    {
        var random = new Random(19);
        foreach (var kind in RoughShapes.Kinds)
        {
            for (var i = 0; i < 40; i++)
            {
                if (Recogniser.Recognise(RoughShapes.Draw(kind, random)[0]) is not { } shape)
                    continue;
                var id = Put(shape);
                int Part(double least, double most) => (int)((least + random.NextDouble() * (most - least)) * Transform.One);
                Do(
                    Ines,
                    new Change.ItemsTransformed(
                        [id],
                        [],
                        new Transform(Part(0.7, 2), Part(-0.5, 0.5), Part(-0.5, 0.5), Part(0.7, 2), random.Next(-900, 900), 40)
                    )
                );
                if (Item(id).AsShape()?.PlacedShape is not { } placed)
                {
                    Assert.True(shape.Kind is ShapeKind.Arc or ShapeKind.Wave);
                    continue;
                }

                // Arrows keep the size of their heads.
                if (placed.Kind is ShapeKind.Arrow or ShapeKind.DoubleArrow)
                    continue;
                var (line, lies) = (placed.Trace(), Item(id).Line.Samples);
                Assert.Equal(lies.Count, line.Count);
                var off = Enumerable.Range(0, line.Count).Max(k => Math.Abs(line.X[k] - lies.X[k]) + Math.Abs(line.Y[k] - lies.Y[k]));
                Assert.True(off <= 8, $"{placed.Kind} lies {off} off its line");
            }
        }

        var circle = Put(new Shape(ShapeKind.Circle, [At(5000, 5000), At(6000, 5000)]));
        Do(Ines, new Change.ItemsTransformed([circle], [], new Transform(2 * Transform.One, 0, 0, Transform.One, -5000, 0)));
        Assert.Equal(new Shape(ShapeKind.Ellipse, [At(5000, 5000), At(7000, 5000), At(5000, 6000)]), Item(circle).AsShape()?.PlacedShape);
    }

    [Fact]
    public void A_shape_takes_the_place_of_its_rough_stroke_and_one_undo_has_it_back()
    {
        var rough = Line(0, 0, 3000, 40);
        var shape = Do(Ines, new Change.ShapeAdded(new Shape(ShapeKind.Line, [At(0, 20), At(3000, 20)]), Ball, 0, [rough]));
        Assert.Equal([shape.Id], Shown());
        UndoAll(Ines);
        Assert.Equal([rough], Shown());
    }

    [Fact]
    public void Steps_that_were_joined_are_undone_and_redone_together()
    {
        var before = Line(0, 0, 900, 0);
        var three = new[] { Line(0, 1000, 900, 1000), Line(0, 2000, 900, 2000), Line(0, 3000, 900, 3000) };
        Do(Ines, new Change.StepsJoined(three));
        UndoAll(Ines);
        Assert.Equal([before], Shown());
        foreach (var change in Page.Redo(Ines.Author))
            Do(Ines, change);
        Assert.Equal([before, .. three], Shown());
        UndoAll(Ines);
        UndoAll(Ines);
        Assert.Empty(Shown());
    }

    [Fact]
    public void What_two_people_write_of_one_thing_merges_by_field_and_undo_leaves_the_others()
    {
        var line = Line(0, 0, 900, 0);
        Do(Ines, new Change.ItemsSet([line], [new ItemValue(ItemField.Colour, "b4533cff")]));
        Do(Tobias, new Change.ItemsSet([line], [new ItemValue(ItemField.Width, "120")]));
        Assert.Equal((0xB4533CFFu, 120), (Item(line).Line.Pen.Colour, Item(line).Line.Pen.Width));
        UndoAll(Ines);
        Assert.Equal((0x22302EFFu, 120), (Item(line).Line.Pen.Colour, Item(line).Line.Pen.Width));
        Do(Ines, new Change.ItemsSet([line], [new ItemValue(ItemField.Pen, "6")]));
        // A highlighter never fully covers, whatever it was before; and it lies behind.
        Assert.Equal(Pen.MostHighlighterAlpha, Item(line).Line.Pen.Colour & 0xFF);
        var over = Line(0, 0, 10, 10);
        Do(Ines, new Change.ItemsSet([over], [new ItemValue(ItemField.Order, "-5")]));
        Assert.Equal([line, over], Shown());
    }

    [Fact]
    public void Layers_hide_lock_fade_merge_and_are_erased_and_nothing_vanishes_by_merging()
    {
        var answers = Guid.NewGuid();
        Do(Ines, new Change.LayerSet(answers, [new LayerValue(LayerField.Name, "Answers"), new LayerValue(LayerField.Order, "k")]));
        var page = Line(0, 0, 900, 0);
        var answer = Do(Ines, new Change.StrokeAdded(Ball, Now, Straight(0, 500, 900, 500)) { Layer = answers }).Id;
        Assert.Equal(["", "Answers"], Page.Layers.Select(layer => layer.Name));
        Do(Ines, new Change.LayerSet(answers, [new LayerValue(LayerField.Hidden, "1")]));
        Assert.Equal([page], Shown());
        Do(
            Ines,
            new Change.LayerSet(
                answers,
                [new LayerValue(LayerField.Hidden, ""), new LayerValue(LayerField.Locked, "1"), new LayerValue(LayerField.Opacity, "50")]
            )
        );
        Assert.False(Item(answer).IsOpen);
        Assert.Equal(0x22302E7Fu, Item(answer).Faded(Item(answer).Line.Pen.Colour));
        // Tobias writes on the layer while Ines merges it: it ends on the page.
        Do(Ines, new Change.LayerSet(answers, [new LayerValue(LayerField.MergedInto, Guid.Empty.ToString())]));
        var late = Do(Tobias, new Change.StrokeAdded(Ball, Now, Straight(0, 900, 900, 900)) { Layer = answers }).Id;
        Assert.Single(Page.Layers);
        Assert.Equal([page, answer, late], Shown());
        UndoAll(Ines);
        Assert.Equal(2, Page.Layers.Count);
        Do(Ines, new Change.LayerSet(answers, [new LayerValue(LayerField.Erased, "1")]));
        Assert.Equal([page], Shown());
        UndoAll(Ines);
        Assert.Equal([page, answer, late], Shown());
        // Things go to a layer by hand, and the order of layers is the order of painting.
        Do(Ines, new Change.LayerSet(answers, [new LayerValue(LayerField.Order, "A")]));
        Assert.Equal([answer, late, page], Shown());
    }

    [Fact]
    public void Of_a_group_all_is_taken_and_what_is_locked_only_when_there_is_nothing_else()
    {
        var (one, other, loose) = (Line(0, 0, 900, 0), Line(0, 5000, 900, 5000), Line(0, 200, 900, 200));
        Do(Ines, new Change.ItemsSet([one, other], [new ItemValue(ItemField.Group, Guid.NewGuid().ToString())]));
        double[] loop = [-100, -100, 1000, -100, 1000, 100, -100, 100];
        Assert.Equal([one, other], Selecting.Inside(Page, loop, 0.5).Select(item => item.Id));
        Assert.Equal([one, other], Selecting.At(Page, 450, 10, 50, ItemFilter.All).Select(item => item.Id));
        Do(Ines, new Change.ItemsSet([loose], [new ItemValue(ItemField.Locked, "1")]));
        double[] around = [-100, 150, 1000, 150, 1000, 300, -100, 300];
        Assert.Equal([loose], Selecting.Inside(Page, around, 0.5).Select(item => item.Id));
        var pass = new EraserPass(Page, 100, true);
        pass.MoveTo(450, 200);
        Assert.Null(pass.End());
    }

    [Fact]
    public void Whatever_is_written_of_a_thing_between_where_it_lies_is_what_a_page_made_at_once_says() =>
        Generate.PageHistory.Sample(
            history =>
            {
                // Asked after every operation, so that what is kept between them is kept wrongly, if it is.
                var kept = new PageDocument();
                for (var i = 0; i < history.Count; i++)
                {
                    kept.Apply(history[i]);
                    var fresh = new PageDocument();
                    foreach (var operation in history.Take(i + 1))
                        fresh.Apply(operation);
                    Assert.Equal(Said(fresh), Said(kept));
                }
            },
            iter: 200
        );

    /// <summary>What the things that are shown say of themselves.</summary>
    private static IEnumerable<object> Said(PageDocument page) =>
        page
            .Items.Where(item => item.Shown)
            .Select(item =>
                (object)(item.Id, item.Bounds, item.LineOrNone?.Pen, item.LineOrNone?.Fill, item.Content.Words, item.Kind, item.Order)
            );

    [Fact]
    public void Erasers_and_loops_choose_by_kind_and_layer()
    {
        var ink = Line(0, 0, 2000, 0);
        var mark = Line(0, 0, 2000, 0, new Pen(PenKind.Highlighter, 400, 0xE3B23C60));
        double[] loop = [-500, -500, 2500, -500, 2500, 500, -500, 500];
        Assert.Equal([mark], Selecting.Inside(Page, loop, 0.5, new ItemFilter(ItemKinds.Highlighter, null)).Select(item => item.Id));
        Assert.Empty(Selecting.Inside(Page, loop, 0.5, new ItemFilter(ItemKinds.All, Guid.NewGuid())));
        var pass = new EraserPass(Page, 100, false) { Only = new ItemFilter(ItemKinds.Highlighter, null) };
        pass.MoveTo(1000, 0);
        Do(Ines, pass.End()!);
        Assert.Equal(2, Item(mark).Visible().Count);
        Assert.Single(Item(ink).Visible());
    }

    [Fact]
    public void What_was_rubbed_out_of_a_shape_stays_in_its_place_when_the_shape_is_changed()
    {
        var square = Put(new Shape(ShapeKind.Square, [At(0, 0), At(2000, 0), At(2000, 2000), At(0, 2000)]));
        var pass = new EraserPass(Page, 150, false);
        pass.MoveTo(1000, 0);
        Do(Ines, pass.End()!);
        Assert.Equal(2, Item(square).Visible().Count);
        var wide = ShapeHandles.Drag(Item(square).AsShape()!.PlacedShape!, 5, 6000, 1000);
        Do(Ines, new Change.ItemsSet([square], [new ItemValue(ItemField.Shape, wide.ToText())]));
        Assert.Equal(ShapeKind.Rectangle, Item(square).AsShape()!.Shape.Kind);
        // The gap was in the middle of the upper side, and still is.
        var touched = new List<Interval>();
        Eraser.Touch(Item(square).Line.Samples, Ball, 3000, 0, 10, touched);
        Assert.DoesNotContain(touched, one => Item(square).Visible().Exists(part => part.Start <= one.Start && one.End <= part.End));
        UndoAll(Ines);
        Assert.Equal(ShapeKind.Square, Item(square).AsShape()!.Shape.Kind);
    }

    [Fact]
    public void A_shape_that_was_moved_and_turned_is_changed_where_it_now_lies()
    {
        var line = Put(new Shape(ShapeKind.Line, [At(0, 0), At(1000, 0)]));
        Do(Ines, new Change.ItemsTransformed([line], [], new Transform(0, Transform.One, -Transform.One, 0, 5000, 5000)));
        Do(Tobias, new Change.ItemsShifted([line], 100, 0));
        Assert.Equal([At(5100, 5000), At(5100, 6000)], Item(line).AsShape()!.PlacedShape!.Points);
        var dragged = ShapeHandles.Drag(Item(line).AsShape()!.PlacedShape!, 1, 5100, 8000).Map(Item(line).Unplace);
        Do(Ines, new Change.ItemsSet([line], [new ItemValue(ItemField.Shape, dragged.ToText())]));
        Assert.Equal([At(5100, 5000), At(5100, 8000)], Item(line).AsShape()!.PlacedShape!.Points);
    }

    [Theory]
    [InlineData(ItemField.Colour, "red")]
    [InlineData(ItemField.Width, "0")]
    [InlineData(ItemField.Pen, "7")]
    [InlineData(ItemField.Shape, "1 0 5 5")]
    [InlineData(ItemField.Shape, "8 0 0 0 10 0 10 10")]
    [InlineData(ItemField.Order, "99999999")]
    [InlineData(ItemField.Layer, "answers")]
    [InlineData(ItemField.Locked, "yes")]
    [InlineData((ItemField)99, "1")]
    public void What_cannot_be_said_of_ink_is_refused(ItemField field, string value) =>
        Refused(new Change.ItemsSet([new OpId(1, 1)], [new ItemValue(field, value)]));

    [Fact]
    public void Shapes_pens_and_layers_against_the_rules_are_refused()
    {
        Refused(new Change.ShapeAdded(new Shape(ShapeKind.Circle, [At(0, 0)]), Ball, 0, []));
        Refused(new Change.ShapeAdded(new Shape(ShapeKind.Wave, [At(0, 0), At(1, 1), At(2, 2)]), Ball, 0, []));
        Refused(new Change.ShapeAdded(new Shape(ShapeKind.Polygon, [.. Enumerable.Repeat(At(0, 0), 5_000)]), Ball, 0, []));
        Refused(new Change.ShapeAdded(new Shape(ShapeKind.Line, [At(0, 0), At(9_000_000, 0)]), Ball, 0, []));
        Refused(new Change.StrokeAdded(new Pen(PenKind.Highlighter, 400, 0xE3B23CFF), 1, Straight(0, 0, 100, 0)));
        Refused(new Change.StrokeAdded(Ball with { Angle = 180 }, 1, Straight(0, 0, 100, 0)));
        Refused(new Change.LayerSet(Guid.Empty, [new LayerValue(LayerField.Erased, "1")]));
        Refused(new Change.LayerSet(Guid.NewGuid(), [new LayerValue(LayerField.Opacity, "0")]));
        Refused(new Change.StepsJoined([]));
    }

    private void Refused(Change change) =>
        Assert.NotEmpty(
            OperationRules.Check(Ines.Make(change, Now), DocumentKind.Page, Access.Role.Writer, Ines.Author, Now)!.Sentence.English
        );
}
