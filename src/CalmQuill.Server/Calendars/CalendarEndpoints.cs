using System.Globalization;
using System.Text;
using CalmQuill.Core.Planner;
using CalmQuill.Documents.Calendars;
using CalmQuill.Server.Limits;
using CalmQuill.Server.Outside;

namespace CalmQuill.Server.Calendars;

/// <summary>Reads iCalendar files for planners: sent along, or fetched from an address.</summary>
internal static class CalendarEndpoints
{
    /// <param name="Address">Where the calendar is to be had; or</param>
    /// <param name="Text">the calendar itself.</param>
    /// <param name="First">The first day wanted.</param>
    /// <param name="Last">The last day wanted.</param>
    /// <param name="Zone">The person's time zone (IANA name).</param>
    internal sealed record Asked(string? Address, string? Text, string? First, string? Last, string? Zone);

    public static void MapCalendars(this IEndpointRouteBuilder api) =>
        // A file of the most bytes allowed grows when it is written as JSON.
        api.MapPost("/calendar-entries", Read).RequireAuthorization().Takes(CalendarFile.MostBytes * 2).TakesWork();

    private static async Task<IResult> Read(Asked asked, GuardedFetch fetch, CancellationToken cancel)
    {
        if (
            !DateOnly.TryParseExact(asked.First, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var first)
            || !DateOnly.TryParseExact(asked.Last, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var last)
            || first > last
            || last.DayNumber - first.DayNumber > PlannerSettings.MostDays
        )
            return Problems.BadInput($"A calendar is read for a first and a last day, at most {PlannerSettings.MostDays} days apart.");
        var text = asked.Text;
        if (asked.Address is { Length: > 0 } address)
        {
            var (fetched, problem) = await Fetch(address, fetch, cancel);
            if (fetched is null)
                return Problems.BadInput(problem!);
            text = fetched;
        }

        if (string.IsNullOrWhiteSpace(text))
            return Problems.BadInput($"Choose a calendar file, or give the address of one.");
        if (text.Length > CalendarFile.MostBytes)
            return Problems.BadInput($"The calendar file is larger than 8 MB. Nothing was changed.");
        var (content, refusal) = CalendarFile.Read(text, first, last, asked.Zone ?? "", cancel);
        if (content is null)
            return Problems.Of(StatusCodes.Status400BadRequest, refusal!);
        return Results.Ok(
            new
            {
                entries = content.Entries.Select(entry => new { id = entry.Id, value = entry.Write() }),
                content.Passed,
                named = content.Named.Select(one => new
                {
                    one.Title,
                    why = one.Why.English,
                    one.Why.Pattern,
                    one.Why.Values,
                }),
                content.UnknownZones,
            }
        );
    }

    private static async Task<(string? Text, Sentence? Problem)> Fetch(string address, GuardedFetch fetch, CancellationToken cancel)
    {
        // Calendars are often given out under this scheme, which means the same.
        if (address.StartsWith("webcal://", StringComparison.OrdinalIgnoreCase))
            address = "https://" + address["webcal://".Length..];
        var fetched = await fetch.Get(address, CalendarFile.MostBytes, isCut: false, cancel);
        return fetched.Problem switch
        {
            GuardedFetch.Problem.None => (Encoding.UTF8.GetString(fetched.Bytes), null),
            GuardedFetch.Problem.NoAddress => (null, Sentence.Of($"The address of a calendar begins with https:// or http://.")),
            GuardedFetch.Problem.Inside => (null, Sentence.Of($"Calendars are not fetched from inside the server's own network.")),
            GuardedFetch.Problem.Refused => (null, Sentence.Of($"The calendar's address answered {fetched.Status}. Nothing was changed.")),
            GuardedFetch.Problem.TooLarge => (null, Sentence.Of($"The calendar at this address is larger than 8 MB. Nothing was changed.")),
            _ => (null, Sentence.Of($"The calendar's address did not answer. Nothing was changed.")),
        };
    }
}
