using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class ItemsTransformedCodec() : ChangeCodec<Change.ItemsTransformed>(ChangeKind.ItemsTransformed)
{
    protected override void Write(BatchWriter batch, Change.ItemsTransformed change)
    {
        Parts.WriteIds(batch.Head, change.Items);
        batch.Head.Varint((ulong)change.Spots.Count);
        foreach (var spot in change.Spots)
            batch.Head.Guid(spot);
        Parts.WriteTransform(batch.Head, change.Transform);
    }

    public override Change Read(ref BatchReader batch)
    {
        var items = Parts.ReadIds(ref batch.Head);
        var spots = new Guid[batch.Head.Count(OperationCodec.MostItems, 16, "signs")];
        for (var i = 0; i < spots.Length; i++)
            spots[i] = batch.Head.Guid();
        return new Change.ItemsTransformed(items, spots, Parts.ReadTransform(ref batch.Head));
    }

    protected override void Write(Utf8JsonWriter json, Change.ItemsTransformed change)
    {
        JsonParts.WriteItems(json, change.Items);
        json.WriteStartArray("spots");
        foreach (var spot in change.Spots)
            json.WriteStringValue(spot);
        json.WriteEndArray();
        JsonParts.WriteTransform(json, change.Transform);
    }

    public override Change Read(JsonElement json) =>
        new Change.ItemsTransformed(
            JsonParts.ReadItems(json),
            [.. json.GetProperty("spots").EnumerateArray().Select(spot => spot.GetGuid())],
            JsonParts.ReadTransform(json)
        );
}
