using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Typesetting;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>
/// A kind of thing that Core has never heard of, a coloured dot: whatever works on things of a page goes by what its content answers, and by nothing
/// else.
/// </summary>
public sealed class ContentTests : OnPage
{
    private const int Radius = 300;

    private sealed record DotAdded(int X, int Y, uint Colour, Reshaping Reshaping) : Change.ItemAdded
    {
        public override ChangeKind Kind => ChangeKind.StrokeAdded;

        public override long BegunAt(Hlc stamp) => stamp.UnixMilliseconds;

        public override ItemContent Content(IItemFrame frame) => new Dot(frame, this);

        public override string Word => "dot";

        public override Refusal? Check() => null;

        public override ItemAdded Copied(int dx, int dy) => this with { X = X + dx, Y = Y + dy };
    }

    /// <summary>A square with its control points doubled, so that its corners are corners.</summary>
    private sealed class Dot(IItemFrame frame, DotAdded made)
        : SolidContent(
            frame,
            [
                (made.X - Radius, made.Y - Radius),
                (made.X - Radius, made.Y - Radius),
                (made.X + Radius, made.Y - Radius),
                (made.X + Radius, made.Y - Radius),
                (made.X + Radius, made.Y + Radius),
                (made.X + Radius, made.Y + Radius),
                (made.X - Radius, made.Y + Radius),
                (made.X - Radius, made.Y + Radius),
            ],
            made.Colour
        )
    {
        public override ItemKinds Kind => ItemKinds.Shape;

        public override Reshaping Reshaping => made.Reshaping;

        public override Change.ItemAdded Copy() =>
            new Change.StrokeAdded(Ball, 0, Straight(Bounds.Left, Bounds.Top + Radius, Bounds.Right, Bounds.Top + Radius));
    }

    private sealed class Painted : ItemPainter
    {
        public List<(uint Colour, float X)> Fills { get; } = [];

        public override void Fill(Outline filled, Coat coat) => Fills.Add((coat.Colour, filled.Ring(0)[0]));

        public override void Write(SetText text, in Affine place, uint colour) => Assert.Fail("A dot has no letters.");

        public override void Draw(Core.Pictures.PictureLook picture, in Affine place) => Assert.Fail("A dot is no picture.");
    }

    private OpId Put(int x, int y, Reshaping reshaping = Reshaping.Freely)
    {
        var operation = Ines.Make(new DotAdded(x, y, 0x0A8C3EFF, reshaping), Now);
        Assert.True(Page.Apply(operation));
        return operation.Id;
    }

    [Fact]
    public void It_is_pressed_looped_moved_and_put_in_front_or_behind()
    {
        var line = Line(1000, 1000, 4000, 1000);
        var dot = Put(2000, 1000);
        Assert.Equal(dot, Assert.Single(Selecting.At(Page, 2250, 1000, 0, ItemFilter.All)).Id);
        Assert.Equal(line, Assert.Single(Selecting.At(Page, 2900, 1000, 100, ItemFilter.All)).Id);
        double[] loop = [1650, 650, 2350, 650, 2350, 1350, 1650, 1350];
        Assert.Equal(0.5, Item(dot).Content.ShareInside([0, 0, 2000, 0, 2000, 2000, 0, 2000]));
        Assert.Equal(dot, Assert.Single(Selecting.Inside(Page, loop, 0.5)).Id);

        Do(Ines, new Change.ItemsTransformed([dot], [], Transform.Scale(2, 0, 500)));
        Assert.Equal(new Box(3400, 1900, 4600, 3100), Item(dot).Bounds);
        Assert.Empty(Selecting.Inside(Page, loop, 0.5));

        Assert.Equal([line, dot], Shown());
        Do(Tobias, new Change.ItemsSet([dot], [new ItemValue(ItemField.Order, "-1")]));
        Assert.Equal([dot, line], Shown());
        Do(Tobias, new Change.ItemsSet([dot], [new ItemValue(ItemField.Locked, "1")]));
        Assert.Empty(Selecting.At(Page, 4000, 2500, 0, ItemFilter.All));
        Assert.Equal(dot, Assert.Single(Selecting.LockedAt(Page, 4000, 2500, 0, ItemFilter.All)).Id);
    }

    [Fact]
    public void It_goes_as_a_whole_under_the_eraser_and_comes_back_with_undo()
    {
        var line = Line(1000, 1000, 4000, 1000);
        var dot = Put(2000, 1000);
        var parts = new EraserPass(Page, 100, whole: false);
        Assert.Equal([line], parts.MoveTo(2000, 1000));
        Assert.Equal(line, Assert.Single(Assert.IsType<Change.GapsAdded>(parts.End()).Strokes).Stroke);

        var whole = new EraserPass(Page, 100, whole: true);
        Assert.Equal([line, dot], whole.MoveTo(2000, 1000).Order());
        Assert.Empty(whole.Remaining(Item(dot)));
        Do(Ines, whole.End()!);
        Assert.Empty(Shown());
        UndoAll(Ines);
        Assert.Equal([line, dot], Shown());
    }

    [Fact]
    public void It_makes_room_is_copied_seen_being_made_and_painted()
    {
        Line(1000, 1000, 4000, 1000);
        var dot = Put(2000, 3000);
        var room = new MakeRoom(Page, 2500, sideways: false);
        Assert.Equal(dot, Assert.Single(room.Leaving(1_000, 3_500)).Id);

        var copy = new PageDocument();
        foreach (var operation in OperationCodec.Decode(Cutting.Of(Page, new HashSet<OpId> { dot })))
            copy.Apply(operation);
        Assert.Equal(Item(dot).Bounds.Top + Radius, copy.Items.Single().Line.Samples.Y[0]);

        var step = Retrace.Plan(Page.Items).Single(one => one.Item.Id == dot);
        Assert.Equal(1, step.End - step.Start);
        Assert.Empty(Item(dot).Content.MadeAfter(99, 100));

        var painted = new Painted();
        Item(dot).Content.Paint(painted, Item(dot).Visible(), shifted: true);
        Assert.Equal([(0x0A8C3EFFu, 1700f)], painted.Fills);
    }

    [Fact]
    public void What_works_on_lines_passes_over_it()
    {
        // A box whose right side it alone would close.
        Line(1000, 1000, 4000, 1000);
        Line(1000, 1000, 1000, 4000);
        Line(1000, 4000, 4000, 4000);
        Line(4000, 1000, 4000, 2200);
        Line(4000, 2800, 4000, 4000);
        Put(4000, 2500);
        var sheet = new Box(0, 0, 21000, 29700);
        Assert.Null(RegionFill.At(Page, sheet, 2500, 2500, 0));
        Assert.NotNull(RegionFill.At(Page, sheet, 2500, 2500, 700));

        var dot = Put(9000, 1000);
        var near = new Shape(ShapeKind.Line, [new(9000, 4000), new(9000, 1350)]);
        Assert.Equal(near, new Joining(Page, new HashSet<OpId>(), null, 500, JoinPrinted.Never).Join(near));
        Assert.Empty(Scratch.Of(Zigzag(8600, 9400, 700, 1300, 9), Page, ItemFilter.All));
        Assert.DoesNotContain(
            dot,
            EvenLines.Find(Page.Items).SelectMany(line => line.Words).SelectMany(word => word.Items, (_, item) => item.Id)
        );
    }

    [Fact]
    public void Each_follows_as_far_as_it_may_when_several_are_scaled_turned_and_mirrored()
    {
        var free = Put(1000, 1000);
        var even = Put(5000, 1000, Reshaping.InProportion);
        var moved = Put(9000, 1000, Reshaping.MovedOnly);

        Reshaped(new Transform(4 * Transform.One, 0, 0, Transform.One, 0, 0));
        Assert.Equal(Around(4000, 1000, 1200, 300), Item(free).Bounds);
        Assert.Equal(Around(20000, 1000, 600, 600), Item(even).Bounds);
        Assert.Equal(Around(36000, 1000, 300, 300), Item(moved).Bounds);

        // A quarter turn to the right about the sheet's corner: x' = −y, y' = x.
        Reshaped(new Transform(0, Transform.One, -Transform.One, 0, 0, 0));
        Assert.Equal(Around(-1000, 4000, 300, 1200), Item(free).Bounds);
        Assert.Equal(Around(-1000, 20000, 600, 600), Item(even).Bounds);
        Assert.Equal(Around(-1000, 36000, 300, 300), Item(moved).Bounds);

        Reshaped(new Transform(-Transform.One, 0, 0, Transform.One, 0, 0));
        Assert.Equal(Around(1000, 20000, 600, 600), Item(even).Bounds);
        Assert.Equal(Around(1000, 36000, 300, 300), Item(moved).Bounds);
        UndoAll(Ines);
        Assert.Equal(Around(-1000, 36000, 300, 300), Item(moved).Bounds);

        void Reshaped(Transform transform)
        {
            foreach (var (items, step) in Reshape.Of([Item(free), Item(even), Item(moved)], transform))
                Do(Ines, new Change.ItemsTransformed([.. items.Select(item => item.Id)], [], step));
        }
    }

    [Fact]
    public void What_is_only_moved_stays_out_of_what_would_not_move_it()
    {
        var moved = Put(5000, 1000, Reshaping.MovedOnly);
        Assert.Empty(Reshape.Of([Item(moved)], Transform.Scale(3, -10000, -2000)));
        Assert.Empty(Reshape.Of([], Transform.Shift(5, 5)));
        Assert.Empty(Reshape.Of([Item(moved)], Transform.Identity));
        Assert.Equal(Transform.Shift(5, 5), Assert.Single(Reshape.Of([Item(moved)], Transform.Shift(5, 5))).Transform);
    }

    /// <summary>Two unit vectors stay at right angles and equally long, areas grow as much as asked, and what was a similarity stays what it was.</summary>
    [Fact]
    public void The_nearest_in_proportion_is_a_similarity_of_the_same_growth() =>
        Gen.Int[-3 * Transform.One, 3 * Transform.One]
            .Array[4]
            .Where(m => new Transform(m[0], m[1], m[2], m[3], 0, 0).IsReasonable)
            .Sample(
                m =>
                {
                    var asked = new Transform(m[0], m[1], m[2], m[3], 7, -9);
                    var near = asked.InProportion();
                    var area = Area(asked);
                    Assert.Equal(0, near.A * (double)near.C + near.B * (double)near.D, Transform.One * 8.0);
                    Assert.Equal(area, Area(near), Math.Abs(area) * 0.01 + 1e-3);
                    Assert.InRange(near.InProportion().A, near.A - 1, near.A + 1);
                    Assert.InRange(near.InProportion().B, near.B - 1, near.B + 1);
                },
                iter: 5_000
            );

    private static double Area(Transform t) => ((double)t.A * t.D - (double)t.B * t.C) / ((double)Transform.One * Transform.One);

    private static Box Around(int x, int y, int across, int down) => new(x - across, y - down, x + across, y + down);

    [Fact]
    public void A_page_with_it_is_the_same_whatever_came_first()
    {
        var dot = Put(2000, 1000);
        Do(Ines, new Change.ItemsShifted([dot], 300, -200));
        Do(Tobias, new Change.ItemsSet([dot], [new ItemValue(ItemField.Group, Guid.NewGuid().ToString())]));
        Do(Tobias, new Change.ItemsShifted([dot], 5, 5));
        foreach (var order in new[] { new[] { 3, 2, 1, 0 }, [1, 0, 3, 2], [2, 3, 0, 1] })
        {
            var other = new PageDocument();
            var operations = Page.Operations();
            foreach (var at in order)
                other.Apply(operations[at]);
            Assert.Equal(Page.EncodeState(), other.EncodeState());
        }
    }

    /// <summary>Against the plainest way to keep them: a list of all writes, of which the latest that was not taken out counts.</summary>
    [Fact]
    public void Registers_hold_the_latest_write_that_was_not_taken_out() =>
        Gen.Select(Gen.Int[0, 6], Gen.Int[0, 2], Gen.Bool)
            .Array[0, 40]
            .Sample(
                acts =>
                {
                    var registers = new RetractableRegisters<ItemField>();
                    var standing = new Dictionary<(int At, ItemField Field), string>();
                    foreach (var (at, which, adds) in acts)
                    {
                        var (field, stamp) = ((ItemField)(which + 1), new Stamp(Hlc.At(at + 1), new OpId(1, (ulong)at + 1)));
                        registers.Write(stamp, Guid.Empty, field, $"{at}", adds);
                        if (adds)
                            standing[(at, field)] = $"{at}";
                        else
                            standing.Remove((at, field));
                    }

                    Assert.Equal(standing.Count == 0, registers.IsEmpty);
                    Assert.Equal(standing.Keys.Select(one => one.Field).Distinct().Order(), registers.Fields.Order());
                    foreach (var field in Enum.GetValues<ItemField>())
                    {
                        var writes = standing.Where(one => one.Key.Field == field).OrderBy(one => one.Key.At).ToList();
                        Assert.Equal(writes.Count > 0 ? writes[^1].Value : "", registers.Read(field));
                        Assert.Equal(writes.Count > 0 ? writes[0].Value : null, registers.First(field)?.Value);
                    }
                },
                iter: 2_000
            );
}
