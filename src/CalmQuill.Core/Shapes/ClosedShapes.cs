namespace CalmQuill.Core.Shapes;

/// <summary>What closes: circles, ellipses and all that has corners.</summary>
/// <remarks>
/// Its thresholds were tuned on two simulated hands, <c>RoughShapes</c> and <c>SketchedShapes</c>, against what the share of shapes taken for what they were meant as
/// then was (docs/shapes.md has the tables, which <c>./quill bench --shapes</c> prints anew). Lengths are shares of the shape's diagonal or of the way round, so that
/// they hold at any size.
/// </remarks>
internal static class ClosedShapes
{
    private const double Degrees = Math.PI / 180;

    /// <summary>An ellipse is chosen unless a polygon fits so much better.</summary>
    private const double PolygonWins = 0.8;

    /// <summary>An ellipse lies no farther off the line than this, as a share of the diagonal, root mean square.</summary>
    private const double EllipseWithin = 0.06;

    /// <summary>A polygon that fits better than the ellipse by more than this is one, however evenly the line turns.</summary>
    private const double PolygonFarBetter = 0.4;

    /// <summary>Below this concentration of its turning a line is round; the stricter one where the polygon fits nearly twice as well. See <see cref="IsRound"/>.</summary>
    private const double RoundUnder = 1.45,
        RoundUnderStrictly = 1.3,
        StrictlyUnderShare = 0.5;

    /// <summary>A line leaves the chord between two corners by no more than this, as a share of the diagonal.</summary>
    private const double CornerTolerance = 0.034;

    /// <summary>A corner turns at least so far.</summary>
    private const double LeastTurn = 24 * Degrees;

    /// <summary>Two corners nearer than this, as a share of the way round, are one.</summary>
    private const double OneCornerWithin = 0.045;

    /// <summary>A rounded corner is so long at most, as a share of the way round; and of the shorter side beside it.</summary>
    private const double RoundedWithin = 0.08,
        RoundedOfSide = 0.6;

    /// <summary>A rounded corner turns at most so far; more is the end of a long thin shape.</summary>
    private const double MostRoundedTurn = 155 * Degrees;

    /// <summary>Of each side so many parts at both ends are left out: near its corners a rough side is round.</summary>
    private const int TrimmedParts = 7;

    /// <summary>Where two sides meet farther off than this from the corner that was drawn, as a share of the diagonal, the drawn one counts.</summary>
    private const double MeetWithin = 0.12;

    /// <summary>A star drawn through its middle turns twice round, up to so much more or less, radians.</summary>
    private const double TwiceRoundWithin = 1.2;

    /// <summary>The inner corners of a regular star of five points lie so far out, as a share of its tips: 1/φ².</summary>
    private const double StarWaist = 0.382;

    /// <summary>Axes or sides whose ratio is at least this are taken as equal.</summary>
    private const double RoundFrom = 0.83,
        EqualFrom = 0.85;

    public static Shape Of((double X, double Y)[] loop, bool even)
    {
        var line = Gesture.Resample([.. loop, loop[0]], 129)[..128];
        if (Pentagram(line) is { } crossed)
            return crossed;
        var size = Size(line);
        var corners = Corners(line, size);
        var (ellipse, ellipseOff) = Ellipse(line, even);
        if (corners.Count < 3)
            return ellipse;
        var polygon = Sides(line, corners) ?? [.. corners.Select(i => line[i])];
        var polygonOff = Off(line, polygon);
        if (ellipseOff < size * EllipseWithin && (polygonOff > ellipseOff * PolygonWins || IsRound(line, corners, polygonOff / ellipseOff)))
            return ellipse;
        return Polygons.Of(polygon, even);
    }

    /// <summary>Whether a closed line turns evenly, so that its corners are only where a hand went a little astray.</summary>
    /// <remarks>Of generated rounds the concentration is 0.93 to 1.14, of regular polygons 1.47 and more; long ellipses reach 1.75, and no polygon fits them half as well.</remarks>
    private static bool IsRound((double X, double Y)[] line, List<int> corners, double polygonShare) =>
        polygonShare > PolygonFarBetter
        && Concentration(line, corners) < (polygonShare > StrictlyUnderShare ? RoundUnder : RoundUnderStrictly);

    /// <summary>How much of its turning lies close to the corners of a closed line, over how much would if it turned evenly: 1 for a circle, more the more it has corners.</summary>
    private static double Concentration((double X, double Y)[] line, List<int> corners)
    {
        const int reach = 4,
            near = 5;
        double close = 0,
            whole = 1e-9;
        var places = 0;
        for (var i = 0; i < line.Length; i++)
        {
            var turn = Gesture.Turn(line[(i + line.Length - reach) % line.Length], line[i], line[(i + reach) % line.Length]);
            whole += turn;
            if (!corners.Exists(corner => Math.Abs((corner - i + line.Length * 3 / 2) % line.Length - line.Length / 2) <= near))
                continue;
            close += turn;
            places++;
        }

        return close / whole * line.Length / Math.Max(places, 1);
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
        var tolerance = size * CornerTolerance;
        var one = Gesture.Corners(opened[..(half + 1)], tolerance, 0);
        var other = Gesture.Corners(opened[half..], tolerance, 0).Select(i => i + half);
        var corners = one.Concat(other.Skip(1)).SkipLast(1).ToList();
        // Corners that are no turns go, the flattest first; then of two close together one.
        while (corners.Count > 3)
        {
            var flattest = Enumerable.Range(0, corners.Count).MinBy(i => TurnAt(opened, corners, i));
            if (TurnAt(opened, corners, flattest) >= LeastTurn)
                break;
            corners.RemoveAt(flattest);
        }

        while (corners.Count > 3 && Rounded(opened, corners, line.Length) is { } rounded)
        {
            // A corner that was passed over round is one, in the middle of its bow; its sides will tell where they meet.
            int from = corners[rounded],
                next = (rounded + 1) % corners.Count,
                apart = (corners[next] - from + line.Length) % line.Length;
            corners[rounded] = (from + apart / 2) % line.Length;
            corners.RemoveAt(next);
            corners.Sort();
        }

        for (var i = 0; i < corners.Count && corners.Count > 3; )
        {
            var next = corners[(i + 1) % corners.Count];
            var apart = (next - corners[i] + line.Length) % line.Length;
            if (apart < line.Length * OneCornerWithin && apart > 0)
                corners.RemoveAt(
                    TurnAt(opened, corners, i) < TurnAt(opened, corners, (i + 1) % corners.Count) ? i : (i + 1) % corners.Count
                );
            else
                i++;
        }

        return [.. corners.Select(i => (start + i) % line.Length)];
    }

    /// <summary>The first of two corners that are the ends of one rounded corner: close to each other for their sides, and turning the same way; null where there are none.</summary>
    private static int? Rounded((double X, double Y)[] opened, List<int> corners, int around)
    {
        int Apart(int i) => (corners[(i + 1) % corners.Count] - corners[i % corners.Count] + around) % around;
        double Signed(int i) =>
            Gesture.SignedTurn(
                opened[corners[(i + corners.Count - 1) % corners.Count]],
                opened[corners[i % corners.Count]],
                opened[corners[(i + 1) % corners.Count]]
            );
        int? found = null;
        for (var i = 0; i < corners.Count; i++)
        {
            int apart = Apart(i),
                sides = Math.Min(Apart(i + corners.Count - 1), Apart(i + 1));
            if (apart > around * RoundedWithin || apart > sides * RoundedOfSide || (found is { } least && apart >= Apart(least)))
                continue;
            double one = Signed(i),
                other = Signed(i + 1);
            if (one * other > 0 && Math.Abs(one + other) < MostRoundedTurn)
                found = i;
        }

        return found;
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
            var trim = count / TrimmedParts;
            var points = Enumerable.Range(from + trim, Math.Max(2, count - 2 * trim + 1)).Select(k => line[k % line.Length]).ToArray();
            sides.Add(Gesture.Through(points));
        }

        var met = new (double X, double Y)[corners.Count];
        for (var i = 0; i < corners.Count; i++)
        {
            var (before, after) = (sides[(i + corners.Count - 1) % corners.Count], sides[i]);
            if (
                Gesture.Meeting(before.A, before.B, after.A, after.B) is not { } meet
                || Gesture.Distance(meet, line[corners[i]]) > Size(line) * MeetWithin
            )
                meet = line[corners[i]];
            met[i] = meet;
        }

        return met;
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
    private static (Shape Shape, double Off) Ellipse((double X, double Y)[] line, bool even)
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
        if (even && b / a >= RoundFrom)
        {
            var radius = Math.Sqrt(a * b);
            return (new Shape(ShapeKind.Circle, [Corner.At(cx, cy), Corner.At(cx + radius, cy)]), apart);
        }

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
        if (Math.Abs(Math.Abs(around) - 4 * Math.PI) > TwiceRoundWithin)
            return null;
        var corners = Corners(line, Size(line));
        if (corners.Count is < 5 or > 6)
            return null;
        var tips = corners
            .OrderByDescending(i => Gesture.Turn(line[(i + line.Length - 6) % line.Length], line[i], line[(i + 6) % line.Length]))
            .Take(5)
            .Select(i => line[i])
            .ToArray();
        return Polygons.Star(tips, StarWaist);
    }
}
