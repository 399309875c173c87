using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Planner;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Planners: weeks by ISO 8601, pages that lead to each other, entries side by side, and taking over a newer calendar.</summary>
public class PlannerTests
{
    private const string Everything = "year,term,month,week,day,notes";

    /// <summary>Against .NET's own ISO weeks; and the standard's examples: 2020 and 2026 have 53 weeks, 1 January 2027 lies in week 53 of 2026.</summary>
    [Fact]
    public void Weeks_are_numbered_by_iso_8601()
    {
        var settings = Settings("2026-01-01/2027-12-31");
        foreach (var day in settings.Days())
            Assert.Equal(ISOWeek.GetWeekOfYear(day.ToDateTime(default)), settings.WeekNumber(settings.WeekOf(day)));
        Assert.Equal(53, settings.WeekNumber(settings.WeekOf(new DateOnly(2027, 1, 1))));
        var sunday = Settings("2026-01-01/2026-12-31", week: "sunday");
        Assert.Equal(new DateOnly(2026, 11, 22), sunday.WeekOf(new DateOnly(2026, 11, 25)));
        Assert.Equal(48, sunday.WeekNumber(sunday.WeekOf(new DateOnly(2026, 11, 25))));
    }

    [Theory]
    [InlineData("2026-12-31/2026-01-01 monday day en", "not after")]
    [InlineData("2026-01-01/2106-01-01 monday day en", "at most")]
    [InlineData("2026-01-01/2026-02-30 monday day en", "first and a last day")]
    [InlineData("2026-01-01/2026-02-01 friday day en", "Monday or Sunday")]
    [InlineData("2026-01-01/2026-02-01 monday hour en", "at least one")]
    [InlineData("2026-01-01/2026-02-01 monday day tlh", "language")]
    [InlineData("", "first and a last day")]
    public void A_planner_that_cannot_be_is_refused_in_words(string text, string words) =>
        Assert.Contains(words, PlannerSettings.Read(text).Refusal!.Sentence.English, StringComparison.Ordinal);

    [Fact]
    public void A_year_of_days_is_a_notebook_whose_links_all_lead_somewhere()
    {
        var notebook = Generate.Node(1);
        var document = Make(notebook, Settings("2026-09-07/2027-09-06"));
        var pages = document.Pages();
        Assert.Equal(365, pages.Count(page => document.Read(page.Id, Property.Planner).StartsWith("day/", StringComparison.Ordinal)));
        var ids = pages.Select(page => page.Id).ToHashSet();
        Assert.Equal(pages.Count, ids.Count);
        var linked = new HashSet<Guid>();
        foreach (var page in pages)
        {
            var paper = Paper.ParseOrDefault(page.Paper);
            foreach (var link in paper.Draw(paper.Sheet(null), document.PlannerPrintOf(notebook, page.Id)).Links)
            {
                Assert.Contains(link.Page, ids);
                linked.Add(link.Page);
            }
        }

        // Every day, week and month can be reached by a press.
        Assert.All(
            pages.Where(page => document.Read(page.Id, Property.Planner) is not ("" or "notes")),
            page => Assert.True(linked.Contains(page.Id) || document.Read(page.Id, Property.Planner)[0] == 'n')
        );
    }

    [Fact]
    public void Another_paper_keeps_the_tabs_and_moving_a_page_keeps_the_links()
    {
        var notebook = Generate.Node(1);
        var document = Make(notebook, Settings("2026-09-01/2026-12-18"));
        var day = PlannerPage.Read("day/2026-10-08")!.Value.IdIn(notebook);
        var device = new Replica(5, Generate.People[1]);
        document.Apply(device.Make(new Change.PropertySet(day, Property.Paper, "a5-dotted-500"), long.MaxValue >> 20));
        document.Apply(device.Make(new Change.NodePlaced(day, NodeKind.Page, Guid.Empty, "zz"), long.MaxValue >> 20));
        var paper = Paper.ParseOrDefault(document.Pages().Single(page => page.Id == day).Paper);
        var links = paper.Draw(paper.Sheet(null), document.PlannerPrintOf(notebook, day)).Links;
        Assert.Contains(links, link => link.Page == PlannerPage.Read("month/2026-11-01")!.Value.IdIn(notebook));
        var month = PlannerPage.Read("month/2026-10-01")!.Value.IdIn(notebook);
        var sheet = Paper.ParseOrDefault("a4.across-month-710");
        Assert.Contains(sheet.Draw(sheet.Sheet(null), document.PlannerPrintOf(notebook, month)).Links, link => link.Page == day);
    }

    [Fact]
    public void Entries_that_overlap_lie_side_by_side_in_no_more_columns_than_needed() =>
        Gen.Select(Gen.Int[0, 1200], Gen.Int[0, 240])
            .Array[0, 30]
            .Sample(
                times =>
                {
                    var midnight = new DateTime(2026, 10, 8);
                    var entries = times.Select((time, i) => Entry(i, midnight.AddMinutes(time.Item1), time.Item2)).ToList();
                    var laid = EntryColumns.Lay(entries);
                    Assert.Equal(entries.Count, laid.Count);
                    foreach (var one in laid)
                    {
                        Assert.InRange(one.Column, 0, one.Columns - 1);
                        var beside = laid.Where(other =>
                            other != one
                            && other.Entry.Start < EntryColumns.EndOf(one.Entry)
                            && one.Entry.Start < EntryColumns.EndOf(other.Entry)
                        );
                        Assert.All(beside, other => Assert.NotEqual(one.Column, other.Column));
                        // A column is only opened when so many things happen at one moment of the cluster.
                        Assert.Contains(
                            laid,
                            other =>
                                laid.Count(third =>
                                    third.Entry.Start <= other.Entry.Start && EntryColumns.EndOf(third.Entry) > other.Entry.Start
                                ) >= one.Columns
                        );
                    }
                },
                iter: 1000
            );

    [Fact]
    public void A_newer_calendar_changes_adds_and_marks_what_disappeared()
    {
        var at = new DateTime(2026, 10, 8, 19, 0, 0);
        List<CalendarEntry> known = [Entry(1, at, 60), Entry(2, at, 60), Entry(3, at, 60)];
        List<CalendarEntry> newest = [Entry(1, at, 60), Entry(2, at.AddHours(1), 60), Entry(4, at, 30)];
        var changes = PlannerPlan
            .Update(known, newest)
            .Cast<Change.PropertySet>()
            .ToDictionary(change => change.Target, change => CalendarEntry.Read(change.Target, change.Value)!);
        Assert.Equal([Generate.Node(2), Generate.Node(3), Generate.Node(4)], changes.Keys.Order());
        Assert.Equal(at.AddHours(1), changes[Generate.Node(2)].Start);
        Assert.True(changes[Generate.Node(3)].IsGone);
        // The same file again changes nothing, and what is back is no longer gone.
        var now = known.Where(entry => !changes.ContainsKey(entry.Id)).Concat(changes.Values).ToList();
        Assert.Empty(PlannerPlan.Update(now, newest));
        Assert.False(
            CalendarEntry
                .Read(Generate.Node(3), PlannerPlan.Update(now, [.. newest, Entry(3, at, 60)]).Cast<Change.PropertySet>().Single().Value)!
                .IsGone
        );
    }

    [Fact]
    public void What_somebody_put_into_a_planner_is_taken_away_by_no_calendar()
    {
        var settings = PlannerSettings.Read("2026-09-01/2027-07-31 monday day en").Settings!;
        var own = PlannerPlan.OwnEntry(settings, [], Generate.Node(9), "2026-12-04", "14:30", 90, " Clock class ");
        Assert.Equal(new DateTime(2026, 12, 4, 14, 30, 0), own.Start);
        Assert.Equal((own.Start.AddMinutes(90), "Clock class", false), (own.End, own.Title, own.AllDay));
        Assert.Equal(own, CalendarEntry.Read(own.Id, own.Write()));
        Assert.Empty(PlannerPlan.Update([own], []));
        Assert.Single(PlannerPlan.Update([own with { IsOwn = false }], []));
        var whole = PlannerPlan.OwnEntry(settings, [], Generate.Node(9), "2026-12-04", "", 90, "Fair");
        Assert.Equal((true, whole.Start.AddDays(1)), (whole.AllDay, whole.End));
    }

    [Theory]
    [InlineData("2026-08-31", "14:30", "Fair")]
    [InlineData("2027-08-01", "", "Fair")]
    [InlineData("4.12.2026", "", "Fair")]
    [InlineData("2026-12-04", "2 pm", "Fair")]
    [InlineData("2026-12-04", "", " ")]
    public void What_cannot_be_put_into_a_planner_is_refused(string day, string time, string title)
    {
        var settings = PlannerSettings.Read("2026-09-01/2027-07-31 monday day en").Settings;
        Assert.Throws<Words.SentenceException>(() => PlannerPlan.OwnEntry(settings, [], Generate.Node(9), day, time, 60, title));
        Assert.Throws<Words.SentenceException>(() => PlannerPlan.OwnEntry(null, [], Generate.Node(9), "2026-12-04", "", 60, "Fair"));
    }

    [Fact]
    public void A_renamed_or_moved_entry_renames_its_note_page_unless_a_person_named_it()
    {
        var at = new DateTime(2026, 10, 8, 19, 0, 0);
        var names = CalendarNames.Find("de")!;
        var (old, renamed) = (Entry(1, at, 60), Entry(1, at.AddDays(1), 60) with { Title = "Clock class, moved" });
        var page = Generate.Node(77);
        List<Change> Changes(string title) => [.. PlannerPlan.Update([old], [renamed], _ => (page, title), names)];
        foreach (var ours in new[] { PlannerPlan.NoteTitle(old, names), PlannerPlan.NoteTitle(old, CalendarNames.English) })
            Assert.Contains(new Change.PropertySet(page, Property.Name, "Clock class, moved, 9 Oktober"), Changes(ours));
        Assert.Single(Changes("What we said about springs"));
        Assert.Single(PlannerPlan.Update([old], [renamed], _ => null, names));
        // A very long title is cut to what a name may hold, between characters.
        Assert.Equal(199, PlannerPlan.NoteTitle(old with { Title = new string('x', 199) + "\U0001F553" }, names).Length);
    }

    /// <summary>Two entries whose place on the sheet is the same are told apart by what is printed.</summary>
    [Fact]
    public void What_lies_before_the_first_hour_or_after_the_last_stands_at_the_edge_with_its_time()
    {
        var day = new DateOnly(2026, 10, 8);
        CalendarEntry From(int number, double hour, double hours) =>
            Entry(number, day.ToDateTime(default).AddHours(hour), (int)(hours * 60));
        foreach (var (one, other) in new[] { (5.5, 5.75), (22.5, 23.25) })
        {
            var (drawn, else_) = (Drawn("a4-day-710", day, From(1, one, 0.5)), Drawn("a4-day-710", day, From(1, other, 0.5)));
            Assert.Equal(Slots(drawn), Slots(else_));
            Assert.NotEqual(Words(drawn), Words(else_));
            Assert.All(Slots(drawn), slot => Assert.InRange(slot.Bottom, slot.Top + 100, 29_700));
        }

        // A time on the quarter is shown by its place alone; any other is printed.
        Assert.Equal(Words(Drawn("a4-day-710", day, From(1, 9, 1))).Length, Words(Drawn("a4-day-710", day, From(1, 10, 1))).Length);
        Assert.NotEqual(
            Words(Drawn("a4-day-710", day, From(1, 9, 1))).Length,
            Words(Drawn("a4-day-710", day, From(1, 9 + 7 / 60.0, 1))).Length
        );
        // What stands at one edge stands beside each other, and beside what begins there.
        var early = Slots(Drawn("a4-day-710", day, From(1, 5, 1), From(2, 6, 0.5), From(3, 7, 1)));
        Assert.Equal(3, early.Count);
        foreach (var (one, i) in early.Select((slot, i) => (slot, i)))
            Assert.DoesNotContain(early.Skip(i + 1), other => one.Meets(other));
        // A third that fills the day is counted, not left out in silence.
        CalendarEntry Whole(int number) =>
            new(Generate.Node(number), day.ToDateTime(default), day.AddDays(1).ToDateTime(default), true, "Fair", "");
        Assert.NotEqual(
            Words(Drawn("a4-day-710", day, Whole(1), Whole(2), Whole(3))),
            Words(Drawn("a4-day-710", day, Whole(1), Whole(2), Whole(3), Whole(4)))
        );
    }

    [Theory]
    [InlineData("a4-squared-500")]
    [InlineData("a4-ruled-710")]
    [InlineData("a4-dotted-500")]
    [InlineData("a5-cornell-710")]
    public void A_planners_day_on_another_paper_keeps_its_date_its_entries_and_the_way_to_its_week(string paper)
    {
        var day = new DateOnly(2026, 10, 8);
        var at = day.ToDateTime(default).AddHours(19);
        var drawn = Drawn(paper, day, Entry(1, at, 60), Entry(2, at.AddHours(2), 30));
        Assert.NotEqual(Words(drawn), Words(Drawn(paper, day.AddDays(1), Entry(1, at, 60), Entry(2, at.AddHours(2), 30))));
        Assert.Equal(2, Slots(drawn).Count);
        Assert.Contains(drawn.Links, link => link.Target.Kind == PlannerKind.Week);
        var size = Paper.ParseOrDefault(paper);
        Assert.All(Slots(drawn), slot => Assert.True(slot.Left >= 0 && slot.Right <= size.Width && slot.Bottom <= size.Height / 2));
        // Very many entries are counted.
        var many = Slots(Drawn(paper, day, [.. Enumerable.Range(1, 60).Select(i => Entry(i, at.AddMinutes(i), 10))]));
        Assert.InRange(many.Count, 6, 20);
    }

    private static Drawing Drawn(string paper, DateOnly day, params CalendarEntry[] entries)
    {
        var settings = PlannerSettings.Read("2026-09-07/2026-12-18 monday year,month,week,day,notes en").Settings!;
        var on = Paper.ParseOrDefault(paper);
        return on.Draw(on.Sheet(null), new PlannerPrint(Generate.Node(50), settings, new PlannerPage(PlannerKind.Day, day), entries));
    }

    private static List<Box> Slots(Drawing drawing) =>
        [.. drawing.Links.Where(link => link.Target.Kind == PlannerKind.Entry).Select(link => link.Area)];

    /// <summary>The outlines of all that is printed in words.</summary>
    private static string Words(Drawing drawing) =>
        string.Join('|', drawing.Pieces.OfType<Piece.Fill>().Select(piece => piece.Path.ToSvg()));

    [Fact]
    public void Entries_and_roles_read_back_and_noise_is_refused()
    {
        var entry = new CalendarEntry(
            Generate.Node(9),
            new DateTime(2026, 3, 1, 8, 5, 0),
            new DateTime(2026, 3, 2),
            true,
            "Prüfung \"2\"\\",
            "Küche",
            true
        );
        Assert.Equal(entry, CalendarEntry.Read(entry.Id, entry.Write()));
        foreach (var page in new[] { "year/2026-01-01", "day/2026-10-08", "notes/3", $"entry/{Generate.Node(9)}" })
            Assert.Equal(page, PlannerPage.Read(page)!.Value.ToString());
        Gen.String.Sample(
            text =>
            {
                Assert.Null(CalendarEntry.Read(Guid.Empty, text));
                Assert.Null(PlannerPage.Read(text));
                Assert.NotNull(PlannerSettings.Read(text).Refusal);
            },
            iter: 2000
        );
    }

    [Fact]
    public void A_copied_planner_leads_within_itself()
    {
        var (from, to) = (Generate.Node(1), Generate.Node(2));
        var copy = new NotebookDocument();
        var device = new Replica(9, Generate.People[0]);
        var next = 100;
        foreach (
            var change in NotebookCopy
                .Plan(Make(from, Settings("2026-10-01/2026-10-31")), null, "", true, () => Generate.Node(next++), whole: (from, to))
                .Changes
        )
            copy.Apply(device.Make(change, 5));
        var day = PlannerPage.Read("day/2026-10-08")!.Value.IdIn(to);
        Assert.Contains(copy.Pages(), page => page.Id == day);
        Assert.Equal(new DateOnly(2026, 10, 8), copy.PlannerPrintOf(to, day)!.Page.Date);
    }

    private static CalendarEntry Entry(int id, DateTime start, int minutes) =>
        new(Generate.Node(id + (id == 0 ? 900 : 0)), start, start.AddMinutes(minutes), false, $"entry {id}", "");

    private static PlannerSettings Settings(string span, string week = "monday", string kinds = Everything) =>
        PlannerSettings.Read($"{span} {week} {kinds} en").Settings!;

    private static NotebookDocument Make(Guid notebook, PlannerSettings settings)
    {
        var papers = Enum.GetValues<PlannerKind>()
            .ToDictionary(
                kind => kind,
                kind =>
                    kind switch
                    {
                        PlannerKind.Year => "a4-year-710",
                        PlannerKind.Term => "a4-term-710",
                        PlannerKind.Month => "a4.across-month-710",
                        PlannerKind.Week => "a4.across-week-710",
                        PlannerKind.Day => "a4-day-710",
                        _ => "a4-ruled-710",
                    }
            );
        var document = new NotebookDocument();
        var device = new Replica(3, Generate.People[0]);
        var section = 5000;
        foreach (var change in PlannerPlan.Make(notebook, settings, papers, ["sky"], () => Generate.Node(section++), 7))
            document.Apply(device.Make(change, 1));
        return document;
    }
}
