using CalmQuill.Core.Access;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Pages;
using CalmQuill.Store.Library;
using CalmQuill.Store.Locks;

namespace CalmQuill.Server.Library;

/// <summary>What the library shows of its notebooks, pictures of pages, and what is in the bin.</summary>
internal static class LibraryEndpoints
{
    private const int MostStrips = 100;

    public static void MapLibrary(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        space.MapGet("/summaries", Summaries);
        space.MapGet("/strips", Strips);
        space.MapGet("/bin", Binned);
        space.MapGet("/pages/{page:guid}/thumbnail.svg", Thumbnail);
    }

    /// <summary>The summaries of notebooks that changed after a moment (UTC milliseconds), with the server's clock for the next asking.</summary>
    private static async Task<IResult> Summaries(Guid space, long? after, HttpContext http, Gate gate, ShelfStore shelf, TimeProvider clock, CancellationToken cancel)
    {
        if (!Rights.MayRead(await gate.RoleIn(space, http.User, cancel))) return Problems.NotHere();
        if (after is < 0 or > 253_402_300_000_000) return Problems.BadInput("The moment to ask from is not well formed.");
        var now = clock.GetUtcNow().ToUnixTimeMilliseconds();
        return Results.Ok(new { serverTime = now, summaries = await shelf.Summaries(space, after is { } at ? DateTimeOffset.FromUnixTimeMilliseconds(at) : null, cancel) });
    }

    private static async Task<IResult> Strips(Guid space, string? notebooks, HttpContext http, Gate gate, ShelfStore shelf, CancellationToken cancel)
    {
        if (!Rights.MayRead(await gate.RoleIn(space, http.User, cancel))) return Problems.NotHere();
        var asked = (notebooks ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries);
        if (asked.Length > MostStrips || !asked.All(id => Guid.TryParse(id, out _))) return Problems.BadInput($"Strips are asked for by at most {MostStrips} ids of notebooks.");
        return Results.Ok(await shelf.Strips(space, [.. asked.Select(Guid.Parse)], await gate.Shut(space, http.User, cancel), cancel));
    }

    private static async Task<IResult> Binned(Guid space, HttpContext http, Gate gate, ShelfStore shelf, TimeProvider clock, CancellationToken cancel) =>
        Rights.MayRead(await gate.RoleIn(space, http.User, cancel))
            ? Results.Ok(await shelf.Binned(space, clock.GetUtcNow().ToUnixTimeMilliseconds(), await gate.Shut(space, http.User, cancel), cancel))
            : Problems.NotHere();

    /// <summary>The address carries the page's last number and its paper, so that the answer may be kept for ever, unless a lock lies on the notebook.</summary>
    private static async Task<IResult> Thumbnail(
        Guid space, Guid page, string? paper, HttpContext http, Gate gate, PrintedPages pages, ShelfStore shelf, LockStore locks, CancellationToken cancel)
    {
        if (!await gate.MayReadIn(space, page, http.User, cancel)) return Problems.NotHere();
        if (await gate.IsShut(page, http.User, cancel)) return Problems.Locked();
        var known = await shelf.Page(page, space, cancel) ?? new ShownPage(Guid.Empty, page, 1, "", "", 0, null);
        var printed = await pages.Of(space, known with { Paper = paper ?? known.Paper }, cancel);
        http.Response.Headers.CacheControl = await locks.IsAround(page, cancel) ? "no-store" : "private, max-age=31536000, immutable";
        return Results.Text(ThumbnailSvg.Write(printed), "image/svg+xml");
    }
}
