using CalmQuill.Core.Ordering;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Typesetting;

/// <summary>Sets text in lines. It remembers the paragraphs that it set last, so that typing into one sets that one anew.</summary>
/// <remarks>
/// A line takes what has room on it (UAX #14 says where it may end); a word longer than a line is broken between letters. Spaces at a line's end hang over its
/// edge. With a ruling lines stand on it, those of large type on every second or third; without one they are as far apart as their type asks for.
/// </remarks>
public sealed class Typesetter
{
    /// <summary>Distance of lines that are spaced freely, in hundredths of their type.</summary>
    private const int Spacing = 130;

    private List<Key> before = [];
    private List<SetParagraph> sets = [];
    private int version = -1;

    private readonly record struct Key(Paragraph Content, int Number, int Width, int Ruling)
    {
        public bool Equals(Key other) =>
            Number == other.Number && Width == other.Width && Ruling == other.Ruling && Content.SaysTheSame(other.Content);

        public override int GetHashCode() =>
            Content.Spans.Aggregate(HashCode.Combine(Number, Width, Ruling), (hash, span) => HashCode.Combine(hash, span.Text));
    }

    /// <param name="paragraphs">The text.</param>
    /// <param name="width">How long lines may be, 0.01 mm.</param>
    /// <param name="ruling">How far apart the lines are that it stands on, 0.01 mm; 0 for free spacing.</param>
    public SetText Set(IEnumerable<Paragraph> paragraphs, int width, int ruling)
    {
        if (version != Fonts.Version)
            (before, sets, version) = ([], [], Fonts.Version);
        var numbers = new Numbering();
        List<Key> now = [.. paragraphs.Select(content => new Key(content, numbers.Of(ParagraphStyle.Of(content.Look)), width, ruling))];
        // Mostly all is as it was but for one: what stands before and behind that is found without looking for it.
        var (head, tail) = SameEnds.Of(before, now, (one, other) => one.Equals(other));
        var others = new Dictionary<Key, SetParagraph>();
        for (var i = head; i < before.Count - tail; i++)
            others.TryAdd(before[i], sets[i]);
        var all = new List<(SetParagraph Set, int Start, int Y)>(now.Count);
        var y = 0;
        for (var i = 0; i < now.Count; i++)
        {
            var key = now[i];
            var set =
                i < head ? sets[i]
                : i >= now.Count - tail ? sets[i - now.Count + before.Count]
                : others.TryGetValue(key, out var known) ? known
                : others[key] = new ParagraphSetter(key.Content, ParagraphStyle.Of(key.Content.Look), key.Number, width, ruling).Set();
            // The first line stands at 0, whatever room it would have above it.
            if (i == 0)
                y = -set.Lines[0].Y;
            all.Add((set, key.Content.Start, y));
            y += set.Height;
        }

        (before, sets) = (now, [.. all.Select(one => one.Set)]);
        return new SetText(all, width * Lengths.PerUnit);
    }

    /// <summary>How far a line stands below the one before, in bits.</summary>
    /// <param name="size">Height of its largest type, 0.1 pt.</param>
    /// <param name="above">Room above it, 0.1 pt.</param>
    /// <param name="leading">Space between lines, in hundredths of the usual.</param>
    /// <param name="ruling">The ruling, 0.01 mm.</param>
    internal static int Distance(int size, int above, int leading, int ruling)
    {
        if (ruling == 0)
            return Lengths.OfType((long)size * Spacing * leading / 10_000 + above);
        var row = ruling * Lengths.PerUnit;
        var rows = Math.Max(1, Rows(Lengths.OfType((long)size * leading / 100))) + Rows(Lengths.OfType(above));
        return rows * row;

        int Rows(int length) => (length + row - 1) / row;
    }
}
