using CalmQuill.Core.Ink;
using CalmQuill.Testing;
using CsCheck;
using static CalmQuill.Core.Tests.Inked;

namespace CalmQuill.Core.Tests;

/// <summary>Outlines, intervals, simplified lines and order keys.</summary>
public class InkTests
{
    [Fact]
    public void The_centre_line_runs_within_0_15_mm_of_every_sample() =>
        Gen.Select(Generate.Samples, Generate.Pen)
            .Sample(
                (samples, pen) =>
                {
                    var line = new StrokeOutliner().CentreLineOf(samples, pen);
                    for (var i = 0; i < samples.Count; i++)
                        Assert.True(Distance(line, samples.X[i], samples.Y[i]) <= 15, "a sample lies off the line");
                },
                iter: 500
            );

    [Fact]
    public void Every_sample_lies_in_the_ink_and_no_point_of_the_outline_is_off_it() =>
        Gen.Select(Generate.Samples, Generate.Pen)
            .Sample(
                (samples, pen) =>
                {
                    var outline = OutlineOf(samples, pen);
                    Assert.True(outline.RingCount > 0);
                    var line = new StrokeOutliner().CentreLineOf(samples, pen);
                    for (var ring = 0; ring < outline.RingCount; ring++)
                    {
                        var points = outline.Ring(ring);
                        for (var i = 0; i < points.Length; i += 2)
                        {
                            Assert.True(float.IsFinite(points[i]) && float.IsFinite(points[i + 1]));
                            Assert.True(
                                Distance(line, points[i], points[i + 1]) <= Math.Max(pen.MostRadius, 8) * 1.6 + 2,
                                "the outline strays from the line"
                            );
                        }
                    }

                    for (var i = 0; i < line.Length; i += 2)
                        Assert.True(Covers(outline, line[i], line[i + 1]), "there is a hole in the ink");
                },
                iter: 500
            );

    [Fact]
    public void The_area_of_a_straight_stroke_grows_with_the_pens_width()
    {
        var straight = new StrokeSamples([0, 500, 1000, 1500], [0, 0, 0, 0], [500, 500, 500, 500], [0, 8, 16, 24]);
        foreach (var kind in Enum.GetValues<PenKind>())
        {
            var areas = Enumerable
                .Range(1, 40)
                .Select(i => i * 20)
                .Select(width => Area(OutlineOf(straight, new Pen(kind, width, 0x60))))
                .ToList();
            Assert.Equal(areas.Order(), areas);
        }

        // 15 mm long and 4 mm wide, with round ends: 60 + 12.6 mm².
        Assert.InRange(Area(OutlineOf(straight, new Pen(PenKind.Ball, 400, 0xFF))) / 10_000, 70, 75);
    }

    [Fact]
    public void Odd_strokes_still_make_finite_ink()
    {
        foreach (
            var samples in new[]
            {
                new StrokeSamples([5], [5], [0], [0]),
                new StrokeSamples([5, 5, 5], [7, 7, 7], [0, 0, 0], [0, 0, 0]),
                new StrokeSamples([0, 1000, 0, 1000], [0, 0, 0, 0], [0, 1023, 0, 1023], [0, 1, 2, 3]),
                // Time that runs backwards, and a pen that lies flat.
                new StrokeSamples([0, 300, 600, 900], [0, 50, 0, 50], [0, 0, 0, 0], [40, 20, 20, 0], [90, -90, 89, 0], [0, 90, -89, 0]),
            }
        )
        {
            foreach (var kind in Enum.GetValues<PenKind>())
            {
                var outline = OutlineOf(samples, new Pen(kind, 60, 0x60));
                Assert.True(outline.RingCount > 0);
                for (var i = 0; i < outline.RingCount; i++)
                    Assert.All(outline.Ring(i).ToArray(), value => Assert.True(float.IsFinite(value)));
            }
        }
    }

    [Fact]
    public void A_pen_without_pressure_or_with_none_at_all_still_writes_a_visible_line()
    {
        var none = new StrokeSamples([0, 500, 1000], [0, 0, 0], [0, 0, 0], [0, 8, 16]);
        foreach (var kind in Enum.GetValues<PenKind>())
            Assert.True(Area(OutlineOf(none, new Pen(kind, 60, 0x60))) > 1000 * 5, kind.ToString());
        var far = new StrokeSamples([1_900_000, 1_900_500], [-1_900_000, -1_900_000], [500, 500], [0, 8]);
        Assert.True(Area(OutlineOf(far, new Pen(PenKind.Ball, 60, 0xFF))) > 20_000);
    }

    [Fact]
    public void A_stroke_of_fifty_thousand_samples_is_outlined_and_one_more_is_refused()
    {
        Assert.True(
            OutlineOf(Generate.Wave(StrokeSamples.MostSamples), new Pen(PenKind.Brush, 60, 0xFF)).PointCount > StrokeSamples.MostSamples
        );
        var wet = new WetStroke(new Pen(PenKind.Ball, 40, 0xFF), 0);
        for (var i = 0; i < StrokeSamples.MostSamples + 5; i++)
            wet.Add(i, 0, 500, i, 0, 0);
        Assert.Equal(StrokeSamples.MostSamples, wet.ToSamples().Count);
    }

    [Fact]
    public void A_flat_nib_is_broad_across_its_edge_and_thin_along_it()
    {
        double Broad(int dx, int dy) =>
            Area(
                OutlineOf(new StrokeSamples([0, dx], [0, dy], [500, 500], [0, 8]), new Pen(PenKind.Calligraphy, 200, 0xFF) { Angle = 45 })
            );
        var (along, across) = (Broad(2000, 2000), Broad(2000, -2000));
        Assert.True(across > along * 3.5, $"{across} {along}");
    }

    [Fact]
    public void A_pencil_that_leans_is_broader_and_lighter()
    {
        StrokeSamples Stroke(int tilt) =>
            new(
                [.. Enumerable.Range(0, 40).Select(i => i * 100)],
                new int[40],
                [.. Enumerable.Repeat(500, 40)],
                [.. Enumerable.Range(0, 40)],
                [.. Enumerable.Repeat(tilt, 40)],
                new int[40]
            );
        var pen = new Pen(PenKind.Pencil, 80, 0xFF);
        Assert.True(Nib.Radius(Stroke(60), 5, pen) > 2 * Nib.Radius(Stroke(0), 5, pen));
        Assert.True(Covered(PencilGrain.LevelOf(Stroke(60), pen)) < Covered(PencilGrain.LevelOf(Stroke(0), pen)) * 0.8);
    }

    [Fact]
    public void The_grain_is_covered_the_more_the_harder_a_pencil_is_pressed_and_not_at_all_bare_at_the_hardest()
    {
        var covered = Enumerable.Range(0, PencilGrain.Levels).Select(Covered).ToList();
        Assert.Equal(covered.Order(), covered);
        Assert.InRange(covered[0], 0.02, 0.25);
        Assert.Equal(1, covered[^1]);
        Gen.Select(Gen.Float[0, 1], Gen.Float[0, 1], Gen.Float[0, 1])
            .Sample(
                (pressed, more, lean) =>
                {
                    Assert.True(PencilGrain.LevelOf(Math.Min(1, pressed + more), lean) >= PencilGrain.LevelOf(pressed, lean));
                    Assert.True(PencilGrain.LevelOf(pressed, Math.Min(1, lean + more)) <= PencilGrain.LevelOf(pressed, lean));
                }
            );
        // However lightly it was put down, a dot is seen; and a pen is no pencil.
        var light = new StrokeSamples([500, 520], [500, 500], [20, 20], [0, 8]);
        Assert.True(Covered(PencilGrain.LevelOf(light, new Pen(PenKind.Pencil, 60, 0xFF))) > 0.8);
        Assert.Equal(PencilGrain.Levels - 1, PencilGrain.LevelOf(light, new Pen(PenKind.Ball, 60, 0xFF)));
    }

    [Fact]
    public void A_tile_of_the_grain_fits_itself_on_all_sides_and_is_the_same_at_every_measure()
    {
        const int Points = PencilGrain.MostPoints;
        var tile = PencilGrain.Tile(7, Points);
        // Across its edge it changes no more than within.
        int Most(Func<int, (int From, int To)> pair) =>
            Enumerable.Range(0, Points).Max(i => Math.Abs(tile[pair(i).From] - tile[pair(i).To]));
        Assert.True(Most(y => (y * Points + Points - 1, y * Points)) <= Most(y => (y * Points + 100, y * Points + 101)) * 1.5);
        Assert.True(Most(x => ((Points - 1) * Points + x, x)) <= Most(x => (100 * Points + x, 101 * Points + x)) * 1.5);
        foreach (var points in new[] { 128, 64, 32, 16 })
            Assert.InRange(PencilGrain.Tile(7, points).Average(one => one / 255.0), Covered(7) - 0.02, Covered(7) + 0.02);
    }

    private static double Covered(int level) => PencilGrain.Tile(level, PencilGrain.MostPoints).Average(one => one / 255.0);

    [Fact]
    public void A_brush_thins_with_speed_and_tapers_at_its_ends()
    {
        StrokeSamples Stroke(int pace) =>
            new(
                [.. Enumerable.Range(0, 40).Select(i => i * 100)],
                new int[40],
                [.. Enumerable.Repeat(800, 40)],
                [.. Enumerable.Range(0, 40).Select(i => i * pace)]
            );
        var pen = new Pen(PenKind.Brush, 100, 0xFF);
        Assert.True(Nib.Radius(Stroke(4), 20, pen) < 0.85 * Nib.Radius(Stroke(40), 20, pen));
        var outline = OutlineOf(Stroke(20), pen);
        float High(float from, float to) =>
            Enumerable
                .Range(0, outline.RingCount)
                .SelectMany(i =>
                    Enumerable.Range(0, outline.Ring(i).Length / 2).Select(k => (X: outline.Ring(i)[2 * k], Y: outline.Ring(i)[2 * k + 1]))
                )
                .Where(p => p.X >= from && p.X <= to)
                .Max(p => p.Y);
        Assert.True(High(-60, 20) < High(1900, 2100) * 0.4);
    }

    [Fact]
    public void A_broken_line_is_drawn_in_parts_that_stay_where_they_are_when_some_is_rubbed_out()
    {
        var stroke = Generate.Wave(100);
        var whole = new List<Interval> { new(0, 99 * Interval.PerSample) };
        var dashed = Dashes.Of(stroke, whole, new Pen(PenKind.Ball, 40, 0xFF) { Line = LineStyle.Dashed });
        Assert.InRange(dashed.Count, 10, 40);
        Assert.True(dashed.Zip(dashed.Skip(1)).All(pair => pair.First.End < pair.Second.Start));
        var gone = new Interval(20 * Interval.PerSample, 40 * Interval.PerSample);
        var rest = Dashes.Of(
            stroke,
            Interval.Complement([gone], 0, whole[0].End),
            new Pen(PenKind.Ball, 40, 0xFF) { Line = LineStyle.Dashed }
        );
        Assert.All(rest, part => Assert.Contains(dashed, one => one.Start <= part.Start && part.End <= one.End));
        Assert.Equal(whole, Dashes.Of(stroke, whole, new Pen(PenKind.Ball, 40, 0xFF)));
    }

    [Fact]
    public void Stabilising_at_nought_is_what_the_hand_did_and_more_of_it_shakes_less_and_arrives_all_the_same()
    {
        var random = new Random(4);
        var hand = Enumerable.Range(0, 200).Select(i => (X: i * 30, Y: 5000 + random.Next(-40, 41))).ToArray();
        double Shake(int strength)
        {
            var wet = new WetStroke(new Pen(PenKind.Ball, 40, 0xFF), strength);
            foreach (var ((x, y), i) in hand.Select((p, i) => (p, i)))
                wet.Add(x, y, 500, i * 8, 0, 0);
            wet.End();
            var samples = wet.ToSamples();
            Assert.Equal(hand[^1], (samples.X[^1], samples.Y[^1]));
            if (strength == 0)
                Assert.Equal(hand.Select(p => p.Y), samples.Y);
            return Enumerable.Range(20, 150).Average(i => Math.Abs(samples.Y[i] - samples.Y[i - 1]));
        }

        var shakes = new[] { 0, 25, 50, 100 }.Select(Shake).ToArray();
        Assert.Equal(shakes.OrderDescending(), shakes);
        Assert.True(shakes[^1] < shakes[0] * 0.25);
    }

    /// <summary>Heights of small writing, 1.5 to 4.8 mm, at two to four strokes a second, as pens of 125 and 240 Hz report them.</summary>
    [Fact]
    public void The_strongest_stabilising_keeps_the_height_of_small_writing_within_a_tenth()
    {
        foreach (var height in new[] { 150, 240, 360, 480 })
        foreach (var frequency in new[] { 2, 3, 4 })
        foreach (var step in new[] { 4, 8 })
        {
            var stabiliser = new Stabiliser(100);
            var written = new List<int>();
            for (var t = 0; t < 2_000; t += step)
            {
                var (x, y) = ((int)(t * 1.5), (int)Math.Round(height / 2.0 * Math.Sin(2 * Math.PI * frequency * t / 1000)));
                written.Add(stabiliser.Follow(x, y, t).Y);
            }

            var settled = written.Skip(written.Count / 3).ToList();
            Assert.InRange(settled.Max() - settled.Min(), height * 0.9, height * 1.1);
        }
    }

    [Fact]
    public void A_slow_line_loses_its_tremor_and_nothing_runs_off_whatever_the_pen_reports()
    {
        var random = new Random(1);
        var (stabiliser, before, after) = (new Stabiliser(100), 0.0, 0.0);
        for (var t = 0; t < 3_000; t += 8)
        {
            // 12 mm/s, with a tremor of 9 Hz and 0.15 mm.
            var y = (int)Math.Round(15 * Math.Sin(2 * Math.PI * 9 * t / 1000) + random.Next(-4, 5));
            var line = stabiliser.Follow((int)(t * 1.2), y, t);
            if (t > 1_000)
                (before, after) = (before + y * y, after + line.Y * line.Y);
        }

        Assert.True(Math.Sqrt(after / before) < 0.4, $"{Math.Sqrt(after / before):F2} of the tremor are left");
        // Jumps, pauses, samples of one moment and times that run backwards.
        Gen.Select(Gen.Int[-300_000, 300_000], Gen.Int[-300_000, 300_000], Gen.Int[-50, 5_000])
            .Array[1, 60]
            .Sample(samples =>
            {
                var wild = new Stabiliser(100);
                var time = 0;
                foreach (var (x, y, passed) in samples)
                {
                    var line = wild.Follow(x, y, time += passed);
                    Assert.True(Math.Sqrt(Math.Pow(line.X - (double)x, 2) + Math.Pow(line.Y - (double)y, 2)) <= 61);
                }
            });
    }

    [Fact]
    public void A_wet_stroke_painted_piece_by_piece_covers_what_the_whole_covers() =>
        Gen.Select(Generate.Samples, Generate.Pen)
            .Sample(
                (samples, pen) =>
                {
                    if (pen.Kind == PenKind.Pencil || pen.Line != LineStyle.Solid)
                        return;
                    var wet = new WetStroke(pen, 0);
                    var pieces = new Outline();
                    for (var i = 0; i < samples.Count; i++)
                    {
                        wet.Add(samples.X[i], samples.Y[i], samples.Pressure[i], samples.Time[i], 0, 0);
                        wet.OutlineNews(pieces);
                    }

                    var line = new StrokeOutliner().CentreLineOf(samples, pen);
                    for (var i = 0; i < line.Length; i += 2)
                        Assert.True(Covers(pieces, line[i], line[i + 1]), "there is a hole in the wet ink");
                },
                iter: 200
            );

    [Fact]
    public void Union_and_complement_share_a_stroke_without_rest_or_overlap() =>
        Gen.Select(Gen.Int[0, 1000], Gen.Int[0, 300])
            .Array[0, 12]
            .Sample(
                gaps =>
                {
                    var union = Interval.Union(gaps.Select(gap => new Interval(gap.Item1, gap.Item1 + gap.Item2)));
                    var visible = Interval.Complement(union, 0, 1000);
                    for (var at = 0.5; at < 1000; at++)
                    {
                        var gone = gaps.Any(gap => gap.Item1 < at && at < gap.Item1 + gap.Item2);
                        Assert.Equal(!gone, visible.Exists(part => part.Start < at && at < part.End));
                    }
                },
                iter: 200
            );

    /// <summary>Ramer 1972: what is dropped lies within the tolerance, the ends stay, and a straight line keeps nothing else.</summary>
    [Fact]
    public void A_simplified_line_stays_within_its_tolerance()
    {
        Generate.Samples.Sample(
            samples =>
            {
                var points = FlatLine.Of(samples);
                var kept = LineSimplifier.Keep(points, 50);
                var line = kept.SelectMany(i => new[] { (float)points[i].X, (float)points[i].Y }).ToArray();
                for (var i = 0; i < samples.Count; i++)
                    Assert.True(Distance(line, samples.X[i], samples.Y[i]) <= 50.5);
            },
            iter: 300
        );
        var straight = new StrokeSamples([0, 10, 20, 30], [0, 0, 0, 0], [1, 1, 1, 1], [0, 1, 2, 3]);
        Assert.Equal([0, 3], LineSimplifier.Keep(FlatLine.Of(straight), 1));
    }

    private static double Area(Outline outline)
    {
        var sum = 0.0;
        for (var ring = 0; ring < outline.RingCount; ring++)
        {
            var points = outline.Ring(ring);
            for (int i = 0, j = points.Length - 2; i < points.Length; j = i, i += 2)
                sum += points[j] * (double)points[i + 1] - points[i] * (double)points[j + 1];
        }

        return Math.Abs(sum / 2);
    }
}
