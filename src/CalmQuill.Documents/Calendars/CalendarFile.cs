using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Planner;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Evaluation;
using NodaTime;

namespace CalmQuill.Documents.Calendars;

/// <summary>Reads an iCalendar file (RFC 5545): the entries of a span of days, recurrences worked out, on the clock of one time zone.</summary>
public static partial class CalendarFile
{
    /// <summary>The most bytes of a file.</summary>
    public const int MostBytes = 8 * 1024 * 1024;

    /// <summary>How many happenings of one entry are gone through; one that has more repeats too often for a planner.</summary>
    private const int MostOfOne = 20_000;

    /// <summary>So many of the entries that were passed over are named.</summary>
    private const int MostNamed = 20;

    /// <summary>How many happenings of all entries together are gone through.</summary>
    private const int MostOfAll = 200_000;

    /// <summary>How many times of one day a rule may name. One that names more is no entry of a planner, and is passed over before it is unfolded.</summary>
    private const int MostTimesOfDay = 48;

    /// <summary>After how many steps without a match a rule is taken to have no more.</summary>
    private const int MostUnmatched = 1_000;

    /// <param name="Entries">The entries, by their beginning.</param>
    /// <param name="Passed">How many entries could not be read and were passed over.</param>
    /// <param name="Named">The first of them, and why.</param>
    /// <param name="UnknownZones">Time zones that are not known; their times are taken as local ones.</param>
    public sealed record Content(
        IReadOnlyList<CalendarEntry> Entries,
        int Passed,
        IReadOnlyList<PassedOver> Named,
        IReadOnlyList<string> UnknownZones
    );

    /// <param name="Title">What the entry is called.</param>
    /// <param name="Why">What is the matter with it.</param>
    public readonly record struct PassedOver(string Title, Sentence Why);

    private static readonly Sentence NoDate = $"It has no date that can be read.";
    private static readonly Sentence TooOften = $"It repeats too often.";
    private static readonly Sentence BadRule = $"It repeats by a rule that cannot be read.";
    private static readonly Sentence Broken = $"It is written in a way that cannot be read.";

    /// <param name="text">The file.</param>
    /// <param name="first">The first day wanted.</param>
    /// <param name="last">The last day wanted.</param>
    /// <param name="zone">The person's time zone (IANA name).</param>
    /// <param name="cancel">Gives up between entries.</param>
    public static (Content? Content, Refusal? Refusal) Read(
        string text,
        DateOnly first,
        DateOnly last,
        string zone,
        CancellationToken cancel = default
    )
    {
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(zone) is not { } local)
            return Refuse($"The time zone of this device is not known here.");
        if (!text.TrimStart('\uFEFF', ' ', '\r', '\n').StartsWith("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase))
            return Refuse($"This is not an iCalendar file: it does not begin with BEGIN:VCALENDAR. Nothing was changed.");
        if (!text.Contains("END:VCALENDAR", StringComparison.OrdinalIgnoreCase))
            return Refuse($"The calendar file breaks off or is damaged. Nothing was changed.");
        var (clean, zones) = CalendarZones.Read(Unfolded().Replace(text, ""), last);
        var passed = new List<PassedOver>();
        var events = Events(clean, passed);
        var clock = new Clock(local, zones);
        var changed = events
            .Where(one => one.Uid is not null && one.RecurrenceIdentifier is not null)
            .Select(one => (one.Uid!, clock.Of(one.RecurrenceIdentifier!.StartTime, ZoneOf(one, "RECURRENCE-ID"))))
            .ToHashSet();
        var entries = new Dictionary<Guid, CalendarEntry>();
        var gone = 0;
        foreach (var one in events)
        {
            cancel.ThrowIfCancellationRequested();
            var title = Line(one.Summary ?? "", "Untitled");
            try
            {
                if (one.Start is null)
                {
                    passed.Add(new PassedOver(title, NoDate));
                    continue;
                }

                if (!IsReasonable(one))
                {
                    passed.Add(new PassedOver(title, TooOften));
                    continue;
                }

                var own = new List<CalendarEntry>();
                var (isEndless, ofOne) = (false, 0);
                foreach (var happening in Happenings(one, changed, first, last, clock))
                {
                    cancel.ThrowIfCancellationRequested();
                    if (++gone > MostOfAll)
                        return Refuse(
                            $"The calendar repeats more than can be gone through. Choose a calendar with less in it. Nothing was changed."
                        );
                    if (++ofOne > MostOfOne)
                    {
                        isEndless = true;
                        break;
                    }

                    if (happening is { } entry && DateOnly.FromDateTime(entry.Start) <= last && DateOnly.FromDateTime(entry.End) >= first)
                        own.Add(entry);
                    if (own.Count > CalendarEntry.Most)
                        break;
                }

                if (isEndless)
                {
                    passed.Add(new PassedOver(title, TooOften));
                    continue;
                }

                foreach (var entry in own)
                    entries[entry.Id] = entry;
                if (entries.Count > CalendarEntry.Most)
                    return Refuse(
                        $"The calendar has more than {CalendarEntry.Most} entries in these days. Choose a shorter span, or a calendar with less in it. Nothing was changed."
                    );
            }
            catch (Exception problem) when (problem is not (OutOfMemoryException or OperationCanceledException))
            {
                passed.Add(new PassedOver(title, BadRule));
            }
        }

        return (
            new Content(
                [.. entries.Values.OrderBy(entry => entry.Start).ThenBy(entry => entry.Id)],
                passed.Count,
                [.. passed.Take(MostNamed)],
                [.. zones.Unknown]
            ),
            null
        );
    }

    /// <summary>A line that begins with a space goes on with the one before (RFC 5545 §3.1).</summary>
    [GeneratedRegex(@"\r?\n[ \t]")]
    private static partial Regex Unfolded();

    [GeneratedRegex(@"^SUMMARY[^:\r\n]*:(.*)$", RegexOptions.IgnoreCase | RegexOptions.Multiline)]
    private static partial Regex Summary();

    /// <summary>Which zone of the file's own a property's time is in; none for the usual ones.</summary>
    private static string? ZoneOf(CalendarEvent one, string property) =>
        one
            .Properties.FirstOrDefault(own => string.Equals(own.Name, property, StringComparison.OrdinalIgnoreCase))
            ?.Parameters.FirstOrDefault(own => string.Equals(own.Name, CalendarZones.Parameter, StringComparison.OrdinalIgnoreCase))
            ?.Value?.Trim('"');

    /// <summary>The file's entries. Where it cannot be read as a whole, each is read by itself, and those that cannot be are counted.</summary>
    private static List<CalendarEvent> Events(string text, List<PassedOver> passed)
    {
        if (Load(text) is { } whole)
            return whole;
        const string begin = "BEGIN:VEVENT",
            end = "END:VEVENT";
        var events = new List<CalendarEvent>();
        for (
            int from = text.IndexOf(begin, StringComparison.OrdinalIgnoreCase), to;
            from >= 0;
            from = text.IndexOf(begin, to, StringComparison.OrdinalIgnoreCase)
        )
        {
            to = text.IndexOf(end, from, StringComparison.OrdinalIgnoreCase);
            if (to < 0)
            {
                passed.Add(new PassedOver(TitleIn(text[from..]), Broken));
                return events;
            }

            to += end.Length;
            if (Load($"BEGIN:VCALENDAR\r\nVERSION:2.0\r\n{text[from..to]}\r\nEND:VCALENDAR\r\n") is { } one)
                events.AddRange(one);
            else
                passed.Add(
                    new PassedOver(
                        TitleIn(text[from..to]),
                        text[from..to].Contains("RRULE", StringComparison.OrdinalIgnoreCase) ? BadRule : Broken
                    )
                );
        }

        return events;
    }

    private static string TitleIn(string text) => Line(Summary().Match(text).Groups[1].Value, "Untitled");

    private static List<CalendarEvent>? Load(string text)
    {
        try
        {
            return [.. (CalendarCollection.Load(text) ?? []).SelectMany(calendar => calendar.Events)];
        }
        catch (Exception problem) when (problem is not OutOfMemoryException)
        {
            return null;
        }
    }

    private static bool IsReasonable(CalendarEvent one)
    {
        if (one.RecurrenceRule is not { } rule)
            return true;
        return (long)Math.Max(1, rule.ByHour.Count) * Math.Max(1, rule.ByMinute.Count) * Math.Max(1, rule.BySecond.Count) <= MostTimesOfDay;
    }

    /// <summary>The happenings in a span of days; null for one that is gone through and lies before it.</summary>
    private static IEnumerable<CalendarEntry?> Happenings(
        CalendarEvent one,
        HashSet<(string, DateTime)> changed,
        DateOnly first,
        DateOnly last,
        Clock clock
    )
    {
        if (one.Start is not { } begins || string.Equals(one.Status, "CANCELLED", StringComparison.OrdinalIgnoreCase))
            yield break;
        var uid = one.Uid ?? $"{begins}{one.Summary}";
        string? zone = ZoneOf(one, "DTSTART"),
            endZone = ZoneOf(one, "DTEND") ?? zone;
        var recurs = one.RecurrenceRule is not null || one.RecurrenceDates.GetAllDates().Any();
        if (!recurs || one.RecurrenceIdentifier is not null)
        {
            var end = one.End ?? begins.Add(one.EffectiveDuration);
            yield return Entry(
                one,
                uid,
                one.RecurrenceIdentifier is { } replaced ? clock.Of(replaced.StartTime, ZoneOf(one, "RECURRENCE-ID")) : null,
                clock.Of(begins, zone),
                clock.Of(end, endZone),
                begins.HasTime
            );
            yield break;
        }

        if (zone is not null && one.RecurrenceRule is { Until: { IsUtc: true } until } rule)
            rule.Until = new CalDateTime(clock.InZone(until, zone), true);
        Forward(one, first);
        foreach (
            var period in one.GetOccurrences(null, new EvaluationOptions { MaxUnmatchedIncrementsLimit = MostUnmatched })
                .Select(occurrence => occurrence.Period)
        )
        {
            var start = clock.Of(period.StartTime, zone);
            if (DateOnly.FromDateTime(start) > last)
                yield break;
            var end = clock.Of(period.EffectiveEndTime ?? period.StartTime, zone);
            if (DateOnly.FromDateTime(end) < first || changed.Contains((uid, start)))
            {
                yield return null;
                continue;
            }

            yield return Entry(one, uid, start, start, end, begins.HasTime);
        }
    }

    /// <summary>
    /// Lets what recurs every so many days or weeks without an end begin not long before the days that are wanted, by whole steps of its rule, so that one that
    /// began long ago is not gone through from there.
    /// </summary>
    /// <remarks>What it is made to begin with lies before those days, so it does not matter that its rule may not name it.</remarks>
    private static void Forward(CalendarEvent one, DateOnly first)
    {
        if (one.RecurrenceRule is not { Count: null } rule || rule.Frequency is not (FrequencyType.Daily or FrequencyType.Weekly))
            return;
        var begins = one.Start!;
        var length = (int)Math.Ceiling(Math.Max(0, ((one.End ?? begins.Add(one.EffectiveDuration)).Value - begins.Value).TotalDays));
        var step = Math.Max(1, rule.Interval) * (rule.Frequency == FrequencyType.Weekly ? 7 : 1);
        var days = first.DayNumber - DateOnly.FromDateTime(begins.Value).DayNumber - length - 3;
        // Dates that are named one by one are few, and stay as they are.
        if (days / step < 2 || one.RecurrenceDates.GetAllDates().Any())
            return;
        var by = (days / step - 1) * step;
        var end = one.End;
        one.Start = begins.AddDays(by);
        if (end is not null)
            one.End = end.AddDays(by);
    }

    private static CalendarEntry Entry(CalendarEvent one, string uid, DateTime? recurrence, DateTime start, DateTime end, bool hasTime)
    {
        var hash = SHA256.HashData(Encoding.UTF8.GetBytes(recurrence is { } at ? $"{uid}\n{at:yyyy-MM-ddTHH:mm}" : uid));
        // Version 8 (RFC 9562 §5.8): made by the application's own rule.
        hash[6] = (byte)((hash[6] & 0x0F) | 0x80);
        hash[8] = (byte)((hash[8] & 0x3F) | 0x80);
        return new CalendarEntry(
            new Guid(hash.AsSpan(0, 16), bigEndian: true),
            start,
            end < start ? start : end,
            !hasTime,
            Line(one.Summary ?? "", "Untitled"),
            Line(one.Location ?? "", "")
        );
    }

    /// <summary>One line of text without control characters.</summary>
    private static string Line(string text, string otherwise)
    {
        var line = string.Join(
            ' ',
            string.Concat(text.Select(c => char.IsControl(c) ? ' ' : c)).Split(' ', StringSplitOptions.RemoveEmptyEntries)
        );
        return line.Length > 0 ? line[..Math.Min(line.Length, 300)] : otherwise;
    }

    private static (Content?, Refusal?) Refuse(Sentence sentence) => (null, new Refusal("bad-calendar", sentence));

    /// <summary>Moments of a file on the person's own clock. A time without a zone is local already (RFC 5545 §3.3.5, form 1).</summary>
    private sealed class Clock(DateTimeZone local, CalendarZones zones)
    {
        /// <param name="moment">A time of the file.</param>
        /// <param name="zone">The zone of the file's own that it is in.</param>
        public DateTime Of(CalDateTime moment, string? zone)
        {
            if (moment.HasTime && moment.IsFloating && zone is not null)
                return Local(zones.ToInstant(zone, LocalDateTime.FromDateTime(moment.Value)));
            if (!moment.HasTime || moment.IsFloating)
                return DateTime.SpecifyKind(moment.Value, DateTimeKind.Unspecified);
            if (moment.IsUtc)
                return Local(Instant.FromDateTimeUtc(DateTime.SpecifyKind(moment.Value, DateTimeKind.Utc)));
            return Local(DateTimeZoneProviders.Tzdb[moment.TzId!].AtLeniently(LocalDateTime.FromDateTime(moment.Value)).ToInstant());
        }

        /// <summary>A moment of UTC on the clock of a zone of the file's own.</summary>
        public DateTime InZone(CalDateTime utc, string zone) =>
            zones.ToLocal(zone, LocalDateTime.FromDateTime(utc.Value)).ToDateTimeUnspecified();

        private DateTime Local(Instant instant) => instant.InZone(local).LocalDateTime.ToDateTimeUnspecified();
    }
}
