using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Papers;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Papers: their sizes and text form, what is printed on them, growing, contrast, and cutting into sheets.</summary>
public class PaperTests
{
    /// <summary>ISO 216:2007, and ANSI/ASME Y14.1 in 0.01 mm (1 inch is 25.4 mm); Legal by common practice.</summary>
    [Theory]
    [InlineData("a3", 29700, 42000)]
    [InlineData("a4", 21000, 29700)]
    [InlineData("a5", 14800, 21000)]
    [InlineData("a6", 10500, 14800)]
    [InlineData("b5", 17600, 25000)]
    [InlineData("letter", 21590, 27940)]
    [InlineData("legal", 21590, 35560)]
    [InlineData("tabloid", 27940, 43180)]
    public void Sizes_are_those_of_the_standards_upright_and_across(string name, int width, int height)
    {
        var upright = Paper.ParseOrDefault($"{name}-blank-710");
        var across = Paper.ParseOrDefault($"{name}.across-blank-710");
        Assert.Equal((width, height), (upright.Width, upright.Height));
        Assert.Equal((height, width), (across.Width, across.Height));
    }

    [Fact]
    public void The_text_form_says_all_and_reads_back_the_same() =>
        Gen.Select(
                Gen.Int[0, PaperDesigns.All.Length - 1],
                Gen.Int[0, PaperSize.Named.Length],
                Gen.Int[Paper.LeastSpacing, Paper.MostSpacing],
                Gen.Int[0, 2047],
                Gen.UInt,
                Gen.Int[1, Paper.MostCount]
            )
            .Sample(
                (design, size, spacing, switches, colour, number) =>
                {
                    bool On(int bit) => (switches >> bit & 1) == 1;
                    var paper = new Paper(
                        size < PaperSize.Named.Length ? PaperSize.Named[size] : PaperSize.Find("15000x9000")!.Value,
                        PaperDesigns.All[design],
                        spacing
                    )
                    {
                        Across = On(0),
                        Growth = (Growth)(switches % 3),
                        Head = On(1) ? number * 50 : null,
                        Margin = On(2) ? number * 40 : null,
                        Count = On(3) ? number : null,
                        Tint = On(4) ? colour | 0xFF : null,
                        LineTint = On(5) ? colour | 0xFF : null,
                        Weight = On(6) ? 5 + number : null,
                        Plain = On(7),
                        Paired = On(8),
                        Grain = On(9),
                        Headed = On(10),
                        Own = On(1) ? new Guid(number, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10) : Guid.Empty,
                    };
                    Assert.Equal(paper, PaperText.Read(paper.ToString()).Paper);
                    Assert.DoesNotContain(paper.ToString(), c => !(char.IsAsciiLetterOrDigit(c) || c is '-' or '.'));
                },
                iter: 2000
            );

    [Theory]
    [InlineData("a4-ruled-0", "1 to 60 mm")]
    [InlineData("a4-ruled-10000", "1 to 60 mm")]
    [InlineData("a4-ruled--5", "1 to 60 mm")]
    [InlineData("a4-velvet-710", "not known")]
    [InlineData("10x10-blank-710", "20 mm to 2 m")]
    [InlineData("999999x21000-blank-710", "20 mm to 2 m")]
    [InlineData("a4-ruled-710-head.99999999", "lies on the sheet")]
    [InlineData("a4-staves-180-count.0", "1 to 60 columns")]
    [InlineData("a4-ruled-710-tint.xyz", "six hexadecimal")]
    [InlineData("a4-ruled-710-own.1234", "not known")]
    [InlineData("", "not known")]
    public void A_paper_that_cannot_be_is_refused_in_words(string text, string words)
    {
        var (paper, refusal) = PaperText.Read(text);
        Assert.Null(paper);
        Assert.Contains(words, refusal!.Sentence.English, StringComparison.Ordinal);
    }

    /// <summary>Every design on every kind of sheet, at the ends of its settings: something is printed, all of it near the sheet, and not too much of it.</summary>
    [Fact]
    public void Every_design_can_be_laid_on_every_sheet()
    {
        foreach (var design in PaperDesigns.All)
        {
            foreach (var size in new[] { "a6", "a4", "a3", "square", "2000x2000", "200000x2000" })
            {
                foreach (var spacing in new[] { Paper.LeastSpacing, design.Spacing, Paper.MostSpacing })
                {
                    foreach (var count in new[] { 1, design.UsualCount, design.MostCount })
                    {
                        var paper = new Paper(PaperSize.Find(size)!.Value, design, spacing) { Count = count };
                        var drawing = paper.Draw(paper.Sheet(null));
                        foreach (var path in Paths(drawing))
                        {
                            Assert.All(path.Points, point => Assert.True(float.IsFinite(point)));
                            Assert.True(path.Points.Count < 400_000, $"{design.Name} on {size} at {spacing}");
                        }

                        if (design.Name != "blank" && size == "a4" && spacing == design.Spacing)
                            Assert.NotEmpty(drawing.Pieces);
                    }
                }
            }
        }
    }

    /// <summary>What the settings offer for a design is seen on its sheet, and what they do not offer changes nothing.</summary>
    [Fact]
    public void First_line_margin_and_header_are_drawn_where_a_design_has_them()
    {
        foreach (var design in PaperDesigns.All)
        {
            var paper = new Paper(PaperSize.A4, design, design.Spacing);
            string Drawn(Paper other) =>
                string.Join(
                    '|',
                    other
                        .Draw(other.Sheet(null))
                        .Pieces.Select(piece =>
                            piece switch
                            {
                                Piece.Fill fill => fill.Path.ToSvg(),
                                Piece.Line line => line.Path.ToSvg(),
                                _ => "",
                            }
                        )
                );
            var plain = Drawn(paper);
            var margin = paper with { Margin = 2_200 };
            Assert.Equal(design.MarginWords.Length > 0, Drawn(margin) != plain);
            Assert.Equal(design.CanBeHeaded, Drawn(paper with { Headed = true }) != plain);
            // The usual measures are what is drawn without any.
            if (design.HasHead)
                Assert.NotEqual(plain, Drawn(paper with { Head = 6_000 }));
            if (design.HasHead && design.UsualHead(paper) > 0)
                Assert.Equal(plain, Drawn(paper with { Head = design.UsualHead(paper) }));
            if (design.MarginWords.Length > 0 && design.UsualMargin(paper) > 0)
                Assert.Equal(plain, Drawn(paper with { Margin = design.UsualMargin(paper) }));
        }

        // Squares begin below a header and where they are wished to.
        foreach (var (text, from) in new[] { ("a4-squared-500-head.4000", 4000f), ("a4-dotted-500-headed", 2000f) })
        {
            var paper = Paper.ParseOrDefault(text);
            var lines = paper.Draw(paper.Sheet(null)).Pieces.OfType<Piece.Line>().MaxBy(line => line.Path.Points.Count)!;
            Assert.Equal(from, lines.Path.Points.Where((_, i) => i % 2 == 1).Min());
        }

        Assert.Equal(["wide", "screen"], PaperSize.Named.Where(size => size.LiesAcross).Select(size => size.Name));
    }

    [Fact]
    public void Every_ready_paper_is_one() =>
        Assert.All(PaperDesigns.Ready, ready => Assert.NotNull(PaperText.Read($"a4-{ready.Design}").Paper));

    /// <summary>Common practice: five lines a staff; narrow 6.4, college 7.1 and wide 8.7 mm.</summary>
    [Fact]
    public void Rulings_have_their_measures()
    {
        static float[] Heights(string paper) =>
            [
                .. Paths(Paper.ParseOrDefault(paper).Draw(Paper.ParseOrDefault(paper).Sheet(null)))
                    .SelectMany(path => path.Points.Where((_, i) => i % 2 == 1))
                    .Distinct()
                    .Order(),
            ];
        foreach (var spacing in new[] { 640, 710, 870 })
        {
            var lines = Heights($"a4-ruled-{spacing}");
            Assert.All(lines.Zip(lines.Skip(1)), pair => Assert.Equal(spacing, pair.Second - pair.First, 0.01f));
        }

        Assert.Equal(5 * 12, Heights("a4-staves-180-count.12").Length);
        Assert.Equal(6 * 7, Heights("a4-guitar-280-count.7-plain").Length);
        Assert.Equal(4 * 7, Heights("a4-bass-320-count.7-plain").Length);
    }

    [Fact]
    public void Lines_can_be_seen_on_any_paper_and_words_read()
    {
        // WCAG 2.2: black on white is 21 to 1; #767676 on white is the known edge of 4.5.
        Assert.Equal(21, Colours.Contrast(0x000000FF, 0xFFFFFFFF), 0.01);
        Assert.InRange(Colours.Contrast(0x767676FF, 0xFFFFFFFF), 4.5, 4.6);
        Gen.UInt.Sample(
            colour =>
            {
                var tint = colour | 0xFF;
                var paper = Paper.Default with { Tint = tint };
                Assert.True(Colours.Contrast(paper.LineColour, tint) >= 1.44);
                Assert.True(Colours.Contrast(Colours.StandingOut(0x6B6A5EFF, tint, 4.5), tint) >= 4.5);
            },
            iter: 2000
        );
    }

    [Fact]
    public void A_growing_sheet_always_has_room_below_its_ink_and_keeps_its_lines() =>
        Gen.Select(Gen.Int[-400_000, 400_000], Gen.Int[-400_000, 400_000], Gen.Int[0, 50_000], Gen.Bool)
            .Sample(
                (x, y, size, all) =>
                {
                    var paper = Paper.Default with { Growth = all ? Growth.All : Growth.Down };
                    var ink = new Box(x, y, x + size, y + size);
                    var sheet = paper.Sheet(ink);
                    Assert.True(sheet.Left <= 0 && sheet.Top <= 0 && sheet.Right >= paper.Width && sheet.Bottom >= paper.Height);
                    Assert.True(sheet.Bottom > ink.Bottom);
                    if (!all)
                        Assert.Equal((0, 0, paper.Width), (sheet.Left, sheet.Top, sheet.Right));
                    else
                        Assert.True(sheet.Left <= ink.Left && sheet.Right >= ink.Right && sheet.Top <= ink.Top);
                    Assert.Equal(0, (sheet.Bottom - paper.Height) % paper.Spacing);
                },
                iter: 2000
            );

    [Fact]
    public void Cuts_split_no_stroke_where_a_gap_is_near()
    {
        // Lines of writing 5 mm high every 10 mm: with sheets of 100 mm no cut runs through one.
        var ink = Enumerable.Range(0, 60).Select(i => (From: i * 1000 + 200, To: i * 1000 + 700)).ToList();
        var cuts = SheetCuts.Of(0, 60_000, 10_250, ink);
        Assert.All(cuts, cut => Assert.DoesNotContain(ink, line => line.From < cut && cut < line.To));
        // A stroke over everything is cut at the sheet's end, since there is no gap.
        Assert.Equal([0, 10_000, 20_000, 25_000], SheetCuts.Of(0, 25_000, 10_000, [(0, 25_000)]));
        Gen.Select(Gen.Int[1, 200_000], Gen.Int[2_000, 30_000], Gen.Select(Gen.Int[0, 200_000], Gen.Int[0, 9_000]).Array[0, 40])
            .Sample(
                (length, sheet, strokes) =>
                {
                    var cuts = SheetCuts.Of(0, length, sheet, strokes.Select(stroke => (stroke.Item1, stroke.Item1 + stroke.Item2)));
                    Assert.Equal((0, length), (cuts[0], cuts[^1]));
                    Assert.All(cuts.Zip(cuts.Skip(1)), pair => Assert.InRange(pair.Second - pair.First, 1, sheet));
                },
                iter: 2000
            );
    }

    [Fact]
    public void Printed_words_fit_and_unknown_letters_are_drawn_as_boxes()
    {
        Assert.Equal("Week", Glyphs.Fit("Week", 300, Glyphs.Width("Week", 300)));
        var cut = Glyphs.Fit("Wednesday 25 November", 300, 1500);
        Assert.EndsWith("…", cut, StringComparison.Ordinal);
        Assert.True(Glyphs.Width(cut, 300) <= 1500);
        Assert.False(Glyphs.Write("水", 0, 0, 300).IsEmpty);
        Assert.All(
            Planner.CalendarNames.All.SelectMany(names => names.Months.Concat(names.Days)),
            name => Assert.True(Glyphs.Width(name, 1000) > 0)
        );
    }

    private static IEnumerable<VectorPath> Paths(Drawing drawing) =>
        drawing.Pieces.Select(piece =>
            piece switch
            {
                Piece.Fill fill => fill.Path,
                Piece.Line line => line.Path,
                _ => new VectorPath(),
            }
        );
}
