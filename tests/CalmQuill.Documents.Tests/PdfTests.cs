using System.Diagnostics;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Planner;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Spots;
using CalmQuill.Documents.FollowUps;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Testing;
using CsCheck;
using static CalmQuill.Testing.Poppler;

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
        Assert.DoesNotContain(
            "image",
            Run("pdfimages", "-list", file).Split('\n').Skip(2).FirstOrDefault() ?? "",
            StringComparison.Ordinal
        );
        // One pixel a millimetre: the stroke lies from 30 mm to 128 mm across at about 50 mm down.
        Run("pdftoppm", "-r", "25.4", "-gray", file, Path.Combine(folder, "page"));
        var (width, height, pixels) = ReadPgm(Directory.GetFiles(folder, "page*.pgm").Single());
        Assert.Equal((210, 297), (width, height));
        byte Darkest(int fromX, int toX, int fromY, int toY) =>
            Enumerable
                .Range(fromY, toY - fromY)
                .SelectMany(y => Enumerable.Range(fromX, toX - fromX).Select(x => pixels[y * width + x]))
                .Min();
        Assert.InRange(Darkest(40, 120, 45, 56), 0, 140);
        Assert.InRange(Darkest(140, 200, 45, 52), 180, 255);
    }

    /// <summary>The structure as poppler's pdftohtml reads it: an outline of nested lists.</summary>
    [Fact]
    public async Task Bookmarks_hold_sections_pages_and_headings_in_each_other_and_numbers_for_what_has_no_title()
    {
        var (trains, going, page, below) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var written = new PageDocument();
        var device = new Replica(1, Guid.NewGuid());
        foreach (var (top, level, words) in new[] { (4_000, "1", "Count wheels"), (9_000, "2", ""), (20_000, "1", "Barrels (8 days)") })
            written.Apply(
                device.Make(
                    new Change.SpotAdded(
                        Guid.NewGuid(),
                        SpotKind.Heading,
                        new Box(2_000, top, 8_000, top + 800),
                        [],
                        [
                            new SpotValue(SpotField.Level, level),
                            .. words.Length > 0 ? [new SpotValue(SpotField.Title, words)] : Array.Empty<SpotValue>(),
                        ]
                    ),
                    1
                )
            );
        PrintedPage Made(Guid id, int number, string title, params (Guid, string)[] above) =>
            new(id == page ? written : new PageDocument(), Paper.ParseOrDefault("a4-ruled-710"), title)
            {
                Id = id,
                Number = number,
                Above = above,
            };
        var file = await Write(
            "Clocks",
            [
                Made(Guid.NewGuid(), 1, ""),
                Made(page, 2, "Wheels", (trains, "Trains"), (going, "Going")),
                Made(below, 3, "", (trains, "Trains"), (going, "Going"), (page, "Wheels")),
                Made(Guid.NewGuid(), 4, "Strike", (trains, "Trains")),
                Made(Guid.NewGuid(), 5, "Ende"),
            ]
        );
        Run("pdftohtml", "-xml", "-i", "-noframes", file, Path.ChangeExtension(file, ".xml"));
        var read = System.Xml.Linq.XDocument.Load(Path.ChangeExtension(file, ".xml")).Descendants("outline").First();
        var lines = new List<string>();
        var waiting = new Stack<(System.Xml.Linq.XElement Element, int Level)>([(read, 0)]);
        while (waiting.TryPop(out var next))
        {
            if (next.Element.Name == "item")
                lines.Add($"{new string('-', next.Level)}{next.Element.Value} {next.Element.Attribute("page")?.Value}");
            else
                foreach (var child in next.Element.Elements().Reverse())
                    waiting.Push((child, child.Name == "outline" ? next.Level + 1 : next.Level));
        }

        Assert.Equal(
            [
                "Page 1 1",
                "Trains 2",
                "-Going 2",
                "--Wheels 2",
                "---Count wheels 2",
                "----2.2 2",
                "---Barrels (8 days) 2",
                "---Page 3 3",
                "-Strike 4",
                "Ende 5",
            ],
            lines
        );
    }

    [Fact]
    public async Task Of_a_page_that_has_grown_far_only_sheets_with_ink_are_printed()
    {
        var page = new PageDocument();
        var device = new Replica(1, Guid.NewGuid());
        foreach (var (x, y) in new[] { (3_000, 5_000), (1_900_000, 1_900_000), (-1_900_000, 3_000) })
            page.Apply(device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 200, 0xFF), 1, Generate.Wave(12, x, y)), 1));
        var file = await Write("Far", [new PrintedPage(page, Paper.ParseOrDefault("a6-dotted-100-around"), "Far")]);
        Assert.Contains("Pages:           3", Run("pdfinfo", file), StringComparison.Ordinal);
    }

    [Fact]
    public async Task More_sheets_than_one_file_may_hold_are_refused_with_a_sentence_and_what_nobody_waits_for_is_given_up()
    {
        // One line that reaches over everything: every sheet on its way has ink.
        var page = new PageDocument();
        var across = new StrokeSamples(
            [.. Enumerable.Range(0, 2_000).Select(i => i * 990)],
            [.. Enumerable.Range(0, 2_000).Select(i => i * 990)],
            [.. Enumerable.Repeat(500, 2_000)],
            [.. Enumerable.Range(0, 2_000)]
        );
        page.Apply(new Replica(1, Guid.NewGuid()).Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 200, 0xFF), 1, across), 1));
        var printed = new PrintedPage(page, Paper.ParseOrDefault("a6-blank-710-around"), "");
        var refusal = await Assert.ThrowsAsync<PrintBudgetException>(() =>
            PdfExport.Write("Much", new[] { printed }.ToAsyncEnumerable(), default)
        );
        Assert.Contains("Export fewer pages", refusal.Message, StringComparison.Ordinal);
        var cancelled = printed with { Paper = Paper.ParseOrDefault("a4-blank-710"), Cancel = new CancellationToken(canceled: true) };
        Assert.Throws<OperationCanceledException>(() => PageSvg.Write(cancelled));
        Assert.Throws<OperationCanceledException>(() => ThumbnailSvg.Write(cancelled));
        await Assert.ThrowsAsync<OperationCanceledException>(() =>
            PdfExport.Write("Much", new[] { cancelled }.ToAsyncEnumerable(), default)
        );
    }

    /// <summary>Every pen and a filled shape: SVG and PDF hold the same outlines, and an independent reader sees ink where each was written.</summary>
    [Fact]
    public async Task Every_pen_is_the_same_in_svg_and_pdf()
    {
        var page = new PageDocument();
        var device = new Replica(1, Guid.NewGuid());
        var kinds = Enum.GetValues<PenKind>();
        foreach (var kind in kinds)
            page.Apply(
                device.Make(
                    new Change.StrokeAdded(
                        new Pen(kind, 200, 0x22302E90) { Angle = kind == PenKind.Calligraphy ? 40 : 0 },
                        1,
                        Generate.Wave(60, 3000, 3000 + (int)kind * 3000)
                    ),
                    1
                )
            );
        page.Apply(
            device.Make(
                new Change.ShapeAdded(
                    new Shape(ShapeKind.Circle, [new Corner(10_000, 26_000), new Corner(12_000, 26_000)]),
                    new Pen(PenKind.Ball, 100, 0xFF) { Line = LineStyle.Dashed },
                    0xB4533CFF,
                    []
                ),
                1
            )
        );
        var printed = new PrintedPage(page, Paper.ParseOrDefault("a4-blank-710"), "Pens & <ink>");
        var svg = XDocument.Parse(PageSvg.Write(printed));
        Assert.Equal(("210mm", "297mm"), (svg.Root!.Attribute("width")!.Value, svg.Root.Attribute("height")!.Value));
        var paths = svg.Descendants()
            .Where(element => element.Name.LocalName == "path")
            .Select(element => element.Attribute("d")!.Value)
            .ToList();
        var file = await Write("Pens", [printed]);
        Run("pdftoppm", "-r", "25.4", "-gray", file, Path.Combine(folder, "page"));
        var (width, _, pixels) = ReadPgm(Directory.GetFiles(folder, "page*.pgm").Single());
        foreach (var kind in kinds)
        {
            var top = 30 + (int)kind * 30;
            Assert.InRange(
                Enumerable.Range(top - 6, 12).SelectMany(y => Enumerable.Range(31, 20).Select(x => pixels[y * width + x])).Min(),
                0,
                210
            );
            var outline = new Outline();
            var item = page.Items.Single(one => one.Content is InkContent ink && ink.Pen.Kind == kind);
            new StrokeOutliner().Append(item.Line.Samples, item.Visible(), item.Line.Pen, (int)item.Dx, (int)item.Dy, outline);
            Assert.Contains(
                paths,
                path => path.Count(c => c == 'M') == outline.RingCount && path.Count(c => c == 'Q') == outline.PointCount
            );
        }

        Assert.InRange(pixels[260 * width + 100], 60, 140);
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
    public void A_thumbnail_is_well_formed_svg_with_ink_in_its_colour_and_its_curtains_hanging_over_it()
    {
        var sheet = Sheet("");
        sheet.Page.Apply(
            new Replica(2, Generate.People[0]).Make(
                new Change.SpotAdded(Guid.NewGuid(), SpotKind.Curtain, new Box(3000, 4000, 9000, 6000), [], []),
                5
            )
        );
        var svg = XDocument.Parse(ThumbnailSvg.Write(sheet));
        Assert.Equal(
            ("rect", "6000", "2000"),
            (
                svg.Root!.Elements().Last().Name.LocalName,
                (string?)svg.Root.Elements().Last().Attribute("width"),
                (string?)svg.Root.Elements().Last().Attribute("height")
            )
        );
        Assert.Equal("0 0 21000 29700", (string?)svg.Root!.Attribute("viewBox"));
        Assert.Contains(
            svg.Descendants(),
            element => (string?)element.Attribute("stroke") == "#22302E" && ((string?)element.Attribute("d"))!.Length > 20
        );
    }

    [Fact]
    public async Task Links_lead_to_their_pages_and_to_the_web()
    {
        var (space, notebook, first, second) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var sheet = Sheet("First") with { Id = first };
        var device = new Replica(2, Generate.People[0]);
        sheet.Page.Apply(
            device.Make(
                new Change.SpotAdded(
                    Guid.NewGuid(),
                    SpotKind.Link,
                    new Box(3000, 4000, 9000, 6000),
                    [],
                    [new SpotValue(SpotField.Target, $"page:{space}/{notebook}/{second}")]
                ),
                5
            )
        );
        sheet.Page.Apply(
            device.Make(
                new Change.SpotAdded(
                    Guid.NewGuid(),
                    SpotKind.Link,
                    new Box(3000, 8000, 9000, 9000),
                    [],
                    [new SpotValue(SpotField.Target, "https://clock.example/springs")]
                ),
                6
            )
        );
        var file = await Write("Linked", [sheet, Sheet("Second") with { Id = second }]);
        Assert.Contains("https://clock.example/springs", Run("pdfinfo", "-url", file), StringComparison.Ordinal);
        var text = System.Text.Encoding.Latin1.GetString(await File.ReadAllBytesAsync(file));
        // To the second page's object, at the place of the ink: 30 mm from the left is 85.04 pt.
        var link = LinkAnnotation().Match(text);
        Assert.True(link.Success);
        Assert.Equal(85.04, double.Parse(link.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture), 0.01);
        Assert.Contains($"{link.Groups[2].Value} 0 R", text[text.IndexOf("/Kids", StringComparison.Ordinal)..], StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_planner_prints_its_dates_and_leads_from_the_month_to_the_day()
    {
        var notebook = Guid.NewGuid();
        var settings = PlannerSettings.Read("2026-10-01/2026-10-31 monday month,day en").Settings!;
        PrintedPage Of(PlannerPage page, string paper) =>
            new(new PageDocument(), Paper.ParseOrDefault(paper), page.ToString())
            {
                Id = page.IdIn(notebook),
                PlannerPrint = new PlannerPrint(notebook, settings, page, []),
            };
        var file = await Write(
            "Planner",
            [
                Of(PlannerPage.Read("month/2026-10-01")!.Value, "a4.across-month-710"),
                Of(PlannerPage.Read("day/2026-10-08")!.Value, "a4-day-710"),
            ]
        );
        Assert.Matches("Pages: +2", Run("pdfinfo", file));
        Assert.Matches("Page +1 size: +841.8[0-9]* x 595", Run("pdfinfo", "-f", "1", "-l", "2", file));
        Assert.True(LinkAnnotation().Count(System.Text.Encoding.Latin1.GetString(await File.ReadAllBytesAsync(file))) >= 2);
        Run("pdftoppm", "-r", "25.4", "-gray", "-f", "1", "-l", "1", file, Path.Combine(folder, "month"));
        var (width, height, pixels) = ReadPgm(Directory.GetFiles(folder, "month*.pgm").Single());
        Assert.Equal((297, 210), (width, height));
        Assert.Contains(pixels, pixel => pixel < 200);
    }

    [Fact]
    public async Task An_endless_page_is_cut_into_sheets_and_an_own_paper_lies_under_its_page()
    {
        var long_ = Sheet("Endless") with { Paper = Paper.ParseOrDefault("a4-ruled-710-down") };
        var device = new Replica(3, Generate.People[0]);
        long_.Page.Apply(device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 150, 0xFF), 0, Generate.Wave(40, 3000, 80_000)), 9));
        var file = await Write("Endless", [long_]);
        // 80 cm of writing and half a sheet more: sheets of 29.7 cm.
        Assert.Matches("Pages: +4", Run("pdfinfo", file));

        var frozen = FrozenPage.Read(FrozenPage.Write(Sheet("").Page, "a4-blank-710"))!;
        file = await Write(
            "Under",
            [
                new PrintedPage(new PageDocument(), Paper.ParseOrDefault("a5-blank-710"), "")
                {
                    Under = new Background.Frozen(frozen.Page, frozen.Paper),
                },
            ]
        );
        Run("pdftoppm", "-r", "25.4", "-gray", file, Path.Combine(folder, "under"));
        var (width, _, pixels) = ReadPgm(Directory.GetFiles(folder, "under*.pgm").Single());
        // A5 is A4 by √½: the wave at 50 mm now lies at about 35 mm.
        Assert.InRange(Enumerable.Range(25, 60).Min(x => Enumerable.Range(31, 9).Min(y => pixels[y * width + x])), 0, 170);
        Assert.Null(FrozenPage.Read([1, 2, 3]));
    }

    [Theory]
    [InlineData("a4-blank-710-down", 595.28, 841.89)]
    [InlineData("a5.across-blank-710-down", 595.28, 419.53)]
    [InlineData("a5-blank-710-around", 419.53, 595.28)]
    public async Task Every_sheet_of_an_endless_page_is_as_large_as_the_paper_and_each_line_stands_on_one_of_them(
        string paper,
        double wide,
        double high
    )
    {
        // Lines of writing a centimetre apart, 6 mm high: at no sheet's end there is a gap by itself.
        const int Lines = 90;
        var page = new PageDocument();
        var device = new Replica(3, Generate.People[0]);
        for (var line = 0; line < Lines; line++)
        {
            var y = 2_000 + line * 1_000;
            page.Apply(
                device.Make(
                    new Change.StrokeAdded(
                        new Pen(PenKind.Ball, 60, 0xFF),
                        0,
                        new StrokeSamples([2_000, 2_000, 4_000], [y, y + 600, y + 600], [500, 500, 500], [0, 20, 40])
                    ),
                    9
                )
            );
        }

        var file = await Write("Endless", [new PrintedPage(page, Paper.ParseOrDefault(paper), "Endless")]);
        var info = Run("pdfinfo", "-f", "1", "-l", "99", file);
        var sizes = PageSizes().Matches(info);
        Assert.True(sizes.Count > 3);
        Assert.All(
            sizes,
            size =>
            {
                Assert.Equal(wide, double.Parse(size.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture), 0.1);
                Assert.Equal(high, double.Parse(size.Groups[2].Value, System.Globalization.CultureInfo.InvariantCulture), 0.1);
            }
        );
        // The feet of all lines are there, each once and whole: 2 cm of full black at 3 cm across; where a pixel is half covered the greys differ along one edge.
        Run("pdftoppm", "-r", "127", "-gray", file, Path.Combine(folder, "sheet"));
        var feet = 0;
        foreach (var sheet in Directory.GetFiles(folder, "sheet*.pgm"))
        {
            var (width, height, pixels) = ReadPgm(sheet);
            var most = 0;
            for (var x = 0; x < width; x++)
            {
                // Where the page reaches to the left the lines lie elsewhere on the sheet: the middle of a foot has ink to its left and right.
                bool Black(int y, int at) => at >= 0 && at < width && pixels[y * width + at] < 60;
                var column = Enumerable
                    .Range(1, height - 1)
                    .Count(y =>
                        Black(y, x) && !Black(y - 1, x) && Black(y, x - 40) && Black(y, x + 40) && !Black(y, x - 58) && Black(y, x - 48)
                    );
                // At the very edge of what is met this way, some feet already are and some are not.
                most = Math.Max(most, column);
            }

            feet += most;
        }

        Assert.Equal(Lines, feet);
    }

    [GeneratedRegex(@"Page +\d+ size: +([\d.]+) x ([\d.]+)")]
    private static partial Regex PageSizes();

    [Fact]
    public void A_jpeg_is_known_by_its_head_and_anything_else_is_not()
    {
        byte[] head = [0xFF, 0xD8, 0xFF, 0xE0, 0, 4, 0, 0, 0xFF, 0xC0, 0, 17, 8, 0x01, 0x2C, 0x02, 0x58, 3, 0, 0, 0, 0, 0, 0, 0, 0, 0];
        Assert.Equal((600, 300, 3), JpegFile.Read(head));
        for (var length = 0; length < 18; length++)
            Assert.Null(JpegFile.Read(head.AsSpan(0, length)));
        Gen.Byte.Array[0, 60]
            .Sample(bytes => Assert.True(JpegFile.Read([0xFF, 0xD8, .. bytes]) is null or { Width: > 0, Height: > 0 }), iter: 3000);
    }

    [Fact]
    public void Follow_ups_are_written_so_that_markdown_and_spreadsheets_read_them_as_they_are()
    {
        FollowUpLists.Line[] lines =
        [
            new(
                "Ask",
                "why *30*\n[teeth]?",
                "Anchor, \"deadbeat\"",
                "page 3",
                "https://quill.example/page/1",
                "Tobias",
                "2026-10-09",
                DateTimeOffset.UnixEpoch,
                null
            ),
            new(
                "To do",
                "=1+1",
                "Bench",
                "page 1",
                "https://quill.example/page/2",
                "",
                "",
                DateTimeOffset.UnixEpoch,
                DateTimeOffset.UnixEpoch
            ),
        ];
        var markdown = FollowUpLists.Markdown(lines);
        Assert.Contains(
            """- [ ] Ask: why \*30\* \[teeth\]? ([page 3](<https://quill.example/page/1>), for Tobias, due 2026-10-09)""",
            markdown,
            StringComparison.Ordinal
        );
        Assert.Contains("- [x] To do: =1+1 ([page 1](<https://quill.example/page/2>))", markdown, StringComparison.Ordinal);
        // RFC 4180: quoted where needed, quotes doubled; and no formula for a spreadsheet.
        var rows = FollowUpLists.Csv(lines).Split("\r\n");
        Assert.StartsWith(
            "Ask,\"why *30*\n[teeth]?\",\"Anchor, \"\"deadbeat\"\"\",page 3,https://quill.example/page/1,Tobias,2026-10-09,1970-01-01 00:00,",
            rows[1],
            StringComparison.Ordinal
        );
        Assert.StartsWith("To do,'=1+1,Bench,page 1,https://quill.example/page/2,,,", rows[2], StringComparison.Ordinal);
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

    [GeneratedRegex(@"/Subtype /Link /Border \[0 0 0\] /Rect \[([\d.]+) [^\]]+\] /Dest \[(\d+) 0 R")]
    private static partial Regex LinkAnnotation();

    [GeneratedRegex(@"Page size: +([\d.]+) x ([\d.]+) pts")]
    private static partial Regex PageSize();
}
