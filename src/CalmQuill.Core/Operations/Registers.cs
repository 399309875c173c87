namespace CalmQuill.Core.Operations;

/// <summary>Last-writer-wins registers by target and property.</summary>
public sealed class Registers
{
    private readonly Dictionary<(Guid Target, Property Property), (Stamp Stamp, string Value)> values = [];

    /// <summary>Writes when the stamp is later than what stands there. True when the value was taken.</summary>
    public bool Write(Guid target, Property property, Stamp stamp, string value)
    {
        if (values.TryGetValue((target, property), out var standing) && standing.Stamp > stamp) return false;
        values[(target, property)] = (stamp, value);
        return true;
    }

    public string Read(Guid target, Property property, string otherwise = "") =>
        values.TryGetValue((target, property), out var standing) ? standing.Value : otherwise;

    /// <summary>All registers of one property that hold something, by target.</summary>
    public List<(Guid Target, string Value)> All(Property property) =>
        [.. values.Where(entry => entry.Key.Property == property && entry.Value.Value.Length > 0).Select(entry => (entry.Key.Target, entry.Value.Value)).OrderBy(entry => entry.Target)];

    /// <summary>Writes all registers in one canonical order, for the encoded state.</summary>
    public void Write(ByteWriter writer)
    {
        foreach (var ((target, property), (_, value)) in values.OrderBy(entry => entry.Key.Target).ThenBy(entry => entry.Key.Property))
        {
            writer.Guid(target);
            writer.Byte((byte)property);
            writer.Text(value);
        }
    }
}
