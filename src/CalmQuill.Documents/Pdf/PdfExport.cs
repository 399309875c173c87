using System.IO.Compression;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using PdfSharp.Drawing;
using PdfSharp.Pdf;

namespace CalmQuill.Documents.Pdf;

/// <summary>Pages as a PDF document: true size, ink and ruling as vectors, page titles as bookmarks.</summary>
public static class PdfExport
{
    /// <summary>One sheet of the export.</summary>
    public sealed record Sheet(PageDocument Page, Paper Paper, string Title);

    /// <param name="title">The document's title.</param>
    /// <param name="sheets">The sheets, in order; at least one.</param>
    /// <param name="cancel">Gives up between sheets.</param>
    public static async Task<byte[]> Write(string title, IAsyncEnumerable<Sheet> sheets, CancellationToken cancel)
    {
        using var document = new PdfDocument();
        document.Info.Title = title;
        document.Info.Creator = "Calm Quill";
        await foreach (var sheet in sheets.WithCancellation(cancel)) Add(document, sheet);
        using var file = new MemoryStream();
        document.Save(file);
        return file.ToArray();
    }

    private static void Add(PdfDocument document, Sheet sheet)
    {
        var page = document.AddPage();
        page.Width = XUnit.FromMillimeter(sheet.Paper.Width / 100.0);
        page.Height = XUnit.FromMillimeter(sheet.Paper.Height / 100.0);
        var content = new PdfPageContent();
        var stream = page.Contents.CreateSingleContent();
        stream.CreateStream(Deflate(content.Write(sheet.Page, sheet.Paper)));
        stream.Elements.SetName("/Filter", "/FlateDecode");
        if (content.Alphas.Count > 0) page.Resources.Elements["/ExtGState"] = GraphicsStates(document, content);
        if (sheet.Title.Length > 0) document.Outlines.Add(sheet.Title, page, true);
    }

    private static PdfDictionary GraphicsStates(PdfDocument document, PdfPageContent content)
    {
        var states = new PdfDictionary(document);
        foreach (var alpha in content.Alphas)
        {
            var state = new PdfDictionary(document);
            state.Elements.SetReal("/ca", alpha / 255.0);
            states.Elements["/" + PdfPageContent.AlphaName(alpha)] = state;
        }

        return states;
    }

    private static byte[] Deflate(byte[] content)
    {
        using var packed = new MemoryStream();
        using (var deflate = new ZLibStream(packed, CompressionLevel.Fastest)) deflate.Write(content);
        return packed.ToArray();
    }
}
