using CalmQuill.Core.Assets;
using CalmQuill.Core.Items;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Documents;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Library;

namespace CalmQuill.Server.Pages;

/// <summary>Puts together all that a page shows: ink, paper, a planner's dates, and what lies under it.</summary>
public sealed class PrintedPages(DocumentStore documents, AssetStore assets, RecentFiles recent)
{
    /// <summary>The most bytes of pictures that one page is put together with.</summary>
    private const long MostPictures = 300_000_000;

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
        var under = paper.Own == Guid.Empty ? null : Under(await assets.OfPaper(paper.Own, space, cancel));
        var document = await documents.Page(space, page.Id, until, cancel);
        return new PrintedPage(document, paper, page.Title)
        {
            Id = page.Id,
            Number = page.Number,
            Cancel = cancel,
            PlannerPrint =
                page.Planner.Length > 0
                    ? (await documents.Notebook(space, page.Notebook, cancel)).PlannerPrintOf(page.Notebook, page.Id)
                    : null,
            Under = under,
            Pictures = await PicturesOn(space, document, under, cancel),
        };
    }

    /// <summary>A page that was frozen to be a paper.</summary>
    public async Task<PrintedPage> Of(Guid space, FrozenPage frozen, CancellationToken cancel) =>
        new(frozen.Page, frozen.Paper, "") { Cancel = cancel, Pictures = await PicturesOn(space, frozen.Page, null, cancel) };

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
            var under = paper.Own == Guid.Empty ? null : backgrounds[paper.Own];
            var document = await documents.Page(space, page.Id, cancel);
            yield return new PrintedPage(document, paper, page.Title)
            {
                Id = page.Id,
                Number = page.Number,
                Above = Above(outline, page.Id),
                Cancel = cancel,
                PlannerPrint = notebook?.PlannerPrintOf(page.Notebook, page.Id),
                Under = under,
                Pictures = await PicturesOn(space, document, under, cancel),
            };
        }
    }

    /// <summary>The files of the pictures that are seen, as far as they have come and are not too much for one page.</summary>
    private async Task<Dictionary<Guid, byte[]>> PicturesOn(Guid space, PageDocument page, Background? under, CancellationToken cancel)
    {
        var shown = new Dictionary<Guid, byte[]>();
        long bytes = 0;
        foreach (var asset in PicturesOf(page).Concat(under is Background.Frozen frozen ? PicturesOf(frozen.Page) : []).Distinct())
        {
            if (bytes > MostPictures)
                break;
            if (await FileOf(space, asset, cancel) is not { } file)
                continue;
            shown[asset] = file;
            bytes += file.Length;
        }

        return shown;
    }

    /// <summary>A picture, or a PDF file whose pages are shown; null where that has not come, or is something else.</summary>
    private async Task<byte[]?> FileOf(Guid space, Guid asset, CancellationToken cancel)
    {
        if (recent.Find(space, asset) is { } kept)
            return kept;
        if (await assets.Find(asset, space, cancel) is not { } found)
            return null;
        if (found.Type == FileType.Pdf)
            recent.Keep(space, asset, found.Bytes);
        return found.Type == FileType.Pdf || FileType.IsPictureType(found.Type) ? found.Bytes : null;
    }

    private static IEnumerable<Guid> PicturesOf(PageDocument page) =>
        page.Items.Where(item => item.Shown).Select(item => item.Content).OfType<PictureContent>().Select(picture => picture.Shown.Asset);

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
