using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class LayerSetCodec() : ChangeCodec<Change.LayerSet>(ChangeKind.LayerSet)
{
    protected override void Write(BatchWriter batch, Change.LayerSet change)
    {
        batch.Head.Guid(change.Layer);
        Fields.OfLayers.Write(batch.Head, change.Values);
    }

    public override Change Read(ref BatchReader batch) => new Change.LayerSet(batch.Head.Guid(), Fields.OfLayers.Read(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.LayerSet change)
    {
        json.WriteString("layer", change.Layer);
        Fields.OfLayers.Write(json, change.Values);
    }

    public override Change Read(JsonElement json) => new Change.LayerSet(JsonParts.LayerOf(json), Fields.OfLayers.Read(json));
}
