using CalmQuill.Server.Limits;
using CalmQuill.Server.People;
using CalmQuill.Store.Faults;

namespace CalmQuill.Server.Faults;

/// <summary>Takes down what went wrong in a browser, so that whoever looks after the server hears of it.</summary>
internal static class FaultEndpoints
{
    private const int MostBytes = 64 * 1024;

    internal sealed record Told(string? What, string? Words, string? Document, string? Build, string? Bytes);

    public static void MapFaults(this IEndpointRouteBuilder api) =>
        api.MapPost("/faults", Take).RequireAuthorization().Takes(MostBytes * 2);

    private static async Task<IResult> Take(
        Told told,
        HttpContext http,
        FaultStore faults,
        ILogger<FaultStore> log,
        CancellationToken cancel
    )
    {
        var bytes = new byte[MostBytes];
        if (!Convert.TryFromBase64String(told.Bytes ?? "", bytes, out var length))
            return Problems.BadInput($"What goes along with a fault is at most 64 kB, in base64.");
        var fault = new Fault(
            Plain(told.Build, 100),
            Plain(told.What, 300),
            Plain(told.Words, 4_000),
            Plain(told.Document, 200),
            bytes[..length]
        );
        if (!await faults.Add(http.User.Id(), fault, cancel))
            return Problems.TooMany();
        // The words may hold what a person wrote; the log gets the sentence alone.
        log.LogWarning("A browser told of a fault: {What} ({Document}, build {Build})", fault.What, fault.Document, fault.Build);
        return Results.NoContent();
    }

    /// <summary>On one line a log can hold, and of a length that it can bear.</summary>
    private static string Plain(string? text, int most)
    {
        var plain = new string([.. (text ?? "").Where(c => c == '\n' || !char.IsControl(c) && !char.IsSurrogate(c))]);
        return plain.Length > most ? plain[..most] : plain;
    }
}
