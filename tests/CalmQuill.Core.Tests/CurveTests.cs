using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using CsCheck;
using static CalmQuill.Core.Tests.Inked;

namespace CalmQuill.Core.Tests;

/// <summary>The line between samples that lie far apart: it is where the pen was, and for everyone who asks at the same place.</summary>
/// <remarks>What is drawn is held against the true curve, a circle, a spiral, an ellipse or a polygon, worked out here by its own formula.</remarks>
public class CurveTests : OnPage
{
    /// <summary>0.15 mm, and half a hundredth of one for the samples' rounding.</summary>
    private const double Allowed = 15.5;

    private const double SamplesASecond = 60;

    private static readonly Pen Even = new(PenKind.Ball, 60, 0x22302EFF);

    /// <summary>A way by time, and how long it takes, seconds.</summary>
    private sealed record Way(Func<double, (double X, double Y)> At, double Takes)
    {
        public StrokeSamples Sampled()
        {
            var count = 1 + (int)(Takes * SamplesASecond);
            var at = Enumerable.Range(0, count).Select(i => At(i / SamplesASecond)).ToArray();
            return new StrokeSamples(
                [.. at.Select(p => (int)Math.Round(p.X))],
                [.. at.Select(p => (int)Math.Round(p.Y))],
                [.. Enumerable.Repeat(500, count)],
                [.. Enumerable.Range(0, count).Select(i => (int)(i * 1000 / SamplesASecond))]
            );
        }

        /// <summary>The true curve as far as it was sampled, x, y, in steps so small that its pieces are the curve.</summary>
        public float[] True()
        {
            var end = (int)(Takes * SamplesASecond) / SamplesASecond;
            const int Steps = 1_000;
            return [.. Enumerable.Range(0, Steps + 1).Select(i => At(end * i / Steps)).SelectMany(p => new[] { (float)p.X, (float)p.Y })];
        }
    }

    /// <summary>Circles of 4 to 100 mm, up to four rounds a second.</summary>
    private static readonly Gen<Way> Circles =
        from radius in Gen.Double[200, 5_000]
        from rounds in Gen.Double[0.5, 4]
        from phase in Gen.Double[0, 6.28]
        from much in Gen.Double[0.3, 1.0]
        select new Way(
            t => (9_000 + radius * Math.Cos(phase + 2 * Math.PI * rounds * t), 9_000 + radius * Math.Sin(phase + 2 * Math.PI * rounds * t)),
            much / rounds
        );

    /// <summary>Spirals from the inside out, up to four rounds a second.</summary>
    private static readonly Gen<Way> Spirals =
        from radius in Gen.Double[1_000, 4_000]
        from turns in Gen.Int[2, 5]
        from rounds in Gen.Double[1, 4]
        select new Way(
            t =>
                (
                    9_000 + radius * t * rounds / turns * Math.Cos(2 * Math.PI * rounds * t),
                    9_000 + radius * t * rounds / turns * Math.Sin(2 * Math.PI * rounds * t)
                ),
            turns / rounds
        );

    /// <summary>Loops as of writing: ellipses up to four times as long as broad, up to 12 mm, three a second.</summary>
    private static readonly Gen<Way> Loops =
        from length in Gen.Double[150, 600]
        from slim in Gen.Double[1, 4]
        from rounds in Gen.Double[1, 3]
        from lean in Gen.Double[0, 3.14]
        select new Way(
            t =>
            {
                double u = length * Math.Cos(2 * Math.PI * rounds * t),
                    v = length / slim * Math.Sin(2 * Math.PI * rounds * t);
                return (9_000 + u * Math.Cos(lean) - v * Math.Sin(lean), 9_000 + u * Math.Sin(lean) + v * Math.Cos(lean));
            },
            1 / rounds
        );

    [Fact]
    public void A_fast_circle_spiral_or_loop_is_drawn_within_0_15_mm_of_where_the_pen_was() =>
        Gen.OneOf(Circles, Spirals, Loops)
            .Sample(
                way =>
                {
                    var (samples, curve) = (way.Sampled(), way.True());
                    var centre = new StrokeOutliner().CentreLineOf(samples, Even);
                    for (var i = 0; i < curve.Length; i += 20)
                        Assert.True(Distance(centre, curve[i], curve[i + 1]) <= Allowed, "the line leaves out a bit of the way");
                    for (var i = 0; i < centre.Length; i += 2)
                        Assert.True(Distance(curve, centre[i], centre[i + 1]) <= Allowed, "the line strays from the way");
                },
                iter: 150
            );

    [Fact]
    public void The_edge_of_its_ink_lies_half_a_width_from_where_the_pen_was() =>
        Circles.Sample(
            way =>
            {
                var curve = way.True();
                var outline = OutlineOf(way.Sampled(), Even);
                foreach (var (x, y) in EdgeOf(outline))
                {
                    // Round ends lie beyond the way's own ends, and what is within them beside it.
                    var off = Distance(curve, x, y) - Even.Width / 2.0;
                    Assert.True(off <= Allowed, "the edge strays");
                    if (Math.Min(ToEnd(curve, 0, x, y), ToEnd(curve, curve.Length - 2, x, y)) > Even.Width)
                        Assert.True(off >= -Allowed, "the edge lies in the ink");
                }

                for (var i = 0; i < curve.Length; i += 20)
                    Assert.True(Covers(outline, curve[i], curve[i + 1]), "there is no ink where the pen was");
            },
            iter: 100
        );

    [Fact]
    public void Corners_stay_corners_and_sides_stay_straight() =>
        Gen.Select(
                Gen.Double[400, 3_000].Array[2, 6],
                Gen.Double[45, 175].Array[6],
                Gen.Bool.Array[6],
                Gen.Int[3, 7].Array[6],
                Gen.Double[0, 360]
            )
            .Sample(
                (lengths, turns, left, steps, heading) =>
                {
                    var at = (X: 20_000.0, Y: 20_000.0);
                    List<(double X, double Y)> samples = [at];
                    var corners = new List<float> { (float)at.X, (float)at.Y };
                    for (var side = 0; side < lengths.Length; side++)
                    {
                        var from = at;
                        var (sin, cos) = Math.SinCos(heading * Math.PI / 180);
                        for (var k = 1; k <= steps[side]; k++)
                        {
                            at = (from.X + lengths[side] * cos * k / steps[side], from.Y + lengths[side] * sin * k / steps[side]);
                            samples.Add(at);
                        }

                        corners.AddRange([(float)at.X, (float)at.Y]);
                        heading += left[side] ? -turns[side] : turns[side];
                    }

                    int[] even = [.. Enumerable.Repeat(500, samples.Count)],
                        time = [.. Enumerable.Range(0, samples.Count).Select(i => i * 17)];
                    var line = new StrokeOutliner().CentreLineOf(
                        new StrokeSamples(
                            [.. samples.Select(p => (int)Math.Round(p.X))],
                            [.. samples.Select(p => (int)Math.Round(p.Y))],
                            even,
                            time
                        ),
                        Even
                    );
                    for (var i = 0; i < line.Length; i += 2)
                        Assert.True(Distance([.. corners], line[i], line[i + 1]) <= 2, "a side is not straight");
                    for (var i = 0; i < corners.Count; i += 2)
                        Assert.True(Distance(line, corners[i], corners[i + 1]) <= 2, "a corner is rounded off");
                },
                iter: 400
            );

    [Fact]
    public void No_curve_leaves_its_chord_by_more_than_its_length_whatever_the_samples() =>
        Gen.Int[-3_000, 3_000]
            .Array[2, 12]
            .SelectMany(x => Gen.Int[-3_000, 3_000].Array[x.Length].Select(y => (x, y)))
            .Sample(
                way =>
                {
                    var samples = new StrokeSamples(way.x, way.y, new int[way.x.Length], new int[way.x.Length]);
                    for (var i = 0; i + 1 < samples.Count; i++)
                    {
                        var span = SplineSpan.Of(samples, i);
                        float[] chord = [way.x[i], way.y[i], way.x[i + 1], way.y[i + 1]];
                        for (var t = 0f; t <= 1; t += 0.05f)
                        {
                            var (x, y) = span.At(t);
                            Assert.True(
                                Distance(chord, x, y) <= Math.Sqrt(Math.Pow(chord[2] - chord[0], 2) + Math.Pow(chord[3] - chord[1], 2))
                            );
                        }
                    }
                },
                iter: 2_000
            );

    [Fact]
    public void Eraser_loop_filter_sketch_and_box_find_the_ink_where_it_is_drawn() =>
        Circles.Sample(
            way =>
            {
                var samples = way.Sampled();
                var item = Item(Do(Ines, new Change.StrokeAdded(Even, 0, samples)).Id);
                var curve = way.True();
                foreach (var (x, y) in EdgeOf(OutlineOf(samples, Even)))
                {
                    var box = item.Bounds.Grow(3);
                    Assert.True(x >= box.Left && x <= box.Right && y >= box.Top && y <= box.Bottom, "ink lies out of its box");
                }

                // At every place of the true curve there is ink for an eraser of 0.2 mm, and none for one that lies beside it.
                for (var i = 0; i + 3 < curve.Length; i += 100)
                {
                    Assert.True(item.Content.IsAt(curve[i], curve[i + 1], 20), "an eraser misses the ink");
                    double ux = curve[i + 2] - curve[i],
                        uy = curve[i + 3] - curve[i + 1],
                        length = Math.Sqrt(ux * ux + uy * uy),
                        away = Even.Width / 2.0 + 40;
                    double bx = curve[i] + uy / length * away,
                        by = curve[i + 1] - ux / length * away;
                    if (Distance(curve, bx, by) > away - 1)
                        Assert.False(item.Content.IsAt(bx, by, 20), "an eraser beside the ink meets some");
                }

                // A lens around the true curve between its ends holds all of it; a hair inside its bend it would not.
                var lens = Band(curve, Allowed);
                Assert.True(item.Content.ShareInside(lens) > 0.99, "a loop around the ink misses some");

                var sketch = new Sketched();
                item.Content.Sketch(sketch, 5);
                for (var i = 0; i < curve.Length; i += 20)
                    Assert.True(Distance(sketch.Line, curve[i], curve[i + 1]) <= Allowed + 5, "the sketch is angular");
            },
            iter: 60,
            // All write on one page.
            threads: 1
        );

    [Fact]
    public void A_wet_stroke_of_few_samples_is_curved_as_the_dry_one_will_be() =>
        Circles.Sample(
            way =>
            {
                var (samples, curve) = (way.Sampled(), way.True());
                var wet = new WetStroke(Even, 0);
                var ink = new Outline();
                for (var i = 0; i < samples.Count; i++)
                {
                    wet.Add(samples.X[i], samples.Y[i], 500, samples.Time[i], 0, 0);
                    wet.OutlineNews(ink);
                }

                for (var i = 0; i < curve.Length; i += 20)
                    Assert.True(Covers(ink, curve[i], curve[i + 1]), "there is no wet ink where the pen was");
            },
            iter: 60
        );

    [Fact]
    public void What_a_curve_is_cut_into_adds_up_to_it()
    {
        // The share of a circle inside its own upper half, by the formula.
        var way = new Way(t => (5_000 + 1_000 * Math.Cos(2 * Math.PI * 4 * t), 5_000 + 1_000 * Math.Sin(2 * Math.PI * 4 * t)), 0.25);
        var item = Item(Do(Ines, new Change.StrokeAdded(Even, 0, way.Sampled())).Id);
        Assert.Equal(0.5, item.Content.ShareInside([0, 0, 9_000, 0, 9_000, 5_000, 0, 5_000]), 0.005);
        var line = FlatLine.Of(item.Line.Samples);
        var length = line.Zip(line.Skip(1), (a, b) => Math.Sqrt(Math.Pow(b.X - a.X, 2) + Math.Pow(b.Y - a.Y, 2))).Sum();
        Assert.Equal(2 * Math.PI * 1_000, length, 2 * Math.PI * 1_000 * 0.005);
    }

    private static double ToEnd(float[] curve, int end, double x, double y) =>
        Math.Sqrt(Math.Pow(curve[end] - x, 2) + Math.Pow(curve[end + 1] - y, 2));

    /// <summary>The outline of all that lies within so much of a curve: out along its left, back along its right.</summary>
    private static double[] Band(float[] curve, double wide)
    {
        var points = new List<double>();
        for (var side = 1; side >= -1; side -= 2)
        {
            for (var k = 0; k < curve.Length / 2; k += 5)
            {
                var i = side > 0 ? 2 * k : curve.Length - 2 - 2 * k;
                int from = Math.Max(0, i - 2),
                    to = Math.Min(curve.Length - 2, i + 2);
                double ux = curve[to] - curve[from],
                    uy = curve[to + 1] - curve[from + 1],
                    length = Math.Sqrt(ux * ux + uy * uy);
                points.AddRange([curve[i] + side * uy / length * wide, curve[i + 1] - side * ux / length * wide]);
            }
        }

        return [.. points];
    }

    private sealed class Sketched : IItemSketcher
    {
        public float[] Line { get; private set; } = [];

        void IItemSketcher.Line(ReadOnlySpan<long> points, Pen pen) => Line = [.. points.ToArray().Select(p => (float)p)];

        void IItemSketcher.Region(IEnumerable<long[]> rings, uint colour) { }

        void IItemSketcher.Write(Core.Typesetting.SetText text, in Affine place, uint colour) { }

        void IItemSketcher.Draw(Core.Pictures.PictureLook picture, in Affine place) { }
    }
}
