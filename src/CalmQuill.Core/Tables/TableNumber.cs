using System.Globalization;

namespace CalmQuill.Core.Tables;

/// <summary>A number as it stands in a cell, with what it is a number of.</summary>
/// <param name="Value">The number.</param>
/// <param name="Decimals">How many decimals it was written with.</param>
/// <param name="Unit">What stands behind it; empty for nothing.</param>
public readonly record struct TableNumber(decimal Value, int Decimals, string Unit)
{
    private const int MostLength = 40,
        MostUnit = 8;

    /// <summary>
    /// Reads a number as people write it: <c>12</c>, <c>−0.5</c>, <c>1,25</c>, <c>3 400 kg</c>. A point and a comma both part decimals; where both
    /// stand the last one does, and one that stands twice parts thousands.
    /// </summary>
    /// <returns>Null where it is no number.</returns>
    public static TableNumber? Read(string text)
    {
        text = text.Trim();
        if (text.Length is 0 or > MostLength)
            return null;
        var isNegative = text[0] is '-' or '−';
        var rest = text[0] is '-' or '−' or '+' ? text[1..] : text;
        var end = 0;
        while (end < rest.Length && (char.IsAsciiDigit(rest[end]) || rest[end] is '.' or ',' || IsGap(rest, end)))
            end++;
        var (digits, unit) = (
            string.Concat(rest[..end].Where(letter => letter is '.' or ',' || char.IsAsciiDigit(letter))),
            rest[end..].Trim()
        );
        if (
            !digits.Any(char.IsAsciiDigit)
            || unit.Length > MostUnit
            || unit.Any(letter => char.IsAsciiDigit(letter) || letter is ';' or ':' or '=')
        )
            return null;
        var point = digits.LastIndexOfAny(['.', ',']);
        if (point >= 0 && digits.Count(letter => letter == digits[point]) > 1)
            point = -1;
        var whole = string.Concat((point < 0 ? digits : digits[..point]).Where(char.IsAsciiDigit));
        var part = point < 0 ? "" : digits[(point + 1)..];
        return decimal.TryParse(
            $"{(whole.Length == 0 ? "0" : whole)}.{part}0",
            NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var value
        )
            ? new TableNumber(isNegative ? -value : value, part.Length, unit)
            : null;

        // Between thousands.
        static bool IsGap(string text, int at) =>
            text[at] is ' ' or '\u00A0' or '\u202F' or '\'' or '’'
            && at > 0
            && char.IsAsciiDigit(text[at - 1])
            && at + 3 < text.Length
            && text.AsSpan(at + 1, 3).IndexOfAnyExceptInRange('0', '9') < 0
            && !(at + 4 < text.Length && char.IsAsciiDigit(text[at + 4]));
    }

    /// <summary>What stands under a column: the numbers among its cells come to so much.</summary>
    /// <param name="total"><c>sum</c>, <c>mean</c> or <c>count</c>.</param>
    /// <param name="cells">What stands in its cells.</param>
    public static string Total(string total, IEnumerable<string> cells)
    {
        var numbers = cells.Select(Read).OfType<TableNumber>().ToList();
        if (total == "count")
            return $"n = {numbers.Count.ToString(CultureInfo.InvariantCulture)}";
        var sign = total == "sum" ? "Σ" : "Ø";
        if (numbers.Count == 0)
            return $"{sign} –";
        decimal sum = 0;
        try
        {
            foreach (var number in numbers)
                sum += number.Value;
        }
        catch (OverflowException)
        {
            return $"{sign} ∞";
        }

        var decimals = numbers.Max(number => number.Decimals);
        var (value, kept) = total == "sum" ? (sum, decimals) : (sum / numbers.Count, decimals + 2);
        var unit = numbers.TrueForAll(number => number.Unit == numbers[0].Unit) ? numbers[0].Unit : "";
        var words = Math.Round(value, Math.Min(kept, 28), MidpointRounding.ToEven)
            .ToString("0.############################", CultureInfo.InvariantCulture);
        return $"{sign} {words.Replace('-', '−')}{(unit.Length > 0 ? " " + unit : "")}";
    }

    /// <summary>How two cells lie when a column is sorted: numbers by size and before words, what is empty last.</summary>
    public static int Compare(string one, string other)
    {
        var (first, second) = (Read(one), Read(other));
        return (Rank(one, first), Rank(other, second)) is var (rank, otherRank) && rank != otherRank ? rank.CompareTo(otherRank)
            : first is { } number && second is { } otherNumber ? number.Value.CompareTo(otherNumber.Value)
            : string.Compare(one.Trim(), other.Trim(), StringComparison.OrdinalIgnoreCase);

        static int Rank(string text, TableNumber? number) =>
            number is not null ? 0
            : text.Trim().Length > 0 ? 1
            : 2;
    }
}
