using System.Xml.Linq;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;
using CalmQuill.Documents.Letters;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Pictures;
using CalmQuill.Documents.Svg;
using CalmQuill.Testing;
using SkiaSharp;
using static CalmQuill.Testing.Poppler;

namespace CalmQuill.Documents.Tests;

/// <summary>Pictures on pages as they come out in files, looked at with poppler.</summary>
public sealed class PagePictureTests : IDisposable
{
    private static readonly XNamespace Svg = "http://www.w3.org/2000/svg";
    private static readonly Guid Half = Guid.NewGuid(),
        Red = Guid.NewGuid(),
        Gone = Guid.NewGuid();

    /// <summary>Dots of the looked-at picture for a millimetre, which is ten to the inch.</summary>
    private const int DotsAnInch = 254;
    private readonly string folder = Directory.CreateTempSubdirectory("quill-picture").FullName;
    private readonly PageDocument page = new();
    private readonly Replica device = new(1, Generate.People[0]);
    private readonly Dictionary<Guid, byte[]> files = new()
    {
        // 0x2F6B5A that half covers, and red that covers.
        [Half] = MadePictures.Png(40, 30),
        [Red] = Flat(400, 300, new SKColor(200, 40, 30), SKEncodedImageFormat.Jpeg),
    };
    private long now = 1;

    public PagePictureTests() => HarfBuzzShaper.Install();

    public void Dispose() => Directory.Delete(folder, recursive: true);

    [Fact]
    public async Task A_picture_lies_where_it_lies_and_shines_through_as_far_as_it_does()
    {
        Lay(Red, 2_000, 3_000, 6_000, 4_000);
        Lay(Half, 2_000, 3_000, 3_000, 4_000);
        Lay(Half, 12_000, 3_000, 3_000, 4_000);
        var shown = await Shown();
        // 128 of 255 of #2F6B5A over red, and over paper.
        Near((124, 74, 60), shown(3_000, 5_000));
        Near((200, 40, 30), shown(7_000, 5_000));
        Near((151, 181, 172), shown(13_000, 5_000));
        Near((255, 255, 255), shown(1_900, 5_000));
        Near((255, 255, 255), shown(8_100, 5_000));
        Near((255, 255, 255), shown(7_000, 2_900));
        Near((255, 255, 255), shown(7_000, 7_100));
    }

    [Fact]
    public async Task What_is_cut_away_is_not_seen_and_the_rest_lies_turned_scaled_and_pale()
    {
        var cut = Lay(Red, 2_000, 3_000, 6_000, 4_000);
        Set(cut, (ItemField.Cut, "0,0 10000,0 0,10000"), (ItemField.Opacity, "50"));
        // A quarter turn to the right about its upper left corner, half as large.
        var turned = Lay(Red, 0, 0, 6_000, 4_000);
        Do(new Change.ItemsTransformed([turned], [], new Transform(0, Transform.One / 2, -Transform.One / 2, 0, 15_000, 3_000)));
        var shown = await Shown();
        Near((227, 147, 142), shown(3_000, 4_000));
        Near((255, 255, 255), shown(7_500, 6_500));
        Near((200, 40, 30), shown(14_000, 5_500));
        Near((255, 255, 255), shown(14_000, 6_200));
        Near((255, 255, 255), shown(12_800, 4_000));
    }

    [Fact]
    public async Task Tones_and_the_layer_tell_in_every_file()
    {
        var picture = Lay(Red, 2_000, 3_000, 6_000, 4_000);
        Set(picture, (ItemField.Brightness, "20"), (ItemField.Contrast, "-50"));
        Do(new Change.LayerSet(Guid.Empty, [new LayerValue(LayerField.Opacity, "50")]));
        var tones = new Tones(20, -50).Table();
        var shown = await Shown();
        Near(((255 + tones[200]) / 2, (255 + tones[40]) / 2, (255 + tones[30]) / 2), shown(4_000, 5_000));
        var svg = XElement.Parse(PageSvg.Write(Printed()));
        var image = Assert.Single(svg.Descendants(Svg + "image"));
        Assert.Equal("0.498", (string?)image.Attribute("opacity"));
        var slope = Assert.Single(svg.Descendants(Svg + "feFuncR"));
        Assert.Equal(("0.5", "0.45"), ((string?)slope.Attribute("slope"), (string?)slope.Attribute("intercept")));
    }

    [Fact]
    public async Task A_picture_that_is_not_there_or_is_broken_is_a_frame_and_all_else_is_drawn()
    {
        Lay(Gone, 2_000, 3_000, 6_000, 4_000);
        var broken = Guid.NewGuid();
        files[broken] = [.. files[Red].AsSpan(0, 300)];
        files[Half] = [1, 2, 3];
        Lay(broken, 2_000, 10_000, 6_000, 4_000);
        Lay(Half, 2_000, 20_000, 6_000, 4_000);
        Lay(Red, 12_000, 3_000, 3_000, 3_000);
        var shown = await Shown();
        Near((200, 40, 30), shown(13_000, 4_000));
        Near((255, 255, 255), shown(4_000, 5_000));
        Assert.True(shown(2_000, 5_000).Green < 230);
        Assert.True(Printed().LacksPictures);
        foreach (var svg in new[] { PageSvg.Write(Printed()), ThumbnailSvg.Write(Printed()) })
            Assert.True(XElement.Parse(svg).Descendants(Svg + "polygon").Count() >= 2);
    }

    [Fact]
    public void A_picture_is_read_no_larger_than_it_is_shown_however_large_it_is()
    {
        // 50 megapixels.
        var large = Flat(8_000, 6_250, new SKColor(30, 90, 140), SKEncodedImageFormat.Jpeg);
        using var read = FittedPicture.Read(large, (500, 390))!;
        Assert.InRange(read.Width, 500, 501);
        Assert.InRange(read.Height, 390, 392);
        Assert.True(read.IsOpaque);
        // A PNG file unfolds whole before it can be made smaller.
        Assert.Null(FittedPicture.Read(Flat(8_000, 6_250, SKColors.Beige, SKEncodedImageFormat.Png), (500, 390)));
        using var small = FittedPicture.Read(files[Half], (9_000, 9_000))!;
        Assert.Equal((40, 30, false), (small.Width, small.Height, small.IsOpaque));
    }

    [Fact]
    public void In_small_pictures_it_has_no_more_dots_than_are_seen()
    {
        var large = Guid.NewGuid();
        files[large] = MadePictures.PngOf(1_500, 1_000, new Random(3));
        Lay(large, 2_000, 3_000, 6_000, 4_000);
        var whole = PageSvg.Write(Printed());
        var small = ThumbnailSvg.Write(Printed());
        Assert.True(small.Length * 20 < whole.Length, $"{small.Length} of {whole.Length}");
    }

    [Fact]
    public async Task A_slip_covers_what_lies_under_it_and_bears_what_is_typed_on_it()
    {
        Lay(Red, 2_000, 3_000, 6_000, 4_000);
        Do(
            new Change.ThingAdded(
                ThingKind.Slip,
                Transform.Shift(3_000, 4_000),
                7_000,
                5_000,
                new Passage("Why does it recoil", []),
                [new ItemValue(ItemField.Colour, "f3e2a4ff")]
            )
        );
        var shown = await Shown();
        Near((243, 226, 164), shown(5_000, 6_500));
        Near((200, 40, 30), shown(2_500, 6_500));
        Assert.Contains("Why does it recoil", Run("pdftotext", Path.Combine(folder, "page.pdf"), "-"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_table_is_read_out_of_a_file_cell_by_cell_and_its_cells_and_lines_lie_where_it_says()
    {
        var passage = TableEdit.New(
            [4_000, 3_000],
            [900, 900, 900],
            edit =>
            {
                edit.Paste(0, 0, TableSheet.Read("length\tperiod\n0.25 m\t1.003 s\n1 m\t2.006 s"));
                edit.SetTotal(0, "sum");
            }
        );
        Do(
            new Change.ThingAdded(
                ThingKind.Table,
                Transform.Shift(2_000, 3_000),
                7_000,
                2_700,
                passage,
                [
                    new ItemValue(ItemField.Shows, TableLayout.Header),
                    new ItemValue(ItemField.Edge, "281ec8ff"),
                    new ItemValue(ItemField.EdgeWidth, "60"),
                ]
            )
        );
        var table = (TableContent)page.Items.Single().Content;
        var fill = new TableEdit(table.Typed, 1);
        fill.SetFill(table.Layout.Text[2, 1], "c83c28ff");
        Do(new Change.TextTyped(page.Items.Single().Id, fill.Change));
        var shown = await Shown();
        // The rows grow with their letters; the last one is at least as high as it was made.
        var bottom = table.Layout.Down[^1];
        Near((200, 60, 40), shown(2_000 + 4_400, 3_000 + bottom - 150));
        Near((228, 236, 232), shown(2_000 + 3_800, 3_100));
        Near((40, 30, 200), shown(2_000 + 4_000, 3_000 + bottom / 2));
        Near((255, 255, 255), shown(1_000, 3_500));
        // How far words stand apart is another matter.
        var read = string.Concat(
            Run("pdftotext", "-layout", Path.Combine(folder, "page.pdf"), "-").Where(letter => !char.IsWhiteSpace(letter))
        );
        Assert.StartsWith("lengthperiod0.25m1.003s1m2.006sΣ1.25m", read, StringComparison.Ordinal);
        var drawn = PageSvg.Write(Printed());
        Assert.Contains("#c83c28", drawn, StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>The colour at a place of the page, 0.01 mm, as pdftoppm sees it.</summary>
    private async Task<Func<int, int, (int Red, int Green, int Blue)>> Shown()
    {
        var file = Path.Combine(folder, "page.pdf");
        await File.WriteAllBytesAsync(file, await PdfExport.Write("Pictures", One(), CancellationToken.None));
        Run("pdftoppm", "-r", $"{DotsAnInch}", "-png", "-singlefile", file, Path.Combine(folder, "page"));
        using var seen = SKBitmap.Decode(Path.Combine(folder, "page.png"));
        var (width, pixels) = (seen.Width, seen.Pixels);
        return (x, y) => pixels[y / 10 * width + x / 10] is var dot ? (dot.Red, dot.Green, dot.Blue) : default;
    }

    private async IAsyncEnumerable<PrintedPage> One()
    {
        yield return Printed();
        await Task.CompletedTask;
    }

    private PrintedPage Printed() => new(page, Paper.ParseOrDefault("a4-blank"), "Pictures") { Pictures = files };

    /// <summary>Colours through JPEG and rounding are a few steps off.</summary>
    private static void Near((int Red, int Green, int Blue) expected, (int Red, int Green, int Blue) seen)
    {
        Assert.InRange(seen.Red, expected.Red - 4, expected.Red + 4);
        Assert.InRange(seen.Green, expected.Green - 4, expected.Green + 4);
        Assert.InRange(seen.Blue, expected.Blue - 4, expected.Blue + 4);
    }

    private static byte[] Flat(int width, int height, SKColor colour, SKEncodedImageFormat format)
    {
        using var bitmap = new SKBitmap(new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Opaque));
        bitmap.Erase(colour);
        using var packed = bitmap.Encode(format, 95);
        return packed.ToArray();
    }

    private OpId Lay(Guid asset, int x, int y, int width, int height) =>
        Do(
            new Change.ThingAdded(
                ThingKind.Picture,
                Transform.Shift(x, y),
                width,
                height,
                new Passage("", []),
                [new ItemValue(ItemField.Source, asset.ToString())]
            )
        );

    private void Set(OpId id, params (ItemField Field, string Value)[] values) =>
        Do(new Change.ItemsSet([id], [.. values.Select(value => new ItemValue(value.Field, value.Value))]));

    private OpId Do(Change change)
    {
        var operation = device.Make(change, now += 10);
        Assert.True(page.Apply(operation));
        return operation.Id;
    }
}
