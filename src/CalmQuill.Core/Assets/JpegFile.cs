using System.Buffers.Binary;

namespace CalmQuill.Core.Assets;

/// <summary>Reads how a JPEG picture (ITU-T T.81) is made up, without decoding it.</summary>
public static class JpegFile
{
    private const byte Marker = 0xFF,
        StartOfImage = 0xD8,
        EndOfImage = 0xD9,
        StartOfScan = 0xDA,
        Exif = 0xE1;

    private const int OrientationTag = 0x0112;

    /// <summary>Width, height in pixels and colour components, from the frame header (§B.2.2); null where the bytes are no JPEG file.</summary>
    public static (int Width, int Height, int Components)? Read(ReadOnlySpan<byte> file)
    {
        if (file.Length < 4 || file[0] != Marker || file[1] != StartOfImage)
            return null;
        var at = 2;
        while (at + 4 <= file.Length)
        {
            if (file[at] != Marker)
                return null;
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
                if (length < 8 || at + 10 > file.Length)
                    return null;
                int height = BinaryPrimitives.ReadUInt16BigEndian(file[(at + 5)..]),
                    width = BinaryPrimitives.ReadUInt16BigEndian(file[(at + 7)..]);
                return width > 0 && height > 0 ? (width, height, file[at + 9]) : null;
            }

            if (kind == StartOfScan || length < 2)
                return null;
            at += 2 + length;
        }

        return null;
    }

    /// <summary>
    /// Which side of the picture is up, as its Exif says (CIPA DC-008, tag 0x0112): 1 as it is, up to 8 turned and mirrored; 1 where nothing is said.
    /// </summary>
    public static int Orientation(ReadOnlySpan<byte> file)
    {
        for (var at = 2; at + 10 < file.Length && file[at] == Marker && file[at + 1] != StartOfScan; )
        {
            var length = BinaryPrimitives.ReadUInt16BigEndian(file[(at + 2)..]);
            if (length < 2 || at + 2 + length > file.Length)
                return 1;
            var content = file.Slice(at + 4, length - 2);
            if (file[at + 1] == Exif && content.StartsWith("Exif\0\0"u8))
                return OfTiff(content[6..]);
            at += 2 + length;
        }

        return 1;
    }

    /// <summary>The same in the first directory of a TIFF structure.</summary>
    private static int OfTiff(ReadOnlySpan<byte> tiff)
    {
        if (tiff.Length < 10)
            return 1;
        var isLittle = tiff[0] == (byte)'I';
        var at = Number32(tiff[4..]);
        if (at > tiff.Length - 2)
            return 1;
        var count = Number16(tiff[(int)at..]);
        for (var entry = (int)at + 2; count > 0 && entry + 12 <= tiff.Length; entry += 12, count--)
        {
            if (Number16(tiff[entry..]) == OrientationTag)
                return Number16(tiff[(entry + 8)..]) is var found and >= 1 and <= 8 ? found : 1;
        }

        return 1;

        int Number16(ReadOnlySpan<byte> bytes) =>
            isLittle ? BinaryPrimitives.ReadUInt16LittleEndian(bytes) : BinaryPrimitives.ReadUInt16BigEndian(bytes);

        uint Number32(ReadOnlySpan<byte> bytes) =>
            isLittle ? BinaryPrimitives.ReadUInt32LittleEndian(bytes) : BinaryPrimitives.ReadUInt32BigEndian(bytes);
    }

    /// <summary>Null when the file is a whole picture, from its start to its end and nothing behind it (§B.1); else a sentence. Nothing is decoded.</summary>
    public static Sentence? Problem(ReadOnlySpan<byte> file)
    {
        var scans = 0;
        for (var at = 2; at + 1 < file.Length; )
        {
            if (file[at] != Marker)
                return FileType.NotWhole;
            var kind = file[at + 1];
            if (kind == Marker)
            {
                at++;
                continue;
            }

            if (kind == EndOfImage)
                return at + 2 == file.Length
                    ? scans > 0
                        ? null
                        : FileType.NotWhole
                    : FileType.SomethingBehind;
            if (at + 4 > file.Length)
                return FileType.NotWhole;
            var length = BinaryPrimitives.ReadUInt16BigEndian(file[(at + 2)..]);
            if (length < 2 || at + 2 + length > file.Length)
                return FileType.NotWhole;
            at += 2 + length;
            if (kind != StartOfScan)
                continue;
            scans++;
            // Coded data goes on to the next marker that is neither a stuffed byte nor a restart.
            while (at + 1 < file.Length && (file[at] != Marker || file[at + 1] is 0 or (>= 0xD0 and <= 0xD7)))
                at++;
        }

        return FileType.NotWhole;
    }

    /// <summary>The same picture without what its application segments say of where, when and with what it was taken, and without comments. The file must be whole.</summary>
    /// <remarks>JFIF's own (APP0), the colour profile (APP2) and how its colours are coded (APP14) stay: without them it would look otherwise.</remarks>
    public static byte[] WithoutOrigin(ReadOnlySpan<byte> file)
    {
        using var kept = new MemoryStream(file.Length);
        kept.Write(file[..2]);
        for (var at = 2; at + 4 <= file.Length; )
        {
            var kind = file[at + 1];
            // From the first scan on there are only pixels and their tables.
            if (kind is StartOfScan or EndOfImage)
            {
                kept.Write(file[at..]);
                break;
            }

            if (kind == Marker)
            {
                at++;
                continue;
            }

            var size = 2 + BinaryPrimitives.ReadUInt16BigEndian(file[(at + 2)..]);
            if (kind is not ((>= 0xE1 and <= 0xEF) or 0xFE) || kind is 0xE2 or 0xEE)
                kept.Write(file.Slice(at, size));
            at += size;
        }

        return kept.ToArray();
    }
}
