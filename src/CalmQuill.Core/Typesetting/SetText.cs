using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Typesetting;

/// <summary>A text as it is set in a box: its lines, and where they stand. The first one stands at 0, whatever its height; lengths are in bits.</summary>
/// <param name="Paragraphs">The paragraphs, where each begins in the text, and where the line before it stands.</param>
/// <param name="Width">How long lines may be.</param>
public sealed record SetText(IReadOnlyList<(SetParagraph Paragraph, int Start, int Y)> Paragraphs, int Width)
{
    /// <summary>How far its first line reaches up.</summary>
    public int Ascent => Paragraphs[0].Paragraph.Lines[0].Ascent;

    /// <summary>How far its last line reaches down.</summary>
    public int Bottom => LastLine + Paragraphs[^1].Paragraph.Lines[^1].Descent;

    /// <summary>Where its last line stands.</summary>
    public int LastLine => Paragraphs[^1].Y + Paragraphs[^1].Paragraph.Height;

    /// <summary>How many paragraphs from the beginning are the same where they were, and how many from the end are the same and moved alike.</summary>
    public static (int Head, int Tail) SameParagraphs(
        IReadOnlyList<(SetParagraph Paragraph, int Start, int Y)> before,
        IReadOnlyList<(SetParagraph Paragraph, int Start, int Y)> now
    )
    {
        // Those at the tail moved as the last one did.
        var (byStart, byY) = before.Count > 0 ? (now[^1].Start - before[^1].Start, now[^1].Y - before[^1].Y) : (0, 0);
        return SameEnds.Of(
            before,
            now,
            (one, other) => one == other,
            (one, other) => one.Paragraph == other.Paragraph && other.Start - one.Start == byStart && other.Y - one.Y == byY
        );
    }

    /// <summary>The line that holds the caret before a letter, where in the text its paragraph begins, and where it stands.</summary>
    /// <param name="letter">The letter, or the end of the text.</param>
    public (SetLine Line, int Start, int Y) LineOf(int letter)
    {
        var (paragraph, start, y) = Paragraphs[Math.Max(0, Paragraphs.CountWhile(one => one.Start <= letter) - 1)];
        var line = paragraph.Lines[^1];
        foreach (var one in paragraph.Lines)
        {
            if (letter - start < one.End)
            {
                line = one;
                break;
            }
        }

        return (line, start, y + line.Y);
    }

    /// <summary>The letter before which a press would set the caret.</summary>
    /// <param name="x">Where, from the box's left edge, in bits.</param>
    /// <param name="y">How far below its first line, in bits.</param>
    public int LetterAt(int x, int y)
    {
        foreach (var (paragraph, start, top) in Paragraphs)
        {
            foreach (var line in paragraph.Lines)
            {
                var isLast = ReferenceEquals(line, Paragraphs[^1].Paragraph.Lines[^1]);
                if (isLast || y < top + line.Y + line.Descent)
                    return start + line.LetterAt(x);
            }
        }

        return 0;
    }
}
