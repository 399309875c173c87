namespace CalmQuill.Core.Items;

/// <summary>What can be written of an item after it was made. The numbers are part of the stored form and are never used again.</summary>
public enum ItemField : byte
{
    /// <summary>sRGB with alpha: <c>rrggbbaa</c>.</summary>
    Colour = 1,

    /// <summary>Width of the line, 0.01 mm.</summary>
    Width = 2,

    /// <summary>Number of a <see cref="Ink.PenKind"/>.</summary>
    Pen = 3,

    /// <summary>Number of a <see cref="Ink.LineStyle"/>.</summary>
    Line = 4,

    /// <summary>What a shape is filled with: <c>rrggbbaa</c>; alpha 0 for nothing.</summary>
    Fill = 5,

    /// <summary>A <see cref="Shapes.Shape"/> in place of the one it was made as, where it was made.</summary>
    Shape = 6,

    /// <summary>The layer it lies on.</summary>
    Layer = 7,

    /// <summary>How far to the front it lies in its layer, a whole number; 0 at first.</summary>
    Order = 8,

    /// <summary>What it is grouped with: an id that all of the group share; empty for nothing.</summary>
    Group = 9,

    /// <summary>“1” while it is locked in place.</summary>
    Locked = 10,

    /// <summary>How long the lines of a text are, 0.01 mm.</summary>
    Measure = 11,

    /// <summary>How far apart the lines of the paper are that a text stands on, 0.01 mm; 0 for free spacing.</summary>
    Ruling = 12,

    /// <summary>Colour of the line round a box: <c>rrggbbaa</c>; alpha 0 for none.</summary>
    Edge = 13,

    /// <summary>Width of that line, 0.01 mm.</summary>
    EdgeWidth = 14,

    /// <summary>Radius of a box's corners, 0.01 mm.</summary>
    Corner = 15,

    /// <summary>Room between a box's edge and what is in it, 0.01 mm.</summary>
    Padding = 16,
}
