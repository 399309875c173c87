using System.Text.Json;
using CalmQuill.Core.Items;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class ThingAddedCodec() : ChangeCodec<Change.ThingAdded>(ChangeKind.ThingAdded)
{
    private const string Height = "height";

    protected override void Write(BatchWriter batch, Change.ThingAdded change)
    {
        batch.Head.Byte((byte)change.Thing);
        WrittenParts.Write(batch.Head, change, change.Height);
    }

    public override Change Read(ref BatchReader batch)
    {
        var thing = (ThingKind)batch.Head.Byte();
        return Of(thing, WrittenParts.Read(ref batch.Head));
    }

    protected override void Write(Utf8JsonWriter json, Change.ThingAdded change)
    {
        json.WriteString("thing", change.Thing.ToString());
        WrittenParts.Write(json, change, Height, change.Height);
    }

    public override Change Read(JsonElement json) =>
        Of(Enum.Parse<ThingKind>(JsonParts.Text(json, "thing")), WrittenParts.Read(json, Height));

    private static Change.ThingAdded Of(ThingKind thing, WrittenParts parts) =>
        new(thing, parts.Lay, parts.Width, parts.Measure, parts.Passage, parts.Values) { Layer = parts.Layer };
}
