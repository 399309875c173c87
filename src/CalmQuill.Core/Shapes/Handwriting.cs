using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Shapes;

/// <summary>Tells what is written from what is drawn: a pen that rests at the end of a word leaves it a word.</summary>
/// <remarks>
/// What was meant as a shape is larger than writing, and simpler: it turns about once where it closes, hardly where it does not, and where it swings to and fro
/// its swings are wide.
/// </remarks>
public static class Handwriting
{
    /// <summary>How large something must be to be taken for a shape when the pen rests, unless the person sets it otherwise; 0.01 mm.</summary>
    public const int UsualLeast = 1_500;

    /// <summary>An open curve that was meant as an arc turns by no more than this, in half turns; letters do.</summary>
    private const double MostArc = 1.7;

    /// <summary>A closed figure turns by two half turns, and by some more for the hand's wobble.</summary>
    private const double MostClosed = 4;

    /// <summary>Between the size at which something may be meant as a shape and so much more lie large letters: there only what swings or points somewhere is sure.</summary>
    private const double Sure = 1.2;

    /// <summary>The same for arcs, and for figures that are hardly regular: flourishes, and letters with a bow and a stem, look like them.</summary>
    private const double SureOfDoubtful = 1.6;

    /// <summary>Each swing of a drawn wave is at least so wide, as a share of what counts as drawn at all; those of a row of m and n are narrower.</summary>
    private const double Swing = 0.25;

    /// <summary>A star of five points turns by four, one of more by more, in half turns; the hand adds to it at every point.</summary>
    private const double MostStar = 9;

    /// <summary>How sure it is that a stroke was written and not drawn as a shape: 0 for a drawing, 1 for writing.</summary>
    /// <param name="stroke">The stroke.</param>
    /// <param name="shape">What it would come out as.</param>
    /// <param name="least">How large what was meant as a shape is at least, 0.01 mm.</param>
    public static double Score(StrokeSamples stroke, Shape shape, int least)
    {
        var gesture = Gesture.Of(stroke);
        double left = gesture.P.Min(p => p.X),
            right = gesture.P.Max(p => p.X),
            top = gesture.P.Min(p => p.Y),
            bottom = gesture.P.Max(p => p.Y);
        var extent = Math.Max(right - left, bottom - top);
        if (extent < least)
            return 1;
        var turns = Turning(gesture) / Math.PI;
        var size = extent / least;
        return shape.Kind switch
        {
            ShapeKind.Arrow or ShapeKind.DoubleArrow => 0,
            ShapeKind.Line => size >= Sure ? 0 : 1,
            ShapeKind.Arc => size >= SureOfDoubtful && turns <= MostArc ? 0 : 1,
            ShapeKind.Wave => extent / Math.Max(1, shape.Detail) >= least * Swing ? 0 : 1,
            ShapeKind.Curve or ShapeKind.Polyline => 1,
            ShapeKind.Star => size >= Sure && turns <= MostStar ? 0 : 1,
            ShapeKind.Polygon or ShapeKind.Rhombus or ShapeKind.Parallelogram or ShapeKind.Trapezoid => size >= SureOfDoubtful
            && turns <= MostClosed
                ? 0
                : 1,
            _ => size >= Sure && turns <= MostClosed ? 0 : 1,
        };
    }

    /// <summary>By how much a line turns on its way, radians, whichever way it does.</summary>
    private static double Turning(Gesture gesture)
    {
        double turning = 0;
        for (var i = 4; i + 4 < gesture.P.Length; i += 4)
            turning += Gesture.Turn(gesture.P[i - 4], gesture.P[i], gesture.P[i + 4]);
        return turning;
    }
}
