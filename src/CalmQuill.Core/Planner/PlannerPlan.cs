using System.Globalization;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Planner;

/// <summary>The sections and pages of a planner, and the changes that make them.</summary>
public static class PlannerPlan
{
    /// <summary>How many pages for notes a planner has.</summary>
    public const int NotesPages = 8;

    /// <param name="Section">The title of the section it stands in.</param>
    /// <param name="Page">Which page it is.</param>
    /// <param name="Title">Its title.</param>
    public readonly record struct Planned(string Section, PlannerPage Page, string Title);

    /// <summary>All pages in their order: the overview, then month by month with its weeks and days, then notes.</summary>
    public static List<Planned> Pages(PlannerSettings settings)
    {
        var names = settings.Names;
        var pages = new List<Planned>();
        var overview = $"{settings.First.Year}" + (settings.Last.Year > settings.First.Year ? $"–{settings.Last.Year}" : "");
        void Add(string section, PlannerKind kind, DateOnly date, string title)
        {
            if (settings.Has(kind))
                pages.Add(new Planned(section, new PlannerPage(kind, date), title));
        }

        for (var year = settings.First.Year; year <= settings.Last.Year; year++)
            Add(overview, PlannerKind.Year, new DateOnly(year, 1, 1), year.ToString(CultureInfo.InvariantCulture));
        Add(overview, PlannerKind.Term, settings.First, $"{Short(settings.First)} – {Short(settings.Last)}");
        foreach (var month in settings.Months())
        {
            var section = $"{names.Month(month)} {month.Year}";
            Add(section, PlannerKind.Month, month, section);
            var next = month.AddMonths(1);
            for (var day = month < settings.First ? settings.First : month; day < next && day <= settings.Last; day = day.AddDays(1))
            {
                // A week stands before the first of its days that the planner has.
                if (day == settings.First || settings.WeekOf(day) == day)
                    Add(section, PlannerKind.Week, settings.WeekOf(day), $"{names.Week} {settings.WeekNumber(settings.WeekOf(day))}");
                Add(section, PlannerKind.Day, day, $"{names.Day(day)} {day.Day} {names.Month(day)}");
            }
        }

        if (settings.Has(PlannerKind.Notes))
        {
            for (var i = 1; i <= NotesPages; i++)
                pages.Add(new Planned(NotesSection, new PlannerPage(PlannerKind.Notes, default, i), ""));
        }

        return pages;

        string Short(DateOnly day) => $"{day.Day} {CalendarNames.Short(names.Month(day), 3)}";
    }

    /// <summary>The section that note pages stand in.</summary>
    public const string NotesSection = "Notes";

    /// <summary>The page of a kind that a day lies on.</summary>
    public static PlannerPage PageOf(PlannerSettings settings, PlannerKind kind, DateOnly day) =>
        kind switch
        {
            PlannerKind.Year => new PlannerPage(kind, new DateOnly(day.Year, 1, 1)),
            PlannerKind.Term => new PlannerPage(kind, settings.First),
            PlannerKind.Month => new PlannerPage(kind, new DateOnly(day.Year, day.Month, 1)),
            PlannerKind.Week => new PlannerPage(kind, settings.WeekOf(day)),
            _ => new PlannerPage(kind, day),
        };

    /// <summary>The changes that make an empty notebook a planner, in order.</summary>
    /// <param name="notebook">The notebook.</param>
    /// <param name="settings">What it is to be.</param>
    /// <param name="papers">The paper of each kind of page, in the text form.</param>
    /// <param name="colours">Colours for sections, taken in turn.</param>
    /// <param name="newId">Draws a fresh id for a section.</param>
    /// <param name="device">A number of whoever makes it, for order keys.</param>
    public static IEnumerable<Change> Make(
        Guid notebook,
        PlannerSettings settings,
        IReadOnlyDictionary<PlannerKind, string> papers,
        IReadOnlyList<string> colours,
        Func<Guid> newId,
        ulong device
    )
    {
        yield return new Change.PropertySet(notebook, Property.Planner, settings.ToString());
        string? order = null,
            sectionOrder = null;
        var section = Guid.Empty;
        var title = "";
        var count = 0;
        foreach (var planned in Pages(settings))
        {
            if (planned.Section != title)
            {
                (section, title, order) = (newId(), planned.Section, null);
                sectionOrder = OrderKey.Between(sectionOrder, null, device);
                yield return new Change.PropertySet(section, Property.Name, title);
                yield return new Change.PropertySet(section, Property.Colour, colours[count++ % colours.Count]);
                yield return new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, sectionOrder);
            }

            var id = planned.Page.IdIn(notebook);
            order = OrderKey.Between(order, null, device);
            yield return new Change.PropertySet(id, Property.Planner, planned.Page.ToString());
            yield return new Change.PropertySet(id, Property.Paper, papers[planned.Page.Kind]);
            if (planned.Title.Length > 0)
                yield return new Change.PropertySet(id, Property.Name, planned.Title);
            yield return new Change.NodePlaced(id, NodeKind.Page, section, order);
        }
    }

    /// <summary>What the note page of an entry is called until somebody names it.</summary>
    public static string NoteTitle(CalendarEntry entry, CalendarNames names)
    {
        const int Most = 200;
        var title = $"{entry.Title}, {entry.Start.Day} {names.Month(DateOnly.FromDateTime(entry.Start))}";
        return title.Length <= Most ? title : title[..(char.IsHighSurrogate(title[Most - 1]) ? Most - 1 : Most)];
    }

    /// <summary>
    /// The changes by which a planner takes over a newer calendar: entries that are new or other are written, those that disappeared are marked, and the note page
    /// of one that is called otherwise or on another day now is too, unless somebody named it.
    /// </summary>
    /// <param name="known">The entries that the planner has.</param>
    /// <param name="newest">The entries of the newer calendar.</param>
    /// <param name="noteOf">The note page of an entry and its title; null where there is none.</param>
    /// <param name="names">The planner's language.</param>
    public static IEnumerable<Change> Update(
        IReadOnlyList<CalendarEntry> known,
        IReadOnlyList<CalendarEntry> newest,
        Func<CalendarEntry, (Guid Page, string Title)?>? noteOf = null,
        CalendarNames? names = null
    )
    {
        var before = known.ToDictionary(entry => entry.Id);
        var now = newest.DistinctBy(entry => entry.Id).ToDictionary(entry => entry.Id);
        foreach (var entry in now.Values)
        {
            before.TryGetValue(entry.Id, out var old);
            if (old is not null && old.Write() == entry.Write())
                continue;
            yield return new Change.PropertySet(entry.Id, Property.Entry, entry.Write());
            if (old is null || names is null || noteOf?.Invoke(old) is not { } note)
                continue;
            var title = NoteTitle(entry, names);
            // A planner that changed its language has some in English still.
            var isOurs = note.Title == NoteTitle(old, names) || note.Title == NoteTitle(old, CalendarNames.English);
            if (isOurs && note.Title != title)
                yield return new Change.PropertySet(note.Page, Property.Name, title);
        }

        foreach (var entry in known.Where(entry => !entry.IsGone && !entry.IsOwn && !now.ContainsKey(entry.Id)))
            yield return new Change.PropertySet(entry.Id, Property.Entry, (entry with { IsGone = true }).Write());
    }

    /// <summary>An entry that somebody puts into a planner.</summary>
    /// <param name="settings">The planner's; null where the notebook is none.</param>
    /// <param name="known">The entries that it has.</param>
    /// <param name="id">The new one's id.</param>
    /// <param name="day">Its day: <c>2026-10-08</c>.</param>
    /// <param name="time">When it begins: <c>14:30</c>; empty for all day.</param>
    /// <param name="minutes">How long it takes; at most to the end of the next day.</param>
    /// <param name="title">What it is called.</param>
    /// <exception cref="SentenceException">It cannot be put there.</exception>
    public static CalendarEntry OwnEntry(
        PlannerSettings? settings,
        IReadOnlyCollection<CalendarEntry> known,
        Guid id,
        string day,
        string time,
        int minutes,
        string title
    )
    {
        if (settings is null)
            throw new SentenceException($"This notebook is no planner.");
        if (!DateOnly.TryParseExact(day, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var on))
            throw new SentenceException($"Say on which day it is.");
        if (!settings.Holds(on))
            throw new SentenceException($"This planner has no such day: it goes from {Text(settings.First)} to {Text(settings.Last)}.");
        var begins = TimeOnly.MinValue;
        if (time.Length > 0 && !TimeOnly.TryParseExact(time, "HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out begins))
            throw new SentenceException($"Say at what time it begins.");
        if (string.IsNullOrWhiteSpace(title))
            throw new SentenceException($"Say what it is.");
        if (known.Count >= CalendarEntry.Most)
            throw new SentenceException($"A planner takes at most {CalendarEntry.Most:N0} entries.");
        var start = on.ToDateTime(begins);
        var end = time.Length == 0 ? start.AddDays(1) : start.AddMinutes(Math.Clamp(minutes, 0, 2 * 24 * 60));
        return new CalendarEntry(id, start, end, time.Length == 0, title.Trim(), "", IsOwn: true);

        static string Text(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
    }
}
