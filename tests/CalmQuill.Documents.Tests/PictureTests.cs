using System.Diagnostics;
using System.Globalization;
using System.Xml.Linq;
using CalmQuill.Core.Art;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Shapes;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Testing;
using CsCheck;
using static CalmQuill.Testing.Poppler;

namespace CalmQuill.Documents.Tests;

/// <summary>Pictures that people lay under their pages, as poppler's writer of JPEG files makes them, and pages as pictures.</summary>
public sealed class PictureTests : IDisposable
{
    private static readonly XNamespace Svg = "http://www.w3.org/2000/svg";
    private readonly string folder = Directory.CreateTempSubdirectory("quill-picture").FullName;
    private readonly PageDocument page = new();
    private readonly Replica device = new(1, Generate.People[0]);
    private long now = 1;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    [Theory]
    [InlineData("progressive=n")]
    [InlineData("progressive=y")]
    [InlineData("optimize=y")]
    public async Task A_real_picture_is_known_by_its_size_and_taken_only_whole(string option)
    {
        var jpeg = await Jpeg(option);
        Assert.Equal((210, 297, 3), JpegFile.Read(jpeg));
        Assert.Null(JpegFile.Problem(jpeg));
        // Cut off anywhere it is not whole, and with something behind it it is something else.
        for (var length = 2; length < jpeg.Length; length += 1 + length / 60)
            Assert.Contains("not whole", JpegFile.Problem(jpeg.AsSpan(0, length))?.English, StringComparison.Ordinal);
        Assert.Contains("something else", JpegFile.Problem([.. jpeg, .. "<script>"u8])?.English, StringComparison.Ordinal);
        Assert.Contains("something else", JpegFile.Problem([.. jpeg, .. jpeg])?.English, StringComparison.Ordinal);
        // More marks before a segment are filling (T.81 §B.1.1.2).
        Assert.Equal((210, 297, 3), JpegFile.Read([0xFF, 0xD8, 0xFF, 0xFF, .. jpeg.AsSpan(2)]));
        Assert.Null(JpegFile.Problem([0xFF, 0xD8, 0xFF, 0xFF, .. jpeg.AsSpan(2)]));
        // A changed length anywhere in the head ends in words, and never beyond the file.
        Gen.Select(Gen.Int[2, Math.Min(600, jpeg.Length) - 1], Gen.Byte)
            .Sample(
                (at, value) =>
                {
                    var changed = jpeg.ToArray();
                    changed[at] = value;
                    _ = JpegFile.Problem(changed);
                    Assert.True(JpegFile.Read(changed) is null or { Width: > 0, Height: > 0 });
                },
                iter: 2_000
            );
    }

    [Theory]
    [InlineData(new byte[] { })]
    [InlineData(new byte[] { 0xFF, 0xD8 })]
    [InlineData(new byte[] { 0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A })]
    [InlineData(new byte[] { 0xFF, 0xD8, 0xFF, 0xD9 })]
    [InlineData(new byte[] { 0xFF, 0xD8, 0xFF, 0xE0, 0, 1, 0xFF, 0xD9 })]
    [InlineData(new byte[] { 0xFF, 0xD8, 0x00, 0xE0, 0, 4, 0, 0, 0xFF, 0xD9 })]
    public void What_is_no_picture_is_neither_read_nor_whole(byte[] bytes)
    {
        Assert.Null(JpegFile.Read(bytes));
        Assert.NotNull(JpegFile.Problem(bytes));
    }

    [Fact]
    public async Task A_picture_lies_under_the_page_in_pdf_svg_and_thumbnail()
    {
        var jpeg = await Jpeg("progressive=n");
        var under = new Background.Picture(jpeg, "image/jpeg", 210, 297);
        var printed = new PrintedPage(page, Paper.ParseOrDefault("a5-blank-710"), "Under") { Under = under };
        var file = Path.Combine(folder, "under.pdf");
        await File.WriteAllBytesAsync(file, await PdfExport.Write("Under", new[] { printed }.ToAsyncEnumerable(), CancellationToken.None));
        // One picture, as it was, at its own size.
        var images = Run("pdfimages", "-list", file).Split('\n').Skip(2).Where(line => line.Length > 0).ToList();
        var columns = Assert.Single(images).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(("210", "297", "jpeg"), (columns[3], columns[4], columns[8]));
        Run("pdfimages", "-j", file, Path.Combine(folder, "taken"));
        Assert.Equal(jpeg, await File.ReadAllBytesAsync(Directory.GetFiles(folder, "taken*.jpg").Single()));
        // Laid over the whole sheet: the wave of the picture's own page is at 50 of 297.
        Run("pdftoppm", "-r", "25.4", "-gray", file, Path.Combine(folder, "shown"));
        var (width, height, pixels) = ReadPgm(Directory.GetFiles(folder, "shown*.pgm").Single());
        Assert.Equal((148, 210), (width, height));
        var darkest = Enumerable.Range(0, height).MinBy(y => Enumerable.Range(30, 60).Sum(x => pixels[y * width + x]));
        Assert.InRange(darkest, 32, 39);

        foreach (var svg in new[] { PageSvg.Write(printed), ThumbnailSvg.Write(printed) })
        {
            var image = XDocument.Parse(svg).Descendants(Svg + "image").Single();
            Assert.Equal(("14800", "21000"), ((string?)image.Attribute("width"), (string?)image.Attribute("height")));
            var href = (string)image.Attribute("href")!;
            Assert.StartsWith("data:image/jpeg;base64,", href, StringComparison.Ordinal);
            Assert.Equal(jpeg, Convert.FromBase64String(href[(href.IndexOf(',', StringComparison.Ordinal) + 1)..]));
        }
    }

    [Fact]
    public void A_frozen_page_lies_under_another_at_the_size_of_its_sheet_and_without_what_belongs_to_the_page_alone()
    {
        Write(Generate.Wave(200), new Pen(PenKind.Ball, 100, 0x22302EFF));
        Do(new Change.SpotAdded(Guid.NewGuid(), Core.Spots.SpotKind.Curtain, new Box(0, 0, 5_000, 5_000), [], []));
        var frozen = FrozenPage.Read(FrozenPage.Write(page, "a4-blank-710"))!;
        var printed = new PrintedPage(new PageDocument(), Paper.ParseOrDefault("a5-blank-710"), "")
        {
            Under = new Background.Frozen(frozen.Page, frozen.Paper),
        };
        var svg = XDocument.Parse(ThumbnailSvg.Write(printed));
        var group = svg.Root!.Elements(Svg + "g").First(one => one.Attribute("transform") is not null);
        // A5 is A4 by √½ (ISO 216), up to whole millimetres.
        var scale = double.Parse(((string)group.Attribute("transform")!).Split("scale(")[1].TrimEnd(')'), CultureInfo.InvariantCulture);
        Assert.Equal(Math.Sqrt(0.5), scale, 0.005);
        Assert.Contains(group.Descendants(Svg + "path"), path => (string?)path.Attribute("stroke") == "#22302E");
        Assert.DoesNotContain(svg.Descendants(Svg + "rect").Skip(1), rect => (string?)rect.Attribute("fill") == "#1F3D3A");
    }

    [Fact]
    public void A_thumbnail_has_fills_dots_half_clear_layers_and_highlighters_as_the_page_has_them()
    {
        var square = new Shape(ShapeKind.Square, [new(1_000, 1_000), new(4_000, 1_000), new(4_000, 4_000), new(1_000, 4_000)]);
        Do(new Change.ShapeAdded(square, new Pen(PenKind.Ball, 40, 0x22302EFF), 0xE3B23C80, []));
        Do(new Change.ShapeAdded(square with { Kind = ShapeKind.Area }, new Pen(PenKind.Ball, 40, 0x22302EFF), 0xB4533CFF, []));
        Write(new StrokeSamples([9_000], [9_000], [500], [0]), new Pen(PenKind.Ball, 60, 0x0000FFFF));
        Write(Generate.Wave(80, 3_000, 12_000), new Pen(PenKind.Highlighter, 500, 0xFFDD0060));
        var layer = Guid.NewGuid();
        Do(new Change.LayerSet(layer, [new LayerValue(LayerField.Name, "Faint"), new LayerValue(LayerField.Opacity, "50")]));
        var faint = Do(
            new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0x00AA00FF), now, Generate.Wave(80, 3_000, 15_000)) { Layer = layer }
        );
        var hidden = Guid.NewGuid();
        Do(new Change.LayerSet(hidden, [new LayerValue(LayerField.Name, "Hidden"), new LayerValue(LayerField.Hidden, "1")]));
        Do(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF00FFFF), now, Generate.Wave(80, 3_000, 18_000)) { Layer = hidden });

        var svg = XDocument.Parse(ThumbnailSvg.Write(new PrintedPage(page, Paper.ParseOrDefault("a4-blank-710"), "")));
        var paths = svg.Descendants(Svg + "path").ToList();
        XElement Stroke(string colour) => paths.Single(path => (string?)path.Attribute("stroke") == colour);
        XElement Fill(string colour) => paths.Single(path => (string?)path.Attribute("fill") == colour);
        Assert.Equal("0.5", (string?)Fill("#E3B23C").Attribute("fill-opacity"));
        Assert.Equal("1", (string?)Fill("#B4533C").Attribute("fill-opacity"));
        Assert.Equal("M1000 1000", ((string)Fill("#B4533C").Attribute("d")!)[..10]);
        Assert.EndsWith("Z", (string)Fill("#B4533C").Attribute("d")!, StringComparison.Ordinal);
        // A dot is a line of no length with round ends.
        Assert.Equal("M9000 9000h1", (string?)Stroke("#0000FF").Attribute("d"));
        Assert.Equal("0.38", (string?)Stroke("#FFDD00").Attribute("stroke-opacity"));
        Assert.Equal("butt", (string?)Stroke("#FFDD00").Attribute("stroke-linecap"));
        Assert.Equal("0.5", (string?)Stroke("#00AA00").Attribute("stroke-opacity"));
        Assert.DoesNotContain(paths, path => (string?)path.Attribute("stroke") == "#FF00FF");
        // A part of it shows what lies there and nothing else.
        var part = XDocument.Parse(
            ThumbnailSvg.WritePart(new PrintedPage(page, Paper.ParseOrDefault("a4-blank-710"), ""), page.Find(faint.Id)!.Bounds)
        );
        Assert.Equal(
            ["#00AA00"],
            part.Descendants(Svg + "path").Select(path => (string?)path.Attribute("stroke")).Where(colour => colour is not null)
        );
    }

    /// <summary>What a thumbnail simplifies stays as near as a pixel: each of its points within one of the line, each of the line's within one of it.</summary>
    [Fact]
    public void A_thumbnails_lines_run_within_a_pixel_of_the_ink() =>
        Gen.Select(Gen.Int[2, 300], Gen.Int[-2_000, 18_000], Gen.Int[0, 28_000])
            .Sample(
                (count, x, y) =>
                {
                    var one = new PageDocument();
                    var samples = Generate.Wave(count, x, y);
                    one.Apply(device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0x123456FF), 0, samples), 1));
                    var sheet = new PrintedPage(one, Paper.ParseOrDefault("a4-blank-710"), "");
                    var drawn = XDocument
                        .Parse(ThumbnailSvg.Write(sheet))
                        .Descendants(Svg + "path")
                        .SingleOrDefault(path => (string?)path.Attribute("stroke") == "#123456");
                    if (drawn is null)
                    {
                        Assert.False(one.Items[0].Bounds.Meets(sheet.Sheet));
                        return;
                    }

                    var points = ((string)drawn.Attribute("d")!)
                        .Split(['M', 'L'], StringSplitOptions.RemoveEmptyEntries)
                        .Select(point => point.Split(' ').Select(number => int.Parse(number, CultureInfo.InvariantCulture)).ToArray())
                        .ToList();
                    const double pixel = 21_000 / 120.0;
                    for (var i = 0; i < samples.Count; i++)
                    {
                        var nearest = Enumerable
                            .Range(0, points.Count - 1)
                            .Min(k => Distance(samples.X[i], samples.Y[i], points[k], points[k + 1]));
                        Assert.InRange(nearest, 0, pixel / 2);
                    }
                },
                iter: 300
            );

    private Operation Do(Change change)
    {
        var operation = device.Make(change, now += 10);
        Assert.Null(OperationRules.Check(operation, DocumentKind.Page, Core.Access.Role.Writer, device.Author, now));
        page.Apply(operation);
        return operation;
    }

    private void Write(StrokeSamples samples, Pen pen) => Do(new Change.StrokeAdded(pen, now, samples));

    /// <summary>How far a point lies from a piece of a line.</summary>
    private static double Distance(double x, double y, int[] from, int[] to)
    {
        double dx = to[0] - from[0],
            dy = to[1] - from[1],
            t = Math.Clamp(((x - from[0]) * dx + (y - from[1]) * dy) / Math.Max(dx * dx + dy * dy, 1e-9), 0, 1);
        return Math.Sqrt(Math.Pow(from[0] + dx * t - x, 2) + Math.Pow(from[1] + dy * t - y, 2));
    }

    /// <summary>A page of 210 by 297 pixels with a wave at 50, as poppler writes it.</summary>
    private async Task<byte[]> Jpeg(string option)
    {
        var one = new PageDocument();
        one.Apply(device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 300, 0x000000FF), 0, Generate.Wave(246)), 1));
        var file = Path.Combine(folder, "picture.pdf");
        var printed = new PrintedPage(one, Paper.ParseOrDefault("a4-blank-710"), "");
        await File.WriteAllBytesAsync(file, await PdfExport.Write("", new[] { printed }.ToAsyncEnumerable(), CancellationToken.None));
        Run("pdftoppm", ["-r", "25.4", "-jpeg", "-jpegopt", option, file, Path.Combine(folder, "picture")]);
        var jpeg = Directory.GetFiles(folder, "picture*.jpg").Single();
        var bytes = await File.ReadAllBytesAsync(jpeg);
        File.Delete(jpeg);
        return bytes;
    }
}
