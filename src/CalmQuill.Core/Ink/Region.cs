namespace CalmQuill.Core.Ink;

/// <summary>What is filled with one colour.</summary>
/// <param name="Colour">0xRRGGBBAA.</param>
/// <param name="Rings">Its rings, whose corners are doubled, as an <see cref="Outline"/> has them.</param>
public sealed record Region(uint Colour, IReadOnlyList<(double X, double Y)[]> Rings);
