using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>Scratching out: a tight zig-zag over ink erases what it covers.</summary>
/// <remarks>
/// A stroke is a scratch when it turns back sharply (by more than 120°) at least <see cref="LeastTurns"/> times, its way is at least
/// <see cref="LeastWays"/> times the longer side of its box, and it lies on ink: many of its ways there and back run over or close by what it covers, which reaches over most of it. Handwriting turns back
/// too, but moves on between the turns, so its way is short for its box, and it lies on bare paper, or beside a dot or a dash, or on a highlight, of which it takes nothing.
/// </remarks>
public static class Scratch
{
    private const int LeastTurns = 5;
    private const double LeastWays = 3.2;

    /// <summary>A thing goes when the scratch's hull covers at least this share of it.</summary>
    private const double Covered = 0.6;

    /// <summary>So many of its ways must have ink under them, and from its first to its last the ink must reach over so much of the scratch: letters stand apart, a dash is short.</summary>
    private const double Inked = 0.35,
        Reached = 0.6;

    /// <summary>Ink that crosses a way is under it, also when it ends so far short of it, 0.01 mm.</summary>
    private const double Short = 30;

    /// <summary>Ink that runs along a way, by this cosine, is under it when it is within this share of the scratch's shorter side.</summary>
    private const double Along = 0.87,
        Beside = 0.3;

    /// <summary>What a stroke scratches out; empty when it is no scratch.</summary>
    public static List<PageItem> Of(StrokeSamples stroke, PageDocument page, ItemFilter filter)
    {
        if (!LooksLikeOne(stroke))
            return [];
        var hull = Hull(stroke);
        // Of a group only what is covered itself, and of all things only lines: one does not mean a picture by scratching on it.
        var covered = Selecting
            .Inside(page, hull, Covered, filter with { Kinds = filter.Kinds & ~ItemKinds.Area })
            .FindAll(item => item.IsOpen && item.Content is LineContent line && line.ShareInside(hull) >= Covered);
        // A highlight is the ground one writes on; it goes with the words, never alone.
        return IsOnInk(stroke, covered.FindAll(item => item.Content is LineContent { Pen.LiesBehind: false })) ? covered : [];
    }

    /// <summary>Whether most of a scratch's ways have ink under them.</summary>
    private static bool IsOnInk(StrokeSamples stroke, List<PageItem> ink)
    {
        if (ink.Count == 0)
            return false;
        var corners = Corners(stroke);
        var box = stroke.Bounds();
        var beside = Math.Max(Short, Math.Min(box.Right - box.Left, box.Bottom - box.Top) * Beside);
        var inked = 0;
        for (var i = 1; i < corners.Count; i++)
        {
            (double X, double Y) from = (stroke.X[corners[i - 1]], stroke.Y[corners[i - 1]]),
                to = (stroke.X[corners[i]], stroke.Y[corners[i]]);
            var area = new Box(
                (int)(Math.Min(from.X, to.X) - beside),
                (int)(Math.Min(from.Y, to.Y) - beside),
                (int)(Math.Max(from.X, to.X) + beside),
                (int)(Math.Max(from.Y, to.Y) + beside)
            );
            if (ink.Exists(item => item.Bounds.Meets(area) && Passes(item, from, to, beside)))
                inked++;
        }

        var all = ink.Select(item => item.Bounds).Aggregate((one, other) => one.With(other));
        var reached =
            box.Right - box.Left > box.Bottom - box.Top
                ? (Math.Min(all.Right, box.Right) - Math.Max(all.Left, box.Left)) / (double)(box.Right - box.Left)
                : (Math.Min(all.Bottom, box.Bottom) - Math.Max(all.Top, box.Top)) / (double)(box.Bottom - box.Top);
        return inked >= (corners.Count - 1) * Inked && reached >= Reached;
    }

    /// <summary>Whether a visible part of an item's line crosses a straight way, or runs along and beside it.</summary>
    private static bool Passes(PageItem item, (double X, double Y) from, (double X, double Y) to, double beside)
    {
        var samples = ((LineContent)item.Content).Samples;
        foreach (var part in item.Visible())
        {
            var line = FlatLine.Of(samples, part);
            for (var i = 0; i < line.Count; i++)
            {
                (double X, double Y) here = (line[i].X + item.Dx, line[i].Y + item.Dy),
                    next = i + 1 < line.Count ? (line[i + 1].X + item.Dx, line[i + 1].Y + item.Dy) : here;
                var apart = Apart(from, to, here);
                if (apart <= Short || Crosses(from, to, here, next) || (apart <= beside && RunsAlong(from, to, here, next)))
                    return true;
            }
        }

        return false;
    }

    private static bool RunsAlong((double X, double Y) a, (double X, double Y) b, (double X, double Y) c, (double X, double Y) d)
    {
        double ux = b.X - a.X,
            uy = b.Y - a.Y,
            vx = d.X - c.X,
            vy = d.Y - c.Y,
            both = Math.Sqrt((ux * ux + uy * uy) * (vx * vx + vy * vy));
        return both > 0 && Math.Abs(ux * vx + uy * vy) >= both * Along;
    }

    private static double Apart((double X, double Y) from, (double X, double Y) to, (double X, double Y) at)
    {
        double ux = to.X - from.X,
            uy = to.Y - from.Y,
            along = Math.Clamp(((at.X - from.X) * ux + (at.Y - from.Y) * uy) / Math.Max(ux * ux + uy * uy, 1e-9), 0, 1),
            dx = at.X - from.X - along * ux,
            dy = at.Y - from.Y - along * uy;
        return Math.Sqrt(dx * dx + dy * dy);
    }

    private static bool Crosses((double X, double Y) a, (double X, double Y) b, (double X, double Y) c, (double X, double Y) d) =>
        Cross(a, b, c) * Cross(a, b, d) < 0 && Cross(c, d, a) * Cross(c, d, b) < 0;

    private static List<int> Corners(StrokeSamples stroke)
    {
        var box = stroke.Bounds();
        double wide = box.Right - box.Left,
            high = box.Bottom - box.Top;
        // A long flat zig-zag turns within its lesser side.
        return LineSimplifier.Keep(
            [.. stroke.X.Select((x, i) => new FlatPoint(i, x, stroke.Y[i]))],
            Math.Max(20, Math.Min(Math.Max(wide, high) * 0.06, Math.Min(wide, high) * 0.25))
        );
    }

    public static bool LooksLikeOne(StrokeSamples stroke)
    {
        var box = stroke.Bounds();
        double size = Math.Max(box.Right - box.Left, box.Bottom - box.Top),
            way = 0;
        if (size < 200)
            return false;
        var corners = Corners(stroke);
        var turns = 0;
        for (var i = 1; i < corners.Count; i++)
        {
            double dx = stroke.X[corners[i]] - stroke.X[corners[i - 1]],
                dy = stroke.Y[corners[i]] - stroke.Y[corners[i - 1]];
            way += Math.Sqrt(dx * dx + dy * dy);
            if (i + 1 >= corners.Count)
                break;
            double ex = stroke.X[corners[i + 1]] - stroke.X[corners[i]],
                ey = stroke.Y[corners[i + 1]] - stroke.Y[corners[i]];
            var cos = (dx * ex + dy * ey) / Math.Max(Math.Sqrt((dx * dx + dy * dy) * (ex * ex + ey * ey)), 1e-9);
            if (cos < -0.5)
                turns++;
        }

        return turns >= LeastTurns && way > size * LeastWays;
    }

    /// <summary>The convex hull of a stroke as a loop of x, y pairs, by Andrew's monotone chain (1979).</summary>
    private static double[] Hull(StrokeSamples stroke)
    {
        var points = Enumerable
            .Range(0, stroke.Count)
            .Select(i => (X: (double)stroke.X[i], Y: (double)stroke.Y[i]))
            .Distinct()
            .Order()
            .ToList();
        if (points.Count < 3)
            return [];
        var hull = new List<(double X, double Y)>();
        foreach (var pass in new[] { points, Enumerable.Reverse(points).ToList() })
        {
            var start = hull.Count;
            foreach (var point in pass)
            {
                while (hull.Count >= start + 2 && Cross(hull[^2], hull[^1], point) <= 0)
                    hull.RemoveAt(hull.Count - 1);
                hull.Add(point);
            }

            hull.RemoveAt(hull.Count - 1);
        }

        return [.. hull.SelectMany(point => new[] { point.X, point.Y })];
    }

    private static double Cross((double X, double Y) o, (double X, double Y) a, (double X, double Y) b) =>
        (a.X - o.X) * (b.Y - o.Y) - (a.Y - o.Y) * (b.X - o.X);
}
