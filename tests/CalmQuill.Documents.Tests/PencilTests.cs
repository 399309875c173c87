using System.Buffers.Binary;
using System.Diagnostics;
using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml.Linq;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Testing;
using static CalmQuill.Testing.Poppler;

namespace CalmQuill.Documents.Tests;

/// <summary>A pencil's grain as poppler's pdftoppm, which knows nothing of ours, shows it.</summary>
public sealed class PencilTests : IDisposable
{
    private const double Resolution = 1016;
    private static readonly XNamespace Svg = "http://www.w3.org/2000/svg";
    private readonly string folder = Directory.CreateTempSubdirectory("quill-pencil").FullName;
    private readonly PageDocument page = new();
    private readonly Replica device = new(1, Guid.NewGuid());

    public void Dispose() => Directory.Delete(folder, recursive: true);

    [Theory]
    [InlineData(100, 0, 0)]
    [InlineData(500, 0, 0)]
    [InlineData(720, 0, 0)]
    [InlineData(500, 320, 192)]
    public async Task A_pencil_shows_the_grain_where_it_was_written_and_takes_it_along_when_it_is_moved(int pressure, int dx, int dy)
    {
        // A broad even line of 30 mm, 3 mm high.
        var pen = new Pen(PenKind.Pencil, 400, 0x000000FF);
        var samples = new StrokeSamples(
            [2000, 3000, 4000, 5000],
            [3000, 3000, 3000, 3000],
            [.. Enumerable.Repeat(pressure, 4)],
            [0, 50, 100, 150]
        );
        var stroke = device.Make(new Change.StrokeAdded(pen, 0, samples), 0);
        page.Apply(stroke);
        if (dx != 0)
            page.Apply(device.Make(new Change.ItemsShifted([stroke.Id], dx, dy), 0));
        var (width, pixels) = await Shown();
        var tile = PencilGrain.Tile(PencilGrain.LevelOf(samples, pen), PencilGrain.MostPoints);
        // Every point of the tile within the line, looked at where it must lie on the sheet.
        int right = 0,
            all = 0,
            dark = 0;
        for (var y = 2900; y < 3100; y += 4)
        {
            for (var x = 2100; x < 4900; x += 4)
            {
                var covered = tile[y % PencilGrain.Side / 4 * PencilGrain.MostPoints + x % PencilGrain.Side / 4];
                // At the grain's own edges a renderer may decide either way.
                if (covered is > 40 and < 215)
                    continue;
                var pixel = pixels[(int)((y + dy + 2) / 2540.0 * Resolution) * width + (int)((x + dx + 2) / 2540.0 * Resolution)];
                all++;
                dark += pixel < 128 ? 1 : 0;
                right += pixel < 128 == covered >= 128 ? 1 : 0;
            }
        }

        Assert.True(all > 15_000);
        Assert.InRange(dark, all * 0.1, all * 0.98);
        Assert.True(right > all * 0.97, $"{right} of {all}");
    }

    [Fact]
    public async Task A_page_of_pencil_strokes_is_no_larger_than_it_must_be()
    {
        var random = new Random(7);
        var strokes = WrittenPages.Write(3, 0, random);
        foreach (var stroke in strokes)
            page.Apply(device.Make(new Change.StrokeAdded(new Pen(PenKind.Pencil, 60, 0x22302EFF), 0, stroke.Samples), 0));
        var pdf = await Pdf();
        Assert.True(pdf.Length < strokes.Count * 3_000 + 40_000, $"{pdf.Length} bytes of {strokes.Count} strokes");
    }

    [Fact]
    public void In_svg_the_grain_is_a_pattern_in_the_pencils_colour_under_a_mask_that_is_a_right_picture()
    {
        var pen = new Pen(PenKind.Pencil, 60, 0x7C2D12A0);
        foreach (var top in new[] { 3000, 4000 })
            page.Apply(device.Make(new Change.StrokeAdded(pen, 0, new StrokeSamples([2000, 4000], [top, top], [400, 400], [0, 90])), 0));
        var svg = XDocument.Parse(PageSvg.Write(new PrintedPage(page, Paper.Default, "")));
        var pattern = Assert.Single(svg.Descendants(Svg + "pattern"));
        Assert.Equal("#7C2D12", (string?)pattern.Element(Svg + "rect")!.Attribute("fill"));
        var paths = svg.Descendants(Svg + "path")
            .Where(path => (string?)path.Attribute("fill") == $"url(#{pattern.Attribute("id")!.Value})")
            .ToList();
        Assert.Equal(2, paths.Count);
        Assert.All(paths, path => Assert.Equal("0.627", (string?)path.Attribute("fill-opacity")));
        var mask = Assert.Single(svg.Descendants(Svg + "mask"));
        Assert.Equal($"url(#{mask.Attribute("id")!.Value})", (string?)pattern.Element(Svg + "rect")!.Attribute("mask"));
        var address = mask.Element(Svg + "image")!.Attributes().Single(one => one.Name.LocalName == "href").Value;
        Assert.Equal(128 * 129, PointsOf(Convert.FromBase64String(address[(address.IndexOf(',', StringComparison.Ordinal) + 1)..])));
    }

    /// <summary>How many bytes a PNG's rows have. Its check sums are held against zlib's, which reads each chunk again as the content of a gzip file (RFC 1952).</summary>
    private static int PointsOf(byte[] png)
    {
        var count = 0;
        for (int at = 8, length; at < png.Length; at += 12 + length)
        {
            length = BinaryPrimitives.ReadInt32BigEndian(png.AsSpan(at));
            var chunk = png[(at + 4)..(at + 8 + length)];
            using var gzip = new MemoryStream();
            gzip.Write([0x1F, 0x8B, 8, 0, 0, 0, 0, 0, 0, 255]);
            using (var deflate = new DeflateStream(gzip, CompressionLevel.Fastest, leaveOpen: true))
                deflate.Write(chunk);
            var tail = new byte[8];
            BinaryPrimitives.WriteUInt32LittleEndian(tail, BinaryPrimitives.ReadUInt32BigEndian(png.AsSpan(at + 8 + length)));
            BinaryPrimitives.WriteInt32LittleEndian(tail.AsSpan(4), chunk.Length);
            gzip.Write(tail);
            gzip.Position = 0;
            using var read = new MemoryStream();
            using (var reader = new GZipStream(gzip, CompressionMode.Decompress))
                reader.CopyTo(read);
            Assert.Equal(chunk, read.ToArray());
            if (Encoding.ASCII.GetString(chunk, 0, 4) != "IDAT")
                continue;
            using var rows = new ZLibStream(new MemoryStream(chunk[4..]), CompressionMode.Decompress);
            using var all = new MemoryStream();
            rows.CopyTo(all);
            count += (int)all.Length;
        }

        return count;
    }

    private async Task<(int Width, byte[] Pixels)> Shown()
    {
        var file = Path.Combine(folder, "pencil.pdf");
        await File.WriteAllBytesAsync(file, await Pdf());
        Run(
            "pdftoppm",
            "-r",
            Resolution.ToString(CultureInfo.InvariantCulture),
            "-gray",
            "-aa",
            "no",
            "-aaVector",
            "no",
            file,
            Path.Combine(folder, "pencil")
        );
        var (width, _, pixels) = ReadPgm(Directory.GetFiles(folder, "pencil*.pgm").Single());
        return (width, pixels);
    }

    private Task<byte[]> Pdf() =>
        PdfExport.Write(
            "Pencil",
            new[] { new PrintedPage(page, Paper.ParseOrDefault("a5-blank-710"), "Pencil") }.ToAsyncEnumerable(),
            CancellationToken.None
        );
}
