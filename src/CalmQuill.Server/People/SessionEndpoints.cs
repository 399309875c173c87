using System.Security.Claims;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.People;

/// <summary>Signing in and out, and who is signed in.</summary>
internal static class SessionEndpoints
{
    private sealed record Credentials(string? Email, string? Password);

    public static void MapSession(this IEndpointRouteBuilder api)
    {
        api.MapGet("/session", Show);
        api.MapPost("/session", Enter);
        api.MapDelete("/session", (Delegate)Leave);
    }

    /// <summary>The person and their spaces (null when signed out), the antiforgery token, and the server's clock.</summary>
    public static async Task<IResult> Show(HttpContext http, PersonStore people, SpaceStore spaces, IAntiforgery antiforgery, TimeProvider clock, CancellationToken cancel)
    {
        var person = await people.Find(http.User.Id(), cancel);
        var token = antiforgery.GetAndStoreTokens(http).RequestToken;
        var now = clock.GetUtcNow().ToUnixTimeMilliseconds();
        if (person is null) return Results.Ok(new { antiforgery = token, serverTime = now });
        var own = await spaces.Of(person.Id, cancel);
        return Results.Ok(new
        {
            antiforgery = token,
            serverTime = now,
            person = new { person.Id, person.Name, person.Email, person.Colour },
            spaces = own.Select(space => new { space.Id, space.Name, space.Personal, role = space.Role.ToString().ToLowerInvariant() }),
        });
    }

    private static async Task<IResult> Enter(
        Credentials credentials, HttpContext http, PersonStore people, SpaceStore spaces, IPasswordHasher<Person> hasher, SignInLimiter limiter,
        IAntiforgery antiforgery, TimeProvider clock, CancellationToken cancel)
    {
        var email = credentials.Email ?? "";
        if (!limiter.Allows(email, http.Connection.RemoteIpAddress?.ToString() ?? ""))
            return Problems.Of(StatusCodes.Status429TooManyRequests, "too-many", "Too many tries. Wait a minute, then try again.");
        var person = await people.FindByEmail(email, cancel);
        // An unknown address takes as long as a wrong password, so that the time does not tell which it was.
        var verified = hasher.VerifyHashedPassword(person!, person?.PasswordHash ?? Accounts.HashOfNobody(hasher), credentials.Password ?? "");
        if (person is null || verified == PasswordVerificationResult.Failed)
            return Problems.Of(StatusCodes.Status401Unauthorized, "wrong-sign-in", "The e-mail address or the password is not right.");
        await http.SignInAs(person);
        return await Show(http, people, spaces, antiforgery, clock, cancel);
    }

    private static async Task<IResult> Leave(HttpContext http)
    {
        await http.SignOutAsync();
        http.User = new ClaimsPrincipal(new ClaimsIdentity());
        return Results.NoContent();
    }
}
