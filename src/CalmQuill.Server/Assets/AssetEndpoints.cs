using CalmQuill.Documents;
using CalmQuill.Documents.Pictures;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Server.Pages;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Library;

namespace CalmQuill.Server.Assets;

/// <summary>Pictures and frozen pages of a space: what papers of one's own and covers are made of.</summary>
internal static class AssetEndpoints
{
    public const string Jpeg = "image/jpeg";

    /// <summary>The most a picture may hold; the front end makes larger ones smaller before it sends them.</summary>
    private const int MostPixels = 40_000_000;

    private sealed record ToFreeze(Guid Page);

    private const int MostBytes = 8 * 1024 * 1024;

    public static void MapAssets(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        space.MapPost("/assets", Add).Takes(MostBytes);
        space.MapPost("/frozen-pages", Freeze).TakesWork();
        space.MapGet("/assets/{asset:guid}", Get);
        space.MapGet("/assets/{asset:guid}/picture", Picture);
        space.MapGet("/paper-uses", Uses);
    }

    /// <summary>The body is a JPEG file. It is sniffed: what it says of itself does not count.</summary>
    private static async Task<IResult> Add(
        WritableSpace space,
        HttpContext http,
        AssetStore assets,
        SpaceQuotas quotas,
        CancellationToken cancel
    )
    {
        using var body = new MemoryStream();
        await http.Request.Body.CopyToAsync(body, cancel);
        var bytes = body.ToArray();
        if (JpegHead.Read(bytes) is not { } head)
            return Problems.BadInput("This is not a JPEG picture. Nothing was kept.");
        if ((long)head.Width * head.Height > MostPixels)
            return Problems.BadInput(
                $"The picture has {(long)head.Width * head.Height / 1_000_000} megapixels; the most is {MostPixels / 1_000_000}. Nothing was kept."
            );
        if (head.Components != 3)
            return Problems.BadInput("The picture is not in red, green and blue. Nothing was kept.");
        if (JpegHead.Problem(bytes) is { } problem)
            return Problems.BadInput(problem);
        return await Keep(
            new Asset(Guid.NewGuid(), space.Id, Jpeg, head.Width, head.Height, bytes, space.Visitor.Person),
            assets,
            quotas,
            cancel
        );
    }

    /// <summary>Keeps a page as it now is, to lie under others.</summary>
    private static async Task<IResult> Freeze(
        WritableSpace space,
        ToFreeze asked,
        Gate gate,
        AssetStore assets,
        ShelfStore shelf,
        PrintedPages pages,
        SpaceQuotas quotas,
        CancellationToken cancel
    )
    {
        var (page, denied) = await gate.ReadablePage(space.Id, asked.Page, space.Visitor, cancel);
        if (page is null)
            return Problems.Of(denied!);
        if (await shelf.Page(page.Id, page.Space, cancel) is not { } known)
            return Problems.NotHere();
        var printed = await pages.Of(space.Id, known, cancel);
        if (printed.Under is not null)
            return Problems.BadInput("This page lies on a paper of your own already. Change that paper instead.");
        var bytes = FrozenPage.Write(printed.Page, known.Paper);
        return await Keep(
            new Asset(
                Guid.NewGuid(),
                space.Id,
                FrozenPage.MediaType,
                printed.Paper.Width,
                printed.Paper.Height,
                bytes,
                space.Visitor.Person
            ),
            assets,
            quotas,
            cancel
        );
    }

    private static async Task<IResult> Get(
        ReadableSpace space,
        Guid asset,
        HttpContext http,
        AssetStore assets,
        CancellationToken cancel
    ) => await Find(space, asset, http, assets, cancel) is { } found ? Results.Bytes(found.Bytes, found.Type) : Problems.NotHere();

    /// <summary>What an asset looks like: a picture as it is, a frozen page drawn.</summary>
    private static async Task<IResult> Picture(
        ReadableSpace space,
        Guid asset,
        HttpContext http,
        AssetStore assets,
        CancellationToken cancel
    )
    {
        if (await Find(space, asset, http, assets, cancel) is not { } found)
            return Problems.NotHere();
        if (found.Type == Jpeg)
            return Results.Bytes(found.Bytes, found.Type);
        return FrozenPage.Read(found.Bytes) is { } frozen
            ? Results.Text(ThumbnailSvg.Write(new PrintedPage(frozen.Page, frozen.Paper, "") { Cancel = cancel }), "image/svg+xml")
            : Problems.NotHere();
    }

    /// <summary>Assets never change, so the answer may be kept for ever.</summary>
    private static async Task<Asset?> Find(ReadableSpace space, Guid asset, HttpContext http, AssetStore assets, CancellationToken cancel)
    {
        if (await assets.Find(asset, space.Id, cancel) is not { } found)
            return null;
        http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return found;
    }

    private static async Task<IResult> Uses(ReadableSpace space, Gate gate, AssetStore assets, CancellationToken cancel) =>
        Results.Ok(await assets.Uses(space.Id, await gate.ShutIn(space.Id, space.Visitor, cancel), cancel));

    private static async Task<IResult> Keep(Asset asset, AssetStore assets, SpaceQuotas quotas, CancellationToken cancel)
    {
        if (await quotas.AssetProblem(asset.Space, asset.Bytes.Length, cancel) is { } full)
            return Problems.Of(StatusCodes.Status507InsufficientStorage, full);
        await assets.Add(asset, cancel);
        return Results.Ok(
            new
            {
                asset = asset.Id,
                asset.Width,
                asset.Height,
            }
        );
    }
}
