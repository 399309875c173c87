using CalmQuill.Store.People;
using Microsoft.AspNetCore.Authentication;

namespace CalmQuill.Server.People;

/// <summary>Deleting one's account: what that would do, and doing it. Whoever signs in before its days are over may have it back.</summary>
internal static class LeavingEndpoints
{
    internal sealed record Farewell(string? Password);

    public static void MapLeaving(this IEndpointRouteBuilder api)
    {
        api.MapGet("/people/me/leaving", Show).RequireAuthorization();
        api.MapPost("/people/me/leaving", Leave).RequireAuthorization();
    }

    private static async Task<IResult> Show(HttpContext http, LeavingStore leaving, CancellationToken cancel)
    {
        var would = await leaving.Of(http.User.Id(), cancel);
        return Results.Ok(
            new
            {
                would.Notebooks,
                would.Shares,
                days = LeavingStore.Days,
                groups = would.Groups,
            }
        );
    }

    private static async Task<IResult> Leave(
        Farewell asked,
        HttpContext http,
        OwnPassword password,
        LeavingStore leaving,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (person, refused) = await password.Ask(http, asked.Password, cancel);
        if (refused is not null)
            return refused;
        if (await leaving.Leave(person.Id, clock.GetUtcNow(), cancel) is { Count: > 0 } leaderless)
            return Problems.Of(
                StatusCodes.Status409Conflict,
                "last-owner",
                $"You are the only owner of {string.Join(", ", leaderless.Select(group => group.Name))}. Hand it over first, or dissolve it."
            );
        await http.SignOutAsync();
        return Results.NoContent();
    }
}
