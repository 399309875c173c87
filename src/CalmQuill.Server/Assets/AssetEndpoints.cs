using CalmQuill.Core.Assets;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Server.Live;
using CalmQuill.Server.Pages;
using CalmQuill.Store.Assets;

namespace CalmQuill.Server.Assets;

/// <summary>Pictures, files and frozen pages of a space: what papers of one's own and covers are made of.</summary>
/// <remarks>
/// A device names a file by its bytes (<see cref="AssetId"/>) and sends it piece by piece; where the connection broke it asks how much has come, and goes on from
/// there. A file that the space has already is not sent at all.
/// </remarks>
internal static class AssetEndpoints
{
    /// <summary>The most that one piece may hold.</summary>
    private const int MostPiece = 1024 * 1024;

    private static readonly Refusal OtherBytes = new(
        "other-bytes",
        $"What came is not the file that was named. It is sent again from its beginning."
    );

    public static void MapAssets(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        space.MapGet("/assets/{asset:guid}/received", Received);
        space.MapPut("/assets/{asset:guid}/pieces/{at:long}", Take).Takes(MostPiece);
        space.MapGet("/assets/{asset:guid}", Get);
        space.MapGet("/assets/{asset:guid}/picture", Picture);
        space.MapGet("/paper-uses", Uses);
        space.MapGet("/notebooks/{notebook:guid}/assets", OfNotebook);
    }

    private static async Task<IResult> Received(WritableSpace space, Guid asset, AssetStore assets, CancellationToken cancel)
    {
        var (size, isWhole) = await assets.Received(space.Id, asset, space.Visitor.Person, cancel);
        return Results.Ok(new { size, isWhole });
    }

    /// <summary>Takes the next piece of a file; with the last one the file is looked at and kept. The answer says how much has come; a piece that is not the next one is not taken.</summary>
    /// <param name="space">The space it is for.</param>
    /// <param name="asset">The file's id.</param>
    /// <param name="at">Where in the file the piece begins, bytes.</param>
    /// <param name="of">How long the whole file is, bytes.</param>
    private static async Task<IResult> Take(
        WritableSpace space,
        Guid asset,
        long at,
        long of,
        HttpContext http,
        AssetStore assets,
        SpaceQuotas quotas,
        QuillLimits limits,
        SpaceNews news,
        CancellationToken cancel
    )
    {
        if (!AssetId.IsOfContent(asset))
            return Problems.BadInput($"A file is named by what it consists of. Nothing was kept.");
        if (of <= 0 || of > limits.BytesOfAnAsset)
            return Problems.BadInput(
                $"A file holds at least one byte and at most {limits.BytesOfAnAsset / (1024 * 1024)} MB. Nothing was kept."
            );
        using var body = new MemoryStream();
        await http.Request.Body.CopyToAsync(body, cancel);
        // Only behind the last one comes an empty piece: from a device whose file has all come, and was not looked at, since the server stopped just then.
        if ((body.Length == 0 && at != of) || at < 0 || at + body.Length > of)
            return Problems.BadInput($"A piece holds at least one byte and ends where its file does. Nothing was kept.");
        var person = space.Visitor.Person;
        var (size, isWhole) = await assets.Received(space.Id, asset, person, cancel);
        if (isWhole)
            return Results.Ok(new { size, isWhole });
        if (await quotas.AssetProblem(space.Id, body.Length, cancel) is { } full)
            return Problems.Of(StatusCodes.Status507InsufficientStorage, full);
        var isNext = body.Length == 0 ? size == of : await assets.AddPiece(space.Id, asset, person, at, body.ToArray(), cancel);
        if (!isNext)
            return Results.Ok(new { size, isWhole });
        if (at + body.Length < of)
            return Results.Ok(new { size = at + body.Length, isWhole });
        var bytes = await assets.Pieces(space.Id, asset, person, cancel);
        // Whatever becomes of it, the pieces have done what they came for.
        await assets.ForgetPieces(space.Id, asset, person, cancel);
        if (bytes.Length != of || AssetId.Of(bytes) != asset)
            return Problems.Of(StatusCodes.Status409Conflict, OtherBytes);
        var type = FileType.Of(bytes);
        if (type.Problem(bytes) is { } problem)
            return Problems.BadInput(problem);
        await assets.Add(new Asset(asset, space.Id, type.MediaType, type.Width, type.Height, bytes, person), cancel);
        // Who has seen it named already may ask for it now.
        news.Tell(space.Id);
        return Results.Ok(new { size = of, isWhole = true });
    }

    private static async Task<IResult> Get(ReadableAsset asset, HttpContext http, AssetStore assets, CancellationToken cancel) =>
        // What is no picture a browser does not get to show, whatever it is: it is only handed over.
        await Find(asset, http, assets, cancel) is { } found
            ? Results.Bytes(found.Bytes, found.Type, fileDownloadName: FileType.IsPictureType(found.Type) ? null : "file")
            : Problems.NotHere();

    /// <summary>What an asset looks like: a picture as it is, a frozen page drawn.</summary>
    private static async Task<IResult> Picture(
        ReadableAsset asset,
        HttpContext http,
        AssetStore assets,
        PrintedPages pages,
        CancellationToken cancel
    )
    {
        if (await Find(asset, http, assets, cancel) is not { } found)
            return Problems.NotHere();
        if (FileType.IsPictureType(found.Type))
            return Results.Bytes(found.Bytes, found.Type);
        return FrozenPage.Read(found.Bytes) is { } frozen
            ? Results.Text(ThumbnailSvg.Write(await pages.Of(asset.Space, frozen, cancel)), "image/svg+xml")
            : Problems.NotHere();
    }

    /// <summary>Assets never change, so the answer may be kept for ever.</summary>
    private static async Task<Asset?> Find(ReadableAsset asset, HttpContext http, AssetStore assets, CancellationToken cancel)
    {
        if (await assets.Find(asset.Id, asset.Space, cancel) is not { } found)
            return null;
        http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return found;
    }

    /// <summary>The files that a notebook's pages name, for a device that keeps all of it.</summary>
    private static async Task<IResult> OfNotebook(ReadableNotebook notebook, AssetStore assets, CancellationToken cancel) =>
        Results.Ok(await assets.OfNotebook(notebook.Space, notebook.Id, cancel));

    private static async Task<IResult> Uses(ReadableSpace space, Gate gate, AssetStore assets, CancellationToken cancel) =>
        Results.Ok(await assets.Uses(space.Id, await gate.ShutIn(space.Id, space.Visitor, cancel), cancel));
}
