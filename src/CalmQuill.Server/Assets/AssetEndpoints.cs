using CalmQuill.Core.Access;
using CalmQuill.Documents;
using CalmQuill.Documents.Pictures;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Pages;
using CalmQuill.Server.People;
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

    public static void MapAssets(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        space.MapPost("/assets", Add);
        space.MapPost("/frozen-pages", Freeze);
        space.MapGet("/assets/{asset:guid}", Get);
        space.MapGet("/assets/{asset:guid}/picture", Picture);
        space.MapGet("/paper-uses", Uses);
    }

    /// <summary>The body is a JPEG file. It is sniffed: what it says of itself does not count.</summary>
    private static async Task<IResult> Add(Guid space, HttpContext http, Gate gate, AssetStore assets, CancellationToken cancel)
    {
        if (await RefuseWriting(space, http, gate, cancel) is { } refused) return refused;
        using var body = new MemoryStream();
        await http.Request.Body.CopyToAsync(body, cancel);
        var bytes = body.ToArray();
        if (JpegHead.Read(bytes) is not { } head) return Problems.BadInput("This is not a JPEG picture. Nothing was kept.");
        if ((long)head.Width * head.Height > MostPixels)
            return Problems.BadInput($"The picture has {(long)head.Width * head.Height / 1_000_000} megapixels; the most is {MostPixels / 1_000_000}. Nothing was kept.");
        if (head.Components != 3) return Problems.BadInput("The picture is not in red, green and blue. Nothing was kept.");
        return await Keep(new Asset(Guid.NewGuid(), space, Jpeg, head.Width, head.Height, bytes, http.User.Id()), assets, cancel);
    }

    /// <summary>Keeps a page as it now is, to lie under others.</summary>
    private static async Task<IResult> Freeze(Guid space, ToFreeze asked, HttpContext http, Gate gate, AssetStore assets, ShelfStore shelf, PrintedPages pages, CancellationToken cancel)
    {
        if (await RefuseWriting(space, http, gate, cancel) is { } refused) return refused;
        if (await shelf.Page(asked.Page, space, cancel) is not { } known) return Problems.NotHere();
        if (await gate.IsShut(asked.Page, http.User, cancel)) return Problems.Locked();
        var printed = await pages.Of(space, known, cancel);
        if (printed.Under is not null) return Problems.BadInput("This page lies on a paper of your own already. Change that paper instead.");
        var bytes = FrozenPage.Write(printed.Page, known.Paper);
        return await Keep(new Asset(Guid.NewGuid(), space, FrozenPage.MediaType, printed.Paper.Width, printed.Paper.Height, bytes, http.User.Id()), assets, cancel);
    }

    private static async Task<IResult> Get(Guid space, Guid asset, HttpContext http, Gate gate, AssetStore assets, CancellationToken cancel) =>
        await Find(space, asset, http, gate, assets, cancel) is { } found ? Results.Bytes(found.Bytes, found.Type) : Problems.NotHere();

    /// <summary>What an asset looks like: a picture as it is, a frozen page drawn.</summary>
    private static async Task<IResult> Picture(Guid space, Guid asset, HttpContext http, Gate gate, AssetStore assets, CancellationToken cancel)
    {
        if (await Find(space, asset, http, gate, assets, cancel) is not { } found) return Problems.NotHere();
        if (found.Type == Jpeg) return Results.Bytes(found.Bytes, found.Type);
        return FrozenPage.Read(found.Bytes) is { } frozen ? Results.Text(ThumbnailSvg.Write(new PrintedPage(frozen.Page, frozen.Paper, "")), "image/svg+xml") : Problems.NotHere();
    }

    /// <summary>An asset that the person may see. Assets never change, so the answer may be kept for ever.</summary>
    private static async Task<Asset?> Find(Guid space, Guid asset, HttpContext http, Gate gate, AssetStore assets, CancellationToken cancel)
    {
        if (!Rights.MayRead(await gate.RoleIn(space, http.User, cancel)) || await assets.Find(asset, space, cancel) is not { } found) return null;
        http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return found;
    }

    private static async Task<IResult> Uses(Guid space, HttpContext http, Gate gate, AssetStore assets, CancellationToken cancel) =>
        Rights.MayRead(await gate.RoleIn(space, http.User, cancel)) ? Results.Ok(await assets.Uses(space, cancel)) : Problems.NotHere();

    private static async Task<IResult> Keep(Asset asset, AssetStore assets, CancellationToken cancel)
    {
        await assets.Add(asset, cancel);
        return Results.Ok(new { asset = asset.Id, asset.Width, asset.Height });
    }

    private static async Task<IResult?> RefuseWriting(Guid space, HttpContext http, Gate gate, CancellationToken cancel)
    {
        var role = await gate.RoleIn(space, http.User, cancel);
        if (!Rights.MayRead(role)) return Problems.NotHere();
        return Rights.MayWrite(role) ? null : Problems.NotAllowed("You may read here, but not write.");
    }
}
