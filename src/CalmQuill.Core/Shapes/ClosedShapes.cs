namespace CalmQuill.Core.Shapes;

/// <summary>What closes: circles, ellipses and all that has corners.</summary>
internal static class ClosedShapes
{
    private const double Degrees = Math.PI / 180;

    /// <summary>An ellipse is chosen unless a polygon fits so much better.</summary>
    private const double PolygonWins = 0.8;

    /// <summary>Axes or sides whose ratio is at least this are taken as equal.</summary>
    private const double RoundFrom = 0.86,
        EqualFrom = 0.85;

    public static Shape Of((double X, double Y)[] loop)
    {
        var line = Gesture.Resample([.. loop, loop[0]], 129)[..128];
        if (Pentagram(line) is { } crossed)
            return crossed;
        var size = Size(line);
        var corners = Corners(line, size);
        var (ellipse, ellipseOff) = Ellipse(line);
        if (corners.Count < 3)
            return ellipse;
        var polygon = Sides(line, corners) ?? [.. corners.Select(i => line[i])];
        var polygonOff = Off(line, polygon);
        if (ellipseOff < size * 0.06 && polygonOff > ellipseOff * PolygonWins)
            return ellipse;
        return Polygons.Of(polygon);
    }

    private static double Size((double X, double Y)[] line) =>
        Math.Sqrt(Math.Pow(line.Max(p => p.X) - line.Min(p => p.X), 2) + Math.Pow(line.Max(p => p.Y) - line.Min(p => p.Y), 2));

    /// <summary>Indices of the corners of a closed line, in order. It is cut open at the two points farthest from each other, which are corners or on the way.</summary>
    private static List<int> Corners((double X, double Y)[] line, double size)
    {
        double cx = line.Average(p => p.X),
            cy = line.Average(p => p.Y);
        var start = Enumerable.Range(0, line.Length).MaxBy(i => Gesture.Distance(line[i], (cx, cy)));
        var opened = new (double X, double Y)[line.Length + 1];
        for (var i = 0; i <= line.Length; i++)
            opened[i] = line[(start + i) % line.Length];
        var half = Enumerable.Range(0, line.Length).MaxBy(i => Gesture.Distance(opened[i], opened[0]));
        var tolerance = size * 0.034;
        var one = Gesture.Corners(opened[..(half + 1)], tolerance, 0);
        var other = Gesture.Corners(opened[half..], tolerance, 0).Select(i => i + half);
        var corners = one.Concat(other.Skip(1)).SkipLast(1).ToList();
        // Corners that are no turns go, the flattest first; then of two close together one.
        while (corners.Count > 3)
        {
            var flattest = Enumerable.Range(0, corners.Count).MinBy(i => TurnAt(opened, corners, i));
            if (TurnAt(opened, corners, flattest) >= 24 * Degrees)
                break;
            corners.RemoveAt(flattest);
        }

        for (var i = 0; i < corners.Count && corners.Count > 3; )
        {
            var next = corners[(i + 1) % corners.Count];
            var apart = (next - corners[i] + line.Length) % line.Length;
            if (apart < line.Length * 0.045 && apart > 0)
                corners.RemoveAt(
                    TurnAt(opened, corners, i) < TurnAt(opened, corners, (i + 1) % corners.Count) ? i : (i + 1) % corners.Count
                );
            else
                i++;
        }

        return [.. corners.Select(i => (start + i) % line.Length)];
    }

    private static double TurnAt((double X, double Y)[] line, List<int> corners, int i) =>
        Gesture.Turn(line[corners[(i + corners.Count - 1) % corners.Count]], line[corners[i]], line[corners[(i + 1) % corners.Count]]);

    /// <summary>The corners as where the sides meet, each side a line through its points by total least squares; null where two sides are nearly parallel.</summary>
    private static (double X, double Y)[]? Sides((double X, double Y)[] line, List<int> corners)
    {
        var sides = new List<((double X, double Y) A, (double X, double Y) B)>();
        for (var i = 0; i < corners.Count; i++)
        {
            int from = corners[i],
                count = (corners[(i + 1) % corners.Count] - from + line.Length) % line.Length;
            // Near its corners a rough side is round.
            var trim = count / 7;
            var points = Enumerable.Range(from + trim, Math.Max(2, count - 2 * trim + 1)).Select(k => line[k % line.Length]).ToArray();
            sides.Add(Through(points));
        }

        var met = new (double X, double Y)[corners.Count];
        for (var i = 0; i < corners.Count; i++)
        {
            var (before, after) = (sides[(i + corners.Count - 1) % corners.Count], sides[i]);
            if (
                Gesture.Meeting(before.A, before.B, after.A, after.B) is not { } meet
                || Gesture.Distance(meet, line[corners[i]]) > Size(line) * 0.12
            )
                meet = line[corners[i]];
            met[i] = meet;
        }

        return met;
    }

    /// <summary>The line through points that lies closest to them, as two points on it.</summary>
    private static ((double X, double Y) A, (double X, double Y) B) Through((double X, double Y)[] points)
    {
        double mx = points.Average(p => p.X),
            my = points.Average(p => p.Y),
            xx = 0,
            yy = 0,
            xy = 0;
        foreach (var (x, y) in points)
            (xx, yy, xy) = (xx + (x - mx) * (x - mx), yy + (y - my) * (y - my), xy + (x - mx) * (y - my));
        var (sin, cos) = Math.SinCos(Math.Atan2(2 * xy, xx - yy) / 2);
        return ((mx, my), (mx + cos * 1000, my + sin * 1000));
    }

    /// <summary>How far a line lies from a polygon, root mean square.</summary>
    private static double Off((double X, double Y)[] line, (double X, double Y)[] polygon) =>
        Math.Sqrt(
            line.Average(p =>
                Math.Pow(
                    Enumerable.Range(0, polygon.Length).Min(i => Gesture.ToSegment(p, polygon[i], polygon[(i + 1) % polygon.Length])),
                    2
                )
            )
        );

    /// <summary>The ellipse with the same moments of area, and how far the line lies from it, root mean square.</summary>
    private static (Shape Shape, double Off) Ellipse((double X, double Y)[] line)
    {
        double area = 0,
            cx = 0,
            cy = 0;
        for (var i = 0; i < line.Length; i++)
        {
            var (p, q) = (line[i], line[(i + 1) % line.Length]);
            var cross = p.X * q.Y - q.X * p.Y;
            (area, cx, cy) = (area + cross / 2, cx + (p.X + q.X) * cross / 6, cy + (p.Y + q.Y) * cross / 6);
        }

        if (Math.Abs(area) < 1)
            area = 1;
        (cx, cy) = (cx / area, cy / area);
        double xx = 0,
            yy = 0,
            xy = 0;
        for (var i = 0; i < line.Length; i++)
        {
            double px = line[i].X - cx,
                py = line[i].Y - cy,
                qx = line[(i + 1) % line.Length].X - cx,
                qy = line[(i + 1) % line.Length].Y - cy,
                cross = px * qy - qx * py;
            xx += (px * px + px * qx + qx * qx) * cross / 12;
            yy += (py * py + py * qy + qy * qy) * cross / 12;
            xy += (2 * px * py + px * qy + qx * py + 2 * qx * qy) * cross / 24;
        }

        (xx, yy, xy) = (xx / area, yy / area, xy / area);
        double mean = (xx + yy) / 2,
            spread = Math.Sqrt(Math.Pow((xx - yy) / 2, 2) + xy * xy);
        // A solid ellipse's second moment along an axis is a quarter of the axis squared.
        double a = 2 * Math.Sqrt(Math.Max(mean + spread, 1)),
            b = 2 * Math.Sqrt(Math.Max(mean - spread, 1)),
            turn = Math.Atan2(2 * xy, xx - yy) / 2;
        if (b / a >= RoundFrom)
        {
            var radius = Math.Sqrt(a * b);
            var off = Math.Sqrt(line.Average(p => Math.Pow(Gesture.Distance(p, (cx, cy)) - radius, 2)));
            return (new Shape(ShapeKind.Circle, [Corner.At(cx, cy), Corner.At(cx + radius, cy)]), off);
        }

        var (sin, cos) = Math.SinCos(turn);
        var apart = Math.Sqrt(
            line.Average(p =>
            {
                double u = ((p.X - cx) * cos + (p.Y - cy) * sin) / a,
                    v = ((p.Y - cy) * cos - (p.X - cx) * sin) / b,
                    r = Math.Sqrt(u * u + v * v);
                // Along the ray from the centre: near enough for ellipses that are not very flat.
                return Math.Pow((1 - 1 / Math.Max(r, 0.1)) * Gesture.Distance(p, (cx, cy)), 2);
            })
        );
        var (restSin, restCos) = Math.SinCos(Recogniser.Rest(turn));
        return (
            new Shape(
                ShapeKind.Ellipse,
                [Corner.At(cx, cy), Corner.At(cx + a * restCos, cy + a * restSin), Corner.At(cx - b * restSin, cy + b * restCos)]
            ),
            apart
        );
    }

    /// <summary>A star of five points drawn through its own middle in one go: five sharp turns one way, twice round.</summary>
    private static Shape? Pentagram((double X, double Y)[] line)
    {
        double around = 0;
        for (var i = 0; i < line.Length; i++)
            around += Gesture.SignedTurn(line[i], line[(i + 4) % line.Length], line[(i + 8) % line.Length]) / 4;
        if (Math.Abs(Math.Abs(around) - 4 * Math.PI) > 1.2)
            return null;
        var corners = Corners(line, Size(line));
        if (corners.Count is < 5 or > 6)
            return null;
        var tips = corners
            .OrderByDescending(i => Gesture.Turn(line[(i + line.Length - 6) % line.Length], line[i], line[(i + 6) % line.Length]))
            .Take(5)
            .Select(i => line[i])
            .ToArray();
        return Polygons.Star(tips, 0.382);
    }
}
