using System.Text;

namespace CalmQuill.Core.Typesetting;

/// <summary>In which direction each part of a paragraph runs: the Unicode bidirectional algorithm, UAX #9 of Unicode 16. Rules are named as there.</summary>
public static class Bidi
{
    /// <summary>The level of each UTF-16 code unit of a paragraph: even from left to right, odd from right to left.</summary>
    /// <param name="text">The paragraph, without the break that ends it.</param>
    /// <param name="fromRight">Whether the paragraph runs from right to left; null for as its first letter does (P2, P3).</param>
    public static (byte[] Levels, bool FromRight) LevelsOf(ReadOnlySpan<char> text, bool? fromRight)
    {
        // Where nothing runs from the right, nothing is to be worked out.
        if (fromRight is not true && RunsFromLeft(text))
            return (new byte[text.Length], false);
        return Resolved(text, fromRight);
    }

    /// <summary>Whether all of it is of signs that run from left to right, or as what stands around them: most writing, and what parts its words.</summary>
    private static bool RunsFromLeft(ReadOnlySpan<char> text)
    {
        foreach (var letter in text)
        {
            if (letter is not (< '\u0590' or >= '\u2010' and <= '\u2027' or >= '\u2030' and <= '\u205E' or >= '\u2E80' and <= '\uD7FF'))
                return false;
        }

        return true;
    }

    /// <summary>By all rules.</summary>
    internal static (byte[] Levels, bool FromRight) Resolved(ReadOnlySpan<char> text, bool? fromRight)
    {
        var (codes, starts) = (new List<int>(text.Length), new List<int>(text.Length));
        for (var at = 0; at < text.Length; )
        {
            Rune.DecodeFromUtf16(text[at..], out var rune, out var length);
            codes.Add(rune.Value);
            starts.Add(at);
            at += length;
        }

        var classes = codes.Select(code => SignTable.Of(code).Bidi).ToArray();
        var resolved = new BidiParagraph(classes, codes).Resolve(fromRight);
        var levels = new byte[text.Length];
        for (var i = 0; i < codes.Count; i++)
        {
            for (var at = starts[i]; at < (i + 1 < codes.Count ? starts[i + 1] : text.Length); at++)
                levels[at] = resolved.Levels[i];
        }

        return (levels, resolved.Base == 1);
    }

    /// <summary>In which order what stands on a line is laid, from left to right (L2).</summary>
    /// <param name="levels">The levels of what stands on it.</param>
    /// <returns>For each place from the left, which it is.</returns>
    public static int[] Order(ReadOnlySpan<byte> levels)
    {
        var order = new int[levels.Length];
        int highest = 0,
            lowestOdd = int.MaxValue;
        for (var i = 0; i < levels.Length; i++)
        {
            order[i] = i;
            highest = Math.Max(highest, levels[i]);
            if (levels[i] % 2 == 1)
                lowestOdd = Math.Min(lowestOdd, levels[i]);
        }

        for (var level = highest; level >= lowestOdd; level--)
        {
            for (var i = 0; i < levels.Length; i++)
            {
                if (levels[i] < level)
                    continue;
                var end = i;
                while (end < levels.Length && levels[end] >= level)
                    end++;
                Array.Reverse(order, i, end - i);
                i = end;
            }
        }

        return order;
    }
}
