using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Diagrams;

/// <summary>The room in a closed shape in which words stand centred: a rectangle within its line, turned as the shape is.</summary>
/// <param name="X">The middle, 0.01 mm.</param>
/// <param name="Y">The middle, 0.01 mm.</param>
/// <param name="Width">How wide it is along its own direction.</param>
/// <param name="Height">How high it is.</param>
/// <param name="Angle">Its direction, radians, between −π/2 and π/2, so that words never stand on their heads.</param>
public readonly record struct LabelRoom(double X, double Y, double Width, double Height, double Angle)
{
    /// <summary>Words keep so far from a straight line, 0.01 mm.</summary>
    private const double Padding = 150;

    /// <summary>A shape that is as large at most is written into when it is pressed: a larger one is a frame around other things.</summary>
    private const double MostWidth = 12_000,
        MostHeight = 6_000;

    /// <summary>How much of the box around a shape of that kind is within it, wherever its corners are.</summary>
    private const double Half = 0.5,
        Rest = 0.6;

    /// <summary>Whether a press with the text tool into the shape means its words.</summary>
    public bool IsSmall => Width <= MostWidth && Height <= MostHeight;

    /// <summary>The room in a shape; null where it does not close.</summary>
    public static LabelRoom? Of(ShapeContent content)
    {
        if (!content.Shape.IsClosed)
            return null;
        if (content.PlacedShape is not { } shape)
            return In(content.Bounds, Rest);
        var p = shape.Points;
        switch (shape.Kind)
        {
            case ShapeKind.Rectangle or ShapeKind.Square:
                return Turned(Middle(p[0], p[2]), p[0].To(p[1]) - 2 * Padding, p[1].To(p[2]) - 2 * Padding, Direction(p[0], p[1]));
            case ShapeKind.Rhombus:
                return In(Around(p), Half);
            case ShapeKind.Circle:
                var side = p[0].To(p[1]) * Math.Sqrt(2);
                return new LabelRoom(p[0].X, p[0].Y, Least(side), Least(side), 0);
            case ShapeKind.Ellipse:
                return Turned((p[0].X, p[0].Y), p[0].To(p[1]) * Math.Sqrt(2), p[0].To(p[2]) * Math.Sqrt(2), Direction(p[0], p[1]));
            case ShapeKind.Triangle:
                var (cx, cy) = (p.Average(point => (double)point.X), p.Average(point => (double)point.Y));
                return In(Around(p), Half) with { X = cx, Y = cy };
            default:
                return In(Around(p), Rest);
        }
    }

    /// <summary>The room in an upright rectangle.</summary>
    public static LabelRoom Of(Box box) =>
        new(
            (box.Left + (double)box.Right) / 2,
            (box.Top + (double)box.Bottom) / 2,
            Least(box.Right - (double)box.Left - 2 * Padding),
            Least(box.Bottom - (double)box.Top - 2 * Padding),
            0
        );

    /// <summary>Where the measures of words of a height lie that stand in its middle: from the beginning of their first line.</summary>
    /// <param name="ascent">How far their upper edge lies above that line, 0.01 mm.</param>
    /// <param name="bottom">How far their lower edge lies below it.</param>
    public Affine Lay(double ascent, double bottom)
    {
        var (sin, cos) = Math.SinCos(Angle);
        return new Affine(cos, sin, -sin, cos, X, Y).After(Affine.Identity.Shifted(-Width / 2, -(ascent + bottom) / 2 + ascent));
    }

    /// <summary>The same room lies in sides that are taken in turn: the one that runs most nearly level is its width.</summary>
    private static LabelRoom Turned((double X, double Y) middle, double width, double height, double angle)
    {
        const double Quarter = Math.PI / 2;
        var turns = (int)Math.Round(angle / Quarter);
        if (turns % 2 != 0)
            (width, height) = (height, width);
        return new LabelRoom(middle.X, middle.Y, Least(width), Least(height), angle - turns * Quarter);
    }

    private static LabelRoom In(Box box, double share) =>
        new(
            (box.Left + (double)box.Right) / 2,
            (box.Top + (double)box.Bottom) / 2,
            Least((box.Right - (double)box.Left) * share),
            Least((box.Bottom - (double)box.Top) * share),
            0
        );

    private static double Least(double side) => Math.Clamp(side, TextContent.LeastMeasure, TextContent.MostMeasure);

    private static Box Around(IReadOnlyList<Corner> points) => Box.Around(points.Select(point => ((double)point.X, (double)point.Y)));

    private static (double X, double Y) Middle(Corner a, Corner b) => ((a.X + (double)b.X) / 2, (a.Y + (double)b.Y) / 2);

    private static double Direction(Corner from, Corner to) => Math.Atan2(to.Y - (double)from.Y, to.X - (double)from.X);
}
