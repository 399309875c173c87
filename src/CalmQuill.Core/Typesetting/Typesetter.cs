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

    private List<(Key Key, SetParagraph Set)> before = [];
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
            (before, version) = ([], Fonts.Version);
        var numbers = new Numbering();
        List<(Key Key, ParagraphStyle Style)> wanted =
        [
            .. paragraphs
                .Select(content => (content, Style: ParagraphStyle.Of(content.Look)))
                .Select(one => (new Key(one.content, numbers.Of(one.Style), width, ruling), one.Style)),
        ];
        // Mostly all is as it was but for one: what stands before and behind that is found without looking for it.
        var most = Math.Min(wanted.Count, before.Count);
        int head = 0,
            tail = 0;
        while (head < most && wanted[head].Key.Equals(before[head].Key))
            head++;
        while (tail < most - head && wanted[^(tail + 1)].Key.Equals(before[^(tail + 1)].Key))
            tail++;
        var others = new Dictionary<Key, SetParagraph>();
        foreach (var (key, set) in before.Take(before.Count - tail).Skip(head))
            others.TryAdd(key, set);
        var now = new List<(Key, SetParagraph)>(wanted.Count);
        var all = new List<(SetParagraph, int, int)>(wanted.Count);
        var y = 0;
        for (var i = 0; i < wanted.Count; i++)
        {
            var (key, style) = wanted[i];
            var set =
                i < head ? before[i].Set
                : i >= wanted.Count - tail ? before[i - wanted.Count + before.Count].Set
                : others.TryGetValue(key, out var known) ? known
                : others[key] = new ParagraphSetter(key.Content, style, key.Number, width, ruling).Set();
            // The first line stands at 0, whatever room it would have above it.
            if (i == 0)
                y = -set.Lines[0].Y;
            now.Add((key, set));
            all.Add((set, key.Content.Start, y));
            y += set.Height;
        }

        before = now;
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
