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

    private static readonly ConcurrentDictionary<(string Text, int Size, string Family, int Glyph, int Version), Label> Known = new();
    private static readonly OpId Writer = new(1, 1);

    /// <param name="text">The letters.</param>
    /// <param name="size">The height of the type, 0.1 pt.</param>
    /// <param name="family">The family, or any other font by its name.</param>
    public static Label Of(string text, int size, string family = "sans") => Find(text, size, family, 0, () => Make(text, size, family));

    /// <summary>One glyph of a font, whatever that would choose for its letters.</summary>
    /// <param name="font">The font.</param>
    /// <param name="glyph">The glyph.</param>
    /// <param name="text">What it stands for.</param>
    /// <param name="size">The height of the type, 0.1 pt.</param>
    public static Label Of(Font font, int glyph, string text, int size) =>
        Find(text, size, font.Name, glyph, () => Make(font, glyph, text, size));

    private static Label Find(string text, int size, string family, int glyph, Func<Label> make)
    {
        var key = (text, size, family, glyph, Fonts.Version);
        if (Known.TryGetValue(key, out var label))
            return label;
        if (Known.Count > Most)
            Known.Clear();
        return Known[key] = make();
    }

    private static Label Make(string text, int size, string family)
    {
        var typed = new TypedText();
        PassageFormat[] formats =
        [
            new(0, text.Length, Trait.Size, size.ToString(System.Globalization.CultureInfo.InvariantCulture)),
            new(0, text.Length, Trait.Family, family),
        ];
        typed.Take(Writer, new Stamp(Hlc.At(1), Writer), new Passage(text, formats).Whole(Writer), true);
        var set = new Typesetter().Set(typed.Paragraphs(), Room, 0);
        return new Label(set, set.Paragraphs[0].Paragraph.Lines[0].Width / Lengths.PerUnit);
    }

    private static Label Make(Font font, int glyph, string text, int size)
    {
        var (paragraph, start, y) = Make(text, size, font.Name).Set.Paragraphs[0];
        var line = paragraph.Lines[0];
        var width = Lengths.OfFont(font.File.Advance(glyph), size, font.File.UnitsPerEm);
        var piece = line.Pieces[0] with { Shape = ShapedPiece.Of(font, glyph, text), X = 0, Width = width };
        var set = paragraph with { Lines = [line with { Pieces = [piece], Width = width }] };
        return new Label(new SetText([(set, start, y)], Room * Lengths.PerUnit), width / Lengths.PerUnit);
    }
}
