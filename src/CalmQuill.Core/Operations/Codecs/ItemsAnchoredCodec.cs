using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class ItemsAnchoredCodec() : ChangeCodec<Change.ItemsAnchored>(ChangeKind.ItemsAnchored)
{
    protected override void Write(BatchWriter batch, Change.ItemsAnchored change)
    {
        Parts.WriteIds(batch.Head, change.Items);
        Parts.WriteId(batch.Head, change.On);
        Parts.WriteTransform(batch.Head, change.Lay);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.ItemsAnchored(Parts.ReadIds(ref batch.Head), Parts.ReadId(ref batch.Head), Parts.ReadTransform(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.ItemsAnchored change)
    {
        JsonParts.WriteItems(json, change.Items);
        json.WriteString("on", change.On.ToString());
        JsonParts.WriteTransform(json, change.Lay);
    }

    public override Change Read(JsonElement json) =>
        new Change.ItemsAnchored(JsonParts.ReadItems(json), OpId.Parse(JsonParts.Text(json, "on")), JsonParts.ReadTransform(json));
}
