using System.Globalization;
using System.Text;
using System.Text.Json;

namespace CalmQuill.Core.Planner;

/// <summary>One happening of a calendar's entry, on the clock of the person's own place.</summary>
/// <param name="Id">Follows from UID and recurrence, so that a newer file meets the same entry again.</param>
/// <param name="Start">When it begins.</param>
/// <param name="End">When it ends; not before it begins.</param>
/// <param name="AllDay">Whether it fills whole days; the end is then the midnight after the last.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Place">Where it is; may be empty.</param>
/// <param name="IsGone">Whether the newest file no longer has it.</param>
/// <param name="IsOwn">Whether somebody put it into the planner here: no file has it, and none takes it away.</param>
public sealed record CalendarEntry(
    Guid Id,
    DateTime Start,
    DateTime End,
    bool AllDay,
    string Title,
    string Place,
    bool IsGone = false,
    bool IsOwn = false
)
{
    /// <summary>How many entries a planner takes.</summary>
    public const int Most = 5_000;
    private const string Moment = "yyyy-MM-dd'T'HH:mm";
    private const int MostTitle = 300;

    /// <summary>Whether it touches a day.</summary>
    public bool IsOn(DateOnly day)
    {
        var (from, to) = (day.ToDateTime(default), day.AddDays(1).ToDateTime(default));
        return Start < to && (End > from || (End == Start && Start >= from));
    }

    /// <summary>The register's value: JSON.</summary>
    public string Write()
    {
        using var stream = new MemoryStream();
        using (
            var json = new Utf8JsonWriter(
                stream,
                new JsonWriterOptions { Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping }
            )
        )
        {
            json.WriteStartObject();
            json.WriteString("start", Start.ToString(Moment, CultureInfo.InvariantCulture));
            json.WriteString("end", End.ToString(Moment, CultureInfo.InvariantCulture));
            if (AllDay)
                json.WriteBoolean("allDay", true);
            json.WriteString("title", Cut(Title));
            if (Place.Length > 0)
                json.WriteString("place", Cut(Place));
            if (IsGone)
                json.WriteBoolean("gone", true);
            if (IsOwn)
                json.WriteBoolean("own", true);
            json.WriteEndObject();
        }

        return Encoding.UTF8.GetString(stream.ToArray());
    }

    /// <summary>Reads a register's value; null when it is not well formed.</summary>
    public static CalendarEntry? Read(Guid id, string text)
    {
        try
        {
            using var json = JsonDocument.Parse(text);
            var root = json.RootElement;
            if (root.ValueKind != JsonValueKind.Object)
                return null;
            bool Is(string name) => root.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.True;
            string Text(string name) =>
                root.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.String ? value.GetString()! : "";
            return
                DateTime.TryParseExact(Text("start"), Moment, CultureInfo.InvariantCulture, DateTimeStyles.None, out var start)
                && DateTime.TryParseExact(Text("end"), Moment, CultureInfo.InvariantCulture, DateTimeStyles.None, out var end)
                && end >= start
                ? new CalendarEntry(id, start, end, Is("allDay"), Cut(Text("title")), Cut(Text("place")), Is("gone"), Is("own"))
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static string Cut(string text)
    {
        var line = string.Concat(text.Where(c => !char.IsControl(c)));
        return line.Length <= MostTitle ? line : line[..(char.IsHighSurrogate(line[MostTitle - 1]) ? MostTitle - 1 : MostTitle)];
    }
}
