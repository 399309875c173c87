using System.Text.Json;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class SpotSetCodec() : ChangeCodec<Change.SpotSet>(ChangeKind.SpotSet)
{
    protected override void Write(BatchWriter batch, Change.SpotSet change)
    {
        batch.Head.Guid(change.Spot);
        Parts.WriteFields(batch.Head, change.Values.Select(value => ((byte)value.Field, value.Value)), change.Values.Count);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.SpotSet(
            batch.Head.Guid(),
            Parts.ReadFields(ref batch.Head, SpotRules.Fields, field => (SpotField)field, (field, value) => new SpotValue(field, value))
        );

    protected override void Write(Utf8JsonWriter json, Change.SpotSet change)
    {
        json.WriteString("spot", change.Spot);
        JsonParts.WriteFields(json, change.Values.Select(value => (value.Field, value.Value)));
    }

    public override Change Read(JsonElement json) =>
        new Change.SpotSet(
            json.GetProperty("spot").GetGuid(),
            JsonParts.ReadFields<SpotField, SpotValue>(json, (field, value) => new SpotValue(field, value))
        );
}
