using CalmQuill.Documents.Svg;
using CalmQuill.Server.Access;
using CalmQuill.Server.Pages;
using CalmQuill.Store.Library;
using CalmQuill.Store.Spaces;

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
        space.MapGet("/bin/times", BinTimes);
        space.MapGet("/pages/{page:guid}/thumbnail.svg", Thumbnail);
    }

    /// <summary>
    /// The summaries of notebooks that changed after a moment (UTC milliseconds), with the server's clock for the next asking, and the notebooks that are shut, which have none.
    /// </summary>
    private static async Task<IResult> Summaries(
        ReadableSpace space,
        long? after,
        Gate gate,
        ShelfStore shelf,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (after is < 0 or > 253_402_300_000_000)
            return Problems.BadInput($"The moment to ask from is not well formed.");
        var now = clock.GetUtcNow().ToUnixTimeMilliseconds();
        var shut = await gate.ShutIn(space.Id, space.Visitor, cancel);
        return Results.Ok(
            new
            {
                serverTime = now,
                shut,
                summaries = await shelf.Summaries(
                    space.Id,
                    after is { } at ? DateTimeOffset.FromUnixTimeMilliseconds(at) : null,
                    shut,
                    cancel
                ),
            }
        );
    }

    private static async Task<IResult> Strips(ReadableSpace space, string? notebooks, Gate gate, ShelfStore shelf, CancellationToken cancel)
    {
        var asked = (notebooks ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries);
        if (asked.Length > MostStrips || !asked.All(id => Guid.TryParse(id, out _)))
            return Problems.BadInput($"Strips are asked for by at most {MostStrips} ids of notebooks.");
        return Results.Ok(
            await shelf.Strips(space.Id, [.. asked.Select(Guid.Parse)], await gate.ShutIn(space.Id, space.Visitor, cancel), cancel)
        );
    }

    private static async Task<IResult> Binned(
        ReadableSpace space,
        Gate gate,
        ShelfStore shelf,
        TimeProvider clock,
        CancellationToken cancel
    ) => Results.Ok(await shelf.Binned(space.Id, clock.GetUtcNow(), await gate.ShutIn(space.Id, space.Visitor, cancel), cancel));

    private static async Task<IResult> BinTimes(ReadableSpace space, ShelfStore shelf, CancellationToken cancel) =>
        Results.Ok(await shelf.BinTimes(space.Id, cancel));

    /// <summary>
    /// The address carries the page's last number and its paper, so that the answer may be kept for ever, unless a lock lies on the notebook; of a page as it was, also
    /// the time.
    /// </summary>
    private static async Task<IResult> Thumbnail(
        ReadablePage page,
        string? paper,
        bool? written,
        long? at,
        HttpContext http,
        PrintedPages pages,
        ShelfStore shelf,
        SpaceStore spaces,
        CancellationToken cancel
    )
    {
        if (at is not null && await spaces.SeesNoPast(page.Space, page.Role, cancel))
            return Problems.Of(Denial.NoPast);
        var known = await shelf.PageOrNew(page.Id, page.Space, cancel);
        var printed = await pages.Of(page.Space, known with { Paper = paper ?? known.Paper }, at ?? long.MaxValue, cancel);
        // A picture that is still on its way comes without changing the page's number.
        http.Response.Headers.CacheControl = page.IsLocked || printed.LacksPictures ? "no-store" : "private, max-age=31536000, immutable";
        return Results.Text(written == true ? ThumbnailSvg.WriteWritten(printed) : ThumbnailSvg.Write(printed), "image/svg+xml");
    }
}
