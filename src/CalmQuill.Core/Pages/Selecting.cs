using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;

namespace CalmQuill.Core.Pages;

/// <summary>What a loop or a box takes: the items of which enough lies inside.</summary>
public static class Selecting
{
    /// <summary>How much of an item must lie inside, unless the person sets it otherwise.</summary>
    public const double UsualShare = 0.5;

    /// <summary>The items of which at least a share of the visible length lies inside a closed polygon (even-odd), in painting order.</summary>
    /// <param name="page">The page.</param>
    /// <param name="loop">Corners as x, y, x, y… in 0.01 mm; the last is joined to the first.</param>
    /// <param name="share">The least share, 0 to 1.</param>
    /// <param name="filter">What may be taken. What is locked in place is taken only when there is nothing else.</param>
    /// <remarks>Of a group all is taken as soon as one of it is.</remarks>
    public static List<PageItem> Inside(PageDocument page, ReadOnlySpan<double> loop, double share, ItemFilter filter)
    {
        var open = Inside(page, loop, share, filter.Takes);
        return WithGroups(page, open.Count > 0 ? open : Inside(page, loop, share, filter.TakesLocked));
    }

    public static List<PageItem> Inside(PageDocument page, ReadOnlySpan<double> loop, double share) =>
        Inside(page, loop, share, ItemFilter.All);

    /// <summary>All that may be changed and of which something is left to be seen, in painting order.</summary>
    public static IEnumerable<PageItem> All(PageDocument page, ItemFilter filter) =>
        page.Items.Where(item => filter.Takes(item) && item.Visible().Count > 0);

    /// <summary>The foremost thing at a spot that may be changed, with its group; none where there is nothing within reach.</summary>
    /// <param name="page">The page.</param>
    /// <param name="x">The spot, 0.01 mm.</param>
    /// <param name="y">The spot, 0.01 mm.</param>
    /// <param name="reach">How far from its line a press still is one on it, 0.01 mm.</param>
    /// <param name="filter">What may be taken.</param>
    public static List<PageItem> At(PageDocument page, double x, double y, double reach, ItemFilter filter) =>
        At(page, x, y, reach, filter.Takes);

    /// <summary>The same of what is locked in place: a press that is held asks for it, so that it can be unlocked.</summary>
    public static List<PageItem> LockedAt(PageDocument page, double x, double y, double reach, ItemFilter filter) =>
        At(page, x, y, reach, filter.TakesLocked);

    private static List<PageItem> At(PageDocument page, double x, double y, double reach, Func<PageItem, bool> takes)
    {
        var area = new Box((int)(x - reach), (int)(y - reach), (int)(x + reach), (int)(y + reach));
        var touched = new List<Interval>();
        for (var i = page.Items.Count - 1; i >= 0; i--)
        {
            var item = page.Items[i];
            if (!item.Bounds.Meets(area) || !takes(item))
                continue;
            touched.Clear();
            if (item.Kind != ItemKinds.Area)
                Eraser.Touch(item.Samples, item.Pen, x - item.Dx, y - item.Dy, reach, touched);
            var visible = item.Visible();
            if (
                touched.Exists(one => visible.Exists(part => part.Start <= one.End && one.Start <= part.End))
                || ((item.Fill & 0xFF) != 0 && HoldsSpot(item, x, y))
            )
                return WithGroups(page, [item]);
        }

        return [];
    }

    /// <summary>Whether a spot lies within an item's closed line.</summary>
    public static bool HoldsSpot(PageItem item, double x, double y)
    {
        var samples = item.Samples;
        var loop = new double[samples.Count * 2];
        for (var i = 0; i < samples.Count; i++)
            (loop[2 * i], loop[2 * i + 1]) = (samples.X[i] + item.Dx, samples.Y[i] + item.Dy);
        return Holds(loop, x, y);
    }

    private static List<PageItem> WithGroups(PageDocument page, List<PageItem> found)
    {
        var groups = found.Select(item => item.Group).Where(group => group.Length > 0).ToHashSet();
        if (groups.Count == 0)
            return found;
        var taken = found.Select(item => item.Id).ToHashSet();
        return [.. page.Items.Where(item => item.Shown && (taken.Contains(item.Id) || groups.Contains(item.Group)))];
    }

    private static List<PageItem> Inside(PageDocument page, ReadOnlySpan<double> loop, double share, Func<PageItem, bool> takes)
    {
        var found = new List<PageItem>();
        if (loop.Length < 6)
            return found;
        double left = double.MaxValue,
            top = double.MaxValue,
            right = double.MinValue,
            bottom = double.MinValue;
        for (var i = 0; i < loop.Length; i += 2)
        {
            (left, right) = (Math.Min(left, loop[i]), Math.Max(right, loop[i]));
            (top, bottom) = (Math.Min(top, loop[i + 1]), Math.Max(bottom, loop[i + 1]));
        }

        var area = new Box((int)Math.Floor(left), (int)Math.Floor(top), (int)Math.Ceiling(right), (int)Math.Ceiling(bottom));
        foreach (var item in page.Items)
        {
            if (item.Bounds.Meets(area) && takes(item) && ShareInside(item, loop) >= Math.Max(share, 1e-9))
                found.Add(item);
        }

        return found;
    }

    /// <summary>Which share of an item's visible length lies inside the polygon; exact but for rounding.</summary>
    public static double ShareInside(PageItem item, ReadOnlySpan<double> loop)
    {
        var samples = item.Samples;
        double inside = 0,
            whole = 0;
        var cuts = new List<double>();
        foreach (var interval in item.Visible())
        {
            if (interval.Start == interval.End)
                return Holds(
                    loop,
                    samples.X[interval.Start / Interval.PerSample] + item.Dx,
                    samples.Y[interval.Start / Interval.PerSample] + item.Dy
                )
                    ? 1
                    : 0;
            for (var i = interval.Start / Interval.PerSample; i * Interval.PerSample < interval.End && i + 1 < samples.Count; i++)
            {
                var from = Math.Max(0, (interval.Start - i * Interval.PerSample) / (double)Interval.PerSample);
                var to = Math.Min(1, (interval.End - i * Interval.PerSample) / (double)Interval.PerSample);
                double ax = samples.X[i] + item.Dx,
                    ay = samples.Y[i] + item.Dy,
                    ux = samples.X[i + 1] + item.Dx - ax,
                    uy = samples.Y[i + 1] + item.Dy - ay;
                var length = Math.Sqrt(ux * ux + uy * uy);
                whole += length * (to - from);
                Cut(loop, ax, ay, ux, uy, from, to, cuts);
                for (var c = 0; c + 1 < cuts.Count; c++)
                {
                    var middle = (cuts[c] + cuts[c + 1]) / 2;
                    if (Holds(loop, ax + ux * middle, ay + uy * middle))
                        inside += length * (cuts[c + 1] - cuts[c]);
                }
            }
        }

        if (whole > 0)
            return inside / whole;
        return Holds(loop, samples.X[0] + item.Dx, samples.Y[0] + item.Dy) ? 1 : 0;
    }

    /// <summary>Whether a point lies inside, by the even-odd rule (crossings of a ray to the right).</summary>
    public static bool Holds(ReadOnlySpan<double> loop, double x, double y)
    {
        var holds = false;
        for (int i = 0, j = loop.Length - 2; i < loop.Length; j = i, i += 2)
        {
            if (loop[i + 1] > y != loop[j + 1] > y && x < (loop[j] - loop[i]) * (y - loop[i + 1]) / (loop[j + 1] - loop[i + 1]) + loop[i])
                holds = !holds;
        }

        return holds;
    }

    /// <summary>Where a piece of a line crosses the polygon's edges, with its own ends, ascending.</summary>
    private static void Cut(
        ReadOnlySpan<double> loop,
        double ax,
        double ay,
        double ux,
        double uy,
        double from,
        double to,
        List<double> cuts
    )
    {
        cuts.Clear();
        cuts.Add(from);
        for (int i = 0, j = loop.Length - 2; i < loop.Length; j = i, i += 2)
        {
            double vx = loop[i] - loop[j],
                vy = loop[i + 1] - loop[j + 1],
                cross = ux * vy - uy * vx;
            if (Math.Abs(cross) < 1e-12)
                continue;
            double t = ((loop[j] - ax) * vy - (loop[j + 1] - ay) * vx) / cross,
                s = ((loop[j] - ax) * uy - (loop[j + 1] - ay) * ux) / cross;
            if (t > from && t < to && s is >= 0 and <= 1)
                cuts.Add(t);
        }

        cuts.Add(to);
        cuts.Sort();
    }
}
