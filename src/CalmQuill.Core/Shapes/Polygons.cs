namespace CalmQuill.Core.Shapes;

/// <summary>Polygons told apart by their sides and angles, and made true.</summary>
internal static class Polygons
{
    private const double Degrees = Math.PI / 180;
    private const double Parallel = 10 * Degrees,
        Right = 11 * Degrees;

    /// <summary>Sides whose ratio is at least this are taken as equal.</summary>
    private const double Equal = 0.82;

    public static Shape Of((double X, double Y)[] corners, bool even) =>
        corners.Length switch
        {
            3 => Free(ShapeKind.Triangle, corners),
            4 => Four(corners, even),
            _ => Regular(corners) ?? AsStar(corners) ?? Free(ShapeKind.Polygon, corners),
        };

    /// <summary>A star from its tips: the inner corners lie at a share of the radius between them.</summary>
    public static Shape Star((double X, double Y)[] tips, double inner)
    {
        double cx = tips.Average(p => p.X),
            cy = tips.Average(p => p.Y),
            radius = tips.Average(p => Gesture.Distance(p, (cx, cy)));
        var count = tips.Length;
        var phase = Phase(tips.OrderBy(p => Math.Atan2(p.Y - cy, p.X - cx)).ToArray(), cx, cy);
        return new Shape(
            ShapeKind.Star,
            [
                .. Enumerable
                    .Range(0, 2 * count)
                    .Select(i =>
                    {
                        var (sin, cos) = Math.SinCos(phase + Math.PI * i / count);
                        var r = i % 2 == 0 ? radius : radius * inner;
                        return Corner.At(cx + r * cos, cy + r * sin);
                    }),
            ]
        );
    }

    private static Shape Four((double X, double Y)[] c, bool even)
    {
        double[] direction = [.. Enumerable.Range(0, 4).Select(i => Math.Atan2(c[(i + 1) % 4].Y - c[i].Y, c[(i + 1) % 4].X - c[i].X))];
        double[] side = [.. Enumerable.Range(0, 4).Select(i => Gesture.Distance(c[i], c[(i + 1) % 4]))];
        bool one = Between(direction[0], direction[2]) < Parallel,
            other = Between(direction[1], direction[3]) < Parallel;
        double cx = c.Average(p => p.X),
            cy = c.Average(p => p.Y);
        if (one && other)
        {
            double wide = (side[0] + side[2]) / 2,
                high = (side[1] + side[3]) / 2;
            var alike = even && Math.Min(wide, high) >= Math.Max(wide, high) * Equal;
            var corner = Between(direction[0], direction[1]);
            var clockwise = Math.Sin(direction[1] - direction[0]) > 0 ? 1 : -1;
            if (Math.Abs(corner - 90 * Degrees) < Right)
            {
                // The sides' directions, taken modulo a right angle and weighted by their lengths.
                double sin = 0,
                    cos = 0;
                for (var i = 0; i < 4; i++)
                    (sin, cos) = (sin + side[i] * Math.Sin(4 * direction[i]), cos + side[i] * Math.Cos(4 * direction[i]));
                var turn = Math.Atan2(sin, cos) / 4;
                turn += Math.Round((direction[0] - turn) / (90 * Degrees)) * 90 * Degrees;
                turn = Recogniser.Rest(turn);
                if (alike)
                    (wide, high) = ((wide + high) / 2, (wide + high) / 2);
                return Quad(alike ? ShapeKind.Square : ShapeKind.Rectangle, cx, cy, wide, turn, high, turn + clockwise * 90 * Degrees);
            }

            double along = Mean(direction[0], direction[2] + Math.PI),
                across = Mean(direction[1], direction[3] + Math.PI);
            // A rhombus is settled by its sides; its angle stays as drawn.
            var settled = Recogniser.Rest(along);
            across += settled - along;
            if (alike)
                (wide, high) = ((wide + high) / 2, (wide + high) / 2);
            return Quad(alike ? ShapeKind.Rhombus : ShapeKind.Parallelogram, cx, cy, wide, settled, high, across);
        }

        if (!one && !other)
            return Free(ShapeKind.Polygon, c);
        var start = one ? 0 : 1;
        (double X, double Y)[] t = [c[start], c[start + 1], c[(start + 2) % 4], c[(start + 3) % 4]];
        var parallel = Recogniser.Rest(Mean(direction[start], direction[start + 2] + Math.PI));
        var (s, k) = Math.SinCos(parallel);
        // Both parallel sides are turned about their middles.
        Corner About((double X, double Y) a, (double X, double Y) b, int way)
        {
            double mx = (a.X + b.X) / 2,
                my = (a.Y + b.Y) / 2,
                half = Gesture.Distance(a, b) / 2 * way;
            return Corner.At(mx + half * k, my + half * s);
        }

        return new Shape(ShapeKind.Trapezoid, [About(t[0], t[1], -1), About(t[0], t[1], 1), About(t[2], t[3], 1), About(t[2], t[3], -1)]);
    }

    private static Shape Quad(ShapeKind kind, double cx, double cy, double wide, double along, double high, double across)
    {
        double ux = Math.Cos(along) * wide / 2,
            uy = Math.Sin(along) * wide / 2,
            vx = Math.Cos(across) * high / 2,
            vy = Math.Sin(across) * high / 2;
        return new Shape(
            kind,
            [
                Corner.At(cx - ux - vx, cy - uy - vy),
                Corner.At(cx + ux - vx, cy + uy - vy),
                Corner.At(cx + ux + vx, cy + uy + vy),
                Corner.At(cx - ux + vx, cy - uy + vy),
            ]
        );
    }

    /// <summary>Five to eight sides and angles that are all about the same.</summary>
    private static Shape? Regular((double X, double Y)[] c)
    {
        var count = c.Length;
        if (count > 8)
            return null;
        double cx = c.Average(p => p.X),
            cy = c.Average(p => p.Y),
            radius = c.Average(p => Gesture.Distance(p, (cx, cy)));
        for (var i = 0; i < count; i++)
        {
            if (Math.Abs(Gesture.Distance(c[i], (cx, cy)) - radius) > radius * 0.2)
                return null;
            var turn = Gesture.Turn(c[i], c[(i + 1) % count], c[(i + 2) % count]);
            if (Math.Abs(turn - Math.PI * 2 / count) > 20 * Degrees)
                return null;
        }

        var ordered = c.OrderBy(p => Math.Atan2(p.Y - cy, p.X - cx)).ToArray();
        var phase = Phase(ordered, cx, cy);
        return new Shape(
            ShapeKind.RegularPolygon,
            [
                .. Enumerable
                    .Range(0, count)
                    .Select(i =>
                    {
                        var (sin, cos) = Math.SinCos(phase + Math.PI * 2 * i / count);
                        return Corner.At(cx + radius * cos, cy + radius * sin);
                    }),
            ]
        );
    }

    /// <summary>Corners that lie far and near in turn.</summary>
    private static Shape? AsStar((double X, double Y)[] c)
    {
        if (c.Length is < 8 or > 24 || c.Length % 2 != 0)
            return null;
        double cx = c.Average(p => p.X),
            cy = c.Average(p => p.Y);
        var far = c.Select(p => Gesture.Distance(p, (cx, cy))).ToArray();
        var first = far.Where((_, i) => i % 2 == 0).Average() > far.Where((_, i) => i % 2 == 1).Average() ? 0 : 1;
        double least = far.Where((_, i) => i % 2 == first).Min(),
            most = far.Where((_, i) => i % 2 != first).Max();
        if (least < most * 1.15)
            return null;
        var tips = c.Where((_, i) => i % 2 == first).ToArray();
        return Star(tips, far.Where((_, i) => i % 2 != first).Average() / far.Where((_, i) => i % 2 == first).Average());
    }

    /// <summary>As drawn, turned as a whole: so that a long side that is nearly level or upright is so, else so that the longest comes to rest.</summary>
    private static Shape Free(ShapeKind kind, (double X, double Y)[] c)
    {
        var sides = Enumerable
            .Range(0, c.Length)
            .Select(i =>
                (
                    Length: Gesture.Distance(c[i], c[(i + 1) % c.Length]),
                    Direction: Math.Atan2(c[(i + 1) % c.Length].Y - c[i].Y, c[(i + 1) % c.Length].X - c[i].X)
                )
            )
            .ToList();
        var longest = sides.MaxBy(side => side.Length);
        var level = sides
            .Where(side => side.Length > longest.Length * 0.4)
            .Select(side => Math.IEEERemainder(side.Direction, Math.PI / 2))
            .MinBy(Math.Abs);
        var turn = Math.Abs(level) < 6 * Degrees ? -level : Recogniser.Rest(longest.Direction) - longest.Direction;
        var (sin, cos) = Math.SinCos(turn);
        double cx = c.Average(p => p.X),
            cy = c.Average(p => p.Y);
        return new Shape(
            kind,
            [.. c.Select(p => Corner.At(cx + (p.X - cx) * cos - (p.Y - cy) * sin, cy + (p.X - cx) * sin + (p.Y - cy) * cos))]
        );
    }

    /// <summary>The direction of the first of evenly turned points that suits them all best, at rest where near.</summary>
    private static double Phase((double X, double Y)[] ordered, double cx, double cy)
    {
        double sin = 0,
            cos = 0;
        for (var i = 0; i < ordered.Length; i++)
        {
            var angle = Math.Atan2(ordered[i].Y - cy, ordered[i].X - cx) - Math.PI * 2 * i / ordered.Length;
            (sin, cos) = (sin + Math.Sin(angle), cos + Math.Cos(angle));
        }

        var phase = Math.Atan2(sin, cos);
        // A tip that points straight up, down or aside rests there.
        var even = Math.PI * 2 / ordered.Length;
        foreach (var rest in new[] { -90 * Degrees, 90 * Degrees, 0, 180 * Degrees })
        {
            var off = Math.IEEERemainder(phase - rest, even);
            if (Math.Abs(off) < 5 * Degrees)
                return phase - off;
        }

        return phase;
    }

    /// <summary>The angle between two directions taken as lines, 0 to 90°.</summary>
    private static double Between(double one, double other)
    {
        var angle = Math.Abs(Math.IEEERemainder(one - other, Math.PI));
        return angle;
    }

    private static double Mean(double one, double other) => one + Math.IEEERemainder(other - one, Math.PI * 2) / 2;
}
