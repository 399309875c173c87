using System.Buffers.Binary;
using System.Text;

namespace CalmQuill.Core.Operations;

/// <summary>Reads the primitive values of the binary codec; whatever does not fit is an <see cref="OperationFormatException"/>.</summary>
public ref struct ByteReader(ReadOnlySpan<byte> bytes)
{
    private static readonly UTF8Encoding StrictUtf8 = new(false, throwOnInvalidBytes: true);

    private readonly ReadOnlySpan<byte> bytes = bytes;
    private int position;

    public readonly int Remaining => bytes.Length - position;

    public readonly bool AtEnd => position == bytes.Length;

    public byte Byte()
    {
        if (position >= bytes.Length)
            throw Short();
        return bytes[position++];
    }

    public ulong Varint()
    {
        ulong value = 0;
        for (var shift = 0; shift < 64; shift += 7)
        {
            if (position >= bytes.Length)
                throw Short();
            var next = bytes[position++];
            if (shift == 63 && next > 1)
                break;
            value |= (ulong)(next & 0x7F) << shift;
            if (next < 0x80)
                return value;
        }

        throw new OperationFormatException("The data holds a number that is too long.");
    }

    public long Signed()
    {
        var folded = Varint();
        return (long)(folded >> 1) ^ -(long)(folded & 1);
    }

    public int Int32()
    {
        var value = Signed();
        return value is >= int.MinValue and <= int.MaxValue
            ? (int)value
            : throw new OperationFormatException("The data holds a number out of range.");
    }

    /// <summary>A count of things that take at least <paramref name="leastBytes"/> each, so that no short message can ask for much memory.</summary>
    public int Count(int most, int leastBytes, string what)
    {
        var count = Varint();
        if (count > (ulong)most)
            throw new OperationFormatException($"The data announces {count} {what}; {most} are allowed.");
        if (count * (ulong)leastBytes > (ulong)Remaining)
            throw Short();
        return (int)count;
    }

    public ulong Fixed64()
    {
        if (Remaining < 8)
            throw Short();
        position += 8;
        return BinaryPrimitives.ReadUInt64LittleEndian(bytes[(position - 8)..]);
    }

    public uint Fixed32()
    {
        if (Remaining < 4)
            throw Short();
        position += 4;
        return BinaryPrimitives.ReadUInt32LittleEndian(bytes[(position - 4)..]);
    }

    public Guid Guid()
    {
        if (Remaining < 16)
            throw Short();
        position += 16;
        return new Guid(bytes.Slice(position - 16, 16), bigEndian: true);
    }

    public string Text(int mostBytes)
    {
        var count = Count(mostBytes, 1, "bytes of text");
        position += count;
        try
        {
            return StrictUtf8.GetString(bytes.Slice(position - count, count));
        }
        catch (DecoderFallbackException problem)
        {
            throw new OperationFormatException("The data holds text that is not UTF-8.", problem);
        }
    }

    /// <summary>So many bytes, as they are.</summary>
    public ReadOnlySpan<byte> Bytes(int length)
    {
        if (length > Remaining)
            throw Short();
        position += length;
        return bytes.Slice(position - length, length);
    }

    /// <summary>A reader over the next bytes alone; this one goes on after them.</summary>
    public ByteReader Part(int length)
    {
        if (length > Remaining)
            throw Short();
        position += length;
        return new ByteReader(bytes.Slice(position - length, length));
    }

    private static OperationFormatException Short() => new("The data ends too early.");
}
