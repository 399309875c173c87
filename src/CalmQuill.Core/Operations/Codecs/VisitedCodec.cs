using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class VisitedCodec() : ChangeCodec<Change.Visited>(ChangeKind.Visited)
{
    protected override void Write(BatchWriter batch, Change.Visited change)
    {
        batch.Head.Guid(change.Space);
        batch.Head.Guid(change.Target);
    }

    public override Change Read(ref BatchReader batch) => new Change.Visited(batch.Head.Guid(), batch.Head.Guid());

    protected override void Write(Utf8JsonWriter json, Change.Visited change)
    {
        json.WriteString("space", change.Space);
        json.WriteString("target", change.Target);
    }

    public override Change Read(JsonElement json) =>
        new Change.Visited(json.GetProperty("space").GetGuid(), json.GetProperty("target").GetGuid());
}
