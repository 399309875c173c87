namespace CalmQuill.Core.Ink;

/// <summary>A change of place, size and direction: x' = a·x + c·y + e, y' = b·x + d·y + f.</summary>
/// <remarks>Kept in whole numbers, so that every device works out the same: a to d in 1/65536, e and f in 0.01 mm.</remarks>
public readonly record struct Transform(int A, int B, int C, int D, int E, int F)
{
    public const int One = 65536;

    /// <summary>The most that one step may scale by.</summary>
    public const int MostScale = 100;

    public static readonly Transform Identity = new(One, 0, 0, One, 0, 0);

    /// <summary>The nearest in whole numbers.</summary>
    public static Transform Near(in Affine affine) =>
        new(
            Rounded(affine.A * One),
            Rounded(affine.B * One),
            Rounded(affine.C * One),
            Rounded(affine.D * One),
            Rounded(affine.E),
            Rounded(affine.F)
        );

    public static Transform Shift(int dx, int dy) => new(One, 0, 0, One, dx, dy);

    /// <summary>Scales about the sheet's corner and then moves.</summary>
    public static Transform Scale(double factor, int dx, int dy)
    {
        var scaled = (int)Math.Round(factor * One);
        return new Transform(scaled, 0, 0, scaled, dx, dy);
    }

    public bool IsShift => A == One && B == 0 && C == 0 && D == One;

    /// <summary>Where it puts a place.</summary>
    public (double X, double Y) Of(double x, double y) => ((A * x + C * y) / One + E, (B * x + D * y) / One + F);

    /// <summary>This, done after another.</summary>
    public Transform After(Transform first)
    {
        var (e, f) = Of(first.E, first.F);
        return new Transform(
            Part((double)A * first.A + (double)C * first.B),
            Part((double)B * first.A + (double)D * first.B),
            Part((double)A * first.C + (double)C * first.D),
            Part((double)B * first.C + (double)D * first.D),
            Rounded(e),
            Rounded(f)
        );
    }

    /// <summary>What undoes it, as near as whole numbers come.</summary>
    public Transform Inverse()
    {
        double area = ((double)A * D - (double)B * C) / One,
            a = D / area,
            b = -B / area,
            c = -C / area,
            d = A / area;
        return new Transform(
            Rounded(a * One),
            Rounded(b * One),
            Rounded(c * One),
            Rounded(d * One),
            Rounded(-(a * E + c * F)),
            Rounded(-(b * E + d * F))
        );
    }

    private static int Part(double product) => Rounded(product / One);

    private static int Rounded(double value) => (int)Math.Round(Math.Clamp(value, int.MinValue, int.MaxValue));

    /// <summary>The same size and direction, moved so that one place comes to lie on another.</summary>
    public Transform Sending((double X, double Y) from, (double X, double Y) to)
    {
        var (x, y) = (this with { E = 0, F = 0 }).Of(from.X, from.Y);
        return this with { E = (int)Math.Round(to.X - x), F = (int)Math.Round(to.Y - y) };
    }

    /// <summary>The nearest that keeps proportions: it turns as much, mirrors where this does, and areas grow as much.</summary>
    /// <remarks>Nearest in the squares of the differences for the direction (the polar part of a 2 by 2 matrix); the size is the square root of the determinant.</remarks>
    public Transform InProportion()
    {
        var area = (double)A * D - (double)B * C;
        var mirrors = area < 0;
        double p = mirrors ? (double)A - D : (double)A + D,
            q = mirrors ? (double)B + C : (double)B - C,
            length = Math.Sqrt(p * p + q * q),
            size = length > 0 ? Math.Sqrt(Math.Abs(area)) / length : 0;
        var (a, b) = ((int)Math.Round(p * size), (int)Math.Round(q * size));
        return mirrors ? new Transform(a, b, b, -a, E, F) : new Transform(a, b, -b, a, E, F);
    }

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
