using CalmQuill.Core.Ink;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Testing;

/// <summary>
/// Shapes by a second hand that has nothing in common with <see cref="RoughShapes"/>: it moves in time. Each side is one movement with the least jerk (Flash and Hogan
/// 1985), bowed by chance and aimed with an error; corners are passed over round, stopped at, or hooked; a tremor of 7 to 12 Hz and the digitiser's noise lie on top; the pen
/// rests at the end. From 7 mm on.
/// </summary>
public static class SketchedShapes
{
    private const double Degrees = Math.PI / 180;

    /// <summary>Sheets are read by the hundredth of a millimetre.</summary>
    private const double Millimetre = 100;

    /// <summary>Samples a second.</summary>
    private const double Rate = 120;

    /// <summary>The strokes of one sketched shape: one, or for some arrows two or three.</summary>
    /// <param name="kind">What it is meant to be.</param>
    /// <param name="random">Chance.</param>
    /// <param name="gap">How far a closed figure stays open, as a share of its way; chance between 4 % open and 5 % too far when not given.</param>
    public static List<StrokeSamples> Draw(ShapeKind kind, Random random, double? gap = null)
    {
        // The larger side is 7 to 60 mm; small ones are as frequent as large ones.
        var extent = 7 * Math.Pow(60.0 / 7, random.NextDouble()) * Millimetre;
        var hand = new Hand(random, extent);
        var strokes = Figure(kind, random);
        double left = strokes.Min(s => s.Way.Min(p => p.X)),
            right = strokes.Max(s => s.Way.Max(p => p.X)),
            top = strokes.Min(s => s.Way.Min(p => p.Y)),
            bottom = strokes.Max(s => s.Way.Max(p => p.Y));
        var scale = extent / Math.Max(right - left, bottom - top);
        var (sin, cos) = Math.SinCos(random.NextDouble() * 2 * Math.PI);
        // A hand on the way is a little wider one way than the other, and leans.
        double wide = 1 + Near(random, 0.015),
            lean = Near(random, 0.015);
        (double X, double Y) Placed((double X, double Y) p)
        {
            double x = (p.X * wide + p.Y * lean) * scale,
                y = p.Y * scale;
            return (9_000 + x * cos - y * sin, 9_000 + x * sin + y * cos);
        }

        return
        [
            .. strokes.Select(s =>
                s.Smooth
                    ? hand.Flow([.. s.Way.Select(Placed)], s.Closed ? gap ?? Between(random, -0.05, 0.04) : 0)
                    : hand.Corners([.. s.Way.Select(Placed)], s.Closed ? gap ?? Between(random, -0.05, 0.04) : 0, s.Closed)
            ),
        ];
    }

    /// <summary>A circle whose one axis is so much longer than the other, drawn as <see cref="Draw"/> draws.</summary>
    public static StrokeSamples Oval(double ratio, Random random)
    {
        var extent = Between(random, 700, 4_000);
        var way = Turned(Ring(ratio, 1, random), random);
        return new Hand(random, extent).Flow(
            [.. way.Select(p => (9_000 + p.X * extent / 2, 9_000 + p.Y * extent / 2))],
            Between(random, -0.05, 0.04)
        );
    }

    /// <summary>What each kind was taken for, of so many drawn.</summary>
    public static Dictionary<ShapeKind, Dictionary<string, int>> Confusion(int each, int seed)
    {
        var random = new Random(seed);
        return RoughShapes.Kinds.ToDictionary(
            kind => kind,
            kind =>
                Enumerable
                    .Range(0, each)
                    .Select(_ => RoughShapes.Taken(Draw(kind, random)))
                    .GroupBy(name => name)
                    .ToDictionary(group => group.Key, group => group.Count())
        );
    }

    private readonly record struct Stroke(List<(double X, double Y)> Way, bool Smooth = false, bool Closed = false);

    private static List<Stroke> Figure(ShapeKind kind, Random random)
    {
        double R(double from, double to) => Between(random, from, to);
        Stroke Angular(params (double X, double Y)[] corners)
        {
            var start = random.Next(corners.Length);
            var way = corners.Skip(start).Concat(corners.Take(start)).ToList();
            if (random.Next(2) == 0)
                way.Reverse();
            return new Stroke([.. way, way[0]], Closed: true);
        }

        switch (kind)
        {
            case ShapeKind.Line:
                return [new([(0, 0), (1, 0)])];
            case ShapeKind.Arrow or ShapeKind.DoubleArrow:
                return Pointing(kind == ShapeKind.DoubleArrow, random);
            case ShapeKind.Circle:
                return [new(Turned(Ring(R(1, 1.14), 1, random), random), Smooth: true, Closed: true)];
            case ShapeKind.Ellipse:
                return [new(Turned(Ring(R(1.4, 2.8), 1, random), random), Smooth: true, Closed: true)];
            case ShapeKind.Triangle:
                // By its angles, none below 28°.
                double one = R(28, 100),
                    two = R(28, Math.Min(110, 152 - one));
                var third = (180 - one - two) * Degrees;
                var side = Math.Sin(two * Degrees) / Math.Sin(third);
                return [Angular((0, 0), (1, 0), (side * Math.Cos(one * Degrees), side * Math.Sin(one * Degrees)))];
            case ShapeKind.Square:
                var square = R(0.93, 1.07);
                return [Angular((0, 0), (1, 0), (1, square), (0, square))];
            case ShapeKind.Rectangle:
                var high = R(0.25, 0.74);
                return [Angular((0, 0), (1, 0), (1, high), (0, high))];
            case ShapeKind.Rhombus:
                var half = R(22, 35) * Degrees;
                return [Angular((-Math.Cos(half), 0), (0, Math.Sin(half)), (Math.Cos(half), 0), (0, -Math.Sin(half)))];
            case ShapeKind.Parallelogram:
                double foot = R(50, 68) * Degrees,
                    slope = R(0.35, 0.68);
                return
                [
                    Angular(
                        (0, 0),
                        (1, 0),
                        (1 + slope * Math.Cos(foot), slope * Math.Sin(foot)),
                        (slope * Math.Cos(foot), slope * Math.Sin(foot))
                    ),
                ];
            case ShapeKind.Trapezoid:
                double top = R(0.3, 0.6),
                    shift = R(0.15, 0.85) * (1 - top),
                    deep = R(0.35, 0.75);
                return [Angular((0, 0), (1, 0), (shift + top, deep), (shift, deep))];
            case ShapeKind.RegularPolygon:
                var sides = random.Next(5, 7);
                return [Angular([.. Enumerable.Range(0, sides).Select(i => At(1, i * 360.0 / sides))])];
            case ShapeKind.Polygon:
                return random.Next(3) switch
                {
                    // A step, a flag with a notch, a gable.
                    0 => [Angular((0, 0), (1, 0), (1, 0.5), (0.5, 0.5), (0.5, 1), (0, 1))],
                    1 => [Angular((0, 0), (1.4, 0), (1, 0.45), (1.4, 0.9), (0, 0.9))],
                    _ => [Angular((0, 0), (1, 0), (1, 0.6), (0.65, 1.1), (0, 0.6))],
                };
            case ShapeKind.Star:
                return random.Next(2) == 0
                    ? [Angular([.. Enumerable.Range(0, 5).Select(i => At(1, i * 144))])]
                    : [Angular([.. Enumerable.Range(0, 10).Select(i => At(i % 2 == 0 ? 1 : R(0.4, 0.46), i * 36))])];
            case ShapeKind.Arc:
                var sweep = R(65, 255);
                return [new([.. Enumerable.Range(0, 49).Select(i => At(1, sweep * i / 48))], Smooth: true)];
            case ShapeKind.Wave:
                int halves = random.Next(4, 9);
                var crest = R(0.5, 0.85);
                return
                [
                    new(
                        [.. Enumerable.Range(0, 161).Select(i => (i / 160.0 * halves, crest * Math.Sin(Math.PI * halves * i / 160)))],
                        Smooth: true
                    ),
                ];
            case ShapeKind.Polyline:
                return random.Next(4) switch
                {
                    0 => [new([(0, 0), (R(0.3, 0.7), R(0.6, 1.1)), (1, R(-0.2, 0.2))])],
                    1 => [new([(0.5, 0), (0, 0), (0, 1), (0.5, 1)])],
                    2 => [new([(0, 0), (0.35, 0.7), (0.7, 0), (1.05, 0.7), (1.4, 0)])],
                    _ => [new([(0, 0), (0.5, 0), (0.5, 0.5), (1, 0.5), (1, 1)])],
                };
            default:
                // A bow that straightens out, or a hook with a long tail: cubics, never near a circle.
                return random.Next(2) == 0
                    ? [new(Bezier((0, 0), (0.1, R(1, 1.3)), (0.7, R(0.9, 1.2)), (R(1.5, 1.8), 0)), Smooth: true)]
                    : [new(Bezier((0, 0), (R(1.5, 1.8), 0), (R(1.3, 1.5), R(0.8, 0.9)), (0.75, 0.3)), Smooth: true)];
        }
    }

    private static (double X, double Y) At(double radius, double degrees) =>
        (radius * Math.Cos(degrees * Degrees), radius * Math.Sin(degrees * Degrees));

    /// <summary>Arrows as they are drawn: in one go, shaft and head, or shaft and each barb by itself.</summary>
    private static List<Stroke> Pointing(bool both, Random random)
    {
        double R(double from, double to) => Between(random, from, to);
        double barb = R(0.16, 0.34),
            angle = R(24, 45);
        (double X, double Y) Barb(double tip, int side)
        {
            var away = (angle + Near(random, 3)) * side * Degrees;
            return (tip - (tip > 0.5 ? 1 : -1) * barb * Math.Cos(away), barb * Math.Sin(away));
        }

        List<(double X, double Y)> Head(double tip) => [Barb(tip, 1), (tip, Near(random, 0.012)), Barb(tip, -1)];
        if (both)
            return random.Next(2) == 0
                ? [new([.. Head(0), (0, 0), (1, 0), Barb(1, 1), (1, 0), Barb(1, -1)])]
                : [new([(0, 0), (1, 0), Barb(1, 1), (1, 0), Barb(1, -1)]), new(Head(0))];
        return random.Next(3) switch
        {
            0 => [new([(0, 0), (1, 0), Barb(1, 1), (1, 0), Barb(1, -1)])],
            1 => [new([(0, 0), (1, 0)]), new(Head(1))],
            _ => [new([(0, 0), (1, 0)]), new([(1, Near(random, 0.012)), Barb(1, 1)]), new([Barb(1, -1), (1, Near(random, 0.012))])],
        };
    }

    private static List<(double X, double Y)> Ring(double a, double b, Random random)
    {
        var start = random.NextDouble() * 360;
        var way = random.Next(2) * 2 - 1;
        // The radius grows or shrinks a little on the way round, as round movements do.
        var spiral = Near(random, 0.02);
        return [.. Enumerable.Range(0, 121).Select(i => At(1 + spiral * i / 120, start + way * i * 3)).Select(p => (p.X * a, p.Y * b))];
    }

    private static List<(double X, double Y)> Turned(List<(double X, double Y)> way, Random random)
    {
        var (sin, cos) = Math.SinCos(random.NextDouble() * Math.PI);
        return [.. way.Select(p => (p.X * cos - p.Y * sin, p.X * sin + p.Y * cos))];
    }

    private static List<(double X, double Y)> Bezier(
        (double X, double Y) a,
        (double X, double Y) b,
        (double X, double Y) c,
        (double X, double Y) d
    ) =>
        [
            .. Enumerable
                .Range(0, 61)
                .Select(i =>
                {
                    double t = i / 60.0,
                        s = 1 - t;
                    return (
                        s * s * s * a.X + 3 * s * s * t * b.X + 3 * s * t * t * c.X + t * t * t * d.X,
                        s * s * s * a.Y + 3 * s * s * t * b.Y + 3 * s * t * t * c.Y + t * t * t * d.Y
                    );
                }),
        ];

    private static double Between(Random random, double from, double to) => from + random.NextDouble() * (to - from);

    /// <summary>A normal error with a standard deviation, cut off at two and a half of them.</summary>
    private static double Near(Random random, double deviation)
    {
        var normal = Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        return Math.Clamp(normal, -2.5, 2.5) * deviation;
    }

    private enum Turning
    {
        Stopped,
        Round,
        Hooked,
    }

    /// <summary>One hand: how it turns at corners, trembles and rests.</summary>
    private sealed class Hand(Random random, double extent)
    {
        private readonly Turning turning = (Turning)random.Next(3);
        private readonly double tremor = Between(random, 2, 9) * Math.Clamp(extent / 2_000, 0.5, 1.2);
        private readonly double hertz = Between(random, 7, 12);
        private readonly double phase = random.NextDouble() * 6;
        private readonly List<(double X, double Y, double T)> trace = [];
        private double time;

        /// <summary>A way with corners, one movement a side.</summary>
        public StrokeSamples Corners(List<(double X, double Y)> way, double gap, bool closed)
        {
            var shortest = way.Zip(way.Skip(1), Distance).Where(length => length > 1).DefaultIfEmpty(1).Min();
            // Each corner is aimed at with an error; a closed way comes back to where it began.
            var aimed = way.Select(p => (X: p.X + Near(random, shortest * 0.02), Y: p.Y + Near(random, shortest * 0.02))).ToList();
            if (closed)
            {
                aimed[^1] = aimed[0];
                aimed = Ended(aimed, gap);
            }

            var rounding = turning == Turning.Round ? shortest * Between(random, 0.05, 0.12) : 0;
            var hook = turning == Turning.Hooked ? shortest * Between(random, 0.02, 0.045) : 0;
            for (var i = 0; i + 1 < aimed.Count; i++)
            {
                var (from, to) = (aimed[i], aimed[i + 1]);
                var length = Math.Max(Distance(from, to), 1e-6);
                double ux = (to.X - from.X) / length,
                    uy = (to.Y - from.Y) / length;
                if (i > 0 && rounding > 0)
                    from = (from.X + ux * rounding, from.Y + uy * rounding);
                var last = i + 2 == aimed.Count;
                if (!last && rounding > 0)
                    to = (to.X - ux * rounding, to.Y - uy * rounding);
                if (!last && hook > 0)
                    to = (to.X + ux * hook, to.Y + uy * hook);
                Move(from, to, Near(random, 0.014));
                if (!last && turning == Turning.Stopped)
                    Rest(Between(random, 0.02, 0.08));
            }

            return Lifted();
        }

        /// <summary>A way without corners: evenly on, slower where it bends more.</summary>
        public StrokeSamples Flow(List<(double X, double Y)> way, double gap)
        {
            var ended = gap == 0 ? way : Ended(way, gap);
            var along = ended.Zip(ended.Skip(1), Distance).Sum();
            double seconds = Math.Max(0.35, along / 11_000 + 0.3),
                done = 0;
            // A slow swing of the arm carries the whole of it a little to and fro.
            double swing = Near(random, along * 0.003),
                swings = Between(random, 0.6, 1.6) * 2 * Math.PI,
                at = random.NextDouble() * 6;
            for (var i = 0; i + 1 < ended.Count; i++)
            {
                var length = Distance(ended[i], ended[i + 1]);
                var steps = Math.Max(1, (int)Math.Round(length / along * seconds * Rate));
                for (var k = 0; k < steps; k++)
                {
                    var t = k / (double)steps;
                    var share = (done + length * t) / along;
                    Add(
                        ended[i].X + (ended[i + 1].X - ended[i].X) * t + swing * Math.Sin(share * swings + at),
                        ended[i].Y + (ended[i + 1].Y - ended[i].Y) * t + swing * Math.Cos(share * swings * 0.8 + at)
                    );
                }

                done += length;
            }

            return Lifted();
        }

        /// <summary>A closed way that stays open by a share of its length, or runs on past its beginning.</summary>
        private static List<(double X, double Y)> Ended(List<(double X, double Y)> way, double gap)
        {
            var ended = way.ToList();
            var rest = Math.Abs(gap) * way.Zip(way.Skip(1), Distance).Sum();
            if (gap < 0)
            {
                for (var i = 1; i < way.Count && rest > 0; i++)
                {
                    var length = Distance(way[i - 1], way[i]);
                    var share = Math.Min(1, rest / Math.Max(length, 1e-9));
                    ended.Add((way[i - 1].X + (way[i].X - way[i - 1].X) * share, way[i - 1].Y + (way[i].Y - way[i - 1].Y) * share));
                    rest -= length;
                }

                return ended;
            }

            while (ended.Count > 2 && Distance(ended[^1], ended[^2]) <= rest)
            {
                rest -= Distance(ended[^1], ended[^2]);
                ended.RemoveAt(ended.Count - 1);
            }

            var part = rest / Math.Max(Distance(ended[^1], ended[^2]), 1e-9);
            ended[^1] = (ended[^1].X + (ended[^2].X - ended[^1].X) * part, ended[^1].Y + (ended[^2].Y - ended[^1].Y) * part);
            return ended;
        }

        /// <summary>From here to there with the least jerk, bowed aside by a share of the way.</summary>
        private void Move((double X, double Y) from, (double X, double Y) to, double bow)
        {
            var length = Distance(from, to);
            var samples = Math.Max(4, (int)((0.12 + length / 14_000) * Rate));
            for (var i = 0; i < samples; i++)
            {
                var t = i / (double)samples;
                var s = t * t * t * (10 - 15 * t + 6 * t * t);
                var aside = 4 * bow * s * (1 - s);
                Add(from.X + (to.X - from.X) * s - (to.Y - from.Y) * aside, from.Y + (to.Y - from.Y) * s + (to.X - from.X) * aside);
            }

            Add(to.X, to.Y);
        }

        private void Add(double x, double y)
        {
            time += 1 / Rate;
            var shaken = tremor * Math.Sin(2 * Math.PI * hertz * time + phase);
            trace.Add((x + shaken + Near(random, 1), y + shaken * Math.Cos(time * 3 + phase) + Near(random, 1), time));
        }

        private void Rest(double seconds)
        {
            var (x, y, _) = trace[^1];
            for (var i = 0; i < seconds * Rate; i++)
                Add(x, y);
        }

        private StrokeSamples Lifted()
        {
            Rest(0.3);
            var stroke = new StrokeSamples(
                [.. trace.Select(p => (int)Math.Round(p.X))],
                [.. trace.Select(p => (int)Math.Round(p.Y))],
                [.. trace.Select(_ => 500)],
                [.. trace.Select(p => (int)(p.T * 1000))]
            );
            trace.Clear();
            return stroke;
        }
    }

    private static double Distance((double X, double Y) a, (double X, double Y) b) =>
        Math.Sqrt((a.X - b.X) * (a.X - b.X) + (a.Y - b.Y) * (a.Y - b.Y));
}
