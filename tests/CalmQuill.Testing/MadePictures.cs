using System.Buffers.Binary;
using System.IO.Compression;

namespace CalmQuill.Testing;

/// <summary>Small pictures, laid down chunk by chunk as the formats' standards say, with as much said of their origin as one likes.</summary>
public static class MadePictures
{
    /// <summary>A PNG picture (ISO/IEC 15948) of one colour that half covers.</summary>
    public static byte[] Png(int width, int height) => PngOf(width, height, null);

    /// <summary>The same, or one of noise.</summary>
    public static byte[] PngOf(int width, int height, Random? noise)
    {
        using var file = new MemoryStream();
        file.Write([0x89, (byte)'P', (byte)'N', (byte)'G', 0x0D, 0x0A, 0x1A, 0x0A]);
        var head = new byte[13];
        BinaryPrimitives.WriteInt32BigEndian(head, width);
        BinaryPrimitives.WriteInt32BigEndian(head.AsSpan(4), height);
        // 8 bits each for red, green, blue and alpha.
        (head[8], head[9]) = (8, 6);
        file.Write(PngChunk("IHDR", head));
        using var packed = new MemoryStream();
        using (var deflate = new ZLibStream(packed, CompressionLevel.Fastest, leaveOpen: true))
        {
            byte[] row = [0, .. Enumerable.Repeat<byte[]>([0x2F, 0x6B, 0x5A, 0x80], width).SelectMany(pixel => pixel)];
            for (var y = 0; y < height; y++)
            {
                noise?.NextBytes(row.AsSpan(1));
                deflate.Write(row);
            }
        }

        file.Write(PngChunk("IDAT", packed.ToArray()));
        file.Write(PngChunk("IEND", []));
        return file.ToArray();
    }

    /// <summary>A chunk to be put behind the head of a PNG picture, which is 33 bytes long.</summary>
    public static byte[] PngChunk(string name, byte[] content)
    {
        byte[] named = [.. System.Text.Encoding.ASCII.GetBytes(name), .. content];
        var chunk = new byte[8 + named.Length];
        BinaryPrimitives.WriteInt32BigEndian(chunk, content.Length);
        named.CopyTo(chunk, 4);
        BinaryPrimitives.WriteUInt32BigEndian(chunk.AsSpan(4 + named.Length), Check(named));
        return chunk;
    }

    /// <summary>An extended WebP picture (RFC 9649) of the given chunks; its flags say what is among them.</summary>
    public static byte[] Webp(int width, int height, params (string Name, byte[] Content)[] chunks)
    {
        byte[] extended = [0, 0, 0, 0, .. Number24(width - 1), .. Number24(height - 1)];
        foreach (var (name, _) in chunks)
            extended[0] |= (byte)(
                name switch
                {
                    "EXIF" => 8,
                    "XMP " => 4,
                    _ => 0x10,
                }
            );
        byte[] body = [.. WebpChunk("VP8X", extended), .. chunks.SelectMany(chunk => WebpChunk(chunk.Name, chunk.Content))];
        return [.. "RIFF"u8, .. Length(body.Length + 4), .. "WEBP"u8, .. body];
    }

    private static byte[] WebpChunk(string name, byte[] content) =>
        [
            .. System.Text.Encoding.ASCII.GetBytes(name),
            .. Length(content.Length),
            .. content,
            .. content.Length % 2 == 1 ? new byte[1] : [],
        ];

    private static byte[] Number24(int number) => [(byte)number, (byte)(number >> 8), (byte)(number >> 16)];

    private static byte[] Length(int length)
    {
        var bytes = new byte[4];
        BinaryPrimitives.WriteInt32LittleEndian(bytes, length);
        return bytes;
    }

    /// <summary>The cyclic redundancy check of PNG (annex D).</summary>
    private static uint Check(byte[] bytes)
    {
        var check = uint.MaxValue;
        foreach (var one in bytes)
        {
            check ^= one;
            for (var bit = 0; bit < 8; bit++)
                check = (check & 1) == 1 ? 0xEDB88320u ^ (check >> 1) : check >> 1;
        }

        return ~check;
    }
}
