using System.Buffers.Binary;

namespace CalmQuill.Core.Notebooks;

/// <summary>The page of a day. Its id follows from notebook and day, so that two devices without a connection make one and the same page.</summary>
public static class TodayPage
{
    public static Guid IdOf(Guid notebook, DateOnly day)
    {
        Span<byte> bytes = stackalloc byte[16];
        notebook.TryWriteBytes(bytes, bigEndian: true, out _);
        BinaryPrimitives.WriteUInt32BigEndian(bytes[12..], BinaryPrimitives.ReadUInt32BigEndian(bytes[12..]) ^ (uint)day.DayNumber);
        // Version 8 (RFC 9562 §5.8): made by the application's own rule.
        bytes[6] = (byte)((bytes[6] & 0x0F) | 0x80);
        return new Guid(bytes, bigEndian: true);
    }
}
