using System.Globalization;
using CalmQuill.Core.Reckoning;

namespace CalmQuill.Core.Plots;

/// <summary>Where the lines of a scale stand: at multiples of 1, 2 or 5 times a power of ten.</summary>
public static class Ticks
{
    /// <summary>The step between two, so that there are no more than so many.</summary>
    public static double Step(double from, double to, int most)
    {
        var least = (to - from) / Math.Max(1, most);
        var power = Math.Pow(10, Math.Floor(Math.Log10(least)));
        foreach (var times in (ReadOnlySpan<double>)[1, 2, 5])
        {
            if (times * power >= least * (1 - 1e-12))
                return times * power;
        }

        return 10 * power;
    }

    /// <summary>All multiples of a step in a range.</summary>
    public static List<double> Of(double from, double to, double step)
    {
        var ticks = new List<double>();
        for (var i = Math.Ceiling(from / step - 1e-9); i * step <= to + step * 1e-9 && ticks.Count < 1_000; i++)
            ticks.Add(i * step);
        return ticks;
    }

    /// <summary>How a number on a scale is written: with as many digits as its step has, very large and small ones by powers of ten.</summary>
    public static string Words(double value, double step)
    {
        if (Math.Abs(value) < step * 1e-9)
            return "0";
        var digits = (int)Math.Max(0, -Math.Floor(Math.Log10(step) + 1e-9));
        if (digits > 5 || Math.Abs(value) >= 1e6)
        {
            var power = (int)Math.Floor(Math.Log10(Math.Abs(value)) + 1e-12);
            var rest = Math.Round(value / Math.Pow(10, power), 6);
            return (rest == 1 ? "" : Number(rest) + "·") + "10" + Raised(power);
        }

        return Sign(Math.Round(value, digits).ToString("F" + digits.ToString(CultureInfo.InvariantCulture), CultureInfo.InvariantCulture));
    }

    /// <summary>A number in a few digits, as it stands in a sentence.</summary>
    public static string Number(double value, int digits = 5)
    {
        if (value == 0 || Math.Abs(value) < 1e-300)
            return "0";
        var size = Math.Floor(Math.Log10(Math.Abs(value)));
        if (size is >= 6 or <= -5)
        {
            var power = (int)size;
            return Number(value / Math.Pow(10, power), digits) + "·10" + Raised(power);
        }

        var places = (int)Math.Clamp(digits - 1 - size, 0, 15);
        return Sign(Math.Round(value, places).ToString("0.###############", CultureInfo.InvariantCulture));
    }

    private static string Sign(string number) => number.Replace('-', '−');

    private static string Raised(int power) =>
        string.Concat(power.ToString(CultureInfo.InvariantCulture).Select(sign => sign == '-' ? '⁻' : FormulaReader.Raised[sign - '0']));
}
