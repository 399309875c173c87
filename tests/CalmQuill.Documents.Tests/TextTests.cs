using System.Globalization;
using System.Text;
using System.Xml.Linq;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;
using CalmQuill.Documents.Letters;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Testing;
using static CalmQuill.Testing.Poppler;

namespace CalmQuill.Documents.Tests;

/// <summary>Typed text in files, read back by poppler's pdftotext and pdftoppm.</summary>
public sealed class TextTests : OnPaper
{
    [Fact]
    public async Task What_was_typed_is_read_back_in_its_order_in_every_script()
    {
        string[] lines =
        [
            "The pendulum’s period, first fitting office affairs.",
            "Ζυγός και γρανάζι · Маятник и якорь",
            "שלום עולם",
            "مرحبا بالعالم",
            "घड़ी की सुई",
            "ዘመን ឡើង ໂມງ",
            "振り子の周期を測る。",
            "摆的周期只看长度",
            "흔들이의 주기를 잰다",
        ];
        Put(string.Join('\n', lines), new PassageFormat(4, 12, Trait.Bold, "1"));
        var read = new string([.. Run("pdftotext", "-layout", await Pdf(), "-").Where(letter => !IsDirection(letter))]);
        foreach (var line in lines)
            Assert.Contains(line, read, StringComparison.Ordinal);
        var fonts = Run("pdffonts", Path.Combine(Folder, "out.pdf")).Split('\n').Skip(2).Where(line => line.Length > 0).ToList();
        // Every one is embedded, in part, and says what letters its glyphs stand for.
        Assert.True(fonts.Count > 12, $"{fonts.Count} fonts");
        Assert.All(fonts, line => Assert.Matches("yes yes yes", line));

        static bool IsDirection(char letter) => letter is >= '\u202a' and <= '\u202e' or '\u200e' or '\u200f';
    }

    [Fact]
    public async Task Words_stand_in_the_file_where_they_were_set()
    {
        var text = Put("The anchor escapement was fitted to clocks\nfrom about 1670 on.", new PassageFormat(43, 47, Trait.Size, "240"));
        var read = XDocument.Parse(Run("pdftotext", "-bbox", await Pdf(), "-"));
        var words = read.Descendants()
            .Where(element => element.Name.LocalName == "word")
            .Select(element => (element.Value, Left: Millimetres(element, "xMin"), Right: Millimetres(element, "xMax")))
            .ToList();
        var set = ((TextContent)Page.Find(text)!.Content).Set;
        var pieces = set
            .Paragraphs.SelectMany(one => one.Paragraph.Lines)
            .SelectMany(line => line.Pieces)
            .Where(piece => !piece.IsSpace)
            .Select(piece => (piece.Shape.Text, Left: 30 + piece.X / 6_400.0, Right: 30 + (piece.X + piece.Width) / 6_400.0))
            .ToList();
        Assert.Equal(pieces.Select(piece => piece.Text), words.Select(word => word.Value));
        Assert.All(
            pieces.Zip(words),
            pair =>
                Assert.True(Math.Abs(pair.First.Left - pair.Second.Left) + Math.Abs(pair.First.Right - pair.Second.Right) < 0.06, $"{pair}")
        );

        static double Millimetres(XElement word, string edge) =>
            double.Parse(word.Attribute(edge)!.Value, CultureInfo.InvariantCulture) * 25.4 / 72;
    }

    [Fact]
    public async Task The_same_is_painted_in_both_kinds_of_file()
    {
        Put(
            "Maß & Gewicht\nof 994 mm",
            new PassageFormat(0, 3, Trait.Underline, "1"),
            new PassageFormat(4, 5, Trait.Marker, "e3b23c80"),
            new PassageFormat(14, 23, Trait.List, "tick")
        );
        Run("pdftoppm", "-r", "100", "-gray", await Pdf(), Path.Combine(Folder, "pdf"));
        var svg = Path.Combine(Folder, "page.svg");
        await File.WriteAllTextAsync(svg, PageSvg.Write(Printed()));
        var glyphs = XDocument.Load(svg).Descendants().Count(element => element.Name.LocalName == "use");
        Assert.Equal("Maß&Gewichtof994mm".Length, glyphs);
        var (width, _, pixels) = ReadPgm(Directory.GetFiles(Folder, "pdf*.pgm").Single());
        // Letters are dark where they stand: the first line 50 mm down, 30 mm from the left.
        Assert.Contains(Enumerable.Range(0, 12 * 20), i => pixels[(187 + i / 20) * width + 118 + i % 20] < 90);
    }

    [Fact]
    public void In_small_pictures_lines_are_bars_and_in_large_parts_letters()
    {
        Put("The pendulum swings");
        string Small() => ThumbnailSvg.Write(Printed());
        Assert.DoesNotContain("<use", Small(), StringComparison.Ordinal);
        var bars = XDocument.Parse(Small()).Descendants().Single(element => (string?)element.Attribute("fill-opacity") == "0.55");
        // A ring for each word.
        Assert.Equal(3, bars.Attribute("d")!.Value.Count(sign => sign == 'M'));
        Assert.Contains("<use", ThumbnailSvg.WritePart(Printed(), new Box(2_500, 4_000, 12_500, 6_000)), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("serif")]
    [InlineData("sans-bold")]
    [InlineData("mono-italic")]
    [InlineData("round")]
    [InlineData("hand")]
    [InlineData("arabic")]
    [InlineData("emoji")]
    public void A_font_that_ends_too_soon_or_is_damaged_is_refused_and_nothing_else_happens(string name)
    {
        var whole = Fonts.Find(name)!.File;
        Assert.True(whole.GlyphCount > 50);
        var random = new Random(7);
        for (var i = 0; i < 60; i++)
        {
            var bytes = whole.Data.ToArray();
            if (i % 2 == 0)
                bytes = bytes[..random.Next(bytes.Length)];
            else
            {
                for (var k = 0; k < 40; k++)
                    bytes[random.Next(i % 4 == 1 ? 600 : bytes.Length)] = (byte)random.Next(256);
            }

            try
            {
                var font = new FontFile(bytes);
                for (var glyph = 0; glyph < Math.Min(font.GlyphCount, 80); glyph++)
                    font.OutlineOf(glyph);
                font.GlyphOf('a');
                FontSubset.Of(font, new HashSet<int> { 1, 2, 3 });
            }
            catch (InvalidDataException) { }
        }
    }

    [Fact]
    public void Every_family_has_the_letters_that_it_is_said_to_have()
    {
        const string latin = "abcxyzABCXYZ0123456789.,;:!?()[]–—„“”‘’«»€%&@äöüßéèçñøåæœłšžőř",
            cyrillic = "абвгдежзийклмнопрстуфхцчшщъыьэюяЁёЇї",
            greek = "αβγδεζηθικλμνξοπρστυφχψωΆΈΉΊΌΎΏ";
        foreach (var family in new[] { "serif", "sans", "mono", "round", "hand" })
        {
            foreach (var letter in latin + cyrillic + (family is "round" or "hand" ? "" : greek))
            {
                var font = Families.FontOf(letter, family, false, false)!;
                Assert.True(font.Name == family, $"{letter} of {family} is set in {font.Name}");
                Assert.NotEqual(0, font.File.GlyphOf(letter));
            }
        }

        // What a family has not is had from another; nothing is left out.
        Assert.Equal("sans", Families.FontOf('π', "hand", false, false)!.Name);
        Assert.All(Families.All, name => Assert.NotNull(Fonts.Find(name)));
        // A letter of each further script.
        foreach (var letter in "Աאشघঘਘઘଘఘಘഘඝกກကგእក")
            Assert.NotEqual(0, Families.FontOf(letter, "serif", false, false)!.File.GlyphOf(letter));
    }

    /// <summary>What national standards of signs name in one stretch or that every text in the language has.</summary>
    [Fact]
    public void Eastern_writing_is_complete_and_each_language_in_its_own_font()
    {
        var hangul = Enumerable.Range(0xAC00, 11_172);
        var kana = Enumerable.Range(0x3041, 86).Concat(Enumerable.Range(0x30A1, 90));
        foreach (var (signs, language) in new[] { (hangul, "korean"), (kana, "japanese") })
        {
            foreach (var sign in signs)
            {
                var font = Families.FontOf(sign, "hand", true, true, language)!;
                Assert.StartsWith(language + "-", font.Name, StringComparison.Ordinal);
                Assert.NotEqual(0, font.File.GlyphOf(sign));
            }
        }

        // GB 2312, JIS X 0208 and KS X 1001: all their signs, as the encodings of .NET say them.
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        foreach (var (encoding, language) in new[] { ("gb2312", "chinese"), ("euc-jp", "japanese"), ("euc-kr", "korean") })
        {
            var own = Encoding.GetEncoding(encoding, EncoderFallback.ExceptionFallback, DecoderFallback.ReplacementFallback);
            var ideographs = Enumerable
                .Range(0, 94 * 94)
                .Select(i => own.GetString([(byte)(0xA1 + i / 94), (byte)(0xA1 + i % 94)]))
                .Where(text => text.Length == 1 && text[0] is >= '\u4E00' and <= '\u9FFF')
                .ToList();
            Assert.True(ideographs.Count > 4_000, $"{encoding}: {ideographs.Count}");
            foreach (var text in ideographs)
            {
                var font = Families.FontOf(text[0], "serif", false, false, language);
                Assert.True(font?.File.GlyphOf(text[0]) > 0, $"{text} of {encoding}");
            }
        }
    }

    [Fact]
    public void A_paragraph_is_set_in_the_way_its_language_writes_and_brings_few_slices()
    {
        // “Bone” and “direct” are written differently in each.
        Assert.StartsWith("japanese-", FontsOf("骨と直")[0], StringComparison.Ordinal);
        Assert.StartsWith("chinese-", FontsOf("骨和直")[0], StringComparison.Ordinal);
        Assert.StartsWith("korean-", FontsOf("骨와 直")[0], StringComparison.Ordinal);
        Assert.All(FontsOf("한국어로씁니다"), name => Assert.StartsWith("korean-", name, StringComparison.Ordinal));
        var japanese = FontsOf("私たちは毎週木曜日に集まって時計を直します。今日は振り子の長さと周期を測りました。");
        Assert.True(japanese.Count <= 16, string.Join(' ', japanese));
        // Latin letters stay in their family.
        Assert.Contains("serif", FontsOf("CPU 时钟"));

        List<string> FontsOf(string text) =>
            [
                .. ((TextContent)Page.Find(Put(text))!.Content)
                    .Set.Paragraphs.SelectMany(one => one.Paragraph.Lines)
                    .SelectMany(line => line.Pieces)
                    .Select(piece => piece.Shape.Font?.Name ?? "none")
                    .Distinct(),
            ];
    }

    [Fact]
    public void A_browser_is_told_the_signs_of_a_slice_and_of_nothing_else()
    {
        Assert.Null(EasternFonts.RangeOf("serif"));
        var slice = EasternFonts.SliceOf('あ', "japanese")!;
        var parts = EasternFonts.RangeOf(slice)!.Split(',');
        Assert.All(parts, part => Assert.Matches("^U\\+[0-9A-F]{4,5}(-[0-9A-F]{4,5})?$", part));
        var signs = parts.SelectMany(part =>
        {
            var ends = part[2..].Split('-').Select(end => int.Parse(end, NumberStyles.HexNumber, CultureInfo.InvariantCulture)).ToList();
            return Enumerable.Range(ends[0], ends[^1] - ends[0] + 1);
        });
        var font = Fonts.Find(slice)!;
        Assert.Contains('あ', signs);
        Assert.All(signs, sign => Assert.NotEqual(0, font.File.GlyphOf(sign)));
    }

    private OpId Put(string text, params PassageFormat[] formats)
    {
        var operation = Device.Make(new Change.TextAdded(Transform.Shift(3_000, 5_000), 14_000, 800, new Passage(text, formats), []), 1);
        Assert.True(Page.Apply(operation));
        return operation.Id;
    }
}
