using System.Buffers.Binary;

namespace CalmQuill.Documents.Pictures;

/// <summary>Reads the size of a JPEG picture from its frame header (ITU-T T.81 §B.2.2), without decoding it.</summary>
public static class JpegHead
{
    private const byte Marker = 0xFF, StartOfImage = 0xD8, StartOfScan = 0xDA;

    /// <summary>Width, height in pixels and colour components; null where the bytes are no JPEG file.</summary>
    public static (int Width, int Height, int Components)? Read(ReadOnlySpan<byte> file)
    {
        if (file.Length < 4 || file[0] != Marker || file[1] != StartOfImage) return null;
        var at = 2;
        while (at + 4 <= file.Length)
        {
            if (file[at] != Marker) return null;
            var kind = file[at + 1];
            if (kind == Marker)
            {
                at++;
                continue;
            }

            var length = BinaryPrimitives.ReadUInt16BigEndian(file[(at + 2)..]);
            // Frame headers are C0 to CF but for the tables C4, C8 and CC.
            if (kind is >= 0xC0 and <= 0xCF and not (0xC4 or 0xC8 or 0xCC))
            {
                if (length < 8 || at + 10 > file.Length) return null;
                int height = BinaryPrimitives.ReadUInt16BigEndian(file[(at + 5)..]), width = BinaryPrimitives.ReadUInt16BigEndian(file[(at + 7)..]);
                return width > 0 && height > 0 ? (width, height, file[at + 9]) : null;
            }

            if (kind == StartOfScan || length < 2) return null;
            at += 2 + length;
        }

        return null;
    }
}
