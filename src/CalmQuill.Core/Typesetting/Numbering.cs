namespace CalmQuill.Core.Typesetting;

/// <summary>Counts the paragraphs of numbered lists, each depth by itself.</summary>
internal sealed class Numbering
{
    private readonly List<int> counts = [];

    /// <summary>The number of the next paragraph in its list; 0 for one that has none.</summary>
    public int Of(ParagraphStyle style)
    {
        var isNumbered = style.List == "number";
        // Whatever stands less deep ends the lists within it; a paragraph of another kind ends that of its own depth too.
        var kept = Math.Min(counts.Count, style.Depth + (isNumbered ? 1 : 0));
        counts.RemoveRange(kept, counts.Count - kept);
        if (!isNumbered)
            return 0;
        while (counts.Count <= style.Depth)
            counts.Add(0);
        return ++counts[style.Depth];
    }

    /// <summary>What stands before a paragraph of a list; empty for one of none, or a box to be ticked.</summary>
    public static string SignOf(ParagraphStyle style, int number) =>
        (style.List, style.Depth % 3) switch
        {
            ("bullet", 1) => "–",
            ("bullet", _) => "•",
            ("number", 1) => Letters(number) + ".",
            ("number", 2) => Roman(number) + ".",
            ("number", _) => number.ToString(System.Globalization.CultureInfo.InvariantCulture) + ".",
            _ => "",
        };

    /// <summary>a, b … z, aa, ab …</summary>
    private static string Letters(int number)
    {
        var text = "";
        for (; number > 0; number = (number - 1) / 26)
            text = (char)('a' + (number - 1) % 26) + text;
        return text;
    }

    /// <summary>In the Roman way, i to mmmcmxcix; beyond in digits.</summary>
    private static string Roman(int number)
    {
        if (number >= 4_000)
            return number.ToString(System.Globalization.CultureInfo.InvariantCulture);
        (int Value, string Sign)[] signs =
        [
            (1000, "m"),
            (900, "cm"),
            (500, "d"),
            (400, "cd"),
            (100, "c"),
            (90, "xc"),
            (50, "l"),
            (40, "xl"),
            (10, "x"),
            (9, "ix"),
            (5, "v"),
            (4, "iv"),
            (1, "i"),
        ];
        var text = new System.Text.StringBuilder();
        foreach (var (value, sign) in signs)
        {
            for (; number >= value; number -= value)
                text.Append(sign);
        }

        return text.ToString();
    }
}
