using CalmQuill.Core.Art;
using CalmQuill.Core.Planner;

namespace CalmQuill.Core.Papers.Designs;

/// <summary>The tabs along the right edge of a planner's pages, whatever paper they have: overview and months.</summary>
internal static class PlannerTabs
{
    public const int Width = 900;

    public static void Lay(PaperPen pen)
    {
        var face = pen.PlannerPrint!;
        if (face.Page.Kind == PlannerKind.Entry && face.Entries.Count > 0)
            LayEntry(pen, face.Entries[0]);
        var tabs = new List<(string Words, PlannerPage Page, bool Here)>();
        for (var year = face.Settings.First.Year; year <= face.Settings.Last.Year; year++)
        {
            if (face.PageOf(PlannerKind.Year, new DateOnly(year, 1, 1)) is { } page)
                tabs.Add((year.ToString(System.Globalization.CultureInfo.InvariantCulture), page, face.Page == page));
        }

        if (face.PageOf(PlannerKind.Term, face.Settings.First) is { } term)
            tabs.Add(("Term", term, face.Page == term));
        foreach (var month in face.Settings.Months())
        {
            var page = face.PageOf(PlannerKind.Month, month) ?? face.NearestTo(month < face.Settings.First ? face.Settings.First : month);
            if (page is not { } known)
                continue;
            var here =
                face.Page.Kind is PlannerKind.Month or PlannerKind.Week or PlannerKind.Day
                && face.Page.Date.Year == month.Year
                && face.Page.Date.Month == month.Month;
            tabs.Add((CalendarNames.Short(face.Settings.Names.Month(month), 3), known, here));
        }

        if (tabs.Count == 0)
            return;
        var height = Math.Min(2000f, (pen.Height - 2f * pen.Side) / tabs.Count);
        var size = Math.Min(300, height * 0.55f);
        for (var i = 0; i < tabs.Count; i++)
        {
            float x = pen.Width - Width,
                y = pen.Side + i * height;
            var (words, page, here) = tabs[i];
            if (here)
                pen.Fill(x, y + 30, Width, height - 60, pen.Accent);
            else
                pen.Fill(x, y + 30, Width, height - 60, Colours.Mix(pen.Paper.Colour, pen.Rule, 0.45));
            pen.Print(
                words,
                x + Width / 2f,
                y + height / 2 + size * 0.35f,
                size,
                0.5f,
                here ? Colours.StandingOut(pen.Paper.Colour, pen.Accent, 4.5) : pen.Ink
            );
            pen.Link(x, y, Width, height, page);
        }
    }

    /// <summary>What a note page is about, in its head; it leads back to the day.</summary>
    private static void LayEntry(PaperPen pen, CalendarEntry entry)
    {
        const float size = 330;
        var names = pen.PlannerPrint!.Settings.Names;
        var day = DateOnly.FromDateTime(entry.Start);
        var when = entry.AllDay
            ? $"{names.Day(day)} {day.Day} {names.Month(day)}"
            : $"{names.Day(day)} {day.Day} {names.Month(day)}, {entry.Start:HH:mm}–{entry.End:HH:mm}";
        var words = Glyphs.Fit(entry.Place.Length > 0 ? $"{when}, {entry.Place}" : when, size, pen.Width - 2 * pen.Side - Width);
        pen.Print(words, pen.Side, pen.Side * 0.6f, size, 0, Colours.StandingOut(0x4F7388FF, pen.Paper.Colour, 4.5));
        if (entry.IsGone)
            pen.Print("no longer in the calendar", pen.Side + Glyphs.Width(words, size) + 300, pen.Side * 0.6f, size, 0, pen.Accent);
        if (pen.PlannerPrint.NearestTo(day) is { } page)
            pen.Link(pen.Side - 100, pen.Side * 0.6f - size * 1.2f, Glyphs.Width(words, size) + 200, size * 2, page);
    }
}
