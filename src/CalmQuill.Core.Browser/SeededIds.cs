using System.Buffers.Binary;

namespace CalmQuill.Core.Browser;

/// <summary>Fresh ids one after the other, the same ones for the same seed: what is planned twice comes out alike.</summary>
internal sealed class SeededIds(Guid seed)
{
    private uint drawn;

    public Guid Next()
    {
        Span<byte> bytes = stackalloc byte[16];
        seed.TryWriteBytes(bytes, bigEndian: true, out _);
        BinaryPrimitives.WriteUInt32BigEndian(bytes[12..], BinaryPrimitives.ReadUInt32BigEndian(bytes[12..]) + ++drawn);
        // Version 8 (RFC 9562 §5.8): made by the application's own rule.
        bytes[6] = (byte)((bytes[6] & 0x0F) | 0x80);
        return new Guid(bytes, bigEndian: true);
    }
}
