using CalmQuill.Core.Access;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Server.Pages;
using CalmQuill.Server.People;
using CalmQuill.Store.Library;
using CalmQuill.Store.Sharing;

namespace CalmQuill.Server.Sharing;

/// <summary>The receiving side of sharing: what was shared with somebody, coming by a link, and pages that everybody may see.</summary>
internal static class SharingEndpoints
{
    private const int MostPeople = 100;

    internal sealed record Link(string? Secret, string? Passphrase, string? Ticket, Guid? Page);

    public static void MapSharing(this IEndpointRouteBuilder api)
    {
        api.MapGet("/spaces/{space:guid}/notebooks/{notebook:guid}/people", Names).RequireAuthorization();
        var shared = api.MapGroup("/shared").RequireAuthorization();
        shared.MapGet("/", Shared);
        shared.MapDelete("/{share:guid}", LetGo);
        api.MapPost("/sharing/look", Look);
        api.MapPost("/sharing/come", Come).RequireAuthorization();
        api.MapPost("/sharing/page", Page).TakesWork();
        api.MapPost("/sharing/copy", Copy).TakesWork();
    }

    /// <summary>What was shared with the one who asks, library by library, each with the part of the library that they see as operations (see <see cref="GuestView"/>).</summary>
    private static async Task<IResult> Shared(HttpContext http, GuestStore guests, CancellationToken cancel) =>
        Results.Ok(
            (await guests.SharedWith(http.User.Id(), cancel)).Select(one => new
            {
                one.Space,
                one.Group,
                touch = one.Touch.ToString().ToLowerInvariant(),
                library = Convert.ToBase64String(
                    OperationCodec.Encode(GuestView.Operations(one.Nodes, BitConverter.ToUInt64(one.Space.ToByteArray())))
                ),
                things = one.Things.Select(thing => new
                {
                    thing.Share,
                    thing.Node,
                    thing.By,
                    with = Word(thing.With),
                    thing.Through,
                    thing.Writes,
                    until = thing.Until?.ToUnixTimeMilliseconds(),
                }),
                notebooks = one.Notebooks.Select(notebook => new
                {
                    notebook.Id,
                    role = notebook.Role.ToString().ToLowerInvariant(),
                    notebook.PageCount,
                    notebook.WrittenAt,
                }),
                one.People,
            })
        );

    /// <summary>What some people are called whom the one who asks met on a notebook's pages. Of nobody else anything is told: who asks has to know the ids.</summary>
    private static async Task<IResult> Names(ReadableNotebook notebook, string? of, GuestStore guests, CancellationToken cancel)
    {
        var ids = (of ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries);
        if (ids.Length > MostPeople || !ids.All(id => Guid.TryParse(id, out _)))
            return Problems.BadInput($"At most {MostPeople} people are asked for at once, by their ids.");
        return Results.Ok(await guests.Among(notebook.Space, [.. ids.Select(Guid.Parse)], cancel));
    }

    private static async Task<IResult> LetGo(Guid share, HttpContext http, ShareStore shares, CancellationToken cancel) =>
        await shares.LetGo(share, http.User.Id(), cancel) ? Results.NoContent() : Problems.NotHere();

    /// <summary>What a link or an address leads to, for whoever holds it, also signed out.</summary>
    private static async Task<IResult> Look(Link link, HttpContext http, SharedLinks links, ShelfStore shelf, CancellationToken cancel)
    {
        var (found, denied) = await links.Enter(link.Secret, link.Passphrase, link.Ticket, http, cancel);
        if (found is null)
            return denied!;
        return Results.Ok(
            new
            {
                found.Name,
                found.By,
                found.IsFolder,
                found.Writes,
                found.Copies,
                with = Word(found.With),
                ticket = links.TicketTo(found),
                pages = found.With is ShareWith.Everybody
                    ? (await PagesOf(found, shelf, cancel)).Select(page => new
                    {
                        page.Id,
                        page.Number,
                        page.Title,
                    })
                    : null,
            }
        );
    }

    private static async Task<IResult> Come(Link link, HttpContext http, SharedLinks links, CancellationToken cancel)
    {
        var (found, denied) = await links.Enter(link.Secret, link.Passphrase, link.Ticket, http, cancel);
        if (found is null)
            return denied!;
        return found.With is ShareWith.Link && await links.Come(link.Secret!, http.User.Id(), cancel)
            ? Results.Ok(
                new
                {
                    found.Space,
                    found.Node,
                    found.IsFolder,
                }
            )
            : SharedLinks.Nothing();
    }

    /// <summary>One page as everybody sees it.</summary>
    private static async Task<IResult> Page(
        Link link,
        HttpContext http,
        SharedLinks links,
        ShelfStore shelf,
        PrintedPages printed,
        CancellationToken cancel
    )
    {
        var (found, denied) = await links.Enter(link.Secret, link.Passphrase, link.Ticket, http, cancel);
        if (found is null)
            return denied!;
        http.Response.Headers.CacheControl = "no-store";
        return (await PagesOf(found, shelf, cancel)).Find(page => page.Id == link.Page) is { } page
            ? Results.Text(PageSvg.Write(await printed.Of(found.Space, page, cancel)), "image/svg+xml")
            : Problems.NotHere();
    }

    private static async Task<IResult> Copy(
        Link link,
        HttpContext http,
        SharedLinks links,
        ShelfStore shelf,
        PrintedPages printed,
        CancellationToken cancel
    )
    {
        var (found, denied) = await links.Enter(link.Secret, link.Passphrase, link.Ticket, http, cancel);
        if (found is null)
            return denied!;
        var pages = found.Copies ? await PagesOf(found, shelf, cancel) : [];
        return pages.Count > 0
            ? Results.File(await PdfExport.Write(found.Name, printed.Of(found.Space, pages, cancel), cancel), "application/pdf")
            : Problems.NotHere();
    }

    private static async Task<List<ShownPage>> PagesOf(FoundShare found, ShelfStore shelf, CancellationToken cancel) =>
        found is { With: ShareWith.Everybody, IsFolder: false }
            ? [.. (await shelf.Pages(found.Node, found.Space, true, cancel)).Where(page => found.Page is null || page.Id == found.Page)]
            : [];

    public static string Word(ShareWith with) => with.ToString().ToLowerInvariant();
}
