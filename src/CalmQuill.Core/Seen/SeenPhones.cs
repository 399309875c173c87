using System.Text;

namespace CalmQuill.Core.Seen;

/// <summary>Finds numbers to be called among words: those that begin with a plus and a country (ITU-T E.164), or with 0.</summary>
internal static class SeenPhones
{
    private const int Least = 7,
        Most = 15;

    public static IEnumerable<SeenPart> In(IReadOnlyList<Word> words)
    {
        for (var at = 0; at < words.Count; at++)
        {
            if (at > 0 && !words[at - 1].IsBlank && words[at - 1].Text is not (":" or "(" or ","))
                continue;
            if (Read(words, at) is not { } read)
                continue;
            yield return read;
            while (at + 1 < words.Count && words[at + 1].Start < read.To)
                at++;
        }
    }

    private static SeenPart? Read(IReadOnlyList<Word> words, int at)
    {
        var isAbroad = words[at].Is("+");
        var first = at + (isAbroad || words[at].Is("(") ? 1 : 0);
        if (first >= words.Count || !words[first].IsNumber || (!isAbroad && words[first].Text[0] != '0'))
            return null;
        var digits = new StringBuilder(isAbroad ? "+" : "");
        int end = -1,
            groups = 0,
            open = first > at && !isAbroad ? 1 : 0;
        for (var i = first; i < words.Count && digits.Length <= Most + 1; i++)
        {
            var word = words[i];
            if (word.IsNumber)
            {
                // (0) stands behind a country for who calls from within it.
                var isWithin = isAbroad && groups > 0 && word.Is("0") && words[i - 1].Is("(");
                if (!isWithin)
                    digits.Append(word.Text);
                (end, groups) = (i, groups + 1);
            }
            else if (word.Is("(") && open == 0)
                open = 1;
            else if (word.Is(")") && open == 1)
                (open, end) = (2, i);
            else if (
                !(word.Is(" ") || word.Is("-") || word.Is("/") || word.Is("\u00A0")) || (!words[i - 1].IsNumber && !words[i - 1].Is(")"))
            )
                break;
        }

        var count = digits.Length - (isAbroad ? 1 : 0);
        var next = end + 1 < words.Count ? words[end + 1] : default;
        var asks = words.Skip(end + 1).SkipWhile(word => word.IsBlank).Take(1).Any(word => word.Is("="));
        var goesOn =
            end + 1 < words.Count
            && (asks || next.IsName || (next.Text is "." or "," or ":" && end + 2 < words.Count && words[end + 2].IsNumber));
        var isOne = count is >= Least and <= Most && open != 1 && !goesOn && (isAbroad || groups > 1 || count > Least + 1);
        return isOne ? new SeenPart(words[at].Start, words[end].End, SeenKind.Phone, digits.ToString()) : null;
    }
}
