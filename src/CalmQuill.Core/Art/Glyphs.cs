using System.Globalization;
using System.Text;

namespace CalmQuill.Core.Art;

/// <summary>Letters as outlines, so that what is printed on paper looks the same everywhere and needs no font where it is shown.</summary>
/// <remarks>The table is made by <c>make-glyphs.mjs</c>: Latin with its extensions, Greek, Cyrillic. A letter that is not in it is drawn as an upright box.</remarks>
public static class Glyphs
{
    /// <summary>Outlines are kept in thousandths of an em.</summary>
    private const float Em = 1000;
    private static readonly Lazy<Dictionary<int, Glyph>> Table = new(Read);
    private static readonly Glyph Missing = new(560, "M60 -660L500 -660L500 0L60 0ZM110 -610L110 -50L450 -50L450 -610Z");

    /// <summary>A letter; its outline is read when it is first written.</summary>
    private sealed class Glyph(int advance, string data)
    {
        private VectorPath? path;

        public int Advance { get; } = advance;

        public VectorPath Path => path ??= VectorPath.Parse(data);
    }

    /// <summary>How wide a text is at a size, both in 0.01 mm.</summary>
    public static float Width(string text, float size) => text.EnumerateRunes().Sum(rune => Of(rune).Advance) * size / Em;

    /// <summary>The outlines of a text whose baseline begins at a spot.</summary>
    public static VectorPath Write(string text, float x, float baseline, float size, VectorPath? into = null)
    {
        into ??= new VectorPath();
        foreach (var rune in text.EnumerateRunes())
        {
            var glyph = Of(rune);
            into.Append(glyph.Path, size / Em, x, baseline);
            x += glyph.Advance * size / Em;
        }

        return into;
    }

    /// <summary>As much of a text as fits a width, with an ellipsis where something had to go.</summary>
    public static string Fit(string text, float size, float width)
    {
        if (Width(text, size) <= width)
            return text;
        var kept = new StringBuilder();
        var used = Width("…", size);
        foreach (var rune in text.EnumerateRunes())
        {
            used += Of(rune).Advance * size / Em;
            if (used > width)
                break;
            kept.Append(rune);
        }

        return kept.ToString().TrimEnd() + "…";
    }

    /// <summary>A text in lines of at most a width, broken between words; what does not fit the lines is cut by an ellipsis.</summary>
    public static List<string> Wrap(string text, float size, float width, int most)
    {
        var lines = new List<string>();
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        for (var i = 0; i < words.Length && lines.Count < most; )
        {
            var line = words[i++];
            while (i < words.Length && Width($"{line} {words[i]}", size) <= width)
                line += " " + words[i++];
            lines.Add(Fit(lines.Count == most - 1 && i < words.Length ? $"{line} {words[i]}" : line, size, width));
        }

        return lines;
    }

    private static Glyph Of(Rune rune) => Table.Value.TryGetValue(rune.Value, out var glyph) ? glyph : Missing;

    private static Dictionary<int, Glyph> Read()
    {
        using var resource = new StreamReader(typeof(Glyphs).Assembly.GetManifestResourceStream("glyphs.txt")!);
        var table = new Dictionary<int, Glyph>();
        while (resource.ReadLine() is { } line)
        {
            var rune = Rune.GetRuneAt(line, 0);
            var space = line.IndexOf(' ', rune.Utf16SequenceLength);
            var advance = int.Parse(line.AsSpan(rune.Utf16SequenceLength, space - rune.Utf16SequenceLength), CultureInfo.InvariantCulture);
            table[rune.Value] = new Glyph(advance, line[(space + 1)..]);
        }

        return table;
    }
}
