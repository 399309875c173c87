using System.Globalization;
using System.Text;

namespace CalmQuill.Core.Bringing;

/// <summary>Some of a file's pages, as people write them: <c>3–9, 12</c>.</summary>
public static class PageRange
{
    private const int MostLength = 4_000;

    private static readonly Sentence Unclear = $"Write which pages: 3–9, 12.";

    /// <summary>The pages that are meant, in order and each once; or what is wrong, in a sentence.</summary>
    /// <param name="text">What was written; pages and ranges parted by commas, blanks or semicolons.</param>
    /// <param name="count">How many pages there are. What is written beyond the last is left out.</param>
    public static (IReadOnlyList<int> Pages, Sentence? Problem) Read(string text, int count)
    {
        if (text.Length > MostLength)
            return ([], Unclear);
        var taken = new SortedSet<int>();
        foreach (var part in Parts(text))
        {
            var ends = part.Split('-');
            if (ends.Length > 2 || !TryNumber(ends[0], out var first) || !TryNumber(ends[^1], out var last))
                return ([], Unclear);
            if (first < 1 || last < 1)
                return ([], $"Pages are counted from 1.");
            if (last < first)
                (first, last) = (last, first);
            for (var page = first; page <= Math.Min(last, count); page++)
                taken.Add(page);
        }

        return taken.Count == 0 ? ([], Unclear) : ([.. taken], null);
    }

    /// <summary>The shortest way to write some pages.</summary>
    /// <param name="pages">In order, each once.</param>
    public static string Write(IReadOnlyList<int> pages)
    {
        var text = new StringBuilder();
        for (var i = 0; i < pages.Count; )
        {
            var end = i;
            while (end + 1 < pages.Count && pages[end + 1] == pages[end] + 1)
                end++;
            text.Append(text.Length > 0 ? ", " : "").Append(CultureInfo.InvariantCulture, $"{pages[i]}");
            // Two beside each other are not shorter as a range.
            if (end > i)
                text.Append(end == i + 1 ? ", " : "–").Append(CultureInfo.InvariantCulture, $"{pages[end]}");
            i = end + 1;
        }

        return text.ToString();
    }

    /// <summary>Numbers, and pairs of them with a dash between, however these are set.</summary>
    private static IEnumerable<string> Parts(string text)
    {
        var plain = string.Concat(
            text.Select(sign =>
                sign is '–' or '—' or '‒' ? '-'
                : char.IsWhiteSpace(sign) || sign is ',' or ';' ? ' '
                : sign
            )
        );
        return string.Join('-', plain.Split('-').Select(side => side.Trim(' '))).Split(' ', StringSplitOptions.RemoveEmptyEntries);
    }

    private static bool TryNumber(string text, out int number) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out number);
}
