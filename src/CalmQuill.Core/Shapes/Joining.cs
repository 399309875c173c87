using CalmQuill.Core.Art;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Core.Shapes;

/// <summary>What of a paper's printed lines ends are joined to.</summary>
public enum JoinPrinted : byte
{
    Never,

    /// <summary>The ends of level and upright lines; a slanted line is left alone.</summary>
    Straight,

    /// <summary>The ends of every line, and the sides of level boxes.</summary>
    All,
}

/// <summary>Join ends: the ends of a shape meet what they nearly touch, so that tables and diagrams close.</summary>
/// <remarks>
/// Direction first, then length: a shape with corners and a straight line are moved whole until one end meets an end or a corner; the line's other end then goes on or back in
/// its own direction until it meets a side, stands across from an end it is linked with, or meets a printed line. No angle is turned and no side made longer than another it was
/// equal to, but for one case: a line that was tidied, has come to rest at no direction and has both its ends by ends is drawn from the one to the other.
/// </remarks>
public sealed class Joining
{
    /// <summary>A printed line attracts from no farther than this, 0.01 mm.</summary>
    private const double PrintedWithin = 100;

    /// <summary>Coordinates are whole; what lies no farther off is the same.</summary>
    private const double Same = 1.5;

    /// <summary>An end that lies so near a line lies on it: as far as whole coordinates lead a slanted line astray over a sheet.</summary>
    private const double OnLine = 4;

    /// <summary>How many lines linked end to end are followed from an end.</summary>
    private const int Linked = 3;

    private readonly double tolerance;
    private readonly JoinPrinted printed;
    private readonly List<(double X, double Y)> points = [];
    private readonly List<((double X, double Y) A, (double X, double Y) B)> sides = [];
    private readonly List<((double X, double Y) A, (double X, double Y) B)> lines = [];
    private readonly List<double> level = [],
        upright = [];

    /// <param name="page">The page.</param>
    /// <param name="without">What is being joined itself, and what it takes the place of.</param>
    /// <param name="paper">The paper, for its lines; null for none.</param>
    /// <param name="tolerance">How near is nearly, 0.01 mm.</param>
    /// <param name="printed">What is joined to the paper's lines.</param>
    public Joining(
        PageDocument page,
        IReadOnlySet<OpId> without,
        Paper? paper,
        double tolerance,
        JoinPrinted printed = JoinPrinted.Straight
    )
    {
        this.tolerance = tolerance;
        this.printed = printed;
        foreach (var item in page.Items)
        {
            if (!item.Shown || without.Contains(item.Id) || item.Kind is not (Items.ItemKinds.Ink or Items.ItemKinds.Shape))
                continue;
            if (item.Content is Items.ShapeContent { PlacedShape: { } shape })
                Take(shape);
            else if (item.Content is Items.LineContent { Samples: { Count: > 1 } samples })
            {
                points.Add((samples.X[0] + item.Dx, samples.Y[0] + item.Dy));
                points.Add((samples.X[^1] + item.Dx, samples.Y[^1] + item.Dy));
            }
        }

        if (paper is not null && printed != JoinPrinted.Never)
            Take(paper.Draw(paper.Sheet(null)), paper);
    }

    /// <summary>The shape joined to what it nearly touches.</summary>
    /// <param name="shape">The shape.</param>
    /// <param name="tidied">Whether it was rough: then a line at no resting direction may be turned a little to meet two ends.</param>
    public Shape Join(Shape shape, bool tidied = false)
    {
        var p = shape.Points;
        switch (shape.Kind)
        {
            case ShapeKind.Line or ShapeKind.Arrow or ShapeKind.DoubleArrow:
                return shape with { Points = Ends(p[0], p[1], tidied) };
            case ShapeKind.Arc:
                return shape with { Points = [Meet(p[0]), p[1], Meet(p[2])] };
            case ShapeKind.Curve:
                return shape with { Points = [Meet(p[0]), .. p.Skip(1).SkipLast(1), Meet(p[^1])] };
            case ShapeKind.Polyline:
                return Broken(shape);
            case ShapeKind.Wave:
                var ends = Ends(p[0], p[1], tidied);
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

    /// <summary>A shape one of whose handles was dragged: what the hand moved meets what it nearly touches, whichever way; the rest stays.</summary>
    public Shape JoinDragged(Shape shape, int handle)
    {
        var p = shape.Points.ToArray();
        var isEnd = shape.Kind switch
        {
            ShapeKind.Line or ShapeKind.Arrow or ShapeKind.DoubleArrow => true,
            ShapeKind.Arc => handle != 1,
            ShapeKind.Curve or ShapeKind.Polyline => handle == 0 || handle == p.Length - 1,
            _ => false,
        };
        if (!isEnd || handle < 0 || handle >= p.Length)
            return shape;
        var met = Meet(p[handle]);
        if (p.Length == 2 && met == p[1 - handle])
            return shape;
        p[handle] = met;
        return shape with { Points = p };
    }

    private Corner[] Ends(Corner a, Corner b, bool tidied)
    {
        (double X, double Y) from = (a.X, a.Y),
            to = (b.X, b.Y);
        var length = Gesture.Distance(from, to);
        if (length < 1)
            return [a, b];
        (double X, double Y) way = ((to.X - from.X) / length, (to.Y - from.Y) / length);
        var (one, other) = (Nearest(points, from), Nearest(points, to));
        if (one is { } first && other is { } second && Gesture.Distance(first, second) > Same)
        {
            var turned = Math.Abs(Gesture.SignedTurn((0, 0), way, (way.X + second.X - first.X, way.Y + second.Y - first.Y)));
            if (turned * length < Same || (tidied && !IsResting(way, length)))
                return [Corner.At(first.X, first.Y), Corner.At(second.X, second.Y)];
        }

        // By the end that is nearer to what it meets; the line comes along as it is.
        var byFirst = one is not null && (other is null || Gesture.Distance(one.Value, from) <= Gesture.Distance(other.Value, to));
        var anchor = byFirst ? one : other;
        if (anchor is { } met)
        {
            double dx = met.X - (byFirst ? from : to).X,
                dy = met.Y - (byFirst ? from : to).Y;
            (from, to) = ((from.X + dx, from.Y + dy), (to.X + dx, to.Y + dy));
            var linked = LinkedWith(met);
            if (byFirst)
                to = Along(to, way, linked);
            else
                from = Along(from, way, linked);
        }
        else
            (from, to) = (Along(from, way, []), Along(to, way, []));

        // Both ends at one place, or past each other, would be no such line.
        var kept = (to.X - from.X) * way.X + (to.Y - from.Y) * way.Y;
        return kept < 1 ? [a, b] : [Corner.At(from.X, from.Y), Corner.At(to.X, to.Y)];
    }

    /// <summary>Where an end comes to in its line's own direction.</summary>
    /// <param name="end">The end.</param>
    /// <param name="way">The line's direction, of length 1.</param>
    /// <param name="across">Ends it is linked with, across from which it may stand.</param>
    private (double X, double Y) Along((double X, double Y) end, (double X, double Y) way, List<(double X, double Y)> across)
    {
        double? best = null;
        double Off((double X, double Y) p) => (p.X - end.X) * way.X + (p.Y - end.Y) * way.Y;
        void Offer(double off, double within)
        {
            if (Math.Abs(off) <= within && (best is null || Math.Abs(off) < Math.Abs(best.Value)))
                best = off;
        }

        // Ends that lie on the line itself, then sides.
        (double X, double Y)? on = null;
        foreach (var point in points)
        {
            var off = Off(point);
            if (Gesture.Distance(point, (end.X + way.X * off, end.Y + way.Y * off)) > OnLine)
                continue;
            Offer(off, tolerance);
            if (best == off)
                on = point;
        }

        if (on is { } there)
            return there;

        (double X, double Y) beyond = (end.X + way.X * 1000, end.Y + way.Y * 1000);
        foreach (var (a, b) in sides)
        {
            if (Gesture.Meeting(end, beyond, a, b) is { } meet && Gesture.ToSegment(meet, a, b) < 1)
                Offer(Off(meet), tolerance);
        }

        if (best is null)
        {
            foreach (var point in across)
                Offer(Off(point), tolerance);
        }

        if (best is null && (printed == JoinPrinted.All || Math.Abs(way.X) < 1e-3 || Math.Abs(way.Y) < 1e-3))
        {
            var within = Math.Min(tolerance, PrintedWithin);
            foreach (var y in Math.Abs(way.Y) < 0.2 ? [] : level)
                Offer((y - end.Y) / way.Y, within);
            foreach (var x in Math.Abs(way.X) < 0.2 ? [] : upright)
                Offer((x - end.X) / way.X, within);
        }

        return best is { } by ? (end.X + way.X * by, end.Y + way.Y * by) : end;
    }

    /// <summary>Whether a direction is a multiple of 15°, as near as whole coordinates show.</summary>
    private static bool IsResting((double X, double Y) way, double length)
    {
        const double rest = Math.PI / 12;
        var direction = Math.Atan2(way.Y, way.X);
        return Math.Abs(direction - Math.Round(direction / rest) * rest) * length < Same;
    }

    /// <summary>The far ends of the lines that hang together with an end, one after the other.</summary>
    private List<(double X, double Y)> LinkedWith((double X, double Y) end)
    {
        var found = new List<(double X, double Y)> { end };
        for (int from = 0, round = 0; round < Linked; round++)
        {
            var until = found.Count;
            for (; from < until; from++)
            {
                foreach (var (a, b) in lines)
                {
                    (double X, double Y)? far =
                        Gesture.Distance(a, found[from]) <= Same ? b
                        : Gesture.Distance(b, found[from]) <= Same ? a
                        : null;
                    if (far is { } one && !found.Exists(known => Gesture.Distance(known, one) <= Same))
                        found.Add(one);
                }
            }
        }

        return found[1..];
    }

    /// <summary>A line with corners comes whole, by the end that is nearer to an end; its ends go on along their own sides.</summary>
    private Shape Broken(Shape shape)
    {
        var p = shape.Points.Select(point => ((double X, double Y))(point.X, point.Y)).ToArray();
        var (one, other) = (Nearest(points, p[0]), Nearest(points, p[^1]));
        var byFirst = one is not null && (other is null || Gesture.Distance(one.Value, p[0]) <= Gesture.Distance(other.Value, p[^1]));
        if ((byFirst ? one : other) is { } met)
        {
            double dx = met.X - (byFirst ? p[0] : p[^1]).X,
                dy = met.Y - (byFirst ? p[0] : p[^1]).Y;
            for (var i = 0; i < p.Length; i++)
                p[i] = (p[i].X + dx, p[i].Y + dy);
            if (byFirst)
                p[^1] = AlongSide(p[^2], p[^1]);
            else
                p[0] = AlongSide(p[1], p[0]);
        }
        else
            (p[0], p[^1]) = (AlongSide(p[1], p[0]), AlongSide(p[^2], p[^1]));

        return shape with
        {
            Points = [.. p.Select(point => Corner.At(point.X, point.Y))],
        };
    }

    private (double X, double Y) AlongSide((double X, double Y) from, (double X, double Y) end)
    {
        var length = Gesture.Distance(from, end);
        return length <= tolerance ? end : Along(end, ((end.X - from.X) / length, (end.Y - from.Y) / length), []);
    }

    /// <summary>Where an end goes that has no direction to keep: to an end, else to a side by the shortest way.</summary>
    private Corner Meet(Corner end)
    {
        var at = ((double)end.X, (double)end.Y);
        if (Nearest(points, at) is { } point)
            return Corner.At(point.X, point.Y);
        (double X, double Y)? best = null;
        var least = tolerance;
        foreach (var (a, b) in sides)
        {
            var on = On(at, a, b);
            if (Gesture.Distance(on, at) < least)
                (best, least) = (on, Gesture.Distance(on, at));
        }

        return best is { } side ? Corner.At(side.X, side.Y) : end;
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
        // What is square stays so: it is moved to what is nearest, and keeps its side.
        if (shape.Kind == ShapeKind.Square || xs[^1] - xs[0] == ys[^1] - ys[0])
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

    private int[] Edges(int[] edges, List<double> near, List<double> ruled) =>
        [
            .. edges.Select(edge =>
                (int)
                    Math.Round(
                        Nearest(near, edge, tolerance)
                            ?? (printed == JoinPrinted.All ? Nearest(ruled, edge, Math.Min(tolerance, PrintedWithin)) : null)
                            ?? edge
                    )
            ),
        ];

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
                lines.Add((p[0], p[1]));
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

    private static double? Nearest(List<double> all, double at, double within)
    {
        double? best = null;
        var least = within;
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
