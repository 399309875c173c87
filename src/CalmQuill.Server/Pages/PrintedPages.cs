using CalmQuill.Core.Assets;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Documents;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Library;

namespace CalmQuill.Server.Pages;

/// <summary>Puts together all that a page shows: ink, paper, a planner's dates, and what lies under it.</summary>
public sealed class PrintedPages(DocumentStore documents, AssetStore assets)
{
    /// <param name="space">The space the page is in.</param>
    /// <param name="page">The page as its notebook knows it.</param>
    /// <param name="cancel">Gives up.</param>
    public Task<PrintedPage> Of(Guid space, ShownPage page, CancellationToken cancel) => Of(space, page, long.MaxValue, cancel);

    /// <param name="space">The space the page is in.</param>
    /// <param name="page">The page as its notebook knows it.</param>
    /// <param name="until">What was written later is left out, UTC milliseconds since 1970.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task<PrintedPage> Of(Guid space, ShownPage page, long until, CancellationToken cancel)
    {
        var paper = Paper.ParseOrDefault(page.Paper);
        return new PrintedPage(await documents.Page(space, page.Id, until, cancel), paper, page.Title)
        {
            Id = page.Id,
            Number = page.Number,
            Cancel = cancel,
            PlannerPrint =
                page.Planner.Length > 0
                    ? (await documents.Notebook(space, page.Notebook, cancel)).PlannerPrintOf(page.Notebook, page.Id)
                    : null,
            Under = paper.Own == Guid.Empty ? null : Under(await assets.OfPaper(paper.Own, space, cancel)),
        };
    }

    /// <summary>Many pages of one notebook, one after the other, with what they lie in; the notebook is read once.</summary>
    public async IAsyncEnumerable<PrintedPage> Of(
        Guid space,
        IReadOnlyList<ShownPage> pages,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        var notebook =
            pages.Count > 0 && pages[0].Notebook != Guid.Empty ? await documents.Notebook(space, pages[0].Notebook, cancel) : null;
        var outline = (notebook?.Outline() ?? []).ToDictionary(entry => entry.Id);
        var backgrounds = new Dictionary<Guid, Background?>();
        foreach (var page in pages)
        {
            var paper = Paper.ParseOrDefault(page.Paper);
            if (paper.Own != Guid.Empty && !backgrounds.ContainsKey(paper.Own))
                backgrounds[paper.Own] = Under(await assets.OfPaper(paper.Own, space, cancel));
            yield return new PrintedPage(await documents.Page(space, page.Id, cancel), paper, page.Title)
            {
                Id = page.Id,
                Number = page.Number,
                Above = Above(outline, page.Id),
                Cancel = cancel,
                PlannerPrint = notebook?.PlannerPrintOf(page.Notebook, page.Id),
                Under = paper.Own == Guid.Empty ? null : backgrounds[paper.Own],
            };
        }
    }

    private static List<(Guid, string)> Above(Dictionary<Guid, NotebookEntry> outline, Guid page)
    {
        var above = new List<(Guid, string)>();
        for (
            var at = outline.GetValueOrDefault(page)?.Parent ?? Guid.Empty;
            above.Count < NotebookDocument.MostDepth && outline.TryGetValue(at, out var entry);
            at = entry.Parent
        )
            above.Insert(0, (entry.Id, entry.Title));
        return above;
    }

    private static Background? Under(Asset? asset)
    {
        if (asset is null)
            return null;
        if (asset.Type == FileType.Jpeg)
            return new Background.Picture(asset.Bytes, asset.Type, asset.Width, asset.Height);
        return FrozenPage.Read(asset.Bytes) is { } frozen ? new Background.Frozen(frozen.Page, frozen.Paper) : null;
    }
}
