using System.Collections.Concurrent;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Typesetting;

/// <summary>A few letters on one line that nobody types into, such as a number at a scale.</summary>
/// <param name="Set">The letters as they are set; they stand at 0.</param>
/// <param name="Width">How long they are, 0.01 mm.</param>
public sealed record Label(SetText Set, int Width)
{
    /// <summary>Wider than any label.</summary>
    private const int Room = 50_000;

    /// <summary>So many are remembered.</summary>
    private const int Most = 4_000;

    private static readonly ConcurrentDictionary<(string Text, int Size, int Version), Label> Known = new();
    private static readonly OpId Writer = new(1, 1);

    /// <param name="text">The letters.</param>
    /// <param name="size">The height of the type, 0.1 pt.</param>
    public static Label Of(string text, int size)
    {
        var key = (text, size, Fonts.Version);
        if (Known.TryGetValue(key, out var label))
            return label;
        if (Known.Count > Most)
            Known.Clear();
        return Known[key] = Make(text, size);
    }

    private static Label Make(string text, int size)
    {
        var typed = new TypedText();
        PassageFormat[] formats =
        [
            new(0, text.Length, Trait.Size, size.ToString(System.Globalization.CultureInfo.InvariantCulture)),
            new(0, text.Length, Trait.Family, "sans"),
        ];
        typed.Take(Writer, new Stamp(Hlc.At(1), Writer), new Passage(text, formats).Whole(Writer), true);
        var set = new Typesetter().Set(typed.Paragraphs(), Room, 0);
        return new Label(set, set.Paragraphs[0].Paragraph.Lines[0].Width / Lengths.PerUnit);
    }
}
