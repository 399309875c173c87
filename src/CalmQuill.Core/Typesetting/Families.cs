namespace CalmQuill.Core.Typesetting;

/// <summary>
/// Which fonts a letter is looked for in, one after the other. The five families cover Latin and Cyrillic, the first three Greek too; other scripts have
/// fonts of their own.
/// </summary>
public static class Families
{
    public const string Usual = "serif";

    /// <summary>The font that has a sign which no font has: an empty frame.</summary>
    private const string Last = "sans";

    /// <summary>The font of formulas, which has what else mathematics writes with.</summary>
    public const string Formulas = "math";

    /// <summary>First and last code point of signs that only formulas have: arrows, operators, letters of another cut; ascending.</summary>
    private static readonly (int First, int Last)[] OfFormulas =
    [
        (0x2070, 0x209F),
        (0x20D0, 0x20FF),
        (0x2100, 0x21FF),
        (0x2200, 0x22FF),
        (0x2300, 0x23BF),
        (0x27C0, 0x27FF),
        (0x2900, 0x2AFF),
        (0x1D400, 0x1D7FF),
    ];

    /// <summary>First and last code point of other scripts and signs, and the font that has them; ascending.</summary>
    private static readonly (int First, int Last, string Font)[] Scripts =
    [
        (0x0530, 0x058F, "armenian"),
        (0x0590, 0x05FF, "hebrew"),
        (0x0600, 0x06FF, "arabic"),
        (0x0750, 0x077F, "arabic"),
        (0x0870, 0x08FF, "arabic"),
        (0x0900, 0x097F, "devanagari"),
        (0x0980, 0x09FF, "bengali"),
        (0x0A00, 0x0A7F, "gurmukhi"),
        (0x0A80, 0x0AFF, "gujarati"),
        (0x0B00, 0x0B7F, "oriya"),
        (0x0B80, 0x0BFF, "tamil"),
        (0x0C00, 0x0C7F, "telugu"),
        (0x0C80, 0x0CFF, "kannada"),
        (0x0D00, 0x0D7F, "malayalam"),
        (0x0D80, 0x0DFF, "sinhala"),
        (0x0E00, 0x0E7F, "thai"),
        (0x0E80, 0x0EFF, "lao"),
        (0x1000, 0x109F, "myanmar"),
        (0x10A0, 0x10FF, "georgian"),
        (0x1200, 0x139F, "ethiopic"),
        (0x1780, 0x17FF, "khmer"),
        (0x19E0, 0x19FF, "khmer"),
        (0x1C90, 0x1CBF, "georgian"),
        (0x1CD0, 0x1CFF, "devanagari"),
        (0x203C, 0x203C, "emoji"),
        (0x2049, 0x2049, "emoji"),
        (0x20E3, 0x20E3, "emoji"),
        (0x231A, 0x231B, "emoji"),
        (0x23CF, 0x23FF, "emoji"),
        (0x2600, 0x27BF, "emoji"),
        (0x2B05, 0x2B55, "emoji"),
        (0x2D00, 0x2D2F, "georgian"),
        (0x2D80, 0x2DDF, "ethiopic"),
        (0xA8E0, 0xA8FF, "devanagari"),
        (0xA9E0, 0xA9FF, "myanmar"),
        (0xAA60, 0xAA7F, "myanmar"),
        (0xAB00, 0xAB2F, "ethiopic"),
        (0xFB13, 0xFB17, "armenian"),
        (0xFB1D, 0xFB4F, "hebrew"),
        (0xFB50, 0xFDFF, "arabic"),
        (0xFE70, 0xFEFF, "arabic"),
        (0x1F000, 0x1FAFF, "emoji"),
    ];

    /// <summary>Signs before this one no script has a font of its own for.</summary>
    internal const int Near = 0x0530;

    /// <summary>The names of all shipped fonts; each has the number of its place.</summary>
    public static readonly IReadOnlyList<string> All =
    [
        .. new[] { "serif", "sans", "mono", "round", "hand" }.SelectMany(family =>
            new[] { (false, false), (true, false), (false, true), (true, true) }
                .Select(style => NameOf(family, style.Item1, style.Item2))
                .Distinct()
        ),
        .. Scripts.Select(script => script.Font).Distinct(),
        Formulas,
        .. EasternFonts.All,
    ];

    /// <summary>Whether a family has a font of its own for slanted letters; else the upright one is slanted.</summary>
    public static bool HasItalic(string family) => family is not "hand";

    /// <summary>The name of a family's font.</summary>
    public static string NameOf(string family, bool bold, bool italic) =>
        (bold, italic && HasItalic(family)) switch
        {
            (true, true) => family + "-bold-italic",
            (true, false) => family + "-bold",
            (false, true) => family + "-italic",
            _ => family,
        };

    /// <summary>The font that a sign is set in; null while that is not at hand.</summary>
    /// <param name="code">The sign.</param>
    /// <param name="family">The family that is asked for.</param>
    /// <param name="bold">Whether it is bold.</param>
    /// <param name="italic">Whether it is slanted.</param>
    /// <param name="eastern">Which of Chinese, Japanese and Korean it is, if it is any: see <see cref="EasternFonts.LanguageIn"/>.</param>
    public static Font? FontOf(int code, string family, bool bold, bool italic, string eastern = EasternFonts.Chinese)
    {
        var script = EasternFonts.Has(code) ? EasternFonts.SliceOf(code, eastern) : ScriptOf(code);
        if (script is not null)
            return Fonts.Find(script);
        if (Fonts.Find(NameOf(family, bold, italic)) is not { } own)
            return null;
        if (own.File.GlyphOf(code) != 0)
            return own;
        // Whoever has it first; where nobody does, the family itself shows that something is there.
        foreach (var other in new[] { NameOf(Last, bold, italic), NameOf(Usual, bold, italic), Formulas })
        {
            if (other == own.Name || (other == Formulas && !OfFormulas.Any(range => range.First <= code && code <= range.Last)))
                continue;
            if (Fonts.Find(other) is not { } font)
                return null;
            if (font.File.GlyphOf(code) != 0)
                return font;
        }

        return own;
    }

    private static string? ScriptOf(int code)
    {
        if (code < Scripts[0].First)
            return null;
        foreach (var (first, last, font) in Scripts)
        {
            if (code < first)
                return null;
            if (code <= last)
                return font;
        }

        return null;
    }
}
