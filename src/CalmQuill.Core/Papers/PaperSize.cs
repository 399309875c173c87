using System.Globalization;

namespace CalmQuill.Core.Papers;

/// <summary>The size of a sheet held upright, in 0.01 mm.</summary>
/// <param name="Name">Its short name in the text form; a free size is named by its measures.</param>
/// <param name="Width">The shorter edge of a named size; as given for a free one.</param>
/// <param name="Height">The other edge.</param>
public readonly record struct PaperSize(string Name, int Width, int Height)
{
    /// <summary>A sheet's edge is 20 mm to 2 m long.</summary>
    public const int Least = 2_000,
        Most = 200_000;

    /// <summary>ISO 216 (A and B series), ANSI/ASME Y14.1 (Letter, Tabloid), common practice (Legal, and the screen shapes at a width that fits beside A4).</summary>
    public static readonly PaperSize[] Named =
    [
        new("a3", 29700, 42000),
        new("a4", 21000, 29700),
        new("a5", 14800, 21000),
        new("a6", 10500, 14800),
        new("b5", 17600, 25000),
        new("letter", 21590, 27940),
        new("legal", 21590, 35560),
        new("tabloid", 27940, 43180),
        new("wide", 18000, 32000),
        new("screen", 21000, 28000),
        new("square", 21000, 21000),
    ];

    /// <summary>Whether it usually lies across, as screens do.</summary>
    public bool LiesAcross => Name is "wide" or "screen";

    public static PaperSize A4 => Named[1];

    /// <summary>The named size, or the free one written as <c>15000x21000</c>; null when it is neither or beyond the limits.</summary>
    public static PaperSize? Find(string name)
    {
        foreach (var size in Named)
        {
            if (size.Name == name)
                return size;
        }

        var cross = name.IndexOf('x', StringComparison.Ordinal);
        return
            cross > 0
            && int.TryParse(name.AsSpan(0, cross), NumberStyles.None, CultureInfo.InvariantCulture, out var width)
            && int.TryParse(name.AsSpan(cross + 1), NumberStyles.None, CultureInfo.InvariantCulture, out var height)
            && width is >= Least and <= Most
            && height is >= Least and <= Most
            ? new PaperSize(string.Create(CultureInfo.InvariantCulture, $"{width}x{height}"), width, height)
            : null;
    }
}
