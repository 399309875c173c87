namespace CalmQuill.Core.Typesetting;

/// <summary>
/// Lengths of type in whole numbers, so that every device breaks the same lines: 1/64 of 0.01 mm, here a <em>bit</em>. A point is 1/72 inch, so 0.1 pt is
/// 127/36 hundredths of a millimetre.
/// </summary>
public static class Lengths
{
    /// <summary>How many make 0.01 mm.</summary>
    public const int PerUnit = 64;

    /// <summary>A length of type as bits.</summary>
    /// <param name="tenths">The length, 0.1 pt.</param>
    public static int OfType(long tenths) => (int)Divide(tenths * 127 * PerUnit, 36);

    /// <summary>A length of a font as bits.</summary>
    /// <param name="units">The length in the font's units.</param>
    /// <param name="size">Height of the type, 0.1 pt.</param>
    /// <param name="unitsPerEm">How many units that height has.</param>
    public static int OfFont(long units, int size, int unitsPerEm) => (int)Divide(units * size * 127 * PerUnit, 36L * unitsPerEm);

    /// <summary>Rounded to the nearest, halves up.</summary>
    private static long Divide(long one, long by)
    {
        var (whole, rest) = Math.DivRem(one * 2 + by, by * 2);
        return rest < 0 ? whole - 1 : whole;
    }
}
