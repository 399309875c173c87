namespace CalmQuill.Core.Typesetting;

/// <summary>A piece of text where it stands on its line.</summary>
/// <param name="Start">Its first letter in the paragraph.</param>
/// <param name="Shape">Its glyphs.</param>
/// <param name="Style">How it looks.</param>
/// <param name="X">Its left edge, in bits from the box's left edge.</param>
/// <param name="Width">How wide it is, in bits; spaces of justified lines are wider than their glyphs.</param>
public sealed record SetPiece(int Start, ShapedPiece Shape, LetterStyle Style, int X, int Width)
{
    public int End => Start + Shape.Text.Length;

    public bool IsSpace => Shape.IsSpace;

    /// <summary>Where the edge before a letter of the paragraph lies, in bits from the box's left edge.</summary>
    public int EdgeBefore(int letter)
    {
        var edge = Shape.Advance == 0 ? 0 : Width * Shape.EdgeBefore(letter - Start) / Shape.Advance;
        return X + (int)edge;
    }
}
