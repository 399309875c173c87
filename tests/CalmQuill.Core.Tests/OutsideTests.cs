using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Text;
using CalmQuill.Core.Words;
using CalmQuill.Testing;
using CsCheck;
using MathNet.Numerics.LinearAlgebra;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Utilities;
using NetTopologySuite.Operation.Union;
using InkBox = CalmQuill.Core.Ink.Box;

namespace CalmQuill.Core.Tests;

/// <summary>
/// Our geometry, fits and folding against references that others made: NetTopologySuite 2.6 for areas, buffers and holes, MathNet.Numerics 5 for regression and circles,
/// and Unicode's own test of normalization (UAX #15, version 15.0).
/// </summary>
public sealed class OutsideTests
{
    private static readonly GeometryFactory Plane = new();

    [Fact]
    public void A_ball_pens_outline_covers_what_a_buffer_about_its_line_covers() =>
        Gen.Select(Gen.Int[60, 400], Gen.Double[0.5, 3], Gen.Int[200, 1_500])
            .Sample(
                (width, waves, height) =>
                {
                    // A line that does not cross itself, so that area is area.
                    var samples = new StrokeSamples(
                        [.. Enumerable.Range(0, 80).Select(i => i * 100)],
                        [.. Enumerable.Range(0, 80).Select(i => (int)(height * Math.Sin(i / 80.0 * waves * Math.PI)))],
                        [.. Enumerable.Repeat(512, 80)],
                        [.. Enumerable.Range(0, 80).Select(i => i * 8)]
                    );
                    var pen = new Pen(PenKind.Ball, width, 0xFF);
                    var outline = new Outline();
                    new StrokeOutliner().Append(samples, new Interval(0, 79 * Interval.PerSample), pen, 0, 0, outline);
                    var line = Plane.CreateLineString([.. Enumerable.Range(0, 80).Select(i => new Coordinate(samples.X[i], samples.Y[i]))]);
                    var wanted = line.Buffer(pen.Radius(512), 32);
                    var ours = Covered(outline);
                    Assert.InRange(ours.Area / wanted.Area, 0.97, 1.03);
                    Assert.InRange(ours.SymmetricDifference(wanted).Area / wanted.Area, 0, 0.05);
                },
                iter: 60
            );

    [Fact]
    public void What_is_filled_between_lines_is_what_they_leave_free() =>
        Gen.Select(Gen.Int[3, 9], Gen.Double[0.7, 1], Gen.Int[2_000, 5_000], Gen.Int)
            .Sample(
                (corners, least, radius, seed) =>
                {
                    var random = new Random(seed);
                    var page = new PageDocument();
                    var device = new Replica(1, Generate.People[0]);
                    var pen = new Pen(PenKind.Ball, 60, 0xFF);
                    var ring = Enumerable
                        .Range(0, corners)
                        .Select(i =>
                        {
                            var (sin, cos) = Math.SinCos(2 * Math.PI * i / corners);
                            var far = radius * (least + (1 - least) * random.NextDouble());
                            return new Corner(10_000 + (int)(far * cos), 14_000 + (int)(far * sin));
                        })
                        .ToList();
                    var lines = new List<Geometry>();
                    for (var i = 0; i < corners; i++)
                    {
                        var (from, to) = (ring[i], ring[(i + 1) % corners]);
                        page.Apply(device.Make(new Change.StrokeAdded(pen, 0, Straight(from, to)), i));
                        lines.Add(
                            Plane.CreateLineString([new Coordinate(from.X, from.Y), new Coordinate(to.X, to.Y)]).Buffer(pen.Radius(512))
                        );
                    }

                    var wanted = Plane
                        .CreatePolygon([.. ring.Append(ring[0]).Select(corner => new Coordinate(corner.X, corner.Y))])
                        .Difference(UnaryUnionOp.Union(lines));
                    var filled = RegionFill.At(page, new InkBox(0, 0, 21_000, 29_700), 10_000, 14_000, 40)!;
                    var ours = GeometryFixer.Fix(
                        Plane.CreatePolygon([
                            .. filled.Points.Append(filled.Points[0]).Select(corner => new Coordinate(corner.X, corner.Y)),
                        ])
                    );
                    // It may run under the lines by a cell or two, and never through them.
                    Assert.InRange(ours.Area / wanted.Area, 0.98, 1.06);
                    Assert.True(ours.Difference(wanted.Buffer(pen.Radius(512) * 2)).Area < 1e3);
                },
                iter: 60
            );

    [Fact]
    public void A_region_on_a_growing_sheet_is_found_more_coarsely_and_one_without_end_is_refused_in_words()
    {
        var page = new PageDocument();
        var device = new Replica(1, Generate.People[0]);
        Corner[] far = [new(0, 0), new(120_000, 0), new(120_000, 80_000), new(0, 80_000)];
        for (var i = 0; i < 4; i++)
            page.Apply(device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 200, 0xFF), 0, Straight(far[i], far[(i + 1) % 4])), i));
        var before = GC.GetTotalAllocatedBytes(precise: true);
        var filled = RegionFill.At(page, new InkBox(-400_000, -400_000, 700_000, 600_000), 60_000, 40_000, 300)!;
        // The whole search, all its rasters together; one of them takes 64 MB at most.
        Assert.InRange(GC.GetTotalAllocatedBytes(precise: true) - before, 0, 6 * 64_000_000L);
        var area = Plane
            .CreatePolygon([.. filled.Points.Append(filled.Points[0]).Select(corner => new Coordinate(corner.X, corner.Y))])
            .Area;
        Assert.InRange(area / (120_000.0 * 80_000.0), 0.98, 1.02);
        var problem = Assert.Throws<SentenceException>(() =>
            RegionFill.At(page, new InkBox(-2_000_000, -2_000_000, 2_000_000, 2_000_000), 1_000_000, 1_000_000, 300)
        );
        Assert.Contains("too large", problem.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_line_through_words_is_that_of_least_squares_where_nothing_strays_and_keeps_to_it_where_some_do() =>
        Gen.Select(Gen.Double[-0.4, 0.4], Gen.Double[-500, 500], Gen.Int)
            .Sample(
                (slope, at0, seed) =>
                {
                    var random = new Random(seed);
                    var x = Enumerable.Range(0, 40).Select(i => i * 250.0 + random.NextDouble() * 50).ToArray();
                    var exact = x.Select(one => at0 + slope * one).ToArray();
                    var (intercept, gradient) = MathNet.Numerics.Fit.Line(x, exact);
                    var ours = EvenLines.TheilSen([.. x.Zip(exact)]);
                    Assert.Equal(gradient, ours.Slope, tolerance: 1e-9);
                    Assert.Equal(intercept, ours.At0, tolerance: 1e-7);
                    // Every fifth word strays by a centimetre: ours stays by what least squares say of the others.
                    var strayed = exact.Select((y, i) => y + (random.NextDouble() - 0.5) * 20 + (i % 5 == 0 ? 1_000 : 0)).ToArray();
                    var (_, clean) = MathNet.Numerics.Fit.Line(
                        [.. x.Where((_, i) => i % 5 != 0)],
                        [.. strayed.Where((_, i) => i % 5 != 0)]
                    );
                    Assert.InRange(EvenLines.TheilSen([.. x.Zip(strayed)]).Slope - clean, -0.004, 0.004);
                },
                iter: 300
            );

    [Fact]
    public void A_rough_circle_becomes_the_one_that_least_squares_find() =>
        Gen.Select(Gen.Int[800, 4_000], Gen.Double[0, 6.28], Gen.Int)
            .Sample(
                (radius, begin, seed) =>
                {
                    var random = new Random(seed);
                    var points = Enumerable
                        .Range(0, 120)
                        .Select(i =>
                        {
                            var (sin, cos) = Math.SinCos(begin + i * 2 * Math.PI / 118);
                            var far = radius * (1 + 0.02 * Math.Sin(i * 0.16 + begin) + 0.006 * (random.NextDouble() - 0.5));
                            return (X: 9_000 + far * cos, Y: 12_000 + far * sin);
                        })
                        .ToList();
                    var samples = new StrokeSamples(
                        [.. points.Select(point => (int)point.X)],
                        [.. points.Select(point => (int)point.Y)],
                        [.. Enumerable.Repeat(512, 120)],
                        [.. Enumerable.Range(0, 120).Select(i => i * 8)]
                    );
                    var shape = Recogniser.Recognise(samples);
                    Assert.Equal(ShapeKind.Circle, shape?.Kind);
                    // Kåsa's fit: x² + y² = 2ax + 2by + c, by QR.
                    var solved = Matrix<double>
                        .Build.DenseOfRows(points.Select(point => new[] { 2 * point.X, 2 * point.Y, 1 }))
                        .QR()
                        .Solve(Vector<double>.Build.DenseOfEnumerable(points.Select(point => point.X * point.X + point.Y * point.Y)));
                    var wanted = Math.Sqrt(solved[2] + solved[0] * solved[0] + solved[1] * solved[1]);
                    var (middle, edge) = (shape!.Points[0], shape.Points[1]);
                    Assert.InRange(Math.Sqrt(Math.Pow(middle.X - solved[0], 2) + Math.Pow(middle.Y - solved[1], 2)), 0, 0.05 * radius);
                    Assert.InRange(middle.To(edge) / wanted, 0.95, 1.05);
                },
                iter: 200
            );

    [Fact]
    public void The_circle_through_three_points_is_the_one_that_solves_their_equations() =>
        Gen.Int[-5_000, 5_000]
            .Array[6]
            .Sample(
                c =>
                {
                    Corner[] corners = [new(c[0], c[1]), new(c[2], c[3]), new(c[4], c[5])];
                    if (Circumcircle.Of(corners[0], corners[1], corners[2]) is not { } circle)
                        return;
                    var solved = Matrix<double>
                        .Build.DenseOfRows(corners.Select(corner => new[] { 2.0 * corner.X, 2.0 * corner.Y, 1 }))
                        .Solve(
                            Vector<double>.Build.DenseOfEnumerable(
                                corners.Select(corner => corner.X * (double)corner.X + corner.Y * (double)corner.Y)
                            )
                        );
                    var scale = 1 + circle.Radius;
                    Assert.InRange(Math.Abs(circle.X - solved[0]) / scale, 0, 1e-6);
                    Assert.InRange(Math.Abs(circle.Y - solved[1]) / scale, 0, 1e-6);
                },
                iter: 2_000
            );

    [Fact]
    public void Folding_takes_every_character_apart_as_unicode_says()
    {
        var lines = File.ReadAllLines(Path.Combine(Repository.Root, "tests", "CalmQuill.Core.Tests", "normalization-15.0.txt"))
            .Where(line => line.Length > 0 && line[0] != '#')
            .Select(line => line.Split(';'))
            .ToList();
        Assert.InRange(lines.Count, 5_000, 20_000);
        foreach (var line in lines)
        {
            var (source, apart) = (Written(line[0]), Written(line[1]));
            // Together or apart, it is found by the same words.
            Assert.True(
                Folding.Fold(source) == Folding.Fold(apart),
                $"U+{line[0]} folds to “{Folding.Fold(source)}”, apart to “{Folding.Fold(apart)}”"
            );
            foreach (var rune in Folding.Fold(source).EnumerateRunes())
                Assert.NotEqual(System.Globalization.UnicodeCategory.NonSpacingMark, System.Text.Rune.GetUnicodeCategory(rune));
        }
    }

    private static string Written(string points) =>
        string.Concat(
            points
                .Split(' ')
                .Select(point =>
                    char.ConvertFromUtf32(
                        int.Parse(point, System.Globalization.NumberStyles.HexNumber, System.Globalization.CultureInfo.InvariantCulture)
                    )
                )
        );

    /// <summary>What an outline covers: its rings are quadratic curves from middle to middle of their control points.</summary>
    private static Geometry Covered(Outline outline)
    {
        var rings = new List<Geometry>();
        for (var i = 0; i < outline.RingCount; i++)
        {
            var controls = outline.Ring(i).ToArray().Chunk(2).Select(pair => (X: (double)pair[0], Y: (double)pair[1])).ToList();
            var coordinates = new List<Coordinate>();
            for (var k = 0; k < controls.Count; k++)
            {
                var (before, at, after) = (
                    controls[(k + controls.Count - 1) % controls.Count],
                    controls[k],
                    controls[(k + 1) % controls.Count]
                );
                var (from, to) = (((before.X + at.X) / 2, (before.Y + at.Y) / 2), ((at.X + after.X) / 2, (at.Y + after.Y) / 2));
                for (var t = 0.0; t < 1; t += 0.25)
                    coordinates.Add(
                        new Coordinate(
                            (1 - t) * (1 - t) * from.Item1 + 2 * t * (1 - t) * at.X + t * t * to.Item1,
                            (1 - t) * (1 - t) * from.Item2 + 2 * t * (1 - t) * at.Y + t * t * to.Item2
                        )
                    );
            }

            coordinates.Add(coordinates[0]);
            rings.Add(GeometryFixer.Fix(Plane.CreatePolygon([.. coordinates])));
        }

        return UnaryUnionOp.Union(rings);
    }

    private static StrokeSamples Straight(Corner from, Corner to)
    {
        const int count = 60;
        return new StrokeSamples(
            [.. Enumerable.Range(0, count + 1).Select(i => from.X + (to.X - from.X) * i / count)],
            [.. Enumerable.Range(0, count + 1).Select(i => from.Y + (to.Y - from.Y) * i / count)],
            [.. Enumerable.Repeat(512, count + 1)],
            [.. Enumerable.Range(0, count + 1).Select(i => i * 8)]
        );
    }
}
