using CalmQuill.Core.Ink;
using CalmQuill.Core.Ordering;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Outlines, intervals, simplified lines and order keys.</summary>
public class InkTests
{
    [Fact]
    public void The_centre_line_runs_within_0_15_mm_of_every_sample() =>
        Gen.Select(Generate.Samples, Generate.Pen).Sample(
            (samples, pen) =>
            {
                var line = new StrokeOutliner().CentreLineOf(samples, pen);
                for (var i = 0; i < samples.Count; i++) Assert.True(Distance(line, samples.X[i], samples.Y[i]) <= 15, "a sample lies off the line");
            },
            iter: 500);

    [Fact]
    public void Every_sample_lies_in_the_ink_and_no_point_of_the_outline_is_off_it() =>
        Gen.Select(Generate.Samples, Generate.Pen).Sample(
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
                        Assert.True(Distance(line, points[i], points[i + 1]) <= Math.Max(pen.MostRadius, 8) * 1.6 + 2, "the outline strays from the line");
                    }
                }

                // A pencil leaves the paper's grain bare.
                if (pen.Kind == PenKind.Pencil) return;
                for (var i = 0; i < line.Length; i += 2) Assert.True(Covers(outline, line[i], line[i + 1]), "there is a hole in the ink");
            },
            iter: 500);

    [Fact]
    public void The_area_of_a_straight_stroke_grows_with_the_pens_width()
    {
        var straight = new StrokeSamples([0, 500, 1000, 1500], [0, 0, 0, 0], [500, 500, 500, 500], [0, 8, 16, 24]);
        foreach (var kind in Enum.GetValues<PenKind>())
        {
            // A pencil's threads lie over each other by a little, and are more with every step of its width: it is looked at in doubles.
            var widths = kind == PenKind.Pencil ? [20, 40, 80, 160, 320] : Enumerable.Range(1, 40).Select(i => i * 20);
            var areas = widths.Select(width => Area(OutlineOf(straight, new Pen(kind, width, 0x60)))).ToList();
            Assert.Equal(areas.Order(), areas);
        }

        // 15 mm long and 4 mm wide, with round ends: 60 + 12.6 mm².
        Assert.InRange(Area(OutlineOf(straight, new Pen(PenKind.Ball, 400, 0xFF))) / 10_000, 70, 75);
    }

    [Fact]
    public void Odd_strokes_still_make_finite_ink()
    {
        foreach (var samples in new[]
        {
            new StrokeSamples([5], [5], [0], [0]),
            new StrokeSamples([5, 5, 5], [7, 7, 7], [0, 0, 0], [0, 0, 0]),
            new StrokeSamples([0, 1000, 0, 1000], [0, 0, 0, 0], [0, 1023, 0, 1023], [0, 1, 2, 3]),
            // Time that runs backwards, and a pen that lies flat.
            new StrokeSamples([0, 300, 600, 900], [0, 50, 0, 50], [0, 0, 0, 0], [40, 20, 20, 0], [90, -90, 89, 0], [0, 90, -89, 0]),
        })
        {
            foreach (var kind in Enum.GetValues<PenKind>())
            {
                var outline = OutlineOf(samples, new Pen(kind, 60, 0x60));
                Assert.True(outline.RingCount > 0);
                for (var i = 0; i < outline.RingCount; i++) Assert.All(outline.Ring(i).ToArray(), value => Assert.True(float.IsFinite(value)));
            }
        }
    }

    [Fact]
    public void Union_and_complement_share_a_stroke_without_rest_or_overlap() =>
        Gen.Select(Gen.Int[0, 1000], Gen.Int[0, 300]).Array[0, 12].Sample(
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
            iter: 200);

    /// <summary>Ramer 1972: what is dropped lies within the tolerance, the ends stay, and a straight line keeps nothing else.</summary>
    [Fact]
    public void A_simplified_line_stays_within_its_tolerance()
    {
        Generate.Samples.Sample(
            samples =>
            {
                var kept = LineSimplifier.Keep(samples, 0, samples.Count - 1, 50);
                var line = kept.SelectMany(i => new[] { (float)samples.X[i], samples.Y[i] }).ToArray();
                for (var i = 0; i < samples.Count; i++) Assert.True(Distance(line, samples.X[i], samples.Y[i]) <= 50.5);
            },
            iter: 300);
        var straight = new StrokeSamples([0, 10, 20, 30], [0, 0, 0, 0], [1, 1, 1, 1], [0, 1, 2, 3]);
        Assert.Equal([0, 3], LineSimplifier.Keep(straight, 0, 3, 1));
    }

    [Fact]
    public void There_is_always_a_key_between_two_keys() =>
        Gen.Select(Gen.ULong, Gen.Int[0, 1000]).Array[1, 80].Sample(
            steps =>
            {
                var keys = new List<string>();
                foreach (var (random, where) in steps)
                {
                    var at = where % (keys.Count + 1);
                    var key = OrderKey.Between(at > 0 ? keys[at - 1] : null, at < keys.Count ? keys[at] : null, random);
                    Assert.True(OrderKey.IsValid(key));
                    keys.Insert(at, key);
                }

                Assert.Equal(keys.Order(StringComparer.Ordinal), keys);
                Assert.Equal(keys.Count, keys.Distinct().Count());
            },
            iter: 500);

    [Fact]
    public void A_thousand_pages_added_at_the_end_keep_short_keys()
    {
        string? last = null;
        for (var i = 0; i < 1000; i++) last = OrderKey.Between(last, null, (ulong)i * 7919);
        Assert.InRange(last!.Length, 1, 120);
    }

    private static Outline OutlineOf(StrokeSamples samples, Pen pen)
    {
        var outline = new Outline();
        new StrokeOutliner().Append(samples, new Interval(0, (samples.Count - 1) * Interval.PerSample), pen, 0, 0, outline);
        return outline;
    }

    private static double Distance(float[] line, double x, double y)
    {
        var least = Math.Sqrt((line[0] - x) * (line[0] - x) + (line[1] - y) * (line[1] - y));
        for (var i = 0; i + 3 < line.Length; i += 2)
        {
            double ux = line[i + 2] - line[i], uy = line[i + 3] - line[i + 1], square = ux * ux + uy * uy;
            var t = square == 0 ? 0 : Math.Clamp(((x - line[i]) * ux + (y - line[i + 1]) * uy) / square, 0, 1);
            least = Math.Min(least, Math.Sqrt(Math.Pow(line[i] + t * ux - x, 2) + Math.Pow(line[i + 1] + t * uy - y, 2)));
        }

        return least;
    }

    /// <summary>The non-zero rule over the rings' control polygons.</summary>
    private static bool Covers(Outline outline, double x, double y)
    {
        var winding = 0;
        for (var ring = 0; ring < outline.RingCount; ring++)
        {
            var points = outline.Ring(ring);
            for (int i = 0, j = points.Length - 2; i < points.Length; j = i, i += 2)
            {
                double ax = points[j], ay = points[j + 1], bx = points[i], by = points[i + 1];
                var side = (bx - ax) * (y - ay) - (by - ay) * (x - ax);
                if (ay <= y && by > y && side > 0) winding++;
                if (ay > y && by <= y && side < 0) winding--;
            }
        }

        return winding != 0;
    }

    private static double Area(Outline outline)
    {
        var sum = 0.0;
        for (var ring = 0; ring < outline.RingCount; ring++)
        {
            var points = outline.Ring(ring);
            for (int i = 0, j = points.Length - 2; i < points.Length; j = i, i += 2) sum += points[j] * (double)points[i + 1] - points[i] * (double)points[j + 1];
        }

        return Math.Abs(sum / 2);
    }
}
