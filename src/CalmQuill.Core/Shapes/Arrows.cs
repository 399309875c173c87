namespace CalmQuill.Core.Shapes;

/// <summary>Arrows: a long straight shaft, and at one end or both two short strokes back from it.</summary>
/// <remarks>Its thresholds were tuned as those of <see cref="ClosedShapes"/>. Lengths are shares of the shaft, but for the least that a hand can hit, 0.01 mm.</remarks>
internal static class Arrows
{
    private const double Degrees = Math.PI / 180;

    /// <summary>An arrow in one stroke leaves the chord between two corners by no more than this share of the diagonal, and never by less than this; it turns at a corner at least so far.</summary>
    private const double CornerTolerance = 0.028,
        LeastCornerTolerance = 20,
        LeastTurn = 35 * Degrees;

    /// <summary>So many corners an arrow in one stroke has, its ends among them: with a head at both ends, and hooks.</summary>
    private const int FewestCorners = 4,
        MostCorners = 10;

    /// <summary>The same of a head by itself.</summary>
    private const double HeadTolerance = 0.08,
        LeastHeadTolerance = 15;

    /// <summary>No barb, and nothing else beside the shaft, is longer than this; what is shorter than this is the pen coming back to the tip.</summary>
    private const double MostBarb = 0.62,
        LeastBarb = 0.07;

    /// <summary>The tip of a head by itself lies so near the shaft's end; a barb's own end so near the tip, and no farther than this share of the barb.</summary>
    private const double HeadWithin = 0.2,
        LeastHeadWithin = 250,
        BarbWithin = 0.12,
        LeastBarbWithin = 100,
        BarbWithinOfItself = 0.6;

    /// <summary>As shares of a barb's length: it goes forward by no more than this, and to its side by at least this and at most this.</summary>
    private const double MostForward = 0.1,
        LeastAside = 0.2,
        MostAside = 0.985;

    /// <summary>An arrow drawn in one stroke; null where the line is none.</summary>
    public static Shape? Of(Gesture gesture)
    {
        var line = gesture.P;
        var corners = Gesture.Corners(line, Math.Max(gesture.Diagonal * CornerTolerance, LeastCornerTolerance), LeastTurn);
        if (corners.Count is < FewestCorners or > MostCorners)
            return null;
        var (shaft, longest) = (0, 0.0);
        for (var i = 0; i + 1 < corners.Count; i++)
        {
            var length = Gesture.Distance(line[corners[i]], line[corners[i + 1]]);
            if (length > longest)
                (shaft, longest) = (i, length);
        }

        // A shaft is straight and clearly the longest.
        for (var i = 0; i + 1 < corners.Count; i++)
        {
            if (i != shaft && Gesture.Distance(line[corners[i]], line[corners[i + 1]]) > longest * MostBarb)
                return null;
        }

        (double X, double Y) start = line[corners[shaft]],
            end = line[corners[shaft + 1]];
        var after = corners[(shaft + 1)..].Select(i => line[i]).ToList();
        var before = corners[..(shaft + 1)].Select(i => line[i]).Reverse().ToList();
        bool headAfter = IsHead(after, start, longest),
            headBefore = IsHead(before, end, longest);
        if (after.Count > 1 && !headAfter || before.Count > 1 && !headBefore)
            return null;
        if (headAfter && headBefore)
            return Lines.Settled(ShapeKind.DoubleArrow, start, end);
        return headAfter ? Lines.Settled(ShapeKind.Arrow, start, end)
            : headBefore ? Lines.Settled(ShapeKind.Arrow, end, start)
            : null;
    }

    /// <summary>An arrow from a shaft and the two short strokes, drawn in one go, at one of its ends; null where they do not belong together.</summary>
    /// <param name="shaft">A line or an arrow.</param>
    /// <param name="head">The second stroke.</param>
    public static Shape? WithHead(Shape shaft, Gesture head)
    {
        if (shaft.Kind is not (ShapeKind.Line or ShapeKind.Arrow))
            return null;
        var corners = Gesture.Corners(head.P, Math.Max(head.Diagonal * HeadTolerance, LeastHeadTolerance), LeastTurn);
        if (corners.Count != 3)
            return null;
        (double X, double Y) tip = head.P[corners[1]],
            one = head.P[corners[0]],
            other = head.P[corners[2]];
        var length = shaft.Points[0].To(shaft.Points[1]);
        foreach (var end in new[] { 1, 0 })
        {
            (double X, double Y) at = (shaft.Points[end].X, shaft.Points[end].Y),
                far = (shaft.Points[1 - end].X, shaft.Points[1 - end].Y);
            if (Gesture.Distance(tip, at) > Math.Max(length * HeadWithin, LeastHeadWithin) || !IsHead([at, one, at, other], far, length))
                continue;
            if (shaft.Kind == ShapeKind.Arrow)
                return end == 1 ? shaft : new Shape(ShapeKind.DoubleArrow, shaft.Points);
            return new Shape(ShapeKind.Arrow, [shaft.Points[1 - end], shaft.Points[end]]);
        }

        return null;
    }

    /// <summary>An arrow from a shaft and two barbs, each drawn by itself, at one of its ends; null where they do not belong together.</summary>
    public static Shape? WithBarbs(
        Shape shaft,
        ((double X, double Y) A, (double X, double Y) B) one,
        ((double X, double Y) A, (double X, double Y) B) other
    )
    {
        if (shaft.Kind is not (ShapeKind.Line or ShapeKind.Arrow))
            return null;
        var length = shaft.Points[0].To(shaft.Points[1]);
        foreach (var end in new[] { 1, 0 })
        {
            (double X, double Y) tip = (shaft.Points[end].X, shaft.Points[end].Y),
                far = (shaft.Points[1 - end].X, shaft.Points[1 - end].Y);
            if (OuterEnd(one, tip, length) is not { } first || OuterEnd(other, tip, length) is not { } second)
                continue;
            if (!IsHead([tip, first, tip, second], far, length))
                continue;
            if (shaft.Kind == ShapeKind.Arrow)
                return end == 1 ? null : new Shape(ShapeKind.DoubleArrow, shaft.Points);
            return new Shape(ShapeKind.Arrow, [shaft.Points[1 - end], shaft.Points[end]]);
        }

        return null;
    }

    /// <summary>The end of a barb that is away from the tip; null where neither end is at the tip.</summary>
    private static (double X, double Y)? OuterEnd(
        ((double X, double Y) A, (double X, double Y) B) barb,
        (double X, double Y) tip,
        double length
    )
    {
        var (near, outer) = Gesture.Distance(barb.A, tip) <= Gesture.Distance(barb.B, tip) ? (barb.A, barb.B) : (barb.B, barb.A);
        return
            Gesture.Distance(near, tip)
            <= Math.Min(Math.Max(length * BarbWithin, LeastBarbWithin), Gesture.Distance(near, outer) * BarbWithinOfItself)
            ? outer
            : null;
    }

    /// <summary>Whether a way from a tip is the two barbs of a head: short, backwards, to both sides.</summary>
    /// <param name="way">The tip and the corners after it.</param>
    /// <param name="tail">The shaft's other end.</param>
    /// <param name="length">The shaft's length.</param>
    private static bool IsHead(List<(double X, double Y)> way, (double X, double Y) tail, double length)
    {
        if (way.Count < 3)
            return false;
        var tip = way[0];
        double sx = (tail.X - tip.X) / length,
            sy = (tail.Y - tip.Y) / length;
        bool left = false,
            right = false;
        foreach (var point in way.Skip(1))
        {
            double dx = point.X - tip.X,
                dy = point.Y - tip.Y,
                back = dx * sx + dy * sy,
                aside = dx * sy - dy * sx,
                far = Math.Sqrt(dx * dx + dy * dy);
            if (far > length * MostBarb)
                return false;
            // What comes back to the tip is no barb.
            if (far < length * LeastBarb)
                continue;
            if (back < -far * MostForward || Math.Abs(aside) > far * MostAside)
                return false;
            if (aside > far * LeastAside)
                left = true;
            if (aside < -far * LeastAside)
                right = true;
        }

        return left && right;
    }
}
