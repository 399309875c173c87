using CalmQuill.Server.Access;
using CalmQuill.Server.People;
using CalmQuill.Store;
using CalmQuill.Store.Lecterns;
using CalmQuill.Store.Locks;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.DataProtection;

namespace CalmQuill.Server.Lecterns;

/// <summary>The way in to the sheet of a lectern, for a screen in the room: by a code that the leader shows.</summary>
/// <remarks>What a screen sees is what the leader may show: it is asked each time whether they still may, and whether the notebook is locked or in the bin.</remarks>
public sealed class Rooms(
    LecternStore lecterns,
    LockStore locks,
    SpaceStore spaces,
    Gate gate,
    SignInLimiter limiter,
    IDataProtectionProvider protection,
    TimeProvider clock
)
{
    /// <summary>Letters and digits of a code.</summary>
    public const int CodeLength = 8;

    private IDataProtector Cipher => protection.CreateProtector("codes of screens in rooms");

    public static IResult Nothing() => Problems.Of(StatusCodes.Status404NotFound, "no-lectern", $"No lectern is open under this code.");

    /// <summary>What a code leads to, or why not. Spaces, hyphens and small letters are taken as people type them.</summary>
    public async Task<(OpenLectern? Open, IResult? Denied)> Enter(string? typed, HttpContext http, CancellationToken cancel)
    {
        var code = Plain(typed);
        if (code is not null && await lecterns.OfRoom(code, clock.GetUtcNow(), cancel) is { } open && await MayBeShown(open, cancel))
            return (open, null);
        // Only what is wrong is counted: a screen asks each time that something changed.
        return (null, await limiter.AllowsFrom(http, cancel) ? Nothing() : Problems.TooMany());
    }

    /// <summary>The code of a lectern, made when it is first asked for; null when it is closed or may not be shown.</summary>
    public async Task<string?> CodeOf(OpenLectern open, CancellationToken cancel)
    {
        if (!await MayBeShown(open, cancel))
            return null;
        var drawn = Secrets.DrawTyped(CodeLength);
        return await lecterns.SetRoom(open.Id, drawn, Cipher.Encipher(drawn), cancel) is { } kept ? Cipher.Open(kept) : null;
    }

    private async Task<bool> MayBeShown(OpenLectern open, CancellationToken cancel) =>
        (await gate.WritableSpace(open.Space, new Visitor(open.Leader, Guid.Empty, Guid.Empty), cancel)).Value is not null
        && await spaces.MadeAndKind(open.Space, open.Notebook, cancel) is not null
        && !await locks.IsLocked(open.Space, open.Notebook, cancel);

    private static string? Plain(string? typed)
    {
        if (typed is not { Length: > 0 and <= 40 })
            return null;
        var plain = new string([.. typed.Where(char.IsAsciiLetterOrDigit).Select(char.ToUpperInvariant)]);
        return plain.Length == CodeLength ? plain : null;
    }
}
