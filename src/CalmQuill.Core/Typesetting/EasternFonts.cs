using System.Text;

namespace CalmQuill.Core.Typesetting;

/// <summary>
/// The fonts of Chinese, Japanese and Korean. Each is in slices of signs that are often used together, since a whole one has megabytes and a page needs a
/// few hundred of its signs. Which slice has which sign is in <c>slices.txt</c>, made by <c>src/fonts/make-eastern.mjs</c>.
/// </summary>
public static class EasternFonts
{
    public const string Chinese = "chinese";

    private const string Japanese = "japanese",
        Korean = "korean";

    /// <summary>First and last code point of what is set in these fonts; ascending.</summary>
    private static readonly (int First, int Last)[] Ranges =
    [
        (0x1100, 0x11FF),
        (0x2E80, 0x4DBF),
        (0x4E00, 0x9FFF),
        (0xA960, 0xA97F),
        (0xAC00, 0xD7FF),
        (0xF900, 0xFAFF),
        (0xFE30, 0xFE4F),
        (0xFF00, 0xFFEF),
        (0x20000, 0x323AF),
    ];

    private static readonly Lazy<List<(string Name, string Signs)>> Lines = new(Read);
    private static readonly Lazy<Dictionary<string, string>> ByName = new(() => Lines.Value.ToDictionary());

    /// <summary>Of each language the slice that has a sign. Read when something is first written in one of them.</summary>
    private static readonly Lazy<Dictionary<string, Dictionary<int, string>>> Slices = new(() =>
        Lines
            .Value.GroupBy(line => LanguageOf(line.Name))
            .ToDictionary(
                language => language.Key,
                language =>
                    language
                        .SelectMany(line =>
                            Runs(line.Signs).SelectMany(run => Enumerable.Range(run.First, run.Count), (_, sign) => (sign, line.Name))
                        )
                        .ToDictionary()
            )
    );

    /// <summary>The names of all slices, such as <c>japanese-117</c>.</summary>
    public static IEnumerable<string> All => Lines.Value.Select(line => line.Name);

    /// <summary>Whether a sign is set in one of these fonts, whatever the family.</summary>
    public static bool Has(int code)
    {
        if (code < Ranges[0].First)
            return false;
        foreach (var (first, last) in Ranges)
        {
            if (code <= last)
                return first <= code;
        }

        return false;
    }

    /// <summary>The slice that a sign is set in; null where no slice has it.</summary>
    /// <param name="code">The sign.</param>
    /// <param name="language">The language whose way of writing it is taken where that has it: see <see cref="LanguageIn"/>.</param>
    public static string? SliceOf(int code, string language)
    {
        return In(language) ?? In(Chinese) ?? In(Japanese) ?? In(Korean);

        string? In(string one) => Slices.Value[one].GetValueOrDefault(code);
    }

    /// <summary>
    /// The language of a text. The three have many signs in common and write some of them differently: where there are kana it is Japanese, where there is
    /// Hangul it is Korean, and else Chinese.
    /// </summary>
    public static string LanguageIn(string text)
    {
        var isKorean = false;
        foreach (var letter in text)
        {
            if (letter is >= '\u3041' and <= '\u30FF' or >= '\u31F0' and <= '\u31FF' or >= '\uFF66' and <= '\uFF9F')
                return Japanese;
            isKorean |= letter is >= '\u1100' and <= '\u11FF' or >= '\u3131' and <= '\u318E' or >= '\uAC00' and <= '\uD7A3';
        }

        return isKorean ? Korean : Chinese;
    }

    /// <summary>What a browser calls the signs of a slice: <c>U+3041-3096,U+30A0</c> (CSS Fonts 4 §4.5); null for any other font.</summary>
    public static string? RangeOf(string name) =>
        ByName.Value.TryGetValue(name, out var signs)
            ? string.Join(
                ',',
                Runs(signs).Select(run => run.Count == 1 ? $"U+{run.First:X}" : $"U+{run.First:X}-{run.First + run.Count - 1:X}")
            )
            : null;

    private static string LanguageOf(string name) => name[..name.IndexOf('-', StringComparison.Ordinal)];

    /// <summary>Runs of signs: how far each begins behind the one before, and how many more follow; to base 36.</summary>
    private static IEnumerable<(int First, int Count)> Runs(string signs)
    {
        var behind = 0;
        foreach (var run in signs.Split(' '))
        {
            var parts = run.Split('+');
            var first = behind + Number(parts[0]);
            var more = parts.Length > 1 ? Number(parts[1]) : 0;
            yield return (first, more + 1);
            behind = first + more;
        }
    }

    private static int Number(string digits) =>
        digits.Aggregate(0, (number, digit) => number * 36 + (char.IsAsciiDigit(digit) ? digit - '0' : digit - 'a' + 10));

    private static List<(string Name, string Signs)> Read()
    {
        using var resource = new StreamReader(typeof(EasternFonts).Assembly.GetManifestResourceStream("slices.txt")!, Encoding.ASCII);
        var lines = new List<(string, string)>();
        while (resource.ReadLine() is { } line)
        {
            var space = line.IndexOf(' ', StringComparison.Ordinal);
            lines.Add((line[..space], line[(space + 1)..]));
        }

        return lines;
    }
}
