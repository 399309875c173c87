using System.Globalization;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Planner;

/// <summary>From when to when a planner runs, and which pages it has.</summary>
/// <param name="First">Its first day.</param>
/// <param name="Last">Its last day.</param>
/// <param name="WeekStart">Monday (ISO 8601) or Sunday.</param>
/// <param name="Kinds">The kinds of pages it has.</param>
/// <param name="Names">The language of its days and months.</param>
public sealed record PlannerSettings(
    DateOnly First,
    DateOnly Last,
    DayOfWeek WeekStart,
    IReadOnlyList<PlannerKind> Kinds,
    CalendarNames Names
)
{
    public const int MostDays = 800;

    public bool Has(PlannerKind kind) => Kinds.Contains(kind);

    public bool Holds(DateOnly day) => day >= First && day <= Last;

    /// <summary>The first day of the week that a day lies in.</summary>
    public DateOnly WeekOf(DateOnly day) => day.AddDays(-(((int)day.DayOfWeek - (int)WeekStart + 7) % 7));

    /// <summary>A week's number by ISO 8601: that of its Thursday, whatever day the week is printed from.</summary>
    public int WeekNumber(DateOnly weekStart) =>
        ISOWeek.GetWeekOfYear(weekStart.AddDays((((int)DayOfWeek.Thursday - (int)weekStart.DayOfWeek) + 7) % 7).ToDateTime(default));

    /// <summary>The first days of all months touched.</summary>
    public IEnumerable<DateOnly> Months()
    {
        for (var month = new DateOnly(First.Year, First.Month, 1); month <= Last; month = month.AddMonths(1))
            yield return month;
    }

    public IEnumerable<DateOnly> Weeks()
    {
        for (var week = WeekOf(First); week <= Last; week = week.AddDays(7))
            yield return week;
    }

    public IEnumerable<DateOnly> Days()
    {
        for (var day = First; day <= Last; day = day.AddDays(1))
            yield return day;
    }

    /// <summary>The text form that the notebook's register holds: <c>2026-09-07/2026-12-18 monday year,month,week,day en</c>.</summary>
    public override string ToString() =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{First:yyyy-MM-dd}/{Last:yyyy-MM-dd} {WeekStart.ToString().ToLowerInvariant()} {string.Join(',', Kinds.Select(kind => kind.ToString().ToLowerInvariant()))} {Names.Code}"
        );

    /// <summary>Reads the text form, or says in a sentence what is wrong.</summary>
    public static (PlannerSettings? Settings, Refusal? Refusal) Read(string text)
    {
        var parts = text.Split(' ');
        var span = parts[0].Split('/');
        if (
            parts.Length != 4
            || span.Length != 2
            || !DateOnly.TryParseExact(span[0], "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var first)
            || !DateOnly.TryParseExact(span[1], "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var last)
        )
            return Refuse($"A planner needs a first and a last day.");
        if (first > last)
            return Refuse($"The first day of a planner is not after its last.");
        if (first.Year < 1900 || last.Year > 2200 || last.DayNumber - first.DayNumber >= MostDays)
            return Refuse($"A planner runs for at most {MostDays} days. Make one for each year.");
        DayOfWeek? start = parts[1] switch
        {
            "monday" => DayOfWeek.Monday,
            "sunday" => DayOfWeek.Sunday,
            _ => null,
        };
        if (start is null)
            return Refuse($"A week begins on Monday or Sunday.");
        var kinds = new List<PlannerKind>();
        foreach (var name in parts[2].Split(','))
        {
            PlannerKind? kind = name switch
            {
                "year" => PlannerKind.Year,
                "term" => PlannerKind.Term,
                "month" => PlannerKind.Month,
                "week" => PlannerKind.Week,
                "day" => PlannerKind.Day,
                "notes" => PlannerKind.Notes,
                _ => null,
            };
            if (kind is null || kinds.Contains(kind.Value))
                return Refuse($"A planner has pages for years, terms, months, weeks, days or notes, at least one of them.");
            kinds.Add(kind.Value);
        }

        if (CalendarNames.Find(parts[3]) is not { } names)
            return Refuse($"Names of days and months are not known in this language.");
        return (new PlannerSettings(first, last, start.Value, kinds, names), null);
    }

    private static (PlannerSettings?, Refusal?) Refuse(Sentence sentence) => (null, new Refusal("bad-planner", sentence));
}
