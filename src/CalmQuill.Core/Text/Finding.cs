using System.Text;

namespace CalmQuill.Core.Text;

/// <summary>Places in a text where some words stand.</summary>
public static class Finding
{
    /// <summary>
    /// The places, from the first on, that do not overlap. Words are compared folded (see <see cref="Folding"/>), runs of blanks as one; a line break is none of
    /// them, so nothing is found across it. Only whole letters are found: no half of a ligature.
    /// </summary>
    /// <param name="text">The text.</param>
    /// <param name="sought">The words; nothing is found where they are blank.</param>
    /// <param name="exact">Whether case and diacritics must be the same.</param>
    public static IEnumerable<(int From, int To)> In(string text, string sought, bool exact)
    {
        var words = Folded(sought.Trim(), exact).Text;
        if (words.Length == 0)
            yield break;
        var (folded, starts, ends) = Folded(text, exact);
        for (var at = folded.IndexOf(words, StringComparison.Ordinal); at >= 0; )
        {
            var last = at + words.Length - 1;
            var isWhole = (at == 0 || starts[at - 1] != starts[at]) && (last + 1 == folded.Length || starts[last + 1] != starts[last]);
            if (isWhole)
                yield return (starts[at], ends[last]);
            var from = isWhole ? last + 1 : at + 1;
            at = from < folded.Length ? folded.IndexOf(words, from, StringComparison.Ordinal) : -1;
        }
    }

    /// <summary>A text as it is compared, and of each letter of that from where to where in the text it was made.</summary>
    private static (string Text, List<int> Starts, List<int> Ends) Folded(string text, bool exact)
    {
        var folded = new StringBuilder(text.Length);
        var (starts, ends) = (new List<int>(text.Length), new List<int>(text.Length));
        for (var at = 0; at < text.Length; )
        {
            var end = at + 1;
            string plain;
            if (text[at] == '\n')
                plain = "\n";
            else if (char.IsWhiteSpace(text[at]))
            {
                while (end < text.Length && text[end] != '\n' && char.IsWhiteSpace(text[end]))
                    end++;
                plain = " ";
            }
            else if (char.IsAscii(text[at]))
                plain = (exact ? text[at] : char.ToLowerInvariant(text[at])).ToString();
            else
            {
                if (char.IsHighSurrogate(text[at]) && end < text.Length && char.IsLowSurrogate(text[end]))
                    end++;
                plain = exact ? text[at..end] : Folding.Fold(Writing.Signs.Whole(text[at..end]));
            }

            folded.Append(plain);
            for (var i = 0; i < plain.Length; i++)
            {
                starts.Add(at);
                ends.Add(end);
            }

            // A mark that is left out belongs to the letter before it.
            if (plain.Length == 0 && ends.Count > 0)
                ends[^1] = end;
            at = end;
        }

        return (folded.ToString(), starts, ends);
    }
}
