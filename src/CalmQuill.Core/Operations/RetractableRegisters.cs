namespace CalmQuill.Core.Operations;

/// <summary>The registers of one thing on a page: for each field the later stamp wins. Every write can be taken out again, so that undo takes back just the own step.</summary>
/// <typeparam name="TField">The fields.</typeparam>
public sealed class RetractableRegisters<TField>
    where TField : struct, Enum
{
    private static readonly Comparer<Stamp> ByStamp = Comparer<Stamp>.Create((one, other) => one.CompareTo(other));

    /// <summary>Made when first needed: of most things nothing is ever written.</summary>
    private Dictionary<TField, SortedList<Stamp, Entry>>? fields;

    /// <summary>What was written, by whom and when.</summary>
    public readonly record struct Entry(Stamp Stamp, Guid Author, string Value);

    /// <summary>Whether nothing stands: what was all taken back is as if it had never been written.</summary>
    public bool IsEmpty => fields is not { Count: > 0 };

    /// <summary>The fields of which something stands.</summary>
    public IEnumerable<TField> Fields => fields?.Keys ?? Enumerable.Empty<TField>();

    /// <summary>Puts a write in, or takes it out.</summary>
    public void Write(Stamp stamp, Guid author, TField field, string value, bool adds)
    {
        fields ??= [];
        if (!fields.TryGetValue(field, out var writes))
            fields[field] = writes = new(ByStamp);
        if (adds)
            writes[stamp] = new Entry(stamp, author, value);
        else
            writes.Remove(stamp);
        if (writes.Count == 0)
            fields.Remove(field);
    }

    /// <summary>What stands in a field; empty for nothing.</summary>
    public string Read(TField field) => fields is not null && fields.TryGetValue(field, out var writes) ? writes.Values[^1].Value : "";

    /// <summary>What was written into a field last.</summary>
    public Entry? Latest(TField field) => fields is not null && fields.TryGetValue(field, out var writes) ? writes.Values[^1] : null;

    /// <summary>What was written into a field first.</summary>
    public Entry? First(TField field) => fields is not null && fields.TryGetValue(field, out var writes) ? writes.Values[0] : null;
}
