using System.Globalization;
using System.Text;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Documents.Pdf;

/// <summary>Pages as a PDF document: true size, ink and ruling as vectors, page titles as bookmarks.</summary>
public static class PdfExport
{
    private const double PointsPerUnit = 72.0 / 2540.0;

    /// <summary>One sheet of the export.</summary>
    public sealed record Sheet(PageDocument Page, Paper Paper, string Title);

    /// <param name="title">The document's title.</param>
    /// <param name="sheets">The sheets, in order; at least one.</param>
    /// <param name="cancel">Gives up between sheets.</param>
    public static async Task<byte[]> Write(string title, IAsyncEnumerable<Sheet> sheets, CancellationToken cancel)
    {
        var file = new PdfFile();
        var tree = file.Reserve();
        var pages = new List<int>();
        var titles = new List<(string Title, int Page)>();
        await foreach (var sheet in sheets.WithCancellation(cancel))
        {
            pages.Add(AddPage(file, tree, sheet));
            if (sheet.Title.Length > 0) titles.Add((sheet.Title, pages[^1]));
        }

        file.Put(tree, $"<< /Type /Pages /Count {pages.Count} /Kids [{string.Join(' ', pages.Select(page => $"{page} 0 R"))}] >>");
        var bookmarks = titles.Count > 0 ? $" /Outlines {AddBookmarks(file, titles)} 0 R /PageMode /UseOutlines" : "";
        var catalogue = file.Add($"<< /Type /Catalog /Pages {tree} 0 R{bookmarks} /ViewerPreferences << /DisplayDocTitle true >> >>");
        var info = file.Add($"<< /Title {PdfFile.Text(title)} /Creator (Calm Quill) /Producer (Calm Quill) >>");
        return file.Finish(catalogue, info);
    }

    private static int AddPage(PdfFile file, int tree, Sheet sheet)
    {
        var content = new PdfPageContent();
        var stream = file.AddStream(content.Write(sheet.Page, sheet.Paper));
        var states = new StringBuilder();
        foreach (var alpha in content.Alphas) states.Append(CultureInfo.InvariantCulture, $"/{PdfPageContent.AlphaName(alpha)} << /ca {alpha / 255.0:0.####} >> ");
        return file.Add(string.Create(
            CultureInfo.InvariantCulture,
            $"<< /Type /Page /Parent {tree} 0 R /MediaBox [0 0 {Points(sheet.Paper.Width)} {Points(sheet.Paper.Height)}] /Contents {stream} 0 R /Resources << /ExtGState << {states}>> >> >>"));
    }

    /// <summary>Rounded down, so that a reader that counts begun pixels does not count one more.</summary>
    private static double Points(int units) => Math.Floor(units * PointsPerUnit * 1000) / 1000;

    /// <summary>One level of bookmarks, each to the head of its page (§12.3.3).</summary>
    private static int AddBookmarks(PdfFile file, List<(string Title, int Page)> titles)
    {
        var root = file.Reserve();
        var numbers = titles.Select(_ => file.Reserve()).ToArray();
        for (var i = 0; i < titles.Count; i++)
        {
            var before = i > 0 ? $" /Prev {numbers[i - 1]} 0 R" : "";
            var after = i + 1 < titles.Count ? $" /Next {numbers[i + 1]} 0 R" : "";
            file.Put(numbers[i], $"<< /Title {PdfFile.Text(titles[i].Title)} /Parent {root} 0 R{before}{after} /Dest [{titles[i].Page} 0 R /Fit] >>");
        }

        file.Put(root, $"<< /Type /Outlines /First {numbers[0]} 0 R /Last {numbers[^1]} 0 R /Count {titles.Count} >>");
        return root;
    }
}
