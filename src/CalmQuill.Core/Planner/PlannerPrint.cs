namespace CalmQuill.Core.Planner;

/// <summary>What is printed on one page of a planner beyond its paper: its dates, and the calendar's entries.</summary>
/// <param name="Notebook">The planner.</param>
/// <param name="Settings">Its span, week and language.</param>
/// <param name="Page">Which of its pages this is.</param>
/// <param name="Entries">The calendar's entries that touch this page's time.</param>
public sealed record PlannerPrint(Guid Notebook, PlannerSettings Settings, PlannerPage Page, IReadOnlyList<CalendarEntry> Entries)
{
    /// <summary>The first day on the page, and the day after its last.</summary>
    public static (DateOnly From, DateOnly To) SpanOf(PlannerPage page, PlannerSettings settings) =>
        page.Kind switch
        {
            PlannerKind.Year => (page.Date, page.Date.AddYears(1)),
            PlannerKind.Term => (settings.First, settings.Last.AddDays(1)),
            PlannerKind.Month => (page.Date, page.Date.AddMonths(1)),
            PlannerKind.Week => (page.Date, page.Date.AddDays(7)),
            PlannerKind.Day => (page.Date, page.Date.AddDays(1)),
            _ => (DateOnly.MinValue, DateOnly.MinValue),
        };

    /// <summary>The page of a kind that a day lies on; null when the planner has none.</summary>
    public PlannerPage? PageOf(PlannerKind kind, DateOnly day)
    {
        if (!Settings.Has(kind))
            return null;
        var page = PlannerPlan.PageOf(Settings, kind, day);
        var (from, to) = SpanOf(page, Settings);
        return from <= Settings.Last && to > Settings.First ? page : null;
    }

    /// <summary>The nearest page there is for a day: its own, else its week's, else its month's.</summary>
    public PlannerPage? NearestTo(DateOnly day) =>
        Settings.Holds(day) ? PageOf(PlannerKind.Day, day) ?? PageOf(PlannerKind.Week, day) ?? PageOf(PlannerKind.Month, day) : null;

    public IEnumerable<CalendarEntry> On(DateOnly day) => Entries.Where(entry => entry.IsOn(day));
}
