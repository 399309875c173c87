using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class StepsJoinedCodec() : ChangeCodec<Change.StepsJoined>(ChangeKind.StepsJoined)
{
    protected override void Write(BatchWriter batch, Change.StepsJoined change)
    {
        Parts.WriteIds(batch.Head, change.Steps);
    }

    public override Change Read(ref BatchReader batch) => new Change.StepsJoined(Parts.ReadIds(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.StepsJoined change)
    {
        JsonParts.WriteItems(json, change.Steps, "steps");
    }

    public override Change Read(JsonElement json) => new Change.StepsJoined(JsonParts.ReadItems(json, "steps"));
}
