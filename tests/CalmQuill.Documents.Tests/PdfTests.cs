using System.Diagnostics;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Testing;

namespace CalmQuill.Documents.Tests;

/// <summary>What is exported, read back by an independent reader: poppler's pdfinfo, pdftocairo and pdftoppm.</summary>
public sealed partial class PdfTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("quill-pdf").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    [Fact]
    public async Task A_notebook_has_its_title_its_pages_and_their_true_size()
    {
        var file = await Write("Anchor and “deadbeat”, ü", [Sheet("First"), Sheet("Second"), Sheet("")]);
        var info = Run("pdfinfo", file);
        Assert.Matches("Title: +Anchor and “deadbeat”, ü", info);
        Assert.Matches("Pages: +3", info);
        // ISO 216: A4 is 210 × 297 mm, 595.276 × 841.890 pt.
        var size = PageSize().Match(info);
        Assert.Equal(595.276, double.Parse(size.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture), 0.1);
        Assert.Equal(841.890, double.Parse(size.Groups[2].Value, System.Globalization.CultureInfo.InvariantCulture), 0.1);
    }

    [Fact]
    public async Task Ink_and_ruling_stay_vectors_and_stand_where_they_were_written()
    {
        var file = await Write("Page", [Sheet("")]);
        Assert.DoesNotContain("image", Run("pdfimages", "-list", file).Split('\n').Skip(2).FirstOrDefault() ?? "", StringComparison.Ordinal);
        // One pixel a millimetre: the stroke lies from 30 mm to 128 mm across at about 50 mm down.
        Run("pdftoppm", "-r", "25.4", "-gray", file, Path.Combine(folder, "page"));
        var (width, height, pixels) = ReadPgm(Directory.GetFiles(folder, "page*.pgm").Single());
        Assert.Equal((210, 297), (width, height));
        byte Darkest(int fromX, int toX, int fromY, int toY) =>
            Enumerable.Range(fromY, toY - fromY).SelectMany(y => Enumerable.Range(fromX, toX - fromX).Select(x => pixels[y * width + x])).Min();
        Assert.InRange(Darkest(40, 120, 45, 56), 0, 140);
        Assert.InRange(Darkest(140, 200, 45, 52), 180, 255);
    }

    [Fact]
    public async Task Half_clear_ink_keeps_its_alpha()
    {
        var file = await Write("Page", [Sheet("", new Pen(PenKind.Ball, 400, 0x00000040))]);
        Run("pdftoppm", "-r", "25.4", "-gray", file, Path.Combine(folder, "page"));
        var (width, _, pixels) = ReadPgm(Directory.GetFiles(folder, "page*.pgm").Single());
        Assert.InRange(Enumerable.Range(40, 80).Min(x => Enumerable.Range(45, 11).Min(y => pixels[y * width + x])), 140, 215);
    }

    [Fact]
    public void A_thumbnail_is_well_formed_svg_with_ink_in_its_colour()
    {
        var svg = XDocument.Parse(ThumbnailSvg.Write(Sheet("")));
        Assert.Equal("0 0 21000 29700", (string?)svg.Root!.Attribute("viewBox"));
        Assert.Contains(svg.Descendants(), element => (string?)element.Attribute("stroke") == "#22302E" && ((string?)element.Attribute("d"))!.Length > 20);
    }

    private static PrintedPage Sheet(string title, Pen? pen = null)
    {
        var page = new PageDocument();
        var device = new Replica(1, Generate.People[0]);
        page.Apply(device.Make(new Change.StrokeAdded(pen ?? new Pen(PenKind.Ball, 150, 0x22302EFF), 0, Generate.Wave(246)), 1));
        return new PrintedPage(page, Paper.Default, title);
    }

    private async Task<string> Write(string title, PrintedPage[] sheets)
    {
        var file = Path.Combine(folder, "out.pdf");
        await File.WriteAllBytesAsync(file, await PdfExport.Write(title, sheets.ToAsyncEnumerable(), CancellationToken.None));
        return file;
    }

    private static string Run(string program, params string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        var said = process.StandardOutput.ReadToEnd();
        var complained = process.StandardError.ReadToEnd();
        process.WaitForExit();
        Assert.True(process.ExitCode == 0 && complained.Length == 0, $"{program}: {complained}");
        return said;
    }

    private static (int Width, int Height, byte[] Pixels) ReadPgm(string file)
    {
        var bytes = File.ReadAllBytes(file);
        var head = PgmHead().Match(System.Text.Encoding.Latin1.GetString(bytes, 0, 40));
        return (int.Parse(head.Groups[1].Value), int.Parse(head.Groups[2].Value), bytes[head.Length..]);
    }

    [GeneratedRegex(@"Page size: +([\d.]+) x ([\d.]+) pts")]
    private static partial Regex PageSize();

    [GeneratedRegex(@"^P5\s(\d+)\s(\d+)\s255\s")]
    private static partial Regex PgmHead();
}
