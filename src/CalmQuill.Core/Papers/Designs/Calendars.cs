using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Planner;

namespace CalmQuill.Core.Papers.Designs;

/// <summary>Days, weeks, months, terms and years: without dates as papers to fill in, with dates as the pages of a planner, where every date leads to its page.</summary>
internal static class Calendars
{
    private const string Group = "Time";

    /// <summary>The hours that day and week show.</summary>
    private const int FirstHour = 7,
        LastHour = 22;

    public static readonly PaperDesign[] All =
    [
        new("day", "Day", Group, 710, LayDay),
        new("week", "Week, by hours", Group, 710, LayWeek) { SpacingWords = "", Across = true },
        new("weekboxes", "Week, in boxes", Group, 710, LayWeekBoxes),
        new("month", "Month", Group, 710, LayMonth) { SpacingWords = "", Across = true },
        new("term", "Term plan", Group, 710, LayTerm)
        {
            SpacingWords = "",
            CountWords = "Weeks",
            UsualCount = 16,
            MostCount = 53,
        },
        new("year", "Year", Group, 710, LayYear) { SpacingWords = "" },
    ];

    private static CalendarNames Names(PaperPen pen) => pen.PlannerPrint?.Settings.Names ?? CalendarNames.English;

    /// <summary>The part of a sheet that tabs leave free.</summary>
    private static float Right(PaperPen pen) =>
        pen.Width - (pen.PlannerPrint is null ? pen.Side : Math.Max(pen.Side, PlannerTabs.Width + 350));

    /// <summary>The days of a week in its order: as dates on a planner's page, else by their place after Monday.</summary>
    private static (string Name, DateOnly? Date)[] Week(PaperPen pen) =>
        pen.PlannerPrint is { Page.Kind: PlannerKind.Week } face
            ?
            [
                .. Enumerable
                    .Range(0, 7)
                    .Select(i => face.Page.Date.AddDays(i))
                    .Select(day => (face.Settings.Names.Day(day), (DateOnly?)day)),
            ]
            : [.. DayOrder(pen).Select(day => (Names(pen).Days[day], (DateOnly?)null))];

    private static IEnumerable<int> DayOrder(PaperPen pen)
    {
        var first = pen.PlannerPrint is { } face ? CalendarNames.MondayFirst(face.Settings.WeekStart) : 0;
        return Enumerable.Range(0, 7).Select(i => (first + i) % 7);
    }

    private static void Title(PaperPen pen, string title, string aside = "")
    {
        var left = pen.Side;
        pen.Print(title, left, pen.Side + 500, 720);
        if (aside.Length > 0)
            pen.Print(aside, Right(pen), pen.Side + 500, 380, 1);
    }

    private static void DayTitle(PaperPen pen, PlannerPrint face, DateOnly date)
    {
        var (settings, names) = (face.Settings, face.Settings.Names);
        Title(pen, $"{names.Day(date)} {date.Day} {names.Month(date)}", $"{names.Week} {settings.WeekNumber(settings.WeekOf(date))}");
        if (face.PageOf(PlannerKind.Week, date) is { } week)
            pen.Link(Right(pen) - 2600, pen.Side - 100, 2600, 800, week);
    }

    private static void WeekTitle(PaperPen pen, PlannerPrint face) =>
        Title(pen, $"{face.Settings.Names.Week} {face.Settings.WeekNumber(face.Page.Date)}", SpanWords(face.Settings, face.Page.Date));

    private static void MonthTitle(PaperPen pen, CalendarNames names, DateOnly month) => Title(pen, $"{names.Month(month)} {month.Year}");

    private static void TermTitle(PaperPen pen, PlannerSettings settings)
    {
        var (first, last, names) = (settings.First, settings.Last, settings.Names);
        Title(pen, $"{first.Day} {names.Month(first)} – {last.Day} {names.Month(last)} {last.Year}");
    }

    private static string Number(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static void LayDay(PaperPen pen)
    {
        var names = Names(pen);
        DateOnly? day = pen.PlannerPrint is { Page.Kind: PlannerKind.Day } face ? face.Page.Date : null;
        float left = pen.Side,
            right = Right(pen),
            top = pen.Side + 1500,
            bottom = pen.Height - pen.Side,
            split = left + (right - left) * 0.56f;
        if (day is { } date)
        {
            DayTitle(pen, pen.PlannerPrint!, date);
        }
        else
        {
            Title(pen, "");
            pen.Field("Day", left, split - 400, pen.Side + 400);
        }

        Hours(pen, left, top, split - 300, bottom, day is { } on ? [on] : []);
        float y = top - 150;
        pen.Part("To do", split, y, right);
        var half = top + (bottom - top) * 0.42f;
        for (var line = y + pen.Spacing * 1.5f; line < half - pen.Spacing; line += pen.Spacing)
        {
            pen.Box(split, line - 380, 330, 330);
            pen.Horizontal(line, split + 520, right);
        }

        pen.Part("Notes", split, half, right);
        pen.Lines(half + pen.Spacing * 1.5f, bottom, split, right);
    }

    private static void LayWeek(PaperPen pen)
    {
        var week = Week(pen);
        if (pen.PlannerPrint is { Page.Kind: PlannerKind.Week } face)
            WeekTitle(pen, face);
        else
            pen.Field(Names(pen).Week, pen.Side, pen.Side + 4000, pen.Side + 400);
        float left = pen.Side,
            right = Right(pen),
            top = pen.Side + 2300,
            bottom = pen.Height - pen.Side,
            hours = 800,
            column = (right - left - hours) / 7;
        for (var i = 0; i < 7; i++)
        {
            var x = left + hours + i * column;
            DayName(pen, week[i], x + 120, top - 850, column - 200);
        }

        Hours(pen, left, top, right, bottom, [.. week.Select(day => day.Date ?? default)]);
    }

    private static void LayWeekBoxes(PaperPen pen)
    {
        var week = Week(pen);
        if (pen.PlannerPrint is { Page.Kind: PlannerKind.Week } face)
            WeekTitle(pen, face);
        else
            pen.Field(Names(pen).Week, pen.Side, pen.Side + 4000, pen.Side + 400);
        float left = pen.Side,
            right = Right(pen),
            top = pen.Side + 1300,
            gap = 350,
            width = (right - left - gap) / 2,
            height = (pen.Height - pen.Side - top - 3 * gap) / 4;
        for (var i = 0; i < 8; i++)
        {
            float x = left + i % 2 * (width + gap),
                y = top + i / 2 * (height + gap);
            pen.Box(x, y, width, height, pen.Strong);
            if (i == 7)
            {
                pen.Lines(y + pen.Spacing * 1.6f, y + height, x + 250, x + width - 250);
                continue;
            }

            DayName(pen, week[i], x + 250, y + 450, width - 500);
            if (week[i].Date is { } day)
                Listed(pen, day, x + 250, y + 900, width - 500, (int)((height - 900) / 420));
        }
    }

    private static void LayMonth(PaperPen pen)
    {
        var names = Names(pen);
        var settings = pen.PlannerPrint?.Settings;
        DateOnly? month = pen.PlannerPrint is { Page.Kind: PlannerKind.Month } face ? face.Page.Date : null;
        if (month is { } named)
            MonthTitle(pen, names, named);
        else
            pen.Field("Month", pen.Side, pen.Side + 5000, pen.Side + 400);
        var first = month is { } start ? settings!.WeekOf(start) : default;
        var rows = month is { } shown ? (int)Math.Ceiling((shown.AddMonths(1).DayNumber - first.DayNumber) / 7.0) : 6;
        float weeks = month is null ? 0 : 700,
            left = pen.Side + weeks,
            right = Right(pen),
            top = pen.Side + 1700,
            bottom = pen.Height - pen.Side,
            column = (right - left) / 7,
            row = (bottom - top) / rows;
        var order = DayOrder(pen).ToArray();
        for (var i = 0; i < 7; i++)
            pen.Print(Glyphs.Fit(names.Days[order[i]], 310, column - 200), left + i * column + 120, top - 200, 310);
        for (var i = 0; i <= rows; i++)
            pen.Horizontal(top + i * row, left, right, pen.Strong);
        for (var i = 0; i <= 7; i++)
            pen.Vertical(left + i * column, top, bottom, pen.Strong);
        if (month is not { } of)
            return;
        for (var i = 0; i < rows * 7; i++)
        {
            var day = first.AddDays(i);
            float x = left + i % 7 * column,
                y = top + i / 7 * row;
            if (i % 7 == 0)
            {
                pen.Print(Number(settings!.WeekNumber(day)), left - 180, y + 480, 280, 1);
                if (pen.PlannerPrint!.PageOf(PlannerKind.Week, day) is { } week)
                    pen.Link(left - weeks, y, weeks, row, week);
            }

            if (day.Month != of.Month)
                continue;
            pen.Print(Number(day.Day), x + 150, y + 520, 420, 0, pen.Ink);
            if (pen.PlannerPrint!.NearestTo(day) is { } page)
                pen.Link(x, y, column, 700, page);
            Listed(pen, day, x + 150, y + 950, column - 300, (int)((row - 900) / 420));
        }
    }

    private static void LayTerm(PaperPen pen)
    {
        var names = Names(pen);
        var settings = pen.PlannerPrint?.Settings;
        DateOnly[] weeks = settings is null ? [] : [.. settings.Weeks().Take(60)];
        var rows = settings is null ? pen.Count : weeks.Length;
        if (settings is null)
            pen.Field("Term", pen.Side, pen.Side + 5000, pen.Side + 400);
        else
            TermTitle(pen, settings);
        float label = 1500,
            left = pen.Side + label,
            right = Right(pen),
            top = pen.Side + 1700,
            bottom = pen.Height - pen.Side,
            column = (right - left) / 7,
            row = (bottom - top) / rows;
        var order = DayOrder(pen).ToArray();
        for (var i = 0; i < 7; i++)
            pen.Print(Glyphs.Fit(names.Days[order[i]], 300, column - 150), left + i * column + 100, top - 200, 300);
        for (var i = 0; i <= rows; i++)
            pen.Horizontal(top + i * row, pen.Side, right, pen.Strong);
        for (var i = 0; i <= 7; i++)
            pen.Vertical(left + i * column, top, bottom);
        for (var i = 0; i < rows; i++)
        {
            var y = top + i * row;
            var size = Math.Min(300, row * 0.4f);
            if (settings is null)
            {
                pen.Print(Number(i + 1), pen.Side + 100, y + size * 1.3f, size);
                continue;
            }

            pen.Print($"{CalendarNames.Short(names.Week, 1)}{settings.WeekNumber(weeks[i])}", pen.Side, y + size * 1.3f, size);
            if (pen.PlannerPrint!.PageOf(PlannerKind.Week, weeks[i]) is { } week)
                pen.Link(pen.Side, y, label, row, week);
            for (var d = 0; d < 7; d++)
            {
                var day = weeks[i].AddDays(d);
                if (!settings.Holds(day))
                    continue;
                pen.Print(
                    day.Day == 1 || day == settings.First ? $"{day.Day} {CalendarNames.Short(names.Month(day), 3)}" : Number(day.Day),
                    left + d * column + 90,
                    y + size * 1.3f,
                    size * 0.9f
                );
                if (pen.PlannerPrint.NearestTo(day) is { } page)
                    pen.Link(left + d * column, y, column, row, page);
                Listed(pen, day, left + d * column + 90, y + size * 2.5f, column - 180, (int)((row - size * 1.6f) / 320), 250);
            }
        }
    }

    private static void LayYear(PaperPen pen)
    {
        var names = Names(pen);
        var settings = pen.PlannerPrint?.Settings;
        var year = pen.PlannerPrint is { Page.Kind: PlannerKind.Year } face ? face.Page.Date.Year : (int?)null;
        if (year is { } shown)
            Title(pen, Number(shown));
        else
            pen.Field("Year", pen.Side, pen.Side + 4000, pen.Side + 400);
        var columns = pen.Width > pen.Height ? 4 : 3;
        var rows = 12 / columns;
        float gap = 600,
            left = pen.Side,
            right = Right(pen),
            top = pen.Side + 1600,
            width = (right - left - gap * (columns - 1)) / columns,
            height = (pen.Height - pen.Side - top - gap * (rows - 1)) / rows;
        var order = DayOrder(pen).ToArray();
        for (var m = 0; m < 12; m++)
        {
            float x = left + m % columns * (width + gap),
                y = top + m / columns * (height + gap),
                day = width / 7,
                line = (height - 900) / 7,
                size = Math.Min(280, day * 0.62f);
            pen.Print(names.Months[m], x, y + 350, 380);
            pen.Horizontal(y + 500, x, x + width, pen.Strong);
            for (var d = 0; d < 7; d++)
                pen.Print(CalendarNames.Short(names.Days[order[d]], 2), x + (d + 0.5f) * day, y + 900, size * 0.9f, 0.5f);
            if (year is not { } known)
            {
                for (var row = 1; row <= 6; row++)
                    pen.Horizontal(y + 900 + row * line, x, x + width);
                continue;
            }

            var month = new DateOnly(known, m + 1, 1);
            if (
                settings!.Last >= month
                && settings.First < month.AddMonths(1)
                && pen.PlannerPrint!.PageOf(PlannerKind.Month, month) is { } monthPage
            )
                pen.Link(x, y, width, 500, monthPage);
            for (var one = month; one < month.AddMonths(1); one = one.AddDays(1))
            {
                var cell = one.DayNumber - settings.WeekOf(month).DayNumber;
                float cx = x + (cell % 7 + 0.5f) * day,
                    cy = y + 900 + (cell / 7 + 1) * line;
                pen.Print(Number(one.Day), cx, cy, size, 0.5f, settings.Holds(one) ? null : pen.Strong);
                if (pen.PlannerPrint!.On(one).Any())
                    pen.Fill(cx - size * 0.6f, cy + size * 0.22f, size * 1.2f, size * 0.12f, pen.Accent);
                if (pen.PlannerPrint.NearestTo(one) is { } page)
                    pen.Link(cx - day / 2, cy - line * 0.75f, day, line, page);
            }
        }
    }

    private static string SpanWords(PlannerSettings settings, DateOnly week)
    {
        var last = week.AddDays(6);
        return $"{week.Day} {settings.Names.Month(week)} – {last.Day} {settings.Names.Month(last)} {last.Year}";
    }

    private static void DayName(PaperPen pen, (string Name, DateOnly? Date) day, float x, float y, float width)
    {
        pen.Print(Glyphs.Fit(day.Date is { } date ? $"{day.Name} {date.Day}" : day.Name, 340, width), x, y, 340);
        if (day.Date is { } known && pen.PlannerPrint?.PageOf(PlannerKind.Day, known) is { } page)
            pen.Link(x - 100, y - 450, width, 650, page);
    }

    /// <summary>A grid of hours with one column a day, and the calendar's entries at their times.</summary>
    private static void Hours(PaperPen pen, float left, float top, float right, float bottom, IReadOnlyList<DateOnly> days)
    {
        const float label = 800;
        var hour = (bottom - top) / (LastHour - FirstHour);
        var columns = Math.Max(1, days.Count);
        var column = (right - left - label) / columns;
        for (var h = FirstHour; h <= LastHour; h++)
        {
            var y = top + (h - FirstHour) * hour;
            if (h < LastHour)
                pen.Print(Number(h), left + 500, y + 110, 290, 1);
            pen.Horizontal(y, left + label, right, pen.Strong);
            if (h < LastHour)
                pen.Horizontal(y + hour / 2, left + label, right, pen.Rule, null, new Dash(60, 120));
        }

        for (var i = 0; i <= columns; i++)
            pen.Vertical(left + label + i * column, top, bottom, pen.Rule);
        if (pen.PlannerPrint is not { } face)
            return;
        for (var i = 0; i < days.Count; i++)
        {
            var x = left + label + i * column;
            var day = days[i];
            var whole = face.On(day).Where(entry => entry.AllDay).ToList();
            for (var n = 0; n < Math.Min(whole.Count, 2); n++)
            {
                var more = n == 1 && whole.Count > 2 ? $" + {whole.Count - 2}" : "";
                Bar(pen, whole[n], x + 60, top - 600 + n * 300, column - 120, 280, more);
            }

            DateTime firstHour = day.ToDateTime(new TimeOnly(FirstHour, 0)),
                lastHour = day.ToDateTime(new TimeOnly(LastHour, 0));
            // What lies before the first hour or after the last stands at the edge, beside what else is there.
            foreach (
                var (at, lane, lanes) in EntryColumns.Lay(
                    face.On(day).Where(entry => !entry.AllDay).Select(entry => Within(entry, firstHour, lastHour))
                )
            )
            {
                var entry = face.Entries.First(one => one.Id == at.Id);
                float At(DateTime time) => top + Math.Clamp((float)(time - firstHour).TotalHours, 0, LastHour - FirstHour) * hour;
                float from = Math.Min(At(at.Start), bottom - hour / 3),
                    to = Math.Max(At(EntryColumns.EndOf(at)), from + hour / 3),
                    width = (column - 120) / lanes;
                Slot(pen, entry, Times(entry, day, at, firstHour), x + 60 + lane * width, from + 20, width - 40, to - from - 40);
            }
        }
    }

    /// <summary>The part of an entry that lies within the hours shown; of what lies outside of them the least part at their edge.</summary>
    private static CalendarEntry Within(CalendarEntry entry, DateTime first, DateTime last)
    {
        var latest = last.AddMinutes(-EntryColumns.LeastMinutes);
        DateTime start = entry.Start < first ? first
            : entry.Start > latest ? latest
            : entry.Start,
            end = entry.End > last ? last : entry.End;
        return entry with
        {
            Start = start,
            End = end < start.AddMinutes(EntryColumns.LeastMinutes) ? start.AddMinutes(EntryColumns.LeastMinutes) : end,
        };
    }

    /// <summary>An entry's times, where its place among the hours does not show them; else nothing.</summary>
    private static string Times(CalendarEntry entry, DateOnly day, CalendarEntry at, DateTime first)
    {
        // A place shows the quarter of an hour.
        var isShown = at.Start == entry.Start && entry.Start.Minute % 15 == 0 && at.End == EntryColumns.EndOf(entry) && at.Start >= first;
        return isShown ? "" : Span(entry, day) + " ";
    }

    /// <summary>From when to when an entry is, as seen on a day: what began before it, or ends after it, has no time there.</summary>
    private static string Span(CalendarEntry entry, DateOnly day)
    {
        var (from, to) = (DateOnly.FromDateTime(entry.Start) < day, DateOnly.FromDateTime(entry.End) > day);
        string start = from ? "…" : Hour(entry.Start),
            end = to ? "…" : Hour(entry.End);
        return entry.End == entry.Start ? start : $"{start}–{end}";
    }

    private static string Hour(DateTime time) => time.ToString("HH:mm", CultureInfo.InvariantCulture);

    private static void Slot(PaperPen pen, CalendarEntry entry, string times, float x, float y, float width, float height)
    {
        const float size = 290;
        pen.Fill(x, y, width, height, Colours.Mix(pen.Paper.Colour, Tint(entry), 0.16));
        pen.Fill(x, y, 70, height, Tint(entry));
        var lines = Glyphs.Wrap(times + entry.Title, size, width - 230, Math.Max(1, (int)(height / (size * 1.3f))));
        for (var i = 0; i < lines.Count; i++)
            EntryWords(pen, entry, lines[i], x + 170, y + size * (1.1f + 1.25f * i), width - 230, size);
        var below = size * (1.1f + 1.25f * lines.Count);
        if (entry.Place.Length > 0 && below + size * 0.4f < height)
            EntryWords(pen, entry, entry.Place, x + 170, y + below, width - 230, size * 0.85f);
        pen.Link(x, y, width, height, new PlannerPage(PlannerKind.Entry, default, 0, entry.Id));
    }

    private static void Bar(PaperPen pen, CalendarEntry entry, float x, float y, float width, float height, string more)
    {
        pen.Fill(x, y, width, height, Colours.Mix(pen.Paper.Colour, Tint(entry), 0.16));
        float size = height * 0.8f,
            room = Glyphs.Width(more, size);
        EntryWords(pen, entry, entry.Title, x + 80, y + height * 0.78f, width - 120 - room, size);
        if (more.Length > 0)
            pen.Print(more, x + width - 40, y + height * 0.78f, size, 1);
        pen.Link(x, y, width, height, new PlannerPage(PlannerKind.Entry, default, 0, entry.Id));
    }

    /// <summary>The dates and entries of a planner's page whose paper is of another kind: they stand at its head.</summary>
    public static void LayHead(PaperPen pen)
    {
        if (pen.PlannerPrint is not { } face || pen.Paper.Design.Group == Group || face.Page.Kind is PlannerKind.Notes or PlannerKind.Entry)
            return;
        var (settings, names, date) = (face.Settings, Names(pen), face.Page.Date);
        switch (face.Page.Kind)
        {
            case PlannerKind.Day:
                DayTitle(pen, face, date);
                break;
            case PlannerKind.Week:
                WeekTitle(pen, face);
                break;
            case PlannerKind.Month:
                MonthTitle(pen, names, date);
                break;
            case PlannerKind.Year:
                Title(pen, Number(date.Year));
                return;
            default:
                TermTitle(pen, settings);
                return;
        }

        const float size = 270,
            step = size * 1.5f;
        const int columns = 3;
        float left = pen.Side,
            top = pen.Side + 1050,
            width = (Right(pen) - left) / columns;
        var rows = Math.Clamp((int)((pen.Head - top) / step), 3, 6);
        var entries = face
            .Entries.OrderBy(entry => DateOnly.FromDateTime(entry.Start))
            .ThenBy(entry => entry.AllDay ? 0 : 1)
            .ThenBy(entry => entry.Start)
            .ToList();
        for (var i = 0; i < Math.Min(entries.Count, rows * columns); i++)
        {
            float x = left + i / rows * width,
                y = top + i % rows * step;
            if (i == rows * columns - 1 && entries.Count > rows * columns)
            {
                pen.Print($"+ {entries.Count - i}", x, y, size);
                break;
            }

            var entry = entries[i];
            var day = DateOnly.FromDateTime(entry.Start) < date ? date : DateOnly.FromDateTime(entry.Start);
            var words =
                (face.Page.Kind == PlannerKind.Day ? "" : $"{CalendarNames.Short(names.Day(day), 2)} {day.Day} ")
                + (entry.AllDay ? "" : Span(entry, day) + " ")
                + entry.Title;
            EntryWords(pen, entry, words, x, y, width - 200, size);
            pen.Link(x - 60, y - size, width - 140, step, new PlannerPage(PlannerKind.Entry, default, 0, entry.Id));
        }
    }

    /// <summary>Entries as short lines below each other, where there is no grid of hours.</summary>
    private static void Listed(PaperPen pen, DateOnly day, float x, float y, float width, int most, float size = 270)
    {
        if (pen.PlannerPrint is not { } face || most < 1)
            return;
        var entries = face.On(day).OrderBy(entry => entry.AllDay ? 0 : 1).ThenBy(entry => entry.Start).ToList();
        var step = size * 1.5f;
        for (var i = 0; i < Math.Min(entries.Count, most); i++)
        {
            var isMore = i == most - 1 && entries.Count > most;
            var entry = entries[i];
            var words =
                isMore ? $"+ {entries.Count - most + 1}"
                : entry.AllDay ? entry.Title
                : $"{(DateOnly.FromDateTime(entry.Start) < day ? "…" : Hour(entry.Start))} {entry.Title}";
            if (isMore)
                pen.Print(words, x, y + i * step, size);
            else
                EntryWords(pen, entry, words, x, y + i * step, width, size);
            if (!isMore)
                pen.Link(x - 60, y + i * step - size, width, step, new PlannerPage(PlannerKind.Entry, default, 0, entry.Id));
        }
    }

    /// <summary>What an entry is called; struck through once the calendar no longer has it.</summary>
    private static void EntryWords(PaperPen pen, CalendarEntry entry, string text, float x, float baseline, float width, float size)
    {
        var words = Glyphs.Fit(text, size, width);
        pen.Print(words, x, baseline, size, 0, entry.IsGone ? pen.Strong : pen.Ink);
        if (entry.IsGone)
            pen.Fill(x, baseline - size * 0.32f, Glyphs.Width(words, size), size * 0.06f, pen.Accent);
    }

    private static uint Tint(CalendarEntry entry) => entry.IsGone ? 0x8B887BFF : 0x4F7388FF;
}
