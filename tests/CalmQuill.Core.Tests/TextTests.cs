using CalmQuill.Core.Library;
using CalmQuill.Core.Text;
using CsCheck;

namespace CalmQuill.Core.Tests;

public class TextTests
{
    // UAX #15: figures 1 to 6 and table 1 for the decompositions; the rest are letters that people type plainly (common practice).
    [Theory]
    [InlineData("Échappement à ancre", "echappement a ancre")]
    [InlineData("\u212B \u00C5 A\u030A", "a a a")]
    [InlineData("\uFB01ne", "fine")]
    [InlineData("2\u2075", "25")]
    [InlineData("\u1E9B\u0323", "s")]
    [InlineData("\u24B6\u2460 \uFF21\uFF42\uFF43", "a1 abc")]
    [InlineData("\U0001D4D7\U0001D4EE\U0001D4F6\U0001D4F6\U0001D4FE\U0001D4F7\U0001D4F0", "hemmung")]
    [InlineData("Straße, Øresund, Łódź, Æther", "strasse, oresund, lodz, aether")]
    [InlineData("ΩΜΈΓΑ ДЁЖ", "ωμεγα деж")]
    [InlineData("\uAC00\uAC01", "\u1100\u1161\u1100\u1161\u11A8")]
    [InlineData("  two \t words\u00A0 ", "two words")]
    public void Decoration_accents_case_and_width_do_not_count(string text, string folded) => Assert.Equal(folded, Folding.Fold(text));

    [Fact]
    public void Folding_what_is_folded_changes_nothing() =>
        Gen.Int[0, 0x10FFFF]
            .Where(code => code is < 0xD800 or > 0xDFFF)
            .Select(char.ConvertFromUtf32)
            .Array[0, 12]
            .Select(string.Concat)
            .Sample(text => Assert.Equal(Folding.Fold(text), Folding.Fold(Folding.Fold(text))), iter: 2000);

    [Fact]
    public void Names_stand_in_the_order_that_people_expect()
    {
        string[] expected =
        [
            "2 clocks",
            "10 clocks",
            "Émile",
            "Unit 2",
            "Unit 2, part 9",
            "Unit 2, part 10",
            "unit 007",
            "Unit 10",
            "Zeno",
        ];
        Assert.Equal(expected, expected.Reverse().OrderBy(NaturalOrder.Key, StringComparer.Ordinal));
    }

    [Theory]
    [InlineData("")]
    [InlineData("   \t")]
    [InlineData("\u200B\u200D\uFEFF")]
    [InlineData("two\nlines")]
    [InlineData("a\u2028b")]
    [InlineData("a\u0000b")]
    public void Names_that_cannot_be_seen_or_are_not_one_line_are_refused(string name) => Assert.NotNull(Names.Problem(name));

    [Fact]
    public void Names_have_two_hundred_characters_in_any_script()
    {
        foreach (var letter in new[] { "x", "ख", "👩‍🔧", "e\u0301", "漢" })
        {
            Assert.Null(Names.Problem(string.Concat(Enumerable.Repeat(letter, Names.MostCharacters))));
            Assert.NotNull(Names.Problem(string.Concat(Enumerable.Repeat(letter, Names.MostCharacters + 1))));
        }

        Assert.NotNull(Names.Problem(new string('x', 5000)));
    }
}
