namespace CalmQuill.Core.Shapes;

/// <summary>What does not close: arcs, waves, lines with corners, smooth curves.</summary>
/// <remarks>Its thresholds were tuned as those of <see cref="ClosedShapes"/>. Lengths are shares of the diagonal, of the way, or of the gap between its ends.</remarks>
internal static class OpenShapes
{
    private const double Degrees = Math.PI / 180;

    /// <summary>A line leaves the chord between two corners by no more than this, and turns at a corner at least so far.</summary>
    private const double CornerTolerance = 0.045,
        LeastTurn = 28 * Degrees;

    /// <summary>A line with corners has at most so many, its ends among them: longer ones are handwriting.</summary>
    private const int MostCorners = 14;

    /// <summary>Its sides lie no farther off than this, root mean square; see <see cref="Cornered"/> for both hands' figures.</summary>
    private const double SidesWithin = 0.0165;

    /// <summary>So much of its turning lies at its corners at least, beyond what would by chance; more where its sides fit less well than <see cref="SidesFitWell"/>.</summary>
    private const double LeastAtCorners = 0.45,
        MoreAtCorners = 42,
        SidesFitWell = 0.0072;

    /// <summary>A turn below this, over eight places, is tremor.</summary>
    private const double Tremor = 6 * Degrees;

    /// <summary>The bow of a corner is no longer than this share of the shorter side beside it, and turns at most so far.</summary>
    private const double RoundedOfSide = 0.6,
        MostRoundedTurn = 155 * Degrees;

    /// <summary>Of each side so many parts at both ends are left out: near its corners a rough side is round.</summary>
    private const int TrimmedParts = 7;

    /// <summary>Where two sides meet farther off than this from the corner that was drawn, the drawn one counts.</summary>
    private const double MeetWithin = 0.1;

    /// <summary>An arc lies no farther off its circle than this, root mean square, and goes round by this much at least and at most.</summary>
    private const double ArcWithin = 0.022,
        LeastSweep = 25 * Degrees,
        MostSweep = 345 * Degrees;

    /// <summary>A wave's ends lie so far apart at least, as a share of the diagonal; it is so high at least, as a share of that gap.</summary>
    private const double WaveGap = 0.7,
        LeastWaveHeight = 0.03;

    /// <summary>A step back along its own way that is longer than this share of the way counts; of so many steps one may, before it is no wave.</summary>
    private const double StepBack = 0.002;
    private const int StepsPerStepBack = 12;

    /// <summary>A half wave below this share of the highest is tremor; all others are of one height and one length, give or take this share.</summary>
    private const double LeastLobe = 0.3,
        LobesAlike = 0.5;

    /// <summary>The crests of a wave are so round at least: halfway between a zig-zag, 0.5, and a sine, 0.64.</summary>
    private const double RoundCrests = 0.56;

    /// <summary>As shares of the way: a hook with which a pen comes down or goes, and the bow of a corner that is passed over round, are so long at most.</summary>
    private const double Hook = 0.08,
        Rounded = 0.12;

    /// <summary>So many places to each side of a corner belong to it.</summary>
    private const int CornerReach = 7;

    public static Shape Of(Gesture gesture)
    {
        var corners = Gesture.Corners(gesture.P, gesture.Diagonal * CornerTolerance, LeastTurn);
        if (Wave(gesture) is { } wave)
            return wave;
        if (Cornered(gesture, corners) is { } cornered)
            return cornered;
        return Arc(gesture) ?? Curve(gesture);
    }

    /// <summary>An open line with corners: its sides are straight, and it turns at the corners and not on the way.</summary>
    private static Shape? Cornered(Gesture gesture, List<int> corners)
    {
        var line = gesture.P;
        corners = Plain(line, corners);
        if (corners.Count is < 3 or > MostCorners)
            return null;
        var met = Sides(line, corners, gesture.Diagonal);
        double off = 0;
        var counted = 0;
        for (var i = 0; i + 1 < corners.Count; i++)
        {
            for (var k = corners[i]; k <= corners[i + 1]; k++, counted++)
                off += Square(Gesture.ToSegment(line[k], met[i], met[i + 1]));
        }

        var away = Math.Sqrt(off / Math.Max(counted, 1)) / gesture.Diagonal;
        // How much of its turning lies close to the corners: all of it with straight sides, little of it on a curve. Both hands' lines with corners lie within 1.1 % of the sides and
        // turn at the corners by 0.8 and more; their curves lie off by 0.8 % and more, and turn there the less the nearer they lie.
        double near = 0,
            whole = 1e-9;
        for (var i = corners[0] + 4; i + 4 <= corners[^1]; i++)
        {
            var turn = Gesture.Turn(line[i - 4], line[i], line[i + 4]);
            if (turn < Tremor)
                continue;
            whole += turn;
            if (corners.Skip(1).SkipLast(1).Any(corner => Math.Abs(corner - i) <= CornerReach))
                near += turn;
        }
        // Over what lies close to them of any line.
        var covered = Math.Min(0.95, (corners.Count - 2) * (2 * CornerReach + 1) / (double)line.Length);
        var cornered = (near / whole - covered) / (1 - covered);
        if (away > SidesWithin || cornered < (away < SidesFitWell ? LeastAtCorners : LeastAtCorners + MoreAtCorners * away))
            return null;
        return new Shape(ShapeKind.Polyline, [.. met.Select(p => Corner.At(p.X, p.Y))]);
    }

    /// <summary>The corners without the hooks with which a pen comes and goes, and with one for each that was passed over round.</summary>
    private static List<int> Plain((double X, double Y)[] line, List<int> corners)
    {
        var plain = corners.ToList();
        if (plain.Count > 3 && plain[1] - plain[0] < line.Length * Hook)
            plain.RemoveAt(0);
        if (plain.Count > 3 && plain[^1] - plain[^2] < line.Length * Hook)
            plain.RemoveAt(plain.Count - 1);
        for (var i = 1; i + 2 < plain.Count; )
        {
            int apart = plain[i + 1] - plain[i],
                sides = Math.Min(plain[i] - plain[i - 1], plain[i + 2] - plain[i + 1]);
            double one = Gesture.SignedTurn(line[plain[i - 1]], line[plain[i]], line[plain[i + 1]]),
                other = Gesture.SignedTurn(line[plain[i]], line[plain[i + 1]], line[plain[i + 2]]);
            if (
                apart <= line.Length * Rounded
                && apart <= sides * RoundedOfSide
                && one * other > 0
                && Math.Abs(one + other) < MostRoundedTurn
            )
            {
                plain[i] += apart / 2;
                plain.RemoveAt(i + 1);
            }
            else
                i++;
        }

        return plain;
    }

    /// <summary>The corners as where the sides meet, each a line through the points between its corners; the ends as their feet on the sides.</summary>
    private static (double X, double Y)[] Sides((double X, double Y)[] line, List<int> corners, double diagonal)
    {
        var sides = new List<((double X, double Y) A, (double X, double Y) B)>();
        for (var i = 0; i + 1 < corners.Count; i++)
        {
            var trim = (corners[i + 1] - corners[i]) / TrimmedParts;
            sides.Add(Gesture.Through(line[(corners[i] + trim)..(corners[i + 1] - trim + 1)]));
        }

        (double X, double Y) Near((double X, double Y)? met, (double X, double Y) corner) =>
            met is { } at && Gesture.Distance(at, corner) <= diagonal * MeetWithin ? at : corner;
        var places = corners.Select(i => line[i]).ToArray();
        places[0] = Near(Foot(places[0], sides[0]), places[0]);
        places[^1] = Near(Foot(places[^1], sides[^1]), places[^1]);
        for (var i = 1; i + 1 < places.Length; i++)
            places[i] = Near(Gesture.Meeting(sides[i - 1].A, sides[i - 1].B, sides[i].A, sides[i].B), places[i]);
        return places;
    }

    private static (double X, double Y) Foot((double X, double Y) p, ((double X, double Y) A, (double X, double Y) B) side)
    {
        double ux = side.B.X - side.A.X,
            uy = side.B.Y - side.A.Y,
            t = ((p.X - side.A.X) * ux + (p.Y - side.A.Y) * uy) / Math.Max(ux * ux + uy * uy, 1e-9);
        return (side.A.X + ux * t, side.A.Y + uy * t);
    }

    /// <summary>Part of a circle, by least squares (Kåsa 1976).</summary>
    private static Shape? Arc(Gesture gesture)
    {
        if (Kasa(gesture.P) is not { } circle)
            return null;
        var (cx, cy, radius) = circle;
        var off = Math.Sqrt(gesture.P.Average(p => Square(Gesture.Distance(p, (cx, cy)) - radius)));
        if (off > gesture.Diagonal * ArcWithin)
            return null;
        double sweep = 0;
        for (var i = 1; i < gesture.P.Length; i++)
        {
            var step = Math.Atan2(gesture.P[i].Y - cy, gesture.P[i].X - cx) - Math.Atan2(gesture.P[i - 1].Y - cy, gesture.P[i - 1].X - cx);
            sweep +=
                step > Math.PI ? step - Math.PI * 2
                : step < -Math.PI ? step + Math.PI * 2
                : step;
        }

        if (Math.Abs(sweep) is < LeastSweep or > MostSweep)
            return null;
        Corner On((double X, double Y) p)
        {
            var from = Math.Max(Gesture.Distance(p, (cx, cy)), 1e-9);
            return Corner.At(cx + (p.X - cx) / from * radius, cy + (p.Y - cy) / from * radius);
        }

        return new Shape(ShapeKind.Arc, [On(gesture.P[0]), On(gesture.P[gesture.P.Length / 2]), On(gesture.P[^1])]);
    }

    /// <summary>At least three half waves of about one height and length, along the line through where it crosses its middle.</summary>
    private static Shape? Wave(Gesture gesture)
    {
        var line = gesture.P;
        if (gesture.Gap < gesture.Diagonal * WaveGap)
            return null;
        double ux = (line[^1].X - line[0].X) / gesture.Gap,
            uy = (line[^1].Y - line[0].Y) / gesture.Gap;
        var aside = line.Select(p => (p.X - line[0].X) * -uy + (p.Y - line[0].Y) * ux).ToArray();
        var along = line.Select(p => (p.X - line[0].X) * ux + (p.Y - line[0].Y) * uy).ToArray();
        var highest = aside.Max(Math.Abs);
        if (highest < gesture.Gap * LeastWaveHeight)
            return null;
        // Where it goes back along its own way it is no wave.
        if (
            Enumerable.Range(1, along.Length - 1).Count(i => along[i] < along[i - 1] - gesture.Length * StepBack)
            > along.Length / StepsPerStepBack
        )
            return null;
        var lobes = new List<(double High, double From, double To)>();
        var from = 0;
        for (var i = 1; i < aside.Length; i++)
        {
            if (Math.Sign(aside[i]) == Math.Sign(aside[i - 1]) && i + 1 < aside.Length)
                continue;
            var high = aside[from..i].MaxBy(Math.Abs);
            if (Math.Abs(high) > highest * LeastLobe)
                lobes.Add((high, along[from], along[i]));
            from = i;
        }

        if (lobes.Count < 3)
            return null;
        var mean = lobes.Average(lobe => Math.Abs(lobe.High));
        var wide = lobes.Average(lobe => lobe.To - lobe.From);
        for (var i = 0; i < lobes.Count; i++)
        {
            if (i > 0 && Math.Sign(lobes[i].High) == Math.Sign(lobes[i - 1].High))
                return null;
            if (
                Math.Abs(Math.Abs(lobes[i].High) - mean) > mean * LobesAlike
                || Math.Abs(lobes[i].To - lobes[i].From - wide) > wide * LobesAlike
            )
                return null;
        }

        // A zig-zag runs straight between its turns; a wave is round at its crests, where a zig-zag is not.
        if (Roundness(aside, along, lobes) < RoundCrests)
            return null;
        var high1 = mean * Math.Sign(lobes[0].High);
        var settled = Lines.Line(line[0], line[^1]);
        double sx = (settled.Points[1].X - (double)settled.Points[0].X) / gesture.Gap,
            sy = (settled.Points[1].Y - (double)settled.Points[0].Y) / gesture.Gap;
        return new Shape(
            ShapeKind.Wave,
            [
                settled.Points[0],
                settled.Points[1],
                Corner.At(settled.Points[0].X - sy * high1 + sx * wide / 2, settled.Points[0].Y + sx * high1 + sy * wide / 2),
            ],
            Math.Min(lobes.Count, Shape.MostDetail)
        );
    }

    /// <summary>The mean height over the greatest of each lobe: 0.5 for a zig-zag, 0.64 for a sine.</summary>
    private static double Roundness(double[] aside, double[] along, List<(double High, double From, double To)> lobes) =>
        lobes.Average(lobe =>
        {
            var inside = Enumerable.Range(0, aside.Length).Where(i => along[i] >= lobe.From && along[i] <= lobe.To).ToList();
            double area = 0,
                wide = 0;
            for (var k = 1; k < inside.Count; k++)
            {
                var step = Math.Max(0, along[inside[k]] - along[inside[k - 1]]);
                area += step * (Math.Abs(aside[inside[k]]) + Math.Abs(aside[inside[k - 1]])) / 2;
                wide += step;
            }

            return wide <= 0 ? 0 : area / wide / Math.Abs(lobe.High);
        });

    /// <summary>A smooth line through as few of its points as keep it within 1.2 % of its size.</summary>
    private static Shape Curve(Gesture gesture)
    {
        var keep = Gesture.Corners(gesture.P, gesture.Diagonal * 0.02, 0);
        if (keep.Count < 3)
            keep.Insert(1, gesture.P.Length / 2);
        return new Shape(ShapeKind.Curve, [.. keep.Select(i => Corner.At(gesture.P[i].X, gesture.P[i].Y))]);
    }

    /// <summary>The circle that fits points best by least squares of their squared distances.</summary>
    private static (double X, double Y, double Radius)? Kasa((double X, double Y)[] points)
    {
        double mx = points.Average(p => p.X),
            my = points.Average(p => p.Y),
            xx = 0,
            yy = 0,
            xy = 0,
            xz = 0,
            yz = 0;
        foreach (var p in points)
        {
            double x = p.X - mx,
                y = p.Y - my,
                z = x * x + y * y;
            (xx, yy, xy, xz, yz) = (xx + x * x, yy + y * y, xy + x * y, xz + x * z, yz + y * z);
        }

        var area = xx * yy - xy * xy;
        if (area < 1e-6 * xx * yy || area == 0)
            return null;
        double cx = (xz * yy - yz * xy) / area / 2,
            cy = (yz * xx - xz * xy) / area / 2;
        return (cx + mx, cy + my, Math.Sqrt(cx * cx + cy * cy + (xx + yy) / points.Length));
    }

    private static double Square(double value) => value * value;
}
