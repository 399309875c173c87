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
        var space = api.MapGroup("/spaces/{space:guid}").RequireAuthorization();
        space.MapGet("/pages/{page:guid}/export.pdf", PageAsPdf).TakesWork();
        space.MapGet("/pages/{page:guid}/export.svg", PageAsSvg).TakesWork();
        space.MapGet("/notebooks/{notebook:guid}/export.pdf", Notebook).TakesWork();
    }

    private static async Task<IResult> PageAsPdf(ReadablePage page, PrintedPages pages, ShelfStore shelf, CancellationToken cancel)
    {
        var known = await shelf.PageOrNew(page.Id, page.Space, cancel);
        return await Pdf(TitleOf(known), pages.Of(page.Space, [known], cancel), cancel);
    }

    private static async Task<IResult> PageAsSvg(ReadablePage page, PrintedPages pages, ShelfStore shelf, CancellationToken cancel)
    {
        var known = await shelf.PageOrNew(page.Id, page.Space, cancel);
        return Results.File(
            Encoding.UTF8.GetBytes(PageSvg.Write(await pages.Of(page.Space, known, cancel))),
            "image/svg+xml",
            FileName(TitleOf(known)) + ".svg"
        );
    }

    private static async Task<IResult> Notebook(
        ReadableNotebook notebook,
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
        return await Pdf(name.Length > 0 ? name : "Notebook", printed.Of(notebook.Space, pages, cancel), cancel);
    }

    private static async Task<IResult> Pdf(string title, IAsyncEnumerable<PrintedPage> pages, CancellationToken cancel) =>
        Results.File(await PdfExport.Write(title, pages, cancel), "application/pdf", FileName(title) + ".pdf");

    private static string TitleOf(ShownPage page) => page.Title.Length > 0 ? page.Title : $"Page {page.Number}";

    private static string FileName(string title) =>
        string.Concat(
            title
                .Take(80)
                .Select(c => char.IsControl(c) || char.IsSurrogate(c) || "\\/:*?\"<>|".Contains(c, StringComparison.Ordinal) ? '-' : c)
        );
}
