using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Shapes;

/// <summary>What a rough line was meant to be.</summary>
/// <remarks>
/// The line is taken apart into points at even distances. What closes is held against an ellipse (by the moments of its area) and a polygon (corners by
/// Ramer, Douglas and Peucker, sides by total least squares), and the one that fits better wins; polygons are then told apart by their sides and angles.
/// What stays open is a line, an arrow, an arc (circle by least squares after Kåsa 1976), a wave, a line with corners, or a smooth curve, in this order.
/// How often it is right stands in docs/shapes.md.
/// </remarks>
public static class Recogniser
{
    /// <summary>Smaller lines are letters and dots, 0.01 mm.</summary>
    private const double LeastDiagonal = 250;

    private const double Degrees = Math.PI / 180;

    /// <summary>The shape, true and settled; null where a line is too small to be one.</summary>
    /// <param name="samples">The rough line.</param>
    /// <param name="even">Whether sides and axes that are nearly alike are made so.</param>
    public static Shape? Recognise(StrokeSamples samples, bool even = true)
    {
        var gesture = Gesture.Of(samples);
        if (gesture.Diagonal < LeastDiagonal)
            return null;
        if (IsStraight(gesture))
            return Lines.Line(gesture.P[0], gesture.P[^1]);
        if (Arrows.Of(gesture) is { } arrow)
            return arrow;
        if (gesture.Closed() is { } loop)
            return ClosedShapes.Of(loop, even);
        return OpenShapes.Of(gesture);
    }

    /// <summary>Whether a line runs straight from its beginning to its end.</summary>
    internal static bool IsStraight(Gesture gesture)
    {
        if (gesture.Gap < gesture.Length * 0.9)
            return false;
        var most = gesture.P.Max(p => Gesture.ToSegment(p, gesture.P[0], gesture.P[^1]));
        return most < Math.Max(gesture.Gap * 0.055, 30);
    }

    /// <summary>A direction, radians, at rest on a multiple of 15° when it is within 4° of it.</summary>
    internal static double Rest(double direction)
    {
        const double rest = 15 * Degrees;
        var nearest = Math.Round(direction / rest) * rest;
        return Math.Abs(direction - nearest) <= 4 * Degrees ? nearest : direction;
    }
}
