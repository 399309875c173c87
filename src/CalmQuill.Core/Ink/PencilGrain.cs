namespace CalmQuill.Core.Ink;

/// <summary>The paper's grain under a pencil: a soft noise, the same on every device, which repeats every 10.24 mm.</summary>
/// <remarks>
/// A pencil's line is an outline like any other, filled by a tile of the grain: the more it is pressed and the less it leans, the more of the noise it
/// covers. Screen, picture, SVG and PDF take the same tiles. The tile lies where the stroke was written and goes with it, so that a stroke that is
/// moved keeps its look.
/// </remarks>
public static class PencilGrain
{
    /// <summary>The tile's width and height, 0.01 mm.</summary>
    public const int Side = Cells * Cell;

    /// <summary>So many densities there are; at the densest nothing stays bare.</summary>
    public const int Levels = 16;

    /// <summary>A tile of the finest measure has so many points along each side.</summary>
    public const int MostPoints = 256;

    private const int Cell = 16,
        Cells = 64;

    /// <summary>What is smaller than this, 0.01 mm, is a dot, which is seen however lightly it was put down.</summary>
    private const int Dot = 80;
    private const int DotLevel = 13;

    /// <summary>How densely a stroke covers the grain, 0 to <see cref="Levels"/> − 1; the densest for all pens but the pencil.</summary>
    public static int LevelOf(StrokeSamples samples, Pen pen)
    {
        if (pen.Kind != PenKind.Pencil)
            return Levels - 1;
        var pressed = 0L;
        foreach (var pressure in samples.Pressure)
            pressed += pressure;
        var level = LevelOf(pen.Pressed((int)(pressed / samples.Count)), Nib.Lean(samples, samples.Count / 2));
        var box = samples.Bounds();
        return Math.Max(box.Right - box.Left, box.Bottom - box.Top) < Dot ? Math.Max(level, DotLevel) : level;
    }

    /// <param name="pressed">Pressure as the pen takes it, 0 to 1.</param>
    /// <param name="lean">0 upright to 1 flat.</param>
    public static int LevelOf(float pressed, float lean) =>
        Math.Clamp((int)MathF.Round((Share(pressed, lean) - 0.2f) / 0.8f * (Levels - 1)), 0, Levels - 1);

    private static float Share(float pressed, float lean) => 0.5f + 0.5f * pressed - 0.3f * lean;

    /// <summary>Where in the tile a stroke begins that was shifted so far, 0 to <see cref="Side"/>, in sixteenths of it: in files one definition serves all that lie alike.</summary>
    public static int Offset(long shift)
    {
        const int Step = Side / 16;
        return (int)((shift % Side + Side) % Side / Step * Step);
    }

    /// <summary>A tile: how much of each point is covered, 0 to 255, row by row from above.</summary>
    /// <param name="level">See <see cref="LevelOf(StrokeSamples, Pen)"/>.</param>
    /// <param name="points">Points along each side: 256 or a half, a quarter … of it.</param>
    public static byte[] Tile(int level, int points)
    {
        var share = 0.2f + 0.8f * level / (Levels - 1);
        // A point is the mean of two places a cell of the noise, each way; one within a cell is looked at in its middle.
        var each = Math.Max(1, Side / points * 2 / Cell);
        var tile = new byte[points * points];
        var step = (float)Side / points / each;
        for (var y = 0; y < points; y++)
        {
            for (var x = 0; x < points; x++)
            {
                var covered = 0f;
                for (var v = 0; v < each; v++)
                {
                    for (var u = 0; u < each; u++)
                    {
                        var noise = Noise((x * each + u + 0.5f) * step, (y * each + v + 0.5f) * step);
                        covered += Math.Clamp((share - noise) * Sharpness + 0.5f, 0f, 1f);
                    }
                }

                tile[y * points + x] = level == Levels - 1 ? (byte)255 : (byte)MathF.Round(covered / (each * each) * 255);
            }
        }

        return tile;
    }

    /// <summary>How steeply covered ground falls off to bare ground.</summary>
    private const float Sharpness = 9f;

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

    /// <summary>An integer hash by multiplication and shifts, in the manner of Wang, of a place in the tile.</summary>
    private static float Hash(int x, int y)
    {
        var h = unchecked((uint)(x & (Cells - 1)) * 0x8DA6B343u ^ (uint)(y & (Cells - 1)) * 0xD8163841u);
        h = unchecked((h ^ (h >> 15)) * 0x2C1B3C6Du);
        h = unchecked((h ^ (h >> 12)) * 0x297A2D39u);
        return ((h ^ (h >> 15)) >> 8) / 16777216f;
    }
}
