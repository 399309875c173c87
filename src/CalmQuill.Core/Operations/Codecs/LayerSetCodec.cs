using System.Text.Json;
using CalmQuill.Core.Layers;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class LayerSetCodec() : ChangeCodec<Change.LayerSet>(ChangeKind.LayerSet)
{
    protected override void Write(BatchWriter batch, Change.LayerSet change)
    {
        batch.Head.Guid(change.Layer);
        Parts.WriteFields(batch.Head, change.Values.Select(value => ((byte)value.Field, value.Value)), change.Values.Count);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.LayerSet(
            batch.Head.Guid(),
            Parts.ReadFields(ref batch.Head, LayerRules.Fields, field => (LayerField)field, (field, value) => new LayerValue(field, value))
        );

    protected override void Write(Utf8JsonWriter json, Change.LayerSet change)
    {
        json.WriteString("layer", change.Layer);
        JsonParts.WriteFields(json, change.Values.Select(value => (value.Field, value.Value)));
    }

    public override Change Read(JsonElement json) =>
        new Change.LayerSet(
            JsonParts.LayerOf(json),
            JsonParts.ReadFields<LayerField, LayerValue>(json, (field, value) => new LayerValue(field, value))
        );
}
