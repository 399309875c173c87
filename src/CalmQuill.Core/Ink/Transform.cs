namespace CalmQuill.Core.Ink;

/// <summary>A change of place, size and direction: x' = a·x + c·y + e, y' = b·x + d·y + f.</summary>
/// <remarks>Kept in whole numbers, so that every device works out the same: a to d in 1/65536, e and f in 0.01 mm.</remarks>
public readonly record struct Transform(int A, int B, int C, int D, int E, int F)
{
    public const int One = 65536;

    /// <summary>The most that one step may scale by.</summary>
    public const int MostScale = 100;

    public static readonly Transform Identity = new(One, 0, 0, One, 0, 0);

    public static Transform Shift(int dx, int dy) => new(One, 0, 0, One, dx, dy);

    /// <summary>Scales about the sheet's corner and then moves.</summary>
    public static Transform Scale(double factor, int dx, int dy)
    {
        var scaled = (int)Math.Round(factor * One);
        return new Transform(scaled, 0, 0, scaled, dx, dy);
    }

    public bool IsShift => A == One && B == 0 && C == 0 && D == One;

    /// <summary>Whether it keeps things visible and finite.</summary>
    public bool IsReasonable
    {
        get
        {
            const long most = (long)MostScale * One;
            var area = Math.Abs((double)A * D - (double)B * C) / ((double)One * One);
            return Math.Abs((long)A) <= most
                && Math.Abs((long)B) <= most
                && Math.Abs((long)C) <= most
                && Math.Abs((long)D) <= most
                && area is >= 1e-4 and <= (double)MostScale * MostScale
                && Math.Abs((long)E) <= StrokeSamples.MostCoordinate
                && Math.Abs((long)F) <= StrokeSamples.MostCoordinate;
        }
    }
}
