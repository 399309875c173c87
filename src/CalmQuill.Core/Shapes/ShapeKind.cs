namespace CalmQuill.Core.Shapes;

/// <summary>What a drawn shape is. The numbers are part of the stored form. Beside each stands what its points are.</summary>
public enum ShapeKind : byte
{
    /// <summary>Both ends.</summary>
    Line = 1,

    /// <summary>Tail, head.</summary>
    Arrow = 2,

    /// <summary>Both heads.</summary>
    DoubleArrow = 3,

    /// <summary>Centre, a point of the rim.</summary>
    Circle = 4,

    /// <summary>Centre, the end of one axis, the end of the other.</summary>
    Ellipse = 5,

    /// <summary>Corners, as of all that have corners.</summary>
    Triangle = 6,
    Square = 7,
    Rectangle = 8,
    Rhombus = 9,
    Parallelogram = 10,
    Trapezoid = 11,
    RegularPolygon = 12,
    Polygon = 13,

    /// <summary>Outer and inner corners in turn.</summary>
    Star = 14,

    /// <summary>Start, a point on the way, end.</summary>
    Arc = 15,

    /// <summary>Points that a smooth line runs through.</summary>
    Curve = 16,

    /// <summary>Start, end, first crest; the detail is the number of half waves.</summary>
    Wave = 17,

    /// <summary>The edge of a filled region.</summary>
    Area = 18,

    /// <summary>An open line with corners: its ends and corners.</summary>
    Polyline = 19,

    /// <summary>
    /// Start and end, and between them the corners of its way, or of a curve its two control points; the detail is a <see cref="Diagrams.ConnectorLook"/>.
    /// </summary>
    Connector = 20,
}
