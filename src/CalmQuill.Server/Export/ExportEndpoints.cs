using System.Security.Claims;
using System.Text;
using CalmQuill.Documents;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Server.Pages;
using CalmQuill.Store.Library;
using CalmQuill.Store.Locks;

namespace CalmQuill.Server.Export;

/// <summary>Pages and notebooks as PDF, pages as SVG.</summary>
internal static class ExportEndpoints
{
    public static void MapExport(this IEndpointRouteBuilder api)
    {
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization().AddEndpointFilter(Fineness.Refuse);
        space.MapGet("/pages/{page:guid}/export.pdf", PageAsPdf).TakesWork();
        space.MapGet("/pages/{page:guid}/export.svg", PageAsSvg).TakesWork();
        space.MapGet("/notebooks/{notebook:guid}/export.pdf", Notebook).TakesWork();
        api.MapGet("/people/me/everything.zip", All).RequireAuthorization().TakesLong();
        var asides = api.MapGroup("/asides/{page:guid}").RequireAuthorization().AddEndpointFilter(Fineness.Refuse);
        asides.MapGet("/export.pdf", AsideAsPdf).TakesWork();
        asides.MapGet("/export.svg", AsideAsSvg).TakesWork();
    }

    private static async Task<IResult> PageAsPdf(
        ReadablePage page,
        string? aside,
        Fineness dots,
        PrintedPages pages,
        Asides asides,
        ShelfStore shelf,
        CancellationToken cancel
    )
    {
        if (!Asides.TryRead(aside, out var along))
            return NoSuchAside();
        var known = await shelf.PageOrNew(page.Id, page.Space, cancel);
        var printed = await asides.Along(along, page.Visitor, await pages.Of(page.Space, known, cancel), cancel);
        return await Pdf(TitleOf(known), One(dots.Of(printed)), cancel);
    }

    private static async Task<IResult> PageAsSvg(
        ReadablePage page,
        string? aside,
        Fineness dots,
        PrintedPages pages,
        Asides asides,
        ShelfStore shelf,
        CancellationToken cancel
    )
    {
        if (!Asides.TryRead(aside, out var along))
            return NoSuchAside();
        var known = await shelf.PageOrNew(page.Id, page.Space, cancel);
        return Svg(TitleOf(known), dots.Of(await asides.Along(along, page.Visitor, await pages.Of(page.Space, known, cancel), cancel)));
    }

    /// <summary>A person's aside alone, whatever became of the page that it lay over.</summary>
    /// <param name="page">That page.</param>
    /// <param name="paper">What it is shown on.</param>
    /// <param name="title">What the file is called.</param>
    private static async Task<IResult> AsideAsPdf(
        Guid page,
        string? paper,
        string? title,
        Fineness dots,
        ClaimsPrincipal user,
        Asides asides,
        CancellationToken cancel
    ) =>
        await asides.Alone(Visitor.Of(user), page, paper, title, cancel) is { } printed
            ? await Pdf(printed.Called, One(dots.Of(printed)), cancel)
            : Problems.NotHere();

    /// <inheritdoc cref="AsideAsPdf"/>
    private static async Task<IResult> AsideAsSvg(
        Guid page,
        string? paper,
        string? title,
        Fineness dots,
        ClaimsPrincipal user,
        Asides asides,
        CancellationToken cancel
    ) =>
        await asides.Alone(Visitor.Of(user), page, paper, title, cancel) is { } printed
            ? Svg(printed.Called, dots.Of(printed))
            : Problems.NotHere();

    /// <summary>All that a person may take with them, as one archive that is made while it is fetched.</summary>
    /// <param name="groups">Also the notebooks of the groups that they are in.</param>
    private static async Task All(bool? groups, HttpContext http, Everything everything, TimeProvider clock)
    {
        http.Response.ContentType = "application/zip";
        http.Response.Headers.ContentDisposition = $"attachment; filename=\"Calm Quill {clock.GetUtcNow():yyyy-MM-dd}.zip\"";
        await everything.Write(http.Response.Body, Visitor.Of(http.User), groups is true, http.RequestAborted);
    }

    private static IResult NoSuchAside() =>
        Problems.Of(StatusCodes.Status400BadRequest, "bad-input", $"An aside goes along with its page or stands alone.");

    private static IResult Svg(string title, PrintedPage printed) =>
        Results.File(Encoding.UTF8.GetBytes(PageSvg.Write(printed)), "image/svg+xml", FileName(title) + ".svg");

    private static IAsyncEnumerable<PrintedPage> One(PrintedPage page) => new[] { page }.ToAsyncEnumerable();

    private static async Task<IResult> Notebook(
        ReadableNotebook notebook,
        Fineness dots,
        PrintedPages printed,
        ShelfStore shelf,
        LockStore locks,
        CancellationToken cancel
    )
    {
        if (await shelf.NotebookName(notebook.Id, notebook.Space, cancel) is not { } name)
            return Problems.NotHere();
        var pages = await shelf.Pages(notebook.Id, notebook.Space, notebook.IsGuest, cancel);
        // A page that is at home in a locked notebook does not come out by being named in another.
        var shut = await locks.ShutPages(notebook.Space, [.. pages.Select(page => page.Id)], notebook.Visitor.Session, cancel);
        pages.RemoveAll(page => shut.Contains(page.Id));
        if (pages.Count == 0)
            return Problems.Of(StatusCodes.Status409Conflict, "empty", $"This notebook has no pages to export yet.");
        return await Pdf(name.Length > 0 ? name : "Notebook", printed.Of(notebook.Space, pages, cancel).Select(dots.Of), cancel);
    }

    private static async Task<IResult> Pdf(string title, IAsyncEnumerable<PrintedPage> pages, CancellationToken cancel) =>
        Results.File(await PdfExport.Write(title, pages, cancel), "application/pdf", FileName(title) + ".pdf");

    private static string TitleOf(ShownPage page) => page.Title.Length > 0 ? page.Title : $"Page {page.Number}";

    /// <summary>A title as systems take it for a file’s name, without its ending.</summary>
    internal static string FileName(string title) =>
        string.Concat(
            title
                .Take(80)
                .Select(c => char.IsControl(c) || char.IsSurrogate(c) || "\\/:*?\"<>|".Contains(c, StringComparison.Ordinal) ? '-' : c)
        );
}
