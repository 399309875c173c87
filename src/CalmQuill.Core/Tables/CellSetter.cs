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
        if (set is null || now != how || !paragraphs.SequenceEqual(before, SameLetters.Of))
            set = typesetter.Set(paragraphs.Select(paragraph => Looking(paragraph, isHeading, align)), width, 0);
        else if (!paragraphs.Select(paragraph => paragraph.Start).SequenceEqual(before.Select(paragraph => paragraph.Start)))
            set = set with
            {
                Paragraphs = [.. set.Paragraphs.Zip(paragraphs, (one, paragraph) => (one.Paragraph, paragraph.Start, one.Y))],
            };
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

    /// <summary>Paragraphs that are set alike, wherever in their text they stand.</summary>
    private sealed class SameLetters : IEqualityComparer<Paragraph>
    {
        public static readonly SameLetters Of = new();

        public bool Equals(Paragraph? one, Paragraph? other) =>
            one is not null && other is not null && one.Look.Equals(other.Look) && one.Spans.SequenceEqual(other.Spans);

        public int GetHashCode(Paragraph paragraph) => paragraph.Length;
    }
}
