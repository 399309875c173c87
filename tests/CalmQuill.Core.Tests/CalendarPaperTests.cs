using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Planner;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>The printed pages of a planner: every day in its own box, by .NET's own calendar and ISO weeks, and the calendar's entries where they belong.</summary>
public sealed class CalendarPaperTests
{
    private static readonly Guid Notebook = Generate.Node(1);
    private static readonly Gen<DateOnly> Months = Gen.Select(Gen.Int[1901, 2199], Gen.Int[1, 12])
        .Select(one => new DateOnly(one.Item1, one.Item2, 1));

    [Fact]
    public void A_month_has_each_of_its_days_in_the_column_of_its_weekday_and_the_row_of_its_week() =>
        Gen.Select(Months, Gen.Bool)
            .Sample(
                (month, fromSunday) =>
                {
                    var drawing = Draw("a4.across-month-710", new PlannerPage(PlannerKind.Month, month), Month(month, fromSunday));
                    var days = ByPage(drawing, PlannerKind.Day);
                    Assert.Equal(DateTime.DaysInMonth(month.Year, month.Month), days.Count);
                    var columns = Grid(days.Values.Select(box => box.Left));
                    var rows = Grid(days.Values.Select(box => box.Top));
                    Assert.Equal(7, columns.Count);
                    foreach (var (day, box) in days)
                    {
                        var weekday = ((int)day.DayOfWeek + (fromSunday ? 0 : 6)) % 7;
                        Assert.Equal(weekday, columns.IndexOf(box.Left));
                        // Weeks counted from the one that the first of the month lies in.
                        var before = ((int)month.DayOfWeek + (fromSunday ? 0 : 6)) % 7;
                        Assert.Equal((before + day.Day - 1) / 7, rows.IndexOf(box.Top));
                    }

                    // Each row leads to its week, and lies beside its days.
                    var weeks = ByPage(drawing, PlannerKind.Week);
                    Assert.Equal(rows.Count, weeks.Count);
                    foreach (var (day, box) in days)
                        Assert.Contains(
                            weeks,
                            week => week.Key <= day && day < week.Key.AddDays(7) && Math.Abs(week.Value.Top - box.Top) <= 1
                        );
                },
                iter: 300
            );

    [Fact]
    public void Every_planned_page_leads_to_the_days_it_shows_and_to_no_others()
    {
        var settings = PlannerSettings.Read("2026-09-07/2027-03-12 monday year,term,month,week,day en").Settings!;
        foreach (
            var (page, paper) in new (string, string)[]
            {
                ("year/2026-01-01", "a4-year-710"),
                ("year/2027-01-01", "a3.across-year-710"),
                ("term/2026-09-07", "a4-term-710"),
                ("month/2026-09-01", "a4.across-month-710"),
                ("week/2026-12-28", "a4.across-week-710"),
                ("week/2026-12-28", "a4-weekboxes-710"),
            }
        )
        {
            var read = PlannerPage.Read(page)!.Value;
            var (from, to) = PlannerPrint.SpanOf(read, settings);
            var wanted = settings.Days().Where(day => day >= from && day < to).ToList();
            Assert.Equal(wanted, ByPage(Draw(paper, read, settings), PlannerKind.Day).Keys.Order());
        }
    }

    [Fact]
    public void Boxes_that_lead_somewhere_lie_on_the_sheet_and_none_of_the_days_over_another()
    {
        var settings = PlannerSettings.Read("2028-01-01/2028-12-31 sunday year,term,month,week,day fr").Settings!;
        foreach (
            var (kind, design) in new[]
            {
                (PlannerKind.Year, "year"),
                (PlannerKind.Month, "month"),
                (PlannerKind.Week, "week"),
                (PlannerKind.Day, "day"),
            }
        )
        {
            foreach (var size in new[] { "a6", "a5", "a4", "a3", "letter", "square" })
            {
                var paper = Paper.ParseOrDefault($"{size}-{design}-710");
                var drawing = Draw($"{size}-{design}-710", PlannerPlan.PageOf(settings, kind, new DateOnly(2028, 2, 29)), settings);
                var days = drawing.Links.Where(link => link.Target.Kind == PlannerKind.Day).Select(link => link.Area).ToList();
                Assert.All(
                    drawing.Links,
                    link =>
                        Assert.True(
                            link.Area is { Left: >= -100, Top: >= -100 } && link.Area.Right <= paper.Width + 1,
                            $"{size} {design} {link}"
                        )
                );
                for (var i = 0; i < days.Count; i++)
                    Assert.DoesNotContain(days.Skip(i + 1), other => Overlap(days[i], other) > 200);
            }
        }
    }

    [Fact]
    public void A_day_shows_its_entries_at_their_hours_side_by_side_and_those_of_the_whole_day_above()
    {
        var day = new DateOnly(2026, 10, 8);
        var at = day.ToDateTime(default);
        CalendarEntry[] entries =
        [
            Entry(2, at.AddHours(9), at.AddHours(10)),
            Entry(3, at.AddHours(9.5), at.AddHours(11)),
            Entry(4, at.AddHours(14), at.AddHours(16)),
            Entry(5, at, at.AddDays(1), allDay: true),
            Entry(6, at.AddHours(3), at.AddHours(4)),
            Entry(7, at.AddDays(1), at.AddDays(1).AddHours(1)),
        ];
        var boxes = ByEntry(Draw("a4-day-710", new PlannerPage(PlannerKind.Day, day), Day(day), entries));
        // What is tomorrow is not here.
        Assert.Equal(Enumerable.Range(2, 5).Select(Generate.Node).Order(), boxes.Keys.Order());
        Box Of(int entry) => boxes[Generate.Node(entry)];
        // An hour is as high as another.
        var hour = (Of(4).Bottom - Of(4).Top + 40) / 2.0;
        Assert.InRange(Of(3).Top - Of(2).Top, hour / 2 - 2, hour / 2 + 2);
        Assert.InRange(Of(4).Top - Of(2).Top, hour * 5 - 2, hour * 5 + 2);
        // Two at a time lie beside each other, one alone takes the width of both.
        Assert.True(Of(2).Right <= Of(3).Left + 60);
        Assert.InRange((Of(4).Right - Of(4).Left) / (double)(Of(2).Right - Of(2).Left), 1.9, 2.2);
        Assert.True(Of(5).Bottom <= Of(6).Top, "the whole day above the hours");
        // What happens in the night stands at the first hour, and can be pressed.
        Assert.InRange(Of(6).Bottom - Of(6).Top, hour / 3 - 45, hour);
    }

    [Fact]
    public void Entries_of_every_time_are_drawn_on_the_sheet_and_can_be_pressed() =>
        Gen.Select(Gen.Int[0, 1439], Gen.Int[0, 3000], Gen.Bool)
            .Array[1, 12]
            .Sample(
                times =>
                {
                    var day = new DateOnly(2026, 10, 8);
                    var entries = times
                        .Select(
                            (time, i) =>
                                Entry(
                                    i + 2,
                                    day.ToDateTime(default).AddMinutes(time.Item3 ? 0 : time.Item1),
                                    day.ToDateTime(default).AddMinutes(time.Item3 ? 1440 : time.Item1 + time.Item2),
                                    time.Item3
                                )
                        )
                        .ToArray();
                    foreach (var (kind, paper) in new[] { (PlannerKind.Day, "a5-day-710"), (PlannerKind.Week, "a4.across-week-710") })
                    {
                        var settings = Day(day);
                        var drawing = Draw(paper, PlannerPlan.PageOf(settings, kind, day), settings, entries);
                        var sheet = Paper.ParseOrDefault(paper);
                        var boxes = ByEntry(drawing);
                        // Of the whole day there is room for two bars; everything with an hour is there.
                        var timed = entries.Where(entry => !entry.AllDay).ToList();
                        Assert.All(timed, entry => Assert.Contains(entry.Id, boxes.Keys));
                        Assert.Equal(
                            Math.Min(2, entries.Count(entry => entry.AllDay)),
                            boxes.Keys.Count(id => entries.Any(entry => entry.Id == id && entry.AllDay))
                        );
                        Assert.All(
                            boxes.Values,
                            box =>
                                Assert.True(box.Top >= 0 && box.Bottom <= sheet.Height && box.Right <= sheet.Width && box.Bottom > box.Top)
                        );
                    }
                },
                iter: 200
            );

    [Fact]
    public void A_month_lists_what_there_is_room_for_and_says_how_much_more_there_is()
    {
        var day = new DateOnly(2026, 10, 8);
        var at = day.ToDateTime(default);
        var page = new PlannerPage(PlannerKind.Month, new DateOnly(2026, 10, 1));
        var settings = Month(page.Date, false);
        int Listed(int count) =>
            ByEntry(
                Draw(
                    "a4.across-month-710",
                    page,
                    settings,
                    [.. Enumerable.Range(2, count).Select(i => Entry(i, at.AddHours(i % 20), at.AddHours(i % 20)))]
                )
            ).Count;
        Assert.Equal(1, Listed(1));
        Assert.Equal(3, Listed(3));
        var most = Listed(40);
        Assert.InRange(most, 3, 12);
        // The last line says how many more: of one more than fit, two give up their place to it.
        Assert.Equal(most + 1, Listed(most + 1));
        Assert.Equal(most, Listed(most + 2));
        // Of several days each shows it; the year marks the day.
        var trip = Entry(2, at, at.AddDays(3), allDay: true);
        Assert.Equal(3, Draw("a4.across-month-710", page, settings, [trip]).Links.Count(link => link.Target.Kind == PlannerKind.Entry));
        var year = new PlannerPage(PlannerKind.Year, new DateOnly(2026, 1, 1));
        var span = PlannerSettings.Read("2026-01-01/2026-12-31 monday year,day en").Settings!;
        Assert.True(Pieces(Draw("a4-year-710", year, span, [trip])) > Pieces(Draw("a4-year-710", year, span)));
    }

    [Fact]
    public void What_the_calendar_no_longer_has_is_struck_through()
    {
        var day = new DateOnly(2026, 10, 8);
        var entry = Entry(2, day.ToDateTime(new TimeOnly(9, 0)), day.ToDateTime(new TimeOnly(10, 0)));
        foreach (var (kind, paper) in new[] { (PlannerKind.Day, "a4-day-710"), (PlannerKind.Week, "a4-weekboxes-710") })
        {
            var settings = Day(day);
            var page = PlannerPlan.PageOf(settings, kind, day);
            var (there, gone) = (Draw(paper, page, settings, [entry]), Draw(paper, page, settings, [entry with { IsGone = true }]));
            Assert.Equal(ByEntry(there), ByEntry(gone));
            // As many words, and a line through them.
            Assert.Equal(Pieces(there) + 5, Pieces(gone));
        }
    }

    [Fact]
    public void An_entrys_own_page_says_when_it_is_and_leads_back_to_the_day()
    {
        var day = new DateOnly(2026, 10, 8);
        var entry = Entry(2, day.ToDateTime(new TimeOnly(9, 0)), day.ToDateTime(new TimeOnly(10, 0)));
        var settings = Day(day);
        var page = new PlannerPage(PlannerKind.Entry, default, 0, entry.Id);
        Drawing Of(CalendarEntry of) => Draw("a4-ruled-710", page, settings, [of]);
        Assert.Contains(Of(entry).Links, link => link.Target == PlannerPlan.PageOf(settings, PlannerKind.Day, day));
        // A longer head for a place, a whole day without hours, and one that is gone says so.
        Assert.True(Width(Of(entry with { Place = "Workshop" })) > Width(Of(entry)));
        Assert.True(Width(Of(entry with { AllDay = true })) < Width(Of(entry)));
        Assert.True(Width(Of(entry with { IsGone = true })) > Width(Of(entry)));

        // How far the link in the head reaches, and what is printed beside it.
        double Width(Drawing drawing) =>
            drawing
                .Pieces.OfType<Piece.Fill>()
                .SelectMany(fill => fill.Path.Points.Chunk(2))
                .Where(point => point[1] < 900 && point[0] < 19_000)
                .Max(point => point[0]);
    }

    [Fact]
    public void Papers_to_fill_in_print_the_same_frame_without_dates_and_lead_nowhere()
    {
        foreach (var design in new[] { "day", "week", "weekboxes", "month", "term", "year" })
        {
            var paper = Paper.ParseOrDefault($"a4-{design}-710");
            var drawing = paper.Draw(paper.Sheet(null));
            Assert.Empty(drawing.Links);
            Assert.NotEmpty(drawing.Pieces);
            // Plain paper has its lines, and fewer words.
            var plain = Paper.ParseOrDefault($"a4-{design}-710-plain");
            Assert.True(Pieces(plain.Draw(plain.Sheet(null))) <= Pieces(drawing));
        }

        var weeks = Enumerable
            .Range(1, 53)
            .Select(count => Paper.ParseOrDefault($"a4-term-710-count.{count}"))
            .Select(paper => paper.Draw(paper.Sheet(null)).Pieces.OfType<Piece.Line>().Sum(line => line.Path.Steps.Count))
            .ToList();
        Assert.Equal(weeks.Order(), weeks);
        Assert.Equal(53, weeks.Distinct().Count());
    }

    [Fact]
    public void Every_language_prints_its_own_months_and_days_and_they_fit()
    {
        var month = new DateOnly(2026, 11, 1);
        var shapes = new HashSet<int>();
        foreach (var names in CalendarNames.All)
        {
            Assert.Equal((12, 7), (names.Months.Length, names.Days.Length));
            Assert.Equal(12, names.Months.Distinct().Count());
            Assert.Equal(7, names.Days.Distinct().Count());
            // .NET's own names of the same language, but for capitals.
            if (TryCulture(names.Code) is { } culture)
                Assert.Equal(culture.DateTimeFormat.MonthNames[10], names.Months[10], ignoreCase: true);
            var settings = PlannerSettings.Read($"2026-11-01/2026-11-30 monday month,week,day {names.Code}").Settings!;
            var drawing = Draw("a6-month-710", new PlannerPage(PlannerKind.Month, month), settings);
            shapes.Add(drawing.Pieces.OfType<Piece.Fill>().Sum(fill => fill.Path.Points.Count));
            Assert.Equal(30, ByPage(drawing, PlannerKind.Day).Count);
        }

        Assert.Equal(CalendarNames.All.Length, shapes.Count);
    }

    private static CultureInfo? TryCulture(string code)
    {
        try
        {
            var culture = CultureInfo.GetCultureInfo(code, predefinedOnly: true);
            // Without the data of languages every culture is the invariant one.
            return culture.DateTimeFormat.MonthNames[10] == "November" && code != "en" && code != "de" ? null : culture;
        }
        catch (CultureNotFoundException)
        {
            return null;
        }
    }

    private static PlannerSettings Month(DateOnly month, bool fromSunday) =>
        PlannerSettings
            .Read($"{month:yyyy-MM-dd}/{month.AddMonths(1).AddDays(-1):yyyy-MM-dd} {(fromSunday ? "sunday" : "monday")} month,week,day en")
            .Settings!;

    private static PlannerSettings Day(DateOnly day) => Month(new DateOnly(day.Year, day.Month, 1), false);

    private static CalendarEntry Entry(int id, DateTime start, DateTime end, bool allDay = false) =>
        new(Generate.Node(id), start, end, allDay, $"entry {id}", "");

    private static Drawing Draw(string text, PlannerPage page, PlannerSettings settings, params CalendarEntry[] entries)
    {
        var paper = Paper.ParseOrDefault(text);
        return paper.Draw(paper.Sheet(null), new PlannerPrint(Notebook, settings, page, entries));
    }

    /// <summary>Where the pages of a kind are reached from, by their first day, without the tabs at the edge.</summary>
    private static Dictionary<DateOnly, Box> ByPage(Drawing drawing, PlannerKind kind)
    {
        var found = new Dictionary<DateOnly, Box>();
        foreach (var link in drawing.Links.Where(link => link.Target.Kind == kind))
        {
            Assert.Equal(link.Target.IdIn(Notebook), link.Page);
            found.TryAdd(link.Target.Date, link.Area);
        }

        return found;
    }

    private static Dictionary<Guid, Box> ByEntry(Drawing drawing) =>
        drawing
            .Links.Where(link => link.Target.Kind == PlannerKind.Entry)
            .GroupBy(link => link.Target.Entry)
            .ToDictionary(links => links.Key, links => links.First().Area);

    private static List<int> Grid(IEnumerable<int> edges) => [.. edges.Distinct().Order()];

    private static long Overlap(Box a, Box b) =>
        Math.Max(0L, Math.Min(a.Right, b.Right) - Math.Max(a.Left, b.Left))
        * Math.Max(0, Math.Min(a.Bottom, b.Bottom) - Math.Max(a.Top, b.Top))
        / 100;

    private static int Pieces(Drawing drawing) => drawing.Pieces.OfType<Piece.Fill>().Sum(fill => fill.Path.Steps.Count);
}
