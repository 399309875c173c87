namespace CalmQuill.Core.Ink;

/// <summary>How graphite takes to paper: where its grain is filled and where it stays bare.</summary>
/// <remarks>The grain is value noise on cells of 0.16 mm, so it belongs to the stroke's own place and looks the same wherever it is drawn.</remarks>
internal static class PencilGrain
{
    private const float Cell = 16f;

    /// <summary>Whether a thread of a pencil marks the paper here.</summary>
    /// <param name="x">Place on the paper, 0.01 mm.</param>
    /// <param name="y">See <paramref name="x"/>.</param>
    /// <param name="pressed">Pressure as the pen takes it, 0 to 1.</param>
    /// <param name="lean">0 upright to 1 flat.</param>
    public static bool Marks(float x, float y, float pressed, float lean) => Noise(x, y) < 0.5f + 0.5f * pressed - 0.3f * lean;

    /// <summary>A number between 0 and 1 that changes smoothly from cell to cell.</summary>
    private static float Noise(float x, float y)
    {
        float cx = MathF.Floor(x / Cell),
            cy = MathF.Floor(y / Cell),
            tx = x / Cell - cx,
            ty = y / Cell - cy;
        int ix = (int)cx,
            iy = (int)cy;
        var upper = Hash(ix, iy) + (Hash(ix + 1, iy) - Hash(ix, iy)) * tx;
        var lower = Hash(ix, iy + 1) + (Hash(ix + 1, iy + 1) - Hash(ix, iy + 1)) * tx;
        return upper + (lower - upper) * ty;
    }

    /// <summary>An integer hash by multiplication and shifts, in the manner of Wang.</summary>
    private static float Hash(int x, int y)
    {
        var h = unchecked((uint)x * 0x8DA6B343u ^ (uint)y * 0xD8163841u);
        h = unchecked((h ^ (h >> 15)) * 0x2C1B3C6Du);
        h = unchecked((h ^ (h >> 12)) * 0x297A2D39u);
        return (h ^ (h >> 15)) / (float)uint.MaxValue;
    }
}
