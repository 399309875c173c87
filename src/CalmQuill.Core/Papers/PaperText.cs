using System.Globalization;
using System.Text;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Papers;

/// <summary>The text form of a paper, as operations and addresses carry it: <c>a4-ruled-710</c>, <c>a5.across-cornell-710-tint.f6ead0-head.2500</c>.</summary>
/// <remarks>Size (with <c>.across</c>), design, spacing; then what differs from the design's own, a name or a name and a value parted by a full stop.</remarks>
public static class PaperText
{
    public static string Write(Paper paper)
    {
        var text = new StringBuilder(paper.Size.Name);
        if (paper.Across)
            text.Append(".across");
        text.Append(CultureInfo.InvariantCulture, $"-{paper.Design.Name}-{paper.Spacing}");
        void Number(string name, int? value)
        {
            if (value is { } known)
                text.Append(CultureInfo.InvariantCulture, $"-{name}.{known}");
        }

        void Colour(string name, uint? value)
        {
            if (value is { } known)
                text.Append(CultureInfo.InvariantCulture, $"-{name}.{known >> 8:x6}");
        }

        void Switch(string name, bool on)
        {
            if (on)
                text.Append('-').Append(name);
        }

        Switch("down", paper.Growth == Growth.Down);
        Switch("around", paper.Growth == Growth.All);
        Number("head", paper.Head);
        Number("margin", paper.Margin);
        Number("count", paper.Count);
        Colour("tint", paper.Tint);
        Colour("lines", paper.LineTint);
        Number("weight", paper.Weight);
        Switch("plain", paper.Plain);
        Switch("paired", paper.Paired);
        Switch("headed", paper.Headed);
        Switch("grain", paper.Grain);
        if (paper.Own != Guid.Empty)
            text.Append(CultureInfo.InvariantCulture, $"-own.{paper.Own:N}");
        return text.ToString();
    }

    /// <summary>Reads a paper, or says in a sentence what is wrong with it.</summary>
    public static (Paper? Paper, Refusal? Refusal) Read(string text)
    {
        var parts = text.Split('-');
        if (text.Length > 400 || parts.Length < 3)
            return Refuse($"This paper is not known here.");
        var size = parts[0].Split('.');
        if (PaperSize.Find(size[0]) is not { } known)
            return Refuse($"A sheet's edges are 20 mm to 2 m long.");
        if (size.Length > 2 || (size.Length == 2 && size[1] != "across"))
            return Refuse($"This paper is not known here.");
        if (PaperDesigns.Find(parts[1]) is not { } design)
            return Refuse($"This paper is not known here.");
        if (
            !int.TryParse(parts[2], NumberStyles.None, CultureInfo.InvariantCulture, out var spacing)
            || spacing is < Paper.LeastSpacing or > Paper.MostSpacing
        )
            return Refuse($"Lines of a paper lie 1 to 60 mm apart.");
        var paper = new Paper(known, design, spacing) { Across = size.Length == 2 };
        foreach (var part in parts.AsSpan(3))
        {
            var stop = part.IndexOf('.', StringComparison.Ordinal);
            var (name, value) = stop < 0 ? (part, "") : (part[..stop], part[(stop + 1)..]);
            var (next, problem) = With(paper, name, value);
            if (next is null)
                return Refuse(problem!);
            paper = next;
        }

        return (paper, null);
    }

    // Made once, since papers are read wherever pages are listed.
    private static readonly Sentence HeadOffSheet = $"The first line lies on the sheet.";
    private static readonly Sentence MarginOffSheet = $"The margin lies on the sheet.";
    private static readonly Sentence BadCount = $"A paper has 1 to {Paper.MostCount} columns, staves or rows.";
    private static readonly Sentence BadWeight = $"Lines of a paper are 0.05 to 2 mm wide.";

    private static (Paper? Paper, Sentence? Problem) With(Paper paper, string name, string value)
    {
        var longest = Math.Max(paper.Width, paper.Height);
        return name switch
        {
            "down" when value.Length == 0 => (paper with { Growth = Growth.Down }, null),
            "around" when value.Length == 0 => (paper with { Growth = Growth.All }, null),
            "plain" when value.Length == 0 => (paper with { Plain = true }, null),
            "paired" when value.Length == 0 => (paper with { Paired = true }, null),
            "headed" when value.Length == 0 => (paper with { Headed = true }, null),
            "grain" when value.Length == 0 => (paper with { Grain = true }, null),
            "head" => Number(value, 0, longest, HeadOffSheet, number => paper with { Head = number }),
            "margin" => Number(value, 0, longest, MarginOffSheet, number => paper with { Margin = number }),
            "count" => Number(value, 1, Paper.MostCount, BadCount, number => paper with { Count = number }),
            "weight" => Number(value, 5, 200, BadWeight, number => paper with { Weight = number }),
            "tint" => Colour(value, colour => paper with { Tint = colour }),
            "lines" => Colour(value, colour => paper with { LineTint = colour }),
            // One spelling, since lists look for it in the text.
            "own" => Guid.TryParseExact(value, "N", out var own) && value == own.ToString("N")
                ? (paper with { Own = own }, null)
                : (null, $"This paper is not known here."),
            _ => (null, $"This paper is not known here."),
        };
    }

    private static (Paper?, Sentence?) Number(string text, int least, int most, Sentence problem, Func<int, Paper> with) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number >= least && number <= most
            ? (with(number), null)
            : (null, problem);

    private static (Paper?, Sentence?) Colour(string text, Func<uint, Paper> with) =>
        text.Length == 6 && uint.TryParse(text, NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var rgb)
            ? (with((rgb << 8) | 0xFF), null)
            : (null, $"A colour is six hexadecimal digits.");

    private static (Paper?, Refusal?) Refuse(Sentence sentence) => (null, new Refusal("bad-paper", sentence));
}
