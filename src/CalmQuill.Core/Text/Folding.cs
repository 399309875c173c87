using System.Text;

namespace CalmQuill.Core.Text;

/// <summary>Text as it is compared when somebody looks for it: without case, diacritics, width and ornament, so that “Échappement” is found by “echappement”.</summary>
/// <remarks>
/// Compatibility decomposition (UAX #15, NFKD), lower case, nonspacing marks dropped; the table is made by <c>make-folding.mjs</c>. It is our own, since
/// .NET without the large globalisation data, as in the browser, leaves text as it is when asked to normalise it.
/// </remarks>
public static class Folding
{
    private const int HangulFirst = 0xAC00,
        HangulCount = 11172,
        Vowels = 21,
        Tails = 28;
    private const int LeadFirst = 0x1100,
        VowelFirst = 0x1161,
        TailFirst = 0x11A7;
    private static readonly Lazy<Dictionary<int, string>> Table = new(Read);

    /// <summary>The folded text: leading and trailing white space off, runs of it as one space.</summary>
    public static string Fold(string text)
    {
        var folded = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
        {
            if (rune.IsAscii)
                folded.Append(char.ToLowerInvariant((char)rune.Value));
            else if (rune.Value is >= HangulFirst and < HangulFirst + HangulCount)
                AppendHangul(folded, rune.Value - HangulFirst);
            else if (Table.Value.TryGetValue(rune.Value, out var plain))
                folded.Append(plain);
            else
                folded.Append(rune.ToString());
        }

        return string.Join(' ', folded.ToString().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
    }

    /// <summary>A Hangul syllable as its parts (The Unicode Standard, 3.12).</summary>
    private static void AppendHangul(StringBuilder folded, int index)
    {
        folded.Append((char)(LeadFirst + index / (Vowels * Tails))).Append((char)(VowelFirst + index % (Vowels * Tails) / Tails));
        if (index % Tails > 0)
            folded.Append((char)(TailFirst + index % Tails));
    }

    private static Dictionary<int, string> Read()
    {
        using var resource = new StreamReader(typeof(Folding).Assembly.GetManifestResourceStream("folding.txt")!);
        var table = new Dictionary<int, string>();
        foreach (var line in resource.ReadToEnd().Split('\n'))
        {
            var rune = Rune.GetRuneAt(line, 0);
            table[rune.Value] = line[rune.Utf16SequenceLength..];
        }

        return table;
    }
}
