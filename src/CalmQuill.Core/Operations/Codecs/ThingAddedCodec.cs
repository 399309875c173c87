using System.Text.Json;
using CalmQuill.Core.Items;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class ThingAddedCodec() : ChangeCodec<Change.ThingAdded>(ChangeKind.ThingAdded)
{
    protected override void Write(BatchWriter batch, Change.ThingAdded change)
    {
        batch.Head.Byte((byte)change.Thing);
        Parts.WriteTransform(batch.Head, change.Lay);
        batch.Head.Signed(change.Width);
        batch.Head.Signed(change.Height);
        batch.Head.Guid(change.Layer);
        Fields.OfItems.Write(batch.Head, change.Values);
        PassageParts.Write(batch.Head, change.Passage);
    }

    public override Change Read(ref BatchReader batch)
    {
        var thing = (ThingKind)batch.Head.Byte();
        var lay = Parts.ReadTransform(ref batch.Head);
        int width = batch.Head.Int32(),
            height = batch.Head.Int32();
        var layer = batch.Head.Guid();
        var values = Fields.OfItems.Read(ref batch.Head);
        return new Change.ThingAdded(thing, lay, width, height, PassageParts.Read(ref batch.Head), values) { Layer = layer };
    }

    protected override void Write(Utf8JsonWriter json, Change.ThingAdded change)
    {
        json.WriteString("thing", change.Thing.ToString());
        JsonParts.WriteTransform(json, change.Lay);
        json.WriteNumber("width", change.Width);
        json.WriteNumber("height", change.Height);
        if (change.Layer != Guid.Empty)
            json.WriteString("layer", change.Layer);
        Fields.OfItems.Write(json, change.Values);
        PassageParts.Write(json, change.Passage);
    }

    public override Change Read(JsonElement json) =>
        new Change.ThingAdded(
            Enum.Parse<ThingKind>(JsonParts.Text(json, "thing")),
            JsonParts.ReadTransform(json),
            json.GetProperty("width").GetInt32(),
            json.GetProperty("height").GetInt32(),
            PassageParts.Read(json),
            Fields.OfItems.Read(json)
        )
        {
            Layer = JsonParts.LayerOf(json),
        };
}
