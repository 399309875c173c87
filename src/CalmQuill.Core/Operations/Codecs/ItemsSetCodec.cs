using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class ItemsSetCodec() : ChangeCodec<Change.ItemsSet>(ChangeKind.ItemsSet)
{
    protected override void Write(BatchWriter batch, Change.ItemsSet change)
    {
        Parts.WriteIds(batch.Head, change.Items);
        Fields.OfItems.Write(batch.Head, change.Values);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.ItemsSet(Parts.ReadIds(ref batch.Head), Fields.OfItems.Read(ref batch.Head));

    protected override void Write(Utf8JsonWriter json, Change.ItemsSet change)
    {
        JsonParts.WriteItems(json, change.Items);
        Fields.OfItems.Write(json, change.Values);
    }

    public override Change Read(JsonElement json) => new Change.ItemsSet(JsonParts.ReadItems(json), Fields.OfItems.Read(json));
}
