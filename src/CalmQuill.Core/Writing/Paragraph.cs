namespace CalmQuill.Core.Writing;

/// <summary>A paragraph: what stands between two line breaks.</summary>
/// <param name="Start">The position of its first letter.</param>
/// <param name="Spans">Its letters, without the line break that ends it.</param>
/// <param name="Look">How it looks: what its first letter, or the line break of an empty one, has of the traits of paragraphs.</param>
public sealed record Paragraph(int Start, IReadOnlyList<TextSpan> Spans, Look Look)
{
    public int Length { get; } = LengthOf(Spans);

    /// <summary>The position behind its last letter.</summary>
    public int End => Start + Length;

    /// <summary>Its letters alone.</summary>
    public string Text => string.Concat(Spans.Select(span => span.Text));

    /// <summary>Whether another has the same letters and looks the same, wherever it stands.</summary>
    public bool SaysTheSame(Paragraph other)
    {
        if (ReferenceEquals(Spans, other.Spans))
            return Look.Equals(other.Look);
        if (Length != other.Length || Spans.Count != other.Spans.Count || !Look.Equals(other.Look))
            return false;
        for (var i = 0; i < Spans.Count; i++)
        {
            if (!Spans[i].Equals(other.Spans[i]))
                return false;
        }

        return true;
    }

    /// <summary>Paragraphs one by one; there is always one, and one behind the last line break.</summary>
    /// <param name="spans">The letters.</param>
    /// <param name="atEnd">How the last one looks where it is empty.</param>
    /// <param name="start">The position of the first letter.</param>
    public static IEnumerable<Paragraph> Of(IEnumerable<TextSpan> spans, Look atEnd, int start = 0)
    {
        var length = 0;
        Look? look = null;
        var own = new List<TextSpan>();
        foreach (var span in spans)
        {
            for (var at = 0; at < span.Text.Length; )
            {
                look ??= span.Look;
                var end = span.Text.IndexOf(TypedText.Break, at);
                var some = span.Text[at..(end < 0 ? span.Text.Length : end)];
                if (some.Length > 0)
                    own.Add(span with { Text = some });
                length += some.Length;
                if (end < 0)
                    break;
                yield return new Paragraph(start, own, look);
                start += length + 1;
                (own, look, length) = ([], null, 0);
                at = end + 1;
            }
        }

        yield return new Paragraph(start, own, look ?? atEnd);
    }

    private static int LengthOf(IReadOnlyList<TextSpan> spans)
    {
        var length = 0;
        for (var i = 0; i < spans.Count; i++)
            length += spans[i].Text.Length;
        return length;
    }
}
