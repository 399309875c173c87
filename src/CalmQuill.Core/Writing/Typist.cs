using System.Globalization;

namespace CalmQuill.Core.Writing;

/// <summary>
/// What the keys of a keyboard do to a text, beyond typing letters: lists that begin and end by themselves, what follows a heading, steps in.
/// </summary>
/// <param name="text">The text.</param>
/// <param name="burst">What is being typed.</param>
/// <param name="next">How what is typed next is to look, where that was said without typing anything since.</param>
public sealed class Typist(TypedText text, Burst burst, IDictionary<Trait, string> next)
{
    /// <summary>What begins a list when a space is typed behind it at the beginning of a paragraph.</summary>
    private static readonly Dictionary<string, string> Begins = new()
    {
        ["-"] = "bullet",
        ["*"] = "bullet",
        ["1."] = "number",
        ["[]"] = "tick",
        ["[ ]"] = "tick",
    };

    /// <summary>Types letters in place of others.</summary>
    /// <param name="from">The first of the others.</param>
    /// <param name="to">Behind the last of them.</param>
    /// <param name="letters">The letters; none only removes.</param>
    /// <returns>Where the caret stands now.</returns>
    public int Type(int from, int to, string letters)
    {
        if (letters == " " && from == to && BeginList(from) is { } begun)
            return begun;
        if (to > from)
            burst.Remove(from, to - from);
        if (letters.Length == 0)
            return from;
        burst.Type(from, letters);
        foreach (var (trait, value) in next)
            burst.Add(text.FormatOf(from, letters.Length, trait, value));
        next.Clear();
        return from + letters.Length;
    }

    /// <summary>
    /// Lays a passage down in place of letters. Whole paragraphs keep how they look; what stands behind its last line break becomes part of the paragraph that
    /// is there, unless that is empty.
    /// </summary>
    /// <returns>Where the caret stands now.</returns>
    public int Paste(int from, int to, Passage passage)
    {
        // What is copied out of a table is letters.
        passage = passage with
        {
            Formats = [.. passage.Formats.Where(format => !format.Trait.IsOfTables())],
        };
        if (to > from)
            burst.Remove(from, to - from);
        if (passage.Text.Length == 0)
            return from;
        var isEmpty = At(from).Length == 0;
        burst.Lay(from, passage);
        var last = from + passage.Text.LastIndexOf('\n') + 1;
        foreach (
            var format in passage.Formats.Where(format => isEmpty && format.Trait.IsOfParagraphs() && format.End > passage.Text.Length)
        )
            OfParagraphs(last, last, format.Trait, format.Value);
        return from + passage.Text.Length;
    }

    /// <summary>
    /// Ends the paragraph. An empty one of a list ends the list; behind a title or heading goes on what is neither, and a box to be ticked is empty.
    /// </summary>
    /// <inheritdoc cref="Type"/>
    public int Enter(int from, int to)
    {
        var paragraph = At(from);
        if (from == to && paragraph.Length == 0 && paragraph.Look[Trait.List].Length > 0)
        {
            OfParagraphs(from, from, Trait.List, "");
            OfParagraphs(from, from, Trait.Indent, "");
            return from;
        }

        var isAtEnd = from == to && from == paragraph.Start + paragraph.Length;
        var caret = Type(from, to, "\n");
        if (isAtEnd && paragraph.Look[Trait.Style] is "title" or "heading" or "subheading")
            OfParagraphs(caret, caret, Trait.Style, "");
        if (paragraph.Look[Trait.Ticked].Length > 0)
            OfParagraphs(caret, caret, Trait.Ticked, "");
        return caret;
    }

    /// <summary>
    /// What the key that removes backwards does at the beginning of a paragraph of a list, or of one that is set in: it is none any more. False where it
    /// does nothing of its own.
    /// </summary>
    public bool Back(int at)
    {
        var paragraph = At(at);
        if (at != paragraph.Start)
            return false;
        var trait =
            paragraph.Look[Trait.List].Length > 0 ? Trait.List
            : paragraph.Look[Trait.Indent].Length > 0 ? Trait.Indent
            : (Trait?)null;
        if (trait is not { } ends)
            return false;
        OfParagraphs(at, at, ends, "");
        return true;
    }

    /// <summary>What the tab key does: paragraphs of lists, and several at once, go a step in or out; else a tab is typed.</summary>
    /// <param name="from">The first letter that is selected.</param>
    /// <param name="to">Behind the last one.</param>
    /// <param name="by">1 for in, −1 for out.</param>
    /// <returns>Where the caret stands now; null where the selection stays.</returns>
    public int? Tab(int from, int to, int by)
    {
        var some = Within(from, to).ToList();
        if (by > 0 && some.Count == 1 && some[0].Look[Trait.List].Length == 0)
            return Type(from, to, "\t");
        foreach (var paragraph in some)
        {
            var depth = paragraph.Look[Trait.Indent] is { Length: > 0 } steps ? int.Parse(steps, CultureInfo.InvariantCulture) : 0;
            var now = Math.Clamp(depth + by, 0, WritingRules.MostIndent);
            if (now != depth)
                OfParagraphs(paragraph.Start, paragraph.Start, Trait.Indent, now == 0 ? "" : now.ToString(CultureInfo.InvariantCulture));
        }

        return null;
    }

    /// <summary>Makes letters look otherwise; where none are selected, those that are typed next.</summary>
    public void Format(int from, int to, Trait trait, string value)
    {
        if (trait.IsOfParagraphs())
            OfParagraphs(from, to, trait, value);
        else if (from == to)
            next[trait] = value;
        else
            burst.Add(text.FormatOf(from, to - from, trait, value));
    }

    /// <summary>
    /// What stands of a trait: of the paragraphs, or the letters, that are selected, or of what is typed next. Null where it is not the same for all.
    /// </summary>
    public string? Standing(int from, int to, Trait trait) => Standing(from, to)(trait);

    /// <summary>The same of every trait, by what was gathered once.</summary>
    public Func<Trait, string?> Standing(int from, int to)
    {
        var paragraphs = Within(from, to).ToList();
        var isCaret = from == to;
        // Where nothing is selected it is as the letter before, or else the one behind.
        var (first, last) =
            !isCaret ? (from, to)
            : from > paragraphs[0].Start ? (from - 1, from)
            : (from, from + 1);
        var spans = SpansWithin(paragraphs, first, last).ToList();
        return trait =>
            isCaret && next.TryGetValue(trait, out var said) ? said
            : trait.IsOfParagraphs() ? Same(paragraphs.Select(paragraph => paragraph.Look[trait]))
            : Same(spans.Select(span => span.Look[trait]));
    }

    private static string? Same(IEnumerable<string> values)
    {
        string? same = null;
        foreach (var value in values)
        {
            if (same is not null && same != value)
                return null;
            same = value;
        }

        return same ?? "";
    }

    private static IEnumerable<TextSpan> SpansWithin(IEnumerable<Paragraph> paragraphs, int from, int to)
    {
        foreach (var paragraph in paragraphs)
        {
            var at = paragraph.Start;
            foreach (var span in paragraph.Spans)
            {
                if (at < to && at + span.Text.Length > from)
                    yield return span;
                at += span.Text.Length;
            }
        }
    }

    /// <summary>The paragraphs that a selection reaches.</summary>
    private IEnumerable<Paragraph> Within(int from, int to) =>
        text.Paragraphs().Where(paragraph => paragraph.Start <= to && paragraph.Start + paragraph.Length >= from);

    private Paragraph At(int position) => Within(position, position).First();

    private int? BeginList(int at)
    {
        var paragraph = At(at);
        var before = paragraph.Text[..(at - paragraph.Start)];
        if (paragraph.Look[Trait.List].Length > 0 || !Begins.TryGetValue(before, out var list))
            return null;
        burst.Remove(paragraph.Start, before.Length);
        OfParagraphs(paragraph.Start, paragraph.Start, Trait.List, list);
        return paragraph.Start;
    }

    private void OfParagraphs(int from, int to, Trait trait, string value) =>
        burst.Add(text.FormatOfParagraphs(from, to - from, trait, value));
}
