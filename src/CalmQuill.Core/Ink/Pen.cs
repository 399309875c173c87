namespace CalmQuill.Core.Ink;

/// <summary>What a stroke is drawn with.</summary>
/// <param name="Kind">The pen's character.</param>
/// <param name="Width">Nominal width of the line in 0.01 mm, 10 (0.1 mm) to 2000 (20 mm).</param>
/// <param name="Colour">sRGB with alpha, as 0xRRGGBBAA; the alpha is the ink's opacity.</param>
public readonly record struct Pen(PenKind Kind, int Width, uint Colour)
{
    public const int LeastWidth = 10;

    public const int MostWidth = 2000;

    /// <summary>The farthest that the response to pressure can be set to either side.</summary>
    public const int MostResponse = 100;

    /// <summary>A highlighter never fully covers: its alpha is at most this, of 255.</summary>
    public const uint MostHighlighterAlpha = 150;

    public LineStyle Line { get; init; }

    public NibTip Tip { get; init; }

    /// <summary>The direction of a flat nib's edge, degrees clockwise from the line to the right, 0 to 179.</summary>
    public int Angle { get; init; }

    /// <summary>How pressure is taken: −100 needs a heavy hand, 100 a light one; see <see cref="Pressed"/>.</summary>
    public int Response { get; init; }

    /// <summary>Whether everything but kind, width and colour is as usual.</summary>
    public bool IsPlain => Line == LineStyle.Solid && Tip == NibTip.Round && Angle == 0 && Response == 0;

    /// <summary>Whether it is painted behind ink.</summary>
    public bool LiesBehind => Kind == PenKind.Highlighter;

    /// <summary>The pressure as the pen takes it, 0 to 1: (p/1023) to the power of 2^(−response/50).</summary>
    public float Pressed(int pressure)
    {
        var p = Math.Clamp(pressure, 0, StrokeSamples.MostPressure) / (float)StrokeSamples.MostPressure;
        return Response == 0 ? p : MathF.Pow(p, MathF.Pow(2, -Response / 50f));
    }

    /// <summary>
    /// Half the line's width in 0.01 mm at a pressure of 0–1023, without what speed and tilt do to it. The fountain pen runs from 0.35 to 1.25 times
    /// its nominal half width, along the smooth curve p·(2−p), so that light hands still see a change; the brush from 0.2 to 1.2 times along p^1.5;
    /// the pencil from 0.8 to 1.2 times.
    /// </summary>
    public float Radius(int pressure)
    {
        switch (Kind)
        {
            case PenKind.Fountain:
                var p = Pressed(pressure);
                return Width * 0.5f * (0.35f + 0.9f * p * (2f - p));
            case PenKind.Brush:
                p = Pressed(pressure);
                return Width * 0.5f * (0.2f + p * MathF.Sqrt(p));
            case PenKind.Pencil:
                return Width * 0.5f * (0.8f + 0.4f * Pressed(pressure));
            default:
                return Width * 0.5f;
        }
    }

    /// <summary>The greatest half width the pen can draw, in 0.01 mm.</summary>
    public float MostRadius =>
        Width
        * Kind switch
        {
            PenKind.Fountain => 0.625f,
            PenKind.Brush => 0.6f,
            PenKind.Pencil => 0.6f * (1 + Nib.TiltWidens),
            // A square end reaches farther at its corners.
            PenKind.Highlighter when Tip == NibTip.Square => 0.7072f,
            _ => 0.5f,
        };
}
