namespace CalmQuill.Core.Ink;

/// <summary>What speed, tilt and direction make of a pen's line at one sample.</summary>
public static class Nib
{
    /// <summary>A flat nib's thickness in its own widths.</summary>
    public const float Flatness = 0.16f;

    /// <summary>A pencil laid flat is this much broader than an upright one, in parts of its own width.</summary>
    public const float TiltWidens = 1.6f;

    /// <summary>At this speed, 0.01 mm a millisecond, a brush has lost half of what speed can take: 150 mm a second.</summary>
    private const float HalfSpeed = 15f;

    /// <summary>The most that speed takes off a brush.</summary>
    private const float SpeedTakes = 0.45f;

    /// <summary>Lean from which a pencil lies flat, degrees from upright.</summary>
    private const float FlatFrom = 60f;

    /// <summary>Half the line's width at a sample, 0.01 mm: across a round nib, or along the edge of a flat one.</summary>
    public static float Radius(StrokeSamples samples, int i, Pen pen) =>
        pen.Kind switch
        {
            PenKind.Brush => pen.Radius(samples.Pressure[i]) * (1f - SpeedTakes * Slowed(Speed(samples, i))),
            PenKind.Pencil => pen.Radius(samples.Pressure[i]) * (1f + TiltWidens * Square(Lean(samples, i))),
            _ => pen.Radius(samples.Pressure[i]),
        };

    /// <summary>Half the line's width across its own direction on the way from a sample to the next, 0.01 mm.</summary>
    public static float HalfAcross(StrokeSamples samples, int i, Pen pen)
    {
        if (pen.Kind == PenKind.Ball || pen.Kind == PenKind.Highlighter)
            return pen.Width * 0.5f;
        if (pen.Kind != PenKind.Calligraphy)
            return (Radius(samples, i, pen) + Radius(samples, i + 1, pen)) * 0.5f;
        var across = MathF.Atan2(samples.Y[i + 1] - samples.Y[i], samples.X[i + 1] - samples.X[i]) - pen.Angle * MathF.PI / 180f;
        var (sin, cos) = MathF.SinCos(across);
        return pen.Width * 0.5f * MathF.Sqrt(sin * sin + Flatness * Flatness * cos * cos);
    }

    /// <summary>How far a pencil leans, 0 upright to 1 flat, from its two tilts: cos(lean) is 1/√(1 + tan²x + tan²y).</summary>
    public static float Lean(StrokeSamples samples, int i) =>
        samples.TiltX is null || samples.TiltY is null ? 0 : Lean(samples.TiltX[i], samples.TiltY[i]);

    /// <summary>The same of a pen's two tilts, degrees.</summary>
    public static float Lean(int tiltX, int tiltY)
    {
        float x = MathF.Tan(Radians(tiltX)),
            y = MathF.Tan(Radians(tiltY));
        return Math.Clamp(MathF.Atan(MathF.Sqrt(x * x + y * y)) * 180f / MathF.PI / FlatFrom, 0f, 1f);
    }

    /// <summary>The speed around a sample, 0.01 mm a millisecond, over up to five samples; 0 where time stands still or runs backwards.</summary>
    private static float Speed(StrokeSamples samples, int i)
    {
        int from = Math.Max(0, i - 2),
            to = Math.Min(samples.Count - 1, i + 2);
        var time = samples.Time[to] - (long)samples.Time[from];
        if (time <= 0)
            return 0;
        var way = 0f;
        for (var k = from; k < to; k++)
        {
            float dx = samples.X[k + 1] - samples.X[k],
                dy = samples.Y[k + 1] - samples.Y[k];
            way += MathF.Sqrt(dx * dx + dy * dy);
        }

        return way / time;
    }

    private static float Slowed(float speed) => speed / (speed + HalfSpeed);

    private static float Radians(int degrees) => Math.Clamp(degrees, -89, 89) * MathF.PI / 180f;

    private static float Square(float value) => value * value;
}
