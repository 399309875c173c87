using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Text;
using CalmQuill.Core.Planner;
using CalmQuill.Documents.Calendars;
using CalmQuill.Server.Limits;

namespace CalmQuill.Server.Calendars;

/// <summary>Reads iCalendar files for planners: sent along, or fetched from an address.</summary>
internal static class CalendarEndpoints
{
    public const string Client = "calendars";
    private const int SecondsToFetch = 15;

    /// <param name="Address">Where the calendar is to be had; or</param>
    /// <param name="Text">the calendar itself.</param>
    /// <param name="First">The first day wanted.</param>
    /// <param name="Last">The last day wanted.</param>
    /// <param name="Zone">The person's time zone (IANA name).</param>
    internal sealed record Asked(string? Address, string? Text, string? First, string? Last, string? Zone);

    public static void MapCalendars(this IEndpointRouteBuilder api) =>
        // A file of the most bytes allowed grows when it is written as JSON.
        api.MapPost("/calendar-entries", Read).RequireAuthorization().Takes(CalendarFile.MostBytes * 2).TakesWork();

    private static async Task<IResult> Read(Asked asked, IHttpClientFactory clients, CancellationToken cancel)
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
            var (fetched, problem) = await Fetch(address, clients, cancel);
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

    private static async Task<(string? Text, Sentence? Problem)> Fetch(string address, IHttpClientFactory clients, CancellationToken cancel)
    {
        // Calendars are often given out under this scheme, which means the same.
        if (address.StartsWith("webcal://", StringComparison.OrdinalIgnoreCase))
            address = "https://" + address["webcal://".Length..];
        if (!Uri.TryCreate(address, UriKind.Absolute, out var uri) || uri.Scheme is not ("http" or "https"))
            return (null, $"The address of a calendar begins with https:// or http://.");
        using var timeout = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        timeout.CancelAfter(TimeSpan.FromSeconds(SecondsToFetch));
        try
        {
            using var client = clients.CreateClient(Client);
            using var answer = await client.GetAsync(uri, HttpCompletionOption.ResponseHeadersRead, timeout.Token);
            if (!answer.IsSuccessStatusCode)
                return (null, $"The calendar's address answered {(int)answer.StatusCode}. Nothing was changed.");
            await using var body = await answer.Content.ReadAsStreamAsync(timeout.Token);
            using var kept = new MemoryStream();
            var buffer = new byte[64 * 1024];
            for (int read; (read = await body.ReadAsync(buffer, timeout.Token)) > 0; )
            {
                kept.Write(buffer, 0, read);
                if (kept.Length > CalendarFile.MostBytes)
                    return (null, $"The calendar at this address is larger than 8 MB. Nothing was changed.");
            }

            return (Encoding.UTF8.GetString(kept.GetBuffer(), 0, (int)kept.Length), null);
        }
        catch (HttpRequestException problem) when (IsForbidden(problem))
        {
            return (null, $"Calendars are not fetched from inside the server's own network.");
        }
        catch (Exception problem)
            when (problem is HttpRequestException or IOException
                || (problem is OperationCanceledException && !cancel.IsCancellationRequested)
            )
        {
            return (null, $"The calendar's address did not answer. Nothing was changed.");
        }
    }

    /// <summary>Whether the connection was refused by <see cref="Handler"/>, however deep that lies.</summary>
    private static bool IsForbidden(Exception? problem) =>
        problem is not null && (problem is ForbiddenAddressException || IsForbidden(problem.InnerException));

    /// <summary>Connects to public addresses only, after the name was looked up, so that nobody reaches the server's own network through it; and to hosts that the settings allow.</summary>
    public static SocketsHttpHandler Handler(IReadOnlyCollection<string> allowedHosts) =>
        new()
        {
            AllowAutoRedirect = true,
            MaxAutomaticRedirections = 3,
            UseProxy = false,
            ConnectCallback = async (context, cancel) =>
            {
                var host = context.DnsEndPoint;
                var name = host.Host.Trim('[', ']');
                var addresses = IPAddress.TryParse(name, out var literal) ? [literal] : await Dns.GetHostAddressesAsync(name, cancel);
                var open = allowedHosts.Contains($"{host.Host}:{host.Port}") ? addresses : [.. addresses.Where(PublicAddresses.IsPublic)];
                if (open.Length == 0)
                    throw new ForbiddenAddressException();
                var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
                try
                {
                    await socket.ConnectAsync(open, host.Port, cancel);
                    return new NetworkStream(socket, ownsSocket: true);
                }
                catch
                {
                    socket.Dispose();
                    throw;
                }
            },
        };

    private sealed class ForbiddenAddressException : IOException;
}
