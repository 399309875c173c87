using System.Buffers.Binary;

namespace CalmQuill.Core.Assets;

/// <summary>Reads how a WebP picture (RFC 9649) is made up, without decoding it.</summary>
public static class WebpFile
{
    /// <summary>“RIFF”, the length of what follows, “WEBP”.</summary>
    private const int HeadLength = 12;

    /// <summary>Of the flags of an extended file: that it holds Exif, and that it holds XMP.</summary>
    private const byte SaysExif = 0x08,
        SaysXmp = 0x04;

    /// <summary>Width and height in pixels; null where the bytes are no WebP file.</summary>
    public static (int Width, int Height)? Read(ReadOnlySpan<byte> file)
    {
        if (file.Length < 30 || !file.StartsWith("RIFF"u8) || !file[8..].StartsWith("WEBP"u8))
            return null;
        var kind = file.Slice(HeadLength, 4);
        var content = file[(HeadLength + 8)..];
        if (kind.SequenceEqual("VP8X"u8))
            return (1 + Number24(content[4..]), 1 + Number24(content[7..]));
        if (kind.SequenceEqual("VP8L"u8) && content[0] == 0x2F)
        {
            var bits = BinaryPrimitives.ReadUInt32LittleEndian(content[1..]);
            return (1 + (int)(bits & 0x3FFF), 1 + (int)((bits >> 14) & 0x3FFF));
        }

        // A key frame's start code, then 14 bits each and two for scaling (RFC 6386 §9.1).
        if (kind.SequenceEqual("VP8 "u8) && content[3..].StartsWith<byte>([0x9D, 0x01, 0x2A]))
        {
            int width = BinaryPrimitives.ReadUInt16LittleEndian(content[6..]) & 0x3FFF,
                height = BinaryPrimitives.ReadUInt16LittleEndian(content[8..]) & 0x3FFF;
            return width > 0 && height > 0 ? (width, height) : null;
        }

        return null;
    }

    /// <summary>Null when the file is as long as it says and made up of whole chunks, pixels among them; else a sentence.</summary>
    public static Sentence? Problem(ReadOnlySpan<byte> file)
    {
        if (file.Length < HeadLength)
            return FileType.NotWhole;
        var whole = BinaryPrimitives.ReadUInt32LittleEndian(file[4..]) + 8L;
        if (whole < file.Length)
            return FileType.SomethingBehind;
        if (whole > file.Length)
            return FileType.NotWhole;
        var hasPixels = false;
        var at = HeadLength;
        while (at + 8 <= file.Length)
        {
            var size = SizeOf(file[at..]);
            if (size > file.Length - at)
                return FileType.NotWhole;
            var kind = file.Slice(at, 4);
            hasPixels |= kind.SequenceEqual("VP8 "u8) || kind.SequenceEqual("VP8L"u8) || kind.SequenceEqual("ANMF"u8);
            at += (int)size;
        }

        return at == file.Length && hasPixels ? null : FileType.NotWhole;
    }

    /// <summary>The same picture without its Exif and XMP. The file must be whole.</summary>
    public static byte[] WithoutOrigin(ReadOnlySpan<byte> file)
    {
        using var kept = new MemoryStream(file.Length);
        kept.Write(file[..HeadLength]);
        for (var at = HeadLength; at < file.Length; )
        {
            var size = (int)SizeOf(file[at..]);
            var kind = file.Slice(at, 4);
            if (kind.SequenceEqual("VP8X"u8))
            {
                byte[] chunk = [.. file.Slice(at, size)];
                chunk[8] &= unchecked((byte)~(SaysExif | SaysXmp));
                kept.Write(chunk);
            }
            else if (!kind.SequenceEqual("EXIF"u8) && !kind.SequenceEqual("XMP "u8))
                kept.Write(file.Slice(at, size));
            at += size;
        }

        var bytes = kept.ToArray();
        BinaryPrimitives.WriteUInt32LittleEndian(bytes.AsSpan(4), (uint)bytes.Length - 8);
        return bytes;
    }

    /// <summary>A chunk's name, its length, what it holds, and a byte that makes it even.</summary>
    private static long SizeOf(ReadOnlySpan<byte> chunk)
    {
        var length = (long)BinaryPrimitives.ReadUInt32LittleEndian(chunk[4..]);
        return 8 + length + length % 2;
    }

    private static int Number24(ReadOnlySpan<byte> bytes) => bytes[0] | bytes[1] << 8 | bytes[2] << 16;
}
