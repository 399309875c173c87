using System.Xml.Linq;
using CalmQuill.Core.Formulas;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Writing;
using CalmQuill.Documents.Letters;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Testing;
using static CalmQuill.Testing.Poppler;

namespace CalmQuill.Documents.Tests;

/// <summary>Formulas as they are set in type, and in files.</summary>
public sealed class FormulaTests : OnPaper
{
    [Fact]
    public async Task What_is_shown_is_read_back_from_the_file_and_the_font_is_in_it()
    {
        Put("T = 2 pi sqrt(L/g)\n(1 + 1/n)^n", "", 6_000);
        Put("3x - 4 = x + 8", "solve steps", 14_000);
        var read = Run("pdftotext", "-layout", await Pdf(), "-");
        foreach (var letters in new[] { "𝑇 = 2𝜋", "√𝑔", "3𝑥 − 4 = 𝑥 + 8", "| −𝑥", "2𝑥 − 4 = 8", "| +4", "2𝑥 = 12" })
            Assert.Contains(letters, read, StringComparison.Ordinal);
        Assert.Matches("(?i)math.*yes yes yes", Run("pdffonts", Path.Combine(Folder, "out.pdf")));
    }

    [Fact]
    public async Task The_same_is_painted_in_both_kinds_of_file()
    {
        var formula = Put("\\frac{a}{b} + \\sqrt{x}", "", 5_000, 3_000);
        var svg = Path.Combine(Folder, "page.svg");
        await File.WriteAllTextAsync(svg, PageSvg.Write(Printed()));
        // a, b, plus, the root's sign and x; the line of the fraction and that over the root are filled.
        Assert.Equal(5, XDocument.Load(svg).Descendants().Count(element => element.Name.LocalName == "use"));
        Assert.Equal(2, Drawn(formula).Bars.Count);
        Run("pdftoppm", "-r", "100", "-gray", await Pdf(), Path.Combine(Folder, "pdf"));
        var (width, _, pixels) = ReadPgm(Directory.GetFiles(Folder, "pdf*.pgm").Single());
        var box = ((FormulaContent)Page.Find(formula)!.Content).Bounds;
        // Where its box is there are dark letters, and left of it there are none.
        Assert.Contains(Pixels(box.Left, box.Right), pixel => pixel < 90);
        Assert.DoesNotContain(Pixels(box.Left - 1_000, box.Left), pixel => pixel < 90);

        IEnumerable<byte> Pixels(int left, int right)
        {
            for (var y = Dots(box.Top); y <= Dots(box.Bottom); y++)
            {
                for (var x = Dots(left); x < Dots(right); x++)
                    yield return pixels[y * width + x];
            }
        }

        static int Dots(int length) => (int)(length / 2_540.0 * 100);
    }

    /// <summary>Rules of type-setting (Knuth, “The TeXbook”, appendix G), by what stands where.</summary>
    [Fact]
    public void Things_stand_over_under_and_beside_each_other_as_they_should()
    {
        var (fraction, alone) = (Of("\\frac{1}{2}"), Of("x"));
        var line = Assert.Single(fraction.Bars);
        var (one, two) = (Letter(fraction, "1"), Letter(fraction, "2"));
        Assert.True(one.Y < line[0].Y && two.Y > line[0].Y, "the numbers stand over and under the line");
        // Raised letters are smaller and higher, lowered ones lower.
        var scripts = Of("x_i^n");
        Assert.True(Letter(scripts, "𝑛").Y < 0 && Letter(scripts, "𝑖").Y > 0);
        Assert.True(SizeOf(Letter(scripts, "𝑛").Label) < SizeOf(Letter(alone, "𝑥").Label));
        // Brackets grow with what they hold, and stand as far over its middle as below.
        var (small, large) = (Of("(x)").Extent, Of("\\left(\\frac{1}{\\frac{1}{\\frac{1}{x}}}\\right)").Extent);
        Assert.True(large.Ascent + large.Bottom > 3 * (small.Ascent + small.Bottom));
        // A sum that stands alone has its bounds over and under it.
        var sum = Of("\\sum_{k=1}^{n} k");
        Assert.InRange(Math.Abs(Middle(sum, "𝑛") - Middle(sum, "∑")), 0, 40);
        // There is room around what stands between, and none behind a sign that is a sign.
        Assert.True(Letter(Of("a-b"), "𝑏").X > Letter(Of("ab"), "𝑏").X + 150);
        Assert.Equal(Letter(Of("-b"), "𝑏").X, Letter(Of("-b = c"), "𝑏").X, 1.0);
    }

    /// <summary>Every glyph lies in the box that the font says it has, by the outline that is drawn of it.</summary>
    [Fact]
    public void Outlines_lie_in_the_boxes_that_the_font_gives_for_them()
    {
        foreach (var name in new[] { Core.Typesetting.Families.Formulas, "serif", "emoji" })
        {
            var file = Core.Typesetting.Fonts.Find(name)!.File;
            for (var glyph = 0; glyph < file.GlyphCount; glyph += 7)
            {
                var (left, bottom, right, top) = file.BoxOf(glyph);
                var points = file.OutlineOf(glyph).Points;
                for (var i = 0; i < points.Count; i += 2)
                {
                    // Points off a curve may lie outside of what the curve reaches, but not far.
                    Assert.InRange(points[i], left - 200, right + 200);
                    Assert.InRange(-points[i + 1], bottom - 200, top + 200);
                }

                Assert.Equal(points.Count == 0, (left, bottom, right, top) == default);
            }
        }
    }

    /// <summary>Each size of a bracket in the font, and above the largest one put together of pieces without a gap.</summary>
    [Fact]
    public void Brackets_are_as_high_as_what_they_hold()
    {
        double before = 0;
        for (var rows = 1; rows <= 30; rows += 2)
        {
            var drawn = Of($"\\begin{{pmatrix}} {string.Join(" \\\\ ", Enumerable.Repeat("1", rows))} \\end{{pmatrix}}");
            var pieces = drawn.Labels.Where(label => TextOf(label.Label) == "(").OrderBy(label => label.Y).ToList();
            var (top, bottom) = (drawn.Extent.Ascent, drawn.Extent.Bottom);
            Assert.True(top + bottom > before, "it grows");
            before = top + bottom;
            var numbers = drawn.Labels.Where(label => TextOf(label.Label) == "1").Select(label => label.Y).ToList();
            // Nine tenths of what it holds are covered at least.
            Assert.True(numbers.Max() - numbers.Min() <= (top + bottom) * 1.05, $"{rows} rows");
            Assert.True(rows < 12 || pieces.Count > 1, "a high one is put together");
        }
    }

    [Fact]
    public void Its_lines_stand_under_each_other_by_the_sign_between_their_sides()
    {
        var drawn = new DrawnFormula("3x - 4 = x + 8", "solve steps", "");
        var signs = drawn.Labels.Where(label => TextOf(label.Label) == "=").ToList();
        Assert.Equal(4, signs.Count);
        Assert.All(signs, sign => Assert.Equal(signs[0].X, sign.X, 2.0));
        // What came out is underlined twice, and what is done next stands beside each line, one under the other.
        Assert.Equal(2, drawn.Bars.Count);
        var notes = drawn.Labels.Where(label => TextOf(label.Label) == "|").ToList();
        Assert.Equal(3, notes.Count);
        Assert.All(notes, note => Assert.Equal(notes[0].X, note.X, 2.0));
        Assert.True(notes[0].X > drawn.Labels.Where(label => TextOf(label.Label) == "8").Max(label => label.X));
    }

    private static DrawnFormula Of(string typed) => new(typed, "", "");

    private static (Core.Typesetting.Label Label, double X, double Y) Letter(DrawnFormula drawn, string letter) =>
        drawn.Labels.Single(label => TextOf(label.Label) == letter);

    private static double Middle(DrawnFormula drawn, string letter) =>
        Letter(drawn, letter) is var (label, x, _) ? x + label.Width / 2.0 : 0;

    private static string TextOf(Core.Typesetting.Label label) =>
        string.Concat(label.Set.Paragraphs[0].Paragraph.Lines[0].Pieces.Select(piece => piece.Shape.Text));

    private static int SizeOf(Core.Typesetting.Label label) => label.Set.Paragraphs[0].Paragraph.Lines[0].Size;

    private DrawnFormula Drawn(OpId id) => ((FormulaContent)Page.Find(id)!.Content).Drawn;

    private OpId Put(string typed, string shows, int y, int x = 1_500)
    {
        var made = Device.Make(
            new Change.ThingAdded(
                ThingKind.Formula,
                Transform.Shift(x, y),
                100,
                100,
                new Passage(typed, []),
                shows.Length > 0 ? [new ItemValue(ItemField.Shows, shows)] : []
            ),
            1_000
        );
        Assert.True(Page.Apply(made));
        return made.Id;
    }
}
