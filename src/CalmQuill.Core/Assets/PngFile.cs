using System.Buffers.Binary;

namespace CalmQuill.Core.Assets;

/// <summary>Reads how a PNG picture (ISO/IEC 15948) is made up, without decoding it.</summary>
public static class PngFile
{
    /// <summary>Length, name and check around each chunk's content.</summary>
    private const int AroundContent = 12;

    private static ReadOnlySpan<byte> Signature => [0x89, (byte)'P', (byte)'N', (byte)'G', 0x0D, 0x0A, 0x1A, 0x0A];

    /// <summary>Width and height in pixels; null where the bytes are no PNG file.</summary>
    public static (int Width, int Height)? Read(ReadOnlySpan<byte> file)
    {
        if (file.Length < 33 || !file.StartsWith(Signature) || !file[12..].StartsWith("IHDR"u8))
            return null;
        int width = BinaryPrimitives.ReadInt32BigEndian(file[16..]),
            height = BinaryPrimitives.ReadInt32BigEndian(file[20..]);
        return width > 0 && height > 0 ? (width, height) : null;
    }

    /// <summary>Null when the file is whole, from its signature to its last chunk and nothing behind it; else a sentence.</summary>
    public static Sentence? Problem(ReadOnlySpan<byte> file)
    {
        var hasPixels = false;
        for (var at = Signature.Length; at + AroundContent <= file.Length; )
        {
            var length = BinaryPrimitives.ReadUInt32BigEndian(file[at..]);
            if (length > file.Length - at - AroundContent)
                return FileType.NotWhole;
            var kind = file.Slice(at + 4, 4);
            at += AroundContent + (int)length;
            hasPixels |= kind.SequenceEqual("IDAT"u8);
            if (kind.SequenceEqual("IEND"u8))
                return !hasPixels ? FileType.NotWhole
                    : at == file.Length ? null
                    : FileType.SomethingBehind;
        }

        return FileType.NotWhole;
    }

    /// <summary>The same picture without what it says of where, when and with what it was taken: its texts, its time and its Exif. The file must be whole.</summary>
    public static byte[] WithoutOrigin(ReadOnlySpan<byte> file)
    {
        using var kept = new MemoryStream(file.Length);
        kept.Write(Signature);
        for (var at = Signature.Length; at < file.Length; )
        {
            var size = AroundContent + (int)BinaryPrimitives.ReadUInt32BigEndian(file[at..]);
            var kind = file.Slice(at + 4, 4);
            if (
                !kind.SequenceEqual("eXIf"u8)
                && !kind.SequenceEqual("tEXt"u8)
                && !kind.SequenceEqual("zTXt"u8)
                && !kind.SequenceEqual("iTXt"u8)
                && !kind.SequenceEqual("tIME"u8)
            )
                kept.Write(file.Slice(at, size));
            at += size;
        }

        return kept.ToArray();
    }
}
