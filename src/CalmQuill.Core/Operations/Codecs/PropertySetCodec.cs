using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class PropertySetCodec() : ChangeCodec<Change.PropertySet>(ChangeKind.PropertySet)
{
    protected override void Write(BatchWriter batch, Change.PropertySet change)
    {
        batch.Head.Guid(change.Target);
        batch.Head.Byte((byte)change.Property);
        batch.Head.Text(change.Value);
    }

    public override Change Read(ref BatchReader batch)
    {
        var (target, property) = (batch.Head.Guid(), (Property)batch.Head.Byte());
        return new Change.PropertySet(target, property, batch.Head.Text(Properties.MostBytes(property)));
    }

    protected override void Write(Utf8JsonWriter json, Change.PropertySet change)
    {
        json.WriteString("target", change.Target);
        json.WriteString("property", change.Property.ToString());
        json.WriteString("value", change.Value);
    }

    public override Change Read(JsonElement json) =>
        new Change.PropertySet(
            json.GetProperty("target").GetGuid(),
            PropertyOf(JsonParts.Text(json, "property")),
            JsonParts.Text(json, "value")
        );

    /// <summary>What was written under an earlier name is read under it.</summary>
    private static Property PropertyOf(string name) => name == "Hand" ? Property.Habits : Enum.Parse<Property>(name);
}
