namespace CalmQuill.Demo.Hand;

/// <summary>Lines of clock parts, in mm.</summary>
public static class Drawings
{
    public static List<Point> Circle(Point centre, double radius, double from = -80, double sweep = 366)
    {
        var count = Math.Max(16, (int)(radius * sweep / 120));
        return
        [
            .. Enumerable
                .Range(0, count + 1)
                .Select(i => centre.Polar(radius * (1 + 0.012 * Math.Sin(i * 7.0 / count)), from + sweep * i / count)),
        ];
    }

    /// <summary>A wheel's rim with its teeth, as one line round.</summary>
    public static List<Point> Gear(Point centre, double radius, int teeth, double depth)
    {
        var line = new List<Point>();
        for (var i = 0; i <= teeth; i++)
        {
            var at = 360.0 * i / teeth - 90;
            var step = 360.0 / teeth;
            line.AddRange([
                centre.Polar(radius - depth, at),
                centre.Polar(radius, at + step * 0.28),
                centre.Polar(radius, at + step * 0.52),
                centre.Polar(radius - depth, at + step * 0.74),
            ]);
        }

        return line;
    }

    /// <summary>An escape wheel: each tooth upright at its front and sloping at its back.</summary>
    public static List<Point> EscapeWheel(Point centre, double radius, int teeth)
    {
        var line = new List<Point>();
        for (var i = 0; i <= teeth; i++)
        {
            var at = 360.0 * i / teeth - 90;
            line.AddRange([
                centre.Polar(radius * 0.86, at),
                centre.Polar(radius, at + 1.5),
                centre.Polar(radius * 0.86, at + 360.0 / teeth * 0.62),
            ]);
        }

        return line;
    }

    /// <summary>An anchor over a wheel's centre: the left arm down, and the right.</summary>
    public static IEnumerable<List<Point>> Anchor(Point centre, double radius)
    {
        var arbor = centre + new Point(0, -radius * 1.42);
        Point entry = centre.Polar(radius * 1.03, -135),
            exit = centre.Polar(radius * 1.03, -45);
        yield return
        [
            entry + new Point(3, 4),
            entry,
            entry + new Point(-1, -5),
            arbor + new Point(-radius * 0.5, 1.5),
            arbor,
            arbor + new Point(radius * 0.5, 1.5),
            exit + new Point(1, -5),
            exit,
            exit + new Point(-4, 3),
        ];
        yield return Circle(arbor, 1.6);
    }

    /// <summary>A pendulum hanging from a point, with its swing.</summary>
    public static IEnumerable<List<Point>> Pendulum(Point top, double length, double angle)
    {
        Point At(double degrees) => top.Polar(length, 90 - degrees);
        yield return [top + new Point(-8, 0), top + new Point(8, 0)];
        yield return [top, At(angle)];
        yield return Circle(At(angle), length * 0.075);
        yield return [.. Enumerable.Range(0, 15).Select(i => At(angle - 2 * angle * i / 14.0))];
        yield return [top, At(-angle) * 0.5 + top * 0.5];
    }

    public static IEnumerable<List<Point>> Arrow(Point from, Point to)
    {
        var back = (from - to) * (3 / (from - to).Length);
        yield return [from, to];
        yield return
        [
            to + new Point(back.X - back.Y * 0.5, back.Y + back.X * 0.5),
            to,
            to + new Point(back.X + back.Y * 0.5, back.Y - back.X * 0.5),
        ];
    }

    /// <summary>Squares to tick, one under the other, each followed by its tick when it is done.</summary>
    public static IEnumerable<List<Point>> Box(Point corner, bool ticked)
    {
        yield return [corner, corner + new Point(3.4, 0.1), corner + new Point(3.5, 3.4), corner + new Point(0.1, 3.5), corner];
        if (ticked)
            yield return [corner + new Point(0.6, 1.6), corner + new Point(1.5, 2.8), corner + new Point(4.2, -0.6)];
    }

    /// <summary>A spiral spring from the inside out.</summary>
    public static List<Point> Spiral(Point centre, double radius, double turns) =>
        [.. Enumerable.Range(0, (int)(turns * 24) + 1).Select(i => centre.Polar(2 + (radius - 2) * i / (turns * 24), i * 15))];

    /// <summary>Axes and a curve over them; the curve's points run from 0 to 1 both ways.</summary>
    public static IEnumerable<List<Point>> Graph(Point origin, double width, double height, Func<double, double> curve)
    {
        yield return [origin + new Point(0, -height), origin, origin + new Point(width, 0)];
        yield return [.. Enumerable.Range(0, 31).Select(i => origin + new Point(width * i / 30.0, -height * curve(i / 30.0)))];
    }
}
