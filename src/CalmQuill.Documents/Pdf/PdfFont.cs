using System.Buffers.Binary;
using System.Globalization;
using System.IO.Compression;
using System.Text;
using CalmQuill.Core.Typesetting;
using CalmQuill.Documents.Letters;

namespace CalmQuill.Documents.Pdf;

/// <summary>
/// A font in a PDF file (ISO 32000-1 §9.7): the glyphs that are used of it, and what letters each stands for, so that the text can be found and copied.
/// </summary>
/// <param name="font">The font.</param>
/// <param name="number">The number of its object.</param>
internal sealed class PdfFont(Font font, int number)
{
    private const int MostCodes = 65_535;
    private readonly Dictionary<(int Glyph, string Text), int> codes = [];
    private readonly List<(int Glyph, string Text)> used = [(0, "")];

    public int Number => number;

    /// <summary>The name that sheets know it by.</summary>
    public string Name { get; } = string.Create(CultureInfo.InvariantCulture, $"L{number}");

    /// <summary>The code of a glyph where it stands for some letters: one glyph may stand for several.</summary>
    public int CodeOf(int glyph, string text)
    {
        if (codes.TryGetValue((glyph, text), out var code))
            return code;
        if (used.Count > MostCodes)
            throw new PrintBudgetException($"There is too much on this page to be printed or shown as a whole.");
        used.Add((glyph, text));
        return codes[(glyph, text)] = used.Count - 1;
    }

    /// <summary>How far a glyph moves on by itself, in thousandths of the type.</summary>
    public int WidthOf(int glyph) => (int)Math.Round(font.File.Advance(glyph) * 1000.0 / font.File.UnitsPerEm);

    /// <summary>Writes it, once all that is used of it is known.</summary>
    public void Put(PdfFile file)
    {
        var subset = FontSubset.Of(font.File, used.Select(one => one.Glyph).ToHashSet());
        var program = file.AddStream(
            subset,
            string.Create(CultureInfo.InvariantCulture, $"/Length1 {subset.Length}"),
            CompressionLevel.Optimal
        );
        // A name that says that it is a part of the font (§9.6.4).
        var name = $"{Tag()}+CalmQuill-{font.Name}";
        string Thousandths(int units) => (units * 1000L / font.File.UnitsPerEm).ToString(CultureInfo.InvariantCulture);
        var descriptor = file.Add(
            $"<< /Type /FontDescriptor /FontName /{name} /Flags 4 /FontBBox [{Thousandths(-font.File.UnitsPerEm)} {Thousandths(-font.File.Descender)} {Thousandths(font.File.UnitsPerEm * 2)} {Thousandths(font.File.Ascender)}] /ItalicAngle 0 /Ascent {Thousandths(font.File.Ascender)} /Descent {Thousandths(-font.File.Descender)} /CapHeight {Thousandths(font.File.Ascender)} /StemV 80 /FontFile2 {program} 0 R >>"
        );
        var map = new byte[used.Count * 2];
        for (var i = 0; i < used.Count; i++)
            BinaryPrimitives.WriteUInt16BigEndian(map.AsSpan(2 * i), (ushort)used[i].Glyph);
        var glyphs = file.AddStream(map);
        var widths = string.Join(' ', used.Select(one => WidthOf(one.Glyph)));
        var own = file.Add(
            $"<< /Type /Font /Subtype /CIDFontType2 /BaseFont /{name} /CIDSystemInfo << /Registry (Adobe) /Ordering (Identity) /Supplement 0 >> /FontDescriptor {descriptor} 0 R /W [0 [{widths}]] /CIDToGIDMap {glyphs} 0 R >>"
        );
        var letters = file.AddStream(Encoding.ASCII.GetBytes(Letters()));
        file.Put(
            number,
            $"<< /Type /Font /Subtype /Type0 /BaseFont /{name} /Encoding /Identity-H /DescendantFonts [{own} 0 R] /ToUnicode {letters} 0 R >>"
        );
    }

    private string Tag()
    {
        var tag = new char[6];
        for (int i = 0, rest = number; i < tag.Length; i++, rest /= 26)
            tag[i] = (char)('A' + rest % 26);
        return new string(tag);
    }

    /// <summary>What letters each code stands for (§9.10.3).</summary>
    private string Letters()
    {
        const int mostInBlock = 100;
        var map = new StringBuilder(
            "/CIDInit /ProcSet findresource begin\n12 dict begin\nbegincmap\n/CIDSystemInfo << /Registry (Adobe) /Ordering (UCS) /Supplement 0 >> def\n/CMapName /Adobe-Identity-UCS def\n/CMapType 2 def\n1 begincodespacerange\n<0000> <FFFF>\nendcodespacerange\n"
        );
        foreach (var block in used.Select((one, code) => (one.Text, Code: code)).Where(one => one.Text.Length > 0).Chunk(mostInBlock))
        {
            map.Append(CultureInfo.InvariantCulture, $"{block.Length} beginbfchar\n");
            foreach (var (text, code) in block)
                map.Append(
                    CultureInfo.InvariantCulture,
                    $"<{code:X4}> <{Convert.ToHexString(Encoding.BigEndianUnicode.GetBytes(text))}>\n"
                );
            map.Append("endbfchar\n");
        }

        return map.Append("endcmap\nCMapName currentdict /CMap defineresource pop\nend\nend\n").ToString();
    }
}
