using System.Globalization;

namespace CalmQuill.Core.Lenses;

/// <summary>A stretch of time said relatively (“this term”) or by its first and last day.</summary>
/// <param name="Name">One of <see cref="Names"/>, or <c>2026-09-01/2026-09-30</c> where either day may be left out.</param>
public readonly record struct Span(string Name)
{
    public static readonly string[] Names =
    [
        "today",
        "yesterday",
        "this-week",
        "past-7-days",
        "past-30-days",
        "this-month",
        "this-term",
        "this-year",
    ];

    public static bool IsValid(string name) => Names.Contains(name) || Days(name) is not null;

    /// <summary>The first and last day of a span said by days; null when it is not one.</summary>
    public static (DateOnly? First, DateOnly? Last)? Days(string name)
    {
        var parts = name.Split('/');
        if (parts.Length != 2 || (parts[0].Length == 0 && parts[1].Length == 0))
            return null;
        if (!Day(parts[0], out var first) || !Day(parts[1], out var last))
            return null;
        return first > last ? null : (first, last);
    }

    /// <summary>The stretches it covers, as UTC milliseconds from (included) to (excluded).</summary>
    /// <param name="clock">The clock of the person who asks; weeks begin on Monday (ISO 8601).</param>
    /// <param name="terms">The library's terms; without any, a term is a half-year from February or August.</param>
    public IReadOnlyList<(long From, long To)> Bounds(LocalClock clock, IReadOnlyList<(DateOnly First, DateOnly Last)> terms)
    {
        var today = clock.Today;
        (DateOnly? First, DateOnly? Last) days = Name switch
        {
            "today" => (today, today),
            "yesterday" => (today.AddDays(-1), today.AddDays(-1)),
            "this-week" => (today.AddDays(-((int)today.DayOfWeek + 6) % 7), today),
            "past-7-days" => (today.AddDays(-6), today),
            "past-30-days" => (today.AddDays(-29), today),
            "this-month" => (new DateOnly(today.Year, today.Month, 1), today),
            "this-term" => Term(today, terms),
            "this-year" => (new DateOnly(today.Year, 1, 1), today),
            _ => Days(Name) ?? (DateOnly.MaxValue, DateOnly.MinValue),
        };
        var from = days.First is { } first ? clock.BeginningOf(first) : long.MinValue;
        var to = days.Last is { } last ? (last == DateOnly.MaxValue ? long.MaxValue : clock.BeginningOf(last.AddDays(1))) : long.MaxValue;
        return from < to ? [(from, to)] : [];
    }

    /// <summary>Reads the terms of a library: first and last days, several parted by spaces. Null when they are not well formed.</summary>
    public static List<(DateOnly First, DateOnly Last)>? ReadTerms(string text)
    {
        var terms = new List<(DateOnly, DateOnly)>();
        foreach (var part in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            if (Days(part) is not ({ } first, { } last))
                return null;
            terms.Add((first, last));
        }

        return terms;
    }

    private static (DateOnly? First, DateOnly? Last) Term(DateOnly today, IReadOnlyList<(DateOnly First, DateOnly Last)> terms)
    {
        // Between two terms, the one that ended last.
        var term = terms.Where(term => term.First <= today).OrderByDescending(term => term.First).FirstOrDefault();
        if (term != default)
            return (term.First, term.Last);
        if (today.Month is >= 2 and < 8)
            return (new DateOnly(today.Year, 2, 1), new DateOnly(today.Year, 7, 31));
        var year = today.Month < 2 ? today.Year - 1 : today.Year;
        return (new DateOnly(year, 8, 1), new DateOnly(year + 1, 1, 31));
    }

    private static bool Day(string text, out DateOnly? day)
    {
        day = null;
        if (text.Length == 0)
            return true;
        if (!DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var read))
            return false;
        day = read;
        return true;
    }
}
