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

    /// <summary>How many happenings of one entry are gone through, so that one that recurs for ever ends.</summary>
    private const int MostOfOne = 20_000;

    /// <summary>How many happenings of all entries together are gone through.</summary>
    private const int MostOfAll = 200_000;

    /// <summary>How many times of one day a rule may name. One that names more is no entry of a planner, and is passed over before it is unfolded.</summary>
    private const int MostTimesOfDay = 48;

    /// <summary>After how many steps without a match a rule is taken to have no more.</summary>
    private const int MostUnmatched = 1_000;

    /// <param name="Entries">The entries, by their beginning.</param>
    /// <param name="Passed">How many entries could not be read and were passed over.</param>
    /// <param name="UnknownZones">Time zones that are not known; their times are taken as local ones.</param>
    public sealed record Content(IReadOnlyList<CalendarEntry> Entries, int Passed, IReadOnlyList<string> UnknownZones);

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
            return Refuse("The time zone of this device is not known here.");
        if (!text.TrimStart('\uFEFF', ' ', '\r', '\n').StartsWith("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase))
            return Refuse("This is not an iCalendar file: it does not begin with BEGIN:VCALENDAR. Nothing was changed.");
        if (!text.Contains("END:VCALENDAR", StringComparison.OrdinalIgnoreCase))
            return Refuse("The calendar file breaks off or is damaged. Nothing was changed.");
        var unknown = new SortedSet<string>(StringComparer.Ordinal);
        var (events, passed) = Events(WithoutUnknownZones(text, unknown));
        var clock = new Clock(local);
        var changed = events
            .Where(one => one.Uid is not null && one.RecurrenceIdentifier is not null)
            .Select(one => (one.Uid!, clock.Of(one.RecurrenceIdentifier!.StartTime)))
            .ToHashSet();
        var entries = new Dictionary<Guid, CalendarEntry>();
        var gone = 0;
        foreach (var one in events)
        {
            cancel.ThrowIfCancellationRequested();
            try
            {
                if (!IsReasonable(one))
                {
                    passed++;
                    continue;
                }

                foreach (var happening in Happenings(one, changed, first, last, clock))
                {
                    cancel.ThrowIfCancellationRequested();
                    if (++gone > MostOfAll)
                        return Refuse(
                            "The calendar repeats more than can be gone through. Choose a calendar with less in it. Nothing was changed."
                        );
                    if (happening is not { } entry)
                        continue;
                    if (DateOnly.FromDateTime(entry.Start) > last || DateOnly.FromDateTime(entry.End) < first)
                        continue;
                    entries[entry.Id] = entry;
                    if (entries.Count > CalendarEntry.Most)
                        return Refuse(
                            $"The calendar has more than {CalendarEntry.Most} entries in these days. Choose a shorter span, or a calendar with less in it. Nothing was changed."
                        );
                }
            }
            catch (Exception problem) when (problem is not (OutOfMemoryException or OperationCanceledException))
            {
                passed++;
            }
        }

        return (new Content([.. entries.Values.OrderBy(entry => entry.Start).ThenBy(entry => entry.Id)], passed, [.. unknown]), null);
    }

    /// <summary>Times in a zone that is not known are taken as local ones: the zone's name is left out, and noted.</summary>
    private static string WithoutUnknownZones(string text, SortedSet<string> unknown) =>
        ZoneName()
            .Replace(
                text,
                found =>
                {
                    var name = found.Groups[1].Value;
                    if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(name) is not null)
                        return found.Value;
                    unknown.Add(name);
                    return "";
                }
            );

    [GeneratedRegex(""";TZID="?([^:;"\r\n]+)"?""", RegexOptions.IgnoreCase)]
    private static partial Regex ZoneName();

    /// <summary>The file's entries. Where it cannot be read as a whole, each is read by itself, and those that cannot be are counted.</summary>
    private static (List<CalendarEvent> Events, int Passed) Events(string text)
    {
        if (Load(text) is { } whole)
            return (whole, 0);
        const string begin = "BEGIN:VEVENT",
            end = "END:VEVENT";
        var events = new List<CalendarEvent>();
        var passed = 0;
        for (
            int from = text.IndexOf(begin, StringComparison.OrdinalIgnoreCase), to;
            from >= 0;
            from = text.IndexOf(begin, to, StringComparison.OrdinalIgnoreCase)
        )
        {
            to = text.IndexOf(end, from, StringComparison.OrdinalIgnoreCase);
            if (to < 0)
                return (events, passed + 1);
            to += end.Length;
            if (Load($"BEGIN:VCALENDAR\r\nVERSION:2.0\r\n{text[from..to]}\r\nEND:VCALENDAR\r\n") is { } one)
                events.AddRange(one);
            else
                passed++;
        }

        return (events, passed);
    }

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
        var recurs = one.RecurrenceRule is not null || one.RecurrenceDates.GetAllDates().Any();
        if (!recurs || one.RecurrenceIdentifier is not null)
        {
            var end = one.End ?? begins.Add(one.EffectiveDuration);
            yield return Entry(
                one,
                uid,
                one.RecurrenceIdentifier is { } replaced ? clock.Of(replaced.StartTime) : null,
                clock.Of(begins),
                clock.Of(end),
                begins.HasTime
            );
            yield break;
        }

        var gone = 0;
        foreach (
            var period in one.GetOccurrences(null, new EvaluationOptions { MaxUnmatchedIncrementsLimit = MostUnmatched })
                .Select(occurrence => occurrence.Period)
        )
        {
            var start = clock.Of(period.StartTime);
            if (DateOnly.FromDateTime(start) > last || ++gone > MostOfOne)
                yield break;
            var end = clock.Of(period.EffectiveEndTime ?? period.StartTime);
            if (DateOnly.FromDateTime(end) < first || changed.Contains((uid, start)))
            {
                yield return null;
                continue;
            }

            yield return Entry(one, uid, start, start, end, begins.HasTime);
        }
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

    private static (Content?, Refusal?) Refuse(string sentence) => (null, new Refusal("bad-calendar", sentence));

    /// <summary>Moments of a file on the person's own clock. A time without a zone is local already (RFC 5545 §3.3.5, form 1).</summary>
    private sealed class Clock(DateTimeZone local)
    {
        public DateTime Of(CalDateTime moment)
        {
            if (!moment.HasTime || moment.IsFloating)
                return DateTime.SpecifyKind(moment.Value, DateTimeKind.Unspecified);
            if (moment.IsUtc)
                return Local(Instant.FromDateTimeUtc(DateTime.SpecifyKind(moment.Value, DateTimeKind.Utc)));
            return Local(DateTimeZoneProviders.Tzdb[moment.TzId!].AtLeniently(LocalDateTime.FromDateTime(moment.Value)).ToInstant());
        }

        private DateTime Local(Instant instant) => instant.InZone(local).LocalDateTime.ToDateTimeUnspecified();
    }
}
