using CalmQuill.Core.Changing;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Words in shapes, connectors between things, and branch maps.</summary>
public sealed class DiagramTests : OnPage
{
    private static readonly ConnectorLook Arrow = new(ConnectorRoute.Straight, ConnectorEnd.None, ConnectorEnd.Arrow);

    [Fact]
    public void A_connector_keeps_joined_whatever_is_done_to_what_it_joins()
    {
        OpId one = Rectangle(0, 0, 2_000, 1_000),
            other = Rectangle(6_000, 0, 8_000, 1_000);
        var joined = Connect(1_000, 500, 7_000, 500);
        AssertEnds(joined, (2_000, 500), (6_000, 500));
        Do(Tobias, new Change.ItemsShifted([other], 0, 4_000));
        // From middle to middle, as far as the edges go.
        AssertEnds(joined, (1_750, 1_000), (6_250, 4_000));
        Do(Tobias, new Change.ItemsTransformed([one], [], Transform.Scale(2, 0, 0)));
        AssertEnds(joined, (3_429, 2_000), (6_286, 4_000), 2);
        UndoAll(Tobias);
        UndoAll(Tobias);
        AssertEnds(joined, (2_000, 500), (6_000, 500));
        // Moved with both of them it is where they are; moved alone it stays with them.
        Do(Ines, new Change.ItemsShifted([one, other, joined], 300, 300));
        AssertEnds(joined, (2_300, 800), (6_300, 800));
        Do(Ines, new Change.ItemsShifted([joined], 0, 5_000));
        AssertEnds(joined, (2_300, 800), (6_300, 800));
        Do(Ines, new Change.ItemsTransformed([joined], [], new Transform(0, Transform.One, -Transform.One, 0, 900, 0)));
        AssertEnds(joined, (2_300, 800), (6_300, 800));
        // A new shape in place of the old, as its handles make it.
        Do(Ines, new Change.ItemsSet([one], [new ItemValue(ItemField.Shape, Ring(1_000, 500, 500).ToText())]));
        AssertEnds(joined, (1_800, 800), (6_300, 800), 2);
    }

    [Fact]
    public void A_connector_is_told_of_as_changed_with_what_it_leans_on()
    {
        OpId one = Rectangle(0, 0, 2_000, 1_000),
            other = Rectangle(6_000, 0, 8_000, 1_000);
        var joined = Connect(1_000, 500, 7_000, 500);
        Page.TakeChanged();
        Do(Tobias, new Change.ItemsShifted([one], 10, 0));
        Assert.Equal(new[] { one, joined }.Order(), Page.TakeChanged().Order());
        Do(Tobias, new Change.ItemsSet([other], [new ItemValue(ItemField.Colour, "b4533cff")]));
        Assert.Equal([other], Page.TakeChanged());
    }

    [Fact]
    public void An_end_stays_where_a_thing_was_that_somebody_removed_and_is_let_go_when_the_connector_is_moved()
    {
        Rectangle(0, 0, 2_000, 1_000);
        var other = Rectangle(6_000, 0, 8_000, 1_000);
        var joined = Connect(1_000, 500, 7_000, 500);
        Do(Tobias, new Change.ItemsShifted([other], 0, 4_000));
        Do(Tobias, new Change.ItemsRemoved([other]));
        AssertEnds(joined, (1_750, 1_000), (6_250, 4_000));
        Assert.Single(Diagram.LetGo([Item(joined)]));
        foreach (var change in Diagram.LetGo([Item(joined)]))
            Do(Ines, change);
        Do(Ines, new Change.ItemsShifted([joined], 0, 1_000));
        Assert.Equal((6_250, 5_000), End(joined, false));
        Assert.Empty(Diagram.LetGo([Item(joined)]));
        // It comes back for both: undone in whatever order.
        UndoAll(Tobias);
        Assert.Equal((6_250, 5_000), End(joined, false));
    }

    [Theory]
    [InlineData(ConnectorRoute.Bent, 2_000, 500, 4_000, 500, 4_000, 4_500, 6_000, 4_500)]
    [InlineData(ConnectorRoute.Curved, 2_000, 500, 4_000, 500, 4_000, 4_500, 6_000, 4_500)]
    public void It_leaves_and_arrives_at_the_sides_that_face_each_other(ConnectorRoute route, params int[] way)
    {
        Rectangle(0, 0, 2_000, 1_000);
        Rectangle(6_000, 4_000, 8_000, 5_000);
        var joined = Connect(1_000, 500, 7_000, 4_500, Arrow with { Route = route });
        Assert.Equal(way, ((ShapeContent)Item(joined).Content).PlacedShape!.Points.SelectMany(point => new[] { point.X, point.Y }));
    }

    [Fact]
    public void It_meets_the_edge_of_what_is_round_and_keeps_off_ink()
    {
        Put(Ring(0, 0, 1_000));
        var ink = Line(5_000, -400, 5_000, 400);
        var joined = Connect(0, 0, 5_000, 0);
        AssertEnds(joined, (1_000, 0), (Item(ink).Bounds.Left - 150, 0), 3);
        // A thing may lead to itself.
        var round = Connect(0, 900, 900, 0);
        Assert.NotEqual(End(round, true), End(round, false));
        Assert.All(new[] { true, false }, start => Assert.Equal(1_000, Distance(End(round, start)), 3.0));
    }

    [Fact]
    public void Connectors_are_not_joined_to_connectors_nor_to_what_is_not_there()
    {
        Rectangle(0, 0, 2_000, 1_000);
        var first = Connect(1_000, 500, 9_000, 500);
        var second = Connect(5_000, 4_000, 5_000, 500);
        Assert.Equal((5_000, 500), End(second, false));
        // Said by hand all the same, in a circle: each ends where it was drawn.
        Do(Ines, new Change.ItemsSet([first], [new ItemValue(ItemField.To, second.ToString())]));
        Do(Ines, new Change.ItemsSet([second], [new ItemValue(ItemField.To, first.ToString())]));
        Assert.Equal((5_000, 500), End(second, false));
        Do(Ines, new Change.ItemsSet([second], [new ItemValue(ItemField.To, new OpId(77, 7).ToString())]));
        Assert.Equal((5_000, 500), End(second, false));
    }

    [Fact]
    public void Half_a_connector_joins_nothing_so_an_eraser_takes_all_of_it()
    {
        Rectangle(0, 0, 2_000, 1_000);
        var other = Rectangle(6_000, 0, 8_000, 1_000);
        var joined = Connect(1_000, 500, 7_000, 500, Arrow with { Route = ConnectorRoute.Bent });
        var pass = new EraserPass(Page, 100, false);
        pass.MoveTo(4_000, 500);
        Do(Ines, pass.End()!);
        Assert.Empty(Item(joined).Visible());
        // What it joins lies elsewhere now, and its line has more samples.
        Do(Ines, new Change.ItemsShifted([other], 0, 3_000));
        Assert.Empty(Item(joined).Visible());
        Assert.Null(Diagram.ThingAt(Page, 4_000, 500, 100));
    }

    [Fact]
    public void A_copy_is_joined_to_copies_and_to_nothing_that_was_not_copied()
    {
        OpId one = Rectangle(0, 0, 2_000, 1_000),
            other = Rectangle(6_000, 0, 8_000, 1_000);
        var joined = Connect(1_000, 500, 7_000, 500);
        var words = Type(one, "Pallet");
        var copies = Copy([one, words, joined], 5_000);
        Assert.Equal(3, copies.Count);
        var (copy, copied) = (copies.Single(id => Item(id).Content is ShapeContent { IsConnector: true }), copies[0]);
        AssertEnds(copy, (2_000, 5_500), (6_000, 5_500));
        Do(Ines, new Change.ItemsShifted([copied], -100, 0));
        Do(Ines, new Change.ItemsShifted([other], 0, 400));
        AssertEnds(copy, (1_900, 5_500), (6_000, 5_500));
        Assert.Equal("Pallet", Diagram.WordsIn(Page, copied)!.Content.Words);
        // Words that are copied without their shape stand where they stood.
        var alone = Assert.Single(Copy([words], 0));
        Assert.Null(Diagram.HolderOf(Item(alone)));
        Assert.InRange(Item(alone).Bounds.Top - Item(words).Bounds.Top, -1, 1);
    }

    [Fact]
    public void Words_stand_in_the_middle_of_their_shape_and_go_along_with_it()
    {
        var shape = Rectangle(1_000, 1_000, 7_000, 4_000);
        var words = Type(shape, "Escape wheel");
        AssertMiddle(words, 4_000, 2_500);
        Do(Tobias, new Change.ItemsTransformed([shape], [], Transform.Scale(2, 500, 0)));
        AssertMiddle(words, 8_500, 5_000);
        // Whoever moves them alone moves nothing: they are the shape's.
        Do(Ines, new Change.ItemsShifted([words], 900, 900));
        AssertMiddle(words, 8_500, 5_000);
        Assert.Equal([shape, words], Selecting.At(Page, 8_500, 5_000, 50, ItemFilter.All).Select(item => item.Id));
        Assert.Equal([shape, words], Selecting.At(Page, 2_500, 5_000, 50, ItemFilter.All).Select(item => item.Id));
        // More lines, and still the middle.
        Append(words, "\nof thirty teeth");
        AssertMiddle(words, 8_500, 5_000);
        Do(Tobias, new Change.ItemsSet([shape], [new ItemValue(ItemField.Colour, "b4533cff")]));
        Assert.Equal(WrittenContent.Ink, ((TextContent)Item(words).Content).Colour);
    }

    [Fact]
    public void Words_whose_shape_was_removed_stay_and_are_moved_by_themselves()
    {
        var shape = Rectangle(1_000, 1_000, 7_000, 4_000);
        var words = Type(shape, "Nothing typed is lost");
        var before = Item(words).Bounds;
        Do(Tobias, new Change.ItemsRemoved([shape]));
        Assert.True(Item(words).Shown);
        Assert.Null(Diagram.HolderOf(Item(words)));
        Assert.InRange(Item(words).Bounds.Left, before.Left - 10, before.Left + 10);
        var left = Item(words).Bounds.Left;
        Do(Ines, new Change.ItemsShifted([words], 700, 0));
        Assert.Equal(left + 700, Item(words).Bounds.Left);
        UndoAll(Tobias);
        AssertMiddle(words, 4_000, 2_500);
    }

    [Fact]
    public void Words_never_stand_on_their_heads()
    {
        var shape = Rectangle(0, 0, 6_000, 2_000);
        var words = Type(shape, "Level");
        for (var quarter = 1; quarter <= 8; quarter++)
        {
            Do(Ines, new Change.ItemsTransformed([shape], [], new Transform(0, Transform.One, -Transform.One, 0, 9_000, 0)));
            var place = ((TextContent)Item(words).Content).Place;
            Assert.True(place.A > 0.99 || Math.Abs(place.B) > 0.99, $"turned {quarter} times it lies at {place}");
            Assert.True(place.A > -0.01, $"turned {quarter} times it stands on its head: {place}");
        }
    }

    [Theory]
    [InlineData(ShapeKind.Ellipse)]
    [InlineData(ShapeKind.Rhombus)]
    [InlineData(ShapeKind.Triangle)]
    [InlineData(ShapeKind.RegularPolygon)]
    [InlineData(ShapeKind.Circle)]
    [InlineData(ShapeKind.Rectangle)]
    public void The_room_for_words_lies_within_the_shape(ShapeKind kind)
    {
        var shape = Put(ShapeTool.Between(kind, 0, 0, 8_000, 6_000, false));
        var content = (ShapeContent)Item(shape).Content;
        var room = LabelRoom.Of(content)!.Value;
        // A shape with straight sides may be cut at the corners of its room, never at the middles of its sides.
        Assert.All(
            new[] { (1, 0), (-1, 0), (0, 1), (0, -1) },
            side => Assert.True(content.Holds(room.X + side.Item1 * room.Width * 0.49, room.Y + side.Item2 * room.Height * 0.49))
        );
    }

    [Fact]
    public void What_leans_on_what_converges_in_whatever_order_it_comes() =>
        Generate.PageHistory.Sample(
            history =>
            {
                PageDocument inOrder = new(),
                    turned = new();
                foreach (var operation in history)
                    inOrder.Apply(operation);
                foreach (var operation in history.AsEnumerable().Reverse())
                    turned.Apply(operation);
                foreach (var (one, other) in inOrder.Items.Zip(turned.Items))
                {
                    if (one.Shown && one.Visible().Count > 0)
                        Assert.Equal(one.Bounds, other.Bounds);
                }
            },
            iter: 300
        );

    [Fact]
    public void A_branch_map_lies_without_anything_on_anything_and_its_middle_stays()
    {
        var nodes = Gen.Select(Gen.Int[0, 1_000], Gen.Bool, Gen.Int[300, 6_000], Gen.Int[300, 3_000]).Array[0, 60];
        nodes.Sample(
            told =>
            {
                List<BranchNode> map = [new(new Box(0, 0, 4_000, 1_500), -1, true)];
                foreach (var (parent, right, width, height) in told)
                    map.Add(new BranchNode(new Box(parent * 7, width, parent * 7 + width, width + height), parent % map.Count, right));
                var moved = BranchLayout.Of(map);
                Assert.Equal((0, 0), moved[0]);
                var boxes = map.Select((node, i) => node.Box.Shift(moved[i].Dx, moved[i].Dy)).ToList();
                for (var i = 0; i < boxes.Count; i++)
                {
                    for (var k = 0; k < i; k++)
                        Assert.False(boxes[i].Meets(boxes[k]), $"{i} lies on {k}");
                }
            },
            iter: 300
        );
    }

    [Fact]
    public void A_branch_is_laid_with_its_connector_and_room_for_words_and_the_others_make_room()
    {
        var centre = Put(ShapeTool.Between(ShapeKind.Ellipse, 8_000, 8_000, 13_000, 11_000, false));
        var first = Branch(centre);
        var second = Branch(centre);
        Assert.True(Item(first).Bounds.Left > Item(centre).Bounds.Right);
        Assert.True(Item(second).Bounds.Right < Item(centre).Bounds.Left);
        var further = Branch(first);
        Assert.True(Item(further).Bounds.Left > Item(first).Bounds.Right);
        var third = Branch(centre);
        Assert.False(Item(third).Bounds.Meets(Item(first).Bounds));
        Assert.Equal(centre, BranchMap.CentreOf(Page, further));
        Assert.Equal(4, new BranchMap(Page, centre).Branches);
        // One step, with the words and the connector.
        UndoAll(Ines);
        Assert.Equal(3, new BranchMap(Page, centre).Branches);
        // A circle of connectors is no map without an end.
        Connect(Middle(further), Middle(centre));
        Assert.Equal(3, new BranchMap(Page, centre).Branches);
        Assert.NotEqual(default, BranchMap.CentreOf(Page, further));
    }

    [Fact]
    public void What_was_arranged_by_hand_stays_where_it_is_when_a_branch_comes()
    {
        OpId one = Rectangle(8_000, 8_000, 12_000, 10_000),
            other = Rectangle(15_000, 3_000, 18_000, 4_000);
        Connect(10_000, 9_000, 16_000, 3_500);
        var (first, before) = (Branch(one), Item(other).Bounds);
        Assert.True(Item(first).Bounds.Right < Item(one).Bounds.Left);
        var second = Branch(one);
        Assert.True(Item(second).Bounds.Top > Item(other).Bounds.Bottom || Item(second).Bounds.Top > Item(first).Bounds.Bottom);
        Assert.Equal(before, Item(other).Bounds);
    }

    [Fact]
    public void A_map_laid_out_anew_comes_to_rest_and_has_room_for_its_words()
    {
        var centre = Put(ShapeTool.Between(ShapeKind.Ellipse, 8_000, 8_000, 13_000, 11_000, false));
        var first = Branch(centre);
        var second = Branch(centre);
        Append(Diagram.WordsIn(Page, first)!.Id, "Beats unevenly\nand stops\nafter an hour or two");
        Do(Tobias, new Change.ItemsShifted([second], 2_000, 3_333));
        foreach (var change in new BranchMap(Page, centre).Arrange())
            Do(Ines, change);
        var words = (TextContent)Diagram.WordsIn(Page, first)!.Content;
        Assert.True(LabelRoom.Of((ShapeContent)Item(first).Content)!.Value.Height >= words.Height - 1);
        Assert.Empty(new BranchMap(Page, centre).Arrange());
        Assert.Equal(Middle(centre).Y, Middle(first).Y, 2.0);
    }

    [Fact]
    public void Without_its_past_a_page_shows_connectors_and_words_where_they_are()
    {
        OpId one = Rectangle(0, 0, 4_000, 2_000),
            other = Rectangle(6_000, 0, 8_000, 1_000);
        var joined = Connect(1_000, 500, 7_000, 500);
        var words = Type(one, "Click");
        Do(Tobias, new Change.ItemsShifted([other], 0, 4_000));
        Do(Tobias, new Change.ItemsRemoved([other]));
        Do(Tobias, new Change.ItemsShifted([one], 500, 700));
        // All of its line rubbed out: the shape is there, and nothing of it is seen.
        Do(Ines, new Change.GapsAdded([new StrokeGaps(one, [new Interval(0, Item(one).Content.End)])]));
        var standing = new PageDocument();
        foreach (var operation in StandingPage.Of(Page))
            standing.Apply(operation);
        Assert.Null(standing.Find(other));
        var points = ((ShapeContent)standing.Find(joined)!.Content).PlacedShape!.Points;
        Assert.Equal(End(joined, false), (points[^1].X, points[^1].Y));
        Assert.InRange(standing.Find(words)!.Bounds.Top - Item(words).Bounds.Top, -1, 1);
        var again = new PageDocument();
        foreach (var operation in StandingPage.Of(standing))
            again.Apply(operation);
        Assert.Equal(standing.EncodeState(), again.EncodeState());
    }

    [Fact]
    public void A_history_goes_back_to_where_a_connector_ran_then()
    {
        Rectangle(0, 0, 2_000, 1_000);
        var other = Rectangle(6_000, 0, 8_000, 1_000);
        var joined = Connect(1_000, 500, 7_000, 500);
        var then = Page.EncodeState();
        var moved = Do(Tobias, new Change.ItemsShifted([other], 0, 4_000));
        Page.Withdraw(moved, null);
        AssertEnds(joined, (2_000, 500), (6_000, 500));
        Assert.Equal(then, Page.EncodeState());
    }

    private OpId Rectangle(int left, int top, int right, int bottom) =>
        Put(new Shape(ShapeKind.Rectangle, [At(left, top), At(right, top), At(right, bottom), At(left, bottom)]));

    private static Shape Ring(int x, int y, int radius) => new(ShapeKind.Circle, [At(x, y), At(x + radius, y)]);

    private OpId Connect((double X, double Y) from, (double X, double Y) to) => Connect(from.X, from.Y, to.X, to.Y);

    private OpId Connect(double x1, double y1, double x2, double y2, ConnectorLook? look = null) =>
        Lay(Connecting.Of(Page, (x1, y1), (x2, y2), 100, look ?? Arrow, Ball, Guid.Empty)).Items[0];

    private OpId Branch(OpId from)
    {
        var laid = Lay(new BranchMap(Page, BranchMap.CentreOf(Page, from)).Branch(from, Guid.Empty)!);
        return laid.Items.Single(id => Item(id).Content is ShapeContent { Shape.IsClosed: true });
    }

    private Laying Lay(List<Operation> piece)
    {
        var laying = new Laying(piece);
        while (laying.Next(change => Do(Ines, change).Id)) { }
        if (laying.Steps.Count > 1)
            Do(Ines, new Change.StepsJoined(laying.Steps));
        return laying;
    }

    private IReadOnlyList<OpId> Copy(OpId[] items, int down)
    {
        var laying = new Laying(Cutting.Of(Page, items.ToHashSet()), 0, down, Guid.Empty);
        while (laying.Next(change => Do(Tobias, change).Id)) { }
        return laying.Items;
    }

    private OpId Type(OpId shape, string text)
    {
        var added = ShapeWords.In(shape, LabelRoom.Of((ShapeContent)Item(shape).Content)!.Value, [], Guid.Empty);
        return Do(Ines, added with { Passage = added.Passage with { Text = text } }).Id;
    }

    private void Append(OpId words, string text)
    {
        var burst = new Burst(Item(words).Typed, new OpId(Ines.Id, ulong.MaxValue - 1), new Hlc(ulong.MaxValue));
        new Typist(Item(words).Typed, burst, new Dictionary<Trait, string>()).Type(
            Item(words).Typed.Length,
            Item(words).Typed.Length,
            text
        );
        var typed = burst.Finished;
        burst.End();
        Do(Ines, new Change.TextTyped(words, typed));
    }

    private (int X, int Y) End(OpId connector, bool start)
    {
        var points = ((ShapeContent)Item(connector).Content).PlacedShape!.Points;
        var at = start ? points[0] : points[^1];
        return (at.X, at.Y);
    }

    private void AssertEnds(OpId connector, (int X, int Y) start, (int X, int Y) end, int within = 1)
    {
        Assert.InRange(Distance(Less(End(connector, true), start)), 0, within);
        Assert.InRange(Distance(Less(End(connector, false), end)), 0, within);
        // What is painted is that line.
        var samples = ((ShapeContent)Item(connector).Content).Corners;
        Assert.Contains(
            Enumerable.Range(0, samples.Length / 2),
            i => Distance(Less(((int)samples[2 * i], (int)samples[2 * i + 1]), end)) <= within + 1
        );
    }

    private void AssertMiddle(OpId words, double x, double y)
    {
        var box = Item(words).Bounds;
        Assert.Equal(x, (box.Left + (double)box.Right) / 2, 3.0);
        Assert.Equal(y, (box.Top + (double)box.Bottom) / 2, 3.0);
    }

    private (double X, double Y) Middle(OpId thing) =>
        Item(thing).Bounds is var box ? ((box.Left + (double)box.Right) / 2, (box.Top + (double)box.Bottom) / 2) : default;

    private static (int X, int Y) Less((int X, int Y) one, (int X, int Y) other) => (one.X - other.X, one.Y - other.Y);

    private static double Distance((int X, int Y) at) => Math.Sqrt((double)at.X * at.X + (double)at.Y * at.Y);
}
