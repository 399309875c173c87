using System.Numerics;

namespace CalmQuill.Core.Algebra;

/// <summary>The roots of polynomials by numbers, all at once (Aberth, 1973), each then made better by Newton's step.</summary>
public static class Roots
{
    private const int MostTurns = 200;

    /// <summary>A root whose imaginary part is so small a share of it is real.</summary>
    private const double Real0 = 1e-8;

    /// <summary>The real ones, ascending; of a polynomial that has each of its roots once.</summary>
    /// <param name="shares">What stands before each power, from 0 on.</param>
    public static IReadOnlyList<double> Real(IReadOnlyList<double> shares) =>
        [
            .. All(shares)
                .Where(root => Math.Abs(root.Imaginary) <= Real0 * Math.Max(1e-3, root.Magnitude))
                .Select(root => Polished(shares, root.Real))
                .Order(),
        ];

    /// <summary>All of them, complex ones too.</summary>
    public static IReadOnlyList<Complex> All(IReadOnlyList<double> shares)
    {
        var degree = shares.Count - 1;
        while (degree > 0 && shares[degree] == 0)
            degree--;
        // Roots at 0 are there from the beginning.
        var zeros = 0;
        while (zeros < degree && shares[zeros] == 0)
            zeros++;
        double[] own = [.. shares.Skip(zeros).Take(degree - zeros + 1)];
        var count = own.Length - 1;
        if (count <= 0)
            return [.. Enumerable.Repeat(Complex.Zero, zeros)];
        // All lie in a ring (Cauchy); they begin on a circle in it, nowhere alike.
        var radius = Math.Pow(Math.Abs(own[0] / own[^1]), 1.0 / count);
        var roots = Enumerable.Range(0, count).Select(i => Complex.FromPolarCoordinates(radius, i * Math.Tau / count + 0.4)).ToArray();
        for (var turn = 0; turn < MostTurns; turn++)
        {
            var moved = 0.0;
            for (var i = 0; i < count; i++)
            {
                var (value, slope) = At(own, roots[i]);
                if (value == Complex.Zero)
                    continue;
                var newton = value / slope;
                var others = Complex.Zero;
                for (var k = 0; k < count; k++)
                    others += k == i ? Complex.Zero : 1 / (roots[i] - roots[k]);
                var step = newton / (1 - newton * others);
                if (!Complex.IsFinite(step))
                    continue;
                roots[i] -= step;
                moved = Math.Max(moved, step.Magnitude / Math.Max(roots[i].Magnitude, 1e-300));
            }

            if (moved < 1e-15)
                break;
        }

        return [.. Enumerable.Repeat(Complex.Zero, zeros), .. roots];
    }

    private static double Polished(IReadOnlyList<double> shares, double root)
    {
        for (var i = 0; i < 3; i++)
        {
            var (value, slope) = At(shares, root);
            var next = root - (value / slope).Real;
            if (!double.IsFinite(next) || At(shares, next).Value.Magnitude >= value.Magnitude)
                break;
            root = next;
        }

        return root;
    }

    private static (Complex Value, Complex Slope) At(IReadOnlyList<double> shares, Complex x)
    {
        var (value, slope) = (Complex.Zero, Complex.Zero);
        for (var i = shares.Count - 1; i >= 0; i--)
            (value, slope) = (value * x + shares[i], slope * x + value);
        return (value, slope);
    }
}
