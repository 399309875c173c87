using System.Text.Json;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class PageAddedCodec() : ChangeCodec<Change.PageAdded>(ChangeKind.PageAdded)
{
    protected override void Write(BatchWriter batch, Change.PageAdded change)
    {
        batch.Head.Guid(change.Page);
        batch.Head.Text(change.Order);
        batch.Head.Text(change.Paper);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.PageAdded(
            batch.Head.Guid(),
            batch.Head.Text(TextRule.LeastBytesRead),
            batch.Head.Text(Properties.MostBytes(Property.Paper))
        );

    protected override void Write(Utf8JsonWriter json, Change.PageAdded change)
    {
        json.WriteString("page", change.Page);
        json.WriteString("order", change.Order);
        json.WriteString("paper", change.Paper);
    }

    public override Change Read(JsonElement json) =>
        new Change.PageAdded(json.GetProperty("page").GetGuid(), JsonParts.Text(json, "order"), JsonParts.Text(json, "paper"));
}
