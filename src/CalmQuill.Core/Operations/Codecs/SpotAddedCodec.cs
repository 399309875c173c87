using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class SpotAddedCodec() : ChangeCodec<Change.SpotAdded>(ChangeKind.SpotAdded)
{
    protected override void Write(BatchWriter batch, Change.SpotAdded change)
    {
        batch.Head.Guid(change.Spot);
        batch.Head.Byte((byte)change.SpotKind);
        batch.Head.Signed(change.Area.Left);
        batch.Head.Signed(change.Area.Top);
        batch.Head.Signed(change.Area.Right - (long)change.Area.Left);
        batch.Head.Signed(change.Area.Bottom - (long)change.Area.Top);
        Parts.WriteIds(batch.Head, change.Items);
        Fields.OfSpots.Write(batch.Head, change.Values);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.SpotAdded(
            batch.Head.Guid(),
            (SpotKind)batch.Head.Byte(),
            Parts.ReadBox(ref batch.Head),
            Parts.ReadIds(ref batch.Head),
            Fields.OfSpots.Read(ref batch.Head)
        );

    protected override void Write(Utf8JsonWriter json, Change.SpotAdded change)
    {
        json.WriteString("spot", change.Spot);
        json.WriteString("spotKind", change.SpotKind.ToString());
        JsonParts.WriteNumbers(json, "area", [change.Area.Left, change.Area.Top, change.Area.Right, change.Area.Bottom]);
        JsonParts.WriteItems(json, change.Items);
        Fields.OfSpots.Write(json, change.Values);
    }

    public override Change Read(JsonElement json) =>
        new Change.SpotAdded(
            json.GetProperty("spot").GetGuid(),
            Enum.Parse<SpotKind>(JsonParts.Text(json, "spotKind")),
            BoxOf(json.GetProperty("area")),
            JsonParts.ReadItems(json),
            Fields.OfSpots.Read(json)
        );

    private static Box BoxOf(JsonElement json) => new(json[0].GetInt32(), json[1].GetInt32(), json[2].GetInt32(), json[3].GetInt32());
}
