namespace CalmQuill.Core.Ink;

/// <summary>What is filled with one colour.</summary>
/// <param name="Colour">0xRRGGBBAA.</param>
/// <param name="Rings">Its rings, whose corners are doubled, as an <see cref="Outline"/> has them.</param>
public sealed record Region(uint Colour, IReadOnlyList<(double X, double Y)[]> Rings)
{
    /// <summary>A ring with these corners.</summary>
    public static (double X, double Y)[] Ring(params IEnumerable<(double X, double Y)> corners) =>
        [.. corners.SelectMany(corner => new[] { corner, corner })];

    /// <summary>A ring that is a box.</summary>
    public static (double X, double Y)[] Box(double left, double top, double right, double bottom) =>
        Ring((left, top), (right, top), (right, bottom), (left, bottom));
}
