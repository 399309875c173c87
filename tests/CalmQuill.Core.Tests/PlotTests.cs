using CalmQuill.Core.Plots;
using CsCheck;
using MathNet.Numerics;
using Fit = CalmQuill.Core.Plots.Fit;

namespace CalmQuill.Core.Tests;

/// <summary>Curves, scales, fits and landmarks, checked against known values and MathNet.Numerics.</summary>
public sealed class PlotTests
{
    private static readonly PlotRange Range = new(-10, 10, -5, 5);

    [Fact]
    public void A_line_lies_on_the_function_everywhere()
    {
        foreach (
            var of in new Func<double, double>[] { Math.Sin, x => x * x / 20, x => Math.Sin(20 * x), x => Math.Exp(-x * x) * 4, Math.Cbrt }
        )
        {
            var lines = new CurveSampler(of, Range, 0.0005).Lines();
            var line = Assert.Single(lines);
            Assert.Equal((-10, 10), (line[0].X, line[^1].X));
            for (var i = 1; i < line.Count; i++)
            {
                var (one, next) = (line[i - 1], line[i]);
                Assert.True(one.X < next.X);
                for (var k = 1; k < 8; k++)
                {
                    var x = one.X + (next.X - one.X) * k / 8;
                    var y = one.Y + (next.Y - one.Y) * k / 8;
                    Assert.InRange(y - of(x), -0.02, 0.02);
                }
            }
        }
    }

    [Fact]
    public void Poles_and_leaps_are_not_joined_and_edges_are_reached()
    {
        // Six poles of the tangent lie between −10 and 10.
        var tangent = new CurveSampler(Math.Tan, Range, 0.001).Lines();
        Assert.Equal(7, tangent.Count);
        Assert.All(tangent, line => Assert.All(line.Zip(line.Skip(1)), pair => Assert.True(pair.First.Y <= pair.Second.Y + 1e-9)));
        Assert.Equal(2, new CurveSampler(x => 1 / x, Range, 0.001).Lines().Count);
        var steps = new CurveSampler(Math.Floor, new PlotRange(-2.5, 2.5, -5, 5), 0.001).Lines();
        Assert.Equal(6, steps.Count);
        Assert.All(steps, line => Assert.Single(line.Select(point => point.Y).Distinct()));
        var root = Assert.Single(new CurveSampler(x => Math.Sqrt(x - 1), Range, 0.001).Lines());
        Assert.InRange(root[0].X, 1, 1.0001);
        Assert.InRange(root[0].Y, 0, 0.01);
        Assert.Equal(2, new CurveSampler(x => Math.Sqrt(x * x - 4), Range, 0.001).Lines().Count);
        Assert.Empty(new CurveSampler(_ => double.NaN, Range, 0.001).Lines());
        // What nobody can draw ends all the same.
        Assert.True(new CurveSampler(x => Math.Sin(1 / x), Range, 0.001).Lines().Sum(line => line.Count) < 100_000);
        Assert.True(new CurveSampler(x => Math.Sin(1e9 * x) * 4, Range, 0.001).Lines().Sum(line => line.Count) < 100_000);
    }

    [Fact]
    public void A_circle_lies_at_its_radius_and_a_pole_is_no_line()
    {
        var circle = ImplicitCurve.Of((x, y) => x * x + y * y - 9, Range);
        Assert.InRange(circle.Count, 100, 2_000);
        Assert.All(circle, line => Assert.InRange(Math.Sqrt(line.From.X * line.From.X + line.From.Y * line.From.Y), 2.999, 3.001));
        Assert.Equal(2 * Math.PI * 3, circle.Sum(line => Length(line.From, line.To)), 0.05);
        Assert.Empty(ImplicitCurve.Of((x, _) => 1 / (x - 0.013), Range));
        Assert.Empty(ImplicitCurve.Of((_, _) => double.NaN, Range));

        static double Length((double X, double Y) one, (double X, double Y) other) =>
            Math.Sqrt((one.X - other.X) * (one.X - other.X) + (one.Y - other.Y) * (one.Y - other.Y));
    }

    [Fact]
    public void Scales_stand_at_round_numbers()
    {
        Assert.Equal(2, Ticks.Step(-10, 10, 10));
        Assert.Equal(0.5, Ticks.Step(0, 2.1, 5));
        Assert.Equal([0, 0.5, 1, 1.5, 2], Ticks.Of(0, 2.1, 0.5));
        Assert.Equal("−1.5", Ticks.Words(-1.5, 0.5));
        Assert.Equal("0", Ticks.Words(1e-17, 0.1));
        Assert.Equal("2·10⁶", Ticks.Words(2_000_000, 1_000_000));
        Assert.Equal("10⁻⁷", Ticks.Words(1e-7, 1e-7));
        Assert.Equal("0.33333", Ticks.Number(1.0 / 3));
        Assert.Equal("−2.5·10⁻⁸", Ticks.Number(-2.5e-8));
        Gen.Select(Gen.Double[-1e6, 1e6], Gen.Double[1e-6, 1e6], Gen.Int[2, 12])
            .Sample(
                (from, wide, most) =>
                {
                    var step = Ticks.Step(from, from + wide, most);
                    Assert.InRange(Ticks.Of(from, from + wide, step).Count, 0, most + 1);
                }
            );
    }

    [Fact]
    public void Fits_are_those_of_MathNet()
    {
        Gen.Select(Gen.Double[-5, 5], Gen.Double[-50, 50])
            .Array[6, 30]
            .Where(points => points.Select(point => Math.Round(point.Item1, 2)).Distinct().Count() > 5)
            .Sample(points =>
            {
                var (x, y) = (points.Select(point => point.Item1).ToArray(), points.Select(point => point.Item2).ToArray());
                var ours = points.Select(point => (point.Item1, point.Item2)).ToList();
                foreach (var (kind, degree) in new[] { (FitKind.Line, 1), (FitKind.Parabola, 2), (FitKind.Cubic, 3) })
                {
                    var theirs = MathNet.Numerics.Fit.Polynomial(x, y, degree);
                    var fit = Fit.Of(kind, ours)!;
                    for (var i = 0; i <= degree; i++)
                        Assert.Equal(theirs[i], fit.Factors[degree - i], 1e-6 * (1 + Math.Abs(theirs[i])));
                    Assert.Equal(GoodnessOfFit.CoefficientOfDetermination(x.Select(fit.At), y), fit.Share, 1e-9);
                }

                Assert.Equal(MathNet.Numerics.Fit.LineThroughOrigin(x, y), Fit.Of(FitKind.Proportion, ours)!.Factors[0], 1e-9);
            });
    }

    [Fact]
    public void The_pendulums_law_is_found_in_what_was_measured()
    {
        // Lengths in metres, periods in seconds: 2π·√(l/9.81), to a millisecond.
        var measured = new[] { 0.1, 0.2, 0.3, 0.5, 0.75, 1.0, 1.25 }
            .Select(length => (length, Math.Round(2 * Math.PI * Math.Sqrt(length / 9.81), 3)))
            .ToList();
        var fit = Fit.Of(FitKind.Power, measured)!;
        Assert.Equal(2.006, fit.Factors[0], 3);
        Assert.Equal(0.5, fit.Factors[1], 3);
        Assert.InRange(fit.Share, 0.99999, 1);
        Assert.StartsWith("y = 2.00", fit.Words(), StringComparison.Ordinal);
        var growth = Fit.Of(FitKind.Exponential, [.. Enumerable.Range(0, 9).Select(i => ((double)i, 3 * Math.Exp(-0.4 * i)))])!;
        Assert.Equal((3, -0.4), (Math.Round(growth.Factors[0], 9), Math.Round(growth.Factors[1], 9)));
        Assert.Equal("y = 2·x² − 3·x + 1", Fit.Of(FitKind.Parabola, [(0, 1), (1, 0), (2, 3), (3, 10)])!.Words());
    }

    [Fact]
    public void Where_there_is_nothing_to_lay_a_curve_through_there_is_none()
    {
        Assert.Null(Fit.Of(FitKind.Line, []));
        Assert.Null(Fit.Of(FitKind.Line, [(1, 2)]));
        Assert.Null(Fit.Of(FitKind.Line, [(1, 2), (1, 3), (1, 4)]));
        Assert.Null(Fit.Of(FitKind.Cubic, [(1, 2), (2, 3), (3, 4)]));
        Assert.Null(Fit.Of(FitKind.Power, [(-1, 2), (2, 3)]));
        Assert.Null(Fit.Of(FitKind.Exponential, [(1, 2), (2, -3)]));
        Assert.Null(Fit.Of(FitKind.Proportion, [(0, 1), (0, 2)]));
        Assert.Null(Fit.Of(FitKind.None, [(1, 2), (2, 3)]));
    }

    [Fact]
    public void Zeros_and_turns_are_those_of_MathNet()
    {
        double Cubic(double x) => x * x * x - 4 * x + 1;
        var theirs = FindRoots.Polynomial([1, -4, 0, 1]).Select(root => root.Real).Order().ToList();
        var ours = Landmarks.Zeros(Cubic, -10, 10);
        Assert.Equal(3, ours.Count);
        foreach (var (one, other) in theirs.Zip(ours))
            Assert.Equal(one, other, 9);
        var turns = Landmarks.Turns(Cubic, -10, 10);
        Assert.Equal(
            [-Math.Sqrt(4 / 3.0), Math.Sqrt(4 / 3.0)],
            turns.Select(turn => Math.Round(turn, 6)),
            (a, b) => Math.Abs(a - b) < 1e-5
        );
        Assert.Equal(
            [-9.424778, -6.283185, -3.141593, 0, 3.141593, 6.283185, 9.424778],
            Landmarks.Zeros(Math.Sin, -10, 10).Select(x => Math.Round(x, 6))
        );
        // A touch is a zero, a pole and a leap are none.
        Assert.Equal(2, Assert.Single(Landmarks.Zeros(x => (x - 2) * (x - 2), -10, 10)), 5);
        Assert.Empty(Landmarks.Zeros(x => 1 / (x - 0.123), -10, 10));
        Assert.Empty(Landmarks.Zeros(x => x < 0.123 ? -1 : 1, -10, 10));
        Assert.Empty(Landmarks.Turns(x => 1 / ((x - 0.123) * (x - 0.123)), -10, 10));
        Assert.Equal(7, Landmarks.Zeros(Math.Tan, -10, 10).Count);
    }

    [Theory]
    [InlineData("0 1 0 1", true)]
    [InlineData("-1e3 1e3 -5 5", true)]
    [InlineData("1 0 0 1", false)]
    [InlineData("0 0 0 1", false)]
    [InlineData("0 1 0", false)]
    [InlineData("0 1 0 NaN", false)]
    [InlineData("0 1 0 1e13", false)]
    [InlineData("1000000000 1000000000.1 0 1", false)]
    public void A_range_can_be_shown_or_is_none(string text, bool isOne)
    {
        Assert.Equal(isOne, PlotRange.Read(text) is not null);
        if (PlotRange.Read(text) is { } range)
            Assert.Equal(range, PlotRange.Read(range.ToText()));
    }

    private static readonly Gen<PlotRange> Ranges = Gen.Select(
            Gen.Double[-1e6, 1e6],
            Gen.Double[-1e6, 1e6],
            Gen.Double[-1, 6],
            Gen.Double[-1, 6]
        )
        .Select((left, bottom, wide, high) => new PlotRange(left, left + Math.Pow(10, wide), bottom, bottom + Math.Pow(10, high)));

    [Fact]
    public void What_lies_under_the_fingers_stays_there_while_a_range_is_widened_and_moving_keeps_its_measures()
    {
        Gen.Select(Ranges, Gen.Double[0.1, 8], Gen.Double[0.1, 8], Gen.Double[0, 1], Gen.Double[0, 1])
            .Sample(
                (range, across, up, x, y) =>
                {
                    var wide = range.Widened(across, up, x, y);
                    Near(range.Width * across, wide.Width, range);
                    Near(range.Height * up, wide.Height, range);
                    Near(range.Left + x * range.Width, wide.Left + x * wide.Width, range);
                    Near(range.Bottom + y * range.Height, wide.Bottom + y * wide.Height, range);
                    var moved = range.Moved(x, -y);
                    Near(range.Left + x * range.Width, moved.Left, range);
                    Near(range.Bottom - y * range.Height, moved.Bottom, range);
                    Near(range.Width, moved.Width, range);
                    Near(range.Height, moved.Height, range);
                },
                iter: 2_000
            );

        static void Near(double wanted, double found, PlotRange of) =>
            Assert.True(
                Math.Abs(wanted - found) <= 1e-9 * (1 + Math.Abs(of.Left) + Math.Abs(of.Bottom) + of.Width + of.Height),
                $"{wanted} and {found}"
            );
    }

    [Fact]
    public void A_hand_leaves_few_digits_and_moves_nothing_that_one_sees()
    {
        Assert.Equal("-3.33 6.67 0.5 2.5", new PlotRange(-10 / 3.0, 20 / 3.0, 0.5000001, 2.4999999).Rounded().ToText());
        Assert.Equal("12000 52000 -0.00012 0.00034", new PlotRange(12_003, 51_996, -0.000_120_04, 0.000_339_98).Rounded().ToText());
        Ranges.Sample(
            range =>
            {
                var rounded = range.Rounded();
                Assert.Equal(rounded, PlotRange.Read(rounded.ToText()));
                // Less than the thousandth of a share of ten: not a pixel on any screen.
                Assert.InRange(Math.Abs(rounded.Left - range.Left), 0, range.Width / 1_000);
                Assert.InRange(Math.Abs(rounded.Top - range.Top), 0, range.Height / 1_000);
            },
            iter: 2_000
        );
    }

    [Fact]
    public void However_often_it_is_widened_or_narrowed_a_range_can_be_shown()
    {
        foreach (var times in new[] { 3.0, 1 / 3.0, double.NaN, double.PositiveInfinity, 0, -1 })
        {
            var range = new PlotRange(-5, 5, -5, 5);
            for (var i = 0; i < 200; i++)
                range = range.Widened(times, times, 0.3, 0.7).Moved(times, times).Rounded();
            Assert.Equal(range, PlotRange.Read(range.ToText()));
        }
    }
}
