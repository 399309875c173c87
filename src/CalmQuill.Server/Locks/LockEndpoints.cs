using CalmQuill.Core.Access;
using CalmQuill.Server.Access;
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
    private const int LeastPassphrase = 4,
        MostPassphrase = 200;
    private static readonly int[] Choices = [5, 15, 60, 480];

    internal sealed record NewLock(string? Passphrase, int Minutes);

    internal sealed record Passphrase(string? Words);

    internal sealed record SignedInAfresh(string? Password);

    public static void MapLocks(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}/locks").RequireAuthorization();
        space.MapGet("/", All);
        space.MapPut("/{notebook:guid}", Set);
        space.MapPost("/{notebook:guid}/open", Open);
        space.MapPost("/{notebook:guid}/shut", Shut);
        space.MapPost("/{notebook:guid}/remove", Remove);
    }

    private static async Task<IResult> All(ReadableSpace space, LockStore locks, CancellationToken cancel) =>
        Results.Ok(
            (await locks.Of(space.Id, space.Visitor.Session, cancel)).Select(one => new
            {
                one.Notebook,
                openUntil = one.OpenUntil?.ToUnixTimeMilliseconds(),
            })
        );

    private static async Task<IResult> Set(
        OwnedNotebook notebook,
        NewLock asked,
        LockStore locks,
        IPasswordHasher<Person> hasher,
        CancellationToken cancel
    )
    {
        if ((asked.Passphrase ?? "").Length is < LeastPassphrase or > MostPassphrase)
            return Problems.BadInput($"A passphrase has {LeastPassphrase} to {MostPassphrase} characters.");
        if (!Choices.Contains(asked.Minutes))
            return Problems.BadInput($"A notebook locks again after 5 or 15 minutes, an hour, or eight hours.");
        var made = new NotebookLock(
            notebook.Id,
            notebook.Space,
            hasher.HashPassword(null!, asked.Passphrase!),
            notebook.Visitor.Person,
            asked.Minutes
        );
        // Whoever has it open live is let in again only where it is not shut.
        return await locks.Set(made, cancel)
            ? Results.NoContent()
            : Problems.Of(StatusCodes.Status409Conflict, "locked-already", $"This notebook is locked already.");
    }

    private static async Task<IResult> Open(
        LockedNotebook locked,
        Passphrase asked,
        HttpContext http,
        LockStore locks,
        IPasswordHasher<Person> hasher,
        SignInLimiter limiter,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (notebook, space) = (locked.Lock.Notebook, locked.Lock.Space);
        // By person: one member who guesses keeps no other out.
        if (!await limiter.Allows($"lock {space} {notebook} {locked.Visitor.Person}", http, null, cancel))
            return Problems.TooMany();
        if (
            asked.Words is not { Length: <= MostPassphrase } words
            || hasher.VerifyHashedPassword(null!, locked.Lock.Hash, words) == PasswordVerificationResult.Failed
        )
            return Problems.Of(StatusCodes.Status400BadRequest, "wrong-passphrase", $"This is not the passphrase.");
        var until = clock.GetUtcNow().AddMinutes(locked.Lock.Minutes);
        await locks.Open(space, notebook, locked.Visitor.Session, until, cancel);
        return Results.Ok(new { openUntil = until.ToUnixTimeMilliseconds() });
    }

    private static async Task<IResult> Shut(LockedNotebook locked, LockStore locks, TimeProvider clock, CancellationToken cancel)
    {
        await locks.Open(locked.Lock.Space, locked.Lock.Notebook, locked.Visitor.Session, clock.GetUtcNow(), cancel);
        return Results.NoContent();
    }

    /// <summary>Takes a lock off by the account's password, that is by signing in afresh: the way out when the passphrase is forgotten.</summary>
    private static async Task<IResult> Remove(
        LockedNotebook locked,
        SignedInAfresh asked,
        HttpContext http,
        LockStore locks,
        OwnPassword password,
        CancellationToken cancel
    )
    {
        if (!Rights.MayLock(locked.Role, locked.Lock.SetBy == locked.Visitor.Person))
            return Problems.NotAllowed($"Only who put the lock on, or an owner of the library, takes it off.");
        if ((await password.Ask(http, asked.Password, cancel)).Refused is { } refused)
            return refused;
        await locks.Remove(locked.Lock.Space, locked.Lock.Notebook, cancel);
        return Results.NoContent();
    }
}
