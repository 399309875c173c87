using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Seen;

/// <summary>Sees in typed words what can be done with: addresses, days, times, numbers to be called, sums.</summary>
/// <remarks>Every paragraph is read by itself, from left to right, in a time that grows with its length.</remarks>
public static class SeenWords
{
    /// <summary>Of a longer paragraph only so many letters are read.</summary>
    private const int MostLetters = 20_000;

    /// <summary>What stands in a line.</summary>
    /// <param name="line">The line.</param>
    /// <param name="on">The day on which it was written, for days without a year; null where those are not to be seen.</param>
    /// <param name="isLocal">Whether that is the day of the place where it was written, for “tomorrow” and “Friday”.</param>
    public static IReadOnlyList<SeenPart> In(string line, DateOnly? on, bool isLocal = true)
    {
        if (line.Length > MostLetters)
            line = line[..MostLetters];
        var words = Word.Of(line);
        var seen = SeenAddresses.In(line).ToList();
        foreach (var more in new[] { SeenDays.In(words, on, isLocal), SeenPhones.In(words), SeenSums.In(line, words) })
            seen.AddRange(more.Where(part => !part.Meets(seen)).ToList());
        return [.. seen.OrderBy(part => part.From)];
    }

    /// <summary>What stands in a paragraph; what words lead to that were made a link counts first.</summary>
    /// <inheritdoc cref="In(string, DateOnly?, bool)"/>
    /// <param name="paragraph">The paragraph.</param>
    public static IReadOnlyList<SeenPart> In(Paragraph paragraph, DateOnly? on, bool isLocal = true)
    {
        var links = new List<SeenPart>();
        var at = 0;
        foreach (var (text, look) in paragraph.Spans)
        {
            var target = look[Trait.Link];
            if (target.Length > 0 && links.Count > 0 && links[^1] is var last && last.To == at && last.Value == target)
                links[^1] = last with { To = at + text.Length };
            else if (target.Length > 0)
                links.Add(new SeenPart(at, at + text.Length, SeenKind.Link, target));
            at += text.Length;
        }

        var seen = In(paragraph.Text, on, isLocal);
        return links.Count == 0 ? seen : [.. seen.Where(part => !part.Meets(links)).Concat(links).OrderBy(part => part.From)];
    }
}
