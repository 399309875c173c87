using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;
using CalmQuill.Server.Live;
using CalmQuill.Server.People;
using CalmQuill.Store.Locks;
using CalmQuill.Store.People;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.Locks;

/// <summary>Locking notebooks with a passphrase, opening them on one device for a while, and taking locks off.</summary>
/// <remarks>
/// A lock keeps the inside of a notebook from being sent to devices where it was not opened. It does not encrypt: who runs the server or holds a
/// backup can read everything. Writing is taken also while a notebook is shut, since it reveals nothing and what a device wrote before must not be lost.
/// </remarks>
internal static class LockEndpoints
{
    private const int LeastPassphrase = 4, MostPassphrase = 200;
    private static readonly int[] Choices = [5, 15, 60, 480];

    private sealed record NewLock(string? Passphrase, int Minutes);

    private sealed record Passphrase(string? Words);

    private sealed record SignedInAfresh(string? Password);

    public static void MapLocks(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}/locks").RequireAuthorization();
        space.MapGet("/", All);
        space.MapPut("/{notebook:guid}", Set);
        space.MapPost("/{notebook:guid}/open", Open);
        space.MapPost("/{notebook:guid}/shut", Shut);
        space.MapPost("/{notebook:guid}/remove", Remove);
    }

    private static async Task<IResult> All(Guid space, HttpContext http, Gate gate, LockStore locks, CancellationToken cancel) =>
        Rights.MayRead(await gate.RoleIn(space, http.User, cancel))
            ? Results.Ok((await locks.Of(space, http.User.Device(), cancel)).Select(one => new { one.Notebook, openUntil = one.OpenUntil?.ToUnixTimeMilliseconds() }))
            : Problems.NotHere();

    private static async Task<IResult> Set(
        Guid space, Guid notebook, NewLock asked, HttpContext http, Gate gate, LockStore locks, IPasswordHasher<Person> hasher, LiveConnections live, CancellationToken cancel)
    {
        var role = await gate.RoleIn(space, http.User, cancel);
        if (!Rights.MayRead(role) || await gate.Readable(notebook, http.User, cancel) is not { Kind: DocumentKind.Notebook } found || found.Space != space) return Problems.NotHere();
        if (!Rights.MayWrite(role)) return Problems.NotAllowed("You may read here, but not write.");
        if ((asked.Passphrase ?? "").Length is < LeastPassphrase or > MostPassphrase) return Problems.BadInput($"A passphrase has {LeastPassphrase} to {MostPassphrase} characters.");
        if (!Choices.Contains(asked.Minutes)) return Problems.BadInput("A notebook locks again after 5 or 15 minutes, an hour, or eight hours.");
        var made = new NotebookLock(notebook, space, hasher.HashPassword(null!, asked.Passphrase!), http.User.Id(), asked.Minutes);
        if (!await locks.Set(made, cancel)) return Problems.Of(StatusCodes.Status409Conflict, "locked-already", "This notebook is locked already.");
        // Whoever has it open live is let in again only where it is not shut.
        live.DropFrom(notebook);
        return Results.NoContent();
    }

    private static async Task<IResult> Open(
        Guid space, Guid notebook, Passphrase asked, HttpContext http, Gate gate, LockStore locks, IPasswordHasher<Person> hasher, SignInLimiter limiter, TimeProvider clock, CancellationToken cancel)
    {
        if (await Locked(space, notebook, http, gate, locks, cancel) is not { } found) return Problems.NotHere();
        if (!limiter.Allows("lock " + notebook, http.Connection.RemoteIpAddress?.ToString() ?? ""))
            return Problems.Of(StatusCodes.Status429TooManyRequests, "too-many", "Too many tries. Wait a minute, then try again.");
        if (hasher.VerifyHashedPassword(null!, found.Hash, asked.Words ?? "") == PasswordVerificationResult.Failed)
            return Problems.Of(StatusCodes.Status400BadRequest, "wrong-passphrase", "This is not the passphrase.");
        var until = clock.GetUtcNow().AddMinutes(found.Minutes);
        await locks.Open(notebook, http.User.Device(), until, cancel);
        return Results.Ok(new { openUntil = until.ToUnixTimeMilliseconds() });
    }

    private static async Task<IResult> Shut(Guid space, Guid notebook, HttpContext http, Gate gate, LockStore locks, TimeProvider clock, CancellationToken cancel)
    {
        if (await Locked(space, notebook, http, gate, locks, cancel) is null) return Problems.NotHere();
        await locks.Open(notebook, http.User.Device(), clock.GetUtcNow(), cancel);
        return Results.NoContent();
    }

    /// <summary>Takes a lock off by the account's password, that is by signing in afresh: the way out when the passphrase is forgotten.</summary>
    private static async Task<IResult> Remove(
        Guid space, Guid notebook, SignedInAfresh asked, HttpContext http, Gate gate, LockStore locks, PersonStore people, IPasswordHasher<Person> hasher, SignInLimiter limiter, CancellationToken cancel)
    {
        if (await Locked(space, notebook, http, gate, locks, cancel) is null) return Problems.NotHere();
        if (!Rights.MayManagePeople(await gate.RoleIn(space, http.User, cancel))) return Problems.NotAllowed("Only an owner of the library takes a lock off.");
        var person = (await people.Find(http.User.Id(), cancel))!;
        if (!limiter.Allows(person.Email, http.Connection.RemoteIpAddress?.ToString() ?? ""))
            return Problems.Of(StatusCodes.Status429TooManyRequests, "too-many", "Too many tries. Wait a minute, then try again.");
        if (hasher.VerifyHashedPassword(person, person.PasswordHash, asked.Password ?? "") == PasswordVerificationResult.Failed)
            return Problems.Of(StatusCodes.Status400BadRequest, "wrong-password", "The password of your account is not right.");
        await locks.Remove(notebook, cancel);
        return Results.NoContent();
    }

    private static async Task<NotebookLock?> Locked(Guid space, Guid notebook, HttpContext http, Gate gate, LockStore locks, CancellationToken cancel) =>
        Rights.MayRead(await gate.RoleIn(space, http.User, cancel)) && await locks.Find(notebook, cancel) is { } found && found.Space == space ? found : null;
}
