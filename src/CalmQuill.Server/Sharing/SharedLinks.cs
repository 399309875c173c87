using CalmQuill.Server.People;
using CalmQuill.Store.People;
using CalmQuill.Store.Sharing;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.Sharing;

/// <summary>The way in by a link or an address: its secret, and its passphrase where it has one.</summary>
/// <remarks>Whoever gave the passphrase gets a ticket for some hours, so that it is not worked out anew for each page. The secret is looked up each time: what was taken back is over at once.</remarks>
public sealed class SharedLinks(
    ShareStore shares,
    IPasswordHasher<Person> hasher,
    SignInLimiter limiter,
    IDataProtectionProvider protection,
    TimeProvider clock
)
{
    private static readonly TimeSpan TicketLasts = TimeSpan.FromHours(8);

    private ITimeLimitedDataProtector Tickets => protection.CreateProtector("tickets to what is shared").ToTimeLimitedDataProtector();

    public static IResult Nothing() =>
        Problems.Of(
            StatusCodes.Status404NotFound,
            "nothing-shared",
            $"Nothing is shared by this link: it was taken back, or its last day is over."
        );

    /// <summary>What a secret leads to, or why not: nothing is told before the passphrase is given.</summary>
    public async Task<(FoundShare? Found, IResult? Denied)> Enter(
        string? secret,
        string? passphrase,
        string? ticket,
        HttpContext http,
        CancellationToken cancel
    )
    {
        if (secret is not { Length: > 0 and <= 200 } || await shares.Find(secret, clock.GetUtcNow(), cancel) is not { } found)
            return (null, Nothing());
        if (found.Passphrase is not { } hash || IsGood(ticket, found))
            return (found, null);
        if (string.IsNullOrEmpty(passphrase))
            return (null, Problems.Of(StatusCodes.Status401Unauthorized, "passphrase-needed", $"This link asks for a passphrase."));
        if (!await limiter.Allows($"share {found.Id}", http, null, cancel))
            return (null, Problems.TooMany());
        return
            passphrase.Length > Core.Access.Share.MostPassphrase
            || hasher.VerifyHashedPassword(null!, hash, passphrase) == PasswordVerificationResult.Failed
            ? (null, Problems.Of(StatusCodes.Status401Unauthorized, "wrong-passphrase", $"This is not the passphrase."))
            : (found, null);
    }

    /// <summary>What stands for the passphrase from now on; empty where there is none.</summary>
    public string TicketTo(FoundShare found) => found.Passphrase is null ? "" : Tickets.Protect(Words(found), TicketLasts);

    public Task<bool> Come(string secret, Guid person, CancellationToken cancel) => shares.Come(secret, person, clock.GetUtcNow(), cancel);

    public Task<bool?> RegisterAndCome(Person person, string secret, CancellationToken cancel) =>
        shares.RegisterAndCome(person, Guid.NewGuid(), secret, clock.GetUtcNow(), cancel);

    private bool IsGood(string? ticket, FoundShare found)
    {
        if (string.IsNullOrEmpty(ticket) || ticket.Length > 2_000)
            return false;
        try
        {
            return Tickets.Unprotect(ticket) == Words(found);
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return false;
        }
    }

    private static string Words(FoundShare found) => $"{found.Id} {found.Passphrase}";
}
