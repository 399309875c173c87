using System.Text.Json;
using CalmQuill.Core.Library;

namespace CalmQuill.Core.Operations.Codecs;

internal sealed class OrdersSetCodec() : ChangeCodec<Change.OrdersSet>(ChangeKind.OrdersSet)
{
    protected override void Write(BatchWriter batch, Change.OrdersSet change)
    {
        batch.Head.Varint((ulong)change.Orders.Count);
        foreach (var (node, order) in change.Orders)
        {
            batch.Head.Guid(node);
            batch.Head.Text(order);
        }
    }

    public override Change Read(ref BatchReader batch)
    {
        var orders = new NodeOrder[batch.Head.Count(OperationCodec.MostItems, 17, "things")];
        for (var i = 0; i < orders.Length; i++)
            orders[i] = new NodeOrder(batch.Head.Guid(), batch.Head.Text(TextRule.LeastBytesRead));
        return new Change.OrdersSet(orders);
    }

    protected override void Write(Utf8JsonWriter json, Change.OrdersSet change)
    {
        json.WriteStartObject("orders");
        foreach (var (node, order) in change.Orders)
            json.WriteString(node.ToString(), order);
        json.WriteEndObject();
    }

    public override Change Read(JsonElement json) =>
        new Change.OrdersSet([
            .. json.GetProperty("orders").EnumerateObject().Select(one => new NodeOrder(Guid.Parse(one.Name), one.Value.GetString() ?? "")),
        ]);
}
