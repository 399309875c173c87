using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Shapes;
using CalmQuill.Testing;
using CsCheck;
using NetTopologySuite.Geometries;

namespace CalmQuill.Core.Tests;

/// <summary>What a loop takes, an eraser rubs out, a press meets and a joined end comes to, against NetTopologySuite 2.6.</summary>
public sealed class ReachTests : OnPage
{
    private static readonly GeometryFactory Plane = new();

    [Fact]
    public void A_loop_takes_the_share_of_a_line_that_lies_within_it() =>
        Gen.Select(Gen.Int[3, 12], Gen.Int, Gen.Int[200, 4_000], Gen.Int[-3_000, 3_000], Gen.Int[-3_000, 3_000])
            .Sample(
                (corners, seed, radius, dx, dy) =>
                {
                    var loop = Star(new Random(seed), corners, radius);
                    var page = new PageDocument();
                    var device = new Replica(1, Generate.People[0]);
                    var stroke = device.Make(new Change.StrokeAdded(Ball, 0, Generate.Wave(60, -2_000, 0)), 1);
                    page.Apply(stroke);
                    page.Apply(device.Make(new Change.ItemsShifted([stroke.Id], dx, dy), 2));
                    var item = page.Find(stroke.Id)!;
                    var line = LineOf(item);
                    var wanted = line.Intersection(AreaOf(loop)).Length / line.Length;
                    Assert.Equal(wanted, item.Content.ShareInside(loop), 1e-6);
                    // Just below that share it is taken, just above it is not.
                    if (wanted is > 1e-3 and < 1 - 1e-3)
                    {
                        Assert.Single(Selecting.Inside(page, loop, wanted - 1e-6));
                        Assert.Empty(Selecting.Inside(page, loop, wanted + 1e-6));
                    }
                },
                iter: 2_000
            );

    [Fact]
    public void A_loop_counts_only_what_was_not_rubbed_out() =>
        Gen.Select(Gen.Int[0, 6_000], Gen.Int[50, 400], Gen.Int[300, 5_700])
            .Sample(
                (at, radius, edge) =>
                {
                    var page = new PageDocument();
                    var device = new Replica(1, Generate.People[0]);
                    var stroke = device.Make(new Change.StrokeAdded(Ball, 0, Straight(0, 0, 6_000, 0)), 1);
                    page.Apply(stroke);
                    var pass = new EraserPass(page, radius, false);
                    pass.MoveTo(at, 0);
                    if (pass.End() is not { } change)
                        return;
                    page.Apply(device.Make(change, 2));
                    var left = LineOf(page.Find(stroke.Id)!);
                    double[] loop = [-1_000, -1_000, edge, -1_000, edge, 1_000, -1_000, 1_000];
                    var wanted = left.Length == 0 ? 0 : left.Intersection(AreaOf(loop)).Length / left.Length;
                    Assert.Equal(wanted, page.Find(stroke.Id)!.Content.ShareInside(loop), 1e-3);
                },
                iter: 1_000
            );

    [Fact]
    public void All_that_is_selected_is_seen_and_what_was_rubbed_out_whole_is_not_among_it()
    {
        var page = new PageDocument();
        var device = new Replica(1, Generate.People[0]);
        var (whole, part, gone, locked) = (Line(0), Line(2_000), Line(4_000), Line(6_000));
        page.Apply(device.Make(new Change.GapsAdded([new StrokeGaps(part, [new Interval(0, 500)])]), 2));
        page.Apply(device.Make(new Change.GapsAdded([new StrokeGaps(gone, [new Interval(0, 1_000_000)])]), 2));
        page.Apply(device.Make(new Change.ItemsSet([locked], [new ItemValue(ItemField.Locked, "1")]), 2));
        Assert.Equal([whole, part], Selecting.All(page, ItemFilter.All).Select(item => item.Id));
        Assert.Equal([whole, part, gone], page.Items.Where(ItemFilter.All.Takes).Select(item => item.Id));

        OpId Line(int y)
        {
            var stroke = device.Make(new Change.StrokeAdded(Ball, 0, Straight(0, y, 6_000, y)), 1);
            page.Apply(stroke);
            return stroke.Id;
        }
    }

    [Fact]
    public void A_loop_of_less_than_three_corners_and_one_round_bare_paper_take_nothing()
    {
        var line = Line(0, 0, 3_000, 0);
        Assert.Empty(Selecting.Inside(Page, [], 0.5));
        Assert.Empty(Selecting.Inside(Page, [0, 0, 3_000, 0], 0.5));
        Assert.Empty(Selecting.Inside(Page, [0, 5_000, 3_000, 5_000, 3_000, 8_000], 0.5));
        // A share of nought means that something of it must be inside all the same.
        Assert.Empty(Selecting.Inside(Page, [0, 5_000, 3_000, 5_000, 3_000, 8_000], 0));
        Assert.Equal([line], Selecting.Inside(Page, [-10, -10, 100, -10, 100, 10, -10, 10], 0).Select(item => item.Id));
    }

    [Fact]
    public void An_eraser_rubs_out_what_lies_under_its_way_and_nothing_beside_it() =>
        Gen.Select(Gen.Int[100, 900], Gen.Select(Gen.Int[-1_000, 8_000], Gen.Int[-1_500, 1_500]).Array[1, 6], Gen.Int[20, 400])
            .Sample(
                (radius, way, width) =>
                {
                    var page = new PageDocument();
                    var device = new Replica(1, Generate.People[0]);
                    var pen = new Pen(PenKind.Ball, width, 0xFF);
                    var stroke = device.Make(new Change.StrokeAdded(pen, 0, Generate.Wave(120, 0, 0)), 1);
                    page.Apply(stroke);
                    var before = LineOf(page.Find(stroke.Id)!);
                    var pass = new EraserPass(page, radius, false);
                    foreach (var (x, y) in way)
                        pass.MoveTo(x, y);
                    // What is shown while the hand moves is what is there afterwards.
                    var shown = LineOf(page.Find(stroke.Id)!, pass.Remaining(page.Find(stroke.Id)!));
                    if (pass.End() is { } change)
                        page.Apply(device.Make(change, 2));
                    var after = LineOf(page.Find(stroke.Id)!);
                    Assert.Equal(shown.Length, after.Length, 1e-6);
                    Geometry path =
                        way.Length == 1
                            ? Plane.CreatePoint(new Coordinate(way[0].Item1, way[0].Item2))
                            : Plane.CreateLineString([.. way.Select(spot => new Coordinate(spot.Item1, spot.Item2))]);
                    // It goes on by half its radius, so between two steps it reaches as far as √(1 − ¼²) of it; no pen here lies wider than 2 mm.
                    var under = path.Buffer(radius * 0.96, 32);
                    var near = path.Buffer(radius + pen.MostRadius + 2, 32);
                    Assert.InRange(after.Intersection(under).Length, 0, 20);
                    Assert.Equal(before.Difference(near).Length, after.Difference(near).Length, 3.0);
                },
                iter: 400
            );

    [Fact]
    public void A_whole_eraser_takes_every_line_that_it_touches_once_and_a_fill_where_it_lies_within()
    {
        var lines = Enumerable.Range(0, 10).Select(i => Line(0, i * 1_000, 4_000, i * 1_000)).ToArray();
        var fill = Put(new Shape(ShapeKind.Area, [At(10_000, 0), At(12_000, 0), At(12_000, 2_000), At(10_000, 2_000)]), fill: 0xE3B23C80);
        var pass = new EraserPass(Page, 100, true);
        Assert.Empty(pass.MoveTo(2_000, -500));
        Assert.Equal(lines[..4].ToHashSet(), pass.MoveTo(2_000, 3_500));
        // The same way back finds nothing new.
        Assert.Empty(pass.MoveTo(2_000, 500));
        Assert.Equal([fill], pass.MoveTo(11_000, 500));
        Assert.Empty(pass.Remaining(Item(lines[0])));
        Assert.Single(pass.Remaining(Item(lines[9])));
        var change = Assert.IsType<Change.ItemsRemoved>(pass.End());
        Assert.Equal(lines[..4].Append(fill).Order(), change.Items);
        Do(Ines, change);
        UndoAll(Ines);
        Assert.Equal(11, Shown().Length);
        // An eraser of lines leaves a fill alone.
        var gentle = new EraserPass(Page, 100, false);
        gentle.MoveTo(11_000, 500);
        Assert.Null(gentle.End());
    }

    [Fact]
    public void A_press_takes_the_foremost_line_within_reach_or_the_fill_that_lies_there() =>
        Gen.Select(Gen.Int[-200, 6_200], Gen.Int[-1_500, 1_500], Gen.Int[20, 500])
            .Sample(
                (x, y, reach) =>
                {
                    var page = new PageDocument();
                    var device = new Replica(1, Generate.People[0]);
                    var added = new List<Operation>();
                    foreach (var height in (int[])[0, 300, -700])
                    {
                        added.Add(device.Make(new Change.StrokeAdded(Ball, 0, Straight(0, height, 6_000, height)), added.Count));
                        page.Apply(added[^1]);
                    }

                    var spot = Plane.CreatePoint(new Coordinate(x, y));
                    // Within a hundredth of a millimetre of the edge either answer is right.
                    var distances = added.Select(one => LineOf(page.Find(one.Id)!).Distance(spot) - reach - Ball.MostRadius).ToList();
                    if (distances.Exists(distance => Math.Abs(distance) < 25))
                        return;
                    var wanted = added.Where((_, i) => distances[i] < 0).Select(one => one.Id).LastOrDefault();
                    var taken = Selecting.At(page, x, y, reach, ItemFilter.All).Select(item => item.Id).SingleOrDefault();
                    // At the ends of a line the reach is round only as far as the line's own half width.
                    if (x is > 0 and < 6_000)
                        Assert.Equal(wanted, taken);
                    else if (taken != default)
                        Assert.True(distances[added.FindIndex(one => one.Id == taken)] < 0);
                },
                iter: 1_000
            );

    [Fact]
    public void A_joined_line_keeps_its_direction_and_meets_what_was_there_with_an_end() =>
        Gen.Select(Gen.Int[1, 6], Gen.Int, Gen.Int[50, 400])
            .Sample(
                (count, seed, tolerance) =>
                {
                    var random = new Random(seed);
                    var page = new PageDocument();
                    var device = new Replica(1, Generate.People[0]);
                    var things = new List<Geometry>();
                    Corner Spot() => At(random.Next(8_000), random.Next(8_000));
                    for (var i = 0; i < count; i++)
                    {
                        var shape = random.Next(3) switch
                        {
                            0 => new Shape(ShapeKind.Line, [Spot(), Spot()]),
                            1 => new Shape(ShapeKind.Triangle, [Spot(), Spot(), Spot()]),
                            _ => new Shape(ShapeKind.Polyline, [Spot(), Spot(), Spot(), Spot()]),
                        };
                        if (!shape.IsWellFormed)
                            return;
                        page.Apply(device.Make(new Change.ShapeAdded(shape, Ball, 0, []), i));
                        var corners = shape.Points.Select(corner => new Coordinate(corner.X, corner.Y)).ToList();
                        if (shape.IsClosed)
                            corners.Add(corners[0]);
                        things.Add(Plane.CreateLineString([.. corners]));
                    }

                    var all = Plane.CreateGeometryCollection([.. things]);
                    var line = new Shape(ShapeKind.Line, [Spot(), Spot()]);
                    var joined = new Joining(page, new HashSet<OpId>(), null, tolerance).Join(line);
                    Assert.Equal(ShapeKind.Line, joined.Kind);
                    var (was, now) = (line.Points, joined.Points);
                    double length = was[0].To(was[1]),
                        kept = now[0].To(now[1]);
                    Assert.InRange(kept, 1, length + 4 * tolerance);
                    // By how much its end lies aside of where its direction leads: no more than whole coordinates make.
                    var aside =
                        (
                            (now[1].X - (double)now[0].X) * (was[1].Y - (double)was[0].Y)
                            - (now[1].Y - (double)now[0].Y) * (was[1].X - (double)was[0].X)
                        ) / length;
                    Assert.InRange(aside, -5 - kept / length, 5 + kept / length);
                    if (joined == line)
                        return;
                    Assert.All(was.Zip(now), end => Assert.InRange(end.First.To(end.Second), 0, 2 * tolerance + 2));
                    Assert.Contains(now, end => all.Distance(Plane.CreatePoint(new Coordinate(end.X, end.Y))) <= 1.5);
                    // What is farther off than the tolerance is left alone.
                    if (line.Points.All(corner => all.Distance(Plane.CreatePoint(new Coordinate(corner.X, corner.Y))) > tolerance + 1))
                        Assert.Equal(line, joined);
                },
                iter: 2_000
            );

    [Fact]
    public void Four_lines_drawn_one_after_the_other_close_at_all_corners_and_lie_at_right_angles() =>
        Gen.Select(Gen.Int[0, 23], Gen.Int, Gen.Int[100, 400])
            .Sample(
                (fifteens, seed, tolerance) =>
                {
                    var random = new Random(seed);
                    var (sin, cos) = Math.SinCos(fifteens * Math.PI / 12);
                    double wide = 3_000 + random.Next(6_000),
                        high = 2_000 + random.Next(5_000);
                    var page = new PageDocument();
                    var device = new Replica(1, Generate.People[0]);
                    // Each line is as level or upright as the figure, begins about where the last ended, and misses its corners by some of the tolerance, along and aside.
                    double Miss() => (random.NextDouble() - 0.5) * tolerance * 0.9;
                    Corner Turned((double X, double Y) p) => Corner.At(20_000 + p.X * cos - p.Y * sin, 20_000 + p.X * sin + p.Y * cos);
                    (double X, double Y) last = (0, 0);
                    for (var i = 0; i < 4; i++)
                    {
                        (double X, double Y) from = i == 0 ? last : (last.X + Miss(), last.Y + Miss()),
                            to = i switch
                            {
                                0 => (wide, from.Y),
                                1 => (from.X, high),
                                2 => (Miss(), from.Y),
                                _ => (from.X, Miss()),
                            };
                        var line = new Shape(ShapeKind.Line, [Turned(from), Turned(to)]);
                        var joined = new Joining(page, new HashSet<OpId>(), null, tolerance).Join(line, tidied: true);
                        page.Apply(device.Make(new Change.ShapeAdded(joined, Ball, 0, []), i));
                        double x = joined.Points[1].X - 20_000.0,
                            y = joined.Points[1].Y - 20_000.0;
                        last = (x * cos + y * sin, y * cos - x * sin);
                    }

                    var drawn = page.Items.Select(item => item.AsShape()!.PlacedShape!.Points).ToList();
                    for (var i = 0; i < 4; i++)
                    {
                        var (one, next) = (drawn[i], drawn[(i + 1) % 4]);
                        Assert.InRange(one[1].To(next[0]), 0, 3);
                        double dot =
                            (one[1].X - (double)one[0].X) * (next[1].X - (double)next[0].X)
                            + (one[1].Y - (double)one[0].Y) * (next[1].Y - (double)next[0].Y);
                        Assert.InRange(dot / one[0].To(one[1]) / next[0].To(next[1]), -0.003, 0.003);
                    }
                },
                iter: 2_000
            );

    [Fact]
    public void Lines_that_were_dragged_out_and_squares_stay_exact_and_a_rough_one_closes_a_triangle()
    {
        Put(new Shape(ShapeKind.Line, [At(5_000, 5_000), At(9_000, 5_000)]));
        Put(new Shape(ShapeKind.Line, [At(9_000, 5_000), At(8_000, 8_400)]));
        var nearly = new Joining(Page, new HashSet<OpId>(), null, 250);
        foreach (var degrees in new[] { 14, 45, 47, 60 })
        {
            var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
            var line = ShapeTool.Between(ShapeKind.Line, 5_120, 5_080, 5_120 + 4_270 * cos, 5_080 + 4_270 * sin, false);
            var joined = nearly.Join(line).Points;
            Assert.Equal(At(5_000, 5_000), joined[0]);
            Assert.Equal(degrees, Math.Atan2(joined[1].Y - joined[0].Y, joined[1].X - joined[0].X) * 180 / Math.PI, tolerance: 0.05);
        }

        var square = ShapeTool.Between(ShapeKind.Rectangle, 9_100, 5_060, 12_000, 7_000, even: true);
        var p = nearly.Join(square).Points;
        Assert.Equal((At(9_000, 5_000), 2_900, 2_900), (p[0], p[1].X - p[0].X, p[2].Y - p[1].Y));
        // Its third side was drawn by hand at no resting angle: from end to end it is what was meant; dragged out it stays.
        var third = new Shape(ShapeKind.Line, [At(7_900, 8_500), At(5_120, 5_080)]);
        Assert.Equal([At(8_000, 8_400), At(5_000, 5_000)], nearly.Join(third, tidied: true).Points);
        Assert.NotEqual(At(5_000, 5_000), nearly.Join(third).Points[1]);
        // A handle that is dragged meets an end whichever way; the other end stays.
        Assert.Equal(
            [At(5_000, 5_000), At(2_000, 9_000)],
            nearly.JoinDragged(new Shape(ShapeKind.Line, [At(5_100, 5_100), At(2_000, 9_000)]), 0).Points
        );
    }

    [Fact]
    public void Every_kind_of_shape_is_joined_in_its_own_way()
    {
        var (free, corner) = (Line(0, 20_000, 4_000, 20_000), Put(new Shape(ShapeKind.Line, [At(5_000, 5_000), At(5_000, 9_000)])));
        var nearly = new Joining(Page, new HashSet<OpId>(), null, 250);
        // An arc, a curve and a broken line are joined by their ends; what lies between stays.
        var arc = nearly.Join(new Shape(ShapeKind.Arc, [At(4_900, 5_060), At(3_000, 4_000), At(1_000, 5_000)]));
        Assert.Equal([At(5_000, 5_000), At(3_000, 4_000), At(1_000, 5_000)], arc.Points);
        var bent = nearly.Join(new Shape(ShapeKind.Polyline, [At(1_000, 1_000), At(2_000, 6_000), At(4_880, 6_000)]));
        Assert.Equal([At(1_000, 1_000), At(2_000, 6_000), At(5_000, 6_000)], bent.Points);
        var whole = nearly.Join(new Shape(ShapeKind.Polyline, [At(4_900, 5_060), At(2_000, 5_060), At(2_000, 6_000)]));
        Assert.Equal([At(5_000, 5_000), At(2_100, 5_000), At(2_100, 5_940)], whole.Points);
        // A wave keeps its height when its ends move.
        var wave = nearly.Join(new Shape(ShapeKind.Wave, [At(4_900, 5_100), At(9_000, 5_100), At(4_900, 5_400)], 4));
        Assert.Equal((At(5_000, 5_000), At(5_000, 5_300)), (wave.Points[0], wave.Points[2]));
        // Circles are where they are put.
        var circle = new Shape(ShapeKind.Circle, [At(4_900, 5_100), At(5_900, 5_100)]);
        Assert.Equal(circle, nearly.Join(circle));
        // A triangle comes whole, by the corner that is nearest; far from everything it stays.
        var triangle = nearly.Join(new Shape(ShapeKind.Triangle, [At(5_100, 9_080), At(7_000, 9_000), At(6_000, 11_000)]));
        Assert.Equal([At(5_000, 9_000), At(6_900, 8_920), At(5_900, 10_920)], triangle.Points);
        var far = new Shape(ShapeKind.Triangle, [At(15_100, 9_080), At(17_000, 9_000), At(16_000, 11_000)]);
        Assert.Equal(far, nearly.Join(far));
        // A free line's ends count as well, but not what is being joined itself, nor what is no longer shown.
        var onInk = new Shape(ShapeKind.Line, [At(4_100, 20_050), At(9_000, 20_050)]);
        Assert.Equal(At(4_000, 20_000), nearly.Join(onInk).Points[0]);
        Assert.Equal(onInk, new Joining(Page, new HashSet<OpId> { free }, null, 250).Join(onInk));
        Do(Ines, new Change.ItemsRemoved([corner]));
        var late = new Joining(Page, new HashSet<OpId>(), null, 250);
        Assert.Equal(At(4_900, 5_060), late.Join(new Shape(ShapeKind.Line, [At(4_900, 5_060), At(3_000, 4_000)])).Points[0]);
    }

    [Fact]
    public void Round_lines_are_met_where_they_run_and_a_rectangle_by_the_sides_that_are_level()
    {
        Put(new Shape(ShapeKind.Circle, [At(5_000, 5_000), At(7_000, 5_000)]));
        Put(new Shape(ShapeKind.Curve, [At(12_000, 2_000), At(14_000, 2_000), At(16_000, 2_000)]));
        Put(new Shape(ShapeKind.Arc, [At(12_000, 8_000), At(13_000, 7_000), At(14_000, 8_000)]));
        var nearly = new Joining(Page, new HashSet<OpId>(), null, 250);
        // A line towards the middle stops on the circle, of 20 mm radius.
        var spoke = nearly.Join(new Shape(ShapeKind.Line, [At(10_000, 5_000), At(7_150, 5_000)])).Points[1];
        Assert.InRange(spoke.To(At(5_000, 5_000)), 1_985, 2_015);
        Assert.Equal(At(12_000, 2_000), nearly.Join(new Shape(ShapeKind.Line, [At(12_100, 1_900), At(12_000, 500)])).Points[0]);
        Assert.Equal(At(14_000, 8_000), nearly.Join(new Shape(ShapeKind.Line, [At(14_100, 8_100), At(18_000, 9_500)])).Points[0]);
        // Two boxes beside each other get one side in common.
        Put(new Shape(ShapeKind.Rectangle, [At(1_000, 15_000), At(4_000, 15_000), At(4_000, 17_000), At(1_000, 17_000)]));
        var table = new Joining(Page, new HashSet<OpId>(), null, 250);
        var beside = table.Join(
            new Shape(ShapeKind.Rectangle, [At(4_120, 15_090), At(6_500, 15_090), At(6_500, 16_900), At(4_120, 16_900)])
        );
        Assert.Equal([At(4_000, 15_000), At(6_500, 15_000), At(6_500, 17_000), At(4_000, 17_000)], beside.Points);
        // One so narrow that both its sides would fall together stays as it was drawn.
        var narrow = new Shape(ShapeKind.Rectangle, [At(3_900, 15_500), At(4_100, 15_500), At(4_100, 16_000), At(3_900, 16_000)]);
        Assert.Equal(narrow, table.Join(narrow));
    }

    /// <summary>What is to be seen of an item's line.</summary>
    private static Geometry LineOf(PageItem item, IReadOnlyList<Interval>? visible = null)
    {
        var samples = item.Line.Samples;
        Coordinate At(double place)
        {
            var i = Math.Min((int)place, samples.Count - 2);
            var (x, y) = SplineSpan.Of(samples, i).At((float)(place - i));
            // In doubles: sums in single precision would move the reference itself by some thousandths of a unit.
            return new Coordinate((double)x + item.Dx, (double)y + item.Dy);
        }

        var parts = new List<LineString>();
        foreach (var part in visible ?? item.Visible())
        {
            if (part.End <= part.Start)
                continue;
            double from = part.Start / (double)Interval.PerSample,
                to = part.End / (double)Interval.PerSample;
            var places = Enumerable
                .Range(0, samples.Count - 1)
                .SelectMany(i =>
                    Enumerable.Range(0, SplineSpan.Of(samples, i).Pieces).Select(k => i + k / (double)SplineSpan.Of(samples, i).Pieces)
                )
                .Where(place => place > from && place < to)
                .Prepend(from)
                .Append(to);
            parts.Add(Plane.CreateLineString([.. places.Select(At)]));
        }

        return Plane.CreateMultiLineString([.. parts]);
    }

    private static Polygon AreaOf(double[] loop) =>
        Plane.CreatePolygon([
            .. Enumerable
                .Range(0, loop.Length / 2 + 1)
                .Select(i => new Coordinate(loop[2 * i % loop.Length], loop[(2 * i + 1) % loop.Length])),
        ]);

    /// <summary>A loop about the origin that does not cross itself.</summary>
    private static double[] Star(Random random, int corners, int radius) =>
        [
            .. Enumerable
                .Range(0, corners)
                .SelectMany(i =>
                {
                    var (sin, cos) = Math.SinCos(2 * Math.PI * i / corners);
                    var far = radius * (0.3 + 0.7 * random.NextDouble());
                    return (double[])[far * cos, far * sin];
                }),
        ];
}
