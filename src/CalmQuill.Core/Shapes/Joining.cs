using CalmQuill.Core.Art;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Core.Shapes;

/// <summary>Join ends: the ends of a shape meet what they nearly touch, so that tables and diagrams close.</summary>
/// <remarks>
/// What is nearest within the tolerance wins, in this order: ends and corners, then sides (a line goes on in its own direction until it meets them),
/// then ruled and grid lines. Of shapes with corners, those with sides level and upright are joined by their sides, others by one corner.
/// </remarks>
public sealed class Joining
{
    private readonly double tolerance;
    private readonly List<(double X, double Y)> points = [];
    private readonly List<((double X, double Y) A, (double X, double Y) B)> sides = [];
    private readonly List<double> level = [],
        upright = [];

    /// <param name="page">The page.</param>
    /// <param name="without">What is being joined itself, and what it takes the place of.</param>
    /// <param name="paper">The paper, for its lines; null for none.</param>
    /// <param name="tolerance">How near is nearly, 0.01 mm.</param>
    public Joining(PageDocument page, IReadOnlySet<OpId> without, Paper? paper, double tolerance)
    {
        this.tolerance = tolerance;
        foreach (var item in page.Items)
        {
            if (!item.Shown || without.Contains(item.Id) || item.Kind is not (Items.ItemKinds.Ink or Items.ItemKinds.Shape))
                continue;
            if (item.PlacedShape is { } shape)
                Take(shape);
            else if (item.Samples.Count > 1)
            {
                points.Add((item.Samples.X[0] + item.Dx, item.Samples.Y[0] + item.Dy));
                points.Add((item.Samples.X[^1] + item.Dx, item.Samples.Y[^1] + item.Dy));
            }
        }

        if (paper is not null)
            Take(paper.Draw(paper.Sheet(null)), paper);
    }

    /// <summary>The shape with its ends joined to what they nearly touch.</summary>
    public Shape Join(Shape shape)
    {
        var p = shape.Points;
        switch (shape.Kind)
        {
            case ShapeKind.Line or ShapeKind.Arrow or ShapeKind.DoubleArrow:
                return shape with { Points = Ends(p[0], p[1]) };
            case ShapeKind.Arc:
                return shape with { Points = [Meet(p[0], null), p[1], Meet(p[2], null)] };
            case ShapeKind.Curve or ShapeKind.Polyline:
                return shape with { Points = [Meet(p[0], p[1]), .. p.Skip(1).SkipLast(1), Meet(p[^1], p[^2])] };
            case ShapeKind.Wave:
                var ends = Ends(p[0], p[1]);
                int dx = ends[0].X - p[0].X,
                    dy = ends[0].Y - p[0].Y;
                return shape with { Points = [.. ends, new Corner(p[2].X + dx, p[2].Y + dy)] };
            case ShapeKind.Rectangle or ShapeKind.Square when IsLevel(p):
                return Level(shape);
            case ShapeKind.Circle or ShapeKind.Ellipse or ShapeKind.Area:
                return shape;
            default:
                return ByOneCorner(shape);
        }
    }

    private Corner[] Ends(Corner a, Corner b)
    {
        var joined = new[] { Meet(a, b), Meet(b, a) };
        // Both ends at one place would be no line.
        return joined[0] == joined[1] ? [a, b] : joined;
    }

    /// <summary>Where an end goes.</summary>
    /// <param name="end">The end.</param>
    /// <param name="from">Where its line comes from, to go on in that direction; null to go the shortest way.</param>
    private Corner Meet(Corner end, Corner? from)
    {
        var at = ((double)end.X, (double)end.Y);
        if (Nearest(points, at) is { } point)
            return Corner.At(point.X, point.Y);
        (double X, double Y)? best = null;
        var least = tolerance;
        foreach (var (a, b) in sides)
        {
            if (
                from is { } back
                && Gesture.Meeting((back.X, back.Y), at, a, b) is { } meet
                && Gesture.ToSegment(meet, a, b) < 1
                && Gesture.Distance(meet, at) < least
            )
                (best, least) = (meet, Gesture.Distance(meet, at));
        }

        if (best is null)
        {
            foreach (var (a, b) in sides)
            {
                var on = On(at, a, b);
                if (Gesture.Distance(on, at) < least)
                    (best, least) = (on, Gesture.Distance(on, at));
            }
        }

        if (best is { } side)
            return Corner.At(side.X, side.Y);
        return Corner.At(Nearest(upright, end.X) ?? end.X, Nearest(level, end.Y) ?? end.Y);
    }

    private Shape Level(Shape shape)
    {
        var xs = shape.Points.Select(point => point.X).Distinct().Order().ToArray();
        var ys = shape.Points.Select(point => point.Y).Distinct().Order().ToArray();
        var joinX = Edges(
            xs,
            [.. points.Select(point => point.X), .. sides.Where(side => Math.Abs(side.A.X - side.B.X) < 1).Select(side => side.A.X)],
            upright
        );
        var joinY = Edges(
            ys,
            [.. points.Select(point => point.Y), .. sides.Where(side => Math.Abs(side.A.Y - side.B.Y) < 1).Select(side => side.A.Y)],
            level
        );
        if (joinX[0] == joinX[^1] || joinY[0] == joinY[^1])
            return shape;
        // A square stays one: it is moved to what is nearest, and keeps its side.
        if (shape.Kind == ShapeKind.Square)
            return shape.Map((x, y) => (x + Nearer(xs, joinX), y + Nearer(ys, joinY)));
        var corners = shape
            .Points.Select(point => new Corner(joinX[Array.IndexOf(xs, point.X)], joinY[Array.IndexOf(ys, point.Y)]))
            .ToArray();
        return new Shape(ShapeKind.Rectangle, corners);
    }

    /// <summary>The smaller of the moves that two edges wish for; 0 wishes nothing.</summary>
    private static int Nearer(int[] edges, int[] joined)
    {
        int one = joined[0] - edges[0],
            other = joined[^1] - edges[^1];
        return one == 0 ? other
            : other == 0 || Math.Abs(one) <= Math.Abs(other) ? one
            : other;
    }

    private int[] Edges(int[] edges, List<double> near, List<double> printed) =>
        [.. edges.Select(edge => (int)Math.Round(Nearest(near, edge) ?? Nearest(printed, edge) ?? edge))];

    private Shape ByOneCorner(Shape shape)
    {
        var best = shape
            .Points.Select(point => (Point: point, Met: Nearest(points, (point.X, point.Y))))
            .Where(one => one.Met is not null)
            .OrderBy(one => Gesture.Distance(one.Met!.Value, (one.Point.X, one.Point.Y)))
            .FirstOrDefault();
        if (best.Met is not { } met)
            return shape;
        double dx = met.X - best.Point.X,
            dy = met.Y - best.Point.Y;
        return shape.Map((x, y) => (x + dx, y + dy));
    }

    private void Take(Shape shape)
    {
        var p = shape.Points.Select(point => ((double)point.X, (double)point.Y)).ToArray();
        switch (shape.Kind)
        {
            case ShapeKind.Line or ShapeKind.Arrow or ShapeKind.DoubleArrow or ShapeKind.Wave:
                points.AddRange(p[..2]);
                sides.Add((p[0], p[1]));
                break;
            case ShapeKind.Arc:
                points.AddRange([p[0], p[2]]);
                Trace(shape);
                break;
            case ShapeKind.Curve:
                points.AddRange([p[0], p[^1]]);
                Trace(shape);
                break;
            case ShapeKind.Circle or ShapeKind.Ellipse:
                Trace(shape);
                break;
            default:
                points.AddRange(p);
                for (var i = 0; i + 1 < p.Length; i++)
                    sides.Add((p[i], p[i + 1]));
                if (shape.IsClosed)
                    sides.Add((p[^1], p[0]));
                break;
        }
    }

    /// <summary>A round line as the short straight pieces it is drawn by.</summary>
    private void Trace(Shape shape)
    {
        var samples = shape.Trace();
        for (var i = 0; i + 1 < samples.Count; i++)
            sides.Add(((samples.X[i], samples.Y[i]), (samples.X[i + 1], samples.Y[i + 1])));
    }

    /// <summary>The printed lines that run level or upright over a good part of the sheet.</summary>
    private void Take(Drawing drawing, Paper paper)
    {
        foreach (var piece in drawing.Pieces)
        {
            if (piece is not Piece.Line line)
                continue;
            float x = 0,
                y = 0;
            var at = 0;
            foreach (var step in line.Path.Steps)
            {
                var count = VectorPath.PointsOf(step) * 2;
                if (count == 0)
                    continue;
                float toX = line.Path.Points[at + count - 2],
                    toY = line.Path.Points[at + count - 1];
                if (step == VectorPath.Step.Line && Math.Abs(toY - y) < 1 && Math.Abs(toX - x) > paper.Width * 0.2f)
                    level.Add(y);
                if (step == VectorPath.Step.Line && Math.Abs(toX - x) < 1 && Math.Abs(toY - y) > paper.Height * 0.2f)
                    upright.Add(x);
                (x, y, at) = (toX, toY, at + count);
            }
        }
    }

    private static bool IsLevel(IReadOnlyList<Corner> p) =>
        p.Select(point => point.X).Distinct().Count() == 2 && p.Select(point => point.Y).Distinct().Count() == 2;

    private (double X, double Y)? Nearest(List<(double X, double Y)> all, (double X, double Y) at)
    {
        (double X, double Y)? best = null;
        var least = tolerance;
        foreach (var point in all)
        {
            if (Gesture.Distance(point, at) is var off && off <= least)
                (best, least) = (point, off);
        }

        return best;
    }

    private double? Nearest(List<double> all, double at)
    {
        double? best = null;
        var least = tolerance;
        foreach (var one in all)
        {
            if (Math.Abs(one - at) is var off && off <= least)
                (best, least) = (one, off);
        }

        return best;
    }

    private static (double X, double Y) On((double X, double Y) p, (double X, double Y) a, (double X, double Y) b)
    {
        double ux = b.X - a.X,
            uy = b.Y - a.Y,
            square = ux * ux + uy * uy,
            t = square == 0 ? 0 : Math.Clamp(((p.X - a.X) * ux + (p.Y - a.Y) * uy) / square, 0, 1);
        return (a.X + ux * t, a.Y + uy * t);
    }
}
