namespace CalmQuill.Core.Shapes;

/// <summary>The circle through three points, as an arc from the first by the second to the third.</summary>
/// <param name="X">Centre, 0.01 mm.</param>
/// <param name="Y">Centre, 0.01 mm.</param>
/// <param name="Radius">Radius, 0.01 mm.</param>
/// <param name="Start">Direction of the first point from the centre, radians clockwise.</param>
/// <param name="Sweep">How far the arc runs, radians clockwise; negative the other way.</param>
public readonly record struct Circumcircle(double X, double Y, double Radius, double Start, double Sweep)
{
    /// <summary>Null where the three lie on a line.</summary>
    public static Circumcircle? Of(Corner a, Corner b, Corner c)
    {
        double bx = b.X - a.X,
            by = b.Y - a.Y,
            cx = c.X - a.X,
            cy = c.Y - a.Y,
            cross = 2 * (bx * cy - by * cx);
        var longest = Math.Max(Math.Abs(bx) + Math.Abs(by), Math.Abs(cx) + Math.Abs(cy));
        if (Math.Abs(cross) < longest * 1e-2 * longest || longest == 0)
            return null;
        double b2 = bx * bx + by * by,
            c2 = cx * cx + cy * cy,
            ux = (cy * b2 - by * c2) / cross,
            uy = (bx * c2 - cx * b2) / cross;
        double x = a.X + ux,
            y = a.Y + uy,
            start = Math.Atan2(-uy, -ux),
            middle = Math.Atan2(b.Y - y, b.X - x),
            end = Math.Atan2(c.Y - y, c.X - x);
        double toMiddle = Turn(middle - start),
            toEnd = Turn(end - start);
        // The second point lies on the way: clockwise where it comes before the third.
        return new Circumcircle(x, y, Math.Sqrt(ux * ux + uy * uy), start, toMiddle < toEnd ? toEnd : toEnd - Math.PI * 2);
    }

    public void Along(int steps, Action<double, double> point)
    {
        for (var i = 0; i <= steps; i++)
        {
            var (sin, cos) = Math.SinCos(Start + Sweep * i / steps);
            point(X + Radius * cos, Y + Radius * sin);
        }
    }

    private static double Turn(double angle) => angle < 0 ? angle + Math.PI * 2 : angle;
}
