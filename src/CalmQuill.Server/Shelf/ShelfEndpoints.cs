using CalmQuill.Core.Access;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Documents.Svg;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Shelf;

namespace CalmQuill.Server.Shelf;

/// <summary>What the library shows of its notebooks, and pictures of pages.</summary>
internal static class ShelfEndpoints
{
    public static void MapShelf(this IEndpointRouteBuilder api)
    {
        api.MapGet("/spaces/{space:guid}/shelf", Shelf).RequireAuthorization();
        api.MapGet("/spaces/{space:guid}/pages/{page:guid}/thumbnail.svg", Thumbnail).RequireAuthorization();
    }

    private static async Task<IResult> Shelf(Guid space, HttpContext http, Gate gate, ShelfStore shelf, CancellationToken cancel) =>
        Rights.MayRead(await gate.RoleIn(space, http.User, cancel)) ? Results.Ok(await shelf.Of(space, cancel)) : Problems.NotHere();

    /// <summary>The address carries the page's last number and its paper, so that the answer may be kept for ever.</summary>
    private static async Task<IResult> Thumbnail(
        Guid space, Guid page, string? paper, HttpContext http, Gate gate, DocumentStore documents, CancellationToken cancel)
    {
        if (!await gate.MayReadIn(space, page, http.User, cancel)) return Problems.NotHere();
        var document = new PageDocument();
        foreach (var operation in (await documents.After(page, 0, cancel)).Operations) document.Apply(operation);
        http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return Results.Text(ThumbnailSvg.Write(document, Paper.ParseOrDefault(paper ?? "")), "image/svg+xml");
    }
}
