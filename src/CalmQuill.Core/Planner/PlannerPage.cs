using System.Buffers.Binary;
using System.Globalization;

namespace CalmQuill.Core.Planner;

/// <summary>Which page of a planner one is: of a year, month, week or day, by its first day; a note page by its number; an entry's note page by the entry.</summary>
public readonly record struct PlannerPage(PlannerKind Kind, DateOnly Date, int Number = 0, Guid Entry = default)
{
    /// <summary>The page's id in a notebook. It follows from what the page is, so that links to it are worked out and never break, and two devices make one and the same page.</summary>
    /// <param name="notebook">The notebook.</param>
    /// <param name="nth">How many such pages before it are gone.</param>
    public Guid IdIn(Guid notebook, int nth = 0)
    {
        Span<byte> bytes = stackalloc byte[16];
        notebook.TryWriteBytes(bytes, bigEndian: true, out _);
        if (Kind == PlannerKind.Entry)
        {
            Span<byte> entry = stackalloc byte[16];
            Entry.TryWriteBytes(entry, bigEndian: true, out _);
            for (var i = 0; i < 16; i++)
                bytes[i] ^= entry[i];
        }

        BinaryPrimitives.WriteUInt32BigEndian(
            bytes[12..],
            BinaryPrimitives.ReadUInt32BigEndian(bytes[12..]) ^ (uint)(Date.DayNumber + (Number << 22))
        );
        bytes[11] ^= (byte)Kind;
        BinaryPrimitives.WriteUInt16BigEndian(bytes[9..], (ushort)(BinaryPrimitives.ReadUInt16BigEndian(bytes[9..]) ^ nth));
        // Version 8 (RFC 9562 §5.8): made by the application's own rule.
        bytes[6] = (byte)((bytes[6] & 0x0F) | 0x80);
        return new Guid(bytes, bigEndian: true);
    }

    /// <summary>The page's id in a notebook in which it may have been erased, or moved away: then the next one takes its place.</summary>
    public Guid IdIn(Notebooks.NotebookDocument document, Guid notebook)
    {
        var nth = 0;
        while (nth < MostGone && document.IsGone(IdIn(notebook, nth)))
            nth++;
        return IdIn(notebook, nth);
    }

    private const int MostGone = 1_000;

    /// <summary>The text form: <c>month/2026-10-01</c>, <c>notes/3</c>, <c>entry/…</c>.</summary>
    public override string ToString() =>
        Kind switch
        {
            PlannerKind.Entry => $"entry/{Entry}",
            PlannerKind.Notes => string.Create(CultureInfo.InvariantCulture, $"notes/{Number}"),
            _ => string.Create(CultureInfo.InvariantCulture, $"{Kind.ToString().ToLowerInvariant()}/{Date:yyyy-MM-dd}"),
        };

    /// <summary>Reads the text form; null when it is not one.</summary>
    public static PlannerPage? Read(string text)
    {
        var parts = text.Split('/');
        if (
            parts.Length != 2
            || !Enum.TryParse<PlannerKind>(parts[0], ignoreCase: true, out var kind)
            || !Enum.IsDefined(kind)
            || char.IsAsciiDigit(parts[0].FirstOrDefault('0'))
        )
            return null;
        return kind switch
        {
            PlannerKind.Entry => Guid.TryParse(parts[1], out var entry) ? new PlannerPage(kind, default, 0, entry) : null,
            PlannerKind.Notes => int.TryParse(parts[1], NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            && number is > 0 and <= 500
                ? new PlannerPage(kind, default, number)
                : null,
            _ => DateOnly.TryParseExact(parts[1], "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var date)
                ? new PlannerPage(kind, date)
                : null,
        };
    }
}
