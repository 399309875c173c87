using CalmQuill.Core.Reckoning;

namespace CalmQuill.Core.Plots;

/// <summary>What is laid through points.</summary>
public enum FitKind : byte
{
    None = 0,

    /// <summary>y = a·x</summary>
    Proportion = 1,

    /// <summary>y = a·x + b</summary>
    Line = 2,

    /// <summary>y = a·x² + b·x + c</summary>
    Parabola = 3,

    /// <summary>y = a·x³ + b·x² + c·x + d</summary>
    Cubic = 4,

    /// <summary>y = a·xᵇ</summary>
    Power = 5,

    /// <summary>y = a·eᵇˣ</summary>
    Exponential = 6,
}

/// <summary>A curve through points with the least squares of what they lie off in y.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Factors">Its numbers: of polynomials from the highest power down; of the others a and b.</param>
/// <param name="Share">How much of the spread of y it explains: R², 1 for all.</param>
public sealed record Fit(FitKind Kind, IReadOnlyList<double> Factors, double Share)
{
    /// <summary>Steps of Gauss and Newton until a curve that is no polynomial lies still.</summary>
    private const int MostSteps = 60;

    /// <summary>Lays a curve through points; null where there are too few, or none of that kind goes through them.</summary>
    public static Fit? Of(FitKind kind, IReadOnlyList<(double X, double Y)> points)
    {
        var factors = kind switch
        {
            FitKind.Proportion => Solve(points, [x => x]),
            FitKind.Line => Polynomial(points, 1),
            FitKind.Parabola => Polynomial(points, 2),
            FitKind.Cubic => Polynomial(points, 3),
            FitKind.Power => Curved(points, kind),
            FitKind.Exponential => Curved(points, kind),
            _ => null,
        };
        if (factors is null || !factors.All(double.IsFinite))
            return null;
        var fit = new Fit(kind, factors, 0);
        var mean = points.Average(point => point.Y);
        double all = points.Sum(point => (point.Y - mean) * (point.Y - mean)),
            left = points.Sum(point => (point.Y - fit.At(point.X)) * (point.Y - fit.At(point.X)));
        return fit with { Share = all == 0 ? 1 : 1 - left / all };
    }

    /// <summary>Its height at a place.</summary>
    public double At(double x) =>
        Kind switch
        {
            FitKind.Proportion => Factors[0] * x,
            FitKind.Power => Factors[0] * Functions.Power(x, Factors[1]),
            FitKind.Exponential => Factors[0] * Math.Exp(Factors[1] * x),
            _ => Factors.Aggregate(0.0, (sum, factor) => sum * x + factor),
        };

    /// <summary>Its formula, in words of mathematics: <c>y = 2.0061·x + 0.013</c>.</summary>
    public string Words()
    {
        var (a, b) = (Ticks.Number(Factors[0]), Factors.Count > 1 ? Ticks.Number(Factors[1]) : "");
        return Kind switch
        {
            FitKind.Proportion => $"y = {a}·x",
            FitKind.Power => $"y = {a}·x^{b}",
            FitKind.Exponential => $"y = {a}·e^({b}·x)",
            _ => "y = "
                + string.Concat(
                    Factors.Select(
                        (factor, i) =>
                            (i == 0 ? Ticks.Number(factor) : (factor < 0 ? " − " : " + ") + Ticks.Number(Math.Abs(factor)))
                            + (Factors.Count - 1 - i) switch
                            {
                                0 => "",
                                1 => "·x",
                                2 => "·x²",
                                _ => "·x³",
                            }
                    )
                ),
        };
    }

    /// <summary>About the middle of the points and in their own measure, so that large numbers lose nothing; then as powers of x.</summary>
    private static double[]? Polynomial(IReadOnlyList<(double X, double Y)> points, int degree)
    {
        if (points.Select(point => point.X).Distinct().Count() <= degree)
            return null;
        var middle = points.Average(point => point.X);
        var scale = points.Max(point => Math.Abs(point.X - middle));
        var powers = Enumerable
            .Range(0, degree + 1)
            .Select(power => (Func<double, double>)(x => Math.Pow((x - middle) / scale, degree - power)));
        if (Solve(points, [.. powers]) is not { } own)
            return null;
        // Horner: the polynomial of (x − middle)/scale, multiplied out.
        var factors = new double[] { 0 };
        foreach (var factor in own)
        {
            var next = new double[factors.Length + 1];
            for (var i = 0; i < factors.Length; i++)
            {
                next[i] += factors[i] / scale;
                next[i + 1] -= factors[i] * middle / scale;
            }

            next[^1] += factor;
            factors = next;
        }

        return factors[^(degree + 1)..];
    }

    /// <summary>From the line through the logarithms on, by the method of Gauss and Newton, with steps that make it better.</summary>
    private static double[]? Curved(IReadOnlyList<(double X, double Y)> points, FitKind kind)
    {
        var isPower = kind == FitKind.Power;
        if (points.Count == 0 || points.Any(point => point.Y == 0 || (isPower && point.X <= 0)))
            return null;
        var sign = Math.Sign(points[0].Y);
        if (points.Any(point => Math.Sign(point.Y) != sign))
            return null;
        if (
            Polynomial([.. points.Select(point => (isPower ? Math.Log(point.X) : point.X, Math.Log(Math.Abs(point.Y))))], 1) is not { } line
        )
            return null;
        double a = sign * Math.Exp(line[1]),
            b = line[0];
        for (var step = 0; step < MostSteps; step++)
        {
            var (a0, b0) = (a, b);
            double Shape(double x) => isPower ? Math.Pow(x, b0) : Math.Exp(b0 * x);
            var off = points.Select(point => (point.X, Y: point.Y - a0 * Shape(point.X))).ToList();
            if (Solve(off, [Shape, x => a0 * Shape(x) * (isPower ? Math.Log(x) : x)]) is not { } change)
                return null;
            var (share, before) = (1.0, Off(a0, b0));
            while (share > 1e-6 && !(Off(a0 + share * change[0], b0 + share * change[1]) <= before))
                share /= 2;
            (a, b) = (a0 + share * change[0], b0 + share * change[1]);
            if (Math.Abs(a - a0) <= 1e-14 * Math.Abs(a) && Math.Abs(b - b0) <= 1e-14 * Math.Max(1e-3, Math.Abs(b)))
                break;
        }

        return [a, b];

        double Off(double one, double other) =>
            points.Sum(point =>
            {
                var y = one * (isPower ? Math.Pow(point.X, other) : Math.Exp(other * point.X));
                return (point.Y - y) * (point.Y - y);
            });
    }

    /// <summary>
    /// The factors of some functions whose sum lies nearest to points, by Householder's reflections (QR); null where the points do not say them.
    /// </summary>
    private static double[]? Solve(IReadOnlyList<(double X, double Y)> points, Func<double, double>[] of)
    {
        int rows = points.Count,
            columns = of.Length;
        if (rows < columns)
            return null;
        var matrix = new double[rows, columns];
        var right = new double[rows];
        for (var row = 0; row < rows; row++)
        {
            right[row] = points[row].Y;
            for (var column = 0; column < columns; column++)
                matrix[row, column] = of[column](points[row].X);
        }

        for (var column = 0; column < columns; column++)
        {
            var length = 0.0;
            for (var row = column; row < rows; row++)
                length = Math.Sqrt(length * length + matrix[row, column] * matrix[row, column]);
            if (!(length > 1e-300))
                return null;
            var head = matrix[column, column];
            var alpha = head > 0 ? -length : length;
            matrix[column, column] = head - alpha;
            var square = 0.0;
            for (var row = column; row < rows; row++)
                square += matrix[row, column] * matrix[row, column];
            for (var other = column + 1; other <= columns; other++)
            {
                var sum = 0.0;
                for (var row = column; row < rows; row++)
                    sum += matrix[row, column] * (other == columns ? right[row] : matrix[row, other]);
                var by = 2 * sum / square;
                for (var row = column; row < rows; row++)
                {
                    if (other == columns)
                        right[row] -= by * matrix[row, column];
                    else
                        matrix[row, other] -= by * matrix[row, column];
                }
            }

            // The diagonal of R; what lies below it is not needed again.
            for (var row = column + 1; row < rows; row++)
                matrix[row, column] = 0;
            matrix[column, column] = alpha;
        }

        var factors = new double[columns];
        for (var column = columns - 1; column >= 0; column--)
        {
            var sum = right[column];
            for (var other = column + 1; other < columns; other++)
                sum -= matrix[column, other] * factors[other];
            if (Math.Abs(matrix[column, column]) < 1e-12 * Math.Abs(matrix[0, 0]))
                return null;
            factors[column] = sum / matrix[column, column];
        }

        return factors;
    }
}
