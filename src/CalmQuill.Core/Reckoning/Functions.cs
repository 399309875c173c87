namespace CalmQuill.Core.Reckoning;

/// <summary>What a formula can call by name.</summary>
internal static class Functions
{
    /// <summary>A function of one or two numbers.</summary>
    /// <param name="Least">How many numbers it takes at least.</param>
    /// <param name="Most">And at most.</param>
    /// <param name="Of">What it makes of them; the second is NaN where there is none.</param>
    public sealed record Function(int Least, int Most, Func<double, double, double> Of)
    {
        /// <summary>Whether what it takes is an angle, or what it gives.</summary>
        public bool TakesAngle { get; init; }

        /// <inheritdoc cref="TakesAngle"/>
        public bool GivesAngle { get; init; }
    }

    /// <summary>Numbers that have a name.</summary>
    public static readonly IReadOnlyDictionary<string, double> Constants = new Dictionary<string, double>(StringComparer.Ordinal)
    {
        ["pi"] = Math.PI,
        ["π"] = Math.PI,
        ["tau"] = Math.Tau,
        ["τ"] = Math.Tau,
        ["e"] = Math.E,
    };

    public static readonly IReadOnlyDictionary<string, Function> All = new Dictionary<string, Function>(StringComparer.Ordinal)
    {
        ["sin"] = Trigonometric(Math.Sin),
        ["cos"] = Trigonometric(Math.Cos),
        ["tan"] = Trigonometric(Math.Tan),
        ["cot"] = Trigonometric(x => 1 / Math.Tan(x)),
        ["sec"] = Trigonometric(x => 1 / Math.Cos(x)),
        ["csc"] = Trigonometric(x => 1 / Math.Sin(x)),
        ["asin"] = Inverse(Math.Asin),
        ["acos"] = Inverse(Math.Acos),
        ["atan"] = Inverse(Math.Atan),
        ["arcsin"] = Inverse(Math.Asin),
        ["arccos"] = Inverse(Math.Acos),
        ["arctan"] = Inverse(Math.Atan),
        ["sinh"] = One(Math.Sinh),
        ["cosh"] = One(Math.Cosh),
        ["tanh"] = One(Math.Tanh),
        ["asinh"] = One(Math.Asinh),
        ["acosh"] = One(Math.Acosh),
        ["atanh"] = One(Math.Atanh),
        ["exp"] = One(Math.Exp),
        ["ln"] = One(Math.Log),
        // To the base ten, unless another is said.
        ["log"] = new(1, 2, (x, b) => double.IsNaN(b) ? Math.Log10(x) : Math.Log(x) / Math.Log(b)),
        ["lg"] = One(Math.Log10),
        ["lb"] = One(Math.Log2),
        ["sqrt"] = One(Math.Sqrt),
        ["cbrt"] = One(Math.Cbrt),
        ["root"] = new(2, 2, Root),
        ["abs"] = One(Math.Abs),
        ["sign"] = One(x => double.IsNaN(x) ? x : Math.Sign(x)),
        ["floor"] = One(Math.Floor),
        ["ceil"] = One(Math.Ceiling),
        ["round"] = One(x => Math.Round(x, MidpointRounding.AwayFromZero)),
        ["min"] = new(2, 2, Math.Min),
        ["max"] = new(2, 2, Math.Max),
        ["mod"] = new(2, 2, (x, y) => x - y * Math.Floor(x / y)),
    };

    /// <summary>x^y, where a negative number has the odd roots that school gives it: (−8)^(1/3) is −2.</summary>
    public static double Power(double x, double y)
    {
        if (x >= 0 || y == Math.Floor(y))
            return Math.Pow(x, y);
        var over = 1 / y;
        var odd = Math.Round(over);
        return Math.Abs(over - odd) < 1e-9 && odd % 2 != 0 ? -Math.Pow(-x, y) : double.NaN;
    }

    /// <summary>x! of whole numbers, and its continuation between them, by the approximation of Lanczos (1964; g = 7, nine terms).</summary>
    public static double Factorial(double x)
    {
        if (x == Math.Floor(x) && x is >= 0 and <= 170)
        {
            var product = 1.0;
            for (var i = 2; i <= x; i++)
                product *= i;
            return product;
        }

        if (x < 0)
            return x == Math.Floor(x) ? double.NaN : Math.PI / (Math.Sin(Math.PI * -x) * Factorial(-x - 1));
        var sum = Lanczos[0];
        for (var i = 1; i < Lanczos.Length; i++)
            sum += Lanczos[i] / (x + i);
        var t = x + Lanczos.Length - 1.5;
        return Math.Sqrt(Math.Tau) * Math.Pow(t, x + 0.5) * Math.Exp(-t) * sum;
    }

    private static readonly double[] Lanczos =
    [
        0.99999999999980993,
        676.5203681218851,
        -1259.1392167224028,
        771.32342877765313,
        -176.61502916214059,
        12.507343278686905,
        -0.13857109526572012,
        9.9843695780195716e-6,
        1.5056327351493116e-7,
    ];

    private static double Root(double x, double n) => x < 0 && n % 2 is 1 or -1 ? -Math.Pow(-x, 1 / n) : Math.Pow(x, 1 / n);

    private static Function One(Func<double, double> of) => new(1, 1, (x, _) => of(x));

    private static Function Trigonometric(Func<double, double> of) => One(of) with { TakesAngle = true };

    private static Function Inverse(Func<double, double> of) => One(of) with { GivesAngle = true };
}
