namespace CalmQuill.Core.Typesetting;

/// <summary>Letters that stand side by side on every line, shaped: a word, or the spaces behind it. Lengths are in the font's units.</summary>
public sealed class ShapedPiece
{
    /// <summary>How wide a letter is where no font is at hand, in hundredths of the type.</summary>
    private const int Even = 50;

    private ShapedPiece(Font? font, string text, bool fromRight, IReadOnlyList<ShapedGlyph> glyphs)
    {
        (Font, Text, FromRight, Glyphs) = (font, text, fromRight, glyphs);
        Advance = glyphs.Sum(glyph => (long)glyph.Advance);
        IsSpace = text.AsSpan().IsWhiteSpace();
    }

    /// <summary>The font; null where none is at hand.</summary>
    public Font? Font { get; }

    public string Text { get; }

    /// <summary>Whether it shows nothing: the spaces behind a word, or a tab.</summary>
    public bool IsSpace { get; }

    public bool FromRight { get; }

    /// <summary>The glyphs from left to right; none where no font is at hand.</summary>
    public IReadOnlyList<ShapedGlyph> Glyphs { get; }

    /// <summary>How wide it is.</summary>
    public long Advance { get; }

    public int UnitsPerEm => Font?.File.UnitsPerEm ?? 100;

    public static ShapedPiece Of(Font? font, string text, bool fromRight)
    {
        if (font is not null && Fonts.Shaper is { } shaper)
            return new ShapedPiece(font, text, fromRight, shaper.Shape(font, text, fromRight));
        var glyphs = new ShapedGlyph[text.Length];
        for (var i = 0; i < glyphs.Length; i++)
        {
            var letter = fromRight ? glyphs.Length - 1 - i : i;
            glyphs[i] = new ShapedGlyph(
                0,
                letter,
                char.IsLowSurrogate(text[letter]) ? 0 : Even * (font?.File.UnitsPerEm ?? 100) / 100,
                0,
                0
            );
        }

        return new ShapedPiece(null, text, fromRight, glyphs);
    }

    /// <summary>One glyph, whatever the font would choose for its letters: a larger form of a bracket.</summary>
    public static ShapedPiece Of(Font font, int glyph, string text) =>
        new(font, text, false, [new ShapedGlyph(glyph, 0, font.File.Advance(glyph), 0, 0)]);

    /// <summary>How far from its left edge the edge before a letter lies; letters that share a glyph share its width.</summary>
    public long EdgeBefore(int letter)
    {
        long x = 0;
        for (var i = 0; i < Glyphs.Count; )
        {
            var cluster = Glyphs[i].Cluster;
            long width = 0;
            for (; i < Glyphs.Count && Glyphs[i].Cluster == cluster; i++)
                width += Glyphs[i].Advance;
            var end = EndOf(cluster);
            if (letter >= cluster && letter < end)
            {
                var share = width * (letter - cluster) / (end - cluster);
                return FromRight ? x + width - share : x + share;
            }

            x += width;
        }

        return FromRight ? 0 : Advance;
    }

    /// <summary>How many of its first letters have room; such as share a glyph, or a sign, stay together.</summary>
    /// <param name="room">The room.</param>
    public int Fitting(long room)
    {
        var clusters = Glyphs.Select(glyph => glyph.Cluster).Distinct().Order().ToList();
        long width = 0;
        for (var i = 0; i < clusters.Count; i++)
        {
            width += Glyphs.Where(glyph => glyph.Cluster == clusters[i]).Sum(glyph => (long)glyph.Advance);
            if (width > room)
                return clusters[i];
        }

        return Text.Length;
    }

    /// <summary>Behind the last letter that belongs to the glyphs of a cluster.</summary>
    public int EndOf(int cluster)
    {
        var end = Text.Length;
        foreach (var glyph in Glyphs)
        {
            if (glyph.Cluster > cluster && glyph.Cluster < end)
                end = glyph.Cluster;
        }

        return end;
    }
}
