namespace CalmQuill.Core.Ink;

/// <summary>Fewer points for the same line: Ramer 1972, Douglas and Peucker 1973.</summary>
public static class LineSimplifier
{
    /// <summary>The indices of the points to keep, ascending, both ends included.</summary>
    /// <param name="line">At least one point.</param>
    /// <param name="tolerance">How far a dropped point may lie from the simplified line, 0.01 mm.</param>
    public static List<int> Keep(List<FlatPoint> line, double tolerance)
    {
        var keep = new List<int> { 0 };
        var open = new Stack<(int From, int To)>();
        if (line.Count > 1)
            open.Push((0, line.Count - 1));
        while (open.TryPop(out var part))
        {
            var (farthest, distance) = Farthest(line, part.From, part.To);
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

    private static (int Index, double Distance) Farthest(List<FlatPoint> line, int from, int to)
    {
        double ax = line[from].X,
            ay = line[from].Y,
            ux = line[to].X - ax,
            uy = line[to].Y - ay;
        var square = ux * ux + uy * uy;
        var (index, most) = (from, -1.0);
        for (var i = from + 1; i < to; i++)
        {
            double px = line[i].X - ax,
                py = line[i].Y - ay;
            var t = square == 0 ? 0 : Math.Clamp((px * ux + py * uy) / square, 0, 1);
            var distance = Math.Sqrt((px - t * ux) * (px - t * ux) + (py - t * uy) * (py - t * uy));
            if (distance > most)
                (index, most) = (i, distance);
        }

        return (index, most);
    }
}
