using System.Globalization;
using System.Text;
using CalmQuill.Core.Typesetting;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>
/// Where lines end and in which direction they run, held against slices of the Unicode Consortium's own test files, version 16: see <c>make-
/// unicode.mjs</c>.
/// </summary>
public sealed class TypesettingTests
{
    /// <summary>LineBreakTest-16.0.0.txt, every fifth case and all that are longer than a few signs.</summary>
    [Fact]
    public void Lines_may_end_where_the_line_breaking_algorithm_lets_them()
    {
        var wrong = new List<string>();
        foreach (var line in Slice("lines"))
        {
            var parts = line.Split(' ');
            var text = new StringBuilder();
            var wanted = new List<(int At, bool Breaks)>();
            for (var i = 0; i < parts.Length; i++)
            {
                if (i % 2 == 0)
                    wanted.Add((text.Length, parts[i] == "÷"));
                else
                    text.Append(char.ConvertFromUtf32(Hex(parts[i])));
            }

            var breaks = LineBreaks.Of(text.ToString());
            if (wanted.Skip(1).Any(place => breaks[place.At] != LineBreak.None != place.Breaks))
                wrong.Add(line);
        }

        Assert.True(wrong.Count == 0, $"{wrong.Count}: {string.Join(" | ", wrong.Take(6))}");
    }

    /// <summary>What runs from the left needs no working out: the short way comes to what the rules come to.</summary>
    [Fact]
    public void Writing_from_the_left_alone_is_settled_without_the_rules_and_as_by_them()
    {
        string[] signs =
        [
            "a",
            "Ж",
            "λ",
            " ",
            "1",
            ",",
            "+",
            "€",
            "(",
            ")",
            "«",
            "\u0301",
            "–",
            "…",
            "\u00A0",
            "字",
            "あ",
            "한",
            "\t",
            "ש",
            "م",
            "٣",
            "\u202E",
            "\u2067",
            "\u2069",
            "\u200F",
            "𝄞",
        ];
        Gen.Select(Gen.Int[0, signs.Length - 1].Select(i => signs[i]).List[0, 40], Gen.Int[0, 2])
            .Sample(
                (letters, way) =>
                {
                    var text = string.Concat(letters);
                    bool? fromRight = way == 0 ? null : way == 1;
                    var (levels, isFromRight) = Bidi.LevelsOf(text, fromRight);
                    var (byRules, wanted) = Bidi.Resolved(text, fromRight);
                    Assert.Equal(wanted, isFromRight);
                    Assert.Equal(byRules, levels);
                },
                iter: 4_000
            );
        // Every sign for which the short way is taken by itself, among letters and numbers.
        for (var code = 0; code <= 0xD7FF; code++)
        {
            if (char.IsSurrogate((char)code) || code is '\n' or '\r' or 0x85 or 0x1C or 0x1D or 0x1E or 0x2029)
                continue;
            var text = $"a{(char)code}1 {(char)code}";
            Assert.Equal(Bidi.Resolved(text, null).Levels, Bidi.LevelsOf(text, null).Levels);
        }
    }

    [Fact]
    public void A_line_must_end_at_line_breaks_and_nowhere_within_a_sign()
    {
        Gen.Int[0, 12]
            .Select(i => (new[] { "a", " ", "\n", "\r", "é", "e\u0301", "𝄞", "👩‍🔧", "—", "1", ".", "(", "\uD834" })[i])
            .List[0, 30]
            .Sample(
                signs =>
                {
                    var text = string.Concat(signs);
                    var breaks = LineBreaks.Of(text);
                    Assert.Equal(text.Length + 1, breaks.Length);
                    Assert.Equal(LineBreak.Must, breaks[^1]);
                    for (var i = 1; i < text.Length; i++)
                    {
                        if (char.IsSurrogatePair(text[i - 1], text[i]) || text[i] == '\u0301' && text[i - 1] == 'e' || text[i] == '\u200D')
                            Assert.Equal(LineBreak.None, breaks[i]);
                        if (text[i - 1] == '\n' || (text[i - 1] == '\r' && text[i] != '\n'))
                            Assert.Equal(LineBreak.Must, breaks[i]);
                    }
                },
                iter: 2_000
            );
    }

    /// <summary>BidiCharacterTest-16.0.0.txt, every thirtieth case.</summary>
    [Fact]
    public void Letters_run_as_the_bidirectional_algorithm_has_them()
    {
        var wrong = new List<string>();
        foreach (var line in Slice("letters"))
        {
            var parts = line.Split(';');
            var codes = parts[0].Split(' ').Select(Hex).ToList();
            var classes = codes.Select(code => SignTable.Of(code).Bidi).ToArray();
            var (levels, start) = new BidiParagraph(classes, codes).Resolve(
                parts[1] switch
                {
                    "0" => false,
                    "1" => true,
                    _ => null,
                }
            );
            var wanted = parts[3].Split(' ');
            if (start.ToString(CultureInfo.InvariantCulture) != parts[2] || !Agree(levels, wanted))
                wrong.Add(line);
            // Of what is passed over nothing is said.
            var shown = Enumerable.Range(0, levels.Length).Where(i => wanted[i] != "x").ToArray();
            var order = Bidi.Order(shown.Select(i => levels[i]).ToArray()).Select(place => shown[place]);
            if (string.Join(' ', order) != parts[4])
                wrong.Add($"order {line}");
        }

        Assert.True(wrong.Count == 0, $"{wrong.Count}: {string.Join(" | ", wrong.Take(6))}");
    }

    /// <summary>BidiTest-16.0.0.txt, every hundredth case: classes alone, in each of the directions that it names.</summary>
    [Fact]
    public void Classes_run_as_the_bidirectional_algorithm_has_them()
    {
        var wrong = new List<string>();
        foreach (var line in Slice("classes"))
        {
            var parts = line.Split(';');
            var classes = parts[0].Split(' ').Select(Enum.Parse<BidiClass>).ToArray();
            var wanted = parts[2].Split(' ');
            var which = int.Parse(parts[1], CultureInfo.InvariantCulture);
            foreach (var (bit, direction) in new (int, bool?)[] { (1, null), (2, false), (4, true) })
            {
                if ((which & bit) != 0 && !Agree(new BidiParagraph(classes, null).Resolve(direction).Levels, wanted))
                    wrong.Add($"{line} {direction}");
            }
        }

        Assert.True(wrong.Count == 0, $"{wrong.Count}: {string.Join(" | ", wrong.Take(6))}");
    }

    [Fact]
    public void Each_code_unit_has_the_level_of_its_letter_and_brackets_turn_round()
    {
        var (levels, fromRight) = Bidi.LevelsOf("\uD802\uDC00a", null);
        Assert.True(fromRight);
        Assert.Equal<byte>([1, 1, 2], levels);
        Assert.Equal<byte>([0, 0], Bidi.LevelsOf("ab", null).Levels);
        Assert.Empty(Bidi.LevelsOf("", null).Levels);
        Assert.Equal(')', SignTable.Mirrored('('));
        Assert.Equal('a', SignTable.Mirrored('a'));
    }

    [Fact]
    public void Any_text_has_levels_and_breaks_however_deep_its_directions_lie() =>
        Gen.Int[0, 16]
            .Select(i =>
                (
                    new[]
                    {
                        "\u202A",
                        "\u202B",
                        "\u202D",
                        "\u202E",
                        "\u202C",
                        "\u2066",
                        "\u2067",
                        "\u2068",
                        "\u2069",
                        "a",
                        "א",
                        "1",
                        "ا",
                        "(",
                        ")",
                        " ",
                        "\u2029",
                    }
                )[i]
            )
            .List[0, 300]
            .Sample(
                signs =>
                {
                    var text = string.Concat(signs);
                    var (levels, _) = Bidi.LevelsOf(text, null);
                    Assert.Equal(text.Length, levels.Length);
                    Assert.All(levels, level => Assert.InRange(level, 0, 127));
                    Assert.Equal(Enumerable.Range(0, text.Length), Bidi.Order(levels).Order());
                },
                iter: 1_000
            );

    private static bool Agree(byte[] levels, string[] wanted) =>
        levels.Zip(wanted).All(pair => pair.Second == "x" || pair.Second == pair.First.ToString(CultureInfo.InvariantCulture));

    private static int Hex(string code) => int.Parse(code, NumberStyles.HexNumber, CultureInfo.InvariantCulture);

    private static string[] Slice(string name) =>
        File.ReadAllLines(Path.Combine(Repository.Root, "tests", "CalmQuill.Core.Tests", $"unicode-16-{name}.txt"));
}
