namespace CalmQuill.Core.Ink;

/// <summary>Fewer points for the same line: Ramer 1972, Douglas and Peucker 1973.</summary>
public static class LineSimplifier
{
    /// <summary>The indices of the samples from <paramref name="first"/> to <paramref name="last"/> to keep, ascending, both ends included.</summary>
    /// <param name="samples">The stroke.</param>
    /// <param name="first">Index of the first sample.</param>
    /// <param name="last">Index of the last sample, inclusive.</param>
    /// <param name="tolerance">How far a dropped sample may lie from the simplified line, 0.01 mm.</param>
    public static List<int> Keep(StrokeSamples samples, int first, int last, double tolerance)
    {
        var keep = new List<int> { first };
        var open = new Stack<(int From, int To)>();
        if (last > first)
            open.Push((first, last));
        while (open.TryPop(out var part))
        {
            var (farthest, distance) = Farthest(samples, part.From, part.To);
            if (distance > tolerance)
            {
                open.Push((farthest, part.To));
                open.Push((part.From, farthest));
            }
            else
                keep.Add(part.To);
        }

        return keep;
    }

    private static (int Index, double Distance) Farthest(StrokeSamples samples, int from, int to)
    {
        double ax = samples.X[from],
            ay = samples.Y[from],
            ux = samples.X[to] - ax,
            uy = samples.Y[to] - ay;
        var square = ux * ux + uy * uy;
        var (index, most) = (from, -1.0);
        for (var i = from + 1; i < to; i++)
        {
            double px = samples.X[i] - ax,
                py = samples.Y[i] - ay;
            var t = square == 0 ? 0 : Math.Clamp((px * ux + py * uy) / square, 0, 1);
            var distance = Math.Sqrt((px - t * ux) * (px - t * ux) + (py - t * uy) * (py - t * uy));
            if (distance > most)
                (index, most) = (i, distance);
        }

        return (index, most);
    }
}
