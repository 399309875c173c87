using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class SpotSetCodec() : ChangeCodec<Change.SpotSet>(ChangeKind.SpotSet)
{
    protected override void Write(BatchWriter batch, Change.SpotSet change)
    {
        batch.Head.Guid(change.Spot);
        Fields.OfSpots.Write(batch.Head, change.Values);
    }

    public override Change Read(ref BatchReader batch) => new Change.SpotSet(batch.Head.Guid(), Fields.OfSpots.Read(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.SpotSet change)
    {
        json.WriteString("spot", change.Spot);
        Fields.OfSpots.Write(json, change.Values);
    }

    public override Change Read(JsonElement json) => new Change.SpotSet(json.GetProperty("spot").GetGuid(), Fields.OfSpots.Read(json));
}
