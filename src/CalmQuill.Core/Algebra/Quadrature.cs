using CalmQuill.Core.Reckoning;

namespace CalmQuill.Core.Algebra;

/// <summary>Integrals by numbers: the rule of Gauss and Kronrod with 7 and 15 places (Kronrod, 1965), halved where the two differ.</summary>
public static class Quadrature
{
    /// <summary>The integral is looked at in so many pieces at most, and to so many parts of what it comes to.</summary>
    private const int MostPieces = 1_500;
    private const double Share = 1e-12;

    /// <summary>A piece so narrow, as a share of the whole, is halved no more; it may come to so much of the whole.</summary>
    private const double Narrow = 1e-13,
        Little = 1e-5;

    private static readonly double[] Places =
    [
        0.991455371120812639206854697526329,
        0.949107912342758524526189684047851,
        0.864864423359769072789712788640926,
        0.741531185599394439863864773280788,
        0.586087235467691130294144691693018,
        0.405845151377397166906606412076961,
        0.207784955007898467600689403773245,
        0,
    ];

    private static readonly double[] Kronrod =
    [
        0.022935322010529224963732008058970,
        0.063092092629978553290700663189204,
        0.104790010322250183839876322541518,
        0.140653259715525918745189590510238,
        0.169004726639267902826583426598550,
        0.190350578064785409913256402421014,
        0.204432940075298892414161999234649,
        0.209482141084727828012999174891714,
    ];

    private static readonly double[] Gauss =
    [
        0.129484966168869693270611432679082,
        0.279705391489276667901467771423780,
        0.381830050505118944950369775488975,
        0.417959183673469387755102040816327,
    ];

    /// <exception cref="FormulaException">It grows without end between the bounds, or has no value there.</exception>
    public static double Over(Func<double, double> of, double from, double to)
    {
        var whole = Rule(of, from, to);
        var open = new Stack<(double From, double To, double Value, double Error)>([(from, to, whole.Value, whole.Error)]);
        var (done, scale) = (0.0, Math.Abs(whole.Value));
        for (var pieces = 0; open.TryPop(out var piece); pieces++)
        {
            var width = Math.Abs((piece.To - piece.From) / (to - from));
            scale = Math.Max(scale, Math.Abs(done));
            // Where it grows without end, what is left beside that must be little.
            var isNarrow = width < Narrow;
            if (isNarrow && !(Math.Abs(piece.Value) <= Little * scale))
                throw new FormulaException($"This integral cannot be worked out between its bounds.", 0);
            if (isNarrow || piece.Error <= Share * Math.Max(scale, 1e-300) * Math.Max(width, 1e-3))
            {
                done += piece.Value;
                continue;
            }

            if (pieces > MostPieces)
                throw new FormulaException($"This integral cannot be worked out between its bounds.", 0);
            var middle = (piece.From + piece.To) / 2;
            foreach (var (begin, end) in new[] { (middle, piece.To), (piece.From, middle) })
            {
                var (value, error) = Rule(of, begin, end);
                open.Push((begin, end, value, error));
            }
        }

        return double.IsFinite(done) ? done : throw new FormulaException($"This integral cannot be worked out between its bounds.", 0);
    }

    private static (double Value, double Error) Rule(Func<double, double> of, double from, double to)
    {
        double middle = (from + to) / 2,
            half = (to - from) / 2,
            centre = of(middle),
            fine = Kronrod[7] * centre,
            rough = Gauss[3] * centre;
        for (var i = 0; i < 7; i++)
        {
            var both = of(middle - half * Places[i]) + of(middle + half * Places[i]);
            fine += Kronrod[i] * both;
            if (i % 2 == 1)
                rough += Gauss[i / 2] * both;
        }

        if (!double.IsFinite(fine))
            throw new FormulaException($"This integral cannot be worked out between its bounds.", 0);
        return (fine * half, Math.Abs((fine - rough) * half));
    }
}
