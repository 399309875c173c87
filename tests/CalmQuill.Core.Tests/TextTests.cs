using System.Globalization;
using System.Text;
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

    /// <summary>Bidirectional controls of UAX #9, other invisible formatting, and joiners where nothing joins (UAX #31, 2.3).</summary>
    [Theory]
    [InlineData("invoice\u202Efdp.exe")]
    [InlineData("\u202Aleft\u202C")]
    [InlineData("\u202Dleft")]
    [InlineData("\u2066isolated\u2069")]
    [InlineData("left\u200Eright")]
    [InlineData("soft\u00ADhyphen")]
    [InlineData("zero\u200Bwidth")]
    [InlineData("word\u2060joiner")]
    [InlineData("\uFEFFmark")]
    [InlineData("a\u200Db")]
    [InlineData("a\u200Cb")]
    [InlineData("\u200Dalone")]
    [InlineData("ends \u0646\u200C")]
    [InlineData("tag\U000E0067")]
    public void Names_with_invisible_controls_are_refused_and_cleaned_of_them(string name)
    {
        Assert.Contains("invisible", Names.Problem(name)?.English, StringComparison.Ordinal);
        var cleaned = Names.Cleaned(name);
        Assert.Null(Names.Problem(cleaned));
        Assert.Equal(string.Concat(name.EnumerateRunes().Where(rune => Rune.GetUnicodeCategory(rune) != UnicodeCategory.Format)), cleaned);
    }

    [Theory]
    // Persian with a non-joiner; Sinhala and Malayalam conjuncts with a joiner.
    [InlineData("\u0645\u06CC\u200C\u062E\u0648\u0627\u0647\u0645")]
    [InlineData("\u0DC1\u0DCA\u200D\u0DBB\u0DD3")]
    [InlineData("\u0D28\u0D4D\u200D")]
    // A family, a profession with its variation selector, a flag of a region, a skin tone.
    [InlineData("\U0001F469\u200D\U0001F467\u200D\U0001F466")]
    [InlineData("\U0001F469\U0001F3FD\u200D\u2695\uFE0F")]
    [InlineData("\U0001F3F4\U000E0067\U000E0062\U000E0073\U000E0063\U000E0074\U000E007F")]
    // Arabic number sign, which is seen; Hebrew, which needs no control.
    [InlineData("\u0600\u0661")]
    [InlineData("\u05E9\u05E2\u05D5\u05DF 12 (clock)")]
    public void Names_keep_the_joiners_that_scripts_and_emoji_need(string name)
    {
        // One joiner at the end of a word belongs to an old spelling and is dropped alone.
        var spelled = name.TrimEnd('\u200D');
        Assert.Null(Names.Problem(spelled));
        Assert.Equal(spelled, Names.Cleaned(spelled));
    }

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
