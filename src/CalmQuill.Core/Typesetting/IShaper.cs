namespace CalmQuill.Core.Typesetting;

/// <summary>Makes glyphs of letters: which, where, and how far on. HarfBuzz does it, on a server and in a browser alike.</summary>
public interface IShaper
{
    /// <summary>Shapes letters that stand side by side in one font and run in one direction.</summary>
    /// <param name="font">The font.</param>
    /// <param name="text">The letters, in the order in which they are read.</param>
    /// <param name="fromRight">Whether they run from right to left.</param>
    /// <returns>The glyphs from left to right; lengths in the font's units.</returns>
    IReadOnlyList<ShapedGlyph> Shape(Font font, string text, bool fromRight);
}

/// <summary>A glyph as it is set.</summary>
/// <param name="Glyph">Its number in the font.</param>
/// <param name="Cluster">The first of the letters that it stands for.</param>
/// <param name="Advance">How far the next one lies to the right.</param>
/// <param name="Dx">How far it is itself moved to the right.</param>
/// <param name="Dy">How far up.</param>
public readonly record struct ShapedGlyph(int Glyph, int Cluster, int Advance, int Dx, int Dy);
