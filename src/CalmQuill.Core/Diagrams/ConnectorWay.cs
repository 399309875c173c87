using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Diagrams;

/// <summary>The way of a connector between two things: where it leaves the one, which corners it turns, where it meets the other.</summary>
public static class ConnectorWay
{
    /// <summary>A connector from a thing to itself goes so far out, 0.01 mm.</summary>
    private const double Loop = 700;

    /// <summary>What is nearly level or upright is bent nowhere, 0.01 mm.</summary>
    private const double Even = 30;

    /// <summary>The points of the way: its ends, and between them corners, or of a curve its two control points.</summary>
    /// <param name="from">Where it begins.</param>
    /// <param name="to">Where it ends.</param>
    /// <param name="isSame">Whether both are the same thing.</param>
    /// <param name="route">How it runs.</param>
    public static IReadOnlyList<Corner> Between(Anchor from, Anchor to, bool isSame, ConnectorRoute route)
    {
        if (isSame && !from.IsSpot)
            return Around(from, route);
        double dx = to.X - from.X,
            dy = to.Y - from.Y;
        if (route == ConnectorRoute.Straight || (dx == 0 && dy == 0))
            return Points(from.Towards(dx, dy), to.Towards(-dx, -dy));
        // Out at the sides that face each other across the wider room.
        var isLevel =
            Gap(from.Box.Left, from.Box.Right, to.Box.Left, to.Box.Right) >= Gap(from.Box.Top, from.Box.Bottom, to.Box.Top, to.Box.Bottom);
        var (ux, uy) = isLevel ? (dx < 0 ? -1.0 : 1.0, 0.0) : (0.0, dy < 0 ? -1.0 : 1.0);
        var (a, b) = (from.Towards(ux, uy), to.Towards(-ux, -uy));
        if (Math.Abs(isLevel ? b.Y - a.Y : b.X - a.X) < Even)
            return Points(a, b);
        // Half way it turns; a curve has its control points there.
        double x = a.X + (b.X - a.X) / 2,
            y = a.Y + (b.Y - a.Y) / 2;
        return isLevel ? Points(a, (x, a.Y), (x, b.Y), b) : Points(a, (a.X, y), (b.X, y), b);
    }

    /// <summary>From a thing's right side over its upper right corner down to its upper side.</summary>
    private static IReadOnlyList<Corner> Around(Anchor thing, ConnectorRoute route)
    {
        var (right, top) = (thing.Towards(1, 0), thing.Towards(0, -1));
        double x = thing.Box.Right + Loop,
            y = thing.Box.Top - Loop;
        return route == ConnectorRoute.Curved
            ? Points(right, (x + Loop, right.Y), (top.X, y - Loop), top)
            : Points(right, (x, right.Y), (x, y), (top.X, y), top);
    }

    private static double Gap(int low, int high, int otherLow, int otherHigh) => Math.Max(otherLow - high, low - otherHigh);

    private static IReadOnlyList<Corner> Points(params (double X, double Y)[] points) =>
        [.. points.Select(point => Corner.At(point.X, point.Y))];
}
