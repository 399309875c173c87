namespace CalmQuill.Core.Ink;

/// <summary>A change of place, size and direction in real numbers: x' = a·x + c·y + e, y' = b·x + d·y + f.</summary>
public readonly record struct Affine(double A, double B, double C, double D, double E, double F)
{
    public static readonly Affine Identity = new(1, 0, 0, 1, 0, 0);

    public static Affine Of(in Transform transform) =>
        new(
            transform.A / (double)Transform.One,
            transform.B / (double)Transform.One,
            transform.C / (double)Transform.One,
            transform.D / (double)Transform.One,
            transform.E,
            transform.F
        );

    /// <summary>Its six numbers, from a to f.</summary>
    public double[] Parts => [A, B, C, D, E, F];

    /// <summary>By how much lengths grow: the square root of the area's growth.</summary>
    public double Growth => Math.Sqrt(Math.Abs(A * D - B * C));

    /// <summary>This, done after another.</summary>
    public Affine After(in Affine first)
    {
        var (e, f) = Of(first.E, first.F);
        return new Affine(A * first.A + C * first.B, B * first.A + D * first.B, A * first.C + C * first.D, B * first.C + D * first.D, e, f);
    }

    /// <summary>Where it puts a place.</summary>
    public (double X, double Y) Of(double x, double y) => (A * x + C * y + E, B * x + D * y + F);

    /// <summary>The place that is put there.</summary>
    public (double X, double Y) Back(double x, double y)
    {
        double px = x - E,
            py = y - F,
            area = A * D - B * C;
        return ((px * D - py * C) / area, (py * A - px * B) / area);
    }

    /// <summary>What takes it back.</summary>
    public Affine Inverse()
    {
        var area = A * D - B * C;
        var turned = new Affine(D / area, -B / area, -C / area, A / area, 0, 0);
        var (x, y) = turned.Of(-E, -F);
        return turned.Shifted(x, y);
    }

    public Affine Shifted(double dx, double dy) => this with { E = E + dx, F = F + dy };
}
