using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Changing;

/// <summary>Scratching out: a tight zig-zag over ink erases what it covers.</summary>
/// <remarks>
/// A stroke is a scratch when it turns back sharply (by more than 120°) at least <see cref="LeastTurns"/> times, its way is at least
/// <see cref="LeastWays"/> times the longer side of its box, and it lies on ink of which it covers enough. Handwriting turns back too, but moves on
/// between the turns, so its way is short for its box, and it lies on bare paper.
/// </remarks>
public static class Scratch
{
    private const int LeastTurns = 5;
    private const double LeastWays = 3.2;

    /// <summary>A thing goes when the scratch's hull covers at least this share of it.</summary>
    private const double Covered = 0.6;

    /// <summary>What a stroke scratches out; empty when it is no scratch.</summary>
    public static List<PageItem> Of(StrokeSamples stroke, PageDocument page, ItemFilter filter)
    {
        if (!LooksLikeOne(stroke))
            return [];
        var hull = Hull(stroke);
        return Selecting
            .Inside(page, hull, Covered, filter with { Kinds = filter.Kinds & ~Items.ItemKinds.Area })
            .FindAll(item => item.IsOpen);
    }

    public static bool LooksLikeOne(StrokeSamples stroke)
    {
        var box = stroke.Bounds();
        double size = Math.Max(box.Right - box.Left, box.Bottom - box.Top),
            way = 0;
        if (size < 200)
            return false;
        var corners = LineSimplifier.Keep(stroke, 0, stroke.Count - 1, Math.Max(20, size * 0.06));
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
