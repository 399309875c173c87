namespace CalmQuill.Core.Ink;

/// <summary>A closed polygon as corners x, y, x, y…; the last is joined to the first.</summary>
public static class Loop
{
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

    /// <summary>How far a point lies from the polygon's edge, inside or outside.</summary>
    public static double Distance(ReadOnlySpan<double> loop, double x, double y)
    {
        var least = double.MaxValue;
        for (int i = 0, j = loop.Length - 2; i < loop.Length; j = i, i += 2)
        {
            double ux = loop[i] - loop[j],
                uy = loop[i + 1] - loop[j + 1],
                square = ux * ux + uy * uy,
                t = square == 0 ? 0 : Math.Clamp(((x - loop[j]) * ux + (y - loop[j + 1]) * uy) / square, 0, 1),
                dx = x - loop[j] - t * ux,
                dy = y - loop[j + 1] - t * uy;
            least = Math.Min(least, Math.Sqrt(dx * dx + dy * dy));
        }

        return least;
    }

    /// <summary>Where a piece of a line, a + t·u, crosses the polygon's edges between two values of t, with both of those, ascending.</summary>
    public static void Cut(ReadOnlySpan<double> loop, double ax, double ay, double ux, double uy, double from, double to, List<double> cuts)
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
