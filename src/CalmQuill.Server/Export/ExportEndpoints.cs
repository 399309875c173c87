using System.Text;
using CalmQuill.Core.Operations;
using CalmQuill.Documents;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Pages;
using CalmQuill.Store.Library;

namespace CalmQuill.Server.Export;

/// <summary>Pages and notebooks as PDF, pages as SVG.</summary>
internal static class ExportEndpoints
{
    public static void MapExport(this IEndpointRouteBuilder api)
    {
        api.MapGet("/spaces/{space:guid}/pages/{page:guid}/export.pdf", (Guid space, Guid page, HttpContext http, Gate gate, PrintedPages pages, ShelfStore shelf, CancellationToken cancel) =>
            Page(space, page, http, gate, shelf, (title, known) => Pdf(title, pages.Of(space, [known], cancel), cancel), cancel)).RequireAuthorization();
        api.MapGet("/spaces/{space:guid}/pages/{page:guid}/export.svg", (Guid space, Guid page, HttpContext http, Gate gate, PrintedPages pages, ShelfStore shelf, CancellationToken cancel) =>
            Page(space, page, http, gate, shelf, (title, known) => Svg(title, pages.Of(space, [known], cancel), cancel), cancel)).RequireAuthorization();
        api.MapGet("/notebooks/{notebook:guid}/export.pdf", Notebook).RequireAuthorization();
    }

    private static async Task<IResult> Page(Guid space, Guid page, HttpContext http, Gate gate, ShelfStore shelf, Func<string, ShownPage, Task<IResult>> write, CancellationToken cancel)
    {
        if (!await gate.MayReadIn(space, page, http.User, cancel)) return Problems.NotHere();
        if (await gate.IsShut(page, http.User, cancel)) return Problems.Locked();
        var known = await shelf.Page(page, space, cancel) ?? new ShownPage(Guid.Empty, page, 1, "", "", 0, null);
        return await write(known.Title.Length > 0 ? known.Title : $"Page {known.Number}", known);
    }

    private static async Task<IResult> Notebook(Guid notebook, HttpContext http, Gate gate, PrintedPages printed, ShelfStore shelf, CancellationToken cancel)
    {
        if (await gate.Readable(notebook, http.User, cancel) is not { Kind: DocumentKind.Notebook } found) return Problems.NotHere();
        if (await gate.IsShut(notebook, http.User, cancel)) return Problems.Locked();
        var pages = await shelf.Pages(notebook, found.Space, cancel);
        if (pages.Count == 0) return Problems.Of(StatusCodes.Status409Conflict, "empty", "This notebook has no pages to export yet.");
        var name = await shelf.NotebookName(notebook, found.Space, cancel);
        return await Pdf(name.Length > 0 ? name : "Notebook", printed.Of(found.Space, pages, cancel), cancel);
    }

    private static async Task<IResult> Pdf(string title, IAsyncEnumerable<PrintedPage> pages, CancellationToken cancel) =>
        Results.File(await PdfExport.Write(title, pages, cancel), "application/pdf", FileName(title) + ".pdf");

    private static async Task<IResult> Svg(string title, IAsyncEnumerable<PrintedPage> pages, CancellationToken cancel)
    {
        await foreach (var page in pages.WithCancellation(cancel)) return Results.File(Encoding.UTF8.GetBytes(PageSvg.Write(page)), "image/svg+xml", FileName(title) + ".svg");
        return Problems.NotHere();
    }

    private static string FileName(string title) =>
        string.Concat(title.Take(80).Select(c => char.IsControl(c) || "\\/:*?\"<>|".Contains(c, StringComparison.Ordinal) ? '-' : c));
}
