using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class ItemsShiftedCodec() : ChangeCodec<Change.ItemsShifted>(ChangeKind.ItemsShifted)
{
    protected override void Write(BatchWriter batch, Change.ItemsShifted change)
    {
        Parts.WriteIds(batch.Head, change.Items);
        batch.Head.Signed(change.Dx);
        batch.Head.Signed(change.Dy);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.ItemsShifted(Parts.ReadIds(ref batch.Head), batch.Head.Int32(), batch.Head.Int32());

    protected override void Write(Utf8JsonWriter json, Change.ItemsShifted change)
    {
        JsonParts.WriteItems(json, change.Items);
        json.WriteNumber("dx", change.Dx);
        json.WriteNumber("dy", change.Dy);
    }

    public override Change Read(JsonElement json) =>
        new Change.ItemsShifted(JsonParts.ReadItems(json), json.GetProperty("dx").GetInt32(), json.GetProperty("dy").GetInt32());
}
