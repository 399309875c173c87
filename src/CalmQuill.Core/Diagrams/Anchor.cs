using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;

namespace CalmQuill.Core.Diagrams;

/// <summary>What an end of a connector is joined to: a thing's edge on the page, or a bare spot.</summary>
public sealed class Anchor
{
    /// <summary>A connector keeps so far from ink and letters, which have no edge of their own; 0.01 mm.</summary>
    private const int Room = 150;

    /// <summary>The corners of the edge, as x, y, x, y…; none for a spot.</summary>
    private readonly double[] edge;

    private Anchor(double[] edge, Box box) => (this.edge, Box) = (edge, box);

    /// <summary>The box around it, 0.01 mm.</summary>
    public Box Box { get; }

    public double X => (Box.Left + (double)Box.Right) / 2;

    public double Y => (Box.Top + (double)Box.Bottom) / 2;

    /// <summary>Whether it is a spot, at which the connector just ends.</summary>
    public bool IsSpot => edge.Length == 0;

    public static Anchor At(double x, double y) =>
        new([], new Box((int)Math.Round(x), (int)Math.Round(y), (int)Math.Round(x), (int)Math.Round(y)));

    /// <summary>The edge of a thing: of a shape that closes its line, of what lies in a box that box, and of all else a box around it.</summary>
    public static Anchor Of(ItemContent content) =>
        content switch
        {
            ShapeContent { Shape.IsClosed: true } shape => Of(shape.Corners),
            SolidContent solid and not TextContent => Of(solid.Corners),
            _ => Around(content.Bounds.Grow(Room)),
        };

    /// <summary>Where a ray from its middle leaves it: as far out as its edge goes.</summary>
    public (double X, double Y) Towards(double dx, double dy)
    {
        var farthest = 0.0;
        for (var i = 0; i < edge.Length; i += 2)
        {
            double ax = edge[i] - X,
                ay = edge[i + 1] - Y,
                ux = edge[(i + 2) % edge.Length] - X - ax,
                uy = edge[(i + 3) % edge.Length] - Y - ay,
                // Solves a + s·u = t·d.
                cross = ux * dy - uy * dx;
            if (Math.Abs(cross) < 1e-9)
                continue;
            double s = (ay * dx - ax * dy) / cross,
                t = (ay * ux - ax * uy) / cross;
            if (s is >= -1e-9 and <= 1 + 1e-9 && t > farthest)
                farthest = t;
        }

        return (X + dx * farthest, Y + dy * farthest);
    }

    private static Anchor Of(double[] corners) => new(corners, Box.Around(corners));

    private static Anchor Around(Box box) => new([box.Left, box.Top, box.Right, box.Top, box.Right, box.Bottom, box.Left, box.Bottom], box);
}
