using System.Buffers.Binary;
using System.Security.Cryptography;

namespace CalmQuill.Core.Assets;

/// <summary>What a picture, a sound or a file is called: by what it consists of, so that the same one is kept once, and nothing can take its place.</summary>
/// <remarks>
/// A UUID of version 8 (RFC 9562 §5.8): the first 122 bits of the SHA-256 (FIPS 180-4) of its bytes around the version and the variant. The server keeps the whole
/// digest beside it. Ids that are not of version 8 were drawn at random by earlier versions; they still name what they named.
/// </remarks>
public static class AssetId
{
    /// <summary>The version that says that an id was made of what it names.</summary>
    private const int ByContent = 8;

    /// <summary>The id of some bytes.</summary>
    public static Guid Of(ReadOnlySpan<byte> bytes)
    {
        Span<byte> digest = stackalloc byte[SHA256.HashSizeInBytes];
        SHA256.HashData(bytes, digest);
        return OfDigest(digest);
    }

    /// <summary>The same of a digest that was worked out elsewhere.</summary>
    /// <param name="digest">A SHA-256: 32 bytes.</param>
    public static Guid OfDigest(ReadOnlySpan<byte> digest)
    {
        Span<byte> id = stackalloc byte[16];
        digest[..16].CopyTo(id);
        id[6] = (byte)((ByContent << 4) | (id[6] & 0x0F));
        id[8] = (byte)(0x80 | (id[8] & 0x3F));
        return new Guid(id, bigEndian: true);
    }

    /// <summary>Whether an id was made of what it names.</summary>
    public static bool IsOfContent(Guid id)
    {
        Span<byte> bytes = stackalloc byte[16];
        id.TryWriteBytes(bytes, bigEndian: true, out _);
        return bytes[6] >> 4 == ByContent && BinaryPrimitives.ReadUInt16BigEndian(bytes[8..]) >> 14 == 0b10;
    }
}
