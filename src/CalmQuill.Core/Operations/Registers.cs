namespace CalmQuill.Core.Operations;

/// <summary>Last-writer-wins registers by target and property.</summary>
public sealed class Registers
{
    private readonly Dictionary<Property, Dictionary<Guid, (Stamp Stamp, string Value)>> byProperty = [];

    /// <summary>Writes when the stamp is later than what stands there. True when the value was taken.</summary>
    public bool Write(Guid target, Property property, Stamp stamp, string value)
    {
        if (!byProperty.TryGetValue(property, out var values))
            byProperty[property] = values = [];
        if (values.TryGetValue(target, out var standing) && standing.Stamp > stamp)
            return false;
        values[target] = (stamp, value);
        return true;
    }

    public string Read(Guid target, Property property, string otherwise = "") =>
        byProperty.TryGetValue(property, out var values) && values.TryGetValue(target, out var standing) ? standing.Value : otherwise;

    /// <summary>What a register holds, as the table of registers reads it.</summary>
    public T Read<T>(Guid target, PropertyDescriptor<T> property) => property.Read(Read(target, property.Property));

    /// <summary>When a register was written last, UTC milliseconds since 1970, by the writing operation's own stamp; null when it holds nothing.</summary>
    public long? WrittenAt(Guid target, Property property) =>
        byProperty.TryGetValue(property, out var values) && values.TryGetValue(target, out var standing) && standing.Value.Length > 0
            ? standing.Stamp.Time.UnixMilliseconds
            : null;

    /// <summary>All registers of one property that hold something, by target.</summary>
    public List<(Guid Target, string Value)> All(Property property) =>
        byProperty.TryGetValue(property, out var values)
            ?
            [
                .. values
                    .Where(entry => entry.Value.Value.Length > 0)
                    .Select(entry => (entry.Key, entry.Value.Value))
                    .OrderBy(entry => entry.Key),
            ]
            : [];

    /// <summary>Writes all registers in one canonical order, for the encoded state.</summary>
    public void Write(ByteWriter writer)
    {
        foreach (var (property, values) in byProperty.OrderBy(entry => entry.Key))
        {
            writer.Byte((byte)property);
            foreach (var (target, (_, value)) in values.OrderBy(entry => entry.Key))
            {
                writer.Guid(target);
                writer.Text(value);
            }
        }
    }
}
