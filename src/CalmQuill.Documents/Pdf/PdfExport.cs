using System.Globalization;
using System.Text;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Links;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Seen;
using CalmQuill.Core.Spots;

namespace CalmQuill.Documents.Pdf;

/// <summary>Pages as a PDF document: true size, ink and ruling as vectors, sections, pages and headings as bookmarks.</summary>
public static class PdfExport
{
    private const double PointsPerUnit = 72.0 / 2540.0;

    private const string PictureName = "Under";

    /// <summary>The most sheets of one file; a notebook of 2,000 pages fits.</summary>
    public const int MostSheets = 3_000;

    /// <summary>Up to so many sheets of one page are printed also where they are empty, as they lie.</summary>
    private const int MostWithEmpty = 200;

    /// <summary>The most bytes of one file before it is put together.</summary>
    public const long MostBytes = 400_000_000;

    /// <param name="title">The document's title.</param>
    /// <param name="printed">The pages, in order; at least one.</param>
    /// <param name="cancel">Gives up between sheets.</param>
    /// <exception cref="PrintBudgetException">It comes to more than one file may hold.</exception>
    public static async Task<byte[]> Write(string title, IAsyncEnumerable<PrintedPage> printed, CancellationToken cancel)
    {
        var file = new PdfFile();
        var tree = file.Reserve();
        var sheets = new List<Sheet>();
        var bookmarks = new PdfBookmarks();
        var masks = new Dictionary<int, int>();
        var fonts = new PdfFonts(file);
        using var pictures = new PdfPictures(file);
        await foreach (var page in printed.WithCancellation(cancel))
        {
            var first = sheets.Count;
            foreach (var (part, frame) in Parts(page))
            {
                cancel.ThrowIfCancellationRequested();
                if (sheets.Count == MostSheets)
                    throw new PrintBudgetException($"This comes to more than {MostSheets} sheets. Export fewer pages at once.");
                if (file.Length > MostBytes)
                    throw new PrintBudgetException($"This is too much for one file. Export fewer pages at once.");
                sheets.Add(AddContent(file, masks, fonts, pictures, page, part, frame));
            }

            bookmarks.Add(page, [.. sheets[first..].Select(sheet => (sheet.Number, sheet.Part, sheet.Frame.Bottom))], PointsPerUnit);
        }

        fonts.Put();
        // Links come last, since they name pages that come later.
        var firstOf = sheets
            .Where(sheet => sheet.Page != Guid.Empty)
            .DistinctBy(sheet => sheet.Page)
            .ToDictionary(sheet => sheet.Page, sheet => sheet.Number);
        // A page of another file is where it is first shown.
        var firstOfLeaf = sheets
            .SelectMany(sheet => sheet.Leaves.Select(leaf => (leaf, sheet.Number)))
            .DistinctBy(one => one.leaf)
            .ToDictionary(one => one.leaf, one => one.Number);
        foreach (var sheet in sheets)
            PutPage(
                file,
                tree,
                sheet,
                target => target.Leaf is { } leaf ? firstOfLeaf.GetValueOrDefault(leaf) : firstOf.GetValueOrDefault(target.Page)
            );
        file.Put(
            tree,
            $"<< /Type /Pages /Count {sheets.Count} /Kids [{string.Join(' ', sheets.Select(sheet => $"{sheet.Number} 0 R"))}] >>"
        );
        var outlines = bookmarks.Any ? $" /Outlines {bookmarks.Write(file)} 0 R /PageMode /UseOutlines" : "";
        var catalogue = file.Add($"<< /Type /Catalog /Pages {tree} 0 R{outlines} /ViewerPreferences << /DisplayDocTitle true >> >>");
        var info = file.Add($"<< /Title {PdfFile.Text(title)} /Creator (Calm Quill) /Producer (Calm Quill) >>");
        return file.Finish(catalogue, info);
    }

    /// <summary>A sheet of the file whose content is written.</summary>
    private sealed record Sheet(
        Guid Page,
        int Number,
        Box Part,
        Box Frame,
        int Content,
        string Resources,
        IReadOnlyList<Target> Links,
        IReadOnlyList<(Guid Asset, int Leaf)> Leaves
    );

    /// <summary>Where a place of a sheet leads: to an address, to a page, or to where a page of another file is shown.</summary>
    private sealed record Target(Box Area, string? Address, Guid Page)
    {
        public (Guid Asset, int Leaf)? Leaf { get; init; }
    }

    /// <summary>
    /// A page that has grown is cut into sheets of its own size; any other is one. Every sheet is as large as the paper that was chosen, also where
    /// the next one goes on before its end, so that no stroke is split; the rest of it stays without ink.
    /// </summary>
    private static IEnumerable<(Box Part, Box Frame)> Parts(PrintedPage page)
    {
        var whole = page.Sheet;
        if (page.Paper.Growth == Growth.None)
        {
            yield return (whole, whole);
            yield break;
        }

        (Box, Box) Cut(int left, int top, int right, int bottom) =>
            (new Box(left, top, right, bottom), new Box(left, top, left + page.Paper.Width, top + page.Paper.Height));

        var ink = page.Written.Where(item => item.Shown).Select(item => item.Bounds).ToList();
        var across = SheetCuts.Of(whole.Left, whole.Right, page.Paper.Width, ink.Select(box => (box.Left, box.Right)));
        var down = SheetCuts.Of(whole.Top, whole.Bottom, page.Paper.Height, ink.Select(box => (box.Top, box.Bottom)));
        if ((long)(across.Count - 1) * (down.Count - 1) <= MostWithEmpty)
        {
            for (var y = 0; y + 1 < down.Count; y++)
            {
                for (var x = 0; x + 1 < across.Count; x++)
                    yield return Cut(across[x], down[y], across[x + 1], down[y + 1]);
            }

            yield break;
        }

        // Between two notes that lie far apart there may be very many sheets; those that nothing lies on are left out.
        var written = new SortedSet<(int Row, int Column)>();
        foreach (var box in ink)
        {
            var (top, bottom, left, right) = (Cell(down, box.Top), Cell(down, box.Bottom), Cell(across, box.Left), Cell(across, box.Right));
            for (var row = top; row <= bottom && written.Count <= MostSheets; row++)
            {
                for (var column = left; column <= right && written.Count <= MostSheets; column++)
                    written.Add((row, column));
            }
        }

        if (written.Count == 0)
            written.Add((0, 0));
        foreach (var (row, column) in written)
            yield return Cut(across[column], down[row], across[column + 1], down[row + 1]);
    }

    /// <summary>Between which two cuts a place lies.</summary>
    private static int Cell(List<int> cuts, int at)
    {
        var found = cuts.BinarySearch(at);
        return Math.Clamp(found >= 0 ? found : ~found - 1, 0, cuts.Count - 2);
    }

    private static Sheet AddContent(
        PdfFile file,
        Dictionary<int, int> masks,
        PdfFonts fonts,
        PdfPictures pictures,
        PrintedPage page,
        Box part,
        Box frame
    )
    {
        var content = new PdfPageContent(fonts, pictures);
        var stream = file.AddStream(content.Write(page, part, frame, PictureName));
        var states = new StringBuilder();
        foreach (var alpha in content.Alphas)
            states.Append(CultureInfo.InvariantCulture, $"/{PdfPageContent.AlphaName(alpha)} << /ca {alpha / 255.0:0.####} >> ");
        var grains =
            content.Grains.Count == 0
                ? ""
                : $" /ColorSpace << /Grain [/Pattern /DeviceRGB] >> /Pattern << {string.Join(' ', content.Grains.Select(grain => $"/{grain.Value} {grain.Key.AddTo(file, masks)} 0 R"))} >>";
        var shown = content.Pictures.Select(number => $"/{PdfPageContent.PictureName(number)} {number} 0 R");
        if (page.Under is Background.Picture under)
            shown = shown.Prepend($"/{PictureName} {file.AddPicture(under)} 0 R");
        var picture = string.Join(' ', shown) is { Length: > 0 } named ? $" /XObject << {named} >>" : "";
        var letters =
            content.Fonts.Count == 0
                ? ""
                : $" /Font << {string.Join(' ', content.Fonts.Select(font => $"/{font.Name} {font.Number} 0 R"))} >>";
        var links = new List<Target>();
        foreach (var link in page.Draw().Links)
            links.Add(new Target(link.Area, null, link.Page));
        var leaves = new List<(Guid, int)>();
        foreach (var (leaf, place) in Leaves(page, part))
        {
            leaves.Add((leaf.Asset, leaf.Leaf));
            foreach (var link in pictures.Leaves.LinksOf(page, leaf))
            {
                var (left, top, right, bottom) = link.Area;
                var corners = new[] { (left, top), (right, top), (right, bottom), (left, bottom) };
                var area = Box.Around(corners.Select(at => place.Of(at.Item1 * leaf.Width, at.Item2 * leaf.Height)));
                links.Add(new Target(area, link.Address, Guid.Empty) { Leaf = link.Page > 0 ? (leaf.Asset, link.Page) : null });
            }
        }

        foreach (var spot in page.Page.Spots().Where(spot => spot.Kind == SpotKind.Link))
        {
            if (LinkTarget.Read(spot[SpotField.Target]) is { } target)
                links.Add(new Target(spot.Area, target.Kind == "web" ? target.Address : null, target.Page));
        }

        foreach (var seen in PageSeen.On(page.Page, TimeSpan.Zero))
        {
            var target = seen.Part.Kind switch
            {
                SeenKind.Link => LinkTarget.Read(seen.Part.Value),
                SeenKind.Mail => new LinkTarget
                {
                    Kind = "web",
                    Address = $"mailto:{Uri.EscapeDataString(seen.Part.Value).Replace("%40", "@", StringComparison.Ordinal)}",
                },
                _ => null,
            };
            if (target is not null)
                links.AddRange(
                    seen.Corners.Select(line => new Target(Box.Around(line), target.Kind == "web" ? target.Address : null, target.Page))
                );
        }

        return new Sheet(
            page.Id,
            file.Reserve(),
            part,
            frame,
            stream,
            $"<< /ExtGState << {states}>>{picture}{grains}{letters} >>",
            [.. links.Where(link => link.Area.Meets(part))],
            leaves
        );
    }

    /// <summary>The pages of other files that a part of a page shows, and where they lie.</summary>
    private static IEnumerable<(PictureLook Leaf, Affine Place)> Leaves(PrintedPage page, Box part) =>
        page
            .Written.Where(item => item is { Shown: true, Content: PictureContent { Leaf: > 0 } } && item.Bounds.Overlaps(part))
            .Select(item => (PictureContent)item.Content)
            .Select(content => (content.Shown, content.OwnPlace(true)));

    private static void PutPage(PdfFile file, int tree, Sheet sheet, Func<Target, int> numberOf)
    {
        var annotations = new List<int>();
        foreach (var link in sheet.Links)
        {
            var (area, address, _) = link;
            var action =
                address is not null ? $"/A << /S /URI /URI {PdfFile.Bytes(address)} >>"
                : numberOf(link) is > 0 and var number ? $"/Dest [{number} 0 R /Fit]"
                : null;
            if (action is null)
                continue;
            annotations.Add(
                file.Add(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"<< /Type /Annot /Subtype /Link /Border [0 0 0] /Rect [{Points(area.Left - sheet.Frame.Left)} {Points(sheet.Frame.Bottom - area.Bottom)} {Points(area.Right - sheet.Frame.Left)} {Points(sheet.Frame.Bottom - area.Top)}] {action} >>"
                    )
                )
            );
        }

        var links = annotations.Count > 0 ? $" /Annots [{string.Join(' ', annotations.Select(one => $"{one} 0 R"))}]" : "";
        file.Put(
            sheet.Number,
            string.Create(
                CultureInfo.InvariantCulture,
                $"<< /Type /Page /Parent {tree} 0 R /MediaBox [0 0 {Points(sheet.Frame.Right - sheet.Frame.Left)} {Points(sheet.Frame.Bottom - sheet.Frame.Top)}] /Contents {sheet.Content} 0 R /Resources {sheet.Resources}{links} >>"
            )
        );
    }

    /// <summary>Rounded down, so that a reader that counts begun pixels does not count one more.</summary>
    private static double Points(int units) => Math.Floor(units * PointsPerUnit * 1000) / 1000;
}
