using System.Security.Claims;
using CalmQuill.Server.Mail;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.People;

/// <summary>Signing in and out, who is signed in, and in which devices.</summary>
internal static class SessionEndpoints
{
    /// <param name="Keep">An account that is to be deleted is had back by signing in.</param>
    internal sealed record Credentials(string? Email, string? Password, string? Code, bool Keep);

    public static void MapSession(this IEndpointRouteBuilder api)
    {
        api.MapGet("/session", Show);
        api.MapPost("/session", Enter);
        api.MapDelete("/session", Leave);
        api.MapGet("/devices", Devices).RequireAuthorization();
        api.MapDelete("/devices", EndOthers).RequireAuthorization();
        api.MapDelete("/devices/{session:guid}", End).RequireAuthorization();
    }

    /// <summary>The person and their spaces (null when signed out), the antiforgery token, and the server's clock.</summary>
    public static async Task<IResult> Show(
        HttpContext http,
        PersonStore people,
        SpaceStore spaces,
        IAntiforgery antiforgery,
        Settings settings,
        MailSender mail,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var person = await people.Find(http.User.Id(), cancel);
        var token = antiforgery.GetAndStoreTokens(http).RequestToken;
        var now = clock.GetUtcNow().ToUnixTimeMilliseconds();
        if (person is null)
            return Results.Ok(
                new
                {
                    antiforgery = token,
                    serverTime = now,
                    openRegistration = settings.OpenRegistration && mail.IsThere,
                    sendsMail = mail.IsThere,
                }
            );
        var own = await spaces.Of(person.Id, cancel);
        return Results.Ok(
            new
            {
                antiforgery = token,
                serverTime = now,
                person = new
                {
                    person.Id,
                    person.Name,
                    person.Email,
                    person.Colour,
                    secondFactor = person.SecondFactor is not null,
                },
                spaces = own.Select(space => new
                {
                    space.Id,
                    space.Name,
                    space.Personal,
                    space.Colour,
                    touch = space.Touch.ToString().ToLowerInvariant(),
                    space.IsPastClosed,
                    role = space.Role.ToString().ToLowerInvariant(),
                }),
            }
        );
    }

    private static async Task<IResult> Enter(
        Credentials credentials,
        HttpContext http,
        PersonStore people,
        SpaceStore spaces,
        IPasswordHasher<Person> hasher,
        SignInLimiter limiter,
        KnownDevices devices,
        SecondFactor factor,
        LeavingStore leaving,
        IAntiforgery antiforgery,
        Settings settings,
        MailSender mail,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var email = (credentials.Email ?? "").Trim();
        if (Accounts.EmailProblem(email) is not null)
            email = "";
        var person = email.Length > 0 ? await people.FindByEmail(email, cancel) : null;
        if (!await limiter.Allows(email, http, person is null ? null : devices.Find(http, person.Id), cancel))
            return Problems.TooMany();
        // An unknown address takes as long as a wrong password, so that the time does not tell which it was.
        if (!hasher.IsPassword(person, credentials.Password, settings.IsDemonstration))
            return WrongSignIn();
        var until = await leaving.Until(person!.Id, cancel);
        if (until <= clock.GetUtcNow())
            return WrongSignIn();
        // Before the second factor, whose code is good once: who goes on gives it then.
        if (until is not null && !credentials.Keep)
            return Problems.Of(
                StatusCodes.Status409Conflict,
                "leaving",
                $"You deleted this account. You can still have it back, with your own library as it was; to groups you are invited anew."
            );
        if (person.SecondFactor is not null)
        {
            if (string.IsNullOrWhiteSpace(credentials.Code))
                return Problems.Of(
                    StatusCodes.Status401Unauthorized,
                    "code-needed",
                    $"Give the code of your second factor, or one of your recovery codes."
                );
            if (!await factor.Take(person, credentials.Code, cancel))
                return Problems.Of(
                    StatusCodes.Status401Unauthorized,
                    "wrong-code",
                    $"This code is not right, or was used already. A new one comes every half minute."
                );
        }

        if (until is not null && !await leaving.HaveBack(person.Id, clock.GetUtcNow(), cancel))
            return WrongSignIn();
        await http.SignInAs(person, cancel);
        return await Show(http, people, spaces, antiforgery, settings, mail, clock, cancel);
    }

    private static IResult WrongSignIn() =>
        Problems.Of(StatusCodes.Status401Unauthorized, "wrong-sign-in", $"The e-mail address or the password is not right.");

    private static async Task<IResult> Leave(HttpContext http, SessionStore sessions, CancellationToken cancel)
    {
        if (http.User.Session() != Guid.Empty)
            await sessions.EndOne(http.User.Id(), http.User.Session(), cancel);
        await http.SignOutAsync();
        http.User = new ClaimsPrincipal(new ClaimsIdentity());
        return Results.NoContent();
    }

    private static async Task<IResult> Devices(HttpContext http, SessionStore sessions, CancellationToken cancel)
    {
        var own = http.User.Session();
        return Results.Ok(
            (await sessions.Of(http.User.Id(), cancel)).Select(one => new
            {
                one.Id,
                one.Name,
                one.Address,
                madeAt = one.MadeAt.ToUnixTimeMilliseconds(),
                seenAt = one.SeenAt.ToUnixTimeMilliseconds(),
                isThis = one.Id == own,
            })
        );
    }

    private static async Task<IResult> EndOthers(HttpContext http, SessionStore sessions, CancellationToken cancel)
    {
        await sessions.EndOthers(http.User.Id(), http.User.Session(), cancel);
        return Results.NoContent();
    }

    private static async Task<IResult> End(Guid session, HttpContext http, SessionStore sessions, CancellationToken cancel) =>
        await sessions.EndOne(http.User.Id(), session, cancel) ? Results.NoContent() : Problems.NotHere();
}
