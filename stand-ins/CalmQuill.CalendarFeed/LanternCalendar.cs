using System.Globalization;
using System.Text;

namespace CalmQuill.CalendarFeed;

/// <summary>The calendar of the Lantern Street Clock Study Group, around a day: what a calendar service would give out (RFC 5545).</summary>
public static class LanternCalendar
{
    /// <param name="around">The day in whose month it begins.</param>
    /// <param name="changed">Whether it is the later state: one entry moved, one new, one gone.</param>
    public static string Write(DateOnly around, bool changed)
    {
        var text = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Lantern Street//Calendar//EN\r\n");
        var first = new DateOnly(around.Year, around.Month, 1);
        var wednesday = first.AddDays((3 - (int)first.DayOfWeek + 7) % 7);
        var monday = around.AddDays(-(((int)around.DayOfWeek + 6) % 7));
        Timed(text, "class", wednesday, 19, 0, 120, "Clock class", "Lantern Street 4, workshop", "RRULE:FREQ=WEEKLY;COUNT=26");
        Timed(text, "open-bench", wednesday.AddDays(3), 10, 0, 180, "Open bench", "Workshop", "RRULE:FREQ=WEEKLY;INTERVAL=2;COUNT=13");
        Timed(text, "trains", monday, 18, 30, 90, "Practice: gear trains", "Maren's kitchen");
        Timed(text, "drawing", monday.AddDays(1), changed ? 18 : 17, 0, 75, "Drawing for the certificate", "Library");
        Timed(text, "visit", monday.AddDays(3), 14, 0, 120, "Tower clock visit", "Market tower");
        Timed(text, "winding", monday.AddDays(3), 15, 0, 30, "Wind the tower clock", "Market tower");
        Timed(text, "tea", monday.AddDays(3), 15, 15, 60, "Tea with the keeper", "");
        if (!changed)
            Timed(text, "springs", monday.AddDays(4), 17, 0, 60, "Mainsprings: what can go wrong", "Workshop");
        if (changed)
            Timed(text, "exam-talk", monday.AddDays(4), 18, 0, 45, "Questions before the exam", "Workshop");
        WholeDay(text, "fair", monday.AddDays(5), 2, "Clock fair");
        WholeDay(text, "exam", around.AddDays(40), 1, "Certificate, level 2");
        return text.Append("END:VCALENDAR\r\n").ToString();
    }

    private static void Timed(
        StringBuilder text,
        string name,
        DateOnly day,
        int hour,
        int minute,
        int minutes,
        string title,
        string place,
        string rule = ""
    )
    {
        // Without a zone: a time on whatever clock hangs on the wall there (§3.3.5, form 1).
        var start = day.ToDateTime(new TimeOnly(hour, minute));
        text.Append(
            CultureInfo.InvariantCulture,
            $"BEGIN:VEVENT\r\nUID:{name}@lantern.example\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:{start:yyyyMMdd'T'HHmmss}\r\nDTEND:{start.AddMinutes(minutes):yyyyMMdd'T'HHmmss}\r\nSUMMARY:{Escape(title)}\r\n"
        );
        if (place.Length > 0)
            text.Append(CultureInfo.InvariantCulture, $"LOCATION:{Escape(place)}\r\n");
        if (rule.Length > 0)
            text.Append(rule).Append("\r\n");
        text.Append("END:VEVENT\r\n");
    }

    private static void WholeDay(StringBuilder text, string name, DateOnly day, int days, string title) =>
        text.Append(
            CultureInfo.InvariantCulture,
            $"BEGIN:VEVENT\r\nUID:{name}@lantern.example\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:{day:yyyyMMdd}\r\nDTEND;VALUE=DATE:{day.AddDays(days):yyyyMMdd}\r\nSUMMARY:{Escape(title)}\r\nEND:VEVENT\r\n"
        );

    /// <summary>Text values escape commas, semicolons and backslashes (§3.3.11).</summary>
    private static string Escape(string value) =>
        value
            .Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace(",", "\\,", StringComparison.Ordinal)
            .Replace(";", "\\;", StringComparison.Ordinal);
}
