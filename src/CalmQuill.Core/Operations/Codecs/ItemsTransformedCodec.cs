using System.Text.Json;
using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class ItemsTransformedCodec() : ChangeCodec<Change.ItemsTransformed>(ChangeKind.ItemsTransformed)
{
    protected override void Write(BatchWriter batch, Change.ItemsTransformed change)
    {
        Parts.WriteIds(batch.Head, change.Items);
        batch.Head.Varint((ulong)change.Spots.Count);
        foreach (var spot in change.Spots)
            batch.Head.Guid(spot);
        var (a, b, c, d, e, f) = change.Transform;
        foreach (var number in new[] { a, b, c, d, e, f })
            batch.Head.Signed(number);
    }

    public override Change Read(ref BatchReader batch)
    {
        var items = Parts.ReadIds(ref batch.Head);
        var spots = new Guid[batch.Head.Count(OperationCodec.MostItems, 16, "signs")];
        for (var i = 0; i < spots.Length; i++)
            spots[i] = batch.Head.Guid();
        return new Change.ItemsTransformed(
            items,
            spots,
            new Transform(
                batch.Head.Int32(),
                batch.Head.Int32(),
                batch.Head.Int32(),
                batch.Head.Int32(),
                batch.Head.Int32(),
                batch.Head.Int32()
            )
        );
    }

    protected override void Write(Utf8JsonWriter json, Change.ItemsTransformed change)
    {
        JsonParts.WriteItems(json, change.Items);
        json.WriteStartArray("spots");
        foreach (var spot in change.Spots)
            json.WriteStringValue(spot);
        json.WriteEndArray();
        var (a, b, c, d, e, f) = change.Transform;
        JsonParts.WriteNumbers(json, "transform", [a, b, c, d, e, f]);
    }

    public override Change Read(JsonElement json) =>
        new Change.ItemsTransformed(
            JsonParts.ReadItems(json),
            [.. json.GetProperty("spots").EnumerateArray().Select(spot => spot.GetGuid())],
            TransformOf(json.GetProperty("transform"))
        );

    private static Transform TransformOf(JsonElement json) =>
        new(json[0].GetInt32(), json[1].GetInt32(), json[2].GetInt32(), json[3].GetInt32(), json[4].GetInt32(), json[5].GetInt32());
}
