namespace CalmQuill.Core.Ink;

/// <summary>What a stroke is drawn with.</summary>
/// <param name="Kind">The pen's character.</param>
/// <param name="Width">Nominal width of the line in 0.01 mm, 10 (0.1 mm) to 2000 (20 mm).</param>
/// <param name="Colour">sRGB with alpha, as 0xRRGGBBAA.</param>
public readonly record struct Pen(PenKind Kind, int Width, uint Colour)
{
    public const int LeastWidth = 10;

    public const int MostWidth = 2000;

    /// <summary>
    /// Half the line's width in 0.01 mm at a pressure of 0–1023. The fountain pen runs from 0.35 to 1.25 times its nominal half width,
    /// along the smooth curve p·(2−p), so that light hands still see a change.
    /// </summary>
    public float Radius(int pressure)
    {
        if (Kind == PenKind.Ball) return Width * 0.5f;
        var p = Math.Clamp(pressure, 0, 1023) / 1023f;
        return Width * 0.5f * (0.35f + 0.9f * p * (2f - p));
    }

    /// <summary>The greatest half width the pen can draw, in 0.01 mm.</summary>
    public float MostRadius => Kind == PenKind.Ball ? Width * 0.5f : Width * 0.625f;
}
