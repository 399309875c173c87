using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class TextAddedCodec() : ChangeCodec<Change.TextAdded>(ChangeKind.TextAdded)
{
    protected override void Write(BatchWriter batch, Change.TextAdded change)
    {
        Parts.WriteTransform(batch.Head, change.Lay);
        batch.Head.Signed(change.Width);
        batch.Head.Signed(change.Ruling);
        batch.Head.Guid(change.Layer);
        Fields.OfItems.Write(batch.Head, change.Values);
        PassageParts.Write(batch.Head, change.Passage);
    }

    public override Change Read(ref BatchReader batch)
    {
        var lay = Parts.ReadTransform(ref batch.Head);
        int width = batch.Head.Int32(),
            ruling = batch.Head.Int32();
        var layer = batch.Head.Guid();
        var values = Fields.OfItems.Read(ref batch.Head);
        return new Change.TextAdded(lay, width, ruling, PassageParts.Read(ref batch.Head), values) { Layer = layer };
    }

    protected override void Write(Utf8JsonWriter json, Change.TextAdded change)
    {
        JsonParts.WriteTransform(json, change.Lay);
        json.WriteNumber("width", change.Width);
        json.WriteNumber("ruling", change.Ruling);
        if (change.Layer != Guid.Empty)
            json.WriteString("layer", change.Layer);
        Fields.OfItems.Write(json, change.Values);
        PassageParts.Write(json, change.Passage);
    }

    public override Change Read(JsonElement json) =>
        new Change.TextAdded(
            JsonParts.ReadTransform(json),
            json.GetProperty("width").GetInt32(),
            json.GetProperty("ruling").GetInt32(),
            PassageParts.Read(json),
            Fields.OfItems.Read(json)
        )
        {
            Layer = JsonParts.LayerOf(json),
        };
}
