using System.Globalization;
using CalmQuill.Core.Items;
using CalmQuill.Core.Links;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Tables;

namespace CalmQuill.Core.Writing;

/// <summary>Whether what is typed and how it is to look may enter a page.</summary>
public static class WritingRules
{
    /// <summary>The most letters that one operation types: more than a book of 300 pages.</summary>
    public const int MostLetters = 1_000_000;

    /// <summary>The most insertions, removals or formats of one operation.</summary>
    public const int MostParts = 100_000;

    /// <summary>The smallest and the largest type, 0.1 pt.</summary>
    public const int LeastSize = 40,
        MostSize = 4_000;

    public const int MostIndent = 8;

    /// <summary>What may be said of each trait.</summary>
    public static readonly IReadOnlyDictionary<Trait, TextRule> Traits = new Dictionary<Trait, TextRule>
    {
        [Trait.Bold] = TextRule.Switch,
        [Trait.Italic] = TextRule.Switch,
        [Trait.Underline] = TextRule.Switch,
        [Trait.Struck] = TextRule.Switch,
        [Trait.Shift] = OneOf("raised", "lowered"),
        [Trait.Size] = ItemRules.Whole(LeastSize, MostSize),
        [Trait.Family] = OneOf("serif", "sans", "mono", "round", "hand"),
        [Trait.Colour] = ItemRules.Colour,
        [Trait.Marker] = ItemRules.Colour,
        [Trait.Link] = new(
            LinkTarget.MostAddress * 4,
            text =>
                LinkTarget.Read(text) is null ? Sentence.Of($"A link leads to an address of the web or to a place in Calm Quill.") : null
        ),
        [Trait.Style] = OneOf("title", "heading", "subheading", "small", "quotation", "code"),
        [Trait.Align] = OneOf("centre", "right", "justified"),
        [Trait.Indent] = ItemRules.Whole(0, MostIndent),
        [Trait.List] = OneOf("bullet", "number", "tick"),
        [Trait.Ticked] = TextRule.Switch,
        [Trait.Above] = ItemRules.Whole(0, MostSize),
        [Trait.Leading] = ItemRules.Whole(50, 400),
        [Trait.Direction] = OneOf("ltr", "rtl"),
        [Trait.Cell] = Of(text => TableName.TryParse(text, out _)),
        [Trait.Place] = Of(OrderKey.IsValid),
        [Trait.Extent] = ItemRules.Whole(TableLimits.LeastExtent, TableLimits.MostExtent),
        [Trait.Gone] = TextRule.Switch,
        [Trait.Fill] = ItemRules.Colour,
        [Trait.Span] = Of(text => TableName.TryParse(text, out var name) && name.IsCell),
        [Trait.Total] = OneOf("sum", "mean", "count"),
    };

    /// <summary>Whether a trait is one of paragraphs.</summary>
    public static bool IsOfParagraphs(this Trait trait) => trait >= Trait.Style;

    /// <summary>Whether a trait is one of tables.</summary>
    public static bool IsOfTables(this Trait trait) => trait >= Trait.Cell;

    /// <summary>Why a change to a typed text may not be made; null when it may. Whether the letters that it names are there is not known here.</summary>
    public static Refusal? Check(TextChange change)
    {
        if (change.IsEmpty)
            return new Refusal("empty", $"This change names nothing to change.");
        if (Math.Max(change.Insertions.Count, Math.Max(change.Removals.Count, change.Formats.Count)) > MostParts)
            return new Refusal("too-many", $"At most {MostParts:N0} places of a text are changed at once.");
        if (change.Insertions.Sum(insertion => (long)insertion.Text.Length) > MostLetters)
            return new Refusal("too-long", $"At most {MostLetters:N0} letters are typed at once.");
        foreach (var insertion in change.Insertions)
        {
            if (!insertion.IsProper)
                return new Refusal("bad-text", $"What was typed stands nowhere.");
            if (insertion.Text.Contains('\r', StringComparison.Ordinal))
                return new Refusal("bad-text", $"A text holds control characters.");
        }

        if (change.Removals.Any(removal => !removal.IsProper))
            return new Refusal("bad-text", $"Letters that are removed have no proper number.");
        return change.Formats.Select(format => Check(format.Trait, format.Value)).FirstOrDefault(refusal => refusal is not null);
    }

    /// <summary>The same of a passage that is laid down.</summary>
    public static Refusal? Check(Passage passage)
    {
        if (passage.Text.Length > MostLetters)
            return new Refusal("too-long", $"At most {MostLetters:N0} letters are typed at once.");
        if (passage.Formats.Count > MostParts)
            return new Refusal("too-many", $"At most {MostParts:N0} places of a text are changed at once.");
        if (passage.Text.Contains('\r', StringComparison.Ordinal))
            return new Refusal("bad-text", $"A text holds control characters.");
        foreach (var format in passage.Formats)
        {
            if (Check(format.Trait, format.Value) is { } refusal)
                return refusal;
            var most = passage.Text.Length + (format.Trait.IsOfParagraphs() ? 1 : 0);
            if (format.Start < 0 || format.Start >= format.End || format.End > most)
                return new Refusal("bad-text", $"A look of letters reaches beyond them.");
        }

        return null;
    }

    private static Refusal? Check(Trait trait, string value)
    {
        if (!Traits.TryGetValue(trait, out var rule))
            return new Refusal("bad-text", $"A look of letters is not known here.");
        return rule.Problem(value) is { } problem ? new Refusal("bad-text", problem) : null;
    }

    private static TextRule Of(Predicate<string> holds) =>
        new(OrderKey.MostLength, text => holds(text) ? null : Sentence.Of($"A look of letters is not known here."));

    private static TextRule OneOf(params string[] words) =>
        new(16, text => words.Contains(text) ? null : Sentence.Of($"A look of letters is not known here."));
}
