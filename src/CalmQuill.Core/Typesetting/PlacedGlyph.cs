using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Typesetting;

/// <summary>A glyph where it lies in the box of its text.</summary>
/// <param name="Font">The font.</param>
/// <param name="Glyph">Its number in it.</param>
/// <param name="Style">How it looks.</param>
/// <param name="X">Where it begins, in bits from the box's left edge.</param>
/// <param name="Y">Where it stands, in bits below the first line.</param>
/// <param name="Text">The letters that it stands for; empty for one that only goes with another.</param>
public readonly record struct PlacedGlyph(Font Font, int Glyph, LetterStyle Style, int X, int Y, string Text)
{
    /// <summary>How far slanted letters lean, of fonts that have none of their own.</summary>
    private const double Lean = 0.21;

    /// <summary>Whether it shows something, and is no space.</summary>
    public bool IsSeen => Text.Length == 0 || !string.IsNullOrWhiteSpace(Text);

    /// <summary>Whether it leans although its font stands upright.</summary>
    private bool Leans => Style.Italic && Font.Name.StartsWith("hand", StringComparison.Ordinal);

    /// <summary>Where the font's own measures lie in the box, y running down: 0.01 mm for the font's units.</summary>
    public Affine Place
    {
        get
        {
            var scale = Style.OwnSize * 127.0 / 36 / Font.File.UnitsPerEm;
            return new Affine(scale, 0, Leans ? -Lean * scale : 0, scale, X / (double)Lengths.PerUnit, Y / (double)Lengths.PerUnit);
        }
    }

    /// <summary>The glyphs of a text, line by line, each from left to right.</summary>
    public static IEnumerable<PlacedGlyph> Of(SetText text)
    {
        foreach (var (paragraph, _, y) in text.Paragraphs)
        {
            foreach (var glyph in Of(paragraph))
                yield return glyph with
                {
                    Y = y + glyph.Y,
                };
        }
    }

    /// <summary>The glyphs of a paragraph, as if the line before it stood at 0.</summary>
    public static IEnumerable<PlacedGlyph> Of(SetParagraph paragraph)
    {
        if (paragraph.Sign is { } sign)
        {
            foreach (var glyph in Of(sign, paragraph.Lines[0].Y))
                yield return glyph;
        }

        foreach (var line in paragraph.Lines)
        {
            foreach (var piece in line.Pieces)
            {
                foreach (var glyph in Of(piece, line.Y))
                    yield return glyph;
            }
        }
    }

    /// <summary>Of the glyphs that stand for the same letters the one that speaks for them: dots and marks lie off their place.</summary>
    private static int WidestFrom(IReadOnlyList<ShapedGlyph> glyphs, int first)
    {
        var widest = first;
        for (var i = first + 1; i < glyphs.Count && glyphs[i].Cluster == glyphs[first].Cluster; i++)
        {
            if (glyphs[i].Advance > glyphs[widest].Advance)
                widest = i;
        }

        return widest;
    }

    private static IEnumerable<PlacedGlyph> Of(SetPiece piece, int y)
    {
        var shape = piece.Shape;
        // What a tab leads over is empty.
        if (shape.Font is not { } font || shape.Text == "\t")
            yield break;
        int size = piece.Style.OwnSize,
            unitsPerEm = font.File.UnitsPerEm;
        long at = 0;
        for (int i = 0, speaks = -1; i < shape.Glyphs.Count; i++)
        {
            var (glyph, cluster, advance, dx, dy) = shape.Glyphs[i];
            if (i == 0 || shape.Glyphs[i - 1].Cluster != cluster)
                speaks = WidestFrom(shape.Glyphs, i);
            yield return new PlacedGlyph(
                font,
                glyph,
                piece.Style,
                piece.X + Lengths.OfFont(at + dx, size, unitsPerEm),
                y - piece.Style.Rise - Lengths.OfFont(dy, size, unitsPerEm),
                i == speaks ? shape.Text[cluster..shape.EndOf(cluster)] : ""
            );
            at += advance;
        }
    }
}
