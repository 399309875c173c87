using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Shapes;

/// <summary>A rough line prepared for recognition: points at even distances, smoothed a little, and its corners.</summary>
internal sealed class Gesture
{
    /// <summary>How many points a line is taken apart into.</summary>
    private const int Points = 128;

    /// <summary>A pen that comes no further than this trembles on its way, or rests at its end; 0.01 mm.</summary>
    private const double Trembling = 10,
        Resting = 30;

    public Gesture(IReadOnlyList<(double X, double Y)> line)
    {
        P = Smooth(Resample(line, Points));
        for (var i = 1; i < P.Length; i++)
            Length += Distance(P[i - 1], P[i]);
        double left = P.Min(p => p.X),
            right = P.Max(p => p.X),
            top = P.Min(p => p.Y),
            bottom = P.Max(p => p.Y);
        Diagonal = Math.Sqrt((right - left) * (right - left) + (bottom - top) * (bottom - top));
    }

    public (double X, double Y)[] P { get; }

    public double Length { get; }

    /// <summary>The diagonal of its box.</summary>
    public double Diagonal { get; }

    public double Gap => Distance(P[0], P[^1]);

    public static Gesture Of(StrokeSamples samples) => new(Still(samples));

    /// <summary>The samples without those by which a pen that rests only trembles, on the way and at the end.</summary>
    private static List<(double X, double Y)> Still(StrokeSamples samples)
    {
        (double X, double Y) At(int i) => (samples.X[i], samples.Y[i]);
        var rests = samples.Count - 1;
        while (rests > 0 && Distance(At(rests - 1), At(samples.Count - 1)) < Resting)
            rests--;
        var line = new List<(double X, double Y)> { At(0) };
        for (var i = 1; i < rests; i++)
        {
            if (Distance(line[^1], At(i)) >= Trembling)
                line.Add(At(i));
        }

        line.Add(At(samples.Count - 1));
        return line;
    }

    /// <summary>The line without what ran past where it meets itself near its ends; null where it does not close.</summary>
    public (double X, double Y)[]? Closed()
    {
        var reach = P.Length * 22 / 100;
        // What crosses itself near both ends overshot.
        for (var i = 0; i < reach; i++)
        {
            for (var j = P.Length - 2; j >= P.Length - 1 - reach && j > i + 2; j--)
            {
                if (Crossing(P[i], P[i + 1], P[j], P[j + 1]) is { } meet && AlongFrom(i + 1, j) > Length * 0.6)
                    return [meet, .. P[(i + 1)..(j + 1)]];
            }
        }

        // What passes close by itself near both ends closes there.
        var (bestI, bestJ, best) = (0, P.Length - 1, double.MaxValue);
        for (var i = 0; i < reach; i++)
        {
            for (var j = P.Length - 1; j >= P.Length - 1 - reach; j--)
            {
                var cost = Distance(P[i], P[j]) + (i + P.Length - 1 - j) * Length / P.Length * 0.25;
                if (cost < best)
                    (bestI, bestJ, best) = (i, j, cost);
            }
        }

        // What stays open between two sides that run towards each other is no overlap: there nothing may be cut off.
        if (Distance(P[bestI], P[bestJ]) > Gap * 0.3)
            (bestI, bestJ) = (0, P.Length - 1);
        return Distance(P[bestI], P[bestJ]) < Math.Min(Length * 0.13, Diagonal * 0.36) ? P[bestI..(bestJ + 1)] : null;
    }

    private double AlongFrom(int i, int j) => Length * (j - i) / (P.Length - 1);

    /// <summary>The indices of corners of an open line, both ends included (Ramer 1972, Douglas and Peucker 1973); bends of less than an angle are dropped.</summary>
    public static List<int> Corners((double X, double Y)[] line, double tolerance, double leastTurn)
    {
        var keep = new SortedSet<int> { 0, line.Length - 1 };
        var open = new Stack<(int From, int To)>();
        open.Push((0, line.Length - 1));
        while (open.TryPop(out var part))
        {
            var (index, most) = (-1, tolerance);
            for (var i = part.From + 1; i < part.To; i++)
            {
                var off = ToSegment(line[i], line[part.From], line[part.To]);
                if (off > most)
                    (index, most) = (i, off);
            }

            if (index < 0)
                continue;
            keep.Add(index);
            open.Push((part.From, index));
            open.Push((index, part.To));
        }

        var corners = keep.ToList();
        for (var removed = true; removed; )
        {
            removed = false;
            for (var i = 1; i + 1 < corners.Count; i++)
            {
                if (Turn(line[corners[i - 1]], line[corners[i]], line[corners[i + 1]]) >= leastTurn)
                    continue;
                corners.RemoveAt(i);
                removed = true;
                break;
            }
        }

        return corners;
    }

    /// <summary>By how much a way turns at a place, radians, 0 to π.</summary>
    public static double Turn((double X, double Y) a, (double X, double Y) b, (double X, double Y) c) => Math.Abs(SignedTurn(a, b, c));

    public static double SignedTurn((double X, double Y) a, (double X, double Y) b, (double X, double Y) c)
    {
        double ux = b.X - a.X,
            uy = b.Y - a.Y,
            vx = c.X - b.X,
            vy = c.Y - b.Y;
        return Math.Atan2(ux * vy - uy * vx, ux * vx + uy * vy);
    }

    public static double Distance((double X, double Y) a, (double X, double Y) b) =>
        Math.Sqrt((a.X - b.X) * (a.X - b.X) + (a.Y - b.Y) * (a.Y - b.Y));

    /// <summary>How far a point lies from a piece of a line.</summary>
    public static double ToSegment((double X, double Y) p, (double X, double Y) a, (double X, double Y) b)
    {
        double ux = b.X - a.X,
            uy = b.Y - a.Y,
            square = ux * ux + uy * uy;
        var t = square == 0 ? 0 : Math.Clamp(((p.X - a.X) * ux + (p.Y - a.Y) * uy) / square, 0, 1);
        return Distance(p, (a.X + ux * t, a.Y + uy * t));
    }

    /// <summary>Where two pieces of lines cross; null where they do not.</summary>
    public static (double X, double Y)? Crossing(
        (double X, double Y) a,
        (double X, double Y) b,
        (double X, double Y) c,
        (double X, double Y) d
    )
    {
        double ux = b.X - a.X,
            uy = b.Y - a.Y,
            vx = d.X - c.X,
            vy = d.Y - c.Y,
            cross = ux * vy - uy * vx;
        if (Math.Abs(cross) < 1e-9)
            return null;
        double t = ((c.X - a.X) * vy - (c.Y - a.Y) * vx) / cross,
            s = ((c.X - a.X) * uy - (c.Y - a.Y) * ux) / cross;
        return t is >= 0 and <= 1 && s is >= 0 and <= 1 ? (a.X + ux * t, a.Y + uy * t) : null;
    }

    /// <summary>Where two lines through two points each meet; null where they are nearly parallel.</summary>
    public static (double X, double Y)? Meeting(
        (double X, double Y) a,
        (double X, double Y) b,
        (double X, double Y) c,
        (double X, double Y) d
    )
    {
        double ux = b.X - a.X,
            uy = b.Y - a.Y,
            vx = d.X - c.X,
            vy = d.Y - c.Y,
            cross = ux * vy - uy * vx;
        if (Math.Abs(cross) < 0.12 * Math.Sqrt((ux * ux + uy * uy) * (vx * vx + vy * vy)))
            return null;
        var t = ((c.X - a.X) * vy - (c.Y - a.Y) * vx) / cross;
        return (a.X + ux * t, a.Y + uy * t);
    }

    /// <summary>The line through points that lies closest to them, as two points on it; by total least squares.</summary>
    public static ((double X, double Y) A, (double X, double Y) B) Through((double X, double Y)[] points)
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

    /// <summary>Points at even distances along a line.</summary>
    public static (double X, double Y)[] Resample(IReadOnlyList<(double X, double Y)> line, int count)
    {
        var whole = 0.0;
        for (var i = 1; i < line.Count; i++)
            whole += Distance(line[i - 1], line[i]);
        var points = new (double X, double Y)[count];
        points[0] = line[0];
        double step = whole / (count - 1),
            way = 0;
        var at = 1;
        for (var i = 1; i < line.Count && at < count; i++)
        {
            var length = Distance(line[i - 1], line[i]);
            while (at < count && length > 0 && way + length >= at * step - 1e-9)
            {
                var t = (at * step - way) / length;
                points[at++] = (line[i - 1].X + (line[i].X - line[i - 1].X) * t, line[i - 1].Y + (line[i].Y - line[i - 1].Y) * t);
            }

            way += length;
        }

        for (; at < count; at++)
            points[at] = line[^1];
        return points;
    }

    private static (double X, double Y)[] Smooth((double X, double Y)[] points)
    {
        var smooth = ((double X, double Y)[])points.Clone();
        for (var i = 1; i + 1 < points.Length; i++)
            smooth[i] = (
                (points[i - 1].X + 2 * points[i].X + points[i + 1].X) / 4,
                (points[i - 1].Y + 2 * points[i].Y + points[i + 1].Y) / 4
            );
        return smooth;
    }
}
