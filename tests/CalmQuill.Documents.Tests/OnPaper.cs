using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Documents.Letters;
using CalmQuill.Documents.Pdf;
using CalmQuill.Testing;

namespace CalmQuill.Documents.Tests;

/// <summary>A page that somebody writes on, and files made of it, in a folder that goes with the test.</summary>
public abstract class OnPaper : IDisposable
{
    private readonly DirectoryInfo folder = Directory.CreateTempSubdirectory("quill-paper");

    protected OnPaper() => HarfBuzzShaper.Install();

    protected string Folder => folder.FullName;

    protected Replica Device { get; } = new(1, Generate.People[0]);

    protected PageDocument Page { get; } = new();

    public void Dispose()
    {
        folder.Delete(recursive: true);
        GC.SuppressFinalize(this);
    }

    protected PrintedPage Printed() => new(Page, Paper.Default, "");

    /// <summary>Writes the page as a PDF; where that lies.</summary>
    protected async Task<string> Pdf()
    {
        var file = Path.Combine(Folder, "out.pdf");
        await File.WriteAllBytesAsync(file, await PdfExport.Write("Page", new[] { Printed() }.ToAsyncEnumerable(), default));
        return file;
    }
}
