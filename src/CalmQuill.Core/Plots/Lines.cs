namespace CalmQuill.Core.Plots;

/// <summary>Lines as regions to be filled, and what of them lies in a frame. Corners are doubled, as an outline has them.</summary>
internal static class Lines
{
    /// <summary>So far a corner may stick out, in widths.</summary>
    private const double MostMitre = 3;

    /// <summary>A line of a width.</summary>
    public static (double X, double Y)[] Band(IReadOnlyList<(double X, double Y)> line, double width)
    {
        var ring = new (double, double)[line.Count * 4];
        for (var i = 0; i < line.Count; i++)
        {
            var (bx, by) = Normal(line, Math.Max(0, i - 1));
            var (nx, ny) = Normal(line, Math.Min(line.Count - 2, i));
            double x = bx + nx,
                y = by + ny,
                square = x * x + y * y;
            // Both sides meet on the halving of the corner; where it goes straight back there is none.
            var (ox, oy) = square < 1e-9 ? (nx, ny) : (x * Math.Min(2 / square, MostMitre / 2), y * Math.Min(2 / square, MostMitre / 2));
            (ox, oy) = (ox * width / 2, oy * width / 2);
            ring[2 * i] = ring[2 * i + 1] = (line[i].X + ox, line[i].Y + oy);
            ring[^(2 * i + 1)] = ring[^(2 * i + 2)] = (line[i].X - ox, line[i].Y - oy);
        }

        return ring;
    }

    /// <summary>A disc; its ring is smooth as it is.</summary>
    public static (double X, double Y)[] Disc(double x, double y, double radius)
    {
        const int corners = 10;
        // The midpoints of the corners lie on the circle.
        var reach = radius / Math.Cos(Math.PI / corners);
        return
        [
            .. Enumerable
                .Range(0, corners)
                .Select(i => (x + reach * Math.Cos(i * Math.Tau / corners), y + reach * Math.Sin(i * Math.Tau / corners))),
        ];
    }

    /// <summary>What of a line lies in a frame (after Liang and Barsky, 1984).</summary>
    public static IEnumerable<List<(double X, double Y)>> Within(
        IReadOnlyList<(double X, double Y)> line,
        (double Left, double Top, double Right, double Bottom) frame
    )
    {
        var part = new List<(double X, double Y)>();
        for (var i = 0; i + 1 < line.Count; i++)
        {
            var ((x0, y0), (x1, y1)) = (line[i], line[i + 1]);
            double from = 0,
                to = 1;
            var isIn =
                Cut(x0 - x1, x0 - frame.Left, ref from, ref to)
                && Cut(x1 - x0, frame.Right - x0, ref from, ref to)
                && Cut(y0 - y1, y0 - frame.Top, ref from, ref to)
                && Cut(y1 - y0, frame.Bottom - y0, ref from, ref to);
            if (!isIn || from > 0)
            {
                if (part.Count > 1)
                    yield return part;
                part = [];
            }

            if (!isIn)
                continue;
            if (part.Count == 0)
                part.Add((x0 + (x1 - x0) * from, y0 + (y1 - y0) * from));
            part.Add((x0 + (x1 - x0) * to, y0 + (y1 - y0) * to));
            if (to >= 1)
                continue;
            yield return part;
            part = [];
        }

        if (part.Count > 1)
            yield return part;
    }

    /// <summary>Narrows what of a piece lies on the inner side of an edge; false where nothing does.</summary>
    private static bool Cut(double towards, double room, ref double from, ref double to)
    {
        if (towards == 0)
            return room >= 0;
        var at = room / towards;
        if (towards < 0)
            from = Math.Max(from, at);
        else
            to = Math.Min(to, at);
        return from < to;
    }

    private static (double X, double Y) Normal(IReadOnlyList<(double X, double Y)> line, int at)
    {
        var ((x0, y0), (x1, y1)) = (line[at], line[at + 1]);
        double dx = x1 - x0,
            dy = y1 - y0,
            length = Math.Sqrt(dx * dx + dy * dy);
        return length < 1e-12 ? (0, 1) : (-dy / length, dx / length);
    }
}
