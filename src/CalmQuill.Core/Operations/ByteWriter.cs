using System.Buffers.Binary;
using System.Text;

namespace CalmQuill.Core.Operations;

/// <summary>Writes the primitive values of the binary codec into a growing buffer.</summary>
public sealed class ByteWriter(int capacity = 256)
{
    private byte[] buffer = new byte[capacity];

    public int Length { get; private set; }

    public ReadOnlySpan<byte> Written => buffer.AsSpan(0, Length);

    public byte[] ToArray() => Written.ToArray();

    public void Byte(byte value)
    {
        Reserve(1);
        buffer[Length++] = value;
    }

    /// <summary>Seven bits a byte, lowest first; the eighth bit says that more follow (LEB128).</summary>
    public void Varint(ulong value)
    {
        Reserve(10);
        while (value >= 0x80)
        {
            buffer[Length++] = (byte)(value | 0x80);
            value >>= 7;
        }

        buffer[Length++] = (byte)value;
    }

    /// <summary>A signed number, zigzag-folded so that small magnitudes stay short.</summary>
    public void Signed(long value) => Varint((ulong)((value << 1) ^ (value >> 63)));

    public void Fixed64(ulong value)
    {
        Reserve(8);
        BinaryPrimitives.WriteUInt64LittleEndian(buffer.AsSpan(Length), value);
        Length += 8;
    }

    public void Fixed32(uint value)
    {
        Reserve(4);
        BinaryPrimitives.WriteUInt32LittleEndian(buffer.AsSpan(Length), value);
        Length += 4;
    }

    public void Single(float value) => Fixed32(BitConverter.SingleToUInt32Bits(value));

    public void Guid(Guid value)
    {
        Reserve(16);
        value.TryWriteBytes(buffer.AsSpan(Length), bigEndian: true, out _);
        Length += 16;
    }

    public void Text(string value)
    {
        var count = Encoding.UTF8.GetByteCount(value);
        Varint((ulong)count);
        Reserve(count);
        Length += Encoding.UTF8.GetBytes(value, buffer.AsSpan(Length));
    }

    public void Bytes(ReadOnlySpan<byte> value)
    {
        Reserve(value.Length);
        value.CopyTo(buffer.AsSpan(Length));
        Length += value.Length;
    }

    private void Reserve(int more)
    {
        if (Length + more > buffer.Length)
            Array.Resize(ref buffer, Math.Max(buffer.Length * 2, Length + more));
    }
}
