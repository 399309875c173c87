namespace CalmQuill.Core.Shapes;

/// <summary>Straight lines whose direction has come to rest.</summary>
internal static class Lines
{
    public static Shape Line((double X, double Y) from, (double X, double Y) to) => Settled(ShapeKind.Line, from, to);

    /// <summary>A shape of two ends, turned about its middle to a direction at rest.</summary>
    public static Shape Settled(ShapeKind kind, (double X, double Y) from, (double X, double Y) to)
    {
        double mx = (from.X + to.X) / 2,
            my = (from.Y + to.Y) / 2,
            half = Gesture.Distance(from, to) / 2,
            direction = Recogniser.Rest(Math.Atan2(to.Y - from.Y, to.X - from.X));
        var (sin, cos) = Math.SinCos(direction);
        return new Shape(kind, [Corner.At(mx - half * cos, my - half * sin), Corner.At(mx + half * cos, my + half * sin)]);
    }
}
