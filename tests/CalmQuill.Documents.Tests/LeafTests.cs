using System.Globalization;
using System.Text;
using System.Xml.Linq;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Bringing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Testing;
using CsCheck;
using static CalmQuill.Testing.Poppler;

namespace CalmQuill.Documents.Tests;

/// <summary>Pages of other PDF files that lie on ours: of a file as Skia makes it, and of files that were written by hand to say what few makers say; read by poppler and qpdf.</summary>
public sealed class LeafTests : OnPaper
{
    private const double Point = 2540.0 / 72;

    [Fact]
    public async Task Slides_of_another_maker_keep_words_fonts_vectors_and_links_under_the_ink()
    {
        var slides = SlideFile.Write();
        var pages = Pages(slides, Laying.Whole, 3).ToList();
        Write(pages[0].Page, Generate.Wave(4_000));
        var file = await Save(pages);
        Run("qpdf", "--check", file);

        Assert.Contains("720 x 540", Run("pdfinfo", file), StringComparison.Ordinal);
        foreach (var (word, number) in new[] { ("Anchor escapement", "1"), ("Two pallets", "2"), ("Recoil", "3") })
            Assert.Contains(word, Run("pdftotext", "-f", number, "-l", number, file, "-"), StringComparison.Ordinal);
        // Its fonts came along, and nothing became a picture.
        Assert.Equal(Fonts(Path.Combine(Folder, "in.pdf")), Fonts(file));
        Assert.Equal(2, Run("pdfimages", "-list", file).Split('\n', StringSplitOptions.RemoveEmptyEntries).Length);
        // Its links lead where they led: one to the web, one to its third page.
        Assert.Contains("https://bells.example/escapements", Run("pdfinfo", "-url", file), StringComparison.Ordinal);
        Assert.Contains("link to page 3", Run("pdftohtml", "-xml", "-stdout", "-i", file), StringComparison.Ordinal);

        // Without the ink it looks as it did.
        var plain = await Save([.. Pages(slides, Laying.Whole, 3)]);
        for (var number = 1; number <= 3; number++)
            Assert.InRange(Differing(Path.Combine(Folder, "in.pdf"), plain, number), 0, 0.005);
        Assert.InRange(Differing(plain, await Save(pages), 1), 0.0005, 0.2);
    }

    [Theory]
    [InlineData("", 200, 100)]
    [InlineData("/Rotate 90", 100, 200)]
    [InlineData("/Rotate 180", 200, 100)]
    [InlineData("/Rotate -90", 100, 200)]
    [InlineData("/CropBox [5 5 105 85]", 100, 80)]
    [InlineData("/CropBox [5 5 105 85] /Rotate 270", 80, 100)]
    [InlineData("/CropBox [150 85 5 5] /Rotate 450", 80, 145)]
    public async Task A_page_is_laid_as_it_is_shown_however_it_is_turned_and_cut(string says, double width, double height)
    {
        var bytes = RawPdf.Of(says).Bytes();
        // On a sheet of its own size, and once more turned by hand.
        foreach (var turn in new[] { 0, 1, 2, 3 })
        {
            var asset = AssetId.Of(bytes);
            var sheet = Imposition.Of([Leaf.OfPage(asset, 1, width, height, turn)], Laying.Whole).Single();
            var file = await Save([On(sheet, bytes)]);
            var source = Path.Combine(Folder, "in.pdf");
            await File.WriteAllBytesAsync(source, turn == 0 ? bytes : RawPdf.Of(Turned(says, turn)).Bytes());
            Assert.InRange(Differing(source, file, 1), 0, 0.005);
            Assert.Contains("pallet", Run("pdftotext", file, "-"), StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task What_is_pinned_to_a_page_is_drawn_with_it_and_what_is_hidden_is_not()
    {
        var raw = RawPdf.Of("/Annots [6 0 R 8 0 R 9 0 R]");
        raw[6] = "<< /Type /Annot /Subtype /Stamp /Rect [100 10 140 50] /AP << /N 7 0 R >> >>";
        raw[7] = RawPdf.Stream(
            "/Type /XObject /Subtype /Form /BBox [0 0 10 20] /Matrix [0 1 -1 0 0 0]",
            "0 0.5 0 rg 0 0 10 5 re f 1 0 0 rg 0 5 5 15 re f"
        );
        raw[8] = "<< /Type /Annot /Subtype /Stamp /Rect [0 0 200 100] /F 2 /AP << /N 7 0 R >> >>";
        raw[9] =
            "<< /Type /Annot /Subtype /Widget /FT /Btn /T (lever) /Rect [150 10 160 20] /AS /On /AP << /N << /On 7 0 R /Off 10 0 R >> >> >>";
        raw[10] = RawPdf.Stream("/Type /XObject /Subtype /Form /BBox [0 0 10 20]", "0 0 1 rg 0 0 10 20 re f");
        var bytes = raw.Bytes();
        var file = await Save([.. Pages(bytes, Laying.Whole, 1, 200, 100)]);
        Assert.InRange(Differing(Path.Combine(Folder, "in.pdf"), file, 1), 0, 0.005);
    }

    [Fact]
    public async Task Several_to_a_sheet_are_one_file_once_and_links_between_them_lead_to_the_sheet_they_lie_on()
    {
        var slides = SlideFile.Write();
        var pages = Pages(slides, Laying.Two, 3).ToList();
        Assert.Equal(2, pages.Count);
        var file = await Save(pages);
        Run("qpdf", "--check", file);
        Assert.Contains("Two pallets", Run("pdftotext", "-l", "1", file, "-"), StringComparison.Ordinal);
        Assert.Contains("Recoil", Run("pdftotext", "-f", "2", file, "-"), StringComparison.Ordinal);
        Assert.Contains("link to page 2", Run("pdftohtml", "-xml", "-stdout", "-i", file), StringComparison.Ordinal);
        // A page shown twice is in the file once.
        var twice = new FileInfo(await Save([.. pages, .. pages])).Length;
        Assert.InRange(twice - new FileInfo(await Save(pages)).Length, 1, 12_000);
    }

    [Fact]
    public void Pictures_of_a_page_show_it_too_sharp_in_svg_and_small_in_thumbnails()
    {
        var page = Pages(SlideFile.Write(), Laying.Whole, 1).Single();
        XNamespace svg = "http://www.w3.org/2000/svg";
        var whole = XDocument.Parse(PageSvg.Write(page)).Descendants(svg + "image").Single();
        var inside = Encoding.UTF8.GetString(
            Convert.FromBase64String(((string)whole.Attribute("href")!)["data:image/svg+xml;base64,".Length..])
        );
        Assert.Contains(XDocument.Parse(inside).Descendants(svg + "path"), path => path.Attribute("d") is not null);
        var small = (string)XDocument.Parse(ThumbnailSvg.Write(page)).Descendants(svg + "image").Single().Attribute("href")!;
        Assert.StartsWith("data:image/png;base64,", small, StringComparison.Ordinal);
        Assert.InRange(small.Length, 500, 60_000);
    }

    [Fact]
    public async Task A_file_that_is_not_there_broken_or_protected_leaves_an_empty_frame_and_the_ink()
    {
        foreach (var bytes in new[] { null, "%PDF-1.7 and nothing"u8.ToArray(), RawPdf.Of("").Bytes()[..200], SlideFile.Write()[..3_000] })
        {
            var asset = AssetId.Of(bytes ?? []);
            var printed = On(Imposition.Of([Leaf.OfPage(asset, 1, 200, 100, 0)], Laying.Whole).Single(), bytes);
            Write(printed.Page, Generate.Wave(1_000));
            Run("pdfinfo", await Save([printed]));
            Assert.Contains("<polygon", PageSvg.Write(printed), StringComparison.Ordinal);
        }

        // A page that there is not.
        var beyond = Imposition.Of([Leaf.OfPage(AssetId.Of(SlideFile.Write()), 99, 200, 100, 0)], Laying.Whole).Single();
        Run("pdfinfo", await Save([On(beyond, SlideFile.Write())]));
    }

    [Fact]
    public async Task Nothing_of_the_machine_and_nothing_that_runs_comes_along()
    {
        var raw = RawPdf.Of("/AA << /O 6 0 R >> /Annots [8 0 R 9 0 R]");
        raw[1] = "<< /Type /Catalog /Pages 2 0 R /OpenAction 6 0 R /Names << /JavaScript << /Names [(a) 6 0 R] >> >> >>";
        raw[6] = "<< /S /JavaScript /JS (app.alert\\(1\\)) >>";
        raw[4] = RawPdf.Stream("/F (/etc/hostname) /FFilter /FlateDecode", RawPdf.Drawing);
        raw[8] = "<< /Type /Annot /Subtype /Link /Rect [0 0 50 50] /A << /S /Launch /F (/bin/sh) >> >>";
        raw[9] = "<< /Type /Annot /Subtype /Link /Rect [0 0 50 50] /A << /S /URI /URI (javascript:alert\\(1\\)) >> >>";
        var file = await Save([.. Pages(raw.Bytes(), Laying.Whole, 1, 200, 100)]);
        var plain = Path.Combine(Folder, "plain.pdf");
        Run("qpdf", "--qdf", "--object-streams=disable", file, plain);
        var text = Encoding.Latin1.GetString(await File.ReadAllBytesAsync(plain));
        foreach (var word in new[] { "JavaScript", "alert", "Launch", "hostname", "/bin/sh", "OpenAction" })
            Assert.DoesNotContain(word, text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_stream_that_unfolds_to_very_much_is_not_unfolded()
    {
        using var packed = new MemoryStream();
        await using (
            var deflate = new System.IO.Compression.ZLibStream(packed, System.IO.Compression.CompressionLevel.Fastest, leaveOpen: true)
        )
        {
            for (var i = 0; i < 300; i++)
                await deflate.WriteAsync(new byte[1024 * 1024]);
        }

        var raw = RawPdf.Of("");
        raw[3] = "<< /Type /Page /Parent 2 0 R /Contents [4 0 R 6 0 R] >>";
        raw[6] = RawPdf.Stream("/Filter /FlateDecode", Encoding.Latin1.GetString(packed.ToArray()));
        var file = await Save([.. Pages(raw.Bytes(), Laying.Whole, 1, 200, 100)]);
        Run("pdfinfo", file);
        Assert.InRange(new FileInfo(file).Length, 300, 20_000);
    }

    [Theory]
    [InlineData("40", "--allow-weak-crypto")]
    [InlineData("128", "--use-aes=y")]
    [InlineData("256", "--cleartext-metadata")]
    public async Task A_protected_file_is_unlocked_by_its_password_alone(string bits, string option)
    {
        var (open, locked, unlocked) = (
            Path.Combine(Folder, "open.pdf"),
            Path.Combine(Folder, "locked.pdf"),
            Path.Combine(Folder, "unlocked.pdf")
        );
        await File.WriteAllBytesAsync(open, SlideFile.Write());
        string[] further = option == "--allow-weak-crypto" ? [] : [option];
        string[] before = option == "--allow-weak-crypto" || bits == "128" ? ["--allow-weak-crypto"] : [];
        Run("qpdf", [.. before, "--encrypt", "tower", "owner", bits, .. further, "--", open, locked]);
        var bytes = await File.ReadAllBytesAsync(locked);
        Assert.Null(PdfUnlocked.Write(bytes, "shed"));
        Assert.Null(PdfUnlocked.Write(bytes, ""));
        Assert.Null(PdfUnlocked.Write(bytes[..(bytes.Length / 3)], "tower"));
        await File.WriteAllBytesAsync(unlocked, PdfUnlocked.Write(bytes, "tower")!);
        Run("qpdf", "--check", unlocked);
        Assert.Contains("Encrypted:       no", Run("pdfinfo", unlocked), StringComparison.Ordinal);
        Assert.Equal(Run("pdftotext", open, "-"), Run("pdftotext", unlocked, "-"));
        for (var number = 1; number <= 3; number++)
            Assert.InRange(Differing(open, unlocked, number), 0, 0.0001);

        // One that everybody may open is laid on pages as it is.
        Run("qpdf", [.. before, "--encrypt", "", "owner", bits, .. further, "--", open, locked]);
        var laid = await Save([.. Pages(await File.ReadAllBytesAsync(locked), Laying.Whole, 3)]);
        Assert.Contains("Recoil", Run("pdftotext", "-f", "3", laid, "-"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_tree_of_pages_that_bites_its_tail_and_one_ten_thousand_deep_end()
    {
        var ring = RawPdf.Of("");
        ring[2] = "<< /Type /Pages /Kids [3 0 R 2 0 R 6 0 R] /Count 3 /MediaBox [0 0 200 100] >>";
        ring[6] = "<< /Type /Pages /Kids [2 0 R 6 0 R] /Parent 2 0 R >>";
        Assert.Equal(1, PdfSource.Open(ring.Bytes())!.Count);

        var deep = RawPdf.Of("");
        const int Levels = 10_000;
        for (var i = 0; i < Levels; i++)
            deep[10 + i] = $"<< /Type /Pages /Kids [{(i + 1 < Levels ? 11 + i : 3)} 0 R] /Count 1 >>";
        deep[2] = "<< /Type /Pages /Kids [10 0 R] /Count 1 /MediaBox [0 0 200 100] >>";
        Assert.Equal(1, PdfSource.Open(deep.Bytes())!.Count);
        await Task.CompletedTask;
    }

    [Fact]
    public async Task Changed_anywhere_a_file_still_ends_in_a_file_that_can_be_read()
    {
        var whole = SlideFile.Write();
        var names = new List<byte[]>();
        Gen.Select(Gen.Int[8, whole.Length - 1], Gen.Byte, Gen.Int[1, 40])
            .Sample(
                (at, value, run) =>
                {
                    var changed = whole.ToArray();
                    changed.AsSpan(at, Math.Min(run, changed.Length - at)).Fill(value);
                    using var source = PdfSource.Open(changed);
                    Assert.True(source is null || source.Count < 10_000);
                    lock (names)
                    {
                        if (names.Count < 12)
                            names.Add(changed);
                    }
                },
                iter: 300
            );
        foreach (var changed in names)
            Run("pdfinfo", await Save([.. Pages(changed, Laying.Whole, 3)]));
    }

    private IEnumerable<PrintedPage> Pages(byte[] file, Laying laying, int count, double width = 720, double height = 540)
    {
        File.WriteAllBytes(Path.Combine(Folder, "in.pdf"), file);
        var asset = AssetId.Of(file);
        return Imposition
            .Of([.. Enumerable.Range(1, count).Select(number => Leaf.OfPage(asset, number, width, height, 0))], laying)
            .Select(sheet => On(sheet, file));
    }

    private PrintedPage On(LaidSheet sheet, byte[]? file)
    {
        var page = new PageDocument();
        foreach (var leaf in sheet.Leaves)
            page.Apply(Device.Make(leaf.Adding(), 1));
        return new PrintedPage(page, sheet.Paper, "")
        {
            Id = Guid.NewGuid(),
            Pictures = file is null ? [] : sheet.Leaves.Select(leaf => leaf.Leaf.Asset).Distinct().ToDictionary(asset => asset, _ => file),
        };
    }

    private void Write(PageDocument page, StrokeSamples samples) =>
        page.Apply(Device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 100, 0x22302EFF), 1, samples), 2));

    private async Task<string> Save(IReadOnlyList<PrintedPage> pages)
    {
        var file = Path.Combine(Folder, $"{Guid.NewGuid():N}.pdf");
        await File.WriteAllBytesAsync(file, await PdfExport.Write("Slides", pages.ToAsyncEnumerable(), default));
        return file;
    }

    /// <summary>The same page, turned further by its own file.</summary>
    private static string Turned(string says, int quarters)
    {
        var at = says.IndexOf("/Rotate ", StringComparison.Ordinal);
        var own = at < 0 ? 0 : int.Parse(says[(at + 8)..], CultureInfo.InvariantCulture);
        return $"{(at < 0 ? says : says[..at])} /Rotate {own + 90 * quarters}";
    }

    private static List<string> Fonts(string file) =>
        [
            .. Run("pdffonts", file)
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Skip(2)
                .Select(line => line.Split(' ')[0])
                .Order(StringComparer.Ordinal),
        ];

    /// <summary>The share of dots of a page of two files that are not of one shade, as poppler draws them.</summary>
    private double Differing(string one, string other, int number)
    {
        var (width, height, left) = Drawn(one, number);
        var (otherWidth, otherHeight, right) = Drawn(other, number);
        Assert.InRange(Math.Abs(width - otherWidth), 0, 1);
        Assert.InRange(Math.Abs(height - otherHeight), 0, 1);
        var differing = 0;
        for (var y = 0; y < Math.Min(height, otherHeight); y++)
        {
            for (var x = 0; x < Math.Min(width, otherWidth); x++)
            {
                if (Math.Abs(left[y * width + x] - right[y * otherWidth + x]) > 48)
                    differing++;
            }
        }

        return differing / (double)(width * height);
    }

    private (int Width, int Height, byte[] Dots) Drawn(string file, int number)
    {
        var to = Path.Combine(Folder, Guid.NewGuid().ToString("N"));
        var page = number.ToString(CultureInfo.InvariantCulture);
        Run("pdftoppm", "-cropbox", "-gray", "-r", "150", "-f", page, "-l", page, "-singlefile", file, to);
        return ReadPgm(to + ".pgm");
    }
}
