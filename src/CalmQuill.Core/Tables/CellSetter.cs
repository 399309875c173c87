using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tables;

/// <summary>Sets what is in one cell, and remembers it: of a large table a key changes one cell, and all others are as they were.</summary>
internal sealed class CellSetter
{
    private readonly Typesetter typesetter = new();
    private IReadOnlyList<Paragraph> before = [];
    private (int Width, bool IsHeading, string Align, int Version) how;
    private SetText? set;

    /// <param name="paragraphs">What is in it; one that is empty where nothing is.</param>
    /// <param name="width">How long its lines are, 0.01 mm.</param>
    /// <param name="isHeading">Whether its letters are bold.</param>
    /// <param name="align">Where its lines stand, of paragraphs that say nothing themselves.</param>
    public SetText Set(IReadOnlyList<Paragraph> paragraphs, int width, bool isHeading, string align)
    {
        var now = (width, isHeading, align, Fonts.Version);
        if (set is null || now != how || !SaysTheSame(paragraphs))
            set = typesetter.Set(paragraphs.Select(paragraph => Looking(paragraph, isHeading, align)), width, 0);
        (before, how) = (paragraphs, now);
        return set;
    }

    /// <summary>A paragraph as it looks in its cell.</summary>
    private static Paragraph Looking(Paragraph paragraph, bool isHeading, string align)
    {
        var aligned =
            paragraph.Look[Trait.Align].Length > 0 || align.Length == 0
                ? paragraph
                : paragraph with
                {
                    Look = paragraph.Look.With(Trait.Align, align),
                };
        return isHeading
            ? aligned with
            {
                Spans = [.. aligned.Spans.Select(span => span with { Look = span.Look.With(Trait.Bold, "1") })],
            }
            : aligned;
    }

    private bool SaysTheSame(IReadOnlyList<Paragraph> paragraphs)
    {
        var isSame = paragraphs.Count == before.Count;
        for (var i = 0; isSame && i < before.Count; i++)
            isSame = paragraphs[i].SaysTheSame(before[i]);
        return isSame;
    }
}
