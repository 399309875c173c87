using System.Globalization;
using System.Text.RegularExpressions;
using Ical.Net;
using Ical.Net.DataTypes;
using Ical.Net.Evaluation;
using NodaTime;
using NodaTime.TimeZones;

namespace CalmQuill.Documents.Calendars;

/// <summary>The time zones that a calendar file names, and the file with each of them under a name that is known.</summary>
/// <remarks>
/// A zone is looked for by its name among those of the IANA; as the end of a longer name; in CLDR's table of the zone names of other systems (CLDR supplemental
/// data, <c>windowsZones</c>); then in the file's own VTIMEZONE components (RFC 5545 §3.6.5), and last as an offset that its name begins with. Times in a zone
/// of the file's own are left without a zone, so that they recur by that zone's clock, and a parameter of ours says which zone they are in.
/// </remarks>
internal sealed partial class CalendarZones
{
    /// <summary>The parameter that names a zone of the file's own.</summary>
    public const string Parameter = "X-QUILL-ZONE";

    /// <summary>So many changes of the clock of one zone are gone through.</summary>
    private const int MostOnsets = 4_000;

    private readonly Dictionary<string, Own> own = new(StringComparer.Ordinal);

    /// <summary>Times from when on an offset from UTC holds, by the clock that ended then; and the offset before the first.</summary>
    private sealed record Own(Offset Before, IReadOnlyList<(LocalDateTime From, Offset Offset)> Onsets);

    private CalendarZones() { }

    /// <summary>Zones that nobody knows; their times are taken as local ones.</summary>
    public SortedSet<string> Unknown { get; } = new(StringComparer.Ordinal);

    /// <param name="text">The file, without folded lines.</param>
    /// <param name="last">The last day wanted.</param>
    public static (string Text, CalendarZones Zones) Read(string text, DateOnly last)
    {
        var zones = new CalendarZones();
        var known = new Dictionary<string, string>(StringComparer.Ordinal);
        var renamed = ZoneName()
            .Replace(
                text,
                found =>
                {
                    var name = found.Groups[1].Success ? found.Groups[1].Value : found.Groups[2].Value;
                    if (!known.TryGetValue(name, out var replacement))
                        known[name] = replacement = zones.Parameters(name, text, last);
                    return replacement;
                }
            );
        // The zones' own components are done with, and are not all well formed.
        return (Component().Replace(renamed, ""), zones);
    }

    /// <summary>A moment by the clock of a zone of the file's own.</summary>
    public Instant ToInstant(string name, LocalDateTime local)
    {
        var zone = own[name];
        var offset = zone.Before;
        foreach (var (from, after) in zone.Onsets)
        {
            if (from > local)
                break;
            offset = after;
        }

        return local.WithOffset(offset).ToInstant();
    }

    /// <summary>A moment of UTC on the clock of a zone of the file's own.</summary>
    public LocalDateTime ToLocal(string name, LocalDateTime utc)
    {
        var instant = utc.InUtc().ToInstant();
        var zone = own[name];
        var offset = zone.Before;
        foreach (var (from, after) in zone.Onsets)
        {
            if (from.WithOffset(offset).ToInstant() > instant)
                break;
            offset = after;
        }

        return instant.WithOffset(offset).LocalDateTime;
    }

    /// <summary>The parameters that stand in place of a zone's name.</summary>
    private string Parameters(string name, string text, DateOnly last)
    {
        if (IanaOf(name) is { } iana)
            return $";TZID={iana}";
        if (own.ContainsKey(name) || Defined(name, text, last))
            return $";{Parameter}=\"{name}\"";
        if (OffsetName().Match(name) is { Success: true } offset)
        {
            own[name] = new Own(OffsetOf(offset.Groups[1].Value + offset.Groups[2].Value + offset.Groups[3].Value), []);
            return $";{Parameter}=\"{name}\"";
        }

        Unknown.Add(name);
        return "";
    }

    private static string? IanaOf(string name)
    {
        var parts = name.Split('/');
        // Some write a name of their own before that of the zone: /example.org/20260101/Europe/Lisbon.
        for (var from = 0; from < parts.Length; from++)
        {
            var end = string.Join('/', parts[from..]);
            if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(end) is not null)
                return end;
        }

        return TzdbDateTimeZoneSource.Default.WindowsMapping.PrimaryMapping.TryGetValue(name, out var mapped) ? mapped : null;
    }

    /// <summary>Reads the zone from the file's own component; false where there is none that can be read.</summary>
    private bool Defined(string name, string text, DateOnly last)
    {
        foreach (Match component in Component().Matches(text))
        {
            var lines = component.Value.Split('\n', StringSplitOptions.TrimEntries);
            if (!lines.Any(line => string.Equals(line, $"TZID:{name}", StringComparison.OrdinalIgnoreCase)))
                continue;
            try
            {
                var onsets = new List<(LocalDateTime From, Offset Offset, Offset Before)>();
                foreach (Match part in Observance().Matches(component.Value))
                    onsets.AddRange(Onsets(part.Value, last));
                if (onsets.Count == 0)
                    return false;
                onsets.Sort((one, other) => one.From.CompareTo(other.From));
                own[name] = new Own(onsets[0].Before, [.. onsets.Select(onset => (onset.From, onset.Offset))]);
                return true;
            }
            catch (Exception problem) when (problem is not OutOfMemoryException)
            {
                return false;
            }
        }

        return false;
    }

    /// <summary>When one of a zone's observances begins.</summary>
    private static IEnumerable<(LocalDateTime From, Offset Offset, Offset Before)> Onsets(string part, DateOnly last)
    {
        var lines = part.Split('\n', StringSplitOptions.TrimEntries);
        string? Value(string property) =>
            lines.FirstOrDefault(line => line.StartsWith(property + ":", StringComparison.OrdinalIgnoreCase))?[(property.Length + 1)..];
        var (before, after) = (OffsetOf(Value("TZOFFSETFROM")!), OffsetOf(Value("TZOFFSETTO")!));
        var first = DateTime.ParseExact(Value("DTSTART")!, "yyyyMMdd'T'HHmmss", CultureInfo.InvariantCulture);
        yield return (LocalDateTime.FromDateTime(first), after, before);
        // Until when a rule holds is said by UTC; it is compared by the clock that ends.
        var rule = UntilUtc()
            .Replace(
                Value("RRULE") ?? "",
                until =>
                    "UNTIL="
                    + DateTime
                        .ParseExact(until.Groups[1].Value, "yyyyMMdd'T'HHmmss", CultureInfo.InvariantCulture)
                        .Add(before.ToTimeSpan())
                        .ToString("yyyyMMdd'T'HHmmss", CultureInfo.InvariantCulture)
            );
        var dates = string.Join("\r\n", lines.Where(line => line.StartsWith("RDATE", StringComparison.OrdinalIgnoreCase)));
        if (rule.Length == 0 && dates.Length == 0)
            yield break;
        var recurs = Ical
            .Net.Calendar.Load(
                $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:zone\r\nDTSTART:{first:yyyyMMdd'T'HHmmss}\r\n{(rule.Length > 0 ? $"RRULE:{rule}\r\n" : "")}{(dates.Length > 0 ? dates + "\r\n" : "")}END:VEVENT\r\nEND:VCALENDAR\r\n"
            )!
            .Events[0]!;
        foreach (
            var occurrence in recurs.GetOccurrences(null, new EvaluationOptions { MaxUnmatchedIncrementsLimit = 1_000 }).Take(MostOnsets)
        )
        {
            var at = occurrence.Period.StartTime.Value;
            if (DateOnly.FromDateTime(at) > last.AddDays(2))
                yield break;
            yield return (LocalDateTime.FromDateTime(at), after, before);
        }
    }

    /// <summary>An offset as <c>+0530</c>, <c>-05:00</c> or with seconds.</summary>
    private static Offset OffsetOf(string text)
    {
        var digits = text.Replace(":", "", StringComparison.Ordinal);
        var sign = digits[0] == '-' ? -1 : 1;
        digits = digits.TrimStart('+', '-').PadRight(6, '0');
        int Two(int at) => int.Parse(digits.AsSpan(at, 2), NumberStyles.None, CultureInfo.InvariantCulture);
        return Offset.FromSeconds(sign * (Two(0) * 3600 + Two(2) * 60 + Two(4)));
    }

    [GeneratedRegex(""";TZID=(?:"([^"\r\n]*)"|([^:;,"\r\n]*))""", RegexOptions.IgnoreCase)]
    private static partial Regex ZoneName();

    [GeneratedRegex(
        @"^BEGIN:VTIMEZONE[ \t]*\r?\n[\s\S]*?^END:VTIMEZONE[ \t]*(?:\r?\n|\z)",
        RegexOptions.IgnoreCase | RegexOptions.Multiline
    )]
    private static partial Regex Component();

    [GeneratedRegex(@"^BEGIN:(?:STANDARD|DAYLIGHT)[\s\S]*?^END:(?:STANDARD|DAYLIGHT)", RegexOptions.IgnoreCase | RegexOptions.Multiline)]
    private static partial Regex Observance();

    [GeneratedRegex(@"UNTIL=(\d{8}T\d{6})Z", RegexOptions.IgnoreCase)]
    private static partial Regex UntilUtc();

    [GeneratedRegex(@"^\(?(?:UTC|GMT)([+-])(\d\d):?(\d\d)(?!\d)", RegexOptions.IgnoreCase)]
    private static partial Regex OffsetName();
}
