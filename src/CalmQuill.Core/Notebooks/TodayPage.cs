using System.Buffers.Binary;

namespace CalmQuill.Core.Notebooks;

/// <summary>The page of a day. Its id follows from notebook and day, so that two devices without a connection make one and the same page.</summary>
public static class TodayPage
{
    private const int Most = 1_000;

    /// <summary>The page of a day in a notebook. One that was erased, or moved to another notebook, never comes back under its id, so the next one takes its place.</summary>
    public static Guid In(NotebookDocument document, Guid notebook, DateOnly day)
    {
        var nth = 0;
        while (nth < Most && document.IsGone(IdOf(notebook, day, nth)))
            nth++;
        return IdOf(notebook, day, nth);
    }

    /// <param name="notebook">The notebook.</param>
    /// <param name="day">The day.</param>
    /// <param name="nth">How many of the day's pages before it are gone.</param>
    public static Guid IdOf(Guid notebook, DateOnly day, int nth = 0)
    {
        Span<byte> bytes = stackalloc byte[16];
        notebook.TryWriteBytes(bytes, bigEndian: true, out _);
        BinaryPrimitives.WriteUInt32BigEndian(bytes[12..], BinaryPrimitives.ReadUInt32BigEndian(bytes[12..]) ^ (uint)day.DayNumber);
        BinaryPrimitives.WriteUInt16BigEndian(bytes[9..], (ushort)(BinaryPrimitives.ReadUInt16BigEndian(bytes[9..]) ^ nth));
        // Version 8 (RFC 9562 §5.8): made by the application's own rule.
        bytes[6] = (byte)((bytes[6] & 0x0F) | 0x80);
        return new Guid(bytes, bigEndian: true);
    }
}
