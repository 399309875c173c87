using System.Text.Json;
using CalmQuill.Core.Library;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class NodePlacedCodec() : ChangeCodec<Change.NodePlaced>(ChangeKind.NodePlaced)
{
    protected override void Write(BatchWriter batch, Change.NodePlaced change)
    {
        batch.Head.Guid(change.Node);
        batch.Head.Byte((byte)change.NodeKind);
        batch.Head.Guid(change.Parent);
        batch.Head.Text(change.Order);
    }

    public override Change Read(ref BatchReader batch) =>
        new Change.NodePlaced(batch.Head.Guid(), (NodeKind)batch.Head.Byte(), batch.Head.Guid(), batch.Head.Text(TextRule.LeastBytesRead));

    protected override void Write(Utf8JsonWriter json, Change.NodePlaced change)
    {
        json.WriteString("node", change.Node);
        json.WriteString("nodeKind", change.NodeKind.ToString());
        json.WriteString("parent", change.Parent);
        json.WriteString("order", change.Order);
    }

    public override Change Read(JsonElement json) =>
        new Change.NodePlaced(
            json.GetProperty("node").GetGuid(),
            Enum.Parse<NodeKind>(JsonParts.Text(json, "nodeKind")),
            json.GetProperty("parent").GetGuid(),
            JsonParts.Text(json, "order")
        );
}
