using System.Buffers.Binary;
using System.IO.Compression;

namespace CalmQuill.Documents.Pictures;

/// <summary>Greys as a PNG file (ISO/IEC 15948): 8 bits a point, no filter.</summary>
internal static class GreyPng
{
    private static readonly uint[] Table = [.. Enumerable.Range(0, 256).Select(Entry)];

    /// <param name="greys">Row by row from above, 0 black to 255 white.</param>
    /// <param name="width">Points a row.</param>
    /// <param name="height">Rows.</param>
    public static byte[] Write(byte[] greys, int width, int height)
    {
        using var file = new MemoryStream();
        file.Write([0x89, (byte)'P', (byte)'N', (byte)'G', 0x0D, 0x0A, 0x1A, 0x0A]);
        var head = new byte[13];
        BinaryPrimitives.WriteInt32BigEndian(head, width);
        BinaryPrimitives.WriteInt32BigEndian(head.AsSpan(4), height);
        head[8] = 8;
        Chunk(file, "IHDR"u8, head);
        using var packed = new MemoryStream();
        using (var deflate = new ZLibStream(packed, CompressionLevel.SmallestSize, leaveOpen: true))
        {
            for (var y = 0; y < height; y++)
            {
                // A row begins with its filter: none.
                deflate.WriteByte(0);
                deflate.Write(greys, y * width, width);
            }
        }

        Chunk(file, "IDAT"u8, packed.ToArray());
        Chunk(file, "IEND"u8, []);
        return file.ToArray();
    }

    private static void Chunk(MemoryStream file, ReadOnlySpan<byte> kind, byte[] content)
    {
        Span<byte> number = stackalloc byte[4];
        BinaryPrimitives.WriteInt32BigEndian(number, content.Length);
        file.Write(number);
        file.Write(kind);
        file.Write(content);
        var check = uint.MaxValue;
        foreach (var part in kind)
            check = Table[(check ^ part) & 0xFF] ^ (check >> 8);
        foreach (var part in content)
            check = Table[(check ^ part) & 0xFF] ^ (check >> 8);
        BinaryPrimitives.WriteUInt32BigEndian(number, ~check);
        file.Write(number);
    }

    /// <summary>An entry of the table for the cyclic redundancy check (annex D).</summary>
    private static uint Entry(int n)
    {
        var value = (uint)n;
        for (var bit = 0; bit < 8; bit++)
            value = (value & 1) == 1 ? 0xEDB88320u ^ (value >> 1) : value >> 1;
        return value;
    }
}
