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

    /// <summary>The file that a thing shows: an asset's id.</summary>
    Source = 17,

    /// <summary>How much a picture covers, hundredths: 1 to 100.</summary>
    Opacity = 18,

    /// <summary>How bright a picture is, −100 to 100; see <see cref="Pictures.Tones"/>.</summary>
    Brightness = 19,

    /// <summary>How far its light and its dark lie apart, −100 to 100.</summary>
    Contrast = 20,

    /// <summary>What of a picture is shown: a <see cref="Pictures.PictureCut"/>.</summary>
    Cut = 21,

    /// <summary>How strongly the paper in a picture was cleared away, 0 to 100.</summary>
    Cleared = 22,

    /// <summary>How high a thing's box is, 0.01 mm; <see cref="Measure"/> is how wide.</summary>
    Height = 23,

    /// <summary>The picture that <see cref="Source"/> was made of: an asset's id.</summary>
    Original = 24,

    /// <summary>“1” while a slip is folded.</summary>
    Folded = 25,

    /// <summary>The slip that a thing lies on and is folded away with: an item's id.</summary>
    Within = 26,

    /// <summary>What part of the plane a plot shows: a <see cref="Plots.PlotRange"/>; empty for as much as its points need.</summary>
    Range = 27,

    /// <summary>The names of a plot's scales, each on a line.</summary>
    Axes = 28,

    /// <summary>How a plot or table looks: words of <see cref="Plots.PlotDrawing"/> and <see cref="Tables.TableLayout"/>, parted by blanks.</summary>
    Shows = 29,

    /// <summary>What a plot draws: a <see cref="Plots.PlotCurve"/>.</summary>
    Curve1 = 30,

    /// <inheritdoc cref="Curve1"/>
    Curve2 = 31,

    /// <inheritdoc cref="Curve1"/>
    Curve3 = 32,

    /// <inheritdoc cref="Curve1"/>
    Curve4 = 33,

    /// <inheritdoc cref="Curve1"/>
    Curve5 = 34,

    /// <inheritdoc cref="Curve1"/>
    Curve6 = 35,

    /// <summary>Points that a plot shows: a <see cref="Plots.PlotData"/>.</summary>
    Data1 = 36,

    /// <inheritdoc cref="Data1"/>
    Data2 = 37,

    /// <inheritdoc cref="Data1"/>
    Data3 = 38,

    /// <summary>What a file is called.</summary>
    FileName = 39,

    /// <summary>How large a file is, bytes.</summary>
    FileSize = 40,

    /// <summary>The thing at which a connector begins: an item's id.</summary>
    From = 41,

    /// <summary>The thing at which a connector ends: an item's id.</summary>
    To = 42,

    /// <summary>The closed shape in which words stand centred: an item's id.</summary>
    Holder = 43,

    /// <summary>The letter that a formula is worked out for.</summary>
    Letter = 44,

    /// <summary>The table from which a plot’s first points come: an item's id.</summary>
    Table = 45,

    /// <summary>Whether a slip is pinned over what it lies on, and goes along with that.</summary>
    Pinned = 46,

    /// <summary>Which page of a PDF file is shown, counted from 1; none where <see cref="Source"/> is a picture.</summary>
    Leaf = 47,
}
