using System.Buffers.Binary;
using System.Text;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Documents.Letters;

/// <summary>A font file with the outlines of some glyphs alone (ISO/IEC 14496-22): all keep their numbers, the others show nothing.</summary>
public static class FontSubset
{
    /// <summary>What draws glyphs, and nothing that chooses or places them.</summary>
    private static readonly string[] Kept = ["cvt ", "fpgm", "glyf", "head", "hhea", "hmtx", "loca", "maxp", "prep"];

    private const int HeadFormat = 50,
        HeadSum = 8;

    /// <param name="font">The font.</param>
    /// <param name="glyphs">The glyphs; those they are made of come along.</param>
    public static byte[] Of(FontFile font, IReadOnlySet<int> glyphs)
    {
        var needed = new SortedSet<int>(glyphs) { 0 };
        var open = new Queue<int>(needed);
        while (open.TryDequeue(out var glyph))
        {
            foreach (var part in font.PartsOf(glyph))
            {
                if (needed.Add(part))
                    open.Enqueue(part);
            }
        }

        using var outlines = new MemoryStream();
        var places = new byte[(font.GlyphCount + 1) * 4];
        for (var glyph = 0; glyph < font.GlyphCount; glyph++)
        {
            BinaryPrimitives.WriteUInt32BigEndian(places.AsSpan(glyph * 4), (uint)outlines.Length);
            if (!needed.Contains(glyph))
                continue;
            outlines.Write(font.RawOutline(glyph).Span);
            while (outlines.Length % 4 != 0)
                outlines.WriteByte(0);
        }

        BinaryPrimitives.WriteUInt32BigEndian(places.AsSpan(font.GlyphCount * 4), (uint)outlines.Length);
        var head = font.Table("head").ToArray();
        BinaryPrimitives.WriteUInt16BigEndian(head.AsSpan(HeadFormat), 1);
        BinaryPrimitives.WriteUInt32BigEndian(head.AsSpan(HeadSum), 0);
        return Write([
            .. Kept.Where(name => font.Has(name))
                .Select(name =>
                    (
                        name,
                        name switch
                        {
                            "glyf" => outlines.ToArray(),
                            "loca" => places,
                            "head" => head,
                            _ => font.Table(name).ToArray(),
                        }
                    )
                ),
        ]);
    }

    private static byte[] Write(List<(string Name, byte[] Data)> tables)
    {
        const int directory = 12,
            row = 16;
        const uint whole = 0xB1B0AFBA;
        var start = directory + row * tables.Count;
        var file = new byte[start + tables.Sum(table => (table.Data.Length + 3) / 4 * 4)];
        var exponent = (int)Math.Floor(Math.Log2(tables.Count));
        BinaryPrimitives.WriteUInt32BigEndian(file, 0x00010000);
        BinaryPrimitives.WriteUInt16BigEndian(file.AsSpan(4), (ushort)tables.Count);
        BinaryPrimitives.WriteUInt16BigEndian(file.AsSpan(6), (ushort)(16 << exponent));
        BinaryPrimitives.WriteUInt16BigEndian(file.AsSpan(8), (ushort)exponent);
        BinaryPrimitives.WriteUInt16BigEndian(file.AsSpan(10), (ushort)(16 * tables.Count - (16 << exponent)));
        var at = start;
        var head = 0;
        for (var i = 0; i < tables.Count; i++)
        {
            var (name, data) = tables[i];
            data.CopyTo(file, at);
            var entry = file.AsSpan(directory + row * i);
            Encoding.ASCII.GetBytes(name).CopyTo(entry);
            BinaryPrimitives.WriteUInt32BigEndian(entry[4..], Sum(file.AsSpan(at, (data.Length + 3) / 4 * 4)));
            BinaryPrimitives.WriteUInt32BigEndian(entry[8..], (uint)at);
            BinaryPrimitives.WriteUInt32BigEndian(entry[12..], (uint)data.Length);
            if (name == "head")
                head = at;
            at += (data.Length + 3) / 4 * 4;
        }

        BinaryPrimitives.WriteUInt32BigEndian(file.AsSpan(head + HeadSum), unchecked(whole - Sum(file)));
        return file;
    }

    private static uint Sum(ReadOnlySpan<byte> data)
    {
        uint sum = 0;
        for (var i = 0; i < data.Length; i += 4)
            sum = unchecked(sum + BinaryPrimitives.ReadUInt32BigEndian(data[i..]));
        return sum;
    }
}
