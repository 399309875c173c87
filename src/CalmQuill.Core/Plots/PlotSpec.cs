using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Reckoning;

namespace CalmQuill.Core.Plots;

/// <summary>A function that a plot shows, as a field holds it: its colour as <c>rrggbbaa</c>, a blank, and what was typed.</summary>
/// <param name="Colour">0xRRGGBBAA.</param>
/// <param name="Typed">As it was typed: <c>sin x</c>, <c>y = x²</c>, <c>x² + y² = 9</c>.</param>
public sealed record PlotCurve(uint Colour, string Typed)
{
    public const int MostBytes = 600;

    public static PlotCurve? Read(string text) =>
        text.Length > 9 && text[8] == ' ' && text.AsSpan(0, 8).IndexOfAnyExcept("0123456789abcdefABCDEF") < 0
            ? new PlotCurve(Colours.Read(text[..8]), text[9..])
            : null;

    /// <summary>Its height over x, where it is a function of x alone; else null, and <see cref="Off"/> says where it is.</summary>
    /// <exception cref="FormulaException">It cannot be read.</exception>
    public Func<double, double>? Height(bool degrees)
    {
        var (left, right, _) = Sides();
        if (right is null)
            return Of(Formula.Read(left, ["x"], degrees));
        if (left.Trim() != "y")
            return null;
        var formula = Formula.Read(right, ["x", "y"], degrees);
        return formula.Variables.Contains(1) ? null : x => formula.At(x, 0);

        static Func<double, double> Of(Formula formula) => x => formula.At(x);
    }

    /// <summary>0 where it is, for what is not a function of x alone: the left side less the right one.</summary>
    /// <exception cref="FormulaException">It cannot be read.</exception>
    public Func<double, double, double> Off(bool degrees)
    {
        var (left, right, at) = Sides();
        var (one, other) = (Formula.Read(left, ["x", "y"], degrees), Formula.Read(right ?? "0", ["x", "y"], degrees));
        if (at != Typed.LastIndexOf('='))
            throw new FormulaException($"A curve has one sign of equality at most.", Typed.LastIndexOf('='));
        return (x, y) => one.At(x, y) - other.At(x, y);
    }

    private (string Left, string? Right, int At) Sides()
    {
        var at = Typed.IndexOf('=');
        return at < 0 ? (Typed, null, at) : (Typed[..at], Typed[(at + 1)..], at);
    }
}

/// <summary>Points that a plot shows, as a field holds them: colour, number of a <see cref="FitKind"/>, and then x and y of each, parted by blanks.</summary>
public sealed record PlotData(uint Colour, FitKind Fit, IReadOnlyList<(double X, double Y)> Points)
{
    public const int MostPoints = 2_000;

    public const int MostBytes = MostPoints * 36;

    public static PlotData? Read(string text)
    {
        var parts = text.Split(' ');
        if (
            parts.Length < 2
            || parts.Length % 2 != 0
            || parts.Length > 2 + 2 * MostPoints
            || parts[0].Length != 8
            || parts[0].AsSpan().IndexOfAnyExcept("0123456789abcdefABCDEF") >= 0
            || !byte.TryParse(parts[1], NumberStyles.None, CultureInfo.InvariantCulture, out var fit)
            || !Enum.IsDefined((FitKind)fit)
        )
            return null;
        var points = new (double, double)[parts.Length / 2 - 1];
        for (var i = 0; i < points.Length; i++)
        {
            if (Number(parts[2 + 2 * i]) is not { } x || Number(parts[3 + 2 * i]) is not { } y)
                return null;
            points[i] = (x, y);
        }

        return new PlotData(Colours.Read(parts[0]), (FitKind)fit, points);

        static double? Number(string part) =>
            double.TryParse(part, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) && Math.Abs(value) <= PlotRange.Most
                ? value
                : null;
    }

    public string ToText() =>
        string.Join(
            ' ',
            new[] { Colour.ToString("x8", CultureInfo.InvariantCulture), ((int)Fit).ToString(CultureInfo.InvariantCulture) }.Concat(
                Points.SelectMany(point => new[] { Text(point.X), Text(point.Y) })
            )
        );

    /// <summary>
    /// Reads what was typed or pasted, a row a point, as spreadsheets give it: two numbers parted by blanks, a tab, a comma or a semicolon. A row of
    /// words at the head is left out. Where a comma parts digits and something else parts the two, it is a decimal one.
    /// </summary>
    /// <param name="typed">The rows.</param>
    /// <param name="wrong">The first row that is no point; 0 where all are.</param>
    public static List<(double X, double Y)> ReadRows(string typed, out int wrong)
    {
        var points = new List<(double, double)>();
        wrong = 0;
        var number = 0;
        foreach (var row in typed.ReplaceLineEndings("\n").Split('\n'))
        {
            number++;
            if (row.Trim().Length == 0)
                continue;
            var parts = row.Split(['\t', ';', ' '], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
            if (parts.Length == 1)
                parts = row.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
            if (parts.Length == 2 && Number(parts[0], out var x) && Number(parts[1], out var y) && points.Count < MostPoints)
                points.Add((x, y));
            // Names of the columns.
            else if (!(number == 1 && parts.All(part => !Number(part, out _))) && wrong == 0)
                wrong = number;
        }

        return points;

        static bool Number(string part, out double value) =>
            double.TryParse(
                part.TrimEnd(',').Replace(',', '.').Replace('−', '-'),
                NumberStyles.Float,
                CultureInfo.InvariantCulture,
                out value
            )
            && Math.Abs(value) <= PlotRange.Most;
    }

    private static string Text(double value) => value.ToString("R", CultureInfo.InvariantCulture);
}
