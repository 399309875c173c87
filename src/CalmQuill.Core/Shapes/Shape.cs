using System.Globalization;
using System.Text;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Shapes;

/// <summary>A shape by its few points. Everything else, its line above all, is worked out from them.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Points">Its points; what they mean stands with the kind.</param>
/// <param name="Detail">The number of half waves of a wave, else 0.</param>
public sealed record Shape(ShapeKind Kind, IReadOnlyList<Corner> Points, int Detail = 0)
{
    /// <summary>The most points a shape may have.</summary>
    public const int MostPoints = 4_000;

    public const int MostDetail = 200;

    /// <summary>The most points of a connector's way.</summary>
    private const int MostTurns = 8;

    /// <summary>The radius of the dot at the end of a connector, 0.01 mm.</summary>
    private const int Dot = 75;

    /// <summary>Samples on each straight side: with the number always the same, what was rubbed out stays in its place when the shape is changed.</summary>
    private const int SideSamples = 12;
    private const int RoundSamples = 96;
    private const int ArcSamples = 48;
    private const int SpanSamples = 10;
    private const double HeadShare = 0.28,
        LeastHead = 180,
        MostHead = 700;

    /// <summary>Middle pressure: a shape is drawn with an even hand.</summary>
    private const int EvenPressure = 512;

    /// <summary>How hard the hand pressed along a curve that was drawn by hand, see <see cref="PressureAlong"/>; none for an even line.</summary>
    public IReadOnlyList<int> Pressure { get; init; } = [];

    /// <summary>Whether it is an open curve, which keeps its hand's pressure.</summary>
    public bool IsOpenCurve => Kind is ShapeKind.Arc or ShapeKind.Curve or ShapeKind.Wave;

    /// <summary>Whether its line comes back to where it began, so that it can be filled.</summary>
    public bool IsClosed =>
        Kind is ShapeKind.Circle or ShapeKind.Ellipse or (>= ShapeKind.Triangle and <= ShapeKind.Star) or ShapeKind.Area;

    public bool HasCorners => Kind is (>= ShapeKind.Triangle and <= ShapeKind.Star) or ShapeKind.Area;

    /// <summary>A connector without the way between its ends, which is worked out from them.</summary>
    public Shape WithoutWay() => this with { Points = [Points[0], Points[^1]] };

    /// <summary>Whether the number of points fits the kind and no point lies out of reach.</summary>
    public bool IsWellFormed =>
        Enum.IsDefined(Kind)
        && Points.Count <= MostPoints
        && Detail is >= 0 and <= MostDetail
        && Pressure.Count <= (IsOpenCurve ? PressureAlong.Most : 0)
        && Pressure.All(pressure => pressure is >= 0 and <= StrokeSamples.MostPressure)
        && Points.All(point =>
            Math.Abs((long)point.X) <= StrokeSamples.MostCoordinate && Math.Abs((long)point.Y) <= StrokeSamples.MostCoordinate
        )
        && Kind switch
        {
            ShapeKind.Line or ShapeKind.Arrow or ShapeKind.DoubleArrow or ShapeKind.Circle => Points.Count == 2,
            ShapeKind.Ellipse or ShapeKind.Triangle or ShapeKind.Arc => Points.Count == 3,
            ShapeKind.Wave => Points.Count == 3 && Detail > 0,
            ShapeKind.Square or ShapeKind.Rectangle or ShapeKind.Rhombus or ShapeKind.Parallelogram or ShapeKind.Trapezoid => Points.Count
                == 4,
            ShapeKind.Star => Points.Count >= 6 && Points.Count % 2 == 0,
            ShapeKind.Connector => Points.Count is >= 2 and <= MostTurns && ConnectorLook.Of(Detail).IsKnown,
            _ => Points.Count >= 3,
        };

    /// <summary>A shape is drawn by an even line, since pens with soft ends would leave a seam; but an open curve that keeps its pressure, by the pen that drew it.</summary>
    public Pen PenFor(Pen pen) =>
        pen.Kind switch
        {
            PenKind.Fountain or PenKind.Brush when Pressure.Count == 0 => pen with
            {
                Kind = PenKind.Ball,
                Width = Math.Clamp((int)MathF.Round(pen.Radius(EvenPressure) * 2), Pen.LeastWidth, Pen.MostWidth),
            },
            _ => pen,
        };

    /// <summary>Its line as if written in one go: what outlines, erasers and loops work on.</summary>
    public StrokeSamples Trace()
    {
        var line = new Tracer();
        switch (Kind)
        {
            case ShapeKind.Line or ShapeKind.Polyline:
                line.Sides(Points, false);
                break;
            case ShapeKind.Arrow:
                line.Sides(Points, false);
                Head(line, Points[0], Points[1]);
                break;
            case ShapeKind.DoubleArrow:
                line.Sides(Points, false);
                Head(line, Points[0], Points[1]);
                line.Sides([Points[1], Points[0]], false);
                Head(line, Points[1], Points[0]);
                break;
            case ShapeKind.Circle:
                double dx = Points[1].X - Points[0].X,
                    dy = Points[1].Y - Points[0].Y;
                Round(line, Points[0], dx, dy, -dy, dx);
                break;
            case ShapeKind.Ellipse:
                Round(
                    line,
                    Points[0],
                    Points[1].X - Points[0].X,
                    Points[1].Y - Points[0].Y,
                    Points[2].X - Points[0].X,
                    Points[2].Y - Points[0].Y
                );
                break;
            case ShapeKind.Arc:
                if (Circumcircle.Of(Points[0], Points[1], Points[2]) is { } circle)
                    circle.Along(ArcSamples, (x, y) => line.Add(x, y));
                else
                    line.Sides([Points[0], Points[2]], false);
                break;
            case ShapeKind.Curve:
                Smooth(line);
                break;
            case ShapeKind.Wave:
                Wave(line);
                break;
            case ShapeKind.Area:
                line.Sides(Points, true, 1);
                break;
            case ShapeKind.Connector:
                Connector(line);
                break;
            default:
                line.Sides(Points, true);
                break;
        }

        return line.ToSamples(Pressure);
    }

    /// <summary>The shape with all its points moved by a function, which is to keep lines straight.</summary>
    public Shape Map(Func<double, double, (double X, double Y)> to)
    {
        var mapped = Points.Select(point => to(point.X, point.Y)).Select(point => Corner.At(point.X, point.Y)).ToArray();
        return this with { Points = mapped };
    }

    /// <summary>
    /// The same for a function that also squeezes or slants: a circle becomes an ellipse, a square a rectangle or parallelogram. Null for arcs and waves,
    /// which are none any more.
    /// </summary>
    public Shape? Squeeze(Func<double, double, (double X, double Y)> to)
    {
        switch (Kind)
        {
            case ShapeKind.Circle:
                var (centre, rim) = (Points[0], Points[1]);
                return new Shape(
                    ShapeKind.Ellipse,
                    [centre, rim, new Corner(centre.X - (rim.Y - centre.Y), centre.Y + (rim.X - centre.X))]
                ).Map(to);
            case ShapeKind.Square or ShapeKind.Rectangle or ShapeKind.Rhombus or ShapeKind.Parallelogram:
                var mapped = Map(to);
                return mapped with { Kind = FourSided(mapped.Points) };
            case ShapeKind.RegularPolygon:
                return Map(to) with { Kind = ShapeKind.Polygon };
            case ShapeKind.Arc or ShapeKind.Wave:
                return null;
            default:
                return Map(to);
        }
    }

    /// <summary>What four corners are whose opposite sides run alike.</summary>
    private static ShapeKind FourSided(IReadOnlyList<Corner> corners)
    {
        double ax = corners[1].X - corners[0].X,
            ay = corners[1].Y - corners[0].Y,
            bx = corners[2].X - corners[1].X,
            by = corners[2].Y - corners[1].Y;
        double one = Math.Sqrt(ax * ax + ay * ay),
            other = Math.Sqrt(bx * bx + by * by);
        var upright = Math.Abs(ax * bx + ay * by) <= 0.01 * one * other;
        var even = Math.Abs(one - other) <= 0.01 * Math.Max(one, other);
        return upright ? (even ? ShapeKind.Square : ShapeKind.Rectangle)
            : even ? ShapeKind.Rhombus
            : ShapeKind.Parallelogram;
    }

    public bool Equals(Shape? other) =>
        other is not null
        && Kind == other.Kind
        && Detail == other.Detail
        && Points.SequenceEqual(other.Points)
        && Pressure.SequenceEqual(other.Pressure);

    public override int GetHashCode() => Points.Aggregate(HashCode.Combine(Kind, Detail), HashCode.Combine);

    /// <summary>Kind, detail and coordinates as numbers parted by spaces; behind a semicolon the pressures, where it has any.</summary>
    public string ToText()
    {
        var text = new StringBuilder().Append(CultureInfo.InvariantCulture, $"{(int)Kind} {Detail}");
        foreach (var point in Points)
            text.Append(CultureInfo.InvariantCulture, $" {point.X} {point.Y}");
        if (Pressure.Count > 0)
            text.Append(';').AppendJoin(' ', Pressure);
        return text.ToString();
    }

    /// <summary>Reads what <see cref="ToText"/> writes; null when it is not a shape that is well formed.</summary>
    public static Shape? Read(string text)
    {
        var halves = text.Split(';');
        if (halves.Length > 2 || Numbers(halves[0], 2 * MostPoints + 2) is not { Length: >= 6 } numbers || numbers.Length % 2 != 0)
            return null;
        int[]? pressure = halves.Length == 2 ? Numbers(halves[1], PressureAlong.Most) : [];
        var points = Enumerable.Range(1, numbers.Length / 2 - 1).Select(i => new Corner(numbers[2 * i], numbers[2 * i + 1])).ToArray();
        if (pressure is null || numbers[0] is < 0 or > byte.MaxValue)
            return null;
        var shape = new Shape((ShapeKind)numbers[0], points, numbers[1]) { Pressure = pressure };
        return shape.IsWellFormed ? shape : null;
    }

    /// <summary>Numbers parted by spaces; null when there is something else, or more than there may be.</summary>
    private static int[]? Numbers(string text, int most)
    {
        var parts = text.Split(' ');
        if (parts.Length > most)
            return null;
        var numbers = new int[parts.Length];
        for (var i = 0; i < parts.Length; i++)
        {
            if (!int.TryParse(parts[i], NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out numbers[i]))
                return null;
        }

        return numbers;
    }

    /// <summary>Two short lines at the end of a shaft, at 27° to it.</summary>
    private static void Head(Tracer line, Corner tail, Corner head)
    {
        double dx = tail.X - head.X,
            dy = tail.Y - head.Y,
            length = Math.Sqrt(dx * dx + dy * dy);
        if (length < 1)
            return;
        var size = Math.Min(Math.Clamp(length * HeadShare, LeastHead, MostHead), length);
        var (sin, cos) = Math.SinCos(27 * Math.PI / 180);
        (dx, dy) = (dx / length * size, dy / length * size);
        Corner one = Corner.At(head.X + dx * cos - dy * sin, head.Y + dy * cos + dx * sin),
            other = Corner.At(head.X + dx * cos + dy * sin, head.Y + dy * cos - dx * sin);
        line.Sides([head, one, head, other, head], false);
    }

    /// <summary>What stands at its start, its way, what stands at its end.</summary>
    private void Connector(Tracer line)
    {
        var look = ConnectorLook.Of(Detail);
        AtEnd(line, look.Start, Points[1], Points[0]);
        if (look.Route == ConnectorRoute.Curved && Points.Count == 4)
        {
            for (var i = 0; i <= ArcSamples; i++)
            {
                var t = i / (double)ArcSamples;
                line.Add(Bezier(t, point => point.X), Bezier(t, point => point.Y));
            }
        }
        else
        {
            line.Sides(Points, false);
        }

        AtEnd(line, look.End, Points[^2], Points[^1]);
    }

    private double Bezier(double t, Func<Corner, double> of)
    {
        var u = 1 - t;
        return u * u * u * of(Points[0]) + 3 * u * u * t * of(Points[1]) + 3 * u * t * t * of(Points[2]) + t * t * t * of(Points[3]);
    }

    private static void AtEnd(Tracer line, ConnectorEnd end, Corner before, Corner at)
    {
        if (end == ConnectorEnd.Arrow)
            Head(line, before, at);
        else if (end == ConnectorEnd.Dot)
        {
            Round(line, at, Dot, 0, 0, Dot);
            Round(line, at, Dot / 2.0, 0, 0, Dot / 2.0);
            line.Sides([at, at], false);
        }
    }

    private static void Round(Tracer line, Corner centre, double ax, double ay, double bx, double by)
    {
        for (var i = 0; i <= RoundSamples; i++)
        {
            var (sin, cos) = Math.SinCos(Math.PI * 2 * i / RoundSamples);
            line.Add(centre.X + ax * cos + bx * sin, centre.Y + ay * cos + by * sin);
        }
    }

    /// <summary>A Catmull-Rom spline through the points (Catmull and Rom 1974).</summary>
    private void Smooth(Tracer line)
    {
        for (var i = 0; i + 1 < Points.Count; i++)
        {
            Corner a = Points[Math.Max(i - 1, 0)],
                b = Points[i],
                c = Points[i + 1],
                d = Points[Math.Min(i + 2, Points.Count - 1)];
            for (var k = i == 0 ? 0 : 1; k <= SpanSamples; k++)
            {
                var t = k / (double)SpanSamples;
                line.Add(Spline(a.X, b.X, c.X, d.X, t), Spline(a.Y, b.Y, c.Y, d.Y, t));
            }
        }
    }

    private static double Spline(double a, double b, double c, double d, double t) =>
        b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));

    private void Wave(Tracer line)
    {
        Corner start = Points[0],
            end = Points[1],
            crest = Points[2];
        double ux = end.X - start.X,
            uy = end.Y - start.Y,
            length = Math.Sqrt(ux * ux + uy * uy);
        var (nx, ny) = length < 1 ? (0.0, 0.0) : (-uy / length, ux / length);
        var high = (crest.X - start.X) * nx + (crest.Y - start.Y) * ny;
        for (var i = 0; i <= Detail * SideSamples; i++)
        {
            double t = i / (double)(Detail * SideSamples),
                aside = high * Math.Sin(Math.PI * Detail * t);
            line.Add(start.X + ux * t + nx * aside, start.Y + uy * t + ny * aside);
        }
    }

    /// <summary>Gathers samples. A corner is sampled twice, so that no spline rounds it off.</summary>
    private sealed class Tracer
    {
        private readonly List<int> x = [],
            y = [];

        public void Add(double px, double py)
        {
            x.Add((int)Math.Round(px));
            y.Add((int)Math.Round(py));
        }

        public void Sides(IReadOnlyList<Corner> corners, bool closed, int samples = SideSamples)
        {
            Add(corners[0].X, corners[0].Y);
            for (var i = 1; i < corners.Count + (closed ? 1 : 0); i++)
            {
                Corner from = corners[i - 1],
                    to = corners[i % corners.Count];
                Add(from.X, from.Y);
                for (var k = 1; k <= samples; k++)
                    Add(from.X + (to.X - (double)from.X) * k / samples, from.Y + (to.Y - (double)from.Y) * k / samples);
            }
        }

        public StrokeSamples ToSamples(IReadOnlyList<int> along) =>
            new([.. x], [.. y], PressureAlong.At(along.Count > 0 ? along : [EvenPressure], x, y), new int[x.Count]);
    }
}
