using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class ItemsRemovedCodec() : ChangeCodec<Change.ItemsRemoved>(ChangeKind.ItemsRemoved)
{
    protected override void Write(BatchWriter batch, Change.ItemsRemoved change)
    {
        Parts.WriteIds(batch.Head, change.Items);
    }

    public override Change Read(ref BatchReader batch) => new Change.ItemsRemoved(Parts.ReadIds(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.ItemsRemoved change)
    {
        JsonParts.WriteItems(json, change.Items);
    }

    public override Change Read(JsonElement json) => new Change.ItemsRemoved(JsonParts.ReadItems(json));
}
