using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Art;

/// <summary>One thing in a drawing. Colours are 0xRRGGBBAA; lengths are 0.01 mm.</summary>
public abstract record Piece
{
    private Piece() { }

    /// <summary>A filled path, by the non-zero rule.</summary>
    public sealed record Fill(VectorPath Path, uint Colour) : Piece;

    /// <summary>A path drawn as a line of an even width. With a dash, ends are round: a dash of no length is a row of dots.</summary>
    public sealed record Line(VectorPath Path, uint Colour, int Width, Dash? Dash = null) : Piece;

    /// <summary>A picture of the space's own, fitted into a box.</summary>
    public sealed record Picture(Guid Asset, Box Area) : Piece;
}

/// <summary>A broken line: so long drawn, so long not, in turn.</summary>
public readonly record struct Dash(int On, int Off);
