using CalmQuill.Server.Access;
using CalmQuill.Server.People;
using CalmQuill.Store.Library;
using CalmQuill.Store.Spots;

namespace CalmQuill.Server.Desk;

/// <summary>What the Desk shows: where one left off, what the group did, what one uses often.</summary>
internal static class DeskEndpoints
{
    private const int MostPlaces = 6,
        MostNews = 12,
        MostTold = 50,
        ToldDays = 14,
        MostOften = 100;

    public static void MapDesk(this IEndpointRouteBuilder api)
    {
        api.MapGet("/desk", Desk).RequireAuthorization();
        api.MapGet("/often", Often).RequireAuthorization();
    }

    /// <summary>News since a moment in UTC milliseconds; since a week ago at the earliest.</summary>
    private static async Task<IResult> Desk(
        long? since,
        HttpContext http,
        Gate gate,
        DeskStore desk,
        SpotStore spots,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var now = clock.GetUtcNow();
        var earliest = now.AddDays(-7);
        if (since is < 0 or > 253_402_300_000_000)
            return Problems.BadInput($"The moment to ask from is not well formed.");
        var from = since is { } at && DateTimeOffset.FromUnixTimeMilliseconds(at) is var asked && asked > earliest ? asked : earliest;
        var shut = await gate.Shut(Visitor.Of(http.User), cancel);
        return Results.Ok(
            new
            {
                leftOff = await desk.LeftOff(http.User.Id(), MostPlaces, shut, cancel),
                news = await desk.Since(http.User.Id(), from, MostNews, shut, cancel),
                told = await spots.For(http.User.Id(), now.AddDays(-ToldDays).ToUnixTimeMilliseconds(), MostTold, shut, cancel),
            }
        );
    }

    private static async Task<IResult> Often(HttpContext http, DeskStore desk, CancellationToken cancel) =>
        Results.Ok(await desk.Often(http.User.Id(), MostOften, cancel));
}
