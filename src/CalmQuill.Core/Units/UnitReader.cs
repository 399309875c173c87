using System.Globalization;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;

namespace CalmQuill.Core.Units;

/// <summary>Reads what something is measured in, as it is written behind a number: <c>mm</c>, <c>m/s^2</c>, <c>N·m</c>, <c>kg/m³</c>.</summary>
public static class UnitReader
{
    /// <summary>The most units in one.</summary>
    private const int Most = 8;

    /// <summary>The highest power.</summary>
    private const int MostPower = 9;

    /// <summary>Units that are taken for one only beside others, as in t/m³: alone, behind a number, they are letters that stand for something.</summary>
    private static readonly HashSet<string> Letters = ["t", "d"];

    /// <summary>
    /// How many letters of a text, from a place on, are a unit as it stands behind a number; 0 where there is none. Raised and alone only a length is one: 5 t² is
    /// five times the square of t.
    /// </summary>
    public static int LengthAt(string text, int at)
    {
        var (unit, length) = Read(text, at);
        if (unit is null || unit.Name.Any(sign => sign is '·' or '/'))
            return length;
        var name = text.Substring(at, NameLengthAt(text, at));
        var isRaised = unit.Dimension != UnitTable.Find(name)!.Dimension;
        return
            Letters.Contains(name)
            || (isRaised && unit.Dimension is not { Mass: 0, Time: 0, Current: 0, Temperature: 0, Amount: 0, Light: 0 })
            ? 0
            : length;
    }

    /// <summary>How many letters its first name has; 0 where there is none.</summary>
    public static int NameLengthAt(string text, int at)
    {
        var length = 0;
        while (at + length < text.Length && char.IsLetter(text[at + length]))
            length++;
        return length > 0 && UnitTable.Find(text.Substring(at, length)) is not null ? length : 0;
    }

    /// <summary>A whole text as a unit; null where it is none.</summary>
    public static Unit? Read(string text)
    {
        var (unit, length) = Read(text, 0);
        return length == text.Length ? unit : null;
    }

    /// <summary>As it is shown: with raised powers and dots.</summary>
    public static string Shown(ReadOnlySpan<char> typed)
    {
        var text = typed.ToString();
        return Read(text) is { } unit ? unit.Name : text;
    }

    private static (Unit? Unit, int Length) Read(string text, int from)
    {
        var (name, factor, dimension) = ("", Exact.One, Dimension.None);
        var (at, end) = (from, from);
        for (var count = 0; count < Most; count++)
        {
            var sign = '·';
            if (count > 0)
            {
                if (at >= text.Length || text[at] is not ('*' or '·' or '⋅' or '/'))
                    break;
                sign = text[at++] == '/' ? '/' : '·';
            }

            var length = NameLengthAt(text, at);
            if (length == 0)
                break;
            var unit = UnitTable.Find(text.Substring(at, length))!;
            at += length;
            var power = ReadPower(text, ref at);
            name += (count > 0 ? sign.ToString() : "") + UnitTable.Raised(unit.Name, power);
            if (sign == '/')
                power = -power;
            (factor, dimension) = (factor * unit.Factor.Power(power), dimension * unit.Dimension.Power(power));
            end = at;
        }

        return end == from ? (null, 0) : (new Unit(name, factor, dimension), end - from);
    }

    /// <summary>What is raised behind a name; 1 where nothing is.</summary>
    private static int ReadPower(string text, ref int at)
    {
        var next = at;
        var digits = "";
        if (next < text.Length && text[next] == '^')
        {
            next++;
            if (next < text.Length && text[next] is '-' or '−')
            {
                digits = "-";
                next++;
            }

            if (next < text.Length && char.IsAsciiDigit(text[next]))
                digits += text[next++];
        }
        else
        {
            if (next < text.Length && text[next] == '⁻')
            {
                digits = "-";
                next++;
            }

            if (next < text.Length && FormulaReader.Raised.IndexOf(text[next], StringComparison.Ordinal) is var digit and >= 0)
            {
                digits += (char)('0' + digit);
                next++;
            }
        }

        if (
            !int.TryParse(digits, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var power)
            || Math.Abs(power) > MostPower
            || power == 0
        )
            return 1;
        at = next;
        return power;
    }
}
