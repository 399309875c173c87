using CalmQuill.Core.Algebra;
using CalmQuill.Core.Formulas;

namespace CalmQuill.Core.Seen;

/// <summary>Finds numbers that can be reckoned among words, and reckons them.</summary>
internal static class SeenSums
{
    /// <summary>So long a sum is at most, letters.</summary>
    private const int Most = 200;

    /// <summary>Between two numbers these always ask for a result; a stroke or a hyphen may stand for something else, and does only before an equals sign.</summary>
    private const string Clear = "+×·*÷";

    private const string Signs = Clear + "-−–/^()%.,";

    public static IEnumerable<SeenPart> In(string line, IReadOnlyList<Word> words)
    {
        for (var at = 0; at < words.Count; at++)
        {
            if (!Begins(words, at))
                continue;
            var end = at;
            while (end < words.Count && IsOfSum(words, end))
                end++;
            var (from, next) = (at, end);
            at = end;
            if (Read(line, words, from, next) is { } read)
                yield return read;
        }
    }

    private static bool Begins(IReadOnlyList<Word> words, int at) =>
        (words[at].IsNumber || words[at].Text is "(" or "-" or "−")
        && (at == 0 || words[at - 1].IsBlank || words[at - 1].Text is ":" or ";");

    private static bool IsOfSum(IReadOnlyList<Word> words, int at)
    {
        var word = words[at];
        // “3 x 4” means times, where letters stand for nothing.
        return word.IsNumber
            || word.IsBlank
            || IsTimes(words, at)
            || (word.Text.Length == 1 && Signs.Contains(word.Text[0], StringComparison.Ordinal));
    }

    private static bool IsTimes(IReadOnlyList<Word> words, int at) =>
        words[at].Text is "x" && Beside(words, at, -1) is { IsNumber: true } && Beside(words, at, 1) is { IsNumber: true };

    private static Word? Beside(IReadOnlyList<Word> words, int at, int by)
    {
        at += by;
        if (at >= 0 && at < words.Count && words[at].IsBlank)
            at += by;
        return at >= 0 && at < words.Count ? words[at] : null;
    }

    private static SeenPart? Read(string line, IReadOnlyList<Word> words, int from, int end)
    {
        var asks = end < words.Count && words[end].Is("=");
        // What comes out stands there already, or letters do of which nothing is known.
        if (asks && Beside(words, end, 1) is { } said && (said.IsNumber || said.IsName || said.Text is "-" or "−" or "="))
            return null;
        if (!asks && end < words.Count && words[end].IsName && end > from && !words[end - 1].IsBlank)
            return null;
        while (end > from && (words[end - 1].IsBlank || (!asks && words[end - 1].Text is "." or ",")))
            end--;
        if (end <= from || words[end - 1].End - words[from].Start > Most)
            return null;
        var own = words.Skip(from).Take(end - from).ToList();
        var isClear = Enumerable
            .Range(from, end - from)
            .Any(i => Clear.Contains(words[i].Text, StringComparison.Ordinal) || IsTimes(words, i));
        var isSum =
            own.Count(word => word.IsNumber) >= 2
            && (asks ? own.Exists(word => "+×·*÷x-−–/^".Contains(word.Text, StringComparison.Ordinal)) : isClear);
        if (!isSum)
            return null;
        var behind = end;
        while (asks && !words[behind].Is("="))
            behind++;
        var last = asks ? words[behind].End : words[end - 1].End;
        return Result(string.Concat(own.Select(word => Plain(word.Text)))) is { } result
            ? new SeenPart(words[from].Start, last, SeenKind.Sum, result)
            : null;
    }

    /// <summary>A sign as formulas are typed with it.</summary>
    private static string Plain(string sign) =>
        sign switch
        {
            "x" or "×" or "·" => "*",
            "–" or "−" => "-",
            "÷" => "/",
            _ => sign,
        };

    /// <summary>What a sum comes to, as it is written; null where it comes to nothing.</summary>
    private static string? Result(string sum)
    {
        var hasComma = sum.Contains(',', StringComparison.Ordinal);
        // A comma and a point in one sum can be meant in two ways.
        if (hasComma && sum.Contains('.', StringComparison.Ordinal))
            return null;
        var lines = NotationReader.Read(hasComma ? sum.Replace(',', '.') : sum, out var problem);
        if (problem is not null)
            return null;
        var worked = new Working(lines, FormulaTask.Value, "", false, false).Do();
        if (worked.Problem is not null || !worked.Behind.TryGetValue(0, out var behind))
            return null;
        var result = NotationText.Of(behind).Trim().TrimStart('=', '≈', ' ');
        return hasComma ? result.Replace('.', ',') : result;
    }
}
