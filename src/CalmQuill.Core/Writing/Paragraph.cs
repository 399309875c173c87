namespace CalmQuill.Core.Writing;

/// <summary>A paragraph: what stands between two line breaks.</summary>
/// <param name="Start">The position of its first letter.</param>
/// <param name="Spans">Its letters, without the line break that ends it.</param>
/// <param name="Look">How it looks: what its first letter, or the line break of an empty one, has of the traits of paragraphs.</param>
public sealed record Paragraph(int Start, IReadOnlyList<TextSpan> Spans, Look Look)
{
    public int Length { get; } = Spans.Sum(span => span.Text.Length);

    /// <summary>Its letters alone.</summary>
    public string Text => string.Concat(Spans.Select(span => span.Text));

    /// <summary>Paragraphs one by one; there is always one, and one behind the last line break.</summary>
    /// <param name="spans">The letters.</param>
    /// <param name="atEnd">How the last one looks where it is empty.</param>
    public static IEnumerable<Paragraph> Of(IEnumerable<TextSpan> spans, Look atEnd)
    {
        int start = 0,
            length = 0;
        Look? look = null;
        var own = new List<TextSpan>();
        foreach (var span in spans)
        {
            var rest = span.Text;
            while (rest.Length > 0)
            {
                look ??= span.Look;
                var end = rest.IndexOf(TypedText.Break, StringComparison.Ordinal);
                var some = end < 0 ? rest : rest[..end];
                if (some.Length > 0)
                    own.Add(span with { Text = some });
                length += some.Length;
                if (end < 0)
                    break;
                yield return new Paragraph(start, own, look);
                start += length + 1;
                (own, look, length) = ([], null, 0);
                rest = rest[(end + 1)..];
            }
        }

        yield return new Paragraph(start, own, look ?? atEnd);
    }
}
